import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useRef } from 'react';
import type { RackBoard } from '../../../contract/board';
import {
  acclimatised,
  millingYield,
  moneyText,
  type RackLine,
  type RackOrder,
  type RackQuestion,
} from '../../../core/stock';
import { boardFeetText, counted, lengthText } from '../../../core/units';
import { speciesName } from '../../../core/wood/species';
import { useKitQuery } from '../../app/api';
import { today } from '../../app/day';
import { useDisplay } from '../../app/display';
import { Measure } from '../../parts/Measure';
import { Swatch } from '../../parts/Swatch';
import { Sums } from './Sums';
import { SOLD_NAMES } from './words';

const GRID =
  'grid grid-cols-[32px_64px_minmax(130px,1.4fr)_132px_repeat(3,72px)_84px_64px_70px_92px_minmax(110px,1fr)] items-center gap-x-2 px-3';
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
  ['boardFeet', 'Bd ft'],
  ['value', 'Value'],
  ['arrived', 'Standing'],
];
const ROW_PX = 28;

/** The rack as a list of which only the lines in sight are made: two thousand boards scroll like twenty. */
export function RackTable({
  lines,
  question,
  onOrder,
  chosen,
  onChoose,
  selected,
  onSelect,
}: {
  lines: RackLine<RackBoard>[];
  question: RackQuestion;
  onOrder: (order: RackOrder) => void;
  chosen: string | undefined;
  onChoose: (id: string) => void;
  selected: ReadonlySet<string>;
  onSelect: (ids: ReadonlySet<string>) => void;
}) {
  const display = useDisplay();
  const scroller = useRef<HTMLDivElement>(null);
  // No compiler memoises this component, so what the virtualizer returns is never stale.
  // eslint-disable-next-line react-hooks/incompatible-library
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
  });
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
  return (
    <div className="relative flex min-h-0 flex-1 flex-col overflow-x-auto">
      <div
        role="table"
        aria-label="Boards on the rack"
        aria-rowcount={all.length}
        className="flex min-h-0 min-w-[1080px] flex-1 flex-col"
      >
        <div role="row" className={`${GRID} border-line bg-faint/60 h-7 border-y`}>
          {HEADS.map(([order, title], i) => (
            <span
              key={title || i}
              role="columnheader"
              className="label"
              aria-sort={
                order && question.order === order
                  ? question.downwards
                    ? 'descending'
                    : 'ascending'
                  : undefined
              }
            >
              {i === 0 ? (
                <input
                  type="checkbox"
                  className="accent-chalk h-4 w-4 align-middle"
                  aria-label="Select all shown"
                  checked={all.length > 0 && all.every((id) => selected.has(id))}
                  onChange={(event) => toggle(all, event.target.checked)}
                />
              ) : order ? (
                <button
                  type="button"
                  className="hover:text-ink inline-flex items-center gap-1"
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
            {virtual.getVirtualItems().map(({ index, start, key }) => {
              const line = lines[index];
              return (
                <div
                  key={key}
                  role="presentation"
                  className="absolute inset-x-0"
                  style={{ top: start, height: ROW_PX }}
                >
                  {'board' in line ? (
                    <Line
                      line={line}
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
                No board like that on the rack.
              </p>
            </div>
          )}
        </div>
      </div>
    </div>
  );
}

function Line({
  line,
  chosen,
  onChoose,
  selected,
  onSelect,
}: {
  line: Extract<RackLine<RackBoard>, { board: RackBoard }>;
  chosen: boolean;
  onChoose: (id: string) => void;
  selected: boolean;
  onSelect: (on: boolean) => void;
}) {
  const display = useDisplay();
  const { data: kit } = useKitQuery();
  const { board } = line;
  const mills = kit && millingYield(board, kit.shop);
  return (
    <div
      role="row"
      aria-selected={chosen}
      data-board={board.label}
      className={`${GRID} h-full cursor-pointer text-[14px] ${chosen ? 'bg-chalk-wash shadow-[inset_3px_0_0_var(--color-chalk)]' : 'hover:bg-faint/50'}`}
      onClick={() => onChoose(board.id)}
    >
      <span role="cell">
        <input
          type="checkbox"
          className="accent-chalk h-4 w-4 align-middle"
          aria-label={`Select board ${board.label}`}
          checked={selected}
          onClick={(event) => event.stopPropagation()}
          onChange={(event) => onSelect(event.target.checked)}
        />
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
      <Measure value={board.length} display={display} />
      <Measure value={board.width} display={display} />
      <Measure value={board.thickness} display={display} />
      <span role="cell">
        {mills && <Measure value={mills.thickness} display={display} className="text-graphite" />}
      </span>
      <span role="cell" className="rule">
        {Math.floor(line.clear * 100)} %
      </span>
      <span role="cell" className="rule">
        {boardFeetText(line.boardFeet)}
      </span>
      <span role="cell" className="rule text-graphite truncate">
        {line.value ? moneyText(line.value.minor, line.value.currency) : '–'}
      </span>
      <Standing board={board} />
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
