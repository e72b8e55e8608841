import { describe, expect, it } from 'vitest';
import { areaOf, edgeIndex, squareToEdge } from '../../../geometry/index.js';
import { seeded } from '../../../testing/seeded.js';
import { paintRegions } from '../index.js';
import { instructionsOf } from './instructions.js';
import { Plotter } from './plotter.js';
import { readHpgl } from './read-hpgl.js';

/*
 * Seeded programs with every instruction that is read, held against a reader of its own: that one is given the instructions as they were made, not
 * as they were written, and draws by sums and sines.
 */

type Point = readonly [number, number];
interface Made {
  readonly name: string;
  readonly values: readonly number[];
}
type Segment = readonly [pen: number, x0: number, y0: number, x1: number, y1: number];

/** Draws a program by hand: every curve in 720 straight pieces. */
function drawnByHand(program: readonly Made[]): Segment[] {
  const out: Segment[] = [];
  let [pen, isDown, isRelative] = [1, false, false];
  let [x, y] = [0, 0];
  let corners = [0, 0, 10_000, 7200];
  let scale: readonly number[] | null = null;
  let parts: { at: Point; down: boolean }[][] = [];
  let isRecording = false;
  const onSheet = (px: number, py: number): Point => {
    if (!scale) return [px, py];
    const [x1, y1, x2, y2] = corners as [number, number, number, number];
    const [lowX, highX, lowY, highY, type] = scale as [number, number, number, number, number];
    if (type === 2) return [x1 + (px - lowX) * highX, y1 + (py - lowY) * highY];
    let [ux, uy] = [(x2 - x1) / (highX - lowX), (y2 - y1) / (highY - lowY)];
    let [ox, oy] = [x1, y1];
    if (type === 1) {
      ux = uy = Math.min(ux, uy);
      ox += (x2 - x1 - ux * (highX - lowX)) / 2;
      oy += (y2 - y1 - uy * (highY - lowY)) / 2;
    }
    return [ox + (px - lowX) * ux, oy + (py - lowY) * uy];
  };
  const draw = (from: Point, to: Point) => {
    const [a, b] = [onSheet(...from), onSheet(...to)];
    out.push([pen, ...a, ...b]);
  };
  const go = (nx: number, ny: number) => {
    if (isRecording) parts.at(-1)!.push({ at: [nx, ny], down: isDown });
    else if (isDown) draw([x, y], [nx, ny]);
    [x, y] = [nx, ny];
  };
  const ring = (points: readonly Point[]) => {
    if (isRecording)
      parts.splice(
        -1,
        0,
        points.map((at) => ({ at, down: true })),
      );
    else points.forEach((point, i) => draw(point, points[(i + 1) % points.length]!));
  };
  const STEPS = 720;
  const round = (cx: number, cy: number, r: number, from: number, sweep: number): Point[] => {
    // The flatter an arc is, the more it takes to follow it.
    const steps = STEPS + Math.ceil(4 * Math.sqrt(r));
    return Array.from({ length: steps + 1 }, (_, i) => {
      const angle = ((from + (sweep * i) / steps) * Math.PI) / 180;
      return [cx + r * Math.cos(angle), cy + r * Math.sin(angle)];
    });
  };
  for (const { name, values: v } of program) {
    const pairs = Array.from({ length: Math.floor(v.length / 2) }, (_, i): Point => [v[2 * i]!, v[2 * i + 1]!]);
    if (name === 'SP') pen = v[0]!;
    if (name === 'PU') isDown = false;
    if (name === 'PD') isDown = true;
    if (name === 'PA') isRelative = false;
    if (name === 'PR') isRelative = true;
    if (['PU', 'PD', 'PA', 'PR'].includes(name))
      for (const [px, py] of pairs) go(isRelative ? x + px : px, isRelative ? y + py : py);
    if (name === 'IP') corners = [...v];
    if (name === 'SC') scale = v.length === 0 ? null : v;
    if (name === 'CI') ring(round(x, y, Math.abs(v[0]!), 0, 360).slice(1));
    if (name === 'EW' || name === 'WG')
      ring([[x, y], ...round(x, y, Math.abs(v[0]!), v[1]! + (v[0]! < 0 ? 180 : 0), v[2]!)]);
    if (name === 'EA' || name === 'RA')
      ring([
        [x, y],
        [v[0]!, y],
        [v[0]!, v[1]!],
        [x, v[1]!],
      ]);
    if (name === 'ER' || name === 'RR')
      ring([
        [x, y],
        [x + v[0]!, y],
        [x + v[0]!, y + v[1]!],
        [x, y + v[1]!],
      ]);
    if (name === 'AA' || name === 'AR') {
      const [cx, cy] = name === 'AA' ? [v[0]!, v[1]!] : [x + v[0]!, y + v[1]!];
      const r = Math.hypot(x - cx, y - cy);
      for (const point of round(cx, cy, r, (Math.atan2(y - cy, x - cx) * 180) / Math.PI, v[2]!).slice(1)) go(...point);
    }
    if (name === 'AT' || name === 'RT') {
      const [mx, my, ex, ey] = v.map((one, i) => (name === 'AT' ? one : one + (i % 2 === 0 ? x : y))) as [
        number,
        number,
        number,
        number,
      ];
      // The centre is as far from all three: two perpendicular bisectors.
      const det = (mx - x) * (ey - y) - (ex - x) * (my - y);
      const [k1, k2] = [(mx * mx - x * x + my * my - y * y) / 2, (ex * ex - x * x + ey * ey - y * y) / 2];
      const [cx, cy] = [(k1 * (ey - y) - k2 * (my - y)) / det, ((mx - x) * k2 - (ex - x) * k1) / det];
      const deg = (px: number, py: number) => (Math.atan2(py - cy, px - cx) * 180) / Math.PI;
      const turned = (to: number, from: number) => (((to - from) % 360) + 360) % 360;
      const [first, mid, last] = [deg(x, y), turned(deg(mx, my), deg(x, y)), turned(deg(ex, ey), deg(x, y))];
      const sweep = mid < last ? last : last - 360;
      for (const point of round(cx, cy, Math.hypot(x - cx, y - cy), first, sweep).slice(1)) go(...point);
    }
    if (name === 'BZ' || name === 'BR')
      for (let i = 0; i + 2 < pairs.length; i += 3) {
        const [a, b, c] = pairs
          .slice(i, i + 3)
          .map(([px, py]): Point => (name === 'BR' ? [px + x, py + y] : [px, py])) as [Point, Point, Point];
        const s: Point = [x, y];
        for (let k = 1; k <= STEPS; k += 1) {
          const t = k / STEPS;
          const at = (d: 0 | 1) =>
            (1 - t) ** 3 * s[d] + 3 * t * (1 - t) ** 2 * a[d] + 3 * t * t * (1 - t) * b[d] + t ** 3 * c[d];
          go(at(0), at(1));
        }
      }
    if (name === 'PM') {
      if (v[0] === 0) [parts, isRecording] = [[[{ at: [x, y], down: false }]], true];
      if (v[0] === 1) parts.push([]);
      if (v[0] === 2) isRecording = false;
    }
    if (name === 'FP' || name === 'EP')
      for (const part of parts.filter((one) => one.length > 2))
        part.forEach(({ at }, i) => {
          const next = part[(i + 1) % part.length]!;
          const closes = i === part.length - 1;
          if (name === 'FP' || (closes ? part.at(-1)!.down : next.down)) draw(at, next.at);
        });
  }
  return out;
}

