import { FileDown, FileUp, Redo2, Trash2, Undo2 } from 'lucide-react';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import type { RackBoard } from '../../../contract/board';
import { SOLD_AS } from '../../../core/document';
import { type RackQuestion, rackSums, searchRack } from '../../../core/stock';
import { parseLength } from '../../../core/units';
import { speciesName } from '../../../core/wood/common';
import {
  problemText,
  useAddBoardsMutation,
  useBoardsQuery,
  useJobsQuery,
  useRemoveBoardsMutation,
  useReserveBoardsMutation,
} from '../../app/api';
import { useDisplay } from '../../app/display';
import { useWriteOnce } from '../../app/write-once';
import { onRackTrouble, redoBoard, undoBoard } from '../../app/rack';
import { Choice } from '../../parts/Choice';
import { Swatch } from '../../parts/Swatch';
import { Tick } from '../../parts/Tick';
import { Window } from '../../parts/Window';
import { rackFormat } from '../../../core/exchange/rack';
import { saveFile } from '../../parts/save-file';
import { BoardBench } from './BoardBench';
import { BoardCard } from './BoardCard';
import { EntryLine } from './EntryLine';
import { ImportTable } from './ImportTable';
import { RackTable } from './RackTable';
import { Sums } from './Sums';
import { SOLD_NAMES } from './words';
import { FullScreen } from '../../parts/layout';

const FIRST: RackQuestion = {
  text: '',
  species: '',
  sold: '',
  onlyFree: false,
  order: 'entered',
  downwards: false,
  grouped: false,
};
const NO_BOARDS: RackBoard[] = [];

