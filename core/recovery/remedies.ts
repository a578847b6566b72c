import {
  type BuildDocument,
  type Edit,
  type DimensionName,
  makerOf,
  makersOf,
  type Phrase,
} from '../document';
import { edgeAnew } from '../edit';
import { limitOf, machinesThat } from '../kit';
import { accentWood, compareTarget, LEAST_ACCENT_MM } from '../review';
import { extents } from '../solid';
import {
  asGlueUp,
  assemblyOf,
  greatestSize,
  heldBack,
  leastSize,
  lengthForSlices,
  machineOfStep,
  ripOf,
  sparesOf,
  type Timeline,
} from '../steps';
import { counted, roundDownToStep, roundUpToStep } from '../units';
import { cutApart } from './apart';
import type { Remedy, Trouble } from './trouble';

const pieces = ({ told }: Trouble): string[] => told.pieces ?? [];
/** How many lie in the lay-up of those that were struck. */
const laidOf = ({ where, told }: Trouble): string[] => {
  const { into } = where;
  const laid = new Set(
    into && where.timeline.steps.find(({ id }) => id === into.id)?.laid?.map((e) => e.piece),
  );
  const all = into?.parts ? new Set(into.parts.map(({ piece }) => piece)) : laid;
  return (told.pieces ?? []).filter((piece) => all.has(piece));
};

/** What a new panel may be shorter than the first one: as long as its slices need, as long as its machines want, or not at all. */
function lengths(
  trouble: Trouble,
): { shorterMm: number; needMm: number; panelMm: number; leastMm: number }[] {
  const { build, timeline, slice } = trouble.where;
  if (!slice) return [{ shorterMm: 0, needMm: 0, panelMm: 0, leastMm: 0 }];
  const entered = timeline.steps.find(({ id }) => id === slice.id)?.entered ?? [];
  const panelMm = leastSize(entered, 'length');
  const kerf = build.shop.saws.find(({ id }) => id === slice.saw)?.kerf.mm ?? 0;
  const needMm = lengthForSlices(pieces(trouble).length, slice, kerf) + (heldBack(slice) > 0 ? 0 : kerf);
  const leastMm = Math.max(
    0,
    ...[...makersOf(build, slice.inputs[0] ?? '')].map((step) => {
      const machine = machineOfStep(step, build);
      return machine ? limitOf(machine, 'minLength') : 0;
    }),
  );
  return [...new Set([needMm, Math.max(needMm, leastMm), panelMm])]
    .map((mm) => roundDownToStep(panelMm - mm, build.shop.settingStep.mm))
    .filter((shorterMm) => shorterMm >= 0)
    .map((shorterMm) => ({ shorterMm, needMm, panelMm: panelMm - shorterMm, leastMm }));
}

const again =
  (spread: boolean): Remedy =>
  (trouble) => {
    const { into, made } = trouble.where;
    const struck = pieces(trouble);
    if (!into || struck.length === 0 || (spread && made !== 'slices')) return [];
    const edit = (shorterMm: number): Edit => ({
      do: 'makeAgain',
      into: into.id,
      pieces: struck,
      ...(spread ? { spread: true } : {}),
      ...(shorterMm > 0 ? { shorterMm } : {}),
    });
    if (made !== 'slices') {
      const many = struck.length > 1;
      return [
        {
          label: [many ? `Make ${counted(struck.length, 'new strip')}` : 'Make a new strip'],
          says: [
            `${many ? 'They go' : 'It goes'} through the same steps, and ${many ? 'lie' : 'lies'} in the place of the old.`,
          ],
          edits: [edit(0)],
        },
      ];
    }
    return lengths(trouble).map(({ shorterMm, needMm, panelMm, leastMm }) => ({
      label: spread
        ? ['One more panel, its slices spread among the others']
        : ['One more panel, its slices in the gaps'],
      says: [
        'The panel is ',
        { mm: panelMm },
        ` long. ${counted(struck.length, 'slice')} of it ${struck.length === 1 ? 'takes' : 'take'} `,
        { mm: needMm },
        ...(leastMm > needMm && panelMm > needMm + 1e-6
          ? [
              '; its machines take nothing shorter than ',
              { mm: leastMm },
              '. With runners glued along its edges it may be shorter',
            ]
          : []),
        spread ? '. A difference in colour spreads over the whole board.' : '.',
      ],
      edits: [edit(shorterMm)],
    }));
  };

