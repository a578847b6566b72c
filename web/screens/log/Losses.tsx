import { useEffect, useMemo, useState } from 'react';
import type { ShopSnapshot } from '../../../core/kit';
import { findSpecies } from '../../../core/wood';
import {
  type BoardCut,
  type Loss,
  type LossLevel,
  lossOf,
  takeBack,
  takeOver,
  USUAL_YIELD,
  yieldsOf,
} from '../../../core/log';
import { counted, type Display } from '../../../core/units';
import { problemText, useKitQuery, useLogQuery, useLogRowsQuery } from '../../app/api';
import { useKitChange } from '../../app/use-kit-change';
import { useDisplay } from '../../app/display';
import { How } from '../../parts/How';
import { Words } from '../../parts/Words';
import { logWorker } from './log-worker';
import { Problem } from './Problem';
import { ScoreLine } from './ScoreLine';

/** A loss in its own unit: a length, or so many times. */
const Value = ({ of, unit, display }: { of: number; unit: Loss['unit']; display: Display }) =>
  unit === 'mm' ? (
    <Words phrase={[{ fine: of }]} display={display} />
  ) : (
    <span className="rule">{of.toFixed(2)} ×</span>
  );

const NO_BOARDS: readonly BoardCut[] = [];

/** What the log teaches, once it was worked out; and that it is being worked out. */
function useLearnt(shop: ShopSnapshot | undefined) {
  const { data, error } = useLogRowsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [losses, setLosses] = useState<Loss[]>();
  useEffect(() => {
    if (!data || !shop) return;
    let stale = false;
    void logWorker.learn(data.rows, shop, Date.now()).then((learnt) => {
      if (!stale) setLosses(learnt.losses);
    });
    return () => void (stale = true);
  }, [data, shop]);
  return { losses, older: data?.older ?? 0, boards: data?.boards ?? NO_BOARDS, error };
}

const LEVELS: Record<LossLevel['by'], string> = { tool: 'By machine', wood: 'By wood', season: 'By season' };

function levelName({ by, id }: LossLevel, shop: ShopSnapshot): string {
  if (by === 'wood') return findSpecies(id)?.common ?? id;
  if (by === 'tool') return [...shop.saws, ...shop.machines].find((each) => each.id === id)?.name ?? id;
  return id;
}

/** What changes is a new thing of its own size, as a blade is. */
const renews = (id: string): boolean => lossOf(id)?.kind === 'kerf';

