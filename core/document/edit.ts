import type { ShopSnapshot } from '../kit';
import type { Length } from '../units';
import type { BoardStock } from './board';
import type { BreakdownSettings } from './breakdown';
import type { Check } from './check';
import type { BuildDocument } from './document';
import type { Failure } from './failure';
import type { GluePlan, GlueUse } from './glueplan';
import type { PlaceOfUse } from './place';
import type { DependentSize } from './sizes';
import type { LaidPart, Split, TurnRule } from './parts';
import type { Slot, StripSource } from './slots';
import type { Cutter, StepKind } from './step';
import type { Aim, DimensionName, Target } from './targets';

/** A change a maker can make to a build. Plain data, so that a fix can carry one and undo can forget one. */
export type Edit =
  | { do: 'rename'; name: string }
  | { do: 'promise'; day: string | undefined }
  | { do: 'moveStrip'; step: string; from: number; to: number }
  | { do: 'turnPart'; step: string; piece: string; turn: 'endForEnd' | 'rollOver' }
  | { do: 'duplicateStrip'; step: string; strip: string }
  | { do: 'removeStrip'; step: string; strip: string }
  | { do: 'addStrip'; step: string }
  | { do: 'setSlot'; step: string; strip: string; change: Partial<Omit<Slot, 'id'>> }
  | { do: 'setAllSlots'; step: string; change: Partial<Omit<Slot, 'id'>> }
  | { do: 'setStep'; step: string; change: Record<string, unknown> }
  | { do: 'useSaw'; step: string; saw: string }
  | { do: 'useMachine'; step: string; machine: string }
  | { do: 'useCutter'; step: string; cutter: Cutter }
  | { do: 'flipSlice'; step: string; part: number }
  | { do: 'setRule'; step: string; rule?: TurnRule }
  | { do: 'setAim'; dimension: DimensionName; aim: Aim; target?: string }
  /** One more piece is wanted of this job; one is wanted no longer; or another number, name or step to measure it on. */
  | { do: 'addTarget'; purpose: string; output?: string }
  | { do: 'removeTarget'; target: string }
  /** A piece wanted several times gets boards and readings of its own each time; or is cut from one long one. */
  | { do: 'makeEach'; target: string }
  | { do: 'fromOneLength'; target: string }
  | { do: 'setTarget'; target: string; change: Partial<Omit<Target, 'id'>> }
  | { do: 'lengthenStrips'; step: string; byMm: number }
  | { do: 'replan'; change?: Partial<NonNullable<BuildDocument['brief']>> }
  /** Plans another pattern into the same job, as lines of its own with a piece wanted of it. */
  | { do: 'addPlan'; brief: NonNullable<BuildDocument['brief']>; name: string }
  | { do: 'useShop'; shop: ShopSnapshot }
  /** Strips get their places on boards; a strip keeps its seed and whether it was left out by hand. */
  | {
      do: 'useBoards';
      boards: BoardStock[];
      strips: Record<string, StripSource>;
      breakdown: BreakdownSettings;
    }
  | { do: 'setBreakdown'; breakdown: BreakdownSettings }
  | { do: 'setStrip'; strip: string; change: Partial<StripSource> }
  /** Widths of a lay-up's strips in the order of `strips`: more widths add strips like the last, fewer take the last out. */
  | { do: 'setWidths'; step: string; strips: string[]; widths: Length[] }
  | { do: 'setSlots'; strips: string[]; change: Partial<Omit<Slot, 'id'>> }
  /** Enters what was measured after a step, or takes the reading back. */
  | {
      do: 'measure';
      step: string;
      dimension: DimensionName;
      measured?: Length;
      piece?: string;
      taken?: string;
      who?: string;
      gauge?: string;
    }
  /** A piece was spoilt, or is good after all. */
  | { do: 'spoil'; step: string; piece: string }
  /** Something was checked; a check of the same name is made anew, and one can be taken back. */
  | { do: 'check'; check: Check }
  | { do: 'forgetCheck'; check: string }
  /** Something failed: it is remembered. */
  | { do: 'fail'; failure: Failure }
  /**
   * Cuts a piece apart along a line so far from its near edge or left end, with the bad band, and glues it together again:
   * jointed edges between, and a strip of another wood where one is given. What followed takes the piece that comes of it.
   */
  | {
      do: 'glueAnew';
      step: string;
      piece: string;
      along: 'width' | 'length';
      first: Length;
      out?: Length;
      accent?: { mm: number; species: string };
    }
  /**
   * Makes pieces once more, from new wood, through the same steps, for a glue-up to take in the place of those struck: `spread`
   * deals old and new ones out evenly. `shorterMm` is what the new strips may be shorter than the first ones.
   */
  | { do: 'makeAgain'; into: string; pieces: string[]; spread?: boolean; shorterMm?: number }
  /** Makes all that came to a step once more, from new wood: what follows takes the new. */
  | { do: 'startAgain'; step: string }
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
  /** Where the piece will stand; undefined is not told. */
  | { do: 'setPlace'; place?: PlaceOfUse }
  /** All sizes that follow from others, as one list. */
  | { do: 'setSizes'; sizes?: DependentSize[] }
  /** Cuts one glue-up into several at joints, counted from 1, and joins them after. */
  | ({ do: 'splitGlue'; step: string } & Split)
  /**
   * Puts a step in after another: between it and `before`, else before all that works on it. With `only` and no `before` it
   * takes these pieces another way. Settings that are not given are sensible for what lies there.
   */
  | {
      do: 'addStep';
      kind: StepKind;
      after: string;
      before?: string;
      only?: string[];
      settings?: Record<string, unknown>;
    }
  /** Begins a line of its own: with strips, or with what is there already. */
  | { do: 'addLine'; kind: StepKind; settings: Record<string, unknown>; name?: string; slots?: Slot[] }
  /** Takes a step out: what followed takes what it took. */
  | { do: 'removeStep'; step: string }
  | { do: 'moveStep'; step: string; after: string; before?: string }
  | { do: 'duplicateStep'; step: string }
  /** Lets a step take what another gives too; `parts` is the lay-up then, where it is a glue-up. */
  | { do: 'takeIn'; step: string; output: string; parts?: LaidPart[] }
  /** A step takes what another gives no longer. */
  | { do: 'leaveAside'; step: string; output: string }
  /** A whole lay-up at once: order, turns, locks. */
  | { do: 'layParts'; step: string; parts: LaidPart[] };
