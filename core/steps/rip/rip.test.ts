import { describe, expect, it } from 'vitest';
import { run } from '../../run';
import { lostTo } from '../../solid';
import { build, closes, three } from '../steps.fixture';
import { seedOf } from './log';

describe('rip', () => {
  it('gives each strip its section, and counts wood not yet chosen as wood in', () => {
    const timeline = run(build(three, []));
    expect(timeline.steps[0].pieces.map(({ id }) => id)).toEqual(['s1', 's2', 's3']);
    expect(timeline.woodInMm3).toBeCloseTo(500 * 150 * 25, 3);
    expect([timeline.steps[0].least[1], timeline.steps[0].greatest[1]]).toEqual([40, 60]);
  });
  it('takes strips from a board one after the other, books kerf and offcut, and lets figure run on', () => {
    const boards = [
      {
        id: 'b1',
        label: '1',
        species: 'oak_white',
        length: { mm: 600 },
        width: { mm: 120 },
        thickness: { mm: 30 },
      },
    ];
    const fromBoard = three.slice(0, 2).map((s) => ({ ...s, species: 'oak_white', strip: { board: 'b1' } }));
    const document = build(fromBoard, [], { boards });
    const timeline = run(document);
    expect(timeline.woodInMm3).toBeCloseTo(600 * 120 * 30, 3);
    const [a, b] = timeline.steps[0].pieces.map(({ blank }) => blank.cells[0]);
    expect(a.origin).toEqual(b.origin);
    // The second strip begins where the first and one kerf end: the same log, 40 + 3.175 mm further across.
    const logAt = (cell: typeof a) => [cell.toLog[3], cell.toLog[7], cell.toLog[11]];
    const apart = Math.hypot(...logAt(a).map((v, i) => v - logAt(b)[i]));
    expect(apart).toBeCloseTo(40 + 3.175, 9);
    expect(lostTo(timeline.ledger, 'kerf')).toBeGreaterThan(600 * 3.175 * 30 * 2);
    closes(document);
  });
  it('draws two strips of one seed alike and of other seeds not', () => {
    const seeds = build(
      [
        { ...three[0], strip: { seed: 7 } },
        { ...three[0], id: 'x', strip: { seed: 7 } },
        { ...three[0], id: 'y', strip: { seed: 8 } },
      ],
      [],
    );
    const [a, b, c] = run(seeds).steps[0].pieces.map(({ blank }) => blank.cells[0].toLog);
    expect(a).toEqual(b);
    expect(a).not.toEqual(c);
  });
  it('puts the pith below a flat-sawn board and beside a quartersawn one', () => {
    const rays = (grain: 'flat' | 'quarter') => {
      const [piece] = run(build([{ ...three[0], grain }], [])).steps[0].pieces;
      const m = piece.blank.cells[0].toLog;
      const centre = [m[1] * 20 + m[2] * 12.5 + m[3], m[5] * 20 + m[6] * 12.5 + m[7]];
      const r = Math.hypot(...centre);
      // How far the face's normal points along the radius: 1 for flat-sawn, 0 for quartersawn.
      return Math.abs((m[2] * centre[0] + m[6] * centre[1]) / r);
    };
    expect(rays('flat')).toBeGreaterThan(0.95);
    expect(rays('quarter')).toBeLessThan(0.3);
  });
});

it('the look of a wood goes by its board’s name as in every version before: jobs keep their pictures', () => {
  expect(['', 'a', 'strip-1', 'North log 7'].map(seedOf)).toEqual([7, 2517, 4450, 5812]);
});
