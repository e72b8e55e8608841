import {
  compose,
  CurvesBuilder,
  flatten,
  IDENTITY,
  inverse,
  scaling,
  translation,
  type Matrix,
} from '../../../geometry/index.js';
import { UNITS_PER_MM, type Instruction } from '../../cutting/index.js';
import { Lettering, type Spot } from './lettering.js';

/** What a pen drew in one go, plotter units, y up. */
export interface DrawnLine {
  readonly points: Float64Array;
  /** How wide the pen was said to be, mm; null where nothing was said. */
  readonly widthMm: number | null;
  /** A stroke of a letter, which encloses nothing. */
  readonly isLetter: boolean;
}

/** Coordinates beyond this are rubbish: a kilometre, in plotter units. */
const FARTHEST = 1e6 * UNITS_PER_MM;
/** Curves are true to this, in plotter units: a four-hundredth of a millimetre. */
const TRUE_TO = 0.1;
const USUAL_CORNERS: readonly number[] = [0, 0, 10_000, 7200];
const EVERY_PEN = 0;
/** What sets a machine or asks it, and draws nothing. */
const SILENT = new Set(
  'DF VS FS AS LT PT PS PG CO NR OH OS OE OA OI OP OC OW OF OD DT CS CA SS SA TL AC EC FR FT IW LA NP PC CR UL MC QL VA VN TD DV UF'.split(
    ' ',
  ),
);

/** A corner of a polygon, and whether the pen was down on the way to it. */
interface PolygonPoint extends Spot {
  readonly isDown: boolean;
}

/** A pen and where it is. Coordinates are in the user’s units until they are placed on the sheet. */
export class Plotter {
  moves = 0;
  readonly lines = new Map<number, DrawnLine[]>();
  /** How often what is not read came, by the instruction. */
  readonly left = new Map<string, number>();
  far = 0;
  readonly #letters = new Lettering();
  readonly #widths = new Map<number, number>();
  #isWidthOfDiagonal = false;
  #pen = 1;
  #isDown = false;
  #isRelative = false;
  #x = 0;
  #y = 0;
  #line: number[] = [];
  #corners = USUAL_CORNERS;
  #scale: Matrix = IDENTITY;
  #polygon: PolygonPoint[][] = [];
  #isPolygon = false;
  #stored = '';

