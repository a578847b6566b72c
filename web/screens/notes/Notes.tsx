import { Camera, ImagePlus, NotebookPen } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { BuildDocument } from '../../../core/document';
import { megabytes, MOST_NOTE_WORDS, MOST_NOTES, type NotePlace } from '../../../core/notes';
import { addNote, changeNote, photoOf, type ShownNote, useNotes } from '../../app/notes';
import { lazily } from '../../parts/lazily';
import { PhotoButton } from './PhotoButton';
import { PhotoMarks } from './PhotoMarks';
import { hasPhoto, Picture, type Sides } from './Picture';
import { failureOf, noteTitle, stepOf } from './words';

const NoteWindow = lazily(() => import('./NoteWindow'), 'NoteWindow');

/** Photos and notes of a job, of one step of it, or of a board: looked at, taken, written. */
export function Notes({
  place,
  build,
  pieces,
  who,
  heading: Heading = 'h3',
}: {
  place: NotePlace;
  build?: BuildDocument | undefined;
  /** The pieces of the step, as they lie. */
  pieces?: readonly string[] | undefined;
  who?: string | undefined;
  /** Which heading it stands under; none where its name is said already. */
  heading?: 'h2' | 'h3' | false;
}) {
  const { job, board, step } = place;
  const of = useMemo(() => (job === undefined ? { board: board ?? '' } : { job }), [job, board]);
  const { notes, room, loading, missing } = useNotes(of);
  const [now] = useState(() => Date.now());
  const [open, setOpen] = useState<string>();
  const here = notes.filter((note) => step === undefined || note.step === step);
  const shown = here.filter(({ removed }) => !removed);
  const photos = shown.filter(hasPhoto);
  const opened = notes.find(({ id }) => id === open);
  // The whole job lists them under their steps; at one step all are of this one.
  const whole = step === undefined ? build : undefined;
  return (
    <section aria-label="Photos and notes" className="flex flex-col gap-2">
      {Heading && <Heading className="label">Photos and notes</Heading>}
      {missing && (
        <p role="status" className="text-graphite">
          What the server has of them cannot be read just now. What is added here is kept, and goes out later.
        </p>
      )}
      {photos.length > 0 && (
        <ul className="flex flex-wrap gap-2" aria-label="Photos">
          {photos.map((note) => (
            <li key={note.id} className="flex w-28 flex-col gap-0.5">
              <Thumb note={note} build={build} now={now} onOpen={() => setOpen(note.id)} />
              {whole && (
                <span className="text-graphite text-[13px] leading-tight">{stepOf(whole, note)}</span>
              )}
            </li>
          ))}
        </ul>
      )}
      <ul className="flex flex-col gap-1 empty:hidden" aria-label="Notes">
        {shown
          .filter((note) => !hasPhoto(note))
          .map((note) => (
            <li key={note.id}>
              <button
                type="button"
                className="press min-h-11 text-left whitespace-pre-line underline decoration-dotted"
                onClick={() => setOpen(note.id)}
              >
                {[noteTitle(note, now), whole && stepOf(whole, note)].filter(Boolean).join(' · ')}
                {note.waits && ' · waits here for the server'}
              </button>
            </li>
          ))}
      </ul>
      {!loading && shown.length === 0 && step === undefined && (
        <p className="text-graphite">There are none yet.</p>
      )}
      {notes.length < MOST_NOTES ? (
        <Adding place={place} who={who} />
      ) : (
        <p className="text-graphite">There are {notes.length} here: the most. Take some away first.</p>
      )}
      <TakenAway notes={here.filter(({ removed }) => removed)} now={now} />
      {room && step === undefined && (
        <p className="text-graphite text-[14px]">
          The photos of this shop take {megabytes(room.usedBytes)} of {megabytes(room.mostBytes)}.
        </p>
      )}
      {opened && (
        <NoteWindow
          note={opened}
          others={notes.filter((note) => note.id !== opened.id && !note.removed && hasPhoto(note))}
          build={build}
          {...(pieces ? { pieces } : {})}
          now={now}
          onClose={() => setOpen(undefined)}
        />
      )}
    </section>
  );
}

