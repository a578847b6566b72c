import { describe, expect, it } from 'vitest';
import { areaOf, boxOf, lengthOf } from '../../curve';
import { outlineLoop } from '../../steps';
import { readOutline } from '.';

const dxf = (entities: string, units?: number) =>
  `0\nSECTION\n2\nHEADER\n${units === undefined ? '' : `9\n$INSUNITS\n70\n${units}\n`}0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
const polyline = (corners: [number, number, number?][]) =>
  `0\nLWPOLYLINE\n8\n0\n90\n${corners.length}\n70\n1\n${corners
    .map(([x, y, bulge]) => `10\n${x}\n20\n${y}\n${bulge ? `42\n${bulge}\n` : ''}`)
    .join('')}`;
const line = (a: number, b: number, c: number, d: number) =>
  `0\nLINE\n8\n0\n10\n${a}\n20\n${b}\n11\n${c}\n21\n${d}\n`;
const loopOf = (name: string, text: string, unit?: number) => {
  const loop = outlineLoop(readOutline(name, text, unit).corners);
  if (!loop) throw new Error('no outline');
  return loop;
};

describe('an outline from a file', () => {
  it('DXF: a polyline with an arc, in its own unit, its low corner at the piece’s', () => {
    // Chord 600, rise 40: bulge 2 x 40 / 600, segment 16,056.745 mm2 (shaping.md).
    const text = dxf(
      polyline([
        [100, 50],
        [700, 50],
        [700, 250, 80 / 600],
        [100, 250],
      ]),
      4,
    );
    const loop = loopOf('top.dxf', text);
    expect(areaOf([loop])).toBeCloseTo(600 * 200 + 16_056.745, 2);
    expect(boxOf([loop])).toMatchObject({
      x0: expect.closeTo(0, 9),
      y0: expect.closeTo(0, 9),
      y1: expect.closeTo(240, 6),
    });
    const read = readOutline('top.dxf', text.replace('70\n4\n', '70\n1\n'));
    expect(read).toMatchObject({ unitMm: 25.4, length: expect.closeTo(600 * 25.4, 6) });
  });
  it('DXF: lines and an arc whose ends meet, drawn either way, are one line; a circle inside is left out and said', () => {
    const text = dxf(
      line(0, 0, 200, 0) +
        '0\nARC\n8\n0\n10\n200\n20\n50\n40\n50\n50\n270\n51\n90\n' +
        line(0, 100, 200, 100) +
        line(0, 0, 0, 100) +
        '0\nCIRCLE\n8\n0\n10\n100\n20\n50\n40\n20\n' +
        line(900, 0, 950, 0),
      4,
    );
    const read = readOutline('handle.dxf', text);
    expect(areaOf([loopOf('handle.dxf', text)])).toBeCloseTo(200 * 100 + (Math.PI * 2500) / 2, 6);
    expect(read.leftOut).toEqual(['1 smaller closed line: openings are cut in Bore and rout', '1 open line']);
  });
  it('SVG: rounded rectangle, circle, turned group, path with arcs and curves, y the other way round', () => {
    const svg = (body: string, head = 'width="300mm" height="200mm" viewBox="0 0 300 200"') =>
      `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" ${head}><defs><path d="M0 0h900v900z"/></defs>${body}</svg>`;
    const area = (body: string, head?: string) => areaOf([loopOf('a.svg', svg(body, head))]);
    expect(area('<rect x="10" y="10" width="200" height="100" rx="20"/>')).toBeCloseTo(
      20_000 - (4 - Math.PI) * 400,
      6,
    );
    expect(area('<g transform="rotate(30) translate(5 6)"><circle cx="50" cy="60" r="40"/></g>')).toBeCloseTo(
      Math.PI * 1600,
      6,
    );
    expect(area('<ellipse cx="50" cy="60" rx="40" ry="20"/>')).toBeCloseTo(Math.PI * 800, -1);
    expect(area('<polygon points="0,0 100,0 0,50"/>')).toBeCloseTo(2500, 9);
    // A quarter of a circle as a curve of the third degree is 0.0273 % of r off at most (known), so is its area.
    const k = 0.5522847498 * 100;
    expect(area(`<path d="M0 0L100 0C100 ${k} ${k} 100 0 100Z"/>`)).toBeCloseTo((Math.PI * 10_000) / 4, -1);
    // A parabola over a chord encloses two thirds of its box.
    expect(area('<path d="M0 0Q50 80 100 0Z"/>')).toBeCloseTo((2 / 3) * 100 * 40, 0);
    // Twice the size where a unit is 2 mm.
    expect(area('<circle cx="50" cy="60" r="40"/>', 'width="600mm" viewBox="0 0 300 200"')).toBeCloseTo(
      Math.PI * 6400,
      6,
    );
    // The tip is up in the file, so up on the piece.
    const tip = loopOf('a.svg', svg('<path d="M0 100L50 0L100 100Z"/>'));
    expect(Math.max(...tip.map(({ y }) => y))).toBeCloseTo(100, 9);
    expect(tip.find(({ y }) => y > 50)?.x).toBeCloseTo(50, 9);
    expect(lengthOf(tip)).toBeCloseTo(100 + 2 * Math.hypot(50, 100), 6);
  });
  it('refuses what it cannot read, in words', () => {
    const cases: [string, string, RegExp][] = [
      ['a.png', '', /ends in .dxf or .svg/],
      ['a.svg', '<svg', /could not be read/],
      ['a.svg', '<html></html>', /could not be read/],
      ['a.dxf', 'hello', /could not be read|no closed line/],
      [
        'a.svg',
        '<svg width="9mm"><path d="M0 0L9 9"/></svg>',
        /no closed line in a.svg: 1 line, 1 of them open/,
      ],
      ['a.svg', '<svg width="300"><circle r="9"/></svg>', /does not say what its numbers measure/],
      [
        'a.dxf',
        dxf(
          polyline([
            [0, 0],
            [9, 0],
            [9, 9],
          ]),
        ),
        /does not say what its numbers measure/,
      ],
      [
        'a.dxf',
        dxf(
          polyline(Array.from({ length: 500 }, (_, i) => [Math.cos(i / 80) * 99, Math.sin(i / 80) * 99])),
          4,
        ),
        /has 500 corners; up to 400/,
      ],
    ];
    for (const [name, text, words] of cases) expect(() => readOutline(name, text)).toThrow(words);
    expect(
      readOutline(
        'a.dxf',
        dxf(
          polyline([
            [0, 0],
            [9, 0],
            [9, 9],
          ]),
        ),
        25.4,
      ).length,
    ).toBeCloseTo(228.6, 9);
  });
});
