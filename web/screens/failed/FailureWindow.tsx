import { Camera, ImagePlus } from 'lucide-react';
import { useState } from 'react';
import { zoneOf } from '../../../core/bench';
import type { BuildDocument, Failure, FailureKind } from '../../../core/document';
import type { FailureSheet } from '../../../core/recovery';
import type { Length } from '../../../core/units';
import { shopTime } from '../../app/clock';
import { useDisplay } from '../../app/display';
import { newId } from '../../app/ids';
import { addNote, photoOf } from '../../app/notes';
import type { SentPhoto } from '../../app/sending';
import { failureAt } from '../../app/predicting';
import { useAppSelector } from '../../app/store';
import { Choice } from '../../parts/Choice';
import { LengthField } from '../../parts/LengthField';
import { Window } from '../../parts/Window';
import { localZone } from '../calendar/calendar-worker';
import { usePlayed } from '../job/use-played';
import { PhotoButton } from '../notes/PhotoButton';
import { TakenPicture } from '../notes/Picture';
import { PlanList } from './PlanList';

const WHY_NOT = 'This step cannot be played yet: mend what comes before it first.';
const NONE: Length = { mm: 0 };

/** What is told so far; sizes of nothing are not said. */
interface Told {
  kind?: FailureKind;
  words: string;
  pieces: readonly string[];
  joint?: number;
  from: Length;
  wide: Length;
  measured: Length;
  /** What it looks like. */
  photo?: SentPhoto | undefined;
}

/**
 * Something failed at a step: what it was and what it struck, and then the ways to go on, each played forward, with what it
 * costs. The one that is taken becomes steps of the job; what failed stays in the record.
 */
export function FailureWindow({
  build,
  step,
  who,
  onClose,
}: {
  build: BuildDocument;
  step: string;
  who?: string;
  onClose: () => void;
}) {
  const known = usePlayed(build, step, failureAt, WHY_NOT);
  const [told, setTold] = useState<Told>({ words: '', pieces: [], from: NONE, wide: NONE, measured: NONE });
  const [asked, setAsked] = useState<Failure>();
  const id = useAppSelector(({ job }) => job.id);
  /** The photo goes into the record with the failure, not before. */
  const taken = () => {
    if (asked && id !== undefined && told.photo)
      addNote({ job: id, step, failure: asked.id }, '', { photo: told.photo, ...(who ? { who } : {}) });
    onClose();
  };
  return (
    <Window
      open
      wide
      title={asked ? 'Ways to go on' : 'What failed?'}
      {...(asked
        ? {
            description:
              'Each way was played forward to the finished piece. Costs are against the plan as it was; the day is that of this job by itself.',
          }
        : {})}
      onClose={onClose}
    >
      {!known && <p aria-busy="true">Looking at the step …</p>}
      {known?.why && (
        <p role="alert" className="text-red">
          {known.why}
        </p>
      )}
      {known?.sheet &&
        (asked ? (
          <PlanList
            build={build}
            told={asked}
            zone={zoneOf(build.shop, localZone())}
            onBack={() => setAsked(undefined)}
            onTaken={taken}
          />
        ) : (
          <Telling
            sheet={known.sheet}
            told={told}
            onTold={setTold}
            onAsk={() => setAsked(failureOf(told, known.sheet as FailureSheet, who))}
          />
        ))}
    </Window>
  );
}

const said = (length: Length): Length | undefined => (length.mm > 0 ? length : undefined);

/** What was told as it goes into the record. */
function failureOf(told: Told, sheet: FailureSheet, who: string | undefined): Failure {
  const kind = told.kind ?? 'other';
  const asks = sheet.kinds.find((each) => each.kind === kind)?.asks ?? [];
  const pieces = sheet.pieces.length === 1 ? sheet.pieces : told.pieces;
  const [from, wide, measured] = [said(told.from), said(told.wide), said(told.measured)];
  const words = told.words.trim();
  return {
    id: newId(),
    step: sheet.step,
    kind,
    at: shopTime(),
    ...(who ? { who } : {}),
    ...(words ? { words } : {}),
    ...(pieces.length > 0 ? { pieces: [...pieces] } : {}),
    ...(asks.includes('joint') && told.joint ? { joint: told.joint } : {}),
    ...(asks.includes('band') && from ? { from } : {}),
    ...((asks.includes('band') || asks.includes('hole')) && wide ? { wide } : {}),
    ...((asks.includes('width') || asks.includes('thickness')) && measured ? { measured } : {}),
  };
}

function Telling({
  sheet,
  told,
  onTold,
  onAsk,
}: {
  sheet: FailureSheet;
  told: Told;
  onTold: (told: Told) => void;
  onAsk: () => void;
}) {
  const kind = sheet.kinds.find((each) => each.kind === told.kind);
  const set = (change: Partial<Told>) => onTold({ ...told, ...change });
  const missing = kind ? missingOf(kind.asks, told, sheet) : undefined;
  return (
    <form
      className="flex flex-col gap-4"
      onSubmit={(event) => {
        event.preventDefault();
        if (kind && !missing) onAsk();
      }}
    >
      <fieldset>
        <legend className="label pb-1">What failed</legend>
        <div className="grid grid-cols-[repeat(auto-fill,minmax(min(100%,250px),1fr))] gap-2">
          {sheet.kinds.map(({ kind: each, name }) => (
            <label
              key={each}
              className={`action h-auto! min-h-12 cursor-pointer justify-start gap-2 px-3 py-2 text-left text-[16px] ${told.kind === each ? 'border-chalk text-chalk' : ''}`}
            >
              <input
                type="radio"
                name="failed"
                className="accent-chalk h-4 w-4 shrink-0"
                checked={told.kind === each}
                onChange={() => set({ kind: each })}
              />
              {name}
            </label>
          ))}
        </div>
      </fieldset>
      {kind && <Questions asks={kind.asks} sheet={sheet} told={told} set={set} />}
      {kind && (
        <label className="flex flex-col gap-1">
          <span className="label">
            {kind.kind === 'other' ? 'In your own words' : 'In your own words, if there is more to say'}
          </span>
          <textarea
            className="field min-h-16 p-2"
            maxLength={400}
            value={told.words}
            onChange={({ target }) => set({ words: target.value })}
          />
        </label>
      )}
      {kind && <ItsPhoto photo={told.photo} onPhoto={(photo) => set({ photo })} />}
      {missing && (
        <p role="status" className="text-graphite">
          {missing}
        </p>
      )}
      <button
        type="submit"
        className="action action-main h-14 justify-center text-[18px] disabled:opacity-40"
        disabled={!kind || missing !== undefined}
      >
        Show the ways to go on
      </button>
    </form>
  );
}

