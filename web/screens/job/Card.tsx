import { ChevronLeft, ChevronRight } from 'lucide-react';
import { memo, useState } from 'react';
import { type BuildDocument, phraseText, type Step } from '../../../core/document';
import { type Held, heldWords, machineFacts, type ShopSnapshot } from '../../../core/kit';
import type { Outlook, StepOutlook } from '../../../core/review';
import {
  asFlattening,
  asGlueUp,
  machineOfStep,
  roomOf,
  stepName,
  subtitleOf,
  tookBy,
} from '../../../core/steps';
import {
  areaText,
  counted,
  type Display,
  massText,
  minutesText,
  moneyText,
  offText,
  volumeText,
} from '../../../core/units';
import { jointShares, liftWords, lostInAll, setWithCarrier, slackOf } from '../../../core/view';
import { shopTime } from '../../app/clock';
import { useDisplay } from '../../app/display';
import { jobActions } from '../../app/job';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { Measure } from '../../parts/Measure';
import { Failed, Noted } from './CardRecord';
import { FindingNote } from './FindingNote';
import { CutList, HeldSo, Reserves, Row } from './CardParts';
import { Facts } from './Facts';
import { Measured } from './Measured';
import { StepSettings } from './StepSettings';
import { ChosenStrip, StripList } from './StripSettings';
import { GlueTabs } from './glue/GlueTabs';
import { ChainPart } from './chain/ChainPart';
import { PulledUp } from './PulledUp';
import { useEdit } from './use-edit';
import { lazily } from '../../parts/lazily';

const FlattenWindow = lazily(() => import('./FlattenWindow'), 'FlattenWindow');
const PassList = lazily(() => import('./PassList'), 'PassList');
const GlueCard = lazily(() => import('./glue/GlueCard'), 'GlueCard');

/** The chosen step: its findings, its settings, and what is predicted after it. */
export const Card = memo(function Card({
  build,
  outlook,
  step,
}: {
  build: BuildDocument;
  outlook: Outlook;
  step: Step;
}) {
  const display = useDisplay();
  const edit = useEdit();
  const glueView = useAppSelector(({ job }) => job.glueView);
  const planned = useAppSelector(({ job }) => job.planned);
  const glue = asGlueUp(step);
  const seen = outlook.steps.find(({ id }) => id === step.id);
  const findings = outlook.findings.filter(
    (finding) =>
      finding.step === step.id || (finding.step === '' && step === build.steps[build.steps.length - 1]),
  );
  return (
    <PulledUp
      title={stepName(step)}
      first={findings.find(({ severity }) => severity !== 'note')}
      display={display}
    >
      <header className="max-desk:hidden">
        <h2 className="text-[18px] leading-tight font-semibold">{stepName(step)}</h2>
        <p className="text-graphite text-[13.5px]">{subtitle(step, build, seen)}</p>
      </header>
      {glue && <GlueTabs findings={findings} />}
      {glue && glueView !== 'layUp' ? (
        planned?.step === step.id && planned.plan ? (
          <GlueCard build={build} step={glue} planned={planned.plan} findings={findings} />
        ) : (
          <p className="text-graphite text-[14px]">
            {planned?.step === step.id
              ? seen?.glue && seen.glue.joints > 0
                ? 'Its parts lie askew to one another: hold them with band clamps, tape or blocks. Junta plans no clamps here.'
                : 'There is no joint to plan in this glue-up.'
              : 'Planning the glue-up …'}
          </p>
        )
      ) : (
        <>
          <ChosenStrip build={build} step={step} seen={seen} />
          {findings.map((finding, i) => (
            <FindingNote key={`${finding.code}${i}`} finding={finding} />
          ))}
          <Caution step={step} build={build} />
          <HeldSo step={step} display={display} />
          <StepSettings key={step.id} build={build} step={step} as={seen?.as} />
          <StripList build={build} step={step} seen={seen} />
          {seen?.facts && <Facts facts={seen.facts.filter(({ of }) => of === undefined)} display={display} />}
          {seen && <Predicted seen={seen} step={step} build={build} display={display} />}
          {seen && seen.held.length > 0 && <AtHand held={seen.held} shop={build.shop} />}
          {seen && seen.count > 0 && (
            <Measured key={`${step.id} measured`} build={build} step={step} seen={seen} />
          )}
          {seen && step.id === outlook.finishedStep && (
            <WholeJob outlook={outlook} build={build} display={display} />
          )}
        </>
      )}
      <Failed key={`${step.id} failed`} build={build} step={step} />
      <Noted key={`${step.id} noted`} build={build} step={step} />
      <div className="mt-auto">
        <ChainPart key={step.id} build={build} step={step} />
      </div>
      <label className="text-graphite flex items-center gap-2 pt-1 text-[14px]">
        <input
          type="checkbox"
          className="accent-chalk h-4 w-4"
          checked={step.done ?? false}
          onChange={({ target: { checked: done } }) =>
            edit({
              do: 'setStep',
              step: step.id,
              change: { done, doneAt: done ? shopTime() : undefined },
            })
          }
        />
        This step is done
      </label>
      <Neighbours build={build} step={step} />
    </PulledUp>
  );
});

