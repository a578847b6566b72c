import type { Cutter, StepBase } from '../document';
import type { Length } from '../units';

/** What the card shows of a setting; a setting without a label stands in the document alone. */
interface OnCard<S> {
  label?: string | ((step: S) => string);
  /** Folded with others under this heading, so that what is seldom set is out of the way. */
  group?: string;
  /** Asked for only where it matters; always if missing. */
  when?: (step: S) => boolean;
}

/** Whether planning again keeps what a hand set here; sizes come anew from the plan. */
interface Carried {
  carried?: boolean;
}

/** What an earlier file meant that leaves the setting out; without one it is refused. */
interface Fallback<T> {
  fallback?: T;
}

/** A length. What the document takes is any length; `least` and `most` are what the card takes, mm: 0 to 2000 if missing. */
export interface LengthField {
  is: 'length';
  least?: number;
  most?: number;
}
/** A number from `least` to `most`, any finite one if missing; the card may take less, and only whole ones. */
export interface NumberField {
  is: 'number';
  least?: number;
  most?: number;
  whole?: boolean;
  /** What counts while it is missing. */
  usual?: number | ((step: never) => number);
  card?: { least: number; most: number; whole?: true };
}
/** A yes or no. */
export interface FlagField {
  is: 'flag';
}
/** One of a few words, each with what the card calls it. */
export interface ChoiceField<T extends string> {
  is: 'choice';
  options: readonly (T extends string ? { value: T; label: string } : never)[];
}
/** Any words, at most so many letters. */
export interface TextField {
  is: 'text';
  most: number;
}
/** A moment as an ISO time with its zone. */
export interface MomentField {
  is: 'moment';
}
/** The id of a saw or machine of the kit, of a wood, of a lay-up of strips, a piece, a step or what it gives; `loose` ids were never checked for letters. */
export interface IdField {
  is: 'id';
  of: 'saw' | 'machine' | 'wood' | 'assembly' | 'piece' | 'step' | 'output';
  loose?: boolean;
}
/** A saw or a machine that trims. */
export interface CutterField {
  is: 'cutter';
}
/** A list of at most so many. */
export interface ListField<U> {
  is: 'list';
  least?: number;
  most: number;
  of: Field<U>;
}
/** Settings that belong together. */
export interface GroupField<T> {
  is: 'group';
  fields: { [K in keyof T]-?: Field<NonNullable<T[K]>> & Optional<T, K> & { label?: string } };
}
/** Plain data that Junta holds and does not read: at most 500 values, five levels deep. */
export interface PlainField {
  is: 'plain';
}
/** How a glue-up is done: has a schema and cards of its own. */
export interface GluePlanField {
  is: 'gluePlan';
}

/** A feature of any kind: a hole, a groove, an opening; each kind says its own fields. */
export interface FeaturesField {
  is: 'feature';
}

/** What is fitted to a piece, of any kind: each kind says its own fields. */
export interface FittingsField {
  is: 'fitting';
}

/** A field that fits a type of value. Nothing else compiles. */
export type Field<T> = [T] extends [boolean]
  ? FlagField
  : [T] extends [number]
    ? NumberField
    : [T] extends [string]
      ? string extends T
        ? TextField | MomentField | IdField
        : ChoiceField<T>
      : [T] extends [Length]
        ? LengthField
        : [T] extends [Cutter]
          ? CutterField
          : [T] extends [readonly (infer U)[]]
            ? ListField<U>
            : string extends keyof T
              ? PlainField
              : GroupField<T> | GluePlanField | FeaturesField | FittingsField;

/** A field of any type, as those see it who only walk over fields. */
export type AnyField =
  | LengthField
  | NumberField
  | FlagField
  | ChoiceField<string>
  | TextField
  | MomentField
  | IdField
  | CutterField
  | PlainField
  | GluePlanField
  | FeaturesField
  | FittingsField
  | { is: 'list'; least?: number; most: number; of: AnyField }
  | { is: 'group'; fields: Record<string, AnyField & { optional?: true; label?: string }> };

/** A field that may be missing says so; one that may not must not. */
type Optional<T, K extends keyof T> =
  Record<never, never> extends Pick<T, K> ? { optional: true } : { optional?: never };

/** What a kind's own settings are called: all of its fields besides those of every step. */
export type OwnName<S extends StepBase> = Exclude<keyof S, keyof StepBase | 'kind'>;

/** One field for each setting of a kind of step: one that is missing, superfluous or of another type does not compile. */
export type Fields<S extends StepBase> = {
  [K in OwnName<S>]-?: Field<NonNullable<S[K]>> &
    Optional<S, K> &
    OnCard<S> &
    Carried &
    Fallback<NonNullable<S[K]>>;
};

/** A setting as those see it who draw, check or list it. */
export type Setting = AnyField & OnCard<never> & Carried & Fallback<unknown> & { optional?: true };

/** The settings that every step has. `done` is carried over by its own rule: only where the step stayed as it was. */
export const BASE_FIELDS: {
  [K in keyof StepBase]-?: Field<NonNullable<StepBase[K]>> & Optional<StepBase, K> & Carried;
} = {
  id: { is: 'id', of: 'step' },
  name: { is: 'text', most: 80, optional: true, carried: true },
  inputs: { is: 'list', most: 100, of: { is: 'id', of: 'output' } },
  output: { is: 'id', of: 'output' },
  only: { is: 'list', most: 2000, of: { is: 'id', of: 'piece' }, optional: true },
  off: { is: 'flag', optional: true, carried: true },
  done: { is: 'flag', optional: true },
  doneAt: { is: 'moment', optional: true },
  operations: { is: 'number', least: 0, most: 10_000, whole: true, optional: true },
  work: {
    is: 'list',
    most: 500,
    optional: true,
    carried: true,
    of: {
      is: 'group',
      fields: {
        from: { is: 'moment' },
        to: { is: 'moment', optional: true },
        who: { is: 'text', most: 60, optional: true },
      },
    },
  },
  early: {
    is: 'list',
    most: 50,
    optional: true,
    carried: true,
    of: {
      is: 'group',
      fields: {
        at: { is: 'moment' },
        until: { is: 'moment' },
        wait: { is: 'text', most: 200 },
        who: { is: 'text', most: 60, optional: true },
      },
    },
  },
  note: { is: 'text', most: 4000, optional: true, carried: true },
  marks: { is: 'list', most: 50, of: { is: 'text', most: 80 }, optional: true, carried: true },
  photos: { is: 'list', most: 50, of: { is: 'text', most: 200 }, optional: true, carried: true },
  spoilt: { is: 'list', most: 2000, of: { is: 'text', most: 80 }, optional: true, carried: true },
  begin: { is: 'moment', optional: true, carried: true },
};