/** The boards on hand: found, entered, and laid on the bench one at a time with what is wrong with them. */
export function Rack() {
  const { data, error } = useBoardsQuery(undefined, { refetchOnFocus: true });
  const boards = data ?? NO_BOARDS;
  const display = useDisplay();
  const [question, setQuestion] = useState(FIRST);
  const [chosen, setChosen] = useState<string>();
  const [selected, setSelected] = useState<ReadonlySet<string>>(new Set());
  const [importing, setImporting] = useState(false);
  const [trouble, setTrouble] = useState<string>();
  const asked = useDeferredValue(question);
  const lines = useMemo(() => searchRack(boards, asked), [boards, asked]);
  const woods = useMemo(
    () =>
      [...new Set(boards.map(({ species }) => species))].toSorted((a, b) =>
        speciesName(a).localeCompare(speciesName(b)),
      ),
    [boards],
  );
  const board = boards.find(({ id }) => id === chosen) ?? boards[0];
  const inSelection = useMemo(() => boards.filter(({ id }) => selected.has(id)), [boards, selected]);
  useEffect(() => {
    onRackTrouble(setTrouble);
    return () => onRackTrouble(() => {});
  }, []);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const inText = event.target instanceof HTMLInputElement && event.target.dataset.entry !== undefined;
      const key = event.key.toLowerCase();
      if (!(event.ctrlKey || event.metaKey) || inText || (key !== 'z' && key !== 'y')) return;
      event.preventDefault();
      const id = key === 'y' || event.shiftKey ? redoBoard() : undoBoard();
      if (id) setChosen(id);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
  const ask = (change: Partial<RackQuestion>) => setQuestion((before) => ({ ...before, ...change }));
  const shown = lines.flatMap((line) => ('board' in line ? [line.board] : []));
  return (
    <FullScreen className="min-h-[620px]">
      <div className="flex flex-wrap items-end gap-x-3 gap-y-2">
        <h1 className="pr-2 text-[20px] font-semibold">Rack</h1>
        <input
          aria-label="Search the rack"
          placeholder="number, wood, log …"
          className="field w-44 font-sans! font-medium!"
          value={question.text}
          onChange={(event) => ask({ text: event.target.value })}
        />
        <Choice
          label="Wood shown"
          hideLabel
          className="w-44"
          value={question.species || 'all'}
          options={[
            { value: 'all', label: 'all woods' },
            ...woods.map((id) => ({ value: id, label: speciesName(id), mark: <Swatch species={id} /> })),
          ]}
          onChange={(species) => ask({ species: species === 'all' ? '' : species })}
        />
        <Choice
          label="Sold as"
          hideLabel
          className="w-40"
          value={question.sold || 'all'}
          options={[
            { value: 'all', label: 'however sold' },
            ...SOLD_AS.map((s) => ({ value: s, label: SOLD_NAMES[s] })),
          ]}
          onChange={(sold) => ask({ sold: sold === 'all' ? '' : (sold as RackQuestion['sold']) })}
        />
        <span className="flex flex-wrap gap-x-3">
          <Tick label="not reserved" checked={question.onlyFree} onChange={(onlyFree) => ask({ onlyFree })} />
          <Tick label="in groups" checked={question.grouped} onChange={(grouped) => ask({ grouped })} />
        </span>
        <span className="ml-auto flex flex-wrap gap-2">
          <button
            type="button"
            className="action"
            aria-label="Undo"
            title="Undo (Ctrl+Z)"
            onClick={() => setChosen(undoBoard() ?? chosen)}
          >
            <Undo2 size={15} aria-hidden />
          </button>
          <button
            type="button"
            className="action"
            aria-label="Redo"
            title="Redo (Ctrl+Shift+Z)"
            onClick={() => setChosen(redoBoard() ?? chosen)}
          >
            <Redo2 size={15} aria-hidden />
          </button>
          <button type="button" className="action" disabled={!data} onClick={() => setImporting(true)}>
            <FileUp size={15} aria-hidden /> From a table
          </button>
          <button
            type="button"
            className="action"
            onClick={() =>
              saveFile(rackFormat, 'rack', {
                boards: inSelection.length ? inSelection : shown,
                system: display.system,
              })
            }
          >
            <FileDown size={15} aria-hidden /> To a table
          </button>
        </span>
      </div>
      {(error !== undefined || trouble) && (
        <p role="alert" className="text-red text-[14px]">
          {trouble ?? problemText(error)}
          {trouble && (
            <button type="button" className="ml-3 underline" onClick={() => setTrouble(undefined)}>
              seen
            </button>
          )}
        </p>
      )}
      <section aria-label="Boards" className="sheet flex min-h-72 flex-1 flex-col">
        <EntryLine rack={data} onAdded={setChosen} />
        <RackTable
          isEmpty={data?.length === 0}
          lines={lines}
          question={question}
          onOrder={(order) =>
            ask(order === question.order ? { downwards: !question.downwards } : { order, downwards: false })
          }
          chosen={board?.id}
          onChoose={setChosen}
          selected={selected}
          onSelect={setSelected}
        />
        <footer className="border-line flex min-h-9 flex-wrap items-center gap-x-6 gap-y-2 border-t px-3 py-1 text-[14px]">
          <Sums title={shown.length === boards.length ? 'On the rack' : 'Shown'} sums={rackSums(shown)} />
          {inSelection.length > 0 && (
            <>
              <Sums title="Selected" sums={rackSums(inSelection)} />
              <Reserve boards={inSelection} rack={boards} onTrouble={setTrouble} />
              <Remove boards={inSelection} onDone={() => setSelected(new Set())} />
            </>
          )}
        </footer>
      </section>
      {board ? (
        <section aria-label={`Board ${board.label}`} className="@container shrink-0">
          <div className="flex flex-col gap-3 @min-[52rem]:h-[318px] @min-[52rem]:flex-row">
            <BoardBench key={board.id} board={board} />
            <BoardCard key={`card ${board.id}`} board={board} />
          </div>
        </section>
      ) : (
        data && <EmptyRack />
      )}
      {importing && <ImportTable boards={boards} onClose={() => setImporting(false)} />}
    </FullScreen>
  );
}