/** On a phone the card ends with the way to the steps before and after. */
function Neighbours({ build, step }: { build: BuildDocument; step: Step }) {
  const dispatch = useAppDispatch();
  const at = build.steps.indexOf(step);
  const [before, after] = [build.steps[at - 1], build.steps[at + 1]] as (Step | undefined)[];
  const go = (to: Step) => dispatch(jobActions.stepChosen(to.id));
  return (
    <nav aria-label="Steps before and after" className="desk:hidden grid grid-cols-2 gap-2 pt-1">
      {before ? (
        <button type="button" className="action h-12! min-w-0 justify-center" onClick={() => go(before)}>
          <ChevronLeft size={18} aria-hidden className="shrink-0" />
          <span className="truncate">{stepName(before)}</span>
        </button>
      ) : (
        <span />
      )}
      {after && (
        <button
          type="button"
          className="action action-main h-12! min-w-0 justify-center"
          onClick={() => go(after)}
        >
          <span className="truncate">{stepName(after)}</span>
          <ChevronRight size={18} aria-hidden className="shrink-0" />
        </button>
      )}
    </nav>
  );
}

/** The usual caution of a step not yet done: of its work, and of its machine. */
function Caution({ step, build }: { step: Step; build: BuildDocument }) {
  const machine = machineOfStep(step, build);
  const words = [roomOf(step).caution, machine && machineFacts(machine).caution].filter(Boolean).join(' ');
  if (step.done || !words) return null;
  return (
    <p className="text-graphite text-[13px]">
      <strong className="text-ink font-semibold">Caution.</strong> {words}
    </p>
  );
}

/** What a step, or the job, wants at hand besides wood and clamps, and what is missing. */
function AtHand({
  title = 'At hand',
  held,
  shop,
}: {
  title?: string;
  held: readonly Held[];
  shop: ShopSnapshot;
}) {
  const display = useDisplay();
  return (
    <section aria-label={title}>
      <h3 className="label pb-1">{title}</h3>
      <ul className="text-[14px]">
        {held.map((each) => (
          <li key={JSON.stringify(each.need)} className={each.short > 0 ? 'text-red font-medium' : ''}>
            {phraseText(heldWords(each, shop), display)}
            {each.cost && `, about ${moneyText(each.cost.minor, each.cost.currency)}`}
          </li>
        ))}
      </ul>
    </section>
  );
}

const subtitle = (step: Step, build: BuildDocument, seen: StepOutlook | undefined): string =>
  subtitleOf(step, {
    count: seen?.count,
    parts: seen?.laid?.length,
    strips:
      build.assemblies.find(({ id }) => id === (step as { assembly?: string }).assembly)?.slots.length ?? 0,
    machine: machineOfStep(step, build)?.name,
  });

