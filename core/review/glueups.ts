import {
  noiseOf,
  type BuildDocument,
  type Edit,
  type Finding,
  type Fix,
  type Phrase,
  type Step,
} from '../build';
import {
  AID_COVER,
  amountFor,
  bottleFor,
  edgeOf,
  glueUpOf,
  glueUpsOf,
  judgeBottle,
  judgeShelf,
  layAids,
  needsAids,
  NotSolvable,
  planClamps,
  pressureQuickly,
  rehearse,
  strokesFor,
  usesOf,
  type ClampPlan,
  type GlueUp,
} from '../glueup';
import { climateOf, gluingOf, isClimateKnown } from '../kit';
import type { ReviewContext } from './review';

type Findings = (glueUp: GlueUp, plan: ClampPlan, context: ReviewContext) => Finding[];

const planGlue = (
  glueUp: GlueUp,
  label: string,
  change: Extract<Edit, { do: 'planGlue' }>['change'],
): Fix => ({
  label,
  edit: { do: 'planGlue', step: glueUp.step.id, change },
});

const warning = (
  code: string,
  { step }: GlueUp,
  message: Phrase[],
  numbers: Record<string, number>,
  more: Partial<Finding> = {},
): Finding => ({ code, step: step.id, severity: 'warning', message, numbers, fixes: [], ...more });

/** Everything about a glue-up that its maker should know before the bottle is opened. */
export function glueUpFindings(step: Step, context: ReviewContext): Finding[] {
  if (step.kind !== 'glue' || step.done) return [];
  const glueUp = glueUpOf(context.build, context.timeline, step.id);
  if (!glueUp || glueUp.lines.length === 0) return [];
  const plan = planClamps(glueUp, context.build.shop);
  const all: Findings[] = [climateFindings, adhesiveFindings, timeFindings, aidFindings, loadFindings];
  const pressed: Findings[] = [clampFindings, denting, edges, oneSided, openJoints];
  return [...(glueUp.askew ? [] : pressed), ...all].flatMap((check) => check(glueUp, plan, context));
}

const clampFindings: Findings = (glueUp, plan, { build }) => {
  const count = plan.clamps.length * glueUp.blanks;
  if (plan.longestMm === 0)
    return [
      warning(
        'no-clamps',
        glueUp,
        [
          'The kit has no clamps; this glue-up wants ',
          { count },
          ' that open to ',
          { mm: plan.openingMm },
          ' and give ',
          { newtons: plan.neededN },
          ' together.',
        ],
        { count, opening: plan.openingMm, force: plan.neededN },
      ),
    ];
  const bare = glueUp.widthMm;
  const fixes =
    plan.edgeCaulMm > 0 && plan.longestMm >= bare
      ? [planGlue(glueUp, 'Without cauls on the edges', { edgeCaul: { mm: 0 } })]
      : [];
  if (plan.longEnough === 0)
    return [
      warning(
        'clamps-too-short',
        glueUp,
        [
          'The jaws must open to ',
          { mm: plan.openingMm },
          plan.edgeCaulMm > 0
            ? ' with cauls; the longest of the kit open to '
            : '; the longest of the kit open to ',
          { mm: plan.longestMm },
          '.',
        ],
        { opening: plan.openingMm, longest: plan.longestMm },
        { fixes },
      ),
    ];
  if (plan.missing === 0) return [];
  const why =
    plan.governs === 'force'
      ? 'by force'
      : plan.governs === 'spread'
        ? 'to reach everywhere'
        : plan.governs === 'hand'
          ? 'as placed'
          : 'by the largest spacing';
  const cauls = gluingOf(build.shop).cauls.height;
  return [
    warning(
      'too-few-clamps',
      glueUp,
      [
        { count },
        ` clamps are wanted ${why}${glueUp.blanks > 1 ? ` for ${glueUp.blanks} blanks at once` : ''}; `,
        { count: plan.longEnough },
        ' of the kit open to ',
        { mm: plan.openingMm },
        ': ',
        { count: plan.missing },
        glueUp.blanks > 1 ? ' too few; glue them up one after another.' : ' too few.',
      ],
      { wanted: count, longEnough: plan.longEnough, missing: plan.missing },
      {
        fixes:
          plan.edgeCaulMm === 0 && cauls.mm > 0 && plan.cauledCount < plan.bareCount
            ? [planGlue(glueUp, 'Cauls on the edges', { edgeCaul: cauls })]
            : [],
      },
    ),
  ];
};