/** What it looks like: taken with the camera or chosen from a file, shown, and left out again. */
function ItsPhoto({
  photo,
  onPhoto,
}: {
  photo: SentPhoto | undefined;
  onPhoto: (photo: SentPhoto | undefined) => void;
}) {
  const [why, setWhy] = useState<string>();
  const take = async ([file]: readonly File[]) => {
    const read = await photoOf(file);
    setWhy(typeof read === 'string' ? read : undefined);
    if (typeof read !== 'string') onPhoto(read);
  };
  return (
    <div role="group" aria-label="A photo of it" className="flex flex-wrap items-center gap-2">
      <TakenPicture taken={photo} alt="What failed" className="max-h-24 max-w-32 rounded" />
      <PhotoButton label="Take a photo of it" icon={<Camera size={16} aria-hidden />} camera onFiles={take} />
      <PhotoButton
        label="Photo of it from a file"
        icon={<ImagePlus size={16} aria-hidden />}
        onFiles={take}
      />
      {photo && (
        <button type="button" className="action h-11" onClick={() => onPhoto(undefined)}>
          Without a photo
        </button>
      )}
      {why && (
        <p role="alert" className="text-red w-full">
          {why}
        </p>
      )}
    </div>
  );
}

/** What must still be said before anything can be played, in words. */
function missingOf(
  asks: FailureSheet['kinds'][number]['asks'],
  told: Told,
  sheet: FailureSheet,
): string | undefined {
  if (asks.includes('pieces') && told.pieces.length === 0) return 'Press the pieces that it struck.';
  if (asks.includes('joint') && !told.joint) return 'Say which joint it was.';
  if (asks.includes('band') && !(told.from.mm > 0 && told.wide.mm > 0))
    return `Say how far the bad band lies from the ${sheet.band === 'width' ? 'near edge' : 'left end'}, and how wide it is.`;
  if (asks.includes('hole') && !(told.wide.mm > 0)) return 'Say how wide the wrong hole is.';
  if ((asks.includes('width') || asks.includes('thickness')) && !(told.measured.mm > 0))
    return 'Measure it, and say what it came to.';
  if (asks.includes('words') && told.words.trim() === '') return 'Say in a few words what happened.';
  return undefined;
}

function Questions({
  asks,
  sheet,
  told,
  set,
}: {
  asks: FailureSheet['kinds'][number]['asks'];
  sheet: FailureSheet;
  told: Told;
  set: (change: Partial<Told>) => void;
}) {
  const display = useDisplay();
  const size = (label: string, name: 'from' | 'wide' | 'measured') => (
    <LengthField
      label={label}
      value={told[name]}
      display={display}
      rule={{ minMm: 0 }}
      unset
      className="w-44"
      onChange={(length) => set({ [name]: length })}
    />
  );
  return (
    <>
      {asks.includes('pieces') && (
        <fieldset>
          <legend className="label pb-1">Which ones, counted as they lie</legend>
          <div className="flex max-h-52 flex-wrap gap-1.5 overflow-auto">
            {sheet.pieces.map((piece, i) => {
              const on = told.pieces.includes(piece);
              return (
                <button
                  key={piece}
                  type="button"
                  aria-pressed={on}
                  aria-label={`Piece ${i + 1}`}
                  className={`action rule h-11 min-w-11 justify-center text-[16px] ${on ? 'border-red bg-red-wash text-red' : ''}`}
                  onClick={() =>
                    set({
                      pieces: on ? told.pieces.filter((each) => each !== piece) : [...told.pieces, piece],
                    })
                  }
                >
                  {on ? `✕ ${i + 1}` : i + 1}
                </button>
              );
            })}
          </div>
        </fieldset>
      )}
      {asks.includes('joint') && (
        <Choice
          label={`Which joint, counted from the ${sheet.joints[0]?.along === 'length' ? 'left end' : 'far edge'}`}
          className="w-56"
          value={String(told.joint ?? '')}
          options={[
            { value: '', label: 'not said' },
            ...sheet.joints.map(({ joint }) => ({ value: String(joint), label: `Joint ${joint}` })),
          ]}
          onChange={(joint) => set({ joint: Number(joint) || undefined })}
        />
      )}
      {(asks.includes('band') ||
        asks.includes('hole') ||
        asks.includes('width') ||
        asks.includes('thickness')) && (
        <div className="flex flex-wrap gap-4">
          {asks.includes('band') &&
            size(`Bad band, from the ${sheet.band === 'width' ? 'near edge' : 'left end'}`, 'from')}
          {asks.includes('band') && size('How wide the band is', 'wide')}
          {asks.includes('hole') && size('How wide the wrong hole is', 'wide')}
          {asks.includes('width') && size('Width that came out', 'measured')}
          {asks.includes('thickness') && size('Thickness that came out', 'measured')}
        </div>
      )}
    </>
  );
}
