import { FINISH_KINDS, FINISH_LIST, FINISH_USES, middleOf, type Need } from '../../kit';
import { counted } from '../../units';
import type { FacePlace } from '../faces';
import { passThrough, type StepRoom } from '../room';
import {
  amountOf,
  COAT_MIN,
  coatsOn,
  cureDaysOf,
  dryHours,
  finishOf,
  type FinishStep,
  lossOf,
  mostCoats,
  standsWhat,
} from './amounts';
import { finishFacts, finishFindings } from './report';

const PLACE_COATS = 'Coats place by place';
const placeField = (place: FacePlace, name: string) => ({
  is: 'number' as const,
  least: 0,
  most: 50,
  label: `Coats, ${name.toLowerCase()}`,
  usual: (step: FinishStep) => coatsOn(step, place),
  card: { least: 0, most: 50, whole: true as const },
  group: PLACE_COATS,
  optional: true as const,
  carried: true as const,
});

/** The room of finishing. */
export const finish: StepRoom<FinishStep> = {
  kind: 'finish',
  name: 'Finish',
  group: 'Surface',
  says: 'Puts on coats and lets each dry.',
  subtitle: (step) =>
    [finishOf(step)?.name, counted(mostCoats(step), 'coat')].filter(Boolean).join(', ').toLowerCase(),
  fields: {
    finish: {
      is: 'choice',
      label: 'Finish',
      options: [
        { value: 'unsaid', label: 'Not said yet' },
        ...FINISH_LIST.map(([value, { name }]) => ({ value, label: name })),
      ] as never,
      optional: true,
      carried: true,
    },
    use: {
      is: 'choice',
      label: 'It must stand',
      options: [
        { value: 'unsaid', label: 'Not said yet' },
        ...FINISH_USES.map(({ value, label }) => ({ value, label })),
      ] as never,
      when: (step) => finishOf(step) !== undefined,
      optional: true,
      carried: true,
    },
    coats: {
      is: 'number',
      least: 0,
      most: 50,
      label: 'Coats',
      usual: 1,
      card: { least: 1, most: 50, whole: true },
      optional: true,
      carried: true,
    },
    hours: {
      is: 'number',
      least: 0,
      most: 8784,
      usual: (step: FinishStep) => dryHours(step),
      label: 'Hours each coat dries',
      optional: true,
      carried: true,
    },
    cureDays: {
      is: 'number',
      least: 0,
      most: 120,
      usual: (step: FinishStep) => cureDaysOf(step),
      label: 'Days until it may be used',
      optional: true,
      carried: true,
    },
    lossPct: {
      is: 'number',
      least: 0,
      most: 90,
      usual: (step: FinishStep) => lossOf(step),
      label: 'Lost on rag or brush, %',
      when: (step) => finishOf(step) !== undefined,
      optional: true,
      carried: true,
    },
    upper: placeField('upper', 'Upper face'),
    lower: placeField('lower', 'Lower face'),
    edges: placeField('edges', 'Edges'),
    ends: placeField('ends', 'Ends'),
  },
  flow: { waits: true },
  begin: ({ build }) => {
    const use = standsWhat({} as FinishStep, build);
    const kind = FINISH_LIST.find(([, { uses }]) => use !== undefined && uses.includes(use))?.[0];
    return kind
      ? {
          finish: kind,
          ...(use ? { use } : {}),
          coats: FINISH_KINDS[kind].coats,
          hours: middleOf(FINISH_KINDS[kind].recoatH),
        }
      : { finish: 'unsaid' };
  },
  needs: (step, { pieces }): Need[] => {
    const known = finishOf(step);
    return [
      known
        ? { what: 'supply', kind: 'finish', size: known.name, amount: Math.ceil(amountOf(step, pieces)) }
        : { what: 'supply', kind: 'finish' },
    ];
  },
  run: passThrough,
  facts: finishFacts,
  findings: finishFindings,
  keepsOutline: true,
  operations: (step) =>
    Array.from({ length: mostCoats(step) }, (_, i) => ({
      say: [`Put on coat ${i + 1} of ${mostCoats(step)}, thin and even.`],
      dial: { name: 'dries', value: { minutes: dryHours(step) * 60 } },
    })),
  labour: {
    setUp: 0,
    each: 0,
    fixed: (step) => COAT_MIN * mostCoats(step),
    rounds: (step) =>
      Array.from({ length: mostCoats(step) }, (_, i) => ({
        of: 'coat' as const,
        words: `coat ${i + 1}`,
        minutes: COAT_MIN,
        hours: dryHours(step),
      })),
    waits: (step) => {
      const days = cureDaysOf(step);
      return days > 0 ? [{ of: 'cure', words: 'hardens right through', hours: days * 24 }] : [];
    },
  },
  caution:
    'Rags soaked in oil can catch fire by themselves: spread them out or keep them under water. The label comes first.',
};

declare module '../../document/step' {
  interface StepKinds {
    finish: FinishStep;
  }
}
