import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { Fragment, useEffect, useRef } from 'react';
import type { RackBoard } from '../../../contract/board';
import {
  acclimatised,
  millingYield,
  type RackLine,
  type RackOrder,
  type RackQuestion,
} from '../../../core/stock';
import { counted, lengthText, moneyText, woodText } from '../../../core/units';
import { speciesName } from '../../../core/wood/common';
import { useKitQuery } from '../../app/api';
import { today } from '../../app/day';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { Measure } from '../../parts/Measure';
import { Swatch } from '../../parts/Swatch';
import { useFingers, usePhone } from '../../parts/use-phone';
import { Sums } from './Sums';
import { SOLD_NAMES } from './words';

const GRID =
  'grid grid-cols-[32px_64px_minmax(130px,1.4fr)_132px_repeat(3,72px)_84px_64px_84px_92px_minmax(110px,1fr)] items-center gap-x-2 px-3';
const HEADS: readonly [RackOrder | undefined, string][] = [
  [undefined, ''],
  ['label', 'Number'],
  ['species', 'Wood'],
  [undefined, 'Sold as'],
  ['length', 'Length'],
  ['width', 'Width'],
  ['thickness', 'Thick'],
  [undefined, 'Mills to'],
  ['clear', 'Clear'],
  ['boardFeet', 'Amount'],
  ['value', 'Value'],
  ['arrived', 'Status'],
];
const ROW_PX = { fingers: 46, mouse: 28 };
/** On a phone a board is a card of three lines. */
const CARD_PX = 88;
const GROUP_PX = 40;

const orderOf = (question: RackQuestion, order: RackOrder | undefined) =>
  order && question.order === order ? (question.downwards ? 'descending' : 'ascending') : undefined;

/** The rack as a list of which only the lines in sight are made: two thousand boards scroll like twenty. */
export function RackTable({
  isEmpty,
  lines,
  question,
  onOrder,
  chosen,
  onChoose,
  selected,
  onSelect,
}: {
  /** Nothing is on the rack, whatever is looked for; undefined until the rack is read. */
  isEmpty: boolean | undefined;
  lines: RackLine<RackBoard>[];
  question: RackQuestion;
  onOrder: (order: RackOrder) => void;
  chosen: string | undefined;
  onChoose: (id: string) => void;
  selected: ReadonlySet<string>;
  onSelect: (ids: ReadonlySet<string>) => void;
}) {
  const display = useDisplay();
  const phone = usePhone();
  const fingers = useFingers();
  const scroller = useRef<HTMLDivElement>(null);
  // No compiler memoises this component, so what the virtualizer returns is never stale.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) =>
      phone ? ('board' in lines[i] ? CARD_PX : GROUP_PX) : ROW_PX[fingers ? 'fingers' : 'mouse'],
    overscan: 12,
  });
  useEffect(() => virtual.measure(), [virtual, phone, fingers, lines]);
  const toggle = (ids: string[], on: boolean) => {
    const next = new Set(selected);
    for (const id of ids) {
      if (on) next.add(id);
      else next.delete(id);
    }
    onSelect(next);
  };
  const all = lines.flatMap((line) => ('board' in line ? [line.board.id] : []));
  const move = (by: number) => {
    const at = all.indexOf(chosen ?? '');
    const next = all[Math.min(all.length - 1, Math.max(0, at + by))];
    if (!next) return;
    onChoose(next);
    virtual.scrollToIndex(lines.findIndex((line) => 'board' in line && line.board.id === next));
  };
  const pick = {
    checked: all.length > 0 && all.every((id) => selected.has(id)),
    onChange: (on: boolean) => toggle(all, on),
  };
  return (
    <div className="relative flex min-h-0 flex-1 flex-col overflow-x-auto">
      <div
        role="table"
        aria-label="Boards on the rack"
        aria-rowcount={all.length}
        className="desk:min-w-[1080px] flex min-h-0 flex-1 flex-col"
      >
        {phone ? (
          <PhoneHead question={question} onOrder={onOrder} pick={pick} />
        ) : (
          <DeskHead question={question} onOrder={onOrder} pick={pick} />
        )}
        <div
          ref={scroller}
          role="rowgroup"
          tabIndex={0}
          aria-label="Boards, arrow keys choose"
          className="min-h-0 flex-1 overflow-y-auto max-desk:h-[420px] max-desk:flex-none"
          onKeyDown={(event) => {
            const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
            if (!by) return;
            event.preventDefault();
            move(by);
          }}
        >
          <div role="presentation" className="relative" style={{ height: virtual.getTotalSize() }}>
            {virtual.getVirtualItems().map(({ index, start, size, key }) => {
              const line = lines[index];
              return (
                <div
                  key={key}
                  role="presentation"
                  className="absolute inset-x-0"
                  style={{ top: start, height: size }}
                >
                  {'board' in line ? (
                    <Line
                      line={line}
                      phone={phone}
                      chosen={line.board.id === chosen}
                      onChoose={onChoose}
                      selected={selected.has(line.board.id)}
                      onSelect={(on) => toggle([line.board.id], on)}
                    />
                  ) : (
                    <div role="row" className="border-line bg-sheet flex h-full items-center border-b px-3">
                      <Sums
                        title={`${line.head}, ${lengthText(line.thicknessMm, display)} thick`}
                        sums={line.sums}
                      />
                    </div>
                  )}
                </div>
              );
            })}
          </div>
          {lines.length === 0 && (
            <div role="row">
              <p role="cell" className="text-graphite p-4">
                {isEmpty === undefined
                  ? 'Reading the rack …'
                  : isEmpty
                    ? 'No board yet.'
                    : 'No board like that on the rack.'}
              </p>
            </div>
          )}
        </div>
      </div>
    </div>
  );
}

