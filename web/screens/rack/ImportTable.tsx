import { FileUp } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { RackBoard } from '../../../contract/board';
import { phraseText, type PricePer } from '../../../core/document';
import { lastUsedFirst, speciesName } from '../../../core/wood';
import {
  boardsFromCsv,
  COLUMN_TITLES,
  type ColumnName,
  COLUMNS,
  type CsvTable,
  decodeText,
  guessColumns,
  readCsv,
} from '../../../core/exchange/rack';
import { counted, type LengthSystem } from '../../../core/units';
import { problemText, useAddBoardsMutation, useKitQuery } from '../../app/api';
import { useDisplay } from '../../app/display';
import { useWriteOnce } from '../../app/write-once';
import { Choice } from '../../parts/Choice';
import { Tick } from '../../parts/Tick';
import { Toggle } from '../../parts/Toggle';
import { FileButton } from '../../parts/FileButton';
import { Window } from '../../parts/Window';
import { PER_NAMES, pricesPer } from './words';
import { Columns } from '../../parts/layout';

const MOST_FILE_BYTES = 4 * 1024 * 1024;
const SEPARATORS: Record<string, string> = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' };

/** Boards from a spreadsheet: paste or choose a file, match its columns, see every row that is none, take the rest. */
export function ImportTable({ boards, onClose }: { boards: readonly RackBoard[]; onClose: () => void }) {
  const [table, setTable] = useState<CsvTable>();
  return (
    <Window wide title="Boards from a table" open onClose={onClose}>
      {table ? (
        <Matching table={table} boards={boards} onBack={() => setTable(undefined)} onClose={onClose} />
      ) : (
        <Source onRead={setTable} />
      )}
    </Window>
  );
}

function Source({ onRead }: { onRead: (table: CsvTable) => void }) {
  const [text, setText] = useState('');
  const [reason, setReason] = useState<string>();
  const take = (content: string, encoding: string) => {
    const table = readCsv(content, encoding);
    if (table.rows.length === 0)
      setReason('This holds no rows: the first line names the columns, each line below it is a board.');
    else if (table.rows.length > 2000)
      setReason(`These are ${table.rows.length} rows; at most 2000 come in at once.`);
    else onRead(table);
  };
  const read = async (file: File) => {
    if (file.size > MOST_FILE_BYTES) return setReason('This file is larger than 4 MB.');
    const decoded = decodeText(new Uint8Array(await file.arrayBuffer()));
    take(decoded.text, decoded.encoding);
  };
  return (
    <div className="flex flex-col gap-3">
      <textarea
        aria-label="Table as text"
        className="field h-40 w-full py-1.5 font-mono text-[13px]"
        placeholder={'number;wood;length;width;thickness\n7;White ash;73;5 3/4;6/4'}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      {reason && (
        <p role="alert" className="text-red text-[14px]">
          {reason}
        </p>
      )}
      <div className="flex gap-2">
        <FileButton
          label="Table file"
          accept=".csv,.tsv,.txt,text/csv,text/plain"
          onFile={(file) => void read(file)}
        >
          <FileUp size={15} aria-hidden /> Choose a file
        </FileButton>
        <button
          type="button"
          className="action action-main ml-auto"
          disabled={!text.trim()}
          onClick={() => take(text, 'text')}
        >
          Match its columns
        </button>
      </div>
    </div>
  );
}

