import { clearance, rectangle, wallTo } from '../curve';
import { type Cell, compose, movePoint, type Vec3, widestOf } from '../solid';
import { AID_COVER, type AidProblem } from './aidproblem';
import type { AidSize } from './aidsizes';
import type { GlueUp } from './glueup';

/** Less than this is none, mm. */
const TOUCH = 1e-6;

/** The wood that an aid fills, as a box in the blank’s frame. */
export function boxOfAid(
  {
    at,
    along,
    line,
    size,
    mid,
  }: { at: number; along: number; line: { at: number }; size: AidSize; mid: number },
  { run, press, depth }: GlueUp['axes'],
): { min: Vec3; max: Vec3 } {
  const [min, max]: [number, number, number][] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  min[run] = at - along / 2;
  max[run] = at + along / 2;
  min[press] = line.at - size.into;
  max[press] = line.at + size.into;
  min[depth] = mid - size.thick / 2;
  max[depth] = mid + size.thick / 2;
  return { min, max };
}

/** Whether what later steps cut into the wood around an aid opens it, comes too near, or takes it away with the waste. */
export function inHollows(
  { min, max }: { min: Vec3; max: Vec3 },
  cell: Cell,
  after: readonly { cell: Cell }[],
  name: string,
): AidProblem | undefined {
  const seen = new Set<unknown>();
  for (const { cell: now } of after) {
    if (now.id !== cell.id) continue;
    for (const { form, fromLog } of now.hollows ?? []) {
      if (seen.has(form)) continue;
      seen.add(form);
      // The log stands fast: the glue-up’s own wood tells where the hollow lies in it.
      const m = compose(fromLog, cell.toLog);
      const corners = [min[0], max[0]].flatMap((x) =>
        [min[1], max[1]].flatMap((y) => [min[2], max[2]].map((z) => movePoint(m, [x, y, z]))),
      );
      const range = (a: number) => [
        Math.min(...corners.map((p) => p[a])),
        Math.max(...corners.map((p) => p[a])),
      ];
      const [[x0, x1], [y0, y1], [z0, z1]] = [range(0), range(1), range(2)];
      const deep = Math.max(0, form.z0 - z1, z0 - form.z1);
      if (deep >= AID_COVER - TOUCH) continue;
      const region = form.kind === 'prism' ? form.region : widestOf(form);
      const aid = rectangle({ x: x0, y: y0 }, x1 - x0, y1 - y0);
      const plan = clearance(region, [aid]);
      const free = plan > 0 ? Math.hypot(plan, deep) : deep > 0 ? deep : plan;
      if (free >= AID_COVER - TOUCH) continue;
      const all = deep === 0 && z0 >= form.z0 - TOUCH && z1 <= form.z1 + TOUCH;
      // What sticks out of the opening: wood around it that is left, with the aid bare in its edge.
      const inside = wallTo([aid], region);
      if (plan < -TOUCH && all && inside > TOUCH)
        return {
          kind: 'waste',
          step: name,
          words: [`It falls away with what ${name} takes off.`],
          shortMm: 0,
        };
      if (plan < -TOUCH && all && -inside < -free)
        return {
          kind: 'cut',
          step: name,
          words: [
            `${name} leaves it bare in its edge: `,
            { mm: Math.max(0, -inside) },
            ' of it stays in the wood.',
          ],
          shortMm: AID_COVER + Math.max(0, -inside),
        };
      return {
        kind: 'cut',
        step: name,
        words:
          free < -TOUCH
            ? [`${name} would cut into it by `, { mm: -free }, '.']
            : [
                `${name} would lay it bare: `,
                { mm: Math.max(0, free) },
                ' of wood stays, ',
                { mm: AID_COVER },
                ' should.',
              ],
        shortMm: AID_COVER - free,
      };
    }
  }
  return undefined;
}
