import { clampRounds } from '../../../../core/view';
import {
  camberPhrase,
  edgeOf,
  pairingOf,
  type Sessions,
  strokesFor,
  TIGHTENING_WORDS,
} from '../../../../core/glueup';
import { CLAMP_SCHOOLS, type ClampSchool, gluingOf, type Tightening } from '../../../../core/kit';
import { counted, forceText, pressureText, dialled } from '../../../../core/units';
import { useDisplay } from '../../../app/display';
import { jobActions } from '../../../app/job';
import { useAppDispatch, useAppSelector } from '../../../app/store';
import { Toggle } from '../../../parts/Toggle';
import { CountField } from '../../../parts/CountField';
import { LengthField } from '../../../parts/LengthField';
import { How } from '../../../parts/How';
import { Measure } from '../../../parts/Measure';
import { NumberField } from '../../../parts/NumberField';
import { useSettle } from '../use-edit';
import { ChosenClamp } from './ChosenClamp';
import { Fact, type GluePart, Say, usePlanGlue, Why } from './parts';

const SHORT: Record<ClampSchool, string> = { fan: '45°', reach: 'Measured', elastic: 'Elastic' };
const GOVERNS = {
  spread: 'reach',
  force: 'force',
  'largest spacing': 'largest spacing',
  hand: 'your hand',
} as const;

/** Clamps: how many under each school and why, what each joint gets, and the joint and clamp chosen on the bench. */
/** Glue-ups alike: how many stand at once, how often, and how long that takes in clamps. */
function SessionsNote({
  sessions: { glueUps, atOnce, sessions, limit },
  hours,
}: {
  sessions: Sessions;
  hours: number;
}) {
  const why =
    'set' in limit ? `“${limit.set}” holds no more` : `${counted(limit.benches, 'bench', 'benches')}`;
  return (
    <p className="text-[14px]" data-testid="sessions">
      <strong className="font-semibold">{glueUps} glue-ups alike:</strong> {atOnce} at once, {why}.{' '}
      {counted(sessions, 'session')}, {Math.round(sessions * hours * 10) / 10} h in clamps.
    </p>
  );
}

