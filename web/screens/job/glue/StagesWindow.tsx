import { useState } from 'react';
import { type BuildDocument, isRefused } from '../../../../core/document';
import { applyEdit } from '../../../../core/edit';
import { type PlannedGlueUp, splitEdit, type StageWay, type Staging } from '../../../../core/glueup';
import { gluingOf } from '../../../../core/kit';
import type { GlueStep } from '../../../../core/steps';
import { areaText, massText, moneyText, volumeText } from '../../../../core/units';
import { useDisplay } from '../../../app/display';
import { Window } from '../../../parts/Window';
import { useEdit } from '../use-edit';
import { Say } from './parts';

/** The ways to glue up a wide piece side by side, why it should be split, and a split by hand. */
export function StagesWindow({
  build,
  step,
  planned,
  staging,
  onClose,
}: {
  build: BuildDocument;
  step: GlueStep;
  planned: PlannedGlueUp;
  staging: Staging;
  onClose: () => void;
}) {
  const edit = useEdit();
  const [joints, setJoints] = useState<ReadonlySet<number>>(new Set());
  const [machined, setMachined] = useState(true);
  const { glueUp } = planned;
  const byHand = splitEdit(build.shop, glueUp, [...joints], { machined });
  const after = joints.size > 0 ? applyEdit(build, byHand) : build;
  const splits = !isRefused(after) && after !== build;
  const split = () => {
    edit(byHand);
    onClose();
  };
  const { lines } = glueUp;
  const ends = [0, ...[...joints].toSorted((a, b) => a - b), glueUp.courses.length];
  const shares = ends.slice(1).map((end, i) => end - ends[i]);
  const canSplit =
    !step.rows &&
    !step.shifts &&
    step.along === 'width' &&
    step.inputs.length === 1 &&
    (step.blanks ?? 1) === 1;
  return (
    <Window title="Ways to glue it up" open onClose={onClose} wide>
      {staging.reasons.length > 0 ? (
        <ul className="pb-3 text-[14.5px]">
          {staging.reasons.map(({ kind, words }) => (
            <li key={kind} data-reason={kind}>
              <Say phrase={words} />
            </li>
          ))}
        </ul>
      ) : (
        <p className="pb-3 text-[14.5px]">
          Nothing forces a split: width, time, clamps and weight all fit in one glue-up.
        </p>
      )}
      <WaysTable
        ways={staging.ways}
        canSplit={canSplit}
        onTake={(way) => {
          if (way.edit) edit(way.edit);
          onClose();
        }}
        paid={gluingOf(build.shop).paid !== undefined}
        currency={build.shop.currency ?? ''}
      />
      {staging.conflicts.map((words, i) => (
        <p key={i} className="border-red bg-red-wash mt-3 border-l-[3px] p-2 text-[14px]">
          <Say phrase={words} />
        </p>
      ))}
      {canSplit && (
        <section aria-label="Split by hand" className="pt-4">
          <h3 className="label pb-1">Or split by hand, on joints</h3>
          <div className="flex flex-wrap items-center gap-1.5">
            {lines.map(({ joint }) => (
              <button
                key={joint}
                type="button"
                aria-pressed={joints.has(joint)}
                aria-label={`Split at joint ${joint}`}
                className={`rule h-8 w-9 rounded border text-[14px] ${joints.has(joint) ? 'border-chalk bg-chalk-wash text-chalk' : 'border-line bg-white'}`}
                onClick={() =>
                  setJoints((now) => {
                    const next = new Set(now);
                    if (!next.delete(joint)) next.add(joint);
                    return next;
                  })
                }
              >
                {joint}
              </button>
            ))}
            <button type="button" className="action action-main ml-2" disabled={!splits} onClick={split}>
              {joints.size > 0 ? `Split into ${shares.join(' + ')}` : 'Split'}
            </button>
          </div>
          <label className="flex items-center gap-2 pt-2 text-[14px]">
            <input
              type="checkbox"
              className="accent-chalk h-4 w-4"
              checked={machined}
              onChange={({ target }) => setMachined(target.checked)}
            />
            Flatten the sections and joint their edges before they are joined
          </label>
          {machined && splits && !('machining' in byHand) && (
            <p className="text-graphite pt-1 text-[13.5px]">
              No machine of the kit takes such a section: it is glued, and joined as it comes from the clamps.
            </p>
          )}
          {joints.size > 0 && !splits && (
            <p className="text-graphite pt-1 text-[13.5px]">
              Every strip by itself is no section: leave at least two together.
            </p>
          )}
        </section>
      )}
      {!canSplit && (
        <p className="text-graphite pt-3 text-[13.5px]">
          This glue-up joins pieces that were made in other steps: it is split there, not here.
        </p>
      )}
    </Window>
  );
}

