import type { Edit, Finding, FindingCode, Fix, Phrase } from '../document';
import type { ClampPlan, GlueUp } from '../glueup';
import type { ReviewContext } from './context';

/** What looks at one glue-up and its clamps. */
export type Findings = (glueUp: GlueUp, plan: ClampPlan, context: ReviewContext) => Finding[];

/** A fix that changes how a glue-up is done. */
export const planGlue = (
  glueUp: GlueUp,
  label: string,
  change: Extract<Edit, { do: 'planGlue' }>['change'],
): Fix => ({
  label,
  edit: { do: 'planGlue', step: glueUp.step.id, change },
});

/** A warning about a glue-up. */
export const warning = (
  code: FindingCode,
  { step }: GlueUp,
  message: Phrase[],
  more: Partial<Finding> & Pick<Finding, 'numbers'>,
): Finding => ({ code, step: step.id, severity: 'warning', message, fixes: [], ...more });
