import { type Edit, type Finding, phraseText } from '../../../core/document';
import { STOCK_KINDS } from '../../../core/kit';
import { useState } from 'react';
import type { RackBoard } from '../../../contract/board';
import { boardsBought, type Purchase } from '../../../core/stock';
import { counted, lengthText, moneyText, woodText } from '../../../core/units';
import { speciesName } from '../../../core/wood/common';
import { problemText, useAddBoardsMutation } from '../../app/api';
import { useWriteOnce } from '../../app/write-once';
import { FixButton } from '../../parts/FixButton';
import { useDisplay } from '../../app/display';
import type { Advice } from './use-breakdown';
import { Working } from '../../parts/Working';

/** What is short before anything is cut, what can be done, and what would have to be bought. */
export function Shortage({
  findings,
  advice,
  advising,
  rack,
  onFix,
}: {
  findings: Finding[];
  advice: Advice;
  advising: boolean;
  rack: readonly RackBoard[];
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
      {advising && advice.fixes.length === 0 && <Working>Looking for ways out …</Working>}
      {advice.purchases.length > 0 && (
        <>
          <h2 className="label pt-2">Or buy</h2>
          <ul aria-label="Purchase list">
            {advice.purchases.map((buy) => (
              <li key={`${buy.species} ${buy.thickness}`}>
                <Buy buy={buy} text={(mm) => lengthText(mm, display)} /> <BuyIn buy={buy} rack={rack} />
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

/** What was bought comes onto the rack with one press, and is said with its numbers. */
function BuyIn({ buy, rack }: { buy: Purchase; rack: readonly RackBoard[] }) {
  const [add, { isLoading }] = useAddBoardsMutation();
  const write = useWriteOnce();
  const [said, setSaid] = useState<string>();
  const [refused, setRefused] = useState<string>();
  const bring = async () => {
    const boards = boardsBought(
      buy,
      rack.map(({ label }) => label),
    );
    const result = await add({ boards, write: write.of(boards) });
    if (!result.data) return setRefused(problemText(result.error));
    write.done();
    setRefused(undefined);
    setSaid(listText(boards.map(({ label }) => label)));
  };
  return (
    <>
      {said ? (
        <span role="status" className="text-green block">
          ✓ On the rack: {said}. Solve again to lay strips on {buy.count === 1 ? 'it' : 'them'}.
        </span>
      ) : (
        <button type="button" className="action" disabled={isLoading} onClick={() => void bring()}>
          Bought: put {counted(buy.count, 'board')} on the rack
        </button>
      )}
      {refused && (
        <span role="alert" className="text-red block">
          {refused}
        </span>
      )}
    </>
  );
}

const listText = (labels: readonly string[]): string =>
  labels.length === 1
    ? `number ${labels[0]}`
    : `numbers ${labels.slice(0, -1).join(', ')} and ${labels[labels.length - 1]}`;

function Buy({ buy, text }: { buy: Purchase; text: (mm: number) => string }) {
  const display = useDisplay();
  const size = `${text(buy.thickness)} × ${text(buy.width)} × ${text(buy.length)}`;
  return (
    <>
      <span className="font-medium">
        {counted(buy.count, 'board')} of {speciesName(buy.species)}
        {buy.name && ` ${buy.name}`}
      </span>
      , {buy.kind === 'construction' && buy.name ? `really ${size}` : size} (
      {STOCK_KINDS[buy.kind].name.toLowerCase()}): {woodText(buy.boardFeet, display)}
      {buy.cost && `, about ${moneyText(buy.cost.minor, buy.cost.currency)} at the rack’s mean price`}.
      {buy.count === 1 && ' One more board of this size would do.'}
    </>
  );
}
