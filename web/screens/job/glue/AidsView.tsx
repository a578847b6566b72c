import { X } from 'lucide-react';
import { useState } from 'react';
import type { KeptClear, OwnAidSize } from '../../../../core/document';
import { AID_COVER, type AidSize, thirdOf } from '../../../../core/glueup';
import { AID_KINDS, gluingOf } from '../../../../core/kit';
import type { Length } from '../../../../core/units';
import { useDisplay } from '../../../app/display';
import { useAppSelector } from '../../../app/store';
import { Choice } from '../../../parts/Choice';
import { CountField } from '../../../parts/CountField';
import { LengthField } from '../../../parts/LengthField';
import { Measure } from '../../../parts/Measure';
import { useSettle } from '../use-edit';
import { Fact, type GluePart, Say, usePlanGlue, Why } from './parts';

/** Alignment aids: which, where, centred how, and what they keep clear of. */
export function AidsView({ build, step, planned }: GluePart) {
  const planGlue = usePlanGlue(step);
  const settle = useSettle();
  const display = useDisplay();
  const chosen = useAppSelector(({ job }) => job.clamp);
  const { aids, glueUp, needsAids } = planned;
  const plan = step.plan?.aids;
  const set = (change: Partial<NonNullable<typeof plan>>, mark?: string) =>
    planGlue({ aids: { kind: aids.kind, ...plan, ...change } }, mark);
  const aid = aids.aids[Number(chosen)];
  const perJoint = glueUp.lines.map(({ joint }) => aids.aids.filter((each) => each.joint === joint).length);
  return (
    <>
      <Choice
        label="Kept flush by"
        value={aids.kind}
        options={AID_KINDS.map(({ id, name }) => ({ value: id, label: name }))}
        onChange={(kind) =>
          planGlue({ aids: { ...plan, kind: kind as typeof aids.kind, places: undefined } })
        }
      />
      <Why>
        {AID_KINDS.find(({ id }) => id === aids.kind)?.why}. Aids keep faces flush; they add no strength worth
        counting to a long-grain joint.
        {!plan &&
          ` This shop’s practice: ${AID_KINDS.find(({ id }) => id === gluingOf(build.shop).aids)?.name.toLowerCase()}.`}
      </Why>
      {needsAids && (
        <p className="text-[13.5px]">
          Joined it is <Measure value={needsAids.widthMm} display={display} unit />, more than any planer here
          takes (
          <Measure value={needsAids.limitMm} display={display} unit />
          ): steps between strips would be taken off by hand.
        </p>
      )}
      {aid && (
        <section aria-label="Chosen aid" className="border-chalk flex flex-col gap-2 border-l-[3px] pl-3">
          <h3 className="text-chalk font-semibold">On joint {aid.joint}</h3>
          <LengthField
            label="Its middle, from the end"
            value={{ mm: aid.at }}
            display={display}
            rule={{ minMm: 0, maxMm: glueUp.lengthMm }}
            onChange={(at: Length) =>
              set(
                {
                  places: aids.aids.map((each, i) => ({
                    joint: each.joint,
                    at: i === Number(chosen) ? at : { mm: each.at },
                  })),
                },
                `aid${chosen}`,
              )
            }
            onSettled={settle}
          />
          {aid.bad && (
            <p className="text-red text-[13.5px]" role="status">
              <Say phrase={aid.bad.words} />
            </p>
          )}
        </section>
      )}
      {aids.kind !== 'none' && aids.kind !== 'cauls' && aids.kind !== 'splines' && (
        <OwnSize
          own={plan?.own}
          usual={aids.size}
          third={thirdOf(glueUp)}
          now={perJoint[0] ?? 1}
          onChange={(own, mark) => set({ own }, mark)}
        />
      )}
      {aids.size && (
        <dl>
          <Fact name="Size">{aids.size.name}</Fact>
          <Fact name="In all">{aids.aids.length}</Fact>
          <Fact name="On each joint">{new Set(perJoint).size === 1 ? perJoint[0] : perJoint.join(', ')}</Fact>
          <Fact name="Middle of the measured thickness, fence set to">
            <Measure value={aids.centreMm} display={display} unit />
          </Fact>
          <Fact name="Wood that stays around each">
            <Measure value={AID_COVER} display={display} unit />
          </Fact>
        </dl>
      )}
      {aids.bare.map(({ joint, words }) => (
        <p key={joint} className="text-[13.5px]">
          Joint {joint}: <Say phrase={words} />
        </p>
      ))}
      {aids.size && (
        <>
          <Why>
            Every place is asked of the build itself: slices, trims, mitres and outlines cut later, the ends,
            holes, grooves and openings, and the aid on the far side of a thin strip. What is in no step of
            this job is kept clear here.
          </Why>
          <KeepOut
            zones={plan?.keepOut ?? []}
            length={glueUp.lengthMm}
            joints={glueUp.lines.map(({ joint }) => joint)}
            onChange={(keepOut) => set({ keepOut })}
          />
        </>
      )}
    </>
  );
}

type Zone = KeptClear;