const denting: Findings = (glueUp, plan, { build }) => {
  const out: Finding[] = [];
  const practice = gluingOf(build.shop);
  const { height } = practice.cauls;
  const caul = height.mm > 0 ? [planGlue(glueUp, 'Cauls on the edges', { edgeCaul: height })] : [];
  if (plan.padMPa > plan.strengthMPa)
    out.push(
      warning(
        'clamps-dent',
        glueUp,
        [
          'Under the hardest clamp the wood gets ',
          { mpa: plan.padMPa },
          '; it dents from ',
          { mpa: plan.strengthMPa },
          ` across the grain${plan.strengthFrom === 'regression' ? ' (from its density)' : ''}.`,
        ],
        { pad: plan.padMPa, strength: plan.strengthMPa },
        { fixes: plan.edgeCaulMm === 0 ? caul : [] },
      ),
    );
  const outer = [glueUp.courses[0], glueUp.courses[glueUp.courses.length - 1]];
  const thin = Math.min(...outer.map(({ from, to }) => to - from));
  if (outer.some(({ grain }) => grain === 'upright') && thin < THIN_END_GRAIN && plan.edgeCaulMm === 0)
    out.push(
      warning(
        'thin-end-grain',
        glueUp,
        ['The outer strips are ', { mm: thin }, ' of end grain: under bare pads they bend and crack.'],
        { thickness: thin, least: THIN_END_GRAIN },
        { fixes: caul },
      ),
    );
  return out;
};
/** End-grain strips thinner than this crack under bare pads, mm (common practice). */
const THIN_END_GRAIN = 40;

const edges: Findings = (glueUp, _plan, { build }) =>
  glueUp.lines.flatMap(({ joint }): Finding[] => {
    const edge = edgeOf(glueUp, joint, build.shop);
    if (edge.shape === 'sprung' && edge.depth.mm <= noiseOf(build.shop))
      return [noHollow(glueUp, joint, edge.depth.mm, build)];
    if (edge.shape !== 'crowned' || edge.depth.mm <= 0) return [];
    const { strokes } = strokesFor(-edge.depth.mm / 2, build.shop);
    return [
      warning(
        'crowned-edge',
        glueUp,
        [
          `Joint ${joint} is crowned: its ends stand open by `,
          { mm: edge.depth.mm },
          '. That is wrong under both schools: ',
          { count: strokes },
          ' strokes in the middle of each edge take it away.',
        ],
        { joint, open: edge.depth.mm, strokes },
        {
          fixes: [
            planGlue(glueUp, `Joint ${joint} is planed as this shop does`, {
              edges: (glueUp.step.plan?.edges ?? []).filter((each) => each.joint !== joint),
            }),
          ],
        },
      ),
    ];
  });

/** An edge marked sprung that is not hollow at all, or bulges: it would open at its ends. */
function noHollow(glueUp: GlueUp, joint: number, depth: number, { shop }: BuildDocument): Finding {
  const others = (glueUp.step.plan?.edges ?? []).filter((each) => each.joint !== joint);
  const { hollow } = gluingOf(shop);
  return warning(
    'sprung-without-hollow',
    glueUp,
    [
      `Joint ${joint} is marked as sprung, and `,
      ...(depth < 0 ? ['its middle stands out by ', { mm: -depth }] : ['there is no gap between its edges']),
      '. A sprung joint is hollow in the middle: here it is ',
      { mm: hollow.mm },
      ' for both edges.',
    ],
    { joint, open: depth, hollow: hollow.mm },
    {
      fixes: [
        planGlue(glueUp, `Joint ${joint} is hollow by this shop’s gap`, {
          edges: [...others, { joint, shape: 'sprung', depth: hollow }],
        }),
        planGlue(glueUp, `Joint ${joint} is straight`, {
          edges: [...others, { joint, shape: 'straight', depth: { mm: 0 } }],
        }),
      ],
    },
  );
}

/** Clamps put by hand, all on one face: they bow the piece towards them. */
const oneSided: Findings = (glueUp, plan, { build }) => {
  const practice = gluingOf(build.shop);
  const placed = glueUp.step.plan?.clamps ?? [];
  if (!plan.byHand || placed.length < 3 || plan.crossCauls.pairs > 0 || practice.faces === 'oneSide')
    return [];
  const above = placed.filter(({ side }) => side === 'above').length;
  if (above !== 0 && above !== placed.length) return [];
  const side = above > 0 ? 'above' : 'below';
  return [
    warning(
      'clamps-one-side',
      glueUp,
      [
        `All `,
        { count: placed.length },
        ` clamps lie ${side}: they bow the piece towards them. This shop puts them above and below in turn.`,
      ],
      { clamps: placed.length, above },
      {
        fixes: [
          planGlue(glueUp, 'Every other one to the other face', {
            clamps: placed
              .toSorted((a, b) => a.at.mm - b.at.mm)
              .map((clamp, i) => ({ ...clamp, side: i % 2 ? 'below' : 'above' })),
          }),
        ],
      },
    ),
  ];
};

