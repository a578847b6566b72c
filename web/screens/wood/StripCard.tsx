import { useState } from 'react';
import type { RackBoard } from '../../../contract/board';
import {
  type BuildDocument,
  type Edit,
  FACE_GRADES,
  type FaceGrade,
  type GrainCut,
} from '../../../core/document';
import { type Plan, settingsOf, swapStrips } from '../../../core/stock';
import { lengthText } from '../../../core/units';
import { speciesName } from '../../../core/wood/common';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { LengthField } from '../../parts/LengthField';
import { SettledInput } from '../../parts/SettledInput';
import { GRAIN_NAMES } from '../rack/words';
import type { Drop } from './BoardPlan';

const GRADES: Record<FaceGrade, string> = {
  clear: 'clear of all',
  show: 'to be seen',
  hidden: 'out of sight',
};

/** One strip: where it comes from, what its faces may carry, and how a hand settles it. */
export function StripCard({
  build,
  plan,
  chosen,
  onChoose,
  rack,
  solve,
  drop,
}: {
  build: BuildDocument;
  plan: Plan;
  chosen: string | undefined;
  onChoose: (strip: string | undefined) => void;
  rack: readonly RackBoard[];
  solve: (edits?: Edit[]) => Promise<void>;
  drop: (drop: Drop, snapMm: number) => void;
}) {
  const display = useDisplay();
  const [swapping, setSwapping] = useState(false);
  const slots = build.assemblies.flatMap((assembly) => assembly.slots);
  const own = [...plan.demand.of].filter(([, { job, copy }]) => job === 0 && copy === 0);
  const excluded = slots.filter(({ strip }) => strip?.excluded);
  const wanted = chosen === undefined ? undefined : plan.demand.of.get(chosen);
  const slot =
    wanted && wanted.job === 0 && wanted.copy === 0
      ? slots.find(({ id }) => id === wanted.slot)
      : slots.find(({ id }) => `out ${id}` === chosen);
  const strip = plan.problem.strips.find(({ id }) => id === chosen);
  const place = plan.answer.places.find((p) => p.strip === chosen);
  const options = [
    ...own.map(([id, { label }]) => ({ value: id, label: `Strip ${label}` })),
    ...excluded.map(({ id }) => ({ value: `out ${id}`, label: `left out: ${id}` })),
  ];
  const set = (change: Extract<Edit, { do: 'setStrip' }>['change']) =>
    slot && void solve([{ do: 'setStrip', strip: slot.id, change }]);
  const setSlot = (change: Extract<Edit, { do: 'setSlots' }>['change']) =>
    slot && void solve([{ do: 'setSlots', strips: [slot.id], change }]);
  const boards = rack.filter(
    ({ species, reserved }) =>
      species === slot?.species &&
      (!reserved || build.boards.some(({ id }) => id === reserved.job) || place?.board !== undefined),
  );
  const move = (board: string, x: number, y: number) => chosen && drop({ strip: chosen, board, x, y }, 0.05);
  return (
    <section aria-label="Strip" className="border-line flex flex-col gap-1.5 border-t pt-2">
      <Choice label="One strip" value={chosen ?? ''} options={options} onChange={onChoose} />
      {slot?.strip?.excluded && (
        <button
          type="button"
          className="action self-start"
          onClick={() => void solve([{ do: 'setStrip', strip: slot.id, change: { excluded: undefined } }])}
        >
          Ask for it again
        </button>
      )}
      {slot && strip && (
        <>
          <p className="text-graphite text-[13.5px]">
            {speciesName(slot.species)}, rough {lengthText(strip.length, display)} by{' '}
            {lengthText(strip.width, display)} by {lengthText(strip.thickness, display)}
            {place && place.leaves > 1 && `; leaf ${place.leaf + 1} of ${place.leaves} resawn`}
            {place?.faceDown && '; the board’s under face up'}
          </p>
          <div className="grid grid-cols-3 gap-x-2 gap-y-1.5">
            <Choice
              label="From board"
              value={place?.board ?? ''}
              options={[
                ...new Map(
                  [...plan.problem.boards.filter(({ species }) => species === slot.species), ...boards].map(
                    (b) => [b.id, b],
                  ),
                ).values(),
              ].map((b) => ({ value: b.id, label: b.label }))}
              onChange={(board) => move(board, place?.x ?? 0, place?.y ?? 0)}
            />
            {place && (
              <>
                <LengthField
                  label="From the end"
                  value={{ mm: place.x }}
                  display={display}
                  rule={{ minMm: 0 }}
                  onChange={({ mm }) => move(place.board, mm, place.y)}
                />
                <LengthField
                  label="From the edge"
                  value={{ mm: place.y }}
                  display={display}
                  rule={{ minMm: 0 }}
                  onChange={({ mm }) => move(place.board, place.x, mm)}
                />
              </>
            )}
          </div>
          <div className="flex flex-wrap gap-1.5">
            {place && (
              <button
                type="button"
                className="action"
                aria-pressed={slot.strip?.locked ?? false}
                onClick={() => set(slot.strip?.locked ? { locked: undefined } : { locked: true })}
              >
                {slot.strip?.locked ? 'Unlock' : 'Lock here'}
              </button>
            )}
            <button
              type="button"
              className="action"
              onClick={() => {
                set({ excluded: true, locked: undefined, board: undefined, at: undefined });
                onChoose(undefined);
              }}
            >
              Leave it out
            </button>
            {place && (
              <button
                type="button"
                className="action"
                aria-expanded={swapping}
                onClick={() => setSwapping(!swapping)}
              >
                Swap with …
              </button>
            )}
          </div>
          {swapping && (
            <Choice
              label="Swap places with"
              value=""
              options={own
                .filter(([id]) => id !== chosen && plan.answer.places.some((p) => p.strip === id))
                .map(([id, { label }]) => ({ value: id, label: `Strip ${label}` }))}
              onChange={(other) => {
                const mate = plan.demand.of.get(other);
                const strips = mate && swapStrips(build, slot.id, mate.slot);
                setSwapping(false);
                if (strips)
                  void solve([
                    { do: 'useBoards', boards: build.boards, strips, breakdown: settingsOf(build) },
                  ]);
              }}
            />
          )}
          <div className="grid grid-cols-3 gap-x-2">
            <Choice
              label="Upper face"
              value={slot.grade ?? 'show'}
              options={FACE_GRADES.map((grade) => ({ value: grade, label: GRADES[grade] }))}
              onChange={(grade) => setSlot({ grade: grade as FaceGrade })}
            />
            <Choice
              label="Under face"
              value={slot.gradeBelow ?? 'hidden'}
              options={FACE_GRADES.map((grade) => ({ value: grade, label: GRADES[grade] }))}
              onChange={(gradeBelow) => setSlot({ gradeBelow: gradeBelow as FaceGrade })}
            />
            <Choice
              label="Grain"
              value={slot.grain ?? '?'}
              options={[
                { value: '?', label: 'any' },
                ...Object.entries(GRAIN_NAMES).map(([value, label]) => ({ value, label })),
              ]}
              onChange={(grain) => setSlot({ grain: grain === '?' ? undefined : (grain as GrainCut) })}
            />
          </div>
          <label className="flex items-center gap-2 text-[14px]">
            Comes from one board with the others of set
            <SettledInput
              className="field w-24 font-sans!"
              maxLength={20}
              value={slot.set ?? ''}
              placeholder="none"
              aria-label="Set of the strip"
              onChange={(name) => setSlot({ set: name || undefined })}
            />
          </label>
        </>
      )}
    </section>
  );
}