interface HeadProps {
  question: RackQuestion;
  onOrder: (order: RackOrder) => void;
  pick: { checked: boolean; onChange: (on: boolean) => void };
}

const PickAll = ({ pick }: Pick<HeadProps, 'pick'>) => (
  <label className="flex items-center pointer-coarse:justify-center">
    <input
      type="checkbox"
      className="accent-chalk h-4 w-4"
      aria-label="Select all shown"
      checked={pick.checked}
      onChange={(event) => pick.onChange(event.target.checked)}
    />
  </label>
);

function DeskHead({ question, onOrder, pick }: HeadProps) {
  return (
    <div role="row" className={`${GRID} border-line bg-faint/60 h-7 border-y pointer-coarse:h-11`}>
      {HEADS.map(([order, title], i) => (
        <span key={title || i} role="columnheader" className="label" aria-sort={orderOf(question, order)}>
          {i === 0 ? (
            <PickAll pick={pick} />
          ) : order ? (
            <button
              type="button"
              className="press hover:text-ink inline-flex items-center gap-1"
              onClick={() => onOrder(order)}
            >
              {title}
              {question.order === order &&
                (question.downwards ? (
                  <ArrowDown size={12} aria-hidden />
                ) : (
                  <ArrowUp size={12} aria-hidden />
                ))}
            </button>
          ) : (
            title
          )}
        </span>
      ))}
    </div>
  );
}

/** Cards have no columns to press: their order is chosen from a list, and turned round with a button. */
function PhoneHead({ question, onOrder, pick }: HeadProps) {
  const orders: readonly { value: RackOrder; label: string }[] = [
    { value: 'entered', label: 'as entered' },
    ...HEADS.flatMap(([value, title]) => (value ? [{ value, label: `by ${title.toLowerCase()}` }] : [])),
  ];
  const Sign = question.downwards ? ArrowDown : ArrowUp;
  return (
    <div role="row" className="border-line bg-faint/60 border-y">
      <div role="columnheader" className="flex items-center gap-2 p-1.5">
        <span className="w-11">
          <PickAll pick={pick} />
        </span>
        <Choice
          label="In the order of"
          hideLabel
          className="flex-1"
          value={question.order}
          options={orders}
          onChange={(order) => onOrder(order as RackOrder)}
        />
        <button
          type="button"
          className="action h-11! w-11 justify-center px-0"
          aria-label={question.downwards ? 'Largest first' : 'Smallest first'}
          onClick={() => onOrder(question.order)}
        >
          <Sign size={18} aria-hidden />
        </button>
      </div>
    </div>
  );
}