function Predicted({
  seen,
  step,
  build,
  display,
}: {
  seen: StepOutlook;
  step: Step;
  build: BuildDocument;
  display: Display;
}) {
  const passes = seen.passCount;
  const [compared, setCompared] = useState(false);
  const carried = setWithCarrier(step, seen.greatest[2]);
  const slack = slackOf(seen.as ?? step, build.shop.allowances);
  const lift = liftWords(seen.heaviestKg, build.shop);
  return (
    <section aria-label="Predicted">
      <h3 className="label pb-1">After this step, likely 9 times in 10</h3>
      <dl>
        {(['Length', 'Width', 'Thickness'] as const).map((name, axis) => (
          <Row key={name} name={name}>
            <Measure value={seen.greatest[axis]} display={display} unit />
            <Off mm={seen.tolerance[axis].likelyMm} worst={seen.tolerance[axis].worstMm} display={display} />
          </Row>
        ))}
        {seen.glue && (
          <Row name={`${counted(seen.glue.joints, 'joint')}, area to glue`}>
            <span className="rule">{areaText(seen.glue.areaMm2, display)}</span>
          </Row>
        )}
        {!seen.passes && carried !== undefined && (
          <Row name="Set the machine to, carrier and all">
            <Measure value={carried} display={display} unit />
          </Row>
        )}
        {!seen.passes && passes !== undefined && passes > 0 && (
          <Row name="Passes over the machine">
            <span className="rule">{passes}</span>
          </Row>
        )}
        {seen.minutes !== undefined && seen.minutes > 0 && (
          <Row name="Work, about">
            <span className="rule">{minutesText(seen.minutes)}</span>
          </Row>
        )}
        {seen.helpers && (
          <Row name="Sacrificial wood, cut off again">
            <span className="rule">{volumeText(seen.helpers.woodMm3, display)}</span>
          </Row>
        )}
        {tookBy(seen.as ?? step, build).length > 0 && (
          <Row name="Taken away">
            <span className="rule">
              {volumeText(seen.lost.kerf + seen.lost.offcut + seen.lost.shaving + seen.lost.dust, display)}
            </span>
          </Row>
        )}
        {slack && (
          <Row name="Slack from rounding, ends and edges">
            <Measure value={slack.ends} display={display} />,{' '}
            <Measure value={slack.edges} display={display} unit />
          </Row>
        )}
        <Row name={seen.count > 1 ? `${seen.count} pieces weigh` : 'Weighs'}>
          <span className="rule">{massText(seen.massKg, display)}</span>
        </Row>
        {seen.count > 0 && (
          <Row name={seen.count > 1 ? 'To lift the heaviest' : 'To lift it'}>
            <span className={`text-[14px] ${lift.over ? 'text-red font-medium' : ''}`}>{lift.words}</span>
          </Row>
        )}
      </dl>
      {seen.reserves && <Reserves reserves={seen.reserves} display={display} />}
      {seen.cuts && <CutList cuts={seen.cuts} display={display} />}
      {asFlattening(step) && (
        <button type="button" className="action mt-3" onClick={() => setCompared(true)}>
          Compare ways to flatten
        </button>
      )}
      {compared && <FlattenWindow build={build} step={step.id} onClose={() => setCompared(false)} />}
      {seen.passes && (
        <div className="pt-3">
          <PassList plan={seen.passes} display={display} />
        </div>
      )}
    </section>
  );
}

/** A tolerance to the figures it deserves: thousandths of an inch, or hundredths of a millimetre. */
function Off({ mm, worst, display }: { mm: number; worst: number; display: Display }) {
  return (
    <span
      className="rule text-graphite ml-1.5 text-[13px] font-medium"
      title={`at worst ± ${offText(worst, display)}`}
    >
      ± {offText(mm, display)}
    </span>
  );
}

/** What the joints of the finished piece are worth: long grain holds, end grain hardly. */
const jointWords = (joints: Outlook['joints']): string =>
  jointShares(joints)
    .map(({ side, pct }) => `${pct} % ${side}`)
    .join(', ');

function WholeJob({ outlook, build, display }: { outlook: Outlook; build: BuildDocument; display: Display }) {
  const lost = lostInAll(outlook);
  return (
    <>
      {outlook.toBuy.length > 0 && (
        <AtHand title="To buy or borrow for this job" held={outlook.toBuy} shop={build.shop} />
      )}
      {outlook.sizes.length > 0 && (
        <section aria-label="Sizes that follow">
          <h3 className="label pb-1">Sizes that follow</h3>
          <dl>
            {outlook.sizes.map(({ id, name, mm, missesMm }) => (
              <Row key={id} name={name}>
                {mm === undefined ? (
                  <span className="text-red text-[14px]">no size: see its formula</span>
                ) : (
                  <Measure
                    value={mm}
                    display={display}
                    unit
                    className={missesMm === undefined ? '' : 'text-red'}
                  />
                )}
              </Row>
            ))}
          </dl>
        </section>
      )}
      <section aria-label="Wood">
        <h3 className="label pb-1">Where the wood goes</h3>
        <dl>
          <Row name="Wood in">
            <span className="rule">{volumeText(outlook.woodInMm3, display)}</span>
          </Row>
          <Row name="In the piece">
            <span className="rule">{volumeText(outlook.finishedMm3, display)}</span>
          </Row>
          <Row name="Kerf">
            <span className="rule">{volumeText(lost.kerf, display)}</span>
          </Row>
          <Row name="Shavings and dust">
            <span className="rule">{volumeText(lost.shaving + lost.dust, display)}</span>
          </Row>
          <Row name="Offcuts">
            <span className="rule">{volumeText(lost.offcut, display)}</span>
          </Row>
          <Row name={`${counted(outlook.joints.count, 'joint')}, glued in all`}>
            <span className="rule">{areaText(outlook.joints.areaMm2, display)}</span>
          </Row>
          {outlook.joints.finishedAreaMm2 > 0 && (
            <Row name="Joints in the piece">
              <span className="rule">{jointWords(outlook.joints)}</span>
            </Row>
          )}
        </dl>
      </section>
    </>
  );
}
