import { XMLParser, XMLValidator } from 'fast-xml-parser';
import svgpath from 'svgpath';
import { asShare } from '../../units';
import type { Corner, Point } from '../../curve';
import { cubicArcs, type DrawnLine } from './lines';

/** Absolute units of lengths in an SVG, mm: a pixel is a 96th of an inch (CSS Values and Units). */
const UNITS: Readonly<Record<string, number>> = {
  mm: 1,
  cm: 10,
  in: 25.4,
  pt: 25.4 / 72,
  pc: 25.4 / 6,
  px: 25.4 / 96,
};

/** What an SVG file draws, and how many mm its unit is where it says so in an absolute one. */
export interface SvgDrawn {
  lines: DrawnLine[];
  unitMm?: number;
  unread: string[];
}

type Attributes = Readonly<Record<string, string>>;
interface Node {
  tag: string;
  attributes: Attributes;
  children: Node[];
}

const nodesOf = (raw: unknown): Node[] =>
  (Array.isArray(raw) ? (raw as Record<string, unknown>[]) : []).flatMap((entry): Node[] => {
    const tag = Object.keys(entry).find((key) => key !== ':@');
    return tag === undefined || tag.startsWith('#') || tag.startsWith('?')
      ? []
      : [
          {
            tag: tag.replace(/^.*:/, ''),
            attributes: (entry[':@'] ?? {}) as Attributes,
            children: nodesOf(entry[tag]),
          },
        ];
  });

const number = (text: string | undefined, fallback = 0): number => {
  const value = Number.parseFloat(text ?? '');
  return Number.isFinite(value) ? value : fallback;
};

/** Shapes as the path that they are. */
const PATHS: Readonly<Record<string, (of: Attributes) => string>> = {
  path: ({ d = '' }) => d,
  rect: (of) => {
    const [x, y, w, h] = ['x', 'y', 'width', 'height'].map((name) => number(of[name]));
    const rx = Math.min(number(of.rx, number(of.ry)), w / 2);
    const ry = Math.min(number(of.ry, rx), h / 2);
    const bend = (dx: number, dy: number) => (rx > 0 && ry > 0 ? `a${rx} ${ry} 0 0 1 ${dx} ${dy}` : '');
    return `M${x + rx} ${y}h${w - 2 * rx}${bend(rx, ry)}v${h - 2 * ry}${bend(-rx, ry)}h${2 * rx - w}${bend(-rx, -ry)}v${2 * ry - h}${bend(rx, -ry)}z`;
  },
  circle: (of) => round(number(of.cx), number(of.cy), number(of.r), number(of.r)),
  ellipse: (of) => round(number(of.cx), number(of.cy), number(of.rx), number(of.ry)),
  polygon: ({ points = '' }) => (points.trim() ? `M${points.trim()}z` : ''),
  polyline: ({ points = '' }) => (points.trim() ? `M${points.trim()}` : ''),
  line: (of) => `M${number(of.x1)} ${number(of.y1)}L${number(of.x2)} ${number(of.y2)}`,
};
const round = (cx: number, cy: number, rx: number, ry: number): string =>
  `M${cx - rx} ${cy}a${rx} ${ry} 0 0 1 ${2 * rx} 0a${rx} ${ry} 0 0 1 ${-2 * rx} 0z`;

/** Elements that hold others and draw nothing of their own. */
const HOLDS = new Set(['svg', 'g', 'a', 'switch']);
/** Elements that say something about the drawing and are no lines. */
const SILENT = new Set(['defs', 'metadata', 'title', 'desc', 'style', 'namedview']);

/** The arc of a circle from a point to another, as an SVG says it, as a bulge; y runs down there, and up here. */
function arcCorners(
  a: Point,
  b: Point,
  { r, large, sweep }: { r: number; large: boolean; sweep: boolean },
): Corner[] {
  const chord = Math.hypot(b.x - a.x, b.y - a.y);
  if (chord < 1e-12) return [];
  const half = Math.asin(asShare(chord / (2 * r)));
  const turn = large ? 2 * Math.PI - 2 * half : 2 * half;
  const bulge = Math.tan(turn / 4) * (sweep ? -1 : 1);
  return [{ ...a, bulge }];
}