/** What the first piece wanted lacks of a dimension, mm; nothing where it is as asked. */
const lackOf = (build: BuildDocument, timeline: Timeline, dimension: DimensionName): number => {
  const row = compareTarget(build, timeline)?.find((each) => each.dimension === dimension);
  return row && !row.fits ? -row.differenceMm : 0;
};

/** A strip of another wood as wide as what the finished piece lacks. */
const accent: Remedy = ({ where, struck, timeline, told }) => {
  const { into } = where;
  const along = into?.along;
  if (!into || !along || along === 'thickness' || into.rows) return [];
  const lacks = lackOf(struck, timeline, along);
  const entry = timeline.steps.find(({ id }) => id === into.id);
  if (!entry || lacks < LEAST_ACCENT_MM) return [];
  const [length, width, thickness] = entry.greatest;
  // A strip of the lay-up goes through all that the others go through, and loses what they lose.
  const like = assemblyOf(struck, into.id)?.slots.find(({ id }) => told.pieces?.includes(id));
  const lies = where.timeline.steps
    .find(({ id }) => id === into.id)
    ?.entered.find(({ id }) => id === like?.id)?.blank;
  const goes = like && lies && where.made === 'strips' ? like.width.mm - extents(lies)[1] : 0;
  return [
    {
      label: ['An accent strip of ', { mm: lacks }, ' in its place'],
      says: ['Another wood fills what is missing, and is meant to be seen.'],
      edits: [
        {
          do: 'addAccent',
          step: into.id,
          accent: {
            mm: lacks + goes,
            species: accentWood(struck),
            length: like?.length.mm ?? (along === 'length' ? width : length),
            thickness: like?.thickness.mm ?? thickness,
          },
        },
      ],
    },
  ];
};

