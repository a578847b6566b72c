import { MoveUpRight, Circle, Minus, type LucideIcon } from 'lucide-react';
import { useState } from 'react';
import type { BuildDocument } from '../../../core/document';
import {
  type Mark,
  MARK_KINDS,
  type MarkKind,
  MARKS,
  MOST_MARKS,
  MOST_NOTE_WORDS,
} from '../../../core/notes';
import { changeNote, type ShownNote } from '../../app/notes';
import { Choice } from '../../parts/Choice';
import { Window } from '../../parts/Window';
import { PhotoMarks } from './PhotoMarks';
import { hasPhoto, Picture, type Sides } from './Picture';
import { failureOf, noteTitle, stepOf } from './words';
import { Columns } from '../../parts/layout';

const ICONS: Record<MarkKind, LucideIcon> = { arrow: MoveUpRight, circle: Circle, line: Minus };
const NONE = 'none';
/** Where a mark lies that is put there without a finger. */
const MIDDLE = { x1: 0.4, y1: 0.4, x2: 0.6, y2: 0.5 };

/** One note: its photo with marks drawn on it, what it says, of which piece it is, and another photo beside it. */
export function NoteWindow({
  note,
  others,
  build,
  pieces = [],
  now,
  onClose,
}: {
  note: ShownNote;
  /** The photos it can be laid beside. */
  others: readonly ShownNote[];
  build?: BuildDocument | undefined;
  /** The pieces of its step, as they lie. */
  pieces?: readonly string[];
  now: number;
  onClose: () => void;
}) {
  const [beside, setBeside] = useState<string>();
  const other = others.find(({ id }) => id === beside);
  const photo = hasPhoto(note);
  return (
    <Window open broad={photo} title={photo ? 'Photo' : 'Note'} onClose={onClose}>
      <div className="flex flex-col gap-4">
        {photo && (
          <Columns least={18} most={other ? 2 : 1} gap={0.75}>
            <Marked key={note.id} note={note} now={now} />
            {other && <Shown note={other} now={now} build={build} />}
          </Columns>
        )}
        <div className="flex flex-wrap items-end gap-4">
          {photo && others.length > 0 && (
            <Choice
              label="Beside it"
              className="w-80 max-w-full"
              value={beside ?? NONE}
              options={[
                { value: NONE, label: 'no other photo' },
                ...others.map((each) => ({
                  value: each.id,
                  label: [noteTitle(each, now), stepOf(build, each)].filter(Boolean).join(', '),
                })),
              ]}
              onChange={(value) => setBeside(value === NONE ? undefined : value)}
            />
          )}
          {pieces.length > 1 && (
            <Choice
              label="Of which piece"
              className="w-44"
              value={note.piece ?? NONE}
              options={[
                { value: NONE, label: 'all of them' },
                ...pieces.map((piece, i) => ({ value: piece, label: `Piece ${i + 1}` })),
              ]}
              onChange={(value) => changeNote(note, { piece: value === NONE ? undefined : value })}
            />
          )}
        </div>
        <label className="flex flex-col gap-1">
          <span className="label">What is to be seen or minded</span>
          <textarea
            className="field min-h-24 p-2"
            maxLength={MOST_NOTE_WORDS}
            value={note.words}
            onChange={({ target }) => changeNote(note, { words: target.value })}
          />
        </label>
        <div className="flex flex-wrap items-center justify-between gap-3">
          <Caption note={note} now={now} build={build} />
          <span className="flex flex-wrap gap-3">
            <button
              type="button"
              className="action h-11"
              onClick={() => {
                changeNote(note, { removed: true });
                onClose();
              }}
            >
              Take it away
            </button>
            <button type="button" className="action action-main h-11 px-5" onClick={onClose}>
              Done
            </button>
          </span>
        </div>
      </div>
    </Window>
  );
}

function Caption({ note, now, build }: { note: ShownNote; now: number; build: BuildDocument | undefined }) {
  const failed = failureOf(build, note);
  return (
    <p className="text-graphite min-w-0 text-[15px]">
      {[noteTitle(note, now), stepOf(build, note)].filter(Boolean).join(' · ')}
      {failed && <span className="text-red"> · ✕ {failed}</span>}
      {note.waits && ' · waits here for the server'}
    </p>
  );
}

/** A photo with its marks, to be looked at. */
function Shown({ note, now, build }: { note: ShownNote; now: number; build: BuildDocument | undefined }) {
  const [sides, setSides] = useState<Sides | undefined>(note.photo);
  return (
    <figure className="flex min-w-0 flex-col gap-1">
      <div className="relative mx-auto w-fit">
        <Picture
          note={note}
          alt={noteTitle(note, now)}
          className="max-h-[56vh] max-w-full"
          onSides={setSides}
        />
        {sides && <PhotoMarks marks={note.marks} sides={sides} />}
      </div>
      <figcaption>
        <Caption note={note} now={now} build={build} />
      </figcaption>
    </figure>
  );
}

/** A photo that marks are drawn on. */
function Marked({ note, now }: { note: ShownNote; now: number }) {
  const [sides, setSides] = useState<Sides | undefined>(note.photo);
  const [kind, setKind] = useState<MarkKind>();
  const [chosen, setChosen] = useState<number>();
  const { marks } = note;
  const put = (next: Mark[]) => changeNote(note, { marks: next });
  const full = marks.length >= MOST_MARKS;
  const at = chosen !== undefined && chosen < marks.length ? chosen : undefined;
  return (
    <div className="flex min-w-0 flex-col gap-2">
      <div className="relative mx-auto w-fit">
        <Picture
          note={note}
          alt={noteTitle(note, now)}
          className="max-h-[56vh] max-w-full"
          onSides={setSides}
        />
        {sides && (
          <PhotoMarks
            marks={marks}
            sides={sides}
            kind={full ? undefined : kind}
            chosen={at}
            onChosen={setChosen}
            onMarks={put}
          />
        )}
      </div>
      <div className="flex flex-wrap items-center gap-2" role="group" aria-label="Draw on it">
        <span className="label">Draw on it:</span>
        {MARK_KINDS.map((each) => {
          const Icon = ICONS[each];
          return (
            <button
              key={each}
              type="button"
              aria-pressed={kind === each}
              disabled={full}
              className={`action h-11 ${kind === each ? 'border-chalk text-chalk' : ''}`}
              onClick={(event) => {
                // By key, where no finger can pull it open, one is put in the middle and moved by keys.
                if (event.detail === 0) {
                  put([...marks, { kind: each, ...MIDDLE }]);
                  setChosen(marks.length);
                } else setKind(kind === each ? undefined : each);
              }}
            >
              <Icon size={16} aria-hidden /> {MARKS[each].name}
            </button>
          );
        })}
        {marks.length > 0 && (
          <button
            type="button"
            className="action h-11"
            onClick={() => {
              put(marks.filter((_, i) => i !== (at ?? marks.length - 1)));
              setChosen(undefined);
            }}
          >
            {at === undefined
              ? 'Take the last mark away'
              : `Take ${MARKS[marks[at].kind].name.toLowerCase()} ${at + 1} away`}
          </button>
        )}
        {kind && !full && (
          <span className="text-graphite text-[15px]">Draw with the finger or the mouse.</span>
        )}
        {full && <span className="text-graphite text-[15px]">A photo has at most {MOST_MARKS} marks.</span>}
      </div>
    </div>
  );
}
