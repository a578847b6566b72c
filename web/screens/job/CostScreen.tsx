import { nameWindow } from '../../app/title';
import { Printer } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import {
  type Cost,
  COST_GROUP_NAMES,
  COST_GROUPS,
  type CostGroup,
  type CostLine,
  costOf,
  priceFor,
} from '../../../core/cost';
import type { Rates, ShopSnapshot } from '../../../core/kit';
import { run } from '../../../core/run';
import type { BuildDocument } from '../../../core/document';
import type { Timeline } from '../../../core/steps';
import { counted, type Display, lengthText, minutesText, moneyText } from '../../../core/units';
import { speciesName } from '../../../core/wood/common';
import { problemText, useJobQuery, useKitQuery } from '../../app/api';
import { useDisplay } from '../../app/display';
import { useKitChange } from '../../app/use-kit-change';
import '../../app/open-job';
import { CurrencyField } from '../../parts/CurrencyField';
import { Bar, Screen, Sideways } from '../../parts/layout';
import { Letterhead } from '../../parts/Letterhead';
import { NumberField } from '../../parts/NumberField';
import { RatesFields } from './RatesFields';

const AMOUNTS: Record<NonNullable<CostLine['amount']>['is'], (value: number) => string> = {
  minutes: (value) => minutesText(value),
  grams: (value) => `${Math.round(value)} g`,
  metres: (value) => `${value.toFixed(1)} m`,
  ml: (value) => `${Math.round(value)} ml`,
  sheets: (value) => counted(Number(value.toFixed(1)), 'sheet'),
  pieces: (value) => counted(Number(value.toFixed(1)), 'piece'),
};

const Row = ({ line, currency }: { line: CostLine; currency: string }) => (
  <tr className="border-line border-t border-dotted">
    <td className="py-1 pr-3 pl-4">{line.words}</td>
    <td className="rule pr-3 text-right whitespace-nowrap">
      {line.amount ? AMOUNTS[line.amount.is](line.amount.planned) : ''}
    </td>
    <td className="rule pr-3 text-right whitespace-nowrap">{moneyText(line.plannedMinor, currency)}</td>
    <td className="rule text-right whitespace-nowrap">
      {line.realMinor === 0 ? '–' : moneyText(line.realMinor, currency)}
    </td>
  </tr>
);

/** The lines of one kind, with their sum; they unfold. */
function Group({
  group,
  lines,
  currency,
}: {
  group: CostGroup;
  lines: readonly CostLine[];
  currency: string;
}) {
  const [open, setOpen] = useState(false);
  const sum = (of: 'plannedMinor' | 'realMinor') => lines.reduce((total, line) => total + line[of], 0);
  return (
    <>
      <tr className="border-line border-t">
        <th scope="row" className="py-1.5 pr-3 text-left font-medium">
          <button
            type="button"
            className="press min-h-8 text-left underline decoration-dotted"
            aria-expanded={open}
            onClick={() => setOpen(!open)}
          >
            {COST_GROUPS[group]}
          </button>
        </th>
        <td />
        <td className="rule pr-3 text-right whitespace-nowrap">{moneyText(sum('plannedMinor'), currency)}</td>
        <td className="rule text-right whitespace-nowrap">{moneyText(sum('realMinor'), currency)}</td>
      </tr>
      {open && lines.map((line, i) => <Row key={i} line={line} currency={currency} />)}
    </>
  );
}

function CostTable({ cost }: { cost: Cost }) {
  const { currency, pieces } = cost;
  return (
    <Sideways label="What it costs" className="sheet p-4">
      <table className="w-full text-[14.5px]" data-testid="cost">
        <thead>
          <tr className="label text-left">
            <th className="pb-1 font-medium">What</th>
            <th className="pr-3 pb-1 text-right font-medium">How much</th>
            <th className="pr-3 pb-1 text-right font-medium">Planned</th>
            <th className="pb-1 text-right font-medium">So far</th>
          </tr>
        </thead>
        <tbody>
          {COST_GROUP_NAMES.map((group) => {
            const lines = cost.lines.filter((line) => line.group === group);
            return lines.length > 0 && <Group key={group} group={group} lines={lines} currency={currency} />;
          })}
        </tbody>
        <tfoot>
          <tr className="border-ink border-t font-semibold">
            <th scope="row" className="py-2 text-left">
              All of it
            </th>
            <td />
            <td className="rule pr-3 text-right whitespace-nowrap" data-testid="planned">
              {moneyText(cost.plannedMinor, currency)}
            </td>
            <td className="rule text-right whitespace-nowrap">{moneyText(cost.realMinor, currency)}</td>
          </tr>
          {pieces > 1 && (
            <tr>
              <th scope="row" className="text-left font-normal">
                Each of {counted(pieces, 'piece')}
              </th>
              <td />
              <td className="rule pr-3 text-right">
                {moneyText(Math.round(cost.plannedMinor / pieces), currency)}
              </td>
              <td />
            </tr>
          )}
        </tfoot>
      </table>
      {cost.unpriced.length > 0 && (
        <p className="text-brass pt-3 text-[14px]" role="status">
          Without a price, and not counted: {cost.unpriced.join('; ')}.
        </p>
      )}
    </Sideways>
  );
}

