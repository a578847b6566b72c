import { Delete } from 'lucide-react';
import { useId, useRef, useState } from 'react';
import type { BenchStep, Outlier } from '../../../core/bench';
import { type BuildDocument, DIMENSIONS, type DimensionName } from '../../../core/document';
import { counted, type Display, inputText, lengthText, lengthUnit } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { Measure } from '../../parts/Measure';
import { useFingers } from '../../parts/use-phone';
import { FromGauge } from './FromGauge';
import { type ReadingState, useReading } from './use-reading';
import { useWedge } from './use-wedge';

const NAMES: Record<DimensionName, string> = { length: 'Length', width: 'Width', thickness: 'Thickness' };

const CAUSES: Record<Outlier['cause'], string> = {
  inches: 'It looks like inches.',
  millimetres: 'It looks like millimetres.',
  inch: 'It looks like a rule misread by whole inches.',
  point: 'It looks like a slipped decimal point.',
  far: 'Measure once more, or keep it if the piece is so.',
};

/** What was read back after a step: one number, or one for each piece, by keys that a glove can press. */
export function Readings({
  build,
  sheet,
  who,
  listens,
}: {
  build: BuildDocument;
  sheet: BenchStep;
  who: string | undefined;
  /** A gauge reads into this field; not while others wait. */
  listens: boolean;
}) {
  const display = useDisplay();
  const fingers = useFingers();
  const reading = useReading(build, sheet, who);
  const [keys, setKeys] = useState(false);
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  useWedge(() => input.current, listens);
  const { what, text, reason, asked, singly, piece } = reading;
  if (!what) return null;
  const nth = sheet.pieces.findIndex((each) => each.id === piece) + 1;
  const name = `${NAMES[what.dimension]}${singly ? `, piece ${nth} of ${sheet.pieces.length}` : ''}`;
  return (
    <section aria-label="Read back" className="flex flex-col gap-3">
      <div className="flex flex-wrap items-center gap-3 max-desk:gap-2">
        <label htmlFor={id} className="text-graphite text-[22px] max-desk:w-full max-desk:text-[18px]">
          {name} after it
          <span className="desk:hidden">, {lengthUnit(display)}</span>
        </label>
        <input
          ref={input}
          id={id}
          className="field rule h-16! w-44 text-center text-[34px]! max-desk:w-36 max-desk:text-[28px]!"
          // The keys below are larger than those of a phone, and know the shop's fractions.
          inputMode={fingers ? 'none' : 'text'}
          autoComplete="off"
          placeholder={inputText({ mm: what.predictedMm }, display)}
          value={text}
          aria-invalid={reason !== undefined}
          onFocus={() => setKeys((now) => now || fingers)}
          onChange={({ target }) => reading.type(target.value)}
          onKeyDown={({ key }) => {
            if (key === 'Enter' && text.trim() !== '') reading.enter();
            if (key === 'Escape') reading.clear();
          }}
        />
        <span className="text-graphite text-[20px] max-desk:hidden">{lengthUnit(display)}</span>
        <button
          type="button"
          className="action h-16! px-5 text-[20px]! max-desk:px-3 max-desk:text-[18px]!"
          onClick={() => reading.keep({ mm: what.predictedMm })}
        >
          As planned
        </button>
        <button
          type="button"
          className="action h-16! px-4 text-[18px]! max-desk:px-3"
          aria-expanded={keys}
          onClick={() => setKeys(!keys)}
        >
          Keys
        </button>
      </div>
      {reason && (
        <p role="alert" className="text-red text-[18px]">
          {reason}
        </p>
      )}
      {asked && <Asked reading={reading} asked={asked} display={display} />}
      {listens && (
        <FromGauge onTake={(typed, gauge) => reading.enter(typed, gauge)} waits={asked === undefined} />
      )}
      {keys && <Keys reading={reading} display={display} stepMm={build.shop.settingStep.mm} />}
      <div className="flex flex-wrap gap-2">
        {DIMENSIONS.map((dimension) => (
          <button
            key={dimension}
            type="button"
            aria-pressed={what.dimension === dimension}
            className={`action h-12! px-4 text-[17px]! ${what.dimension === dimension ? 'border-chalk text-chalk' : ''}`}
            onClick={() => reading.choose(dimension)}
          >
            {NAMES[dimension]}
          </button>
        ))}
        {sheet.pieces.length > 1 && !reading.uneven && (
          <button
            type="button"
            aria-pressed={singly}
            className={`action h-12! px-4 text-[17px]! ${singly ? 'border-chalk text-chalk' : ''}`}
            onClick={() => reading.oneByOne(!singly)}
          >
            Piece by piece
          </button>
        )}
      </div>
      {singly && <Row reading={reading} sheet={sheet} display={display} />}
      <Read reading={reading} sheet={sheet} display={display} />
    </section>
  );
}

/** A reading that cannot well be true, with what was most likely meant. */
function Asked({
  reading,
  asked: { measured, outlier, gauge },
  display,
}: {
  reading: ReadingState;
  asked: NonNullable<ReadingState['asked']>;
  display: Display;
}) {
  const { meantMm, offMm, cause } = outlier;
  const off = `${lengthText(Math.abs(offMm), display)} ${offMm > 0 ? 'more' : 'less'} than planned`;
  return (
    <div role="alert" className="border-red bg-red-wash flex flex-col gap-2 border-l-4 p-3 text-[18px]">
      <p>
        {inputText(measured, display)} {lengthUnit(display)} is {off}. {CAUSES[cause]}
      </p>
      <div className="flex flex-wrap gap-2">
        {meantMm !== undefined && (
          <button
            type="button"
            className="action action-main h-14! px-4 text-[18px]!"
            onClick={() => reading.keep({ mm: meantMm }, gauge)}
          >
            You mean {lengthText(meantMm, display)}
          </button>
        )}
        <button
          type="button"
          className="action h-14! px-4 text-[18px]!"
          onClick={() => reading.keep(measured, gauge)}
        >
          Keep it as read
        </button>
        <button type="button" className="action h-14! px-4 text-[18px]!" onClick={reading.clear}>
          Measure again
        </button>
      </div>
    </div>
  );
}