function LossItem({
  loss,
  shop,
  display,
  change,
}: {
  loss: Loss;
  shop: ShopSnapshot;
  display: Display;
  change: (change: (shop: ShopSnapshot) => ShopSnapshot) => void;
}) {
  const { unit, name } = loss;
  const value = (of: number) => <Value of={of} unit={unit} display={display} />;
  const levels = useMemo(
    () =>
      (Object.keys(LEVELS) as LossLevel['by'][]).flatMap((by) => {
        const own = loss.levels.filter((level) => level.by === by);
        return own.length > 0 ? [{ by, own }] : [];
      }),
    [loss.levels],
  );
  const { drift } = loss;
  const renewed = shop.renewed?.find(({ id }) => id === loss.id);
  return (
    <li className="border-line flex flex-col gap-1.5 border-b border-dotted py-3" data-loss={loss.id}>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <h3 className="font-medium">{name}</h3>
        <How of={(worked) => [worked.workedLoss(loss)]} what={name} />
        {loss.matters && <span className="text-brass text-[13px] font-medium">differs</span>}
      </div>
      <p className="text-[14.5px]">
        was {value(loss.was)}, is <b className="font-semibold">{value(loss.now)}</b>, from{' '}
        {counted(loss.readings, 'reading')} of {counted(loss.jobs, 'job')}; nine times in ten between{' '}
        {value(loss.from)} and {value(loss.to)}
      </p>
      <p className="text-graphite text-[13.5px]">{loss.how}</p>
      {loss.matters && !loss.takes && loss.advice && <p className="text-[14px]">{loss.advice}</p>}
      {levels.map(({ by, own }) => (
        <p key={by} className="text-[14px]">
          {LEVELS[by]}:{' '}
          {own.map((level, i) => (
            <span key={level.id}>
              {i > 0 && ', '}
              {levelName(level, shop)} {value(level.value)} ({level.readings})
            </span>
          ))}
        </p>
      ))}
      {drift && (
        <p className="text-red text-[14px]" role="status">
          Since {new Date(drift.at).toLocaleDateString('sv')} readings lie {value(Math.abs(drift.by))}{' '}
          {drift.to === 'above' ? 'higher' : 'lower'}. Was the blade changed, or the scale moved?
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        {loss.matters && loss.takes && (
          <button
            type="button"
            className="action"
            onClick={() =>
              change((kit) =>
                takeOver(
                  kit,
                  loss.id,
                  { value: loss.now, likely: loss.to - loss.now, readings: loss.readings },
                  new Date().toISOString(),
                ),
              )
            }
          >
            Take over {value(loss.now)}
          </button>
        )}
        {loss.taken && loss.takes && (
          <button type="button" className="action" onClick={() => change((kit) => takeBack(kit, loss.id))}>
            Put back {value(loss.taken.was)}
          </button>
        )}
        {renewed && (
          <button
            type="button"
            className="action"
            onClick={() =>
              change(({ renewed: all = [], ...kit }) => {
                const rest = all.filter(({ id }) => id !== loss.id);
                return rest.length > 0 ? { ...kit, renewed: rest } : kit;
              })
            }
          >
            Count again what was read before {new Date(renewed.at).toLocaleDateString('sv')}
          </button>
        )}
        {drift && (
          <button
            type="button"
            className="action"
            onClick={() =>
              change((kit) => ({
                ...kit,
                renewed: [
                  ...(kit.renewed ?? []).filter(({ id }) => id !== loss.id),
                  // A new blade begins from what was read of it: against the old one every reading of it would be a slip. A scale
                  // that was moved begins from what it was.
                  { id: loss.id, at: drift.at, from: renews(loss.id) ? drift.level : loss.was },
                ],
              }))
            }
          >
            Yes, changed then: forget what was read before
            {renews(loss.id) && <>, begin at {value(drift.level)}</>}
          </button>
        )}
      </div>
    </li>
  );
}

/** What the shop loses: what stands in the kit, what its readings say, and what can be taken over from them. */
export function Losses() {
  const display = useDisplay();
  const { data: kit } = useKitQuery();
  const { data: log } = useLogQuery({}, { refetchOnMountOrArgChange: true });
  const { losses, older, boards, error } = useLearnt(kit?.shop);
  const { change, problem } = useKitChange();
  if (error) return <Problem why={problemText(error)} />;
  if (!kit || !losses) return <p role="status">Working it out …</p>;
  const differ = losses.filter(
    ({ id, matters, drift, taken }) =>
      matters || drift || taken || kit.shop.renewed?.some((each) => each.id === id),
  );
  const others = losses.filter((loss) => !differ.includes(loss));
  return (
    <div className="flex flex-col gap-5">
      <Problem why={problem} />
      {log && (
        <ScoreLine
          score={log.score}
          shop={kit.shop}
          change={change}
          biased={losses.some(({ matters, is, unit }) => matters && is === 'mean' && unit === 'mm')}
        />
      )}
      {losses.length === 0 && (
        <p>
          Nothing to learn from yet. Enter what you measure at the steps of a job, or at the bench: from six
          readings in three jobs on, what differs is shown here.
        </p>
      )}
      {losses.length > 0 && (
        <section aria-labelledby="differs" className="sheet p-4">
          <h2 id="differs" className="text-[17px] font-semibold">
            What differs
          </h2>
          {differ.length === 0 && (
            <p className="py-2">Nothing so far that matters: the kit is as the readings say.</p>
          )}
          <ul>
            {differ.map((loss) => (
              <LossItem key={loss.id} loss={loss} shop={kit.shop} display={display} change={change} />
            ))}
          </ul>
          <p className="text-graphite pt-2 text-[13.5px]">
            Jobs that are planned already keep the kit they were planned with, and say so: “Use the present
            one”.
          </p>
        </section>
      )}
      {others.length > 0 && (
        <section aria-labelledby="alike" className="sheet p-4">
          <h2 id="alike" className="text-[17px] font-semibold">
            As the kit has it, or not known well enough
          </h2>
          <ul>
            {others.map((loss) => (
              <LossItem key={loss.id} loss={loss} shop={kit.shop} display={display} change={change} />
            ))}
          </ul>
        </section>
      )}
      {boards.length > 0 && (
        <section aria-labelledby="yield" className="sheet p-4">
          <h2 id="yield" className="text-[17px] font-semibold">
            What comes of boards
          </h2>
          <ul className="text-[14.5px]">
            {yieldsOf(boards).map(({ species, grade, faulty, boards: many, value }) => (
              <li key={`${species} ${grade} ${faulty}`} className="py-1">
                {findSpecies(species)?.common ?? species},{' '}
                {grade ? `sold as ${grade}` : `no grade noted, ${faulty ? 'with faults' : 'no faults noted'}`}
                : <b className="font-semibold">{Math.round(100 * value)} %</b> ends in strips, from{' '}
                {counted(many, 'board')}
              </li>
            ))}
          </ul>
          <p className="text-graphite text-[13.5px]">
            Offcuts that go back to the rack are left out. {Math.round(100 * USUAL_YIELD)} %, as is common
            practice, counts as six boards.
          </p>
        </section>
      )}
      {older > 0 && (
        <p className="text-graphite text-[13.5px]">
          {older} older readings are not counted here: what they said has faded.
        </p>
      )}
    </div>
  );
}