  take({ name, text }: Instruction): void {
    if (name === 'LB') return this.#write(text);
    if (name === 'BL') {
      this.#stored = text;
      return;
    }
    // A mark at every corner; without one it ends that.
    if (name === 'SM' && text === '') return;
    const numbers = (text.match(/[-+]?(?:\d+\.?\d*|\.\d+)/g) ?? []).map(Number);
    if (this.#letters.set(name, numbers, this.#corners)) return;
    if (!this.#drives(name, numbers) && !this.#draws(name, numbers) && !this.#sets(name, numbers) && !SILENT.has(name))
      this.#leave(name);
  }

  /** Puts down what the pen was drawing. */
  lift(): void {
    if (this.#line.length >= 4) this.#keep(Float64Array.from(this.#line), false);
    this.#line = [];
  }

  /** Where the pen goes. */
  #drives(name: string, numbers: readonly number[]): boolean {
    const [a = 0, b = 0, ...others] = numbers;
    switch (name) {
      case 'SP':
        this.lift();
        this.#pen = a;
        return true;
      case 'PU':
      case 'PD':
        if (name === 'PU') this.lift();
        this.#isDown = name === 'PD';
        this.#drive(numbers);
        return true;
      case 'PA':
      case 'PR':
        this.#isRelative = name === 'PR';
        this.#drive(numbers);
        return true;
      case 'AA':
      case 'AR':
        this.#arc(name === 'AR' ? { x: this.#x + a, y: this.#y + b } : { x: a, y: b }, others[0] ?? 0);
        return true;
      case 'AT':
      case 'RT':
        this.#arcThrough(
          numbers.map((value, i) => (name === 'AT' ? value : value + (i % 2 === 0 ? this.#x : this.#y))),
        );
        return true;
      case 'BZ':
      case 'BR':
        this.#bezier(numbers, name === 'BR');
        return true;
      case 'CP': {
        this.lift();
        this.#put(this.#letters.moved(this.#placed(this.#x, this.#y), numbers, this.#corners));
        return true;
      }
      default:
        return false;
    }
  }

  /** What is drawn by itself; the pen is where it was afterwards. */
  #draws(name: string, numbers: readonly number[]): boolean {
    const [a = 0, b = 0, sweep = 0] = numbers;
    const { x, y } = { x: this.#x, y: this.#y };
    switch (name) {
      case 'CI':
        this.#around(a, 0, 360);
        return true;
      case 'EW':
      case 'WG':
        this.#around(a, b, sweep);
        return true;
      case 'EA':
      case 'RA':
        this.#rectangle(a, b);
        return true;
      case 'ER':
      case 'RR':
        this.#rectangle(x + a, y + b);
        return true;
      case 'PM':
        this.#polygonMode(a);
        return true;
      case 'FP':
        for (const corners of this.#polygon) this.#loop(corners);
        return true;
      case 'EP':
        this.#edgePolygon();
        return true;
      case 'PB':
        this.#write(this.#stored);
        return true;
      default:
        return false;
    }
  }

  /** What the coordinates and the pens mean. */
  #sets(name: string, numbers: readonly number[]): boolean {
    switch (name) {
      case 'IP':
        this.#corners =
          numbers.length >= 4
            ? numbers
            : numbers.length === 2
              ? // The second corner goes with the first.
                [
                  numbers[0]!,
                  numbers[1]!,
                  this.#corners[2]! - this.#corners[0]! + numbers[0]!,
                  this.#corners[3]! - this.#corners[1]! + numbers[1]!,
                ]
              : USUAL_CORNERS;
        return true;
      case 'SC':
        this.#scaleTo(numbers);
        return true;
      case 'PW': {
        const [width, pen] = numbers;
        if (pen === undefined) this.#widths.clear();
        if (width !== undefined) this.#widths.set(pen ?? EVERY_PEN, width);
        return true;
      }
      case 'WU':
        this.#isWidthOfDiagonal = numbers[0] === 1;
        this.#widths.clear();
        return true;
      case 'RO':
        if ((numbers[0] ?? 0) !== 0) this.#leave('RO');
        return true;
      case 'IN':
        // A machine that begins again has its pen up.
        this.lift();
        [this.#isDown, this.#isRelative, this.#scale] = [false, false, IDENTITY];
        [this.#polygon, this.#isPolygon] = [[], false];
        this.#corners = USUAL_CORNERS;
        return true;
      default:
        return false;
    }
  }

  #leave(name: string): void {
    this.left.set(name, (this.left.get(name) ?? 0) + 1);
  }

  /** From the user's units to the plotter's: stretched from corner to corner, by the same both ways, or so many plotter units each. */
  #scaleTo(numbers: readonly number[]): void {
    const [x1, y1, x2, y2] = this.#corners as [number, number, number, number];
    const [minX, maxX, minY, maxY, type = 0, left = 50, bottom = 50] = numbers;
    this.#scale = IDENTITY;
    if (minX === undefined || maxX === undefined || minY === undefined || maxY === undefined) return;
    if (type === 2) {
      if (maxX !== 0 && maxY !== 0)
        this.#scale = [translation(x1, y1), scaling(maxX, maxY), translation(-minX, -minY)].reduce(compose);
      return;
    }
    if (minX === maxX || minY === maxY) return;
    let [timesX, timesY] = [(x2 - x1) / (maxX - minX), (y2 - y1) / (maxY - minY)];
    let [fromX, fromY] = [x1, y1];
    if (type === 1) {
      const times = Math.min(Math.abs(timesX), Math.abs(timesY));
      [timesX, timesY] = [Math.sign(timesX) * times, Math.sign(timesY) * times];
      fromX += ((x2 - x1 - timesX * (maxX - minX)) * left) / 100;
      fromY += ((y2 - y1 - timesY * (maxY - minY)) * bottom) / 100;
    }
    this.#scale = [translation(fromX, fromY), scaling(timesX, timesY), translation(-minX, -minY)].reduce(compose);
  }

  #drive(numbers: readonly number[]): void {
    for (let i = 0; i + 1 < numbers.length; i += 2) {
      const [x, y] = this.#isRelative
        ? [this.#x + numbers[i]!, this.#y + numbers[i + 1]!]
        : [numbers[i]!, numbers[i + 1]!];
      this.#to(x, y);
    }
    this.#letters.begin(this.#placed(this.#x, this.#y));
  }

  #to(x: number, y: number): void {
    this.moves += 1;
    if (this.#isPolygon) this.#polygon.at(-1)!.push({ x, y, isDown: this.#isDown });
    else if (this.#isDown) {
      if (this.#line.length === 0) this.#line.push(...this.#pair(this.#x, this.#y));
      this.#line.push(...this.#pair(x, y));
    }
    [this.#x, this.#y] = [x, y];
  }

  #placed(x: number, y: number): Spot {
    const [a, b, c, d, e, f] = this.#scale;
    return { x: a * x + c * y + e, y: b * x + d * y + f };
  }

  #pair(x: number, y: number): [number, number] {
    const spot = this.#placed(x, y);
    return [spot.x, spot.y];
  }

  /** The pen is at a place of the sheet, without having drawn on the way. */
  #put({ x, y }: Spot): void {
    const back = inverse(this.#scale) ?? IDENTITY;
    const [a, b, c, d, e, f] = back;
    [this.#x, this.#y] = [a * x + c * y + e, b * x + d * y + f];
  }

  #keep(points: Float64Array, isLetter: boolean): void {
    if (!points.every((v) => Math.abs(v) < FARTHEST)) {
      this.far += 1;
      return;
    }
    const drawn = this.lines.get(this.#pen) ?? [];
    this.lines.set(this.#pen, drawn);
    drawn.push({ points, widthMm: this.#widthMm(), isLetter });
  }

  #widthMm(): number | null {
    const width = this.#widths.get(this.#pen) ?? this.#widths.get(EVERY_PEN);
    if (width === undefined) return null;
    const [x1, y1, x2, y2] = this.#corners as [number, number, number, number];
    return this.#isWidthOfDiagonal ? ((width / 100) * Math.hypot(x2 - x1, y2 - y1)) / UNITS_PER_MM : width;
  }

  /** A closed line through some corners, whether the pen is down or not; of a polygon that is being recorded another part. */
  #loop(corners: readonly Spot[]): void {
    if (this.#isPolygon) {
      this.#polygon.splice(
        -1,
        0,
        corners.map((corner) => ({ ...corner, isDown: true })),
      );
      return;
    }
    this.lift();
    this.moves += corners.length;
    if (corners.length < 3) return;
    this.#keep(Float64Array.from([...corners, corners[0]!].flatMap(({ x, y }) => this.#pair(x, y))), false);
  }

  #rectangle(x: number, y: number): void {
    const [fromX, fromY] = [this.#x, this.#y];
    this.#loop([
      { x: fromX, y: fromY },
      { x, y: fromY },
      { x, y },
      { x: fromX, y },
    ]);
  }

  /** A circle round the pen, or a wedge from it: from an angle on, so far. */
  #around(radius: number, fromDeg: number, sweepDeg: number): void {
    if (radius === 0 || sweepDeg === 0) return;
    const isWhole = Math.abs(sweepDeg) >= 360;
    // A negative radius begins on the other side.
    const from = (fromDeg * Math.PI) / 180 + (radius < 0 ? Math.PI : 0);
    const [x, y, r] = [this.#x, this.#y, Math.abs(radius)];
    const arc = this.#sampled(
      new CurvesBuilder()
        .add('M', x + r * Math.cos(from), y + r * Math.sin(from))
        .add('A', x, y, r, r, 0, from, ((isWhole ? 360 : sweepDeg) * Math.PI) / 180),
    );
    this.#loop(isWhole ? arc.slice(0, -1) : [{ x, y }, ...arc]);
  }

  /** The corners of a curve in the user's units, as true as they have to be on the sheet. */
  #sampled(curve: CurvesBuilder): Spot[] {
    const [a, b, c, d] = this.#scale;
    const times = Math.max(Math.hypot(a, b), Math.hypot(c, d));
    return flatten(curve.build(), IDENTITY, TRUE_TO / (times || 1)).flatMap(({ points }) =>
      Array.from({ length: points.length / 2 }, (_, i) => ({ x: points[2 * i]!, y: points[2 * i + 1]! })),
    );
  }

  #along(curve: CurvesBuilder): void {
    for (const { x, y } of this.#sampled(curve).slice(1)) this.#to(x, y);
  }

  #arc({ x: cx, y: cy }: Spot, sweepDeg: number): void {
    const radius = Math.hypot(this.#x - cx, this.#y - cy);
    if (!(radius > 0) || sweepDeg === 0) return;
    const from = Math.atan2(this.#y - cy, this.#x - cx);
    this.#along(
      new CurvesBuilder()
        .add('M', this.#x, this.#y)
        .add('A', cx, cy, radius, radius, 0, from, (Math.max(-360, Math.min(360, sweepDeg)) * Math.PI) / 180),
    );
  }

  /** An arc to a place through another. */
  #arcThrough([ix, iy, ex, ey]: readonly number[]): void {
    if (ix === undefined || iy === undefined || ex === undefined || ey === undefined) return;
    const [ax, ay] = [ix - this.#x, iy - this.#y];
    const [bx, by] = [ex - this.#x, ey - this.#y];
    const twice = 2 * (ax * by - ay * bx);
    if (twice === 0) return this.#to(ex, ey);
    const [aa, bb] = [ax * ax + ay * ay, bx * bx + by * by];
    const centre = { x: this.#x + (by * aa - ay * bb) / twice, y: this.#y + (ax * bb - bx * aa) / twice };
    const angle = (x: number, y: number) => Math.atan2(y - centre.y, x - centre.x);
    const turn = (angle(ex, ey) - angle(this.#x, this.#y)) * (180 / Math.PI);
    // Round by the side on which the place between lies.
    this.#arc(centre, twice > 0 ? (turn + 720) % 360 : (turn - 720) % 360);
    [this.#x, this.#y] = [ex, ey];
  }

  #bezier(numbers: readonly number[], isRelative: boolean): void {
    for (let i = 0; i + 5 < numbers.length; i += 6) {
      const [x, y] = isRelative ? [this.#x, this.#y] : [0, 0];
      const points = numbers.slice(i, i + 6).map((value, k) => value + (k % 2 === 0 ? x : y));
      this.#along(new CurvesBuilder().add('M', this.#x, this.#y).add('C', ...points));
    }
  }

  /** Begins, parts and ends a polygon, which is drawn when it is asked for. */
  #polygonMode(mode: number): void {
    this.lift();
    if (mode === 0) {
      this.#polygon = [[{ x: this.#x, y: this.#y, isDown: false }]];
      this.#isPolygon = true;
    } else if (this.#isPolygon) {
      if (mode === 2) {
        this.#isPolygon = false;
        this.#polygon = this.#polygon.filter((corners) => corners.length > 2);
      } else this.#polygon.push([]);
    }
  }

  /** The edges of the polygon on which the pen was down; each part is closed. */
  #edgePolygon(): void {
    const before = { x: this.#x, y: this.#y, isDown: this.#isDown };
    this.lift();
    for (const corners of this.#polygon) {
      const [first, ...others] = corners as [PolygonPoint, ...PolygonPoint[]];
      if (others.every(({ isDown }) => isDown)) {
        this.#loop(corners);
        continue;
      }
      [this.#x, this.#y] = [first.x, first.y];
      for (const { x, y, isDown } of [...others, { ...first, isDown: others.at(-1)!.isDown }]) {
        if (!isDown) this.lift();
        this.#isDown = isDown;
        this.#to(x, y);
      }
      this.lift();
    }
    [this.#x, this.#y, this.#isDown] = [before.x, before.y, before.isDown];
  }

  #write(text: string): void {
    this.lift();
    const { strokes, end, missing } = this.#letters.write(text, this.#placed(this.#x, this.#y), this.#corners);
    for (const stroke of strokes) this.#keep(stroke, true);
    this.moves += strokes.reduce((sum, { length }) => sum + length / 2, 0);
    this.#put(end);
    if (missing > 0) this.left.set('LB', (this.left.get('LB') ?? 0) + missing);
  }
}
