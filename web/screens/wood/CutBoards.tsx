import { Axe } from 'lucide-react';
import { useState } from 'react';
import type { BuildDocument } from '../../../core/document';
import { rips } from '../../../core/steps';
import { offcutBoards } from '../../../core/stock';
import { counted } from '../../../core/units';
import { shopTime } from '../../app/clock';
import { problemText, useCutBoardsMutation } from '../../app/api';
import { useDisplay } from '../../app/display';
import { useAppSelector } from '../../app/store';
import { useWriteOnce } from '../../app/write-once';
import { Measure } from '../../parts/Measure';
import { Window } from '../../parts/Window';
import { useEdit } from '../job/use-edit';

/** Says that the boards are cut: they leave the rack and their offcuts come onto it. */
export function CutBoards({ id, build }: { id: string; build: BuildDocument }) {
  const display = useDisplay();
  const edit = useEdit();
  const stored = useAppSelector(({ job }) => job.keeping === 'stored');
  const [cut] = useCutBoardsMutation();
  const write = useWriteOnce();
  const [open, setOpen] = useState(false);
  const [said, setSaid] = useState<string>();
  const boards = build.boards.filter((board) =>
    build.assemblies.some(({ slots }) => slots.some(({ strip }) => strip?.board === board.id && strip.at)),
  );
  const offcuts = open ? boards.flatMap((board) => offcutBoards(board, build)) : [];
  const go = async () => {
    const result = await cut({ id, write: write.of(id) });
    if (result.data) write.done();
    if (result.error) return setSaid(problemText(result.error));
    for (const step of rips(build))
      edit({ do: 'setStep', step: step.id, change: { done: true, doneAt: shopTime() } });
    setSaid(
      `Off the rack: ${counted(result.data?.used ?? 0, 'board')}. New on it: ${counted(result.data?.offcuts.length ?? 0, 'offcut')}${result.data?.offcuts.length ? `: ${result.data.offcuts.join(', ')}` : ''}.`,
    );
  };
  return (
    <>
      <button
        type="button"
        className="action"
        disabled={boards.length === 0 || !stored}
        onClick={() => setOpen(true)}
      >
        <Axe size={15} aria-hidden /> Mark boards as cut
      </button>
      <Window
        title="Mark boards as cut"
        open={open}
        onClose={() => {
          setOpen(false);
          setSaid(undefined);
        }}
      >
        {said ? (
          <p role="status">{said}</p>
        ) : (
          <>
            <p className="pb-2">
              Board {boards.map(({ label }) => label).join(', ')} will leave the rack.{' '}
              {offcuts.length > 0
                ? 'These offcuts come onto it, with where they come from:'
                : 'No offcut is large enough to keep.'}
            </p>
            <ul className="pb-3">
              {offcuts.map((offcut) => (
                <li key={offcut.id} className="rule flex gap-2">
                  from {offcut.label}: <Measure value={offcut.length} display={display} /> ×{' '}
                  <Measure value={offcut.width} display={display} /> ×{' '}
                  <Measure value={offcut.thickness} display={display} unit />
                </li>
              ))}
            </ul>
            <div className="flex justify-end gap-2">
              <button type="button" className="action" onClick={() => setOpen(false)}>
                Not yet
              </button>
              <button type="button" className="action action-main" onClick={() => void go()}>
                They are cut
              </button>
            </div>
          </>
        )}
      </Window>
    </>
  );
}
