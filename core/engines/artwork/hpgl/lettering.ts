import { strokesOf } from '../../../geometry/stroke-letters.js';
import { UNITS_PER_MM } from '../../cutting/index.js';

/** A place or a way in plotter units, y up. */
export interface Spot {
  readonly x: number;
  readonly y: number;
}

/** Letters of a plotter in the sheet's usual size, cm (A4). Source: the HP-GL reference of desk plotters. */
const USUAL_CM = { width: 0.187, height: 0.269 };
/** A letter's cell is wider and higher than the letter, times. */
const CELL = { width: 1.5, height: 2 };
/** The stroke font’s own figures: where a letter begins within its width, how wide a capital is drawn, and where it stands. */
const FONT = { begins: 4, width: 14, height: 21, foot: 9 };
const UNITS_PER_CM = 10 * UNITS_PER_MM;
const [BACKSPACE, TAB, LINE_FEED, CARRIAGE_RETURN] = ['\b', '\t', '\n', '\r'];

/** Where labels stand against the pen: 1 to 9 in three columns from the left, each from the foot up; 11 to 19 the same, half a letter away. */
const ORIGINS = { rows: 3, away: 10 };

/** How a plotter writes by itself: the size, way and slant of its letters, and where the line that it writes began. */
export class Lettering {
  #widthCm = USUAL_CM.width;
  #heightCm = USUAL_CM.height;
  /** Of the way between the corners, percent; null where the size is given by itself. */
  #relative: readonly [number, number] | null = null;
  #angle = 0;
  #slant = 0;
  #more = { spaces: 0, lines: 0 };
  #origin = 1;
  #begin: Spot = { x: 0, y: 0 };

  /** The pen was driven: a line of letters begins there. */
  begin(at: Spot): void {
    this.#begin = at;
  }

  /** Takes a setting of the letters; `corners` are P1 and P2, plotter units. Whether the instruction is one. */
  set(name: string, numbers: readonly number[], [x1, y1, x2, y2]: readonly number[]): boolean {
    const [a, b] = numbers;
    switch (name) {
      case 'SI':
        [this.#widthCm, this.#heightCm] = [a ?? USUAL_CM.width, b ?? USUAL_CM.height];
        this.#relative = null;
        return true;
      case 'SR':
        this.#relative = [a ?? 0.75, b ?? 1.5];
        return true;
      case 'DI':
        this.#angle = Math.atan2(b ?? 0, a ?? 1);
        return true;
      case 'DR':
        this.#angle = Math.atan2((b ?? 0) * (y2! - y1!), (a ?? 1) * (x2! - x1!));
        return true;
      case 'SL':
        this.#slant = a ?? 0;
        return true;
      case 'ES':
        this.#more = { spaces: a ?? 0, lines: b ?? 0 };
        return true;
      case 'LO':
        this.#origin = a ?? 1;
        return true;
      default:
        return false;
    }
  }

  /** Moves the pen by so many letters and lines, the next line being further down. */
  moved(at: Spot, [spaces, lines]: readonly number[], corners: readonly number[]): Spot {
    // Without figures it is the beginning of the next line.
    if (spaces === undefined) return this.#nextLine(corners);
    const { x, y } = this.#along(spaces * this.#pitch(corners), (lines ?? 0) * this.#lineHeight(corners));
    return { x: at.x + x, y: at.y + y };
  }

  /** The strokes of a text from a place on, plotter units; where the pen is afterwards; and how many letters the stroke font does not have. */
  write(
    text: string,
    at: Spot,
    corners: readonly number[],
  ): { readonly strokes: Float64Array[]; readonly end: Spot; readonly missing: number } {
    const [width, height] = this.#size(corners);
    const strokes: Float64Array[] = [];
    let missing = 0;
    let pen = this.#fromOrigin(text, at, corners);
    this.#begin = pen;
    for (const letter of text) {
      if (letter === CARRIAGE_RETURN) pen = this.#begin;
      else if (letter === LINE_FEED) {
        pen = this.moved(pen, [0, -1], corners);
        this.#begin = this.moved(this.#begin, [0, -1], corners);
      } else if (letter === BACKSPACE) pen = this.moved(pen, [-1, 0], corners);
      else if (letter === TAB) pen = this.moved(pen, [-0.5, 0], corners);
      else if (letter >= ' ') {
        const drawn = strokesOf(letter);
        if (drawn.length === 0 && letter !== ' ') missing += 1;
        for (const stroke of drawn)
          strokes.push(
            Float64Array.from(
              stroke.flatMap(([px, py]) => {
                const up = ((FONT.foot - py) / FONT.height) * height;
                const { x, y } = this.#along(((px - FONT.begins) / FONT.width) * width + this.#slant * up, up);
                return [pen.x + x, pen.y + y];
              }),
            ),
          );
        pen = this.moved(pen, [1, 0], corners);
      }
    }
    // Written from the middle or the right, the pen goes back to where it was.
    return { strokes, end: this.#column === 0 ? pen : at, missing };
  }

  get #column(): number {
    return Math.floor(((this.#origin % ORIGINS.away) - 1) / ORIGINS.rows);
  }

  #fromOrigin(text: string, at: Spot, corners: readonly number[]): Spot {
    const [width, height] = this.#size(corners);

    const letters = text.replace(/[\u0000-\u001f]/g, '').length;
    const long = letters * this.#pitch(corners) - (this.#pitch(corners) - width);
    const row = ((this.#origin % ORIGINS.away) - 1) % ORIGINS.rows;
    const away = this.#origin > ORIGINS.away ? 1 : 0;
    const column = this.#column;
    const { x, y } = this.#along(
      (-column / 2) * long + away * (1 - column) * (width / 2),
      (-row / 2) * height + away * (1 - row) * (height / 2),
    );
    return { x: at.x + x, y: at.y + y };
  }

  #nextLine(corners: readonly number[]): Spot {
    this.#begin = this.moved(this.#begin, [0, -1], corners);
    return this.#begin;
  }

  #size([x1, y1, x2, y2]: readonly number[]): [number, number] {
    return this.#relative
      ? [(this.#relative[0] / 100) * (x2! - x1!), (this.#relative[1] / 100) * (y2! - y1!)]
      : [this.#widthCm * UNITS_PER_CM, this.#heightCm * UNITS_PER_CM];
  }

  #pitch(corners: readonly number[]): number {
    return this.#size(corners)[0] * CELL.width * (1 + this.#more.spaces);
  }

  #lineHeight(corners: readonly number[]): number {
    return this.#size(corners)[1] * CELL.height * (1 + this.#more.lines);
  }

  /** So far along the line and up from it. */
  #along(along: number, up: number): Spot {
    const [cos, sin] = [Math.cos(this.#angle), Math.sin(this.#angle)];
    return { x: along * cos - up * sin, y: along * sin + up * cos };
  }
}