/** The lines of one path, in mm, y upwards. */
function linesOf(d: string, matrix: string, k: number): DrawnLine[] {
  const path = svgpath(d).abs().unshort().transform(matrix).scale(k, k);
  const lines: DrawnLine[] = [];
  let own: DrawnLine | undefined;
  const up = (x: number, y: number): Point => ({ x, y: -y });
  const put = (corners: readonly Corner[], end: Point) => {
    if (!own) return;
    own.corners.push(...corners);
    own.end = end;
  };
  // Arcs of ellipses become curves; those of circles stay what they are.
  const plain = svgpath(path.toString());
  let bent = false;
  plain.iterate((segment) => {
    if (segment[0] === 'A' && Math.abs(segment[1] - segment[2]) > 1e-9 * Math.abs(segment[1])) bent = true;
  });
  (bent ? plain.unarc() : plain).iterate((segment, _index, x, y) => {
    const from = up(x, y);
    switch (segment[0]) {
      case 'M':
        own = { corners: [], end: up(segment[1], segment[2]), closed: false };
        lines.push(own);
        break;
      case 'L':
        put([from], up(segment[1], segment[2]));
        break;
      case 'H':
        put([from], up(segment[1], y));
        break;
      case 'V':
        put([from], up(x, segment[1]));
        break;
      case 'C': {
        const [, a, b, c, e, f, g] = segment;
        put(cubicArcs(from, up(a, b), up(c, e), up(f, g)), up(f, g));
        break;
      }
      case 'Q': {
        const [, a, b, e, f] = segment;
        const [c, q] = [up(a, b), up(e, f)];
        const third = (p: Point): Point => ({
          x: p.x + (2 / 3) * (c.x - p.x),
          y: p.y + (2 / 3) * (c.y - p.y),
        });
        put(cubicArcs(from, third(from), third(q), q), q);
        break;
      }
      case 'A': {
        const to = up(segment[6], segment[7]);
        put(arcCorners(from, to, { r: segment[1], large: segment[4] === 1, sweep: segment[5] === 1 }), to);
        break;
      }
      case 'Z':
      case 'z':
        if (own && own.corners.length > 0) {
          if (Math.hypot(from.x - own.corners[0].x, from.y - own.corners[0].y) > 1e-6) own.corners.push(from);
          own.closed = true;
          own.end = own.corners[0];
        }
        break;
      default:
        break;
    }
  });
  return lines;
}

/** Reads the paths and shapes of an SVG file, as if its unit were so many mm. Throws where it is no such file. */
export function readSvg(text: string, unitMm?: number): SvgDrawn {
  if (XMLValidator.validate(text) !== true) throw new Error('no XML');
  const tree = nodesOf(
    new XMLParser({
      preserveOrder: true,
      ignoreAttributes: false,
      attributeNamePrefix: '',
      parseAttributeValue: false,
      processEntities: false,
    }).parse(text),
  );
  const root = tree.find(({ tag }) => tag === 'svg');
  if (!root) throw new Error('no svg');
  const { width = '', viewBox = '' } = root.attributes;
  const unit = /[a-z]+$/.exec(width.trim())?.[0];
  const box = viewBox
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const perUnit = unit === undefined ? undefined : UNITS[unit];
  const named =
    perUnit === undefined
      ? undefined
      : box.length === 4 && box[2] > 0
        ? (number(width) * perUnit) / box[2]
        : UNITS.px;
  const k = unitMm ?? named ?? 1;
  const unread = new Set<string>();
  const lines: DrawnLine[] = [];
  const walk = ({ tag, attributes, children }: Node, matrix: string) => {
    const own = [matrix, attributes.transform ?? ''].join(' ').trim();
    if (SILENT.has(tag)) return;
    if (HOLDS.has(tag)) {
      for (const child of children) walk(child, own);
      return;
    }
    const path = PATHS[tag];
    if (path) lines.push(...linesOf(path(attributes), own, k));
    else unread.add(tag);
  };
  walk(root, '');
  return { lines, unread: [...unread], ...(named === undefined ? {} : { unitMm: named }) };
}
