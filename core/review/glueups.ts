import type { Finding, Fix, Phrase, Step } from '../document';
import {
  type ClampPlan,
  AID_COVER,
  amountFor,
  bottleFor,
  type GlueUp,
  glueUpOf,
  glueUpsOf,
  judgeBottle,
  judgeShelf,
  layAids,
  needsAids,
  planClamps,
  rehearse,
  usesOf,
} from '../glueup';
import { climateOf, gluingOf, isClimateKnown } from '../kit';
import { roomOf } from '../steps';
import { counted } from '../units';
import type { ReviewContext } from './context';
import { type Findings, planGlue, warning } from './glue-finding';
import { edges, oneSided, openJoints } from './pressing';

/** Everything about a glue-up that its maker should know before the bottle is opened. */
export function glueUpFindings(step: Step, context: ReviewContext): Finding[] {
  if (!roomOf(step).flow.joins || step.done) return [];
  const glueUp = glueUpOf(context.build, context.timeline, step.id);
  if (!glueUp || glueUp.lines.length === 0) return [];
  const plan = planClamps(glueUp, context.build.shop);
  const all: Findings[] = [climateFindings, adhesiveFindings, timeFindings, aidFindings, loadFindings];
  const pressed: Findings[] = [clampFindings, denting, edges, oneSided, openJoints];
  return [...(glueUp.askew ? [] : pressed), ...all].flatMap((check) => check(glueUp, plan, context));
}

/** Layers wider than so many jaws reach into are seldom pressed by clamps alone, mm: bars reach in at the edges only (common practice). */
const REACH_MM = 150;

/** How wide faces are usually pressed, where clamps at their edges do not reach (common practice). */
function otherWays(glueUp: GlueUp, plan: ClampPlan): Phrase[] {
  if (glueUp.step.along !== 'thickness' || glueUp.heightMm <= 2 * REACH_MM) return [];
  return [
    ' Faces ',
    { mm: glueUp.heightMm },
    ' wide are usually pressed otherwise: ',
    { newtons: plan.neededN },
    ' over the whole face by stiff cauls across in pairs that bow onto it, by a vacuum bag (at most 0.1 MPa), by weights on boards, or by screws from below that hold while the glue sets.',
  ];
}

const clampFindings: Findings = (glueUp, plan, { build }) => {
  const count = plan.clamps.length * glueUp.blanks;
  if (plan.longestMm === 0)
    return [
      warning(
        'no-clamps',
        glueUp,
        [
          `The kit has no clamps; this glue-up wants ${counted(count, 'clamp')} that ${count === 1 ? 'opens' : 'open'} to `,
          { mm: plan.openingMm },
          ' and give ',
          { newtons: plan.neededN },
          ' together.',
          ...otherWays(glueUp, plan),
        ],
        { numbers: { count, opening: plan.openingMm, force: plan.neededN } },
      ),
    ];
  const bare = glueUp.widthMm;
  const usual = gluingOf(build.shop).cauls.height;
  const fixes =
    plan.edgeCaulMm > 0 && plan.longestMm >= bare
      ? [
          ...(plan.edgeCaulMm > usual.mm
            ? [planGlue(glueUp, 'This shop’s cauls on the edges', { edgeCaul: usual })]
            : []),
          planGlue(glueUp, 'Without cauls on the edges', { edgeCaul: { mm: 0 } }),
        ]
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
        { numbers: { opening: plan.openingMm, longest: plan.longestMm }, fixes },
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
        `${counted(count, 'clamp')} ${count === 1 ? 'is' : 'are'} wanted ${why}${glueUp.blanks > 1 ? ` for ${glueUp.blanks} blanks at once` : ''}; `,
        `${plan.longEnough} of the kit ${plan.longEnough === 1 ? 'opens' : 'open'} to `,
        { mm: plan.openingMm },
        `: ${plan.missing}`,
        glueUp.blanks > 1 ? ' too few; glue them up one after another.' : ' too few.',
        ...otherWays(glueUp, plan),
      ],
      {
        numbers: { wanted: count, longEnough: plan.longEnough, missing: plan.missing },
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
        {
          numbers: { pad: plan.padMPa, strength: plan.strengthMPa },
          fixes: plan.edgeCaulMm === 0 ? caul : [],
        },
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
        { numbers: { thickness: thin, least: THIN_END_GRAIN }, fixes: caul },
      ),
    );
  return out;
};
/** End-grain strips thinner than this crack under bare pads, mm (common practice). */
const THIN_END_GRAIN = 40;

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
      { numbers: { temperature: temperatureC, humidity: humidityPct } },
    ),
  ];
};

