import { useState } from 'react';
import type { BuildDocument, LaidPlace } from '../../../core/document';
import type { GlueStep } from '../../../core/steps';
import { lengthText } from '../../../core/units';
import { parseRows, partChanged, type PartLine } from '../../../core/view';
import { useDisplay } from '../../app/display';
import { jobActions } from '../../app/job';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { LengthField } from '../../parts/LengthField';
import { useEdit, useSettle } from './use-edit';

const NONE: readonly PartLine[] = [];
/** More than this are chosen on the bench. */
const MOST_LISTED = 60;
const ORDER = {
  width: 'Parts, from the far edge',
  length: 'Parts, from the left end',
  thickness: 'Parts, from the lowest',
} as const;

/** The parts of a glue-up by name, also those that lie under others; and where the chosen one lies beside butting. */
export function PartPlaces({ build, step, list }: { build: BuildDocument; step: GlueStep; list: boolean }) {
  const parts = useAppSelector(({ job }) => job.outlook?.parts) ?? NONE;
  const chosen = useAppSelector(({ job }) => job.piece);
  const dispatch = useAppDispatch();
  const display = useDisplay();
  if (parts.length === 0) return null;
  const at = parts.findIndex(({ piece }) => piece === chosen);
  return (
    <section aria-label="Parts" className="flex flex-col gap-1.5">
      {list && (
        <>
          <h3 className="label">{ORDER[step.along]}</h3>
          <ol>
            {parts.slice(0, MOST_LISTED).map(({ piece, name, turned, gapMm, shiftMm }, i) => (
              <li key={piece}>
                <button
                  type="button"
                  aria-pressed={piece === chosen}
                  className={`flex w-full items-baseline gap-2 rounded px-1 py-[3px] text-left text-[14px] ${piece === chosen ? 'bg-chalk-wash text-chalk font-medium' : 'hover:bg-chalk-wash'}`}
                  onClick={() => dispatch(jobActions.pieceChosen(piece === chosen ? undefined : piece))}
                >
                  <span className="rule text-graphite w-5 text-right text-[13px]">{i + 1}</span>
                  <span className="min-w-0 flex-1">{name}</span>
                  <span className="text-graphite text-[13px]">
                    {[
                      turned,
                      gapMm > 0 ? `gap ${lengthText(gapMm, display)}` : '',
                      shiftMm === 0 ? '' : `shifted ${lengthText(shiftMm, display)}`,
                    ]
                      .filter(Boolean)
                      .join(', ')}
                  </span>
                </button>
              </li>
            ))}
          </ol>
          {parts.length > MOST_LISTED && (
            <p className="text-graphite text-[13px]">
              and {parts.length - MOST_LISTED} more, chosen on the bench
            </p>
          )}
        </>
      )}
      {list && parts.length > 1 && <InRows key={step.id} step={step} parts={parts.length} />}
      {at >= 0 && <Place build={build} step={step} parts={parts} at={at} />}
    </section>
  );
}

/** Parts in rows: how many in each, typed; nothing for one row. */
function InRows({ step, parts }: { step: GlueStep; parts: number }) {
  const edit = useEdit();
  const [text, setText] = useState(step.rows?.counts.join(', ') ?? '');
  const parsed = text.trim() === '' ? undefined : parseRows(text, step.along, parts);
  const set = (rows: GlueStep['rows']) => edit({ do: 'setStep', step: step.id, change: { rows } });
  const why = parsed && 'why' in parsed ? parsed.why : undefined;
  return (
    <label className="label block">
      Rows, parts in each
      <input
        className="field mt-0.5 w-full"
        value={text}
        maxLength={400}
        placeholder="one row"
        aria-invalid={why !== undefined}
        onChange={({ target }) => {
          setText(target.value);
          const next = target.value.trim() === '' ? undefined : parseRows(target.value, step.along, parts);
          if (!next) {
            if (step.rows) set(undefined);
          } else if ('rows' in next) set(next.rows);
        }}
      />
      <span className={`block pt-0.5 text-[13px] ${why ? 'text-red' : 'text-graphite'}`}>
        {why ?? (step.rows ? `${step.rows.counts.length} rows across the ${step.rows.across}` : 'one row')}
      </span>
    </label>
  );
}

/** The gap before a part, held open by a spacer that is taken out again, and its shift along the joint. */
function Place({
  build,
  step,
  parts,
  at,
}: {
  build: BuildDocument;
  step: GlueStep;
  parts: readonly PartLine[];
  at: number;
}) {
  const display = useDisplay();
  const edit = useEdit();
  const settle = useSettle();
  const { piece, name, gapMm, shiftMm } = parts[at];
  const place = (change: Partial<LaidPlace>, mark: string) => {
    const made = partChanged(
      build,
      { step: step.id, laid: parts.map((part) => part.piece), piece },
      { place: change },
    );
    if (made) edit(made, `${step.id}.${piece}.${mark}`);
  };
  return (
    <div className="border-chalk flex flex-col gap-1 border-l-[3px] pl-3">
      <span className="text-[13.5px] font-medium">
        Part {at + 1}, {name}
      </span>
      <div className="grid grid-cols-2 gap-2">
        {at > 0 && (
          <LengthField
            label="Gap before it"
            value={{ mm: gapMm }}
            display={display}
            rule={{ minMm: 0, maxMm: 2000 }}
            stepMm={build.shop.settingStep.mm}
            onChange={(spacer) => place({ spacer: spacer.mm > 0 ? spacer : undefined }, 'gap')}
            onSettled={settle}
          />
        )}
        <LengthField
          label="Shifted along its joint"
          value={{ mm: shiftMm }}
          display={display}
          rule={{ minMm: -5000, maxMm: 5000 }}
          stepMm={build.shop.settingStep.mm}
          onChange={(offset) => place({ offset: offset.mm === 0 ? undefined : offset }, 'shift')}
          onSettled={settle}
        />
      </div>
      {gapMm > 0 && (
        <p className="text-graphite text-[13px]">
          A spacer of {lengthText(gapMm, display)} holds it open; take it out before the glue sets. Cut the
          walls to their angle before, with “Oblique cut”.
        </p>
      )}
    </div>
  );
}
