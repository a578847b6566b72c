import type { Step } from '../document';
import { type AnyField, BASE_FIELDS } from './field';
import { roomOf } from './list';

/** What in a document an id stands for; machines, saws and woods are the kit's and keep theirs. */
type Named = 'assembly' | 'piece' | 'step' | 'output';

const isNamed = (of: string): of is Named => ['assembly', 'piece', 'step', 'output'].includes(of);

function renamedIn(field: AnyField, value: unknown, to: (id: string, of: Named) => string): unknown {
  if (value === undefined) return undefined;
  switch (field.is) {
    case 'id':
      return isNamed(field.of) && typeof value === 'string' ? to(value, field.of) : value;
    case 'list':
      return (value as unknown[]).map((each) => renamedIn(field.of, each, to));
    case 'group':
      return Object.fromEntries(
        Object.entries(value as object).map(([key, each]) => {
          const own = field.fields[key];
          return [key, own ? renamedIn(own, each, to) : each];
        }),
      );
    case 'length':
    case 'number':
    case 'flag':
    case 'choice':
    case 'text':
    case 'moment':
    case 'cutter':
    case 'plain':
    case 'gluePlan':
    case 'feature':
    case 'fitting':
      return value;
  }
}

/**
 * A step with every id of the document in it called otherwise: its own, its output, what it takes, its lay-up, its pieces.
 * Which of its settings are ids is read from the fields of its room, so that none is forgotten.
 */
export function renamedStep(step: Step, to: (id: string, of: Named) => string): Step {
  const fields = { ...BASE_FIELDS, ...roomOf(step).fields } as Record<string, AnyField>;
  return Object.fromEntries(
    Object.entries(step).map(([key, value]) => {
      const field = fields[key];
      return [key, field ? renamedIn(field, value, to) : value];
    }),
  ) as unknown as Step;
}