/** A program with every instruction, in plotter units about 300 mm across. */
function programOf(seed: number): Made[] {
  const random = seeded(seed);
  const at = () => Math.round(600 + random() * 9000);
  const off = () => Math.round(random() * 1600 - 800) || 40;
  const turn = () => Math.round(random() * 500 - 250) || 77;
  const curve = (): Made =>
    [
      { name: 'AA', values: [at(), at(), turn()] },
      { name: 'AR', values: [off(), off(), turn()] },
      { name: 'AT', values: [at(), at(), at(), at()] },
      { name: 'RT', values: [off(), off(), off(), off()] },
      { name: 'BZ', values: [at(), at(), at(), at(), at(), at()] },
      { name: 'BR', values: [off(), off(), off(), off(), off(), off(), off(), off(), off(), off(), off(), off()] },
      { name: 'PD', values: [] },
    ][Math.floor(random() * 7)]!;
  const lines = (): Made[] => [
    { name: 'PA', values: [] },
    { name: 'PU', values: [at(), at()] },
    { name: 'PD', values: [at(), at(), at(), at()] },
    { name: 'PR', values: [off(), off()] },
    { name: 'PA', values: [at(), at()] },
    curve(),
    { name: 'PU', values: [] },
  ];
  const alone = (): Made[] => [
    { name: 'PA', values: [] },
    { name: 'PU', values: [at(), at()] },
    [
      { name: 'CI', values: [Math.abs(off())] },
      { name: 'EW', values: [off(), turn(), turn()] },
      { name: 'WG', values: [off(), turn(), turn()] },
      { name: 'EA', values: [at(), at()] },
      { name: 'RA', values: [at(), at()] },
      { name: 'ER', values: [off(), off()] },
      { name: 'RR', values: [off(), off()] },
    ][Math.floor(random() * 7)]!,
  ];
  const polygon = (): Made[] => [
    { name: 'PA', values: [] },
    { name: 'PU', values: [at(), at()] },
    { name: 'PM', values: [0] },
    { name: 'PD', values: [at(), at(), at(), at()] },
    ...(random() < 0.5
      ? [
          { name: 'PU', values: [at(), at()] },
          { name: 'PD', values: [at(), at()] },
        ]
      : []),
    curve(),
    { name: 'PM', values: [1] },
    { name: 'PU', values: [at(), at()] },
    { name: 'PD', values: [at(), at(), at(), at()] },
    { name: 'PM', values: [2] },
    { name: random() < 0.5 ? 'FP' : 'EP', values: [] },
  ];
  const scaled = (): Made[] => {
    const type = Math.floor(random() * 3);
    return [
      { name: 'IP', values: [at(), at(), at() + 9000, at() + 9000] },
      { name: 'SC', values: type === 2 ? [100, 0.5, 200, 0.75, 2] : [0, 12_000, 0, 9000 + off(), type] },
    ];
  };
  return Array.from({ length: 20 }, (): Made[] => {
    const dice = random();
    if (dice < 0.1) return [{ name: 'SP', values: [1 + Math.floor(random() * 3)] }];
    if (dice < 0.18) return [{ name: 'PU', values: [] }, ...(random() < 0.3 ? [{ name: 'SC', values: [] }] : scaled())];
    return dice < 0.5 ? lines() : dice < 0.8 ? alone() : polygon();
  }).flat();
}