function WaysTable({
  ways,
  canSplit,
  paid,
  currency,
  onTake,
}: {
  ways: readonly StageWay[];
  canSplit: boolean;
  paid: boolean;
  /** The shop's; empty where it has none. */
  currency: string;
  onTake: (way: StageWay) => void;
}) {
  const display = useDisplay();
  const rows: readonly (readonly [string, (way: StageWay) => string])[] = [
    ['Strips in each', ({ counts }) => counts.join(' + ')],
    ['Glue-ups', ({ glueUps }) => String(glueUps)],
    ['Days', ({ days }) => days.toFixed(1)],
    ['Clamps, most at once', ({ clamps }) => String(clamps)],
    ['Flattened by hand or sled', ({ handMm2 }) => (handMm2 > 0 ? areaText(handMm2, display) : 'none')],
    ['Wood lost to jointing', ({ lostMm3 }) => (lostMm3 > 0 ? volumeText(lostMm3, display) : 'none')],
    ['Time of the glue used', ({ timeShare }) => `${Math.round(timeShare * 100)} %`],
    ['Joints no machine makes flush', ({ notFlush }) => String(notFlush)],
    [
      'Heaviest lift',
      ({ heaviestKg, tooHeavy }) => `${massText(heaviestKg, display)}${tooHeavy ? ', too heavy' : ''}`,
    ],
    ...(paid
      ? [
          [
            'Price',
            ({ priceMinor }: StageWay) => (priceMinor ? moneyText(priceMinor, currency).trim() : 'none'),
          ] as const,
        ]
      : []),
  ];
  return (
    <div className="@container">
      <table className="hidden w-full text-[14px] @2xl:table">
        <thead>
          <tr>
            <th className="w-44">
              <span className="sr-only">Compared by</span>
            </th>
            {ways.map(({ way, name }) => (
              <th key={way} className="px-2 pb-1.5 text-left align-bottom font-semibold">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, value]) => (
            <tr key={name} className="border-line border-t border-dotted">
              <th scope="row" className="label py-1 text-left">
                {name}
              </th>
              {ways.map((way) => (
                <td key={way.way} className="rule px-2 py-1">
                  {value(way)}
                </td>
              ))}
            </tr>
          ))}
          <tr className="border-line border-t border-dotted">
            <td />
            {ways.map((way) => (
              <td key={way.way} className="px-2 py-2 align-top">
                <Take way={way} canSplit={canSplit} onTake={onTake} />
              </td>
            ))}
          </tr>
        </tbody>
      </table>
      <ul className="flex flex-col gap-3 @2xl:hidden">
        {ways.map((way) => (
          <li key={way.way} className="border-line rounded border bg-white p-3">
            <h3 className="pb-1 text-[15px] font-semibold">{way.name}</h3>
            <dl className="text-[14px]">
              {rows.map(([name, value]) => (
                <div
                  key={name}
                  className="border-line flex justify-between gap-3 border-b border-dotted py-0.5"
                >
                  <dt>{name}</dt>
                  <dd className="rule text-right">{value(way)}</dd>
                </div>
              ))}
            </dl>
            <div className="pt-2">
              <Take way={way} canSplit={canSplit} onTake={onTake} />
            </div>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What stands against a way, and the press that takes it. */
function Take({
  way,
  canSplit,
  onTake,
}: {
  way: StageWay;
  canSplit: boolean;
  onTake: (way: StageWay) => void;
}) {
  return (
    <>
      {way.walls.map((words, i) => (
        <p key={i} className="text-red pb-1 text-[13px]">
          ✕ <Say phrase={words} />
        </p>
      ))}
      {way.edit && canSplit && (
        <button type="button" className="action" onClick={() => onTake(way)}>
          Do it this way
        </button>
      )}
    </>
  );
}