/** What one piece is, for whoever reads the quotation: its sizes and its woods. */
function pieceText(build: BuildDocument, timeline: Timeline, display: Display): string {
  const sizes = timeline.finished?.greatest.map((mm) => lengthText(mm, display)).join(' × ');
  const woods = [
    ...new Set(build.assemblies.flatMap(({ slots }) => slots.map(({ species }) => speciesName(species)))),
  ];
  return [sizes, woods.join(', ').toLowerCase()].filter(Boolean).join('; ');
}

function Quotation({ cost, rates, name, piece }: { cost: Cost; rates: Rates; name: string; piece: string }) {
  const [pieces, setPieces] = useState(cost.pieces);
  const price = priceFor({ minor: cost.plannedMinor, pieces: cost.pieces }, rates, pieces);
  const money = (minor: number) => moneyText(minor, cost.currency);
  // What it costs the shop, and what is put on it, stays in the shop: the paper begins with what is asked for.
  const own: [string, number][] = [
    [`What ${counted(pieces, 'piece')} cost${pieces === 1 ? 's' : ''}`, price.costMinor],
    [`Markup, ${rates.markupPct ?? 0} %`, price.markupMinor],
    ...(price.breakMinor > 0
      ? [[`Less for the number, ${price.breakPct} %`, -price.breakMinor] as [string, number]]
      : []),
  ];
  const asked: [string, number][] = [
    ['Net', price.netMinor],
    [`Tax, ${rates.taxPct ?? 0} %`, price.taxMinor],
  ];
  return (
    <section aria-labelledby="quotation" className="sheet flex flex-col gap-3 p-4">
      <h2 id="quotation" className="text-[17px] font-semibold">
        Quotation: {name}
      </h2>
      <p className="text-[15px]">
        {counted(pieces, 'piece')}
        {piece && `: ${piece}`}. {new Date().toLocaleDateString('sv')}
      </p>
      <div className="w-40 print:hidden">
        <NumberField label="Pieces" value={pieces} least={1} most={10_000} whole onChange={setPieces} />
      </div>
      <dl className="max-w-[460px] text-[15px]">
        {[...own, ...asked].map(([words, minor], i) => (
          <div
            key={words}
            className={`flex justify-between gap-4 py-0.5 ${i < own.length ? 'print:hidden' : ''}`}
          >
            <dt>{words}</dt>
            <dd className="rule">{money(minor)}</dd>
          </div>
        ))}
        <div className="border-ink flex justify-between gap-4 border-t py-1 font-semibold">
          <dt>Total</dt>
          <dd className="rule" data-testid="quoted">
            {money(price.totalMinor)}
          </dd>
        </div>
        {pieces > 1 && (
          <div className="flex justify-between gap-4">
            <dt>Each</dt>
            <dd className="rule">{money(price.eachMinor)}</dd>
          </div>
        )}
      </dl>
      <p className="text-graphite text-[13.5px] print:hidden">
        By what is planned. On paper it begins with the net price. Which tax there is, and whether any, is
        yours to know.
      </p>
    </section>
  );
}

/** What a job costs, planned and so far, and what it is quoted at. */
export function CostScreen() {
  const { id = '' } = useParams();
  const { data, error } = useJobQuery(id, { refetchOnMountOrArgChange: true });
  const { data: kit } = useKitQuery();
  const display = useDisplay();
  const { change: changeShop, problem } = useKitChange();
  useEffect(() => {
    if (data) nameWindow(`Cost and price, ${data.name}`);
  }, [data]);
  const timeline = useMemo(() => data && run(data.build), [data]);
  const cost = useMemo(
    () => (data && timeline && kit ? costOf(data.build, timeline, kit.shop) : undefined),
    [data, timeline, kit],
  );
  if (error)
    return (
      <p role="alert" className="p-8">
        {problemText(error)}
      </p>
    );
  if (!data || !kit) return <p className="text-graphite p-8">Opening the job …</p>;
  const set = (change: (rates: Rates) => Rates) =>
    changeShop((shop: ShopSnapshot) => ({ ...shop, rates: change(shop.rates ?? {}) }));
  return (
    <Screen className="flex flex-col gap-4">
      <style>{'@page { margin: 14mm; }'}</style>
      <Bar className="print:hidden">
        <Link className="action" to={`/jobs/${id}`}>
          To the job
        </Link>
        <h1 className="text-[20px] font-semibold">Cost and price: {data.name}</h1>
        <button type="button" className="action action-main ml-auto" disabled={!cost} onClick={() => print()}>
          <Printer size={15} aria-hidden /> Print the quotation
        </button>
      </Bar>
      <div className="hidden print:block">
        <Letterhead />
      </div>
      {problem !== undefined && (
        <p role="alert" className="text-red print:hidden">
          {problem}
        </p>
      )}
      {kit.shop.currency === undefined && (
        <section aria-label="Currency" className="sheet p-4">
          <p className="pb-2">Say first what money is counted in.</p>
          <CurrencyField
            value={undefined}
            onChange={(currency) => changeShop((shop) => ({ ...shop, ...(currency ? { currency } : {}) }))}
          />
        </section>
      )}
      {cost && (
        <>
          <div className="print:hidden">
            <CostTable cost={cost} />
          </div>
          <Quotation
            key={cost.pieces}
            cost={cost}
            rates={kit.shop.rates ?? {}}
            name={data.name}
            piece={timeline ? pieceText(data.build, timeline, display) : ''}
          />
          <RatesFields shop={kit.shop} build={data.build} currency={cost.currency} onChange={set} />
        </>
      )}
    </Screen>
  );
}
