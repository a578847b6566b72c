import { useState } from 'react';
import { type BenchStep, type Outlier, outlierOf, type ToRead } from '../../../core/bench';
import type { BuildDocument, DimensionName, Reading } from '../../../core/document';
import { type Length, parseLength } from '../../../core/units';
import { shopTime } from '../../app/clock';
import { useDisplay } from '../../app/display';
import { useEdit } from '../job/use-edit';

/** What a caliper and a tape can say, mm. */
const RULE = { minMm: 0.1, maxMm: 100_000 };

/** Pieces that differ by more are read one by one, mm. */
const UNEVEN_MM = 0.5;

export type ReadWhat = ToRead & { piece?: string };

/** Readings of a step: what is read now, what was typed, and what must be asked about before it counts. */
export function useReading(build: BuildDocument, sheet: BenchStep, who?: string) {
  const display = useDisplay();
  const edit = useEdit();
  const [dimension, setDimension] = useState<DimensionName>();
  const [wished, setSingly] = useState(false);
  const [picked, setPicked] = useState<string>();
  const [text, setText] = useState('');
  const [reason, setReason] = useState<string>();
  const [asked, setAsked] = useState<{ measured: Length; outlier: Outlier; gauge?: string }>();
  const [last, setLast] = useState<{ what: ReadWhat; measured: Length }>();
  const own = build.readings.filter(({ step }) => step === sheet.step);
  const chosen = sheet.toRead.find((each) => each.dimension === dimension) ?? sheet.toRead[0];
  const axis = ['length', 'width', 'thickness'].indexOf(chosen?.dimension ?? 'thickness');
  const sizes = sheet.pieces.map((each) => each.sizes[axis]);
  // Strips of several widths have no one width to read.
  const uneven = Math.max(...sizes) - Math.min(...sizes) > UNEVEN_MM && !own.some((each) => !each.piece);
  const singly = wished || uneven;
  const readOf = (piece: string | undefined): Reading | undefined =>
    own.find((each) => each.dimension === chosen?.dimension && each.piece === piece);
  const unread = (after = 0) =>
    [...sheet.pieces.slice(after), ...sheet.pieces.slice(0, after)].find(({ id }) => !readOf(id))?.id;
  const piece = singly ? (picked ?? unread() ?? sheet.pieces[0]?.id) : undefined;
  const at = sheet.pieces.find(({ id }) => id === piece);
  const what: ReadWhat | undefined = chosen && {
    ...chosen,
    ...(at ? { piece: at.id, predictedMm: at.sizes[axis] } : {}),
  };
  const clear = () => {
    setText('');
    setReason(undefined);
    setAsked(undefined);
  };
  const keep = (measured: Length, gauge?: string) => {
    if (!what) return;
    edit({
      do: 'measure',
      step: sheet.step,
      dimension: what.dimension,
      measured,
      taken: shopTime(),
      ...(who ? { who } : {}),
      ...(gauge ? { gauge } : {}),
      ...(what.piece ? { piece: what.piece } : {}),
    });
    setLast({ what, measured });
    clear();
    // The next one that was not read yet comes by itself.
    const n = sheet.pieces.findIndex(({ id }) => id === what.piece);
    setPicked(n < 0 ? undefined : sheet.pieces.slice(n + 1).find(({ id }) => !readOf(id))?.id);
  };
  const enter = (typed = text, gauge?: string) => {
    const parsed = parseLength(typed, display.system, RULE);
    if (!parsed.ok || !what) {
      setReason(parsed.ok ? undefined : parsed.reason);
      return;
    }
    const outlier = outlierOf(parsed.length.mm, what, display);
    if (outlier) {
      setReason(undefined);
      setAsked({ measured: parsed.length, outlier, ...(gauge ? { gauge } : {}) });
    } else keep(parsed.length, gauge);
  };
  return {
    own,
    what,
    text,
    reason,
    asked,
    last,
    singly,
    uneven,
    piece,
    readOf,
    type: (next: string) => {
      setText(next);
      setReason(undefined);
      setAsked(undefined);
    },
    enter,
    keep,
    clear,
    choose: (next: DimensionName) => {
      setDimension(next);
      setPicked(undefined);
      clear();
    },
    oneByOne: (on: boolean) => {
      setSingly(on);
      setPicked(undefined);
      clear();
    },
    pick: (id: string) => {
      setPicked(id);
      clear();
    },
    takeBack: (reading: Pick<Reading, 'dimension' | 'piece'>) => {
      edit({
        do: 'measure',
        step: sheet.step,
        dimension: reading.dimension,
        ...(reading.piece ? { piece: reading.piece } : {}),
      });
      setLast(undefined);
    },
  };
}

export type ReadingState = ReturnType<typeof useReading>;
