/** What every fitting has, whatever its kind. */
export interface FittingBase {
  id: string;
  name?: string;
}

/** The kinds of fitting by their names, each with its settings. Open on purpose: each declares its own in kinds/. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- filled by the kinds
export interface FittingKinds {}
export type FittingKindName = keyof FittingKinds;
/** A fitting of any kind. */
export type Fitting = FittingKinds[FittingKindName];