/** Stacks of more courses are not pressed here: the quick model slows down with their square. */
const MOST_PRESSED = 14;

/** What the joints get; nothing where no elastic answer can be had, as with sizes no clamp was made for. */
function pressedJoints(glueUp: GlueUp, plan: ClampPlan, { shop }: BuildDocument) {
  try {
    return pressureQuickly(glueUp, plan, shop).joints;
  } catch (error) {
    if (error instanceof NotSolvable) return [];
    throw error;
  }
}

/** A joint that stays open somewhere under these clamps. */
const openJoints: Findings = (glueUp, plan, { build }) => {
  if (glueUp.courses.length > MOST_PRESSED || plan.clamps.length === 0 || plan.longestMm === 0) return [];
  const joints = pressedJoints(glueUp, plan, build);
  const open = joints.filter(({ openMm }) => openMm > LEAST_OPEN);
  if (open.length === 0) return [];
  const worst = open.reduce((a, b) => (b.openMm > a.openMm ? b : a));
  return [
    warning(
      'joint-open',
      glueUp,
      [
        `Joint ${worst.joint} stays open for `,
        { mm: worst.openMm },
        ` of its length under these clamps${open.length > 1 ? `, and ${open.length - 1} more with it` : ''}.`,
      ],
      { joint: worst.joint, open: worst.openMm, joints: open.length },
      {
        fixes: [
          ...(plan.byHand ? [planGlue(glueUp, 'Let Junta place the clamps', { clamps: undefined })] : []),
          ...(plan.school !== 'fan'
            ? [planGlue(glueUp, 'Space the clamps by 45 degrees', { school: 'fan', clamps: undefined })]
            : []),
          ...(plan.edgeCaulMm === 0
            ? [planGlue(glueUp, 'Cauls on the edges', { edgeCaul: gluingOf(build.shop).cauls.height })]
            : []),
          ...(glueUp.step.plan?.edges?.length
            ? [planGlue(glueUp, 'Plane the edges as this shop does', { edges: [] })]
            : []),
        ],
      },
    ),
  ];
};
/** An opening shorter than this is the end of a cell of the model, mm. */
const LEAST_OPEN = 20;

const climateFindings: Findings = (glueUp, _plan, { build }) => {
  const { temperatureC, humidityPct } = climateOf(build.shop);
  if (isClimateKnown({ temperatureC, humidityPct })) return [];
  return [
    warning(
      'climate-unknown',
      glueUp,
      [
        'The shop’s air, ',
        { celsius: temperatureC },
        ` and ${humidityPct} %, lies outside what glue and wood are known for.`,
      ],
      { temperature: temperatureC, humidity: humidityPct },
    ),
  ];
};

const adhesiveFindings: Findings = (glueUp, plan, { build, timeline, today }) => {
  const { shop } = build;
  const bottle = bottleFor(glueUp, shop);
  if (!bottle)
    return [warning('no-adhesive', glueUp, ['The shelf has no glue: enter one in the Kit.'], { bottles: 0 })];
  const { uses, guessed } = usesOf(build, glueUpsOf(build, timeline));
  const day = today ?? '';
  const used = rehearse(glueUp, plan, layAids(build, timeline, glueUp), shop).closedUsedMin;
  const judged = judgeBottle(bottle, uses, shop, 0, day);
  const better = judgeShelf(uses, shop, used, day).find(({ against }) => against.length === 0);
  const fixes = better ? [planGlue(glueUp, `Use ${better.bottle.name}`, { adhesive: better.bottle.id })] : [];
  const out = judged.against.map((words) =>
    warning(
      'adhesive-unsuited',
      glueUp,
      [
        `${bottle.name}: `,
        ...words,
        ...(guessed && uses.length > 0
          ? [' (What it must stand is guessed from the job’s words and woods.)']
          : []),
      ],
      { temperature: climateOf(shop).temperatureC, least: judged.facts.leastC },
      { fixes },
    ),
  );
  const amount = amountFor(glueUp, judged.facts, shop);
  if (bottle.leftG !== undefined && bottle.leftG < amount.toTakeG)
    out.push(
      warning(
        'glue-short',
        glueUp,
        [
          `${bottle.name}: `,
          { grams: bottle.leftG },
          ' are left; this glue-up takes ',
          { grams: amount.toTakeG },
          '.',
        ],
        { left: bottle.leftG, wanted: amount.toTakeG },
      ),
    );
  return out;
};

