import { type ReactNode, useState } from 'react';
import { Sideways } from './layout';
import { usePhone } from './use-phone';

/** One thing that a table says of each of its rows. */
export interface Column<Row> {
  /** What it is called above the column; on a phone before the value. */
  head: string;
  /** Its unit, or what the head leaves open. */
  under?: string;
  cell: (row: Row) => ReactNode;
  /** Numbers stand in the face of rules, the others in that of words. */
  words?: boolean;
  /** Lies at the right, under its head. */
  right?: boolean;
}

/**
 * A table to read: rows and columns at a desk; on a phone one line for each row with its first two columns, which opens to the
 * others.
 */
export function DataTable<Row>({
  label,
  columns,
  rows,
  keyOf,
}: {
  label: string;
  columns: readonly Column<Row>[];
  rows: readonly Row[];
  keyOf: (row: Row) => string;
}) {
  const phone = usePhone();
  if (phone)
    return (
      <ul aria-label={label} className="sheet">
        {rows.map((row) => (
          <Opened key={keyOf(row)} row={row} columns={columns} />
        ))}
      </ul>
    );
  return (
    <Sideways label={label} className="sheet p-3">
      <table className="w-full text-[14px]">
        <thead>
          <tr className="label text-left align-bottom">
            {columns.map(({ head, under, right }) => (
              <th key={head} className={`pr-3 pb-1 font-medium ${right ? 'text-right' : ''}`}>
                {head}
                {under && <span className="block">{under}</span>}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={keyOf(row)} className="border-line border-t border-dotted">
              {columns.map(({ head, cell, words, right }, i) => (
                <td
                  key={head}
                  className={`py-1 pr-3 ${i === 0 ? 'font-medium' : words ? '' : 'rule'} ${right ? 'text-right' : ''}`}
                >
                  {cell(row)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Sideways>
  );
}

function Opened<Row>({
  row,
  columns: [first, second, ...others],
}: {
  row: Row;
  columns: readonly Column<Row>[];
}) {
  const [open, setOpen] = useState(false);
  return (
    <li className="border-line border-b last:border-b-0">
      <details onToggle={(event) => setOpen(event.currentTarget.open)}>
        <summary className="flex cursor-pointer items-center justify-between gap-3 px-3 text-[15px]">
          <span className="min-w-0 font-medium">{first.cell(row)}</span>
          <span className={`shrink-0 text-right text-[14px] ${second.words ? '' : 'rule'}`}>
            <span className="text-graphite block font-sans text-[12px] font-medium">
              {second.head} {second.under}
            </span>
            {second.cell(row)}
          </span>
        </summary>
        {open && (
          <dl className="grid grid-cols-[1fr_auto] gap-x-3 gap-y-1.5 px-3 pb-3 text-[14px]">
            {others.map(({ head, under, cell, words }) => (
              <div key={head} className="contents">
                <dt className="text-graphite">
                  {head}
                  {under && `, ${under}`}
                </dt>
                <dd className={`max-w-[52vw] text-right ${words ? '' : 'rule'}`}>{cell(row)}</dd>
              </div>
            ))}
          </dl>
        )}
      </details>
    </li>
  );
}
