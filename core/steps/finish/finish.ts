import type { BuildDocument, Finding, Phrase, StepBase } from '../../document';
import {
  END_GRAIN_DRINKS,
  FINISH_KINDS,
  FINISH_LIST,
  FINISH_USES,
  type FinishFacts,
  type FinishKind,
  type FinishUse,
  middleOf,
  type Need,
} from '../../kit';
import { counted } from '../../units';
import { findSpecies, isSolid, speciesName } from '../../wood';
import type { Fact, Played } from '../fact';
import { FACE_PLACES, faceAreas, type FacePlace } from '../faces';
import { passThrough, type StepRoom } from '../room';
import type { WorkPiece } from '../timeline';

/** Puts on coats and lets each dry. */
export interface FinishStep extends StepBase {
  kind: 'finish';
  finish?: FinishKind | 'unsaid';
  /** What the piece must stand. */
  use?: FinishUse | 'unsaid';
  hours?: number;
  /** Coats where nothing else is said of a place. */
  coats?: number;
  upper?: number;
  lower?: number;
  edges?: number;
  ends?: number;
  /** What is lost on rag, brush or gun, %. */
  lossPct?: number;
  cureDays?: number;
}

/** Minutes to put on a coat and hours it dries, rough guesses (common practice). */
const COAT_MIN = 20;
const COAT_WAIT_H = 12;

/** What is known of the finish of a step; undefined where nobody said which. */
export const finishOf = ({ finish }: Pick<FinishStep, 'finish'>): FinishFacts | undefined =>
  finish && finish !== 'unsaid' ? FINISH_KINDS[finish] : undefined;

/** Coats on a place. */
export const coatsOn = (step: FinishStep, place: FacePlace): number =>
  step[place] ?? Math.max(1, step.coats ?? 1);
const mostCoats = (step: FinishStep): number =>
  Math.max(1, ...FACE_PLACES.map(({ place }) => coatsOn(step, place)));
/** Hours each coat dries: as set, else the middle of what its finish needs. */
export const dryHours = (step: FinishStep): number => {
  const facts = finishOf(step);
  return step.hours ?? (facts ? middleOf(facts.recoatH) : COAT_WAIT_H);
};
const cureDaysOf = (step: FinishStep): number =>
  step.cureDays ?? Math.ceil(middleOf(finishOf(step)?.cureDays ?? [0, 0]));
const lossOf = (step: FinishStep): number => step.lossPct ?? finishOf(step)?.lossPct ?? 0;

/** One place of the pieces with what goes on it. */
export interface FinishRow {
  place: FacePlace;
  name: string;
  mm2: number;
  coats: number;
  endGrain: number;
  /** With what is lost, ml. */
  ml: number;
}

/** What goes on every place of pieces, ml: area by coats over what a litre covers, end grain for as much as it drinks, and the loss. */
export function finishRows(step: FinishStep, pieces: readonly WorkPiece[]): FinishRow[] {
  const facts = finishOf(step);
  const areas = faceAreas(pieces);
  return FACE_PLACES.map(({ place, name }) => {
    const { mm2, endGrain } = areas[place];
    const coats = coatsOn(step, place);
    if (!facts) return { place, name, mm2, coats, endGrain, ml: 0 };
    const { times, every } = END_GRAIN_DRINKS[facts.goes];
    // The first coat drinks; a film drinks only then.
    const thirsty = every ? coats : Math.min(1, coats);
    const layers = coats + thirsty * (times - 1) * endGrain;
    const ml = ((mm2 / 1e6) * layers * 1000 * (1 + lossOf(step) / 100)) / middleOf(facts.m2PerL);
    return { place, name, mm2, coats, endGrain, ml };
  });
}

const amountOf = (step: FinishStep, pieces: readonly WorkPiece[]): number =>
  finishRows(step, pieces).reduce((sum, { ml }) => sum + ml, 0);