function Thumb({
  note,
  build,
  now,
  onOpen,
}: {
  note: ShownNote;
  build: BuildDocument | undefined;
  now: number;
  onOpen: () => void;
}) {
  const [sides, setSides] = useState<Sides>();
  const failed = failureOf(build, note);
  return (
    <button
      type="button"
      aria-label={[noteTitle(note, now), failed, ...(note.waits ? ['waits here for the server'] : [])]
        .filter(Boolean)
        .join(', ')}
      className="press border-line bg-faint relative flex h-28 w-28 items-center justify-center overflow-hidden rounded border"
      onClick={onOpen}
    >
      <span className="relative">
        <Picture note={note} alt="" size="small" className="max-h-28 max-w-28" onSides={setSides} />
        {sides && note.marks.length > 0 && <PhotoMarks marks={note.marks} sides={sides} />}
      </span>
      {failed && (
        <span
          aria-hidden
          className="text-red absolute top-0 left-0 bg-white/85 px-1 text-[14px] font-semibold"
        >
          ✕
        </span>
      )}
      {note.waits && (
        <span aria-hidden className="text-ink absolute right-0 bottom-0 bg-white/85 px-1 text-[12px]">
          waits
        </span>
      )}
    </button>
  );
}

/** The ways to add one: the camera where there is one at hand, a file, words. */
function Adding({ place, who }: { place: NotePlace; who: string | undefined }) {
  const [trouble, setTrouble] = useState<string[]>([]);
  const [words, setWords] = useState<string>();
  const by = who ? { who } : {};
  const take = async (files: readonly File[]) => {
    const wrong: string[] = [];
    for (const file of files) {
      const photo = await photoOf(file);
      if (typeof photo === 'string') wrong.push(files.length > 1 ? `${file.name}: ${photo}` : photo);
      else addNote(place, '', { photo, ...by });
    }
    setTrouble(wrong);
  };
  return (
    <>
      <div className="flex flex-wrap gap-2">
        <PhotoButton label="Take a photo" icon={<Camera size={16} aria-hidden />} camera onFiles={take} />
        <PhotoButton label="Photo from a file" icon={<ImagePlus size={16} aria-hidden />} onFiles={take} />
        {words === undefined && (
          <button type="button" className="action h-11" onClick={() => setWords('')}>
            <NotebookPen size={16} aria-hidden /> Write a note
          </button>
        )}
      </div>
      {words !== undefined && (
        <form
          className="flex flex-col gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (words.trim() !== '') addNote(place, words.trim(), by);
            setWords(undefined);
          }}
        >
          <label className="flex flex-col gap-1">
            <span className="label">What is to be minded</span>
            <textarea
              // Opened to be written in.
              autoFocus
              className="field min-h-20 p-2"
              maxLength={MOST_NOTE_WORDS}
              value={words}
              onChange={({ target }) => setWords(target.value)}
            />
          </label>
          <button type="submit" className="action action-main h-11 self-start px-4">
            {words.trim() === '' ? 'Write nothing' : 'Keep the note'}
          </button>
        </form>
      )}
      {trouble.map((reason) => (
        <p key={reason} role="alert" className="text-red">
          {reason}
        </p>
      ))}
    </>
  );
}

/** What was taken away in the last 30 days, with the way back. */
function TakenAway({ notes, now }: { notes: readonly ShownNote[]; now: number }) {
  const [open, setOpen] = useState(false);
  if (notes.length === 0) return null;
  return (
    <div className="flex flex-col gap-1 text-[14px]">
      <button
        type="button"
        aria-expanded={open}
        className="press text-graphite min-h-11 self-start underline"
        onClick={() => setOpen(!open)}
      >
        {notes.length} taken away, kept for 30 days
      </button>
      {open && (
        <ul className="flex flex-col gap-1">
          {notes.map((note) => (
            <li key={note.id} className="flex flex-wrap items-center gap-2">
              <span className="min-w-0 flex-1">{noteTitle(note, now)}</span>
              <button
                type="button"
                className="action h-11"
                onClick={() => changeNote(note, { removed: undefined })}
              >
                Bring it back
              </button>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
