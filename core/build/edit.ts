import type { ShopSnapshot } from '../kit';
import {
  DIMENSIONS,
  MOST_STRIPS,
  type Aim,
  type BreakdownSettings,
  type BuildDocument,
  type Cutter,
  type DimensionName,
  type LaidPart,
  type Split,
  type Slot,
  type Step,
  type StripSource,
  type TurnRule,
} from './document';
import { type Brief } from './brief';
import type { BoardStock } from './board';
import type { GluePlan, GlueUse } from './glueplan';
import { splitAgain, splitGlue } from './split';
import { carryOver } from './carry';
import type { Length } from '../units';
import { fit } from './fit/fit';
import { flipPart } from './turns';
import { assemblyOf, glueOf } from './graph';
import { addAccent, addRows, swapSpare } from './rows';

/** A change a maker can make to a build. Plain data, so that a fix can carry one and undo can forget one. */
export type Edit =
  | { do: 'rename'; name: string }
  | { do: 'moveStrip'; step: string; from: number; to: number }
  | { do: 'turnPart'; step: string; piece: string; turn: 'endForEnd' | 'rollOver' }
  | { do: 'duplicateStrip'; step: string; piece: string }
  | { do: 'removeStrip'; step: string; piece: string }
  | { do: 'addStrip'; step: string }
  | { do: 'setSlot'; step: string; piece: string; change: Partial<Omit<Slot, 'id'>> }
  | { do: 'setAllSlots'; step: string; change: Partial<Omit<Slot, 'id'>> }
  | { do: 'setStep'; step: string; change: Record<string, unknown> }
  | { do: 'useSaw'; step: string; saw: string }
  | { do: 'useMachine'; step: string; machine: string }
  | { do: 'useCutter'; step: string; cutter: Cutter }
  | { do: 'flipSlice'; step: string; part: number }
  | { do: 'setRule'; step: string; rule?: TurnRule }
  | { do: 'setAim'; dimension: DimensionName; aim: Aim }
  | { do: 'lengthenStrips'; step: string; byMm: number }
  | { do: 'replan'; change?: Partial<NonNullable<BuildDocument['brief']>> }
  | { do: 'useShop'; shop: ShopSnapshot }
  /** Strips get their places on boards; a strip keeps its seed and whether it was left out by hand. */
  | {
      do: 'useBoards';
      boards: BoardStock[];
      strips: Record<string, StripSource>;
      breakdown: BreakdownSettings;
    }
  | { do: 'setBreakdown'; breakdown: BreakdownSettings }
  | { do: 'setStrip'; slot: string; change: Partial<StripSource> }
  | { do: 'setSlots'; slots: string[]; change: Partial<Omit<Slot, 'id'>> }
  /** Enters what was measured after a step, or takes the reading back. */
  | { do: 'measure'; step: string; axis: 0 | 1 | 2; measured?: Length; piece?: string }
  /** A piece was spoilt, or is good after all. */
  | { do: 'spoil'; step: string; piece: string }
  /** A part stays where it lies when an order is proposed, or is free again. */
  | { do: 'lockPart'; step: string; piece: string }
  | { do: 'swapSpare'; step: string; piece: string }
  | { do: 'addRows'; step: string; rows: number }
  | {
      do: 'addAccent';
      step: string;
      accent: { mm: number; species: string; length: number; thickness: number };
    }
  /** Several edits as one. */
  | { do: 'many'; edits: Edit[] }
  /** How a glue-up is done; what is undefined follows the shop's practice again. */
  | { do: 'planGlue'; step: string; change: Partial<GluePlan> }
  | { do: 'setUses'; uses?: GlueUse[] }
  /** Cuts one glue-up into several at joints, counted from 1, and joins them after. */
  | ({ do: 'splitGlue'; step: string } & Split)
  /** A whole lay-up at once: order, turns, locks. */
  | { do: 'layParts'; step: string; parts: LaidPart[] };

const ofSlot = (build: BuildDocument, step: string, map: (slots: Slot[]) => Slot[]): BuildDocument => {
  const assembly = assemblyOf(build, step);
  if (!assembly) return build;
  return {
    ...build,
    assemblies: build.assemblies.map((a) => (a.id === assembly.id ? { ...a, slots: map(a.slots) } : a)),
  };
};

const ofStep = (build: BuildDocument, id: string, map: (step: Step) => Step): BuildDocument => ({
  ...build,
  steps: build.steps.map((step) => (step.id === id ? map(step) : step)),
});

