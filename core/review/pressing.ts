import type { BuildDocument, Finding } from '../document';
import { type ClampPlan, edgeOf, type GlueUp, NotSolvable, pressureQuickly, strokesFor } from '../glueup';
import { gluingOf } from '../kit';
import { noiseOf } from '../steps';
import { counted, rising } from '../units';
import { type Findings, planGlue, warning } from './glue-finding';

/** Edges that do not close as they should. */
export const edges: Findings = (glueUp, _plan, { build }) =>
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
          '. That is wrong under both methods: ',
          `${counted(strokes, 'stroke')} in the middle of each edge ${strokes === 1 ? 'takes' : 'take'} it away.`,
        ],
        {
          numbers: { joint, open: edge.depth.mm, strokes },
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
    {
      numbers: { joint, open: depth, hollow: hollow.mm },
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
export const oneSided: Findings = (glueUp, plan, { build }) => {
  const practice = gluingOf(build.shop);
  const placed = glueUp.step.plan?.clamps ?? [];
  if (!plan.byHand || placed.length < 3 || practice.faces === 'oneSide') return [];
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
      {
        numbers: { clamps: placed.length, above },
        fixes: [
          planGlue(glueUp, 'Every other one to the other face', {
            clamps: placed
              .toSorted(rising((a) => a.at.mm))
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
export const openJoints: Findings = (glueUp, plan, { build }) => {
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
      {
        numbers: { joint: worst.joint, open: worst.openMm, joints: open.length },
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

declare module '../document/finding' {
  interface FindingCodes {
    /** All clamps lie on one side of the piece. */
    'clamps-one-side': true;
    /** An edge is crowned: its ends stay open. */
    'crowned-edge': true;
    /** A joint gets too little pressure somewhere. */
    'joint-open': true;
    /** Sprung joints are wanted and no hollow is planed. */
    'sprung-without-hollow': true;
  }
}