/** A made-up board to try, in the shop's own system. */
const EXAMPLE = { inch: ['73', '5 3/4', '6/4'], mm: ['1850', '145', '38'] } as const;

function EmptyRack() {
  const { system } = useDisplay();
  const [add, { isLoading, error }] = useAddBoardsMutation();
  const write = useWriteOnce();
  const put = async () => {
    const [length, width, thickness] = EXAMPLE[system].map((text) => {
      const parsed = parseLength(text, system);
      if (!parsed.ok) throw new Error(parsed.reason);
      return parsed.length;
    });
    const board = { label: '7', species: 'ash_white', sold: 'rough' as const, length, width, thickness };
    const made = await add({ boards: [board], write: write.of(board) });
    if (made.data) write.done();
  };
  return (
    <div className="sheet flex flex-col items-start gap-3 p-5">
      <p>
        The rack is empty. Type a board into the line above, say{' '}
        <span className="rule">7, White ash, {EXAMPLE[system].join(' × ')}</span>, and press Enter; or take
        over a table from a spreadsheet.
      </p>
      <button type="button" className="action" disabled={isLoading} onClick={() => void put()}>
        Try it with this board
      </button>
      {error !== undefined && (
        <p role="alert" className="text-red">
          {problemText(error)}
        </p>
      )}
    </div>
  );
}

/** Reserves the selected boards for a job, or sets them free. */
function Reserve({
  boards,
  rack,
  onTrouble,
}: {
  boards: RackBoard[];
  rack: RackBoard[];
  onTrouble: (reason: string | undefined) => void;
}) {
  const { data: jobs } = useJobsQuery();
  const [reserve] = useReserveBoardsMutation();
  const chosen = new Set(boards.map(({ id }) => id));
  const heldBy = (job: string) => rack.filter(({ reserved }) => reserved?.job === job).map(({ id }) => id);
  const set = async (job: string) => {
    const changes =
      job === 'nobody'
        ? [...new Set(boards.flatMap(({ reserved }) => reserved?.job ?? []))].map((id) => ({
            id,
            boards: heldBy(id).filter((board) => !chosen.has(board)),
          }))
        : [{ id: job, boards: [...new Set([...heldBy(job), ...chosen])] }];
    for (const change of changes) {
      const { error } = await reserve(change);
      onTrouble(error ? problemText(error) : undefined);
    }
  };
  return (
    <Choice
      label="Reserve the selected boards for"
      hideLabel
      className="ml-auto w-56"
      value={
        boards.every(({ reserved }) => reserved?.job === boards[0].reserved?.job)
          ? (boards[0].reserved?.job ?? 'nobody')
          : ''
      }
      options={[
        { value: 'nobody', label: 'reserved for nobody' },
        ...(jobs ?? []).map(({ id, name }) => ({ value: id, label: `for ${name}` })),
      ]}
      onChange={(job) => void set(job)}
    />
  );
}

/** Takes boards off the rack; asks again, with the job's name, where one is reserved. */
function Remove({ boards, onDone }: { boards: RackBoard[]; onDone: () => void }) {
  const [remove] = useRemoveBoardsMutation();
  const [held, setHeld] = useState<string>();
  const go = async (force: boolean) => {
    const result = await remove({ ids: boards.map(({ id }) => id), force });
    if (result.error) setHeld(problemText(result.error));
    else onDone();
  };
  return (
    <>
      <button type="button" className="action" onClick={() => void go(false)}>
        <Trash2 size={15} aria-hidden /> Take {boards.length} off the rack
      </button>
      <Window title="These boards are in use" open={held !== undefined} onClose={() => setHeld(undefined)}>
        <p className="pb-4">{held}</p>
        <div className="flex justify-end gap-2">
          <button type="button" className="action" onClick={() => setHeld(undefined)}>
            Leave them
          </button>
          <button
            type="button"
            className="action"
            onClick={() => {
              setHeld(undefined);
              void go(true);
            }}
          >
            Take them off all the same
          </button>
        </div>
      </Window>
    </>
  );
}
