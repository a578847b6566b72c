import { ArrowLeftRight, Plus, X } from 'lucide-react';
import { useState } from 'react';
import type { BuildDocument } from '../../../core/document';
import { settingsOf, tradeStrips, type TradingBoard } from '../../../core/stock';
import { INCH, type Length } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { CountField } from '../../parts/CountField';
import { LengthField } from '../../parts/LengthField';
import { Measure } from '../../parts/Measure';
import { Window } from '../../parts/Window';

type Row = TradingBoard & { typed: Length };

const row = (label: string, width: Length): Row => ({
  label,
  width: width.mm,
  typed: width,
  gives: 0,
  receives: 0,
});

/** When several pieces give strips to one another: how wide each ends, and whether as many come in as go out. */
export function StripLedger({ build }: { build: BuildDocument }) {
  const display = useDisplay();
  const [open, setOpen] = useState(false);
  const [strip, setStrip] = useState<Length>({ mm: (3 / 8) * INCH });
  const start = () => [
    ...build.boards.slice(0, 6).map((board) => row(`Board ${board.label}`, board.width)),
    ...['Panel A', 'Panel B', 'Panel C']
      .slice(Math.min(3, build.boards.length))
      .map((name) => row(name, { mm: 9 * INCH })),
  ];
  const [rows, setRows] = useState<Row[]>(start);
  const saw = build.shop.saws.find(({ id }) => id === settingsOf(build).ripSaw);
  const kerf = saw?.kerf.mm ?? 0;
  const trade = tradeStrips(rows, strip.mm, kerf);
  const set = (at: number, change: Partial<Row>) =>
    setRows(rows.map((r, i) => (i === at ? { ...r, ...change } : r)));
  const over = trade.received - trade.given;
  return (
    <>
      <button
        type="button"
        className="action"
        onClick={() => {
          setRows(start());
          setOpen(true);
        }}
      >
        <ArrowLeftRight size={15} aria-hidden /> Swap strips between boards
      </button>
      <Window
        wide
        title="Strips that pieces give to one another"
        description={`Every strip given costs its width and the kerf of ${saw?.name ?? 'the saw'}; a piece that takes part is split once more to let strips in.`}
        open={open}
        onClose={() => setOpen(false)}
      >
        <div className="flex items-end gap-4 pb-3">
          <LengthField
            label="Each strip is wide"
            className="w-36"
            value={strip}
            display={display}
            onChange={setStrip}
          />
          <span className="pb-1.5 text-[14px]">
            kerf <Measure value={kerf} display={display} unit />
          </span>
        </div>
        <table className="w-full text-left text-[14px]">
          <thead>
            <tr className="label">
              <th className="font-medium">Piece</th>
              <th className="font-medium">Wide</th>
              <th className="font-medium">Gives away</th>
              <th className="font-medium">Receives</th>
              <th className="font-medium">Ends at</th>
              <th>
                <span className="sr-only">Take out</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r, i) => (
              <tr key={i} className="align-top">
                <td className="py-1 pr-2">
                  <input
                    className="field w-full font-sans!"
                    aria-label={`Name of piece ${i + 1}`}
                    maxLength={40}
                    value={r.label}
                    onChange={(event) => set(i, { label: event.target.value })}
                  />
                </td>
                <td className="py-1 pr-2">
                  <LengthField
                    hideLabel
                    label={`Width of piece ${i + 1}`}
                    value={r.typed}
                    display={display}
                    onChange={(typed) => set(i, { typed, width: typed.mm })}
                  />
                </td>
                <td className="py-1 pr-2">
                  <CountField
                    hideLabel
                    label={`Piece ${i + 1} gives`}
                    value={r.gives}
                    least={0}
                    most={200}
                    onChange={(gives) => set(i, { gives })}
                  />
                </td>
                <td className="py-1 pr-2">
                  <CountField
                    hideLabel
                    label={`Piece ${i + 1} receives`}
                    value={r.receives}
                    least={0}
                    most={200}
                    onChange={(receives) => set(i, { receives })}
                  />
                </td>
                <td className="py-2" data-testid={`ends-${i + 1}`}>
                  {trade.tooNarrow.includes(r.label) ? (
                    <span className="text-red">too narrow to give {r.gives}</span>
                  ) : (
                    <Measure value={trade.ends[i]} display={display} unit className="text-[16px]" />
                  )}
                </td>
                <td className="py-1">
                  <button
                    type="button"
                    className="action px-2"
                    aria-label={`Remove piece ${i + 1}`}
                    onClick={() => setRows(rows.filter((_, j) => j !== i))}
                  >
                    <X size={14} />
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <p role="status" className="pt-2">
          <span className="rule">{trade.given}</span> given, <span className="rule">{trade.received}</span>{' '}
          received
          {over > 0 && <span className="text-red">: {over} have to come from elsewhere</span>}
          {over < 0 && `: ${-over} to spare`}
          {over === 0 && <span className="text-green">: all go round</span>}
        </p>
        <button
          type="button"
          className="action mt-2"
          onClick={() => setRows([...rows, row(`Piece ${rows.length + 1}`, { mm: 9 * INCH })])}
        >
          <Plus size={14} aria-hidden /> Another piece
        </button>
      </Window>
    </>
  );
}