export function ClampsView({ build, step, planned }: GluePart) {
  const settle = useSettle();
  const display = useDisplay();
  const chosen = useAppSelector(({ job }) => job.clamp);
  const { clamps, glueUp } = planned;
  const set = usePlanGlue(step);
  if (glueUp.askew)
    return (
      <Why>
        Parts lie askew to one another. Hold them with band clamps or tape, or rub the joints; Junta plans no
        forces here.
      </Why>
    );
  const school = CLAMP_SCHOOLS.find(({ id }) => id === clamps.school);
  const hardest = clamps.clamps.reduce((most, { forceN }) => Math.max(most, forceN), 0);
  const inch = display.system === 'inch';
  const pressure = dialled('pressure', display);
  return (
    <>
      {clamps.clamps.some(({ id }) => id === chosen) && (
        <ChosenClamp build={build} step={step} planned={planned} />
      )}
      <Toggle
        label="Clamp spacing follows"
        value={clamps.school}
        options={CLAMP_SCHOOLS.map(({ id, name }) => ({ value: id, label: name }))}
        onChange={(next) => set({ school: next, clamps: undefined })}
      />
      {planned.sessions && <SessionsNote sessions={planned.sessions} hours={planned.gates.unclampH} />}
      <table className="w-full text-[14px]" aria-label="Clamps by method">
        <thead>
          <tr className="label">
            <th className="py-0.5 text-left font-medium">
              <span className="sr-only">Method</span>
            </th>
            <th className="text-right font-medium">to reach</th>
            <th className="text-right font-medium">by force</th>
            <th className="text-right font-medium">clamps</th>
            <th className="text-right font-medium">decides</th>
          </tr>
        </thead>
        <tbody>
          {clamps.schools.map((each) => (
            <tr
              key={each.school}
              data-school={each.school}
              className={`border-line border-t border-dotted ${each.school === clamps.school ? 'font-semibold' : 'text-graphite'}`}
            >
              <td className="py-0.5">
                {SHORT[each.school]}
                {each.school === clamps.school && (
                  <How of={({ workedClamps }) => [workedClamps(build, step.id)]} what="Clamps" />
                )}
              </td>
              <td className="rule text-right">{each.spread}</td>
              <td className="rule text-right">{clamps.byForce ?? '–'}</td>
              <td className="rule text-right">{each.count * clamps.rows}</td>
              <td className="pl-2 text-right text-[13px]">{GOVERNS[each.governs]}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Why>
        {school?.why} {clamps.byHand && 'Clamps now stand where you put them.'}
      </Why>
      <Joints build={build} step={step} planned={planned} />
      <dl>
        <Fact name="Opening needed">
          <Measure value={clamps.openingMm} display={display} unit />
        </Fact>
        <Fact name="Long enough on the rack">{clamps.longEnough}</Fact>
        {clamps.picks.map(({ set: rack, count }) => (
          <Fact key={rack.id} name={rack.name}>
            {count} of {rack.count}
          </Fact>
        ))}
        <Fact name="Force of each, at most">{forceText(hardest, display)}</Fact>
        <Fact
          name={clamps.edgeCaulMm > 0 ? 'On the wood, through the caul' : 'On the wood, under the pad'}
          title={`dents from ${pressureText(clamps.strengthMPa, display)} across the grain, unverified`}
        >
          <span className={clamps.padMPa > clamps.strengthMPa ? 'text-red' : ''}>
            {pressureText(clamps.padMPa, display)}
          </span>
        </Fact>
        <Fact name={`Joint ${clamps.worstJoint} gets, on the mean`}>
          {pressureText(clamps.perJoint.find(({ joint }) => joint === clamps.worstJoint)?.mpa ?? 0, display)}
        </Fact>
        {glueUp.blanks > 1 && (
          <Fact name={`${glueUp.blanks} blanks alike, clamps for all`}>
            {clamps.clamps.length * glueUp.blanks}
          </Fact>
        )}
        <Fact name="Such glue-ups at once with this rack">
          {clamps.atOnce}
          {clamps.atOnce > 0 &&
            glueUp.blanks > clamps.atOnce &&
            `, ${clampRounds(glueUp.blanks, clamps.atOnce)} rounds`}
        </Fact>
      </dl>
      <div className="grid grid-cols-2 gap-x-3 gap-y-2">
        <NumberField
          label={`Pressure wanted, ${pressure.unit}`}
          value={pressure.shown(clamps.wantedMPa)}
          least={inch ? 1 : 0.01}
          most={inch ? 1000 : 7}
          onChange={(value) => set({ wantedMPa: pressure.stored(value) }, 'wanted')}
          onSettled={settle}
        />
        <LengthField
          label="Cauls on the edges, high"
          value={{
            mm: clamps.edgeCaulMm,
            ...(step.plan?.edgeCaul?.typed ? { typed: step.plan.edgeCaul.typed } : {}),
          }}
          display={display}
          rule={{ minMm: 0, maxMm: 500 }}
          onChange={(edgeCaul) => set({ edgeCaul }, 'caul')}
          onSettled={settle}
        />
        <CountField
          label="Pairs of cauls across"
          value={clamps.crossCauls.pairs}
          least={0}
          most={40}
          onChange={(crossCauls) => set({ crossCauls }, 'cross')}
          onSettled={settle}
        />
        {clamps.crossCauls.pairs > 0 && (
          <div className="text-[13.5px]">
            <span className="label block pb-0.5">Each of these cauls is</span>
            <Say phrase={camberPhrase(clamps.crossCauls)} />
          </div>
        )}
      </div>
      {clamps.bareCount !== clamps.cauledCount && (
        <Why>
          To reach everywhere: {clamps.bareCount} bare, {clamps.cauledCount} with this shop’s cauls on the
          edges.
        </Why>
      )}
      <Toggle
        label="Tightened"
        value={clamps.tightening}
        options={(['middle', 'rounds', 'ends'] as Tightening[]).map((way) => ({
          value: way,
          label: { middle: 'Middle first', rounds: 'In rounds', ends: 'End by end' }[way],
        }))}
        onChange={(tightening) => set({ tightening })}
      />
      <Why>{TIGHTENING_WORDS[clamps.tightening]}.</Why>
      <details>
        <summary className="text-graphite cursor-pointer text-[14px] font-medium">
          What is known, and what not
        </summary>
        {CLAMP_SCHOOLS.map(({ id, name, known }) => (
          <p key={id} className="pt-1.5 text-[13px]">
            <strong className="font-semibold">{name}.</strong> {known}
          </p>
        ))}
      </details>
    </>
  );
}

/** What each joint gets, in words; the chosen one with its edges and numbers. */
function Joints({ build, step, planned }: GluePart) {
  const dispatch = useAppDispatch();
  const planGlue = usePlanGlue(step);
  const settle = useSettle();
  const display = useDisplay();
  const joint = useAppSelector(({ job }) => job.joint);
  const pressure = useAppSelector(({ job }) => job.pressure);
  const answer = pressure?.step === step.id ? pressure.answer : undefined;
  const chosen = edgeOf(planned.glueUp, joint, build.shop);
  const edges = step.plan?.edges ?? [];
  const setEdge = (change: Partial<typeof chosen>, mark?: string) =>
    planGlue(
      { edges: [...edges.filter((each) => each.joint !== joint), { ...chosen, ...change, joint }] },
      mark,
    );
  const found = answer?.joints.find((each) => each.joint === joint);
  const strokes =
    chosen.depth.mm > 0
      ? strokesFor((chosen.shape === 'crowned' ? -1 : 1) * (chosen.depth.mm / 2), build.shop)
      : undefined;
  return (
    <section aria-label="Joints" aria-busy={!answer || answer.quick || pressure?.stale}>
      <h3 className="label flex justify-between">
        What the joints get
        <span>
          {!answer
            ? 'solving …'
            : answer.quick || pressure?.stale
              ? 'first picture, solving …'
              : answer.coarse
                ? 'on coarse cells'
                : ''}
        </span>
      </h3>
      <ol className="max-h-40 overflow-y-auto">
        {planned.glueUp.lines.map((line) => {
          const each = answer?.joints.find(({ joint: j }) => j === line.joint);
          return (
            <li key={line.joint}>
              <button
                type="button"
                data-joint-words={line.joint}
                aria-pressed={line.joint === joint}
                className={`flex min-h-6 w-full gap-2 rounded px-1 py-[2px] text-left text-[14px] ${line.joint === joint ? 'bg-chalk-wash text-chalk' : 'hover:bg-chalk-wash'}`}
                onClick={() => dispatch(jobActions.jointChosen(line.joint))}
              >
                <span className="rule w-5 text-right">{line.joint}</span>
                <span className={each?.words === 'open' ? 'text-red' : ''}>
                  {each ? <Say phrase={each.phrase} /> : '…'}
                </span>
              </button>
            </li>
          );
        })}
      </ol>
      {answer?.wideOutside && answer.joints.some(({ words }) => words !== 'even') && (
        <Why>Wide boards outside would spread the pressure farther.</Why>
      )}
      <div className="border-chalk mt-1.5 flex flex-col gap-2 border-l-[3px] pl-3">
        <Toggle
          label={`Edges of joint ${joint}`}
          value={chosen.shape}
          options={(['straight', 'sprung', 'crowned', 'wavy'] as const).map((shape) => ({
            value: shape,
            label: { straight: 'Straight', sprung: 'Sprung', crowned: 'Crowned', wavy: 'Wavy' }[shape],
          }))}
          onChange={(shape) =>
            setEdge({
              shape,
              depth:
                shape === 'straight'
                  ? { mm: 0 }
                  : chosen.depth.mm > 0
                    ? chosen.depth
                    : gluingOf(build.shop).hollow,
              ...(shape === 'wavy' ? { wave: chosen.wave ?? { mm: 200 } } : {}),
            })
          }
        />
        <Toggle
          label={`Edges of joint ${joint} are planed`}
          value={pairingOf(planned.glueUp, joint, build.shop)}
          options={[
            { value: 'single', label: 'One by one' },
            { value: 'folded', label: 'Folded' },
            { value: 'opposed', label: 'Faces opposed' },
          ]}
          onChange={(how) =>
            planGlue({
              pairs: [...(step.plan?.pairs ?? []).filter((each) => each.joint !== joint), { joint, how }],
            })
          }
        />
        {chosen.shape !== 'straight' && (
          <div className="grid grid-cols-2 gap-x-3">
            <LengthField
              label="Gap between both"
              value={chosen.depth}
              display={{ ...display, fraction: display.system === 'inch' ? 0 : display.fraction }}
              rule={{ minMm: 0, maxMm: 20 }}
              stepMm={0.05}
              onChange={(depth) => setEdge({ depth }, `edge${joint}`)}
              onSettled={settle}
            />
            {chosen.shape === 'wavy' && (
              <LengthField
                label="From peak to peak"
                value={chosen.wave ?? { mm: 200 }}
                display={display}
                rule={{ minMm: 20, maxMm: 5000 }}
                onChange={(wave) => setEdge({ wave }, `wave${joint}`)}
                onSettled={settle}
              />
            )}
          </div>
        )}
        {found?.closing && (
          <p className="text-[13.5px]">
            Closing the gap alone eats{' '}
            <span className="rule">
              {found.closing.mpa !== undefined
                ? pressureText(found.closing.mpa, display)
                : forceText(found.closing.newtons ?? 0, display)}
            </span>
            , {Math.round(found.closing.sharePct)} % of what the clamps give.
          </p>
        )}
        {strokes && strokes.strokes > 0 && (
          <p className="text-[13.5px]">
            {counted(strokes.strokes, 'stroke')}{' '}
            {strokes.where === 'middle' ? 'stopped in the middle' : 'over the whole length'} of each edge
            bring it to this shop’s {gluingOf(build.shop).edges} edge.
          </p>
        )}
        {found && (
          <details>
            <summary className="text-graphite cursor-pointer text-[13.5px]">Numbers</summary>
            <dl>
              <Fact name="Least over mean">{found.leastOverMean.toFixed(2)}</Fact>
              <Fact name="Least, mean">
                {pressureText(found.leastMPa, display)}, {pressureText(found.meanMPa, display)}
              </Fact>
              <Fact name="Below the wanted pressure">{Math.round(found.belowPct)} %</Fact>
              <Fact name="Open">
                <Measure value={found.openMm} display={display} unit />
              </Fact>
            </dl>
          </details>
        )}
      </div>
    </section>
  );
}
