import { X } from 'lucide-react';
import { useState } from 'react';
import { AID_COVER } from '../../../../core/glueup';
import { AID_KINDS, gluingOf } from '../../../../core/kit';
import type { Length } from '../../../../core/units';
import { useDisplay } from '../../../app/display';
import { useAppSelector } from '../../../app/store';
import { Choice } from '../../../parts/Choice';
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
            onChange={(keepOut) => set({ keepOut })}
          />
        </>
      )}
    </>
  );
}

type Zone = { from: Length; to: Length; why: string };

/** Stretches kept clear for a reason the build does not hold. */
function KeepOut({
  zones,
  length,
  onChange,
}: {
  zones: Zone[];
  length: number;
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
            <span className="min-w-0 flex-1 truncate">{zone.why}</span>
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
            onChange([...zones, { from, to, why: draft.why.trim() }]);
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
