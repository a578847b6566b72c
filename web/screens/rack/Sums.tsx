import type { RackSums } from '../../../core/stock';
import { moneyText } from '../../../core/units';
import { bulkText, counted, woodText } from '../../../core/units';
import { useDisplay } from '../../app/display';

/** Sums over some boards: how many, how much wood, what they are worth. */
export function Sums({ title, sums }: { title: string; sums: RackSums }) {
  const display = useDisplay();
  const money = Object.entries(sums.byCurrency).map(([currency, minor]) => moneyText(minor, currency));
  return (
    <span className="flex flex-wrap items-baseline gap-x-2">
      <span className="label">{title}</span>
      <span className="rule">{counted(sums.boards, 'board')}</span>
      {display.system === 'inch' && <span className="rule">{woodText(sums.boardFeet, display)}</span>}
      <span className={`rule ${display.system === 'inch' ? 'text-graphite' : ''}`}>
        {bulkText(sums.volume, display)}
      </span>
      {money.length > 0 && <span className="rule">{money.join(' + ')}</span>}
      {sums.unpriced > 0 && <span className="text-graphite">{sums.unpriced} without a price</span>}
    </span>
  );
}
