import type { RackBoard } from '../../../contract/board';

/** What became of a board, from its first day on the rack. */
export function BoardPast({ board }: { board: RackBoard }) {
  return (
    <ol className="flex flex-col gap-1 text-[14px]">
      {board.history.map(({ when, what, by }) => (
        <li
          key={`${when} ${what}`}
          className="border-line flex justify-between gap-3 border-b border-dotted py-1"
        >
          <span>
            {what}
            {by && <span className="text-graphite">, {by}</span>}
          </span>
          <span className="rule text-graphite">{new Date(when).toLocaleDateString('sv')}</span>
        </li>
      ))}
    </ol>
  );
}
