import {
  boundsOf,
  compose,
  CurvesBuilder,
  flatten,
  IDENTITY,
  scaling,
  translation,
  type Matrix,
} from '../../../geometry/index.js';
import { HpglReader, UNITS_PER_MM, type Instruction } from '../../cutting/index.js';
import type { Artwork } from '../artwork.js';
import { JOIN_MM } from '../join-loops.js';
import { paintsOfLines, type ColouredLines } from '../line-paints.js';
import type { Noticed } from '../noticed.js';
import { Refusal } from '../refusal.js';

/** Of a plotter's pens, the colours that ours draw in; further pens begin anew. */
const PENS = ['#16181a', '#b3262b', '#1f6b45', '#1d4e89', '#f2b632', '#7a3e8e', '#8a5a2b', '#5b6770'];
/** Coordinates beyond this are rubbish: a kilometre, in plotter units. */
const FARTHEST = 1e6 * UNITS_PER_MM;
/** Curves are true to this, in plotter units: a four-hundredth of a millimetre. */
const TRUE_TO = 0.1;
const MOST_MOVES = 2_000_000;
/** Characters that are cut into instructions at once: the reader looks at all that waits each time. */
const AT_ONCE = 4096;
/** What sets a machine and draws nothing. */
const SILENT = new Set([
  'IN',
  'DF',
  'VS',
  'FS',
  'AS',
  'LT',
  'PW',
  'PT',
  'PS',
  'PG',
  'CO',
  'NR',
  'TB',
  'OH',
  'OS',
  'OE',
  'OA',
  'OI',
  'ES',
  'SI',
  'SR',
  'DI',
  'DR',
  'DT',
  'CS',
  'CA',
  'SS',
  'SA',
  'TL',
  'AC',
  'BP',
  'EC',
  'FR',
  'IW',
  'WU',
  'LA',
  'ZF',
  'CT',
  'NP',
  'PC',
  'CR',
  'TR',
  'UL',
  'MC',
  'QL',
  'VA',
  'VN',
]);
/** What draws, and is not read. */
const LEFT = new Set([
  'LB',
  'PE',
  'BZ',
  'BR',
  'RA',
  'RR',
  'WG',
  'EW',
  'FP',
  'EP',
  'PM',
  'UC',
  'SM',
  'BL',
  'PB',
  'XT',
  'YT',
  'RO',
]);

/**
 * Reads HP-GL of a plotter or an old cutter as lines by pen: what is driven with the pen down, with arcs, circles and edges of rectangles, at true size
 * (40 units to the millimetre). Closed lines are outlines, as in a DXF; a pen is a colour.
 *
 * @throws Refusal when nothing in it is drawn
 */
export function readHpgl(bytes: Uint8Array, source: string, joinEndsMm = 0): Artwork {
  const plotter = new Plotter();
  const reader = new HpglReader();
  const text = new TextDecoder('latin1').decode(bytes);
  for (let from = 0; from < text.length; from += AT_ONCE) {
    reader.push(text.slice(from, from + AT_ONCE));
    for (let next = reader.next(); next; next = reader.next()) plotter.take(next);
    if (plotter.moves > MOST_MOVES) throw new Refusal('too-many-shapes', { most: MOST_MOVES }, { source });
  }
  reader.push(';');
  for (let next = reader.next(); next; next = reader.next()) plotter.take(next);
  return plotter.artwork(source, Math.max(JOIN_MM, joinEndsMm));
}

/** A pen and where it is. Coordinates are plotter units, y up, once scaling is reckoned in. */
class Plotter {
  moves = 0;
  readonly #lines = new Map<number, Float64Array[]>();
  readonly #left = new Map<string, number>();
  #far = 0;
  #pen = 1;
  #isDown = false;
  #isRelative = false;
  #x = 0;
  #y = 0;
  #line: number[] = [];
  #corners: readonly number[] = [0, 0, 10_000, 7200];
  #scale: Matrix = IDENTITY;

