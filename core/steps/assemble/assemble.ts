import type { StepBase } from '../../document';
import { SUPPLY_KINDS, type SupplyKind } from '../../kit';
import { counted } from '../../units';
import { passThrough, type StepRoom } from '../room';

/** Hardware that holds an assembly, or goes on it. */
export interface Fixing {
  kind: SupplyKind;
  /** As the trade names it; any if missing. */
  size?: string;
  /** In the unit of its kind. */
  amount: number;
}

/**
 * Parts put together or fitted by hand: a top on its base, feet, casters, a vise. Junta makes no new solid of it: parts
 * stay what they are, and the work, its hardware and its hours have their place in the chain.
 */
export interface AssembleStep extends StepBase {
  kind: 'assemble';
  /** What is done, in the maker's words. */
  what?: string;
  /** Held by glue too. */
  glued?: boolean;
  hands?: number;
  minutes?: number;
  fixings?: Fixing[];
}

/** Minutes an assembly takes until someone says (common practice varies; a guess to be changed). */
const ASSEMBLE_MIN = 30;
const MOST_FIXINGS = 20;

/** The room of assembling and fitting. */
export const assemble: StepRoom<AssembleStep> = {
  kind: 'assemble',
  name: 'Assemble or fit',
  group: 'Assemble',
  says: 'Puts parts together or fits hardware by hand; no size changes.',
  subtitle: ({ what, hands }, { count }) =>
    [what, count !== undefined && counted(count, 'part'), hands && hands > 1 && `${hands} people`]
      .filter(Boolean)
      .join(', '),
  fields: {
    what: { is: 'text', most: 200, label: 'What is put together', optional: true, carried: true },
    glued: { is: 'flag', label: 'Held by glue too', optional: true, carried: true },
    hands: {
      is: 'number',
      least: 1,
      most: 12,
      whole: true,
      usual: 1,
      label: 'People',
      optional: true,
      carried: true,
    },
    minutes: {
      is: 'number',
      least: 0,
      most: 10_080,
      whole: true,
      usual: ASSEMBLE_MIN,
      label: 'Minutes',
      optional: true,
      carried: true,
    },
    fixings: {
      is: 'list',
      label: 'Hardware',
      most: MOST_FIXINGS,
      optional: true,
      carried: true,
      of: {
        is: 'group',
        fields: {
          kind: {
            is: 'choice',
            options: (Object.keys(SUPPLY_KINDS) as SupplyKind[]).map((value) => ({
              value,
              label: SUPPLY_KINDS[value].name,
            })) as never,
          },
          size: { is: 'text', most: 40, optional: true },
          amount: { is: 'number', least: 0, most: 10_000 },
        },
      },
    },
  },
  flow: {},
  begin: () => ({}),
  run: passThrough,
  needs: ({ fixings = [] }) =>
    fixings.map(({ kind, size, amount }) => ({ what: 'supply', kind, amount, ...(size ? { size } : {}) })),
  operations: ({ what, fixings = [], hands }) => [
    {
      say: [what ? `${what.replace(/\.$/, '')}.` : 'Put it together and fit it.'],
      ...(hands ? { dial: { name: 'hands', value: { count: hands } } } : {}),
    },
    ...fixings.map(({ kind, size, amount }) => ({
      say: [`Set ${SUPPLY_KINDS[kind].name.toLowerCase()}${size ? `, ${size}` : ''}.`],
      dial: { name: 'in all', value: { count: amount } },
    })),
  ],
  labour: { setUp: 0, each: 0, fixed: ({ minutes }) => minutes ?? ASSEMBLE_MIN },
  caution:
    'A heavy piece is lifted by two. A screw driven into thin wood splits it: bore first. The maker’s instructions of the hardware come first.',
};

declare module '../../document/step' {
  interface StepKinds {
    assemble: AssembleStep;
  }
}
