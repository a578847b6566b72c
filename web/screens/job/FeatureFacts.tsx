import { phraseText } from '../../../core/document';
import type { FeatureRow } from '../../../core/view';
import { lengthText } from '../../../core/units';
import { useDisplay } from '../../app/display';

/** Where a feature lies and what is left around it. */
export function FeatureFacts({ row }: { row: FeatureRow | undefined }) {
  const display = useDisplay();
  if (!row) return null;
  const facts = [
    ...(row.count > 1 ? [`${row.count} of them`] : []),
    ...(row.fromFinished
      ? [
          `${lengthText(row.fromFinished.u, display)} along, ${lengthText(row.fromFinished.v, display)} across`,
        ]
      : []),
    ...row.left.map((each) => phraseText(each, display)),
  ];
  return (
    <span className={`text-[13.5px] font-normal ${row.refused ? 'text-red' : 'text-graphite'}`}>
      {row.refused ? `Not cut: ${phraseText(row.refused, display)}` : facts.join(' · ')}
    </span>
  );
}
