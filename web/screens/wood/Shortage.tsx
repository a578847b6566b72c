import { type Edit, type Finding, phraseText } from '../../../core/document';
import { STOCK_KINDS } from '../../../core/kit';
import { moneyText, type Purchase } from '../../../core/stock';
import { boardFeetText, lengthText } from '../../../core/units';
import { speciesName } from '../../../core/wood/species';
import { FixButton } from '../../parts/FixButton';
import { useDisplay } from '../../app/display';
import type { Advice } from './use-breakdown';

/** What is short before anything is cut, what can be done, and what would have to be bought. */
export function Shortage({
  findings,
  advice,
  advising,
  onFix,
}: {
  findings: Finding[];
  advice: Advice;
  advising: boolean;
  onFix: (edit: Edit) => void;
}) {
  const display = useDisplay();
  return (
    <section
      aria-label="Short of wood"
      className="border-red bg-red-wash -mx-1 border-l-[3px] p-3 text-[14px]"
    >
      {findings.map((finding, i) => (
        <p key={i} data-code={finding.code} className="pb-1">
          {phraseText(finding.message, display)}
        </p>
      ))}
      {advice.fixes.length > 0 && <p className="label pt-1 pb-1">Each of these was tried:</p>}
      <span className="flex flex-wrap gap-1.5">
        {advice.fixes.map((fix) => (
          <FixButton key={fix.label} fix={fix} first={false} onPress={() => onFix(fix.edit)} />
        ))}
      </span>
      {advising && advice.fixes.length === 0 && <p className="text-graphite">Looking for ways out …</p>}
      {advice.purchases.length > 0 && (
        <>
          <h3 className="label pt-2">Or buy</h3>
          <ul aria-label="Purchase list">
            {advice.purchases.map((buy) => (
              <li key={`${buy.species} ${buy.thickness}`}>
                <Buy buy={buy} text={(mm) => lengthText(mm, display)} />
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

function Buy({ buy, text }: { buy: Purchase; text: (mm: number) => string }) {
  const size = `${text(buy.thickness)} × ${text(buy.width)} × ${text(buy.length)}`;
  return (
    <>
      <span className="font-medium">
        {buy.count} {buy.count === 1 ? 'board' : 'boards'} of {speciesName(buy.species)}
        {buy.name && ` ${buy.name}`}
      </span>
      , {buy.kind === 'construction' && buy.name ? `really ${size}` : size} (
      {STOCK_KINDS[buy.kind].name.toLowerCase()}): {boardFeetText(buy.boardFeet)} board feet
      {buy.cost && `, about ${moneyText(buy.cost.minor, buy.cost.currency)} at the rack’s mean price`}.
      {buy.count === 1 && ' One more board of this size would do.'}
    </>
  );
}