/** Parts of the glue-up that takes a step's strips, written out where the lay-up was still in its own order. */
const ofParts = (
  build: BuildDocument,
  step: string,
  map: (parts: NonNullable<Extract<Step, { kind: 'glue' }>['parts']>) => typeof parts,
  piece?: string,
): BuildDocument => {
  const glue = glueOf(build, step, piece);
  if (!glue) return build;
  const slots = assemblyOf(build, step)?.slots ?? [];
  const parts = glue.parts ?? slots.map((slot) => ({ piece: slot.id }));
  return ofStep(build, glue.id, (s) => ({ ...s, parts: map(parts) }) as Step);
};

/** A slot id not yet used in the build. */
function freshId(build: BuildDocument): string {
  const used = new Set(build.assemblies.flatMap((assembly) => assembly.slots.map((slot) => slot.id)));
  let n = used.size + 1;
  while (used.has(`strip-${n}`)) n++;
  return `strip-${n}`;
}

function duplicate(build: BuildDocument, step: string, piece: string): BuildDocument {
  const slots = assemblyOf(build, step)?.slots ?? [];
  const slot = slots.find(({ id }) => id === piece);
  if (!slot) return build;
  if (slots.length >= MOST_STRIPS) throw new Error(`A lay-up holds at most ${MOST_STRIPS} strips.`);
  const id = freshId(build);
  const copy: Slot = { ...slot, id, strip: slot.strip?.board ? { board: slot.strip.board } : undefined };
  const withSlot = ofSlot(build, step, (slots) => slots.flatMap((s) => (s.id === piece ? [s, copy] : [s])));
  return ofParts(
    withSlot,
    step,
    (parts) =>
      parts
        .filter((part) => part.piece !== id)
        .flatMap((part) => (part.piece === piece ? [part, { ...part, piece: id }] : [part])),
    piece,
  );
}

const everySlot = (build: BuildDocument, map: (slot: Slot) => Slot): BuildDocument => ({
  ...build,
  assemblies: build.assemblies.map((assembly) => ({ ...assembly, slots: assembly.slots.map(map) })),
});

function withBoards(build: BuildDocument, edit: Extract<Edit, { do: 'useBoards' }>): BuildDocument {
  const placed = everySlot(build, (slot) => {
    const source = edit.strips[slot.id];
    if (!source) return slot;
    const { strip: before, ...rest } = slot;
    const seed = before?.seed === undefined ? {} : { seed: before.seed };
    const strip = { ...seed, ...source };
    return Object.keys(strip).length > 0 ? { ...rest, strip } : rest;
  });
  const named = new Set(placed.assemblies.flatMap(({ slots }) => slots.map(({ strip }) => strip?.board)));
  const kept = build.boards.filter(
    ({ id }) => named.has(id) && !edit.boards.some((board) => board.id === id),
  );
  return { ...placed, boards: [...edit.boards, ...kept], breakdown: edit.breakdown };
}

/** What a build's own brief gives untouched; nothing where the kit has changed so that it gives none any more. */
function plannedBefore(brief: Brief, build: BuildDocument, about: { name: string; use: string }) {
  try {
    return fit(brief, build.shop, about);
  } catch {
    return undefined;
  }
}

const withoutUndefined = (plan: GluePlan): GluePlan =>
  Object.fromEntries(Object.entries(plan).filter(([, value]) => value !== undefined));

function withReading(build: BuildDocument, edit: Extract<Edit, { do: 'measure' }>): BuildDocument {
  const dimension = DIMENSIONS[edit.axis];
  const others = build.readings.filter(
    (reading) =>
      reading.step !== edit.step || reading.dimension !== dimension || reading.piece !== edit.piece,
  );
  if (!edit.measured) return { ...build, readings: others };
  const id = [edit.step, dimension, ...(edit.piece ? [edit.piece] : [])].join('.');
  const piece = edit.piece ? { piece: edit.piece } : {};
  return {
    ...build,
    readings: [...others, { id, step: edit.step, dimension, measured: edit.measured, ...piece }],
  };
}

/**
 * Carries out an edit and gives the new build; the old one stays as it was. An edit that names a strip or step that
 * is gone changes nothing. Throws, with the reason, where `replan` meets a brief that cannot be met or a lay-up is full.
 */
