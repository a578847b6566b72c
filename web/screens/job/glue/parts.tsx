import type { ReactNode } from 'react';
import type { BuildDocument, GluePlan, Phrase } from '../../../../core/document';
import type { PlannedGlueUp } from '../../../../core/glueup';
import type { GlueStep } from '../../../../core/steps';
import { useDisplay } from '../../../app/display';
import { Words } from '../../../parts/Words';
import { useEdit } from '../use-edit';

/** A name and what it comes to, on a dotted line. */
export function Fact({ name, title, children }: { name: ReactNode; title?: string; children: ReactNode }) {
  return (
    <div
      className="border-line flex items-baseline justify-between gap-3 border-b border-dotted py-1"
      title={title}
    >
      <dt className="text-[14px]">{name}</dt>
      <dd className="rule text-right text-[14.5px]">{children}</dd>
    </div>
  );
}

/** A message in the shop's units. */
export const Say = ({ phrase }: { phrase: readonly Phrase[] }) => (
  <Words phrase={phrase} display={useDisplay()} />
);

/** Two lines of reason under a choice. */
export const Why = ({ children }: { children: ReactNode }) => (
  <p className="text-graphite text-[13px] leading-snug first-letter:uppercase">{children}</p>
);

/** What every part of a glue-up's card is given. */
export interface GluePart {
  build: BuildDocument;
  step: GlueStep;
  planned: PlannedGlueUp;
}

/** Changes the plan of a glue-up; edits with one mark in a row are one step of undo. */
export function usePlanGlue(step: GlueStep): (change: Partial<GluePlan>, mark?: string) => void {
  const edit = useEdit();
  return (change, mark) => edit({ do: 'planGlue', step: step.id, change }, mark && `${step.id}.${mark}`);
}