const timeFindings: Findings = (glueUp, plan, { build, timeline }) => {
  const rehearsal = rehearse(glueUp, plan, layAids(build, timeline, glueUp), build.shop);
  if (rehearsal.fits || !rehearsal.times) return [];
  const open = rehearsal.openShare > rehearsal.closedShare;
  const [used, has] = open
    ? [rehearsal.openUsedMin, rehearsal.times.openMin]
    : [rehearsal.closedUsedMin, rehearsal.times.closedMin];
  const fixes = rehearsal.ways.flatMap((way): Fix[] => {
    const label = `${way.words}: ${Math.round(way.share * 100)} % of the time`;
    if (way.kind === 'hands') return [planGlue(glueUp, label, { hands: 2 })];
    if (way.kind === 'applicator') return [planGlue(glueUp, label, { applicator: way.applicator })];
    if (way.kind === 'adhesive') return [planGlue(glueUp, `Use ${label}`, { adhesive: way.adhesive })];
    return [];
  });
  return [
    warning(
      'slower-than-glue',
      glueUp,
      [
        `${glueUp.lines.length} joints: from spreading to the ${open ? 'closed joint' : 'last clamp'} this shop takes `,
        { minutes: used },
        '; the glue gives ',
        { minutes: has },
        ` at the shop’s air (${Math.round((100 * used) / has)} %).`,
      ],
      { used, has, joints: glueUp.lines.length },
      { fixes: fixes.slice(0, 4) },
    ),
  ];
};

const aidFindings: Findings = (glueUp, _plan, { build, timeline }) => {
  const layout = layAids(build, timeline, glueUp);
  const out: Finding[] = [];
  const need = needsAids(glueUp, build.shop);
  if (need && layout.kind === 'none')
    out.push(
      warning(
        'aids-needed',
        glueUp,
        [
          'Joined it is ',
          { mm: need.widthMm },
          ' wide and no planer takes more than ',
          { mm: need.limitMm },
          ': use aids, or plan to flatten it by hand.',
        ],
        { width: need.widthMm, limit: need.limitMm },
        { fixes: [planGlue(glueUp, 'Cauls across', { aids: { kind: 'cauls' } })] },
      ),
    );
  for (const aid of layout.aids) {
    if (!aid.bad) continue;
    out.push(
      warning(
        'aid-exposed',
        glueUp,
        [
          `The ${layout.size?.name ?? 'aid'} at `,
          { mm: aid.at },
          ` on joint ${aid.joint}: `,
          ...aid.bad.words,
        ],
        { joint: aid.joint, at: aid.at, short: aid.bad.shortMm, cover: AID_COVER },
        {
          fixes: [
            planGlue(glueUp, 'Let Junta place them', { aids: { kind: layout.kind, ...keepOutOf(glueUp) } }),
          ],
        },
      ),
    );
  }
  if (layout.bare.length > 0)
    out.push(
      warning(
        'aids-find-no-place',
        glueUp,
        [
          `${layout.bare.length} of ${glueUp.lines.length} joints have no place for aids. Joint ${layout.bare[0].joint}: `,
          ...layout.bare[0].words,
        ],
        { joints: layout.bare.length },
        { fixes: [planGlue(glueUp, 'Cauls across', { aids: { kind: 'cauls' } })] },
      ),
    );
  return out;
};

const keepOutOf = (glueUp: GlueUp) => {
  const keepOut = glueUp.step.plan?.aids?.keepOut;
  return keepOut ? { keepOut } : {};
};

const loadFindings: Findings = (glueUp, _plan, { build }) => {
  const { liftKg, hands } = gluingOf(build.shop);
  const crew = glueUp.step.plan?.hands ?? hands;
  if (glueUp.massKg <= liftKg * crew) return [];
  return [
    warning(
      'too-heavy',
      glueUp,
      [
        'It weighs ',
        { kg: glueUp.massKg },
        '; ',
        crew === 1 ? 'one pair of hands lifts ' : 'two lift ',
        { kg: liftKg * crew },
        ' here.',
      ],
      { mass: glueUp.massKg, limit: liftKg * crew },
      {
        fixes: crew === 1 ? [planGlue(glueUp, 'A second pair of hands', { hands: 2 })] : [],
        caution:
          crew === 1
            ? 'A heavy top strains backs and crushes fingers: two people, a clear way, and somewhere to set it down.'
            : 'A heavy top strains backs and crushes fingers: more hands or a lifting aid, a clear way, and somewhere to set it down.',
      },
    ),
  ];
};