/** As some writer or other would write it. */
function written(program: readonly Made[], random: () => number): string {
  const between = [',', ' ', ', ', ' , '][Math.floor(random() * 4)]!;
  const after = [';', '', ' ', '\n', ';\r\n'][Math.floor(random() * 5)]!;
  return `IN${after || ';'}SP1;${program.map(({ name, values }) => `${random() < 0.5 ? name : name.toLowerCase()}${values.map((one) => (Number.isInteger(one) || random() < 0.5 ? String(one) : one.toFixed(3))).join(between)}${after}`).join('')};`;
}

const lengthOf = (segments: readonly Segment[]) =>
  segments.reduce((sum, [, a, b, c, d]) => sum + Math.hypot(c - a, d - b), 0);

/** How far the farthest point of some segments lies from others, plotter units; a hundred where nothing is near. */
function farthest(of: readonly Segment[], from: readonly Segment[]): number {
  const REACH = 2;
  const edges = from.map(([, ...edge]) => edge);
  const index = edgeIndex(edges);
  const squareTo = (x: number, y: number) =>
    index
      .search(x - REACH, y - REACH, x + REACH, y + REACH)
      .reduce((least, i) => Math.min(least, squareToEdge(x, y, ...edges[i]!)), 100 ** 2);
  return Math.sqrt(
    of.reduce(
      (most, [, x0, y0, x1, y1]) => Math.max(most, squareTo(x0, y0), squareTo((x0 + x1) / 2, (y0 + y1) / 2)),
      0,
    ),
  );
}

