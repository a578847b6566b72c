import { useEffect, useState } from 'react';
import type { BuildDocument } from '../../../core/document';
import { phraseText } from '../../../core/document';
import type { FlattenWay } from '../../../core/review';
import { counted, minutesText, moneyText, volumeText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { flattenWays } from '../../app/predicting';
import { Window } from '../../parts/Window';
import { useEdit } from './use-edit';

/** The ways to flatten what a step flattens, side by side; one is taken with one press. */
export function FlattenWindow({
  build,
  step,
  onClose,
}: {
  build: BuildDocument;
  step: string;
  onClose: () => void;
}) {
  const edit = useEdit();
  const [found, setFound] = useState<FlattenWay[] | string>();
  useEffect(() => {
    let here = true;
    flattenWays(build, step).then(
      (ways) => here && setFound(ways),
      (error: unknown) => here && setFound((error as Error).message),
    );
    return () => {
      here = false;
    };
  }, [build, step]);
  return (
    <Window title="Ways to flatten it" open onClose={onClose} wide>
      {found === undefined && <p aria-busy="true">Playing each way forward …</p>}
      {typeof found === 'string' && (
        <p role="alert" className="text-red">
          {found}
        </p>
      )}
      {Array.isArray(found) && found.length === 0 && (
        <p>This step cannot be played yet: mend what comes before it first.</p>
      )}
      {Array.isArray(found) && (
        <ul className="grid grid-cols-[repeat(auto-fill,minmax(232px,1fr))] gap-3">
          {found.map((way) => (
            <WayCard
              key={way.id}
              way={way}
              currency={build.shop.currency ?? ''}
              onTake={() => {
                if (way.edit) edit(way.edit);
                onClose();
              }}
            />
          ))}
        </ul>
      )}
      <p className="text-graphite pt-3 text-[13.5px]">
        Times are guesses until they are timed. Wood is what this step and the steps that come with a way
        take. Machines and paid work are entered in the Kit.
      </p>
    </Window>
  );
}

function WayCard({ way, currency, onTake }: { way: FlattenWay; currency: string; onTake: () => void }) {
  const display = useDisplay();
  const { name, now, why, how, lostMm3, minutes, days, priceMinor, risk, warnings, edit } = way;
  const facts: readonly (readonly [string, string | undefined])[] = [
    ['Wood', lostMm3 === undefined ? undefined : volumeText(Math.max(0, lostMm3), display)],
    ['Own time', minutes === undefined ? undefined : minutesText(Math.max(0, minutes))],
    ['Away', days === undefined ? undefined : counted(days, 'day')],
    ['Money', priceMinor === undefined ? undefined : moneyText(priceMinor, currency).trim()],
  ];
  return (
    <li className="border-line flex flex-col gap-1 rounded border bg-white p-3" data-way={way.id}>
      <h3 className="text-[15px] font-semibold">{name}</h3>
      {why && <p className="text-red text-[14px]">Not here: {phraseText(why, display)}.</p>}
      {how.length > 0 && !why && <p className="text-[14px]">{phraseText(how, display)}</p>}
      <dl className="text-[14px]">
        {!why &&
          facts.map(
            ([fact, value]) =>
              value !== undefined && (
                <div key={fact} className="border-line flex justify-between border-b border-dotted py-0.5">
                  <dt>{fact}</dt>
                  <dd className="rule">{value}</dd>
                </div>
              ),
          )}
      </dl>
      {risk && !why && <p className="text-graphite text-[13.5px]">{risk}</p>}
      {warnings !== undefined && warnings > 0 && (
        <p className="text-red text-[13.5px]">It brings {counted(warnings, 'new warning')}.</p>
      )}
      <div className="mt-auto pt-1.5">
        {now ? (
          <p className={`text-[14px] font-medium ${why ? 'text-graphite' : 'text-green'}`}>
            {why ? 'Planned so now' : 'Done so now'}
          </p>
        ) : (
          edit && (
            <button type="button" className="action" aria-label={`Do it this way: ${name}`} onClick={onTake}>
              Do it this way
            </button>
          )
        )}
      </div>
    </li>
  );
}
