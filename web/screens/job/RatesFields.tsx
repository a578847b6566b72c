import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import type { BuildDocument } from '../../../core/document';
import { MOST_MINOR, type Rates, type ShopSnapshot } from '../../../core/kit';
import { fromMinor, toMinor } from '../../../core/units';
import { findSpecies } from '../../../core/wood';
import { LabelNumber } from '../kit/TableParts';
import { Columns } from '../../parts/layout';

/** A name and a field beside it. */
const Line = ({ name, children }: { name: string; children: ReactNode }) => (
  <div className="flex items-start justify-between gap-3 text-[14.5px]">
    <span className="min-w-0 pt-1.5 break-words" aria-hidden>
      {name}
    </span>
    {children}
  </div>
);

/** A price that may be missing: an empty field is none, and not nothing. What is no price is answered, and the last good one stays. */
const Money = ({
  label,
  minor,
  currency,
  onChange,
}: {
  label: string;
  minor: number | undefined;
  currency: string;
  onChange: (minor: number | undefined) => void;
}) => (
  <Line name={label}>
    <LabelNumber
      label={label}
      value={minor === undefined ? undefined : fromMinor(minor, currency)}
      least={0}
      most={fromMinor(MOST_MINOR, currency)}
      placeholder="none"
      width="w-28"
      onChange={(typed) => onChange(typed === undefined ? undefined : toMinor(typed, currency))}
    />
  </Line>
);

/** A number that may be missing. */
const Plain = ({
  label,
  value,
  least = 0,
  most,
  onChange,
}: {
  label: string;
  value: number | undefined;
  least?: number;
  most: number;
  onChange: (value: number | undefined) => void;
}) => (
  <Line name={label}>
    <LabelNumber
      label={label}
      value={value}
      least={least}
      most={most}
      placeholder="none"
      width="w-28"
      onChange={onChange}
    />
  </Line>
);

/** A list with one entry changed, added, or taken out where it has no price any more. */
function withEntry<T>(
  list: readonly T[] | undefined,
  is: (each: T) => boolean,
  next: T | undefined,
): T[] | undefined {
  const rest = (list ?? []).filter((each) => !is(each));
  const all = next === undefined ? rest : [...rest, next];
  return all.length > 0 ? all : undefined;
}

/** Rates without what is missing: nothing is stored as undefined. */
const clean = (rates: Partial<Record<keyof Rates, unknown>>): Rates =>
  Object.fromEntries(Object.entries(rates).filter(([, value]) => value !== undefined)) as Rates;

