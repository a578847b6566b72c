import { extent, scaleLinear } from 'd3';
import type { Goal } from '../../../core/document';
import { counted, fromMinor, moneyText } from '../../../core/units';
import type { TradeOff } from '../../workers/breakdown.worker';
import { GOAL_NAMES } from './words';

const W = 336;
const H = 168;
const MARGIN = { left: 40, right: 18, top: 12, bottom: 30 };

const costOf = ({ totals }: TradeOff) => Object.values(totals.cost)[0];

/** What each goal would cost and waste, as points to pick from: to the left less waste, further down less money or fewer boards. */
export function TradeOffs({
  tradeOffs,
  goal,
  onPick,
}: {
  tradeOffs: TradeOff[];
  goal: Goal;
  onPick: (pick: TradeOff) => void;
}) {
  const whole = tradeOffs.filter(
    ({ answer }) => answer.missing.length === Math.min(...tradeOffs.map((t) => t.answer.missing.length)),
  );
  const priced = whole.every((t) => costOf(t) !== undefined);
  const currency = Object.keys(whole[0]?.totals.cost ?? {})[0] ?? '';
  const x = ({ totals }: TradeOff) => (1 - totals.yield) * 100;
  const y = (t: TradeOff) => (priced ? fromMinor(costOf(t) ?? 0, currency) : t.totals.boards);
  const spread = (values: number[]): [number, number] => {
    const [a = 0, b = 1] = extent(values);
    const pad = Math.max((b - a) * 0.15, Math.abs(b) * 0.04, 0.5);
    return [Math.max(0, a - pad), b + pad];
  };
  const across = scaleLinear(spread(whole.map(x)), [MARGIN.left, W - MARGIN.right]);
  const up = scaleLinear(spread(whole.map(y)), [H - MARGIN.bottom, MARGIN.top]);
  // Goals that come to the same plan share a point.
  const points = new Map<string, TradeOff[]>();
  for (const t of whole) {
    const key = `${x(t).toFixed(2)} ${y(t).toFixed(2)}`;
    points.set(key, [...(points.get(key) ?? []), t]);
  }
  return (
    <section aria-label="Trade-off" className="border-line border-t pt-2">
      <h2 className="label">Goals against each other; choose a point to take its plan</h2>
      <svg viewBox={`0 0 ${W} ${H}`} width={W} height={H} role="group" aria-label="Waste against cost">
        {across.ticks(4).map((tick) => (
          <g key={tick}>
            <line
              x1={across(tick)}
              x2={across(tick)}
              y1={H - MARGIN.bottom}
              y2={H - MARGIN.bottom + 4}
              stroke="#535b60"
            />
            <text
              x={across(tick)}
              y={H - MARGIN.bottom + 15}
              fontSize={11}
              textAnchor="middle"
              className="rule"
              fill="#535b60"
            >
              {tick} %
            </text>
          </g>
        ))}
        {up.ticks(4).map((tick) => (
          <text
            key={tick}
            x={MARGIN.left - 6}
            y={up(tick) + 4}
            fontSize={11}
            textAnchor="end"
            className="rule"
            fill="#535b60"
          >
            {tick}
          </text>
        ))}
        <path
          d={`M${MARGIN.left} ${MARGIN.top} V${H - MARGIN.bottom} H${W - MARGIN.right}`}
          fill="none"
          stroke="#535b60"
        />
        <text x={W - MARGIN.right} y={H - 3} fontSize={11} textAnchor="end" fill="#535b60">
          waste
        </text>
        <text x={MARGIN.left + 5} y={MARGIN.top + 6} fontSize={11} fill="#535b60">
          {priced ? currency : 'boards'}
        </text>
        {[...points].map(([key, same]) => {
          const here = same.some((t) => t.goal === goal);
          const names = same.map((t) => GOAL_NAMES[t.goal]).join(', ');
          const [first] = same;
          const pick = same.find((t) => t.goal === goal) ?? first;
          const words = `${names}: ${x(first).toFixed(1)} % waste, ${counted(first.totals.boards, 'board')}${priced ? `, ${moneyText(costOf(first) ?? 0, currency)}` : ''}`;
          return (
            <g
              key={key}
              role="button"
              tabIndex={0}
              aria-label={words}
              aria-pressed={here}
              className="cursor-pointer"
              onClick={() => onPick(pick)}
              onKeyDown={(event) => {
                if (event.key === 'Enter' || event.key === ' ') onPick(pick);
              }}
            >
              <title>{words}</title>
              <circle cx={across(x(first))} cy={up(y(first))} r={12} fill="transparent" />
              <circle
                cx={across(x(first))}
                cy={up(y(first))}
                r={here ? 6 : 4.5}
                fill={here ? '#1d4f9c' : '#fafaf7'}
                stroke="#1d4f9c"
                strokeWidth={2}
              />
            </g>
          );
        })}
      </svg>
      <ul className="text-[13.5px]">
        {[...points].map(([key, same]) => (
          <li key={key} className="flex justify-between gap-2">
            <span className={same.some((t) => t.goal === goal) ? 'text-chalk font-medium' : ''}>
              {same.map((t) => GOAL_NAMES[t.goal]).join(', ')}
            </span>
            <span className="rule text-graphite shrink-0">
              {x(same[0]).toFixed(1)} %, {same[0].totals.boards} bd
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