const WAYS = {
  spare: (trouble) => {
    const { into } = trouble.where;
    const laid = laidOf(trouble);
    if (!into || laid.length === 0) return [];
    const spares = sparesOf(trouble.struck, { ...into, parts: into.parts ?? undefined }).filter(
      (piece) => !pieces(trouble).includes(piece),
    );
    if (!into.parts || spares.length < laid.length) return [];
    return [
      {
        label: [laid.length > 1 ? 'Lay in spares' : 'Lay in a spare'],
        says: [
          `${counted(spares.length, 'spare')} ${spares.length === 1 ? 'lies' : 'lie'} ready: no wood, no wait.`,
        ],
        edits: laid.map((piece): Edit => ({ do: 'swapSpare', step: into.id, piece })),
      },
    ];
  },
  moreSlices: (trouble) => {
    const { into, slice, timeline } = trouble.where;
    const laid = laidOf(trouble);
    const entered = timeline.steps.find(({ id }) => id === slice?.id)?.entered.length ?? 0;
    if (!into || !slice || laid.length === 0 || entered === 0) return [];
    return [
      {
        label: [
          `Cut ${counted(Math.ceil(laid.length / entered) * entered, 'more slice')} from what is left of the panel`,
        ],
        says: ['The rest of the panel is long enough, and nothing new is glued.'],
        whole: true,
        edits: [{ do: 'addRows', step: into.id, rows: laid.length }],
      },
    ];
  },
  spread: again(true),
  again: again(false),
  wider: ({ where, told, struck, timeline, open }) => {
    const { into, step, build } = where;
    const rip = into && ripOf(build, into.id);
    // Strips that are cut do not grow: only while they are being ripped.
    if (!into || !rip || !open || step.id !== rip.id) return [];
    if (into.along !== 'width') return [];
    const gone = new Set(told.pieces);
    const others = (assemblyOf(build, rip.id)?.slots ?? []).filter(
      ({ id, strip }) => !gone.has(id) && !strip?.at,
    );
    const lacks = lackOf(struck, timeline, 'width');
    if (others.length === 0 || !(lacks > 0)) return [];
    const each = roundUpToStep(lacks / others.length, build.shop.settingStep.mm);
    return [
      {
        label: ['Rip the other strips wider by ', { mm: each }],
        says: [`${counted(others.length, 'strip')} take up what is missing, if they are not ripped yet.`],
        edits: others.map(
          ({ id, width }): Edit => ({
            do: 'setSlot',
            step: rip.id,
            strip: id,
            change: { width: { mm: width.mm + each } },
          }),
        ),
      },
    ];
  },
  accent,
  cutAccent: cutApart(
    'Cut the bad band out and glue again',
    'The band is cut out and the edges are jointed.',
    true,
  ),
  cutAway: cutApart(
    'Cut the bad band out, a smaller piece',
    'The band is cut out and the edges are jointed.',
    false,
  ),
  reglue: cutApart(
    'Cut the joint open and glue it again',
    'Glue does not hold on glue: the joint is sawn out and jointed.',
    false,
  ),
  reglueAccent: cutApart(
    'Cut the joint open and glue it again',
    'Glue does not hold on glue: the joint is sawn out and jointed.',
    true,
  ),
  scrapeAgain: ({ where }) => {
    const glue = asGlueUp(where.step);
    const { build } = where;
    const input = glue?.inputs.length === 1 ? makerOf(build, glue.inputs[0]) : undefined;
    const edgeMm = edgeAnew(build, 'width');
    if (!glue || !input || glue.along !== 'width' || glue.rows || edgeMm <= 0) return [];
    return [
      {
        label: ['Take it apart, scrape it, joint the edges and glue it again'],
        says: ['Each edge loses ', { mm: edgeMm }, ': glue does not hold on skinned glue.'],
        edits: [
          {
            do: 'addStep',
            kind: 'joint',
            after: input.id,
            before: glue.id,
            settings: {
              name: 'Scrape and joint the edges again',
              machine: machinesThat(build.shop, 'joint')[0]?.id ?? '',
              near: { mm: edgeMm },
              far: { mm: edgeMm },
            },
          },
        ],
      },
    ];
  },
  plug: ({ told, where }) => {
    const thick = greatestSize(where.entry.pieces, 'thickness');
    if (!told.wide || thick === 0) return [];
    const deep = told.measured?.mm ?? thick;
    return [
      {
        label: ['Plug it with the same wood'],
        says: [
          'A plug of ',
          told.wide,
          ' by ',
          { mm: deep },
          ' deep is glued in and planed flush; it stays to be seen.',
        ],
        edits: [
          {
            do: 'addStep',
            kind: 'fill',
            after: where.step.id,
            settings: {
              name: 'Plug what was cut wrong',
              with: 'plug',
              voids: [
                {
                  shape: 'round',
                  length: told.wide,
                  width: told.wide,
                  depth: { mm: Math.min(deep, thick) },
                  count: Math.max(1, told.pieces?.length ?? 1),
                },
              ],
            },
          },
        ],
      },
    ];
  },
  accept: ({ struck, timeline }) => {
    const missed = struck.targets.flatMap((target) =>
      (compareTarget(struck, timeline, target) ?? [])
        .filter(({ fits }) => !fits)
        .map((row) => ({ target, row })),
    );
    if (missed.length === 0) return [];
    return [
      {
        label: [
          'Go on as it is, with a ',
          missed.some(({ row }) => row.dimension === 'thickness') ? 'thinner' : 'smaller',
          ' piece: ',
          ...missed.flatMap(({ row }, i): Phrase[] => [
            ...(i > 0 ? [', '] : []),
            { mm: row.predictedMm },
            ` ${{ length: 'long', width: 'wide', thickness: 'thick' }[row.dimension]}`,
          ]),
        ],
        says: ['Nothing is made again; from now on the piece is to be so large.'],
        edits: missed.map(
          ({ target, row }): Edit => ({
            do: 'setAim',
            dimension: row.dimension,
            aim: { aim: 'fixed', value: { mm: row.predictedMm } },
            target: target.id,
          }),
        ),
      },
    ];
  },
  startAgain: ({ where }) => [
    {
      label: ['Make it all again from new wood'],
      says: ['All that was done for this is done once more; the old is left over.'],
      edits: [{ do: 'startAgain', step: where.step.id }],
    },
  ],
} satisfies Record<string, Remedy>;
export type RemedyName = keyof typeof WAYS;
/** What can be done, each by its name. */
export const REMEDIES: Record<RemedyName, Remedy> = WAYS;