export function applyEdit(build: BuildDocument, edit: Edit): BuildDocument {
  switch (edit.do) {
    case 'rename':
      return { ...build, name: edit.name };
    case 'moveStrip':
      return ofParts(build, edit.step, (parts) => {
        const next = [...parts];
        const [moved] = next.splice(edit.from, 1);
        if (moved) next.splice(edit.to, 0, moved);
        return next;
      });
    case 'turnPart':
      return ofParts(
        build,
        edit.step,
        (parts) =>
          parts.map((part) =>
            part.piece === edit.piece ? { ...part, [edit.turn]: !part[edit.turn] } : part,
          ),
        edit.piece,
      );
    case 'duplicateStrip':
      return duplicate(build, edit.step, edit.piece);
    case 'addStrip': {
      const last = assemblyOf(build, edit.step)?.slots.at(-1);
      return last ? duplicate(build, edit.step, last.id) : build;
    }
    case 'removeStrip': {
      const without = ofParts(
        build,
        edit.step,
        (parts) => parts.filter((part) => part.piece !== edit.piece),
        edit.piece,
      );
      return ofSlot(without, edit.step, (slots) => slots.filter((slot) => slot.id !== edit.piece));
    }
    case 'setSlot':
      return ofSlot(build, edit.step, (slots) =>
        slots.map((slot) => (slot.id === edit.piece ? { ...slot, ...edit.change } : slot)),
      );
    case 'setAllSlots':
      return ofSlot(build, edit.step, (slots) => slots.map((slot) => ({ ...slot, ...edit.change })));
    case 'lengthenStrips':
      return ofSlot(build, edit.step, (slots) =>
        slots.map((slot) => ({ ...slot, length: { mm: slot.length.mm + edit.byMm } })),
      );
    case 'setStep':
      return ofStep(
        build,
        edit.step,
        (step) => ({ ...step, ...edit.change, id: step.id, kind: step.kind }) as Step,
      );
    case 'useSaw':
      return ofStep(build, edit.step, (step) =>
        step.kind === 'trim' ? { ...step, cutter: { saw: edit.saw } } : ({ ...step, saw: edit.saw } as Step),
      );
    case 'useMachine':
      return ofStep(build, edit.step, (step) =>
        step.kind === 'trim'
          ? { ...step, cutter: { machine: edit.machine } }
          : ({ ...step, machine: edit.machine } as Step),
      );
    case 'useCutter':
      return ofStep(build, edit.step, (step) => ({ ...step, cutter: edit.cutter }) as Step);
    case 'flipSlice':
      return ofStep(build, edit.step, (step) =>
        step.kind === 'glue' && step.turns ? { ...step, turns: flipPart(step.turns, edit.part) } : step,
      );
    case 'setRule':
      return ofStep(build, edit.step, (step) =>
        step.kind === 'glue' ? { ...step, turns: edit.rule } : step,
      );
    case 'setAim':
      return {
        ...build,
        targets: build.targets.map((target, i) =>
          i === 0 ? { ...target, [edit.dimension]: edit.aim } : target,
        ),
        brief: build.brief && { ...build.brief, [edit.dimension]: edit.aim },
      };
    case 'replan': {
      if (!build.brief) return build;
      const about = { name: build.name, use: build.use };
      const planned = fit({ ...build.brief, ...edit.change }, build.shop, about);
      const before = plannedBefore(build.brief, build, about) ?? planned;
      return carryOver(splitAgain(planned, build), build, splitAgain(before, build));
    }
    case 'useShop':
      return { ...build, shop: edit.shop };
    case 'useBoards':
      return withBoards(build, edit);
    case 'setBreakdown':
      return { ...build, breakdown: edit.breakdown };
    case 'setStrip':
      return everySlot(build, (slot) =>
        slot.id === edit.slot ? { ...slot, strip: { ...slot.strip, ...edit.change } } : slot,
      );
    case 'setSlots':
      return everySlot(build, (slot) => (edit.slots.includes(slot.id) ? { ...slot, ...edit.change } : slot));
    case 'measure':
      return withReading(build, edit);
    case 'spoil':
      return ofStep(build, edit.step, (step) => {
        const spoilt = step.spoilt ?? [];
        const next = spoilt.includes(edit.piece)
          ? spoilt.filter((id) => id !== edit.piece)
          : [...spoilt, edit.piece];
        return { ...step, spoilt: next.length > 0 ? next : undefined };
      });
    case 'swapSpare':
      return swapSpare(build, edit.step, edit.piece);
    case 'addRows':
      return addRows(build, edit.step, edit.rows);
    case 'addAccent':
      return addAccent(build, edit.step, edit.accent);
    case 'many':
      return edit.edits.reduce(applyEdit, build);
    case 'lockPart':
      return ofParts(
        build,
        edit.step,
        (parts) =>
          parts.map((part) => (part.piece === edit.piece ? { ...part, locked: !part.locked } : part)),
        edit.piece,
      );
    case 'planGlue':
      return ofStep(build, edit.step, (step) =>
        step.kind === 'glue' ? { ...step, plan: withoutUndefined({ ...step.plan, ...edit.change }) } : step,
      );
    case 'setUses':
      return { ...build, uses: edit.uses };
    case 'splitGlue':
      return splitGlue(build, edit.step, edit);
    case 'layParts':
      return ofStep(build, edit.step, (step) =>
        // The parts now say all that is turned; a rule would turn them again.
        step.kind === 'glue' ? { ...step, parts: edit.parts, turns: undefined } : step,
      );
  }
}
