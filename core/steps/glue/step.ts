import type {
  ContactNote,
  DimensionName,
  GluePlan,
  LaidPart,
  LayUpMark,
  Rows,
  ShiftRule,
  Split,
  StepBase,
  TurnRule,
} from '../../document';

/**
 * Lay up and glue along an axis. Without `parts` all inputs are laid in their own order. Where a later step takes
 * the same input, only the parts named are taken here.
 */
export interface GlueStep extends StepBase {
  kind: 'glue';
  along: DimensionName;
  parts?: LaidPart[];
  turns?: TurnRule;
  shifts?: ShiftRule;
  rows?: Rows;
  /** That many blanks alike: the parts are shared out to them in order. One if missing. */
  blanks?: number;
  /** How it was split into glue-ups of its own, where it was: planned again, it is split so again. */
  split?: Split;
  /** What is pencilled across the lay-up. */
  mark?: LayUpMark;
  contacts?: ContactNote[];
  /** How it is glued and clamped, where the maker chose. */
  plan?: GluePlan;
}

declare module '../../document/step' {
  interface StepKinds {
    glue: GlueStep;
  }
}