  take({ name, text }: Instruction): void {
    const numbers = (text.match(/[-+]?(?:\d+\.?\d*|\.\d+)/g) ?? []).map(Number);
    switch (name) {
      case 'SP':
        this.#lift();
        this.#pen = numbers[0] ?? 0;
        return;
      case 'PU':
      case 'PD':
        if (name === 'PU') this.#lift();
        this.#isDown = name === 'PD';
        return this.#drive(numbers);
      case 'PA':
      case 'PR':
        this.#isRelative = name === 'PR';
        return this.#drive(numbers);
      case 'CI':
        return this.#circle(numbers[0] ?? 0);
      case 'AA':
      case 'AR':
        return this.#arc(
          name === 'AR'
            ? [this.#x + (numbers[0] ?? 0), this.#y + (numbers[1] ?? 0)]
            : [numbers[0] ?? 0, numbers[1] ?? 0],
          numbers[2] ?? 0,
        );
      case 'EA':
      case 'ER':
        return this.#edge(
          name === 'ER'
            ? [this.#x + (numbers[0] ?? 0), this.#y + (numbers[1] ?? 0)]
            : [numbers[0] ?? 0, numbers[1] ?? 0],
        );
      case 'IP':
        if (numbers.length >= 4) this.#corners = numbers;
        return;
      case 'SC':
        return this.#scaleTo(numbers);
      case 'RO':
        if ((numbers[0] ?? 0) !== 0) this.#left.set('RO', 1);
        return;
      case 'IN':
        // A machine that begins anew has its pen up.
        this.#lift();
        this.#isDown = false;
        this.#isRelative = false;
        this.#scale = IDENTITY;
        return;
      default:
        if (!SILENT.has(name)) {
          const told = LEFT.has(name) ? name : '';
          this.#left.set(told, (this.#left.get(told) ?? 0) + 1);
        }
    }
  }