const DIGITS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '0'] as const;
/** Readings next to the plan that have a key of their own, in steps of the shop. */
const NEAR = [-2, -1, 0, 1, 2] as const;

/** Keys as large as a thumb: digits, the signs of a fraction, and the readings next to the plan as whole numbers. */
function Keys({ reading, display, stepMm }: { reading: ReadingState; display: Display; stepMm: number }) {
  const { text, type, enter, what } = reading;
  if (!what) return null;
  const key = 'action h-14! min-w-0! justify-center text-[22px]!';
  const near = NEAR.map((n) => what.predictedMm + n * stepMm).filter((mm) => mm > 0);
  return (
    <div className="grid max-w-[560px] gap-2" role="group" aria-label="Keys">
      {stepMm > 0 && (
        <div className="grid grid-cols-5 gap-2" role="group" aria-label="Near the plan">
          {near.map((mm) => (
            <button
              key={mm}
              type="button"
              className={`${key} rule px-1!`}
              onClick={() => reading.keep({ mm })}
            >
              <Measure value={mm} display={display} />
            </button>
          ))}
        </div>
      )}
      <div className="grid grid-cols-5 gap-2">
        {DIGITS.slice(0, 3).map((digit) => (
          <Digit key={digit} className={key} digit={digit} onPress={() => type(text + digit)} />
        ))}
        <button type="button" className={key} aria-label="Space" onClick={() => type(`${text} `)}>
          ␣
        </button>
        <button type="button" className={key} aria-label="Rub out" onClick={() => type(text.slice(0, -1))}>
          <Delete size={24} aria-hidden />
        </button>
        {DIGITS.slice(3, 6).map((digit) => (
          <Digit key={digit} className={key} digit={digit} onPress={() => type(text + digit)} />
        ))}
        <Digit className={key} digit="/" onPress={() => type(`${text}/`)} />
        <Digit className={key} digit="." onPress={() => type(`${text}.`)} />
        {DIGITS.slice(6).map((digit) => (
          <Digit key={digit} className={key} digit={digit} onPress={() => type(text + digit)} />
        ))}
        <button
          type="button"
          className={`${key} action-main`}
          disabled={text.trim() === ''}
          onClick={() => enter()}
        >
          Enter
        </button>
      </div>
    </div>
  );
}

const Digit = ({ digit, className, onPress }: { digit: string; className: string; onPress: () => void }) => (
  <button type="button" className={className} onClick={onPress}>
    {digit}
  </button>
);

/** All pieces, each with what was read on it: the one to read next is chosen. */
const Row = ({ reading, sheet, display }: { reading: ReadingState; sheet: BenchStep; display: Display }) => (
  <ol aria-label="Pieces" className="flex flex-wrap gap-2">
    {sheet.pieces.map(({ id }, i) => {
      const read = reading.readOf(id);
      return (
        <li key={id}>
          <button
            type="button"
            aria-pressed={reading.piece === id}
            aria-label={`Piece ${i + 1}${read ? `, ${inputText(read.measured, display)} ${lengthUnit(display)}` : ', not read'}`}
            className={`action h-12! flex-col gap-0! px-3 leading-tight! ${reading.piece === id ? 'border-chalk text-chalk' : ''}`}
            onClick={() => reading.pick(id)}
          >
            <span className="text-[13px]">{i + 1}</span>
            <span className="rule text-[15px]">{read ? inputText(read.measured, display) : '–'}</span>
          </button>
        </li>
      );
    })}
  </ol>
);

/** What was read at this step, beside what was predicted; each can be taken back. */
function Read({ reading, sheet, display }: { reading: ReadingState; sheet: BenchStep; display: Display }) {
  const { own, last } = reading;
  if (own.length === 0) return null;
  const shown = own.filter(({ piece }) => !piece);
  const ofPieces = own.length - shown.length;
  return (
    <ul aria-label="What was read" className="text-[17px]" aria-live="polite">
      {shown.map(({ id, dimension, measured }) => {
        const planned = sheet.toRead.find((each) => each.dimension === dimension)?.predictedMm;
        return (
          <li key={id} className="flex flex-wrap items-center gap-x-3">
            <span>
              {NAMES[dimension]} read: <Measure value={measured} display={display} unit />
              {planned !== undefined && (
                <span className="text-graphite">
                  , planned <Measure value={planned} display={display} />
                </span>
              )}
            </span>
            <button
              type="button"
              className="press text-chalk underline"
              onClick={() => reading.takeBack({ dimension })}
            >
              take back
            </button>
          </li>
        );
      })}
      {ofPieces > 0 && (
        <li>
          {counted(ofPieces, 'reading')} of single pieces, of {counted(sheet.pieces.length, 'piece')}
          {last?.what.piece && (
            <>
              {' '}
              <button
                type="button"
                className="press text-chalk underline"
                onClick={() => reading.takeBack(last.what)}
              >
                take the last one back
              </button>
            </>
          )}
        </li>
      )}
    </ul>
  );
}