/** A size that the maker has, instead of the usual one. */
function OwnSize({
  own,
  usual,
  third,
  now,
  onChange,
}: {
  own: OwnAidSize | undefined;
  usual: AidSize | undefined;
  /** A third of the joint’s height, mm. */
  third: number;
  /** How many each joint has now. */
  now: number;
  onChange: (own: OwnAidSize | undefined, mark?: string) => void;
}) {
  const display = useDisplay();
  const settle = useSettle();
  const field = (label: string, name: 'thick' | 'into' | 'along' | 'pitch' | 'first', unset = false) =>
    own && (
      <LengthField
        label={label}
        value={own[name] ?? { mm: 0 }}
        unset={unset}
        display={display}
        rule={{ minMm: unset ? 0 : 0.5, maxMm: 5000 }}
        onChange={(next) => onChange({ ...own, [name]: unset && next.mm === 0 ? undefined : next }, name)}
        onSettled={settle}
      />
    );
  return (
    <section aria-label="Its size" className="flex flex-col gap-2">
      <label className="flex items-center gap-2 text-[14px] max-desk:min-h-11">
        <input
          type="checkbox"
          className="accent-chalk h-4 w-4"
          checked={own !== undefined}
          onChange={({ target }) =>
            onChange(
              target.checked
                ? {
                    thick: { mm: usual?.thick ?? 4 },
                    into: { mm: usual?.into ?? 10 },
                    along: { mm: usual?.along ?? 50 },
                    count: Math.max(1, now),
                  }
                : undefined,
            )
          }
        />
        A size of its own
      </label>
      {own && (
        <div className="grid grid-cols-2 gap-x-3 gap-y-2">
          {field('How thick', 'thick')}
          {field('Into each strip', 'into')}
          {field('Along the joint', 'along')}
          {field('From one to the next', 'pitch', true)}
          {field('Middle of the first', 'first', true)}
          <CountField
            label="On each joint"
            value={own.count ?? now}
            most={200}
            onChange={(count) => onChange({ ...own, count }, 'count')}
          />
        </div>
      )}
      {own && own.thick.mm > third + 1e-6 && (
        <p role="status" className="text-[13.5px]">
          It is <Measure value={own.thick} display={display} unit /> thick; a third of the joint is{' '}
          <Measure value={third} display={display} unit />: the wood beside it is thinner than it is.
        </p>
      )}
    </section>
  );
}

/** Stretches kept clear for a reason the build does not hold. */
function KeepOut({
  zones,
  length,
  joints,
  onChange,
}: {
  zones: Zone[];
  length: number;
  joints: readonly number[];
  onChange: (zones: Zone[]) => void;
}) {
  const display = useDisplay();
  const [draft, setDraft] = useState<Zone>();
  return (
    <section aria-label="Kept clear">
      <h3 className="label pb-1">Kept clear, from the left end</h3>
      <ul className="flex flex-col gap-1">
        {zones.map((zone, i) => (
          <li
            key={`${zone.from.mm}${zone.why}`}
            className="border-line flex items-center gap-2 rounded border bg-white px-2 py-1 text-[13.5px]"
          >
            <Measure value={zone.from} display={display} /> to{' '}
            <Measure value={zone.to} display={display} unit />
            <span className="min-w-0 flex-1 truncate">
              {zone.joint === undefined ? '' : `joint ${zone.joint}: `}
              {zone.why}
            </span>
            <button
              type="button"
              className="p-1.5"
              aria-label={`No longer keep clear: ${zone.why}`}
              onClick={() => onChange(zones.filter((_, k) => k !== i))}
            >
              <X size={15} />
            </button>
          </li>
        ))}
      </ul>
      {draft ? (
        <form
          className="mt-1.5 grid grid-cols-2 gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (!draft.why.trim()) return;
            const [from, to] = draft.from.mm <= draft.to.mm ? [draft.from, draft.to] : [draft.to, draft.from];
            onChange([...zones, { ...draft, from, to, why: draft.why.trim() }]);
            setDraft(undefined);
          }}
        >
          <LengthField
            label="From"
            value={draft.from}
            display={display}
            rule={{ minMm: 0, maxMm: length }}
            onChange={(from) => setDraft({ ...draft, from })}
          />
          <LengthField
            label="To"
            value={draft.to}
            display={display}
            rule={{ minMm: 0, maxMm: length }}
            onChange={(to) => setDraft({ ...draft, to })}
          />
          <Choice
            label="Which joint"
            className="col-span-2"
            value={String(draft.joint ?? '')}
            options={[
              { value: '', label: 'Every joint' },
              ...joints.map((joint) => ({ value: String(joint), label: `Joint ${joint}` })),
            ]}
            onChange={(next) => setDraft({ ...draft, joint: next ? Number(next) : undefined })}
          />
          <LengthField
            label="Above the lower face, from"
            value={draft.low ?? { mm: 0 }}
            unset
            display={display}
            rule={{ minMm: 0, maxMm: 2000 }}
            onChange={(low) => setDraft({ ...draft, low: low.mm === 0 ? undefined : low })}
          />
          <LengthField
            label="Up to"
            value={draft.high ?? { mm: 0 }}
            unset
            display={display}
            rule={{ minMm: 0, maxMm: 2000 }}
            onChange={(high) => setDraft({ ...draft, high: high.mm === 0 ? undefined : high })}
          />
          <label className="label col-span-2">
            For what
            <input
              className="field mt-0.5 w-full font-sans!"
              maxLength={80}
              value={draft.why}
              onChange={(event) => setDraft({ ...draft, why: event.target.value })}
            />
          </label>
          <button
            type="submit"
            className="action action-main col-span-2 justify-center"
            disabled={!draft.why.trim()}
          >
            Keep clear
          </button>
        </form>
      ) : (
        <button
          type="button"
          className="text-chalk mt-1 text-[13.5px] font-medium underline"
          onClick={() => setDraft({ from: { mm: length * 0.4 }, to: { mm: length * 0.6 }, why: '' })}
        >
          Keep a stretch clear
        </button>
      )}
    </section>
  );
}