  /** From the user's units, which stretch from corner to corner, to the plotter's. */
  #scaleTo([minX, maxX, minY, maxY]: readonly number[]): void {
    const [x1, y1, x2, y2] = this.#corners as [number, number, number, number];
    const isUsable = [minX, maxX, minY, maxY].every((v) => v !== undefined) && minX !== maxX && minY !== maxY;
    this.#scale = isUsable
      ? [
          translation(x1, y1),
          scaling((x2 - x1) / (maxX! - minX!), (y2 - y1) / (maxY! - minY!)),
          translation(-minX!, -minY!),
        ].reduce(compose)
      : IDENTITY;
  }

  #drive(numbers: readonly number[]): void {
    for (let i = 0; i + 1 < numbers.length; i += 2) {
      const [x, y] = this.#isRelative
        ? [this.#x + numbers[i]!, this.#y + numbers[i + 1]!]
        : [numbers[i]!, numbers[i + 1]!];
      this.#to(x, y);
    }
  }

  #to(x: number, y: number): void {
    this.moves += 1;
    if (this.#isDown) {
      if (this.#line.length === 0) this.#line.push(...this.#placed(this.#x, this.#y));
      this.#line.push(...this.#placed(x, y));
    }
    [this.#x, this.#y] = [x, y];
  }

  #placed(x: number, y: number): [number, number] {
    const [a, b, c, d, e, f] = this.#scale;
    return [a * x + c * y + e, b * x + d * y + f];
  }

  #lift(): void {
    if (this.#line.length >= 4) {
      if (!this.#line.every((v) => Math.abs(v) < FARTHEST)) this.#far += 1;
      else {
        const drawn = this.#lines.get(this.#pen) ?? [];
        this.#lines.set(this.#pen, drawn);
        drawn.push(Float64Array.from(this.#line));
      }
    }
    this.#line = [];
  }

  #circle(radius: number): void {
    this.#lift();
    const [x, y] = [this.#x, this.#y];
    this.#curve(
      new CurvesBuilder()
        .add('M', x + radius, y)
        .add('A', x, y, Math.abs(radius), Math.abs(radius), 0, radius < 0 ? Math.PI : 0, 2 * Math.PI)
        .add('Z'),
      true,
    );
    [this.#x, this.#y] = [x, y];
  }

  #arc([cx, cy]: readonly [number, number], sweepDeg: number): void {
    const radius = Math.hypot(this.#x - cx, this.#y - cy);
    if (!(radius > 0) || sweepDeg === 0) return;
    const from = Math.atan2(this.#y - cy, this.#x - cx);
    this.#curve(
      new CurvesBuilder()
        .add('M', this.#x, this.#y)
        .add('A', cx, cy, radius, radius, 0, from, (Math.max(-360, Math.min(360, sweepDeg)) * Math.PI) / 180),
      this.#isDown,
    );
  }

  /** Drives along a curve; circles are drawn whether the pen is down or not. */
  #curve(curve: CurvesBuilder, isDrawn: boolean): void {
    const before = this.#isDown;
    for (const { points, closed } of flatten(curve.build(), IDENTITY, TRUE_TO)) {
      if (closed) [this.#x, this.#y] = [points[0]!, points[1]!];
      this.#isDown = isDrawn;
      for (let i = closed ? 2 : 0; i < points.length; i += 2) this.#to(points[i]!, points[i + 1]!);
      if (closed) {
        this.#to(points[0]!, points[1]!);
        this.#lift();
      }
    }
    this.#isDown = before;
  }

  #edge([x, y]: readonly [number, number]): void {
    const [fromX, fromY, before] = [this.#x, this.#y, this.#isDown];
    this.#lift();
    this.#isDown = true;
    for (const [toX, toY] of [
      [x, fromY],
      [x, y],
      [fromX, y],
      [fromX, fromY],
    ] as const)
      this.#to(toX, toY);
    this.#lift();
    this.#isDown = before;
  }

  artwork(source: string, joinMm: number): Artwork {
    this.#lift();
    const noticed: Noticed[] = [...this.#left].map(([name, count]) => ({ code: 'hpgl-left', name, count }));
    if (this.#far > 0) noticed.push({ code: 'out-of-range', what: 'A line', why: 'far', count: this.#far });
    const box = boundsOf([...this.#lines.values()].flat());
    if (!box) throw new Refusal('hpgl-nothing-drawn', {}, { source });
    const { minX, minY, maxX, maxY } = box;
    const byColour = new Map<string, ColouredLines>();
    const lines = new CurvesBuilder();
    for (const [pen, drawn] of this.#lines) {
      const colour = PENS[(Math.max(1, Math.round(pen)) - 1) % PENS.length]!;
      const group = byColour.get(colour) ?? { loops: [], open: [] };
      byColour.set(colour, group);
      for (const line of drawn) {
        const points = Float64Array.from(line, (v, i) => (i % 2 === 0 ? v - minX : maxY - v) / UNITS_PER_MM);
        points.forEach((_, i) => i % 2 === 0 && lines.add(i === 0 ? 'M' : 'L', points[i]!, points[i + 1]!));
        const closes =
          points.length >= 8 && Math.hypot(points[0]! - points.at(-2)!, points[1]! - points.at(-1)!) < 1e-6;
        if (closes) group.loops.push(points.subarray(0, -2));
        else group.open.push([...points]);
      }
    }
    const paints = paintsOfLines(byColour, joinMm, (one) => noticed.push(one));
    return {
      widthMm: Math.max((maxX - minX) / UNITS_PER_MM, 1e-3),
      heightMm: Math.max((maxY - minY) / UNITS_PER_MM, 1e-3),
      paints,
      lines: [{ curves: lines.build(), matrix: IDENTITY }],
      noticed,
    };
  }
}