function Line({
  line,
  phone,
  chosen,
  onChoose,
  selected,
  onSelect,
}: {
  line: Extract<RackLine<RackBoard>, { board: RackBoard }>;
  phone: boolean;
  chosen: boolean;
  onChoose: (id: string) => void;
  selected: boolean;
  onSelect: (on: boolean) => void;
}) {
  const display = useDisplay();
  const { data: kit } = useKitQuery();
  const { board } = line;
  const mills = kit && millingYield(board, kit.shop);
  const box = (
    // The label is what a finger hits; a press on it is not one on the row.
    // biome-ignore lint/a11y/noStaticElementInteractions: it only keeps the press from the row
    <label
      className="flex h-full items-center pointer-coarse:justify-center"
      onClick={(event) => event.stopPropagation()}
    >
      <input
        type="checkbox"
        className="accent-chalk h-4 w-4"
        aria-label={`Select board ${board.label}`}
        checked={selected}
        onChange={(event) => onSelect(event.target.checked)}
      />
    </label>
  );
  const size = (['length', 'width', 'thickness'] as const).map((side) => board[side]);
  const value = line.value && moneyText(line.value.minor, line.value.currency);
  const shade = chosen
    ? 'bg-chalk-wash shadow-[inset_3px_0_0_var(--color-chalk)]'
    : phone
      ? ''
      : 'hover:bg-faint/50';
  if (phone)
    return (
      <div
        role="row"
        aria-selected={chosen}
        data-board={board.label}
        className={`border-line flex h-full cursor-pointer items-center border-b px-1.5 text-[15px] ${shade}`}
        onClick={() => onChoose(board.id)}
      >
        <span role="cell" className="h-full w-11">
          {box}
        </span>
        <span role="cell" className="min-w-0 flex-1 leading-snug">
          <span className="flex items-center gap-2 font-semibold">
            <span className="rule">{board.label}</span>
            <Swatch species={board.species} />
            <span className="truncate">{speciesName(board.species)}</span>
          </span>
          <span className="block truncate">
            {size.map((side, i) => (
              <Fragment key={HEADS[i + 4][1]}>
                {i > 0 && ' × '}
                <Measure value={side} display={display} />
              </Fragment>
            ))}
            {mills && (
              <span className="text-graphite">
                , mills to <Measure value={mills.thickness} display={display} />
              </span>
            )}
          </span>
          <span className="text-graphite flex gap-2 truncate text-[13.5px]">
            <span className="rule">{Math.floor(line.clear * 100)} % clear</span>
            <span className="rule">{woodText(line.boardFeet, display)}</span>
            {value && <span className="rule">{value}</span>}
            <Standing board={board} />
          </span>
        </span>
      </div>
    );
  return (
    <div
      role="row"
      aria-selected={chosen}
      data-board={board.label}
      className={`${GRID} h-full cursor-pointer text-[14px] ${shade}`}
      onClick={() => onChoose(board.id)}
    >
      <span role="cell" className="h-full">
        {box}
      </span>
      <span role="cell" className="rule truncate">
        {board.label}
      </span>
      <span role="cell" className="flex items-center gap-2 truncate">
        <Swatch species={board.species} /> {speciesName(board.species)}
      </span>
      <span role="cell" className="text-graphite truncate">
        {board.sold ? SOLD_NAMES[board.sold] : 'not looked at'}
      </span>
      {size.map((side, i) => (
        <span role="cell" key={HEADS[i + 4][1]}>
          <Measure value={side} display={display} />
        </span>
      ))}
      <span role="cell">
        {mills && <Measure value={mills.thickness} display={display} className="text-graphite" />}
      </span>
      <span role="cell" className="rule">
        {Math.floor(line.clear * 100)} %
      </span>
      <span role="cell" className="rule">
        {woodText(line.boardFeet, display)}
      </span>
      <span role="cell" className="rule text-graphite truncate">
        {value ?? '–'}
      </span>
      <span role="cell" className="truncate">
        <Standing board={board} />
      </span>
    </div>
  );
}

/** Whether a board may be used now: reserved, still settling, or free. */
function Standing({ board }: { board: RackBoard }) {
  const { data: kit } = useKitQuery();
  const settled = kit && acclimatised(board, kit.shop, today());
  if (board.reserved) return <span className="truncate text-[13px]">for {board.reserved.name}</span>;
  if (!settled || settled.ready) return <span className="text-graphite text-[13px]">free</span>;
  const wait = settled.daysLeft ? `wait ${counted(settled.daysLeft, 'day')}` : 'too moist';
  return (
    <span className="text-red truncate text-[13px]" title="This board has not settled in the shop yet.">
      {wait}
      {settled.abovePct !== undefined && settled.abovePct > 0 && `, ${settled.abovePct.toFixed(1)} % moister`}
    </span>
  );
}
