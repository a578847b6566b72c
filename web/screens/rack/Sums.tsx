import { moneyText, type RackSums } from '../../../core/stock';
import { boardFeetText, bulkText } from '../../../core/units';
import { useDisplay } from '../../app/display';

/** Sums over some boards: how many, how much wood, what they are worth. */
export function Sums({ title, sums }: { title: string; sums: RackSums }) {
  const display = useDisplay();
  const money = Object.entries(sums.byCurrency).map(([currency, minor]) => moneyText(minor, currency));
  return (
    <span className="flex items-baseline gap-2">
      <span className="label">{title}</span>
      <span className="rule">
        {sums.boards} {sums.boards === 1 ? 'board' : 'boards'}
      </span>
      <span className="rule">{boardFeetText(sums.boardFeet)} bd ft</span>
      <span className="rule text-graphite">{bulkText(sums.volume, display)}</span>
      {money.length > 0 && <span className="rule">{money.join(' + ')}</span>}
      {sums.unpriced > 0 && <span className="text-graphite">{sums.unpriced} without a price</span>}
    </span>
  );
}