/** What a piece must stand: as set, else what the job says of it, else worn. */
export function standsWhat(
  { use }: FinishStep,
  { uses = [] }: Pick<BuildDocument, 'uses'>,
): FinishUse | undefined {
  if (use && use !== 'unsaid') return use;
  return uses.includes('outdoors')
    ? 'outdoors'
    : uses.includes('food')
      ? 'served'
      : uses.includes('wet')
        ? 'wet'
        : undefined;
}

const wordsFor = (use: FinishUse): string =>
  FINISH_USES.find(({ value }) => value === use)?.label.toLowerCase() ?? '';

/** Faces alike within this, or one drinks and dries slower than the other and the piece bends: findings from 2 : 1 on. */
const UNEVEN = 2;

function facts(step: FinishStep, { entry }: Played): Fact[] {
  const known = finishOf(step);
  const rows = finishRows(step, entry.pieces);
  const all = rows.reduce((sum, { mm2 }) => sum + mm2, 0);
  const ml = rows.reduce((sum, row) => sum + row.ml, 0);
  return [
    ...rows.map(
      ({ name, mm2, coats, endGrain, ml: own }): Fact => ({
        name,
        says: [
          { mm2 },
          `, ${counted(coats, 'coat')}`,
          ...(known ? ([', ', { ml: own }] as Phrase[]) : []),
          endGrain > 0.5 ? ', end grain drinks more' : '',
        ],
      }),
    ),
    { name: 'All round', says: [{ mm2: all }] },
    ...(known
      ? ([
          {
            name: 'Finish in all',
            says: [{ ml }, `, ${lossOf(step)} % of it for rag, brush and pot`],
          },
          {
            name: 'Hardened right through',
            says: [
              known.cureDays[1] === 0
                ? 'never: it stays oil, and is renewed when it looks dry'
                : `after ${known.cureDays[0]} to ${known.cureDays[1]} days${known.food === 'cured' ? '; no food before' : ''}`,
            ],
          },
          {
            name: 'Room to dry, lying',
            says: [
              { mm2: entry.pieces.length > 0 ? rows[0].mm2 : 0 },
              `, ${counted(entry.pieces.length, 'piece')}, air all round`,
            ],
          },
          ...cautions(known).map((says): Fact => ({ name: 'Mind', says: [says] })),
        ] satisfies Fact[])
      : []),
  ];
}

const cautions = ({ heats, solvent, goes }: FinishFacts): string[] => [
  ...(heats
    ? ['rags heat by themselves: spread them out outdoors, or keep them under water in a closed tin']
    : []),
  ...(solvent ? ['solvent: air through the room, no flame; gloves'] : []),
  ...(goes === 'poured' ? ['gloves and long sleeves: epoxy makes skin allergic for good'] : []),
];

const change = (step: FinishStep, own: Record<string, unknown>) => ({
  do: 'setStep' as const,
  step: step.id,
  change: own,
});

/** Settings of another finish, with its own waits and coats. */
const withFinish = (step: FinishStep, finish: FinishKind): Record<string, unknown> => ({
  finish,
  coats: Math.max(step.coats ?? 1, FINISH_KINDS[finish].coats),
  hours: middleOf(FINISH_KINDS[finish].recoatH),
  cureDays: Math.ceil(middleOf(FINISH_KINDS[finish].cureDays)),
  lossPct: undefined,
});