const adhesiveFindings: Findings = (glueUp, plan, { build, timeline, today }) => {
  const { shop } = build;
  const bottle = bottleFor(glueUp, shop);
  if (!bottle)
    return [
      warning('no-adhesive', glueUp, ['The shelf has no glue: enter one in the Kit.'], {
        numbers: { bottles: 0 },
      }),
    ];
  const { uses, guessed } = usesOf(build, glueUpsOf(build, timeline));
  const day = today ?? '';
  const used = rehearse(glueUp, plan, layAids(build, timeline, glueUp), shop).closedUsedMin;
  const judged = judgeBottle(bottle, uses, shop, {
    closedUsedMin: 0,
    today: day,
    species: glueUp.species,
  });
  const better = judgeShelf(uses, shop, { closedUsedMin: used, today: day, species: glueUp.species }).find(
    ({ against }) => against.length === 0,
  );
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
      { numbers: { temperature: climateOf(shop).temperatureC, least: judged.facts.leastC }, fixes },
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
        { numbers: { left: bottle.leftG, wanted: amount.toTakeG } },
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
        `${counted(glueUp.lines.length, 'joint')}: from spreading to the ${open ? 'closed joint' : 'last clamp'} this shop takes `,
        { minutes: used },
        '; the glue gives ',
        { minutes: has },
        ` at the shop’s air (${Math.round((100 * used) / has)} %).`,
      ],
      { numbers: { used, has, joints: glueUp.lines.length }, fixes: fixes.slice(0, 4) },
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
        {
          numbers: { width: need.widthMm, limit: need.limitMm },
          fixes: [planGlue(glueUp, 'Cauls across', { aids: { kind: 'cauls' } })],
        },
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
        {
          numbers: { joint: aid.joint, at: aid.at, short: aid.bad.shortMm, cover: AID_COVER },
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
          `${layout.bare.length} of ${counted(glueUp.lines.length, 'joint')} ${layout.bare.length === 1 ? 'has' : 'have'} no place for aids. Joint ${layout.bare[0].joint}: `,
          ...layout.bare[0].words,
        ],
        {
          numbers: { joints: layout.bare.length },
          fixes: [planGlue(glueUp, 'Cauls across', { aids: { kind: 'cauls' } })],
        },
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
      {
        numbers: { mass: glueUp.massKg, limit: liftKg * crew },
        fixes: crew === 1 ? [planGlue(glueUp, 'A second pair of hands', { hands: 2 })] : [],
        caution:
          crew === 1
            ? 'A heavy top strains backs and crushes fingers: two people, a clear way, and somewhere to set it down.'
            : 'A heavy top strains backs and crushes fingers: more hands or a lifting aid, a clear way, and somewhere to set it down.',
      },
    ),
  ];
};

declare module '../document/finding' {
  interface FindingCodes {
    /** The kit has no clamps for a glue-up. */
    'no-clamps': true;
    /** A glue-up wants more clamps than there are. */
    'too-few-clamps': true;
    /** No clamp opens wide enough. */
    'clamps-too-short': true;
    /** Clamps press more than the wood bears at their pads. */
    'clamps-dent': true;
    /** The kit has no glue that is fit for this. */
    'no-adhesive': true;
    /** A glue is not meant for what the piece must stand. */
    'adhesive-unsuited': true;
    /** The bottle holds less than the glue-up takes. */
    'glue-short': true;
    /** Its acts take longer than the glue stays open. */
    'slower-than-glue': true;
    /** The air is not known, and times are those of a usual shop. */
    'climate-unknown': true;
    /** An aid would be cut open later. */
    'aid-exposed': true;
    /** A glue-up needs aids to stay flush. */
    'aids-needed': true;
    /** Aids find no place on some joints. */
    'aids-find-no-place': true;
    /** A glue-up is heavier than the shop lifts. */
    'too-heavy': true;
    /** A thin piece of end grain is clamped. */
    'thin-end-grain': true;
  }
}