describe('HP-GL of other writers', () => {
  it.each(Array.from({ length: 40 }, (_, seed) => seed))(
    'is drawn as by hand, with every instruction, seed %i',
    (seed) => {
      const program = programOf(seed);
      const plotter = new Plotter();
      for (const instruction of instructionsOf(written(program, seeded(seed + 1000)))) plotter.take(instruction);
      plotter.lift();
      expect([...plotter.left.keys()]).toEqual([]);
      const expected = drawnByHand(program);
      for (const pen of new Set(expected.map(([one]) => one))) {
        const found = (plotter.lines.get(pen) ?? []).flatMap(({ points }) =>
          Array.from({ length: points.length / 2 - 1 }, (_, i): Segment => [
            pen,
            points[2 * i]!,
            points[2 * i + 1]!,
            points[2 * i + 2]!,
            points[2 * i + 3]!,
          ]),
        );
        const own = expected.filter(([one]) => one === pen);
        expect(lengthOf(found) / lengthOf(own), `pen ${pen}`).toBeCloseTo(1, 3);
        // Plotter units: a hundredth of a millimetre.
        expect(farthest(own, found), `pen ${pen}`).toBeLessThan(0.4);
        expect(farthest(found, own), `pen ${pen}`).toBeLessThan(0.4);
      }
      expect([...plotter.lines.keys()].sort()).toEqual([...new Set(expected.map(([one]) => one))].sort());
    },
  );

  const label = (settings: string, words: string, end = '\u0003') =>
    readHpgl(new TextEncoder().encode(`IN;SP1;${settings}PU1000,1000;LB${words}${end};`), 'x.plt');

  it.each([
    ['in its usual size', '', 2.69],
    ['in centimetres', 'SI0.7,1.2;', 12],
    ['in shares of the sheet', 'IP0,0,8000,8000;SR2,5;', 10],
  ])('letters stand as high as is said, %s', (_, settings, heightMm) => {
    const { heightMm: high, paints, noticed } = label(`PW0.2;${settings}`, 'H');
    // The width of the pen stands out on both sides.
    expect(high).toBeCloseTo(heightMm + 0.2, 2);
    expect(paints).toMatchObject([{ how: { kind: 'stroke', style: { width: 0.2 } } }]);
    expect(noticed).toEqual([]);
  });

  it('letters go along their way, slant, part and end as is said', () => {
    const boxOf = (settings: string, words: string, end?: string) => {
      const { widthMm, heightMm } = label(`PW0.2;SI1,1;${settings}`, words, end);
      return [widthMm, heightMm];
    };
    const [one, high] = boxOf('', 'I');
    const [two] = boxOf('', 'II');
    // A cell is one and a half letters wide: 15 mm.
    expect(two! - one!).toBeCloseTo(15, 3);
    expect(boxOf('ES1,0;', 'II')[0]! - one!).toBeCloseTo(30, 3);
    expect(boxOf('DI0,1;', 'II')).toEqual([expect.closeTo(high!, 3), expect.closeTo(two!, 3)]);
    expect(boxOf('SL0.5;', 'I')[0]! - one!).toBeCloseTo(5, 2);
    expect(boxOf('', 'I\r\nI')[1]! - high!).toBeCloseTo(20, 3);
    expect(boxOf('DT$;', 'II', '$')[0]).toBeCloseTo(two!, 6);
    expect(boxOf('DT$,0;', 'I', '$')[0]).toBeGreaterThan(15);
    expect(boxOf('CS33;CA0;SS;', 'II')[0]).toBeCloseTo(two!, 6);
    // Moved by two letters and one line up before it writes.
    const moved = readHpgl(new TextEncoder().encode('IN;SP1;PW.2;SI1,1;PU0,0;LBI\u0003;CP1,1;LBI\u0003;'), 'x.plt');
    expect([moved.widthMm - one!, moved.heightMm - high!]).toEqual([expect.closeTo(30, 3), expect.closeTo(20, 3)]);
  });

  it('a wide pen draws areas, and a fine one the outlines of areas', () => {
    const drawn = (pen: string) => {
      const artwork = readHpgl(
        new TextEncoder().encode(`IN;SP1;${pen}PU0,0;PD4000,0;PU0,400;PD400,400,400,800,0,800,0,400;PU;`),
        'x.plt',
      );
      return paintRegions(artwork, 1).regions.map(({ rings }) => Math.round(areaOf(rings)));
    };
    expect(drawn('')).toEqual([100]);
    expect(drawn('PW0.35;')).toEqual([100]);
    // A line of 100 mm, and the four sides of the square, 2 mm wide, with round ends.
    expect(drawn('PW2;')[0]).toBeCloseTo(200 + Math.PI + 80 + Math.PI - 4, -1);
    expect(drawn('WU1;IP0,0,4000,3000;PW1.6;')).toEqual(drawn('PW2;'));
  });

  it('is read behind the wrapping of a printer driver, comments and packed lines', () => {
    const { noticed, widthMm } = readHpgl(
      new TextEncoder().encode(
        '\u001bE\u001b%-1BIN;CO "PD0,0 LBno";\u001b.(;SP1;PU0,0;PD400,0,400,400,0,400,0,0;PE7<=PDXY;PU;\u001b%0A\u001bE',
      ),
      'x.plt',
    );
    expect(widthMm).toBeCloseTo(10, 6);
    expect(noticed.map((one) => ('name' in one ? one.name : one.code))).toEqual(['PE']);
  });
});