function findings(step: FinishStep, { build, entry }: Played): Finding[] {
  const out: Finding[] = [];
  const [above, below] = [coatsOn(step, 'upper'), coatsOn(step, 'lower')];
  const [more, less] = [Math.max(above, below), Math.min(above, below)];
  const add = (finding: Omit<Finding, 'step'>) => out.push({ step: step.id, ...finding });
  if (more >= UNEVEN * Math.max(less, 0) && more > less)
    add({
      code: 'finish-one-sided',
      severity: 'warning',
      message: [
        `${counted(above, 'coat')} above and ${counted(below, 'coat')} below: moisture passes the two faces at different rates, and a wide piece bends. From 2 to 1 on it shows; finish both faces alike.`,
      ],
      numbers: { above, below, ratio: less > 0 ? more / less : more },
      fixes: [
        { label: `As many coats on both faces: ${more}`, edit: change(step, { upper: more, lower: more }) },
      ],
    });
  if (dryHours(step) <= 0 && mostCoats(step) > 1)
    add({
      code: 'finish-no-wait',
      severity: 'warning',
      message: [
        `${counted(mostCoats(step), 'coat')} without a wait between them: the one below stays soft and wrinkles.`,
      ],
      numbers: { coats: mostCoats(step), hours: dryHours(step) },
      fixes: [
        {
          label: 'Let each dry as long as is usual',
          edit: change(step, {
            hours: finishOf(step) ? middleOf(finishOf(step)?.recoatH ?? [0, 0]) : COAT_WAIT_H,
          }),
        },
      ],
    });
  const known = finishOf(step);
  const use = standsWhat(step, build);
  if (!known) return out;
  const instead = (ok: (each: FinishFacts) => boolean) =>
    FINISH_LIST.filter(([, each]) => ok(each))
      .slice(0, 3)
      .map(([kind, { name }]) => ({
        label: `Use ${name.toLowerCase()}`,
        edit: change(step, withFinish(step, kind)),
      }));
  const food = use !== undefined && FINISH_USES.some(({ value, food: eaten }) => value === use && eaten);
  if (use && food && known.food === 'no')
    add({
      code: 'finish-not-food',
      severity: 'warning',
      message: [
        `${known.name} is not for food (${wordsFor(use)}): it holds driers or solvents that no label clears. 0 of its kinds are known to be fit for it.`,
      ],
      numbers: { fit: 0 },
      fixes: instead((each) => each.food !== 'no' && each.uses.includes(use)),
    });
  else if (use && !known.uses.includes(use))
    add({
      code: 'finish-unsuited',
      severity: 'warning',
      message: [
        `${known.name} does not stand this: ${wordsFor(use)}. ${
          use === 'cut'
            ? 'A film chips under a knife.'
            : use === 'outdoors'
              ? 'Sun and water lift it.'
              : 'It wears through or takes stains.'
        }`,
      ],
      numbers: { suited: known.uses.length },
      fixes: instead((each) => each.uses.includes(use)),
    });
  return [...out, ...woodFindings(step, known, entry.pieces)];
}

/** Woods whose tannin turns black with water and iron (common practice). */
const TANNIN = /^(oak|walnut|chestnut|cherry|mahogany|locust)/;

function woodFindings(step: FinishStep, known: FinishFacts, pieces: readonly WorkPiece[]): Finding[] {
  const woods = [
    ...new Set(pieces.flatMap(({ blank }) => blank.cells.map(({ origin }) => origin.species))),
  ].filter(isSolid);
  const oily = woods.filter((id) => findSpecies(id)?.easeOfBonding?.includes('difficult'));
  const tannin = woods.filter((id) => TANNIN.test(id));
  const note = (words: string, list: readonly string[]): Finding => ({
    code: 'finish-and-wood',
    step: step.id,
    severity: 'note',
    message: [`${list.map(speciesName).join(', ')}: ${words}`],
    numbers: { woods: list.length },
    fixes: [],
  });
  return [
    ...(oily.length > 0 && known.goes !== 'soaks'
      ? [
          note(
            'its oil keeps a film from hardening. Wipe it with solvent just before, and try it on an offcut.',
            oily,
          ),
        ]
      : []),
    ...(tannin.length > 0 && known.water
      ? [
          note(
            'its tannin stains black where water meets iron. No steel wool, and raise the grain first.',
            tannin,
          ),
        ]
      : []),
  ];
}

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
  facts,
  findings,
  keepsOutline: true,
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

declare module '../../document/finding' {
  interface FindingCodes {
    /** Twice as many coats on one face as on the other, or more. */
    'finish-one-sided': true;
    /** Coats without a wait between them. */
    'finish-no-wait': true;
    /** A finish that is not for food, on a piece that food touches. */
    'finish-not-food': true;
    /** A finish that does not stand what the piece must. */
    'finish-unsuited': true;
    /** A wood whose oil or tannin asks for care under this finish. */
    'finish-and-wood': true;
  }
}