/** What things cost this shop, as far as this job asks for them. Kept in the kit, for all jobs. */
export function RatesFields({
  shop,
  build,
  currency,
  onChange,
}: {
  shop: ShopSnapshot;
  build: BuildDocument;
  currency: string;
  onChange: (change: (rates: Rates) => Rates) => void;
}) {
  const rates = shop.rates ?? {};
  const set = (change: (now: Rates) => Partial<Record<keyof Rates, unknown>>) =>
    onChange((now) => clean({ ...now, ...change(now) }));
  const tools = [...shop.saws, ...shop.machines];
  const woods = [...new Set(build.assemblies.flatMap(({ slots }) => slots.map(({ species }) => species)))];
  const group = 'sheet flex min-w-0 flex-col gap-2 p-4';
  return (
    <section aria-label="What things cost this shop" className="flex flex-col gap-3 print:hidden">
      <h2 className="text-[17px] font-semibold">What things cost this shop, {currency}</h2>
      <p className="text-graphite text-[14px]">
        For all jobs. An empty field is no price: what has none is not counted, and said. Boards have their
        price on the rack, hardware, abrasives and finish theirs in the kit.
      </p>
      <Columns least={19} most={2} gap={0.75}>
        <div className={group}>
          <h3 className="font-medium">Hands, an hour</h3>
          <Money
            label="Whoever it is"
            minor={rates.handMinor}
            currency={currency}
            onChange={(handMinor) => set(() => ({ handMinor }))}
          />
          {(shop.people ?? []).map(({ id, name }) => (
            <Money
              key={id}
              label={name}
              minor={rates.people?.find(({ person }) => person === id)?.minor}
              currency={currency}
              onChange={(minor) =>
                set(({ people }) => ({
                  people: withEntry(
                    people,
                    ({ person }) => person === id,
                    minor === undefined ? undefined : { person: id, minor },
                  ),
                }))
              }
            />
          ))}
        </div>
        <div className={group}>
          <h3 className="font-medium">Wood of no priced board, a cubic metre</h3>
          {woods.map((species) => (
            <Money
              key={species}
              label={findSpecies(species)?.common ?? species}
              minor={rates.wood?.find((each) => each.species === species)?.minor}
              currency={currency}
              onChange={(minor) =>
                set(({ wood }) => ({
                  wood: withEntry(
                    wood,
                    (each) => each.species === species,
                    minor === undefined ? undefined : { species, minor },
                  ),
                }))
              }
            />
          ))}
          <h3 className="pt-2 font-medium">Glue, a kilogram</h3>
          {(shop.adhesives ?? []).map(({ id, name }) => (
            <Money
              key={id}
              label={name}
              minor={rates.glue?.find(({ adhesive }) => adhesive === id)?.minor}
              currency={currency}
              onChange={(minor) =>
                set(({ glue }) => ({
                  glue: withEntry(
                    glue,
                    ({ adhesive }) => adhesive === id,
                    minor === undefined ? undefined : { adhesive: id, minor },
                  ),
                }))
              }
            />
          ))}
        </div>
        <div className={group}>
          <h3 className="font-medium">Saws and machines, an hour</h3>
          {tools.map(({ id, name }) => (
            <Money
              key={id}
              label={name}
              minor={rates.machines?.find(({ tool }) => tool === id)?.minor}
              currency={currency}
              onChange={(minor) =>
                set(({ machines }) => ({
                  machines: withEntry(
                    machines,
                    ({ tool }) => tool === id,
                    minor === undefined ? undefined : { tool: id, minor },
                  ),
                }))
              }
            />
          ))}
        </div>
        <div className={group}>
          <h3 className="font-medium">Blades and knives: one edge, and how many metres it cuts</h3>
          {tools.map(({ id, name }) => {
            const own = rates.edges?.find(({ tool }) => tool === id);
            const put = (part: { minor?: number | undefined; metres?: number | undefined }) =>
              set(({ edges }) => {
                const { minor, metres } = { ...own, ...part };
                return {
                  edges: withEntry(
                    edges,
                    ({ tool }) => tool === id,
                    minor === undefined && metres === undefined
                      ? undefined
                      : { tool: id, minor: minor ?? 0, metres: metres || 1000 },
                  ),
                };
              });
            return (
              <Columns key={id} least={11} most={2} gap={0.75} className="gap-y-1">
                <Money
                  label={`${name}, an edge`}
                  minor={own?.minor}
                  currency={currency}
                  onChange={(minor) => put(minor === undefined ? { minor, metres: undefined } : { minor })}
                />
                {own && (
                  <Plain
                    label={`${name}, metres`}
                    least={1}
                    value={own.metres}
                    most={1_000_000}
                    onChange={(metres) => put({ metres })}
                  />
                )}
              </Columns>
            );
          })}
        </div>
        <div className={group}>
          <h3 className="font-medium">On top of what it costs</h3>
          <Plain
            label="Markup, %"
            value={rates.markupPct}
            most={1000}
            onChange={(markupPct) => set(() => ({ markupPct }))}
          />
          <Plain
            label="Tax, %"
            value={rates.taxPct}
            most={100}
            onChange={(taxPct) => set(() => ({ taxPct }))}
          />
          <h3 className="pt-2 font-medium">Less for a number of pieces</h3>
          {(rates.breaks ?? []).map((each, i) => (
            <div key={i} className="flex flex-wrap items-center gap-2">
              <Plain
                label="from, pieces"
                least={2}
                value={each.from}
                most={100_000}
                onChange={(from) =>
                  from !== undefined &&
                  from >= 2 &&
                  set(({ breaks = [] }) => ({
                    breaks: breaks.map((one, at) => (at === i ? { ...one, from: Math.round(from) } : one)),
                  }))
                }
              />
              <Plain
                label="less, %"
                value={each.pct}
                most={100}
                onChange={(pct) =>
                  set(({ breaks = [] }) => ({
                    breaks: breaks.map((one, at) => (at === i ? { ...one, pct: pct ?? 0 } : one)),
                  }))
                }
              />
              <button
                type="button"
                aria-label={`Take away the number from ${each.from} pieces`}
                className="text-graphite inline-flex size-8 items-center justify-center pointer-coarse:size-11"
                onClick={() =>
                  set(({ breaks = [] }) => ({
                    breaks: breaks.length > 1 ? breaks.filter((_, at) => at !== i) : undefined,
                  }))
                }
              >
                <X size={15} aria-hidden />
              </button>
            </div>
          ))}
          <button
            type="button"
            className="action self-start"
            disabled={(rates.breaks ?? []).length >= 20}
            onClick={() =>
              set(({ breaks = [] }) => ({
                breaks: [...breaks, { from: Math.max(5, ...breaks.map(({ from }) => 2 * from)), pct: 5 }],
              }))
            }
          >
            Add a number of pieces
          </button>
        </div>
      </Columns>
    </section>
  );
}