function Matching({
  table,
  boards,
  onBack,
  onClose,
}: {
  table: CsvTable;
  boards: readonly RackBoard[];
  onBack: () => void;
  onClose: () => void;
}) {
  const display = useDisplay();
  const [add, { isLoading }] = useAddBoardsMutation();
  const write = useWriteOnce();
  const [columns, setColumns] = useState(() => guessColumns(table.heads));
  const [system, setSystem] = useState<LengthSystem>(display.system);
  const usual = useKitQuery().data?.shop.currency ?? '';
  const [told, setCurrency] = useState<string>();
  const currency = told ?? usual;
  const [per, setPer] = useState<PricePer>(pricesPer(display.system)[0]);
  const [woods, setWoods] = useState<Record<string, string>>({});
  const [takeOdd, setTakeOdd] = useState(false);
  const [refused, setRefused] = useState<string>();
  const taken = useMemo(() => new Set(boards.map(({ label }) => label)), [boards]);
  const read = useMemo(
    () =>
      boardsFromCsv(
        table,
        {
          ...{ columns, system, per, woods, takeOdd },
          ...(/^[A-Z]{3}$/.test(currency) ? { currency } : {}),
        },
        taken,
      ),
    [table, columns, system, per, currency, woods, takeOdd, taken],
  );
  const options = [
    { value: '-1', label: 'not in the table' },
    ...table.heads.map((head, i) => ({ value: String(i), label: head || `column ${i + 1}` })),
  ];
  const put = async () => {
    const result = await add({ boards: read.boards, write: write.of(read.boards) });
    if (result.error) setRefused(problemText(result.error));
    else onClose();
  };
  return (
    <div className="flex flex-col gap-3">
      <p className="text-graphite text-[14px]">
        {counted(table.rows.length, 'row')}, columns parted by {SEPARATORS[table.separator] ?? 'lines'},{' '}
        {table.encoding === 'text' ? 'pasted' : `written in ${table.encoding}`}
        {table.decimalComma && ', decimal commas'}.
      </p>
      <Columns least={9} most={4} className="gap-y-1.5">
        {COLUMNS.map((name) => (
          <Choice
            key={name}
            label={COLUMN_TITLES[name]}
            value={String(columns[name])}
            options={options}
            onChange={(at) => setColumns({ ...columns, [name]: Number(at) } as Record<ColumnName, number>)}
          />
        ))}
        <Toggle
          label="Bare numbers are"
          value={system}
          onChange={setSystem}
          options={[
            { value: 'inch', label: 'inches' },
            { value: 'mm', label: 'mm' },
          ]}
        />
        <label className="block">
          <span className="label block pb-0.5">Currency where none stands</span>
          <input
            className="field w-full"
            maxLength={3}
            value={currency}
            placeholder="EUR"
            onChange={(event) => setCurrency(event.target.value.toUpperCase())}
          />
        </label>
        <Choice
          label="Prices are per"
          value={per}
          options={pricesPer(display.system, per).map((value) => ({ value, label: PER_NAMES[value] }))}
          onChange={(value) => setPer(value as PricePer)}
        />
      </Columns>
      {read.asked.map(({ name, woods: mayBe, rows }) => (
        <Choice
          key={name}
          label={`Which “${name}” is meant, in ${counted(rows, 'row')}`}
          className="max-w-80"
          value={woods[name] ?? ''}
          options={lastUsedFirst(
            mayBe,
            boards.map(({ species }) => species),
          ).map((wood) => ({ value: wood, label: speciesName(wood) }))}
          onChange={(wood) => setWoods({ ...woods, [name]: wood })}
        />
      ))}
      {read.odd.length > 0 && (
        <div className="border-chalk bg-chalk-wash border-l-[3px] px-3 py-2 text-[14px]">
          <ul aria-label="Sizes that look like a slip">
            {read.odd.slice(0, 6).map(({ line, words }) => (
              <li key={line}>
                line {line}: {phraseText(words, display)}
              </li>
            ))}
            {read.odd.length > 6 && <li>and {counted(read.odd.length - 6, 'more line')}</li>}
          </ul>
          <Tick label="These sizes are right: take them too" checked={takeOdd} onChange={setTakeOdd} />
        </div>
      )}
      <p role="status" className="font-medium">
        <span className="text-green">{counted(read.boards.length, 'board')} can be read</span>
        {read.errors.length > 0 && (
          <span className="text-red">, {counted(read.errors.length, 'row')} cannot</span>
        )}
        {!takeOdd && read.odd.length > 0 && `, ${counted(read.odd.length, 'row')} to look at`}
        {read.numbered > 0 && (
          <span className="text-graphite font-normal">
            ; the table has no numbers, the next free ones are given, from {read.boards[0].label} on
          </span>
        )}
      </p>
      {read.errors.length > 0 && (
        <ul
          aria-label="Rows that are no boards"
          className="border-line max-h-44 overflow-y-auto border-y text-[13.5px]"
        >
          {read.errors.map(({ line, reasons }) => (
            <li key={line} className="flex gap-3 py-0.5">
              <span className="rule w-14 shrink-0">line {line}</span>
              <span>{reasons.join('; ')}</span>
            </li>
          ))}
        </ul>
      )}
      {refused && (
        <p role="alert" className="text-red">
          {refused}
        </p>
      )}
      <div className="flex gap-2">
        <button type="button" className="action" onClick={onBack}>
          Another table
        </button>
        <button
          type="button"
          className="action action-main ml-auto"
          disabled={read.boards.length === 0 || isLoading}
          onClick={() => void put()}
        >
          Put {counted(read.boards.length, 'board')} on the rack
        </button>
      </div>
    </div>
  );
}
