import DxfParser, {
  type IArcEntity,
  type ICircleEntity,
  type IEllipseEntity,
  type ILineEntity,
  type ILwpolylineEntity,
} from 'dxf-parser';
import { circle, type Corner, ellipse, type Point } from '../../curve';
import type { DrawnLine } from './lines';

/** Units that a DXF file may name, by their number there, in mm. */
const UNITS: Readonly<Record<number, number>> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000 };

/** What a DXF file draws: its lines, how many mm its unit is where it says so, and what of it was not read. */
export interface DxfDrawn {
  lines: DrawnLine[];
  unitMm?: number;
  unread: string[];
}

const closedLine = (corners: readonly Corner[]): DrawnLine => ({
  corners: [...corners],
  end: corners[0],
  closed: true,
});

const scaled = (p: Point, k: number): Point => ({ x: p.x * k, y: p.y * k });

function polyline(
  { vertices, shape }: Pick<ILwpolylineEntity, 'vertices' | 'shape'>,
  k: number,
): DrawnLine[] {
  const corners = vertices.map(
    (each): Corner => ({
      ...scaled(each, k),
      ...(each.bulge ? { bulge: each.bulge } : {}),
    }),
  );
  if (corners.length < 2) return [];
  return shape
    ? [closedLine(corners)]
    : [{ corners: corners.slice(0, -1), end: corners[corners.length - 1], closed: false }];
}

function arc({ center, radius, startAngle, endAngle }: IArcEntity, k: number): DrawnLine {
  const turn = 2 * Math.PI;
  const sweep = (((endAngle - startAngle) % turn) + turn) % turn || turn;
  const at = (angle: number): Point =>
    scaled({ x: center.x + radius * Math.cos(angle), y: center.y + radius * Math.sin(angle) }, k);
  const bulge = Math.tan(sweep / 8);
  return {
    corners: [
      { ...at(startAngle), bulge },
      { ...at(startAngle + sweep / 2), bulge },
    ],
    end: at(startAngle + sweep),
    closed: false,
  };
}

function wholeEllipse({ center, majorAxisEndPoint, axisRatio }: IEllipseEntity, k: number): DrawnLine {
  const half = Math.hypot(majorAxisEndPoint.x, majorAxisEndPoint.y);
  const turn = Math.atan2(majorAxisEndPoint.y, majorAxisEndPoint.x);
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return closedLine(
    ellipse({ x: 0, y: 0 }, 2 * half * k, 2 * half * axisRatio * k, 32).map(({ x, y, ...rest }) => ({
      x: center.x * k + c * x - s * y,
      y: center.y * k + s * x + c * y,
      ...rest,
    })),
  );
}

/** Reads the lines, arcs, polylines, circles and whole ellipses of a DXF file, as if its unit were so many mm. Throws where it is no such file. */
export function readDxf(text: string, unitMm?: number): DxfDrawn {
  const dxf = new DxfParser().parseSync(text);
  if (!dxf) throw new Error('no drawing');
  const own = UNITS[Number((dxf.header as typeof dxf.header | undefined)?.$INSUNITS ?? 0)];
  const k = unitMm ?? own ?? 1;
  const unread = new Set<string>();
  const lines = dxf.entities.flatMap((entity): DrawnLine[] => {
    switch (entity.type) {
      case 'LWPOLYLINE':
      case 'POLYLINE':
        return polyline(entity as ILwpolylineEntity, k);
      case 'LINE': {
        const [a, b] = (entity as ILineEntity).vertices;
        return [{ corners: [scaled(a, k)], end: scaled(b, k), closed: false }];
      }
      case 'ARC':
        return [arc(entity as IArcEntity, k)];
      case 'CIRCLE': {
        const { center, radius } = entity as ICircleEntity;
        return [closedLine(circle(scaled(center, k), radius * k))];
      }
      case 'ELLIPSE': {
        const own = entity as IEllipseEntity;
        const sweep = Math.abs(own.endAngle - own.startAngle);
        if (Math.abs(sweep - 2 * Math.PI) < 1e-4) return [wholeEllipse(own, k)];
        unread.add('a part of an ellipse');
        return [];
      }
      default:
        unread.add(entity.type.toLowerCase());
        return [];
    }
  });
  return { lines, unread: [...unread], ...(own === undefined ? {} : { unitMm: own }) };
}
