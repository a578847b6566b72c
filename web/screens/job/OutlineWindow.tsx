import { Plus, X } from 'lucide-react';
import { useMemo, useState } from 'react';
import { phraseText, Refusal } from '../../../core/document';
import { NoUnit, type OutlineRead, readOutline } from '../../../core/exchange/drawn';
import { ellipseCorners, MOST_CORNERS, type OutlineCorner, type ShapeStep } from '../../../core/steps';
import { largestOf, outlineSheet } from '../../../core/view';
import { type Display, lengthText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { OutlineDrawing } from '../../drawing/OutlineDrawing';
import { FileButton } from '../../parts/FileButton';
import { Window } from '../../parts/Window';
import { CornerFields } from './CornerFields';
import { useSettle } from './use-edit';
import { Beside } from '../../parts/layout';

const at = (x: number, y: number): OutlineCorner => ({ x: { mm: x }, y: { mm: y } });

/** Units that a file may be drawn in, where it does not say so itself. */
const UNITS = [
  { mm: 1, name: 'mm' },
  { mm: 10, name: 'cm' },
  { mm: 25.4, name: 'inches' },
] as const;

/** A file that does not say its unit, and waits for the maker to. */
interface Waiting {
  name: string;
  text: string;
}

/** The outline of a step: drawn on its piece, its corners dragged or typed; begun from the piece, an ellipse or a file. */
export function OutlineWindow({
  step,
  size,
  stepMm,
  onChange,
  onClose,
}: {
  step: ShapeStep;
  /** Length of the piece, and its width or, seen from the edge, its thickness, mm. */
  size: readonly [number, number];
  stepMm: number;
  onChange: (corners: OutlineCorner[], mark?: string) => void;
  onClose: () => void;
}) {
  const display = useDisplay();
  const settle = useSettle();
  const [chosen, setChosen] = useState(0);
  const corners = step.outline ?? [];
  const own = Math.min(chosen, corners.length - 1);
  const sheet = outlineSheet(step, size);
  const put = (i: number, next: OutlineCorner, mark?: string) =>
    onChange(
      corners.map((each, j) => (j === i ? next : each)),
      mark && `${i}.${mark}`,
    );
  const moveBy = (i: number, by: { x: number; y: number }, settled: boolean) => {
    const round = (mm: number) => ({ mm: Math.round(mm * 1e4) / 1e4 });
    const { x, y, ...rest } = corners[i];
    put(i, { ...rest, x: round(x.mm + by.x), y: round(y.mm + by.y) }, 'moved');
    if (settled) settle();
  };
  const begin = (next: OutlineCorner[]) => {
    onChange(next);
    setChosen(0);
  };
  return (
    <Window title="Outline" open onClose={onClose} broad>
      <BeginTools step={step} size={size} onBegin={begin} />
      {corners.length === 0 ? (
        <p className="text-graphite">Nothing is drawn yet. Begin above.</p>
      ) : (
        <Beside>
          <div className="min-w-0">
            <OutlineDrawing
              size={size}
              path={sheet.path}
              box={sheet.box}
              corners={corners.map(({ x, y }) => ({ x: x.mm, y: y.mm }))}
              chosen={own}
              display={display}
              stepMm={stepMm}
              onChoose={setChosen}
              onMove={moveBy}
            />
            <p className="text-graphite pt-1 text-[13.5px]">
              Drag a corner, or move it with the arrow keys, ten steps at a time with Shift.
            </p>
            <Facts sheet={sheet} size={size} display={display} />
          </div>
          <section aria-label={`Corner ${own + 1}`} key={own}>
            <div className="flex items-center gap-2 pb-2">
              <h3 className="mr-auto text-[16px] font-semibold">
                Corner {own + 1} of {corners.length}
              </h3>
              <button
                type="button"
                className="action inline-flex items-center gap-1.5"
                disabled={corners.length >= MOST_CORNERS}
                onClick={() => {
                  onChange(withOneMore(corners, own));
                  setChosen(own + 1);
                }}
              >
                <Plus size={14} aria-hidden /> Add a corner
              </button>
              <button
                type="button"
                className="action px-2"
                aria-label={`Remove corner ${own + 1}`}
                onClick={() => {
                  onChange(corners.filter((_, j) => j !== own));
                  setChosen(Math.max(0, own - 1));
                }}
              >
                <X size={15} aria-hidden />
              </button>
            </div>
            <CornerFields
              corner={corners[own]}
              next={corners[(own + 1) % corners.length]}
              nextNumber={((own + 1) % corners.length) + 1}
              stepMm={stepMm}
              onChange={(next, mark) => put(own, next, mark)}
            />
            <div className="flex gap-2 pt-3">
              {([-1, 1] as const).map((way) => (
                <button
                  key={way}
                  type="button"
                  className="action"
                  onClick={() => setChosen((own + way + corners.length) % corners.length)}
                >
                  {way < 0 ? 'Corner before' : 'Next corner'}
                </button>
              ))}
            </div>
          </section>
        </Beside>
      )}
    </Window>
  );
}

/** One more corner, in the middle of the side after one. */
function withOneMore(corners: readonly OutlineCorner[], i: number): OutlineCorner[] {
  const [a, b] = [corners[i], corners[(i + 1) % corners.length]];
  return [
    ...corners.slice(0, i + 1),
    at((a.x.mm + b.x.mm) / 2, (a.y.mm + b.y.mm) / 2),
    ...corners.slice(i + 1),
  ];
}

/** What an outline is begun from: the piece, an ellipse, a file; and how large it can be. */
function BeginTools({
  step,
  size,
  onBegin,
}: {
  step: ShapeStep;
  size: readonly [number, number];
  onBegin: (corners: OutlineCorner[]) => void;
}) {
  const display = useDisplay();
  const [said, setSaid] = useState<{ words: string; wrong: boolean }>();
  const [waiting, setWaiting] = useState<Waiting>();
  const [length, width] = size;
  const { outline, cleanUp } = step;
  const { lying, turned } = useMemo(
    () => largestOf({ ...(outline ? { outline } : {}), ...(cleanUp ? { cleanUp } : {}) }, [length, width]),
    [outline, cleanUp, length, width],
  );
  const begun = (next: OutlineCorner[]) => {
    setSaid(undefined);
    setWaiting(undefined);
    onBegin(next);
  };
  const take = ({ name, text }: Waiting, unitMm?: number) => {
    try {
      const read = readOutline(name, text, unitMm);
      begun(read.corners);
      setSaid({ words: readWords(name, read, { display, size }), wrong: false });
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      setWaiting(error instanceof NoUnit ? { name, text } : undefined);
      setSaid({ words: phraseText(error.refused, display), wrong: true });
    }
  };
  const times = (scale: number) => `${Math.round(scale * 100) / 100} times`;
  return (
    <div className="pb-3">
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="action"
          onClick={() => begun([at(0, 0), at(length, 0), at(length, width), at(0, width)])}
        >
          Begin with the four corners of the piece
        </button>
        <button type="button" className="action" onClick={() => begun(ellipseCorners(length, width))}>
          Begin with an ellipse
        </button>
        <FileButton
          label="A file with the outline"
          accept=".dxf,.svg"
          onFile={(file) => void file.text().then((text) => take({ name: file.name, text }))}
        >
          Read from a file (DXF, SVG)
        </FileButton>
        {lying && Math.abs(lying.scale - 1) > 1e-3 && (
          <button type="button" className="action" onClick={() => begun(lying.corners)}>
            As large as the piece gives: {times(lying.scale)}
          </button>
        )}
        {turned && (
          <button type="button" className="action" onClick={() => begun(turned.corners)}>
            Turned by {Math.round(turned.degrees * 10) / 10} degrees: {times(turned.scale)}
          </button>
        )}
      </div>
      {waiting && (
        <div
          className="flex flex-wrap items-center gap-2 pt-2"
          role="group"
          aria-label="The unit of the file"
        >
          <span>Its numbers are</span>
          {UNITS.map(({ mm, name }) => (
            <button key={name} type="button" className="action" onClick={() => take(waiting, mm)}>
              {name}
            </button>
          ))}
        </div>
      )}
      {said && (
        <p role="status" className={`pt-2 text-[14px] ${said.wrong ? 'text-red' : 'text-graphite'}`}>
          {said.words}
        </p>
      )}
    </div>
  );
}

/** What a file gave, in words. */
function readWords(
  name: string,
  { length, width, leftOut }: OutlineRead,
  { display, size }: { display: Display; size: readonly [number, number] },
): string {
  const text = (mm: number) => lengthText(mm, display);
  const over = length > size[0] + 1e-6 || width > size[1] + 1e-6;
  return [
    `${name}: ${text(length)} by ${text(width)}.`,
    ...(over ? [`The piece is ${text(size[0])} by ${text(size[1])}: too small for it.`] : []),
    ...(leftOut.length > 0 ? [`Left out: ${leftOut.join('; ')}.`] : []),
  ].join(' ');
}

/** What the outline measures, what it needs, and what is wrong with it. */
function Facts({
  sheet,
  size,
  display,
}: {
  sheet: ReturnType<typeof outlineSheet>;
  size: readonly [number, number];
  display: Display;
}) {
  const text = (mm: number) => lengthText(mm, display);
  const { refused, length, width, line, needs, past } = sheet;
  if (refused)
    return (
      <p role="alert" className="text-red pt-2 text-[14.5px]">
        {phraseText(refused, display)}
      </p>
    );
  if (length === undefined || width === undefined || !needs) return null;
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 pt-3 text-[14.5px]">
      <dt className="text-graphite">Sawn</dt>
      <dd>
        {text(length)} by {text(width)}, {text(line ?? 0)} round
      </dd>
      <dt className="text-graphite">Needs a blank of</dt>
      <dd>
        {text(needs.length)} by {text(needs.width)}; this piece is {text(size[0])} by {text(size[1])}
      </dd>
      {past !== undefined && (
        <>
          <dt className="text-red">Reaches past it</dt>
          <dd className="text-red">by {text(past)}: there the edge of the piece stays</dd>
        </>
      )}
    </dl>
  );
}
