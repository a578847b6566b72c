import type { Finding, Phrase } from '../../document';
import {
  FINISH_KINDS,
  FINISH_LIST,
  FINISH_USES,
  type FinishFacts,
  type FinishKind,
  type FinishUse,
  middleOf,
} from '../../kit';
import { counted, sumOf } from '../../units';
import { findSpecies, isSolid, speciesName } from '../../wood';
import type { Fact, Played } from '../fact';
import type { WorkPiece } from '../timeline';
import {
  COAT_WAIT_H,
  coatsOn,
  dryHours,
  finishOf,
  finishRows,
  type FinishStep,
  lossOf,
  mostCoats,
  standsWhat,
} from './amounts';

const wordsFor = (use: FinishUse): string =>
  FINISH_USES.find(({ value }) => value === use)?.label.toLowerCase() ?? '';

/** Faces alike within this, or one drinks and dries slower than the other and the piece bends: findings from 2 : 1 on. */
const UNEVEN = 2;

/** What a finish comes to: place by place and in all, when it has hardened, and what to mind. */
export function finishFacts(step: FinishStep, { entry }: Played): Fact[] {
  const known = finishOf(step);
  const rows = finishRows(step, entry.pieces);
  const all = sumOf(rows, ({ mm2 }) => mm2);
  const ml = sumOf(rows, (row) => row.ml);
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

/** What of a finish will not do, or asks for care. */
export function finishFindings(step: FinishStep, { build, entry }: Played): Finding[] {
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
        `${known.name} is not for food (${wordsFor(use)}): it holds driers or solvents that no label clears.`,
      ],
      numbers: { hardensDays: known.cureDays[1] },
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
