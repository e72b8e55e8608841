import { CurvesBuilder } from '../../../geometry/index.js';
import { arc, ellipse, polyline } from './outlines.js';
import { splinePoints } from './spline.js';
import type { Entity, Tag } from './tags.js';

/** The boundaries of a hatch, all in one: closed loops, filled by even-odd. Loops that cannot be understood are left out and counted. */
export function hatchOutline(entity: Entity): { outline: CurvesBuilder; lost: number } {
  const out = new CurvesBuilder();
  const reader = new TagReader(entity.tags);
  let lost = 0;
  // The elevation point comes before the count of loops and must not be taken for a corner.
  if (!reader.skipTo(91)) return { outline: out, lost };
  const loops = Math.min(reader.number(91), 100_000);
  for (let i = 0; i < loops && reader.skipTo(92); i += 1) {
    const kind = reader.number(92);
    if ((kind & 2) === 2 ? !polylineLoop(out, reader) : !edgeLoop(out, reader)) lost += 1;
  }
  return { outline: out, lost };
}

function polylineLoop(out: CurvesBuilder, reader: TagReader): boolean {
  const hasBulge = reader.number(72) === 1;
  reader.number(73);
  const count = reader.number(93);
  const points = [];
  for (let i = 0; i < count && reader.peek() === 10; i += 1) {
    points.push({
      x: reader.number(10),
      y: reader.number(20),
      bulge: hasBulge && reader.peek() === 42 ? reader.number(42) : 0,
    });
  }
  return polyline(out, points, true) !== null;
}

function edgeLoop(out: CurvesBuilder, reader: TagReader): boolean {
  const count = reader.number(93);
  let begin = true;
  for (let i = 0; i < count && reader.peek() === 72; i += 1) {
    switch (reader.number(72)) {
      case 1:
        out.add(begin ? 'M' : 'L', reader.number(10), reader.number(20)).add('L', reader.number(11), reader.number(21));
        break;
      case 2: {
        const [x, y, r, fromDeg, toDeg] = [
          reader.number(10),
          reader.number(20),
          reader.number(40),
          reader.number(50),
          reader.number(51),
        ];
        arc(out, { x, y, r, fromDeg, toDeg }, begin, reader.number(73) === 0);
        break;
      }
      case 3: {
        const [x, y, majorX, majorY, ratio, a, b] = [
          reader.number(10),
          reader.number(20),
          reader.number(11),
          reader.number(21),
          reader.number(40),
          reader.number(50),
          reader.number(51),
        ];
        const [from, to] = [(a * Math.PI) / 180, (b * Math.PI) / 180];
        if (reader.number(73) === 0) ellipse(out, { x, y, majorX, majorY, ratio: -ratio, from, to }, begin);
        else ellipse(out, { x, y, majorX, majorY, ratio, from, to }, begin);
        break;
      }
      case 4: {
        const degree = reader.number(94);
        const rational = reader.number(73) === 1;
        reader.number(74);
        const [knotCount, controlCount] = [reader.number(95), reader.number(96)];
        const knots = Array.from({ length: Math.min(knotCount, 1e5) }, () => reader.number(40));
        const [control, weights]: [number[], number[]] = [[], []];
        for (let c = 0; c < controlCount && reader.peek() === 10; c += 1) {
          control.push(reader.number(10), reader.number(20));
          if (rational) weights.push(reader.number(42));
        }
        skipFit(reader);
        const points = splinePoints(degree, control, knots, weights);
        for (let p = 0; p + 1 < points.length; p += 2)
          out.add(begin && p === 0 ? 'M' : 'L', points[p]!, points[p + 1]!);
        break;
      }
      default:
        return false;
    }
    begin = false;
  }
  if (begin) return false;
  out.add('Z');
  return true;
}

/** Newer files give the points that a spline edge goes through as well, even when there are none. */
function skipFit(reader: TagReader): void {
  const count = reader.number(97);
  for (let i = 0; i < count && reader.peek() === 11; i += 1) {
    reader.number(11);
    reader.number(21);
  }
  for (const code of [12, 22, 13, 23]) reader.number(code);
}

/** Walks along the groups of a hatch, which mean something by their order only. */
class TagReader {
  #at = 0;

  constructor(private readonly tags: readonly Tag[]) {}

  peek(): number | null {
    return this.tags[this.#at]?.code ?? null;
  }

  skipTo(code: number): boolean {
    while (this.#at < this.tags.length && this.tags[this.#at]!.code !== code) this.#at += 1;
    return this.#at < this.tags.length;
  }

  /** The value here if its code is the one expected; 0, and no step, if not. */
  number(code: number): number {
    const tag = this.tags[this.#at];
    if (tag?.code !== code) return 0;
    this.#at += 1;
    const value = Number(tag.value);
    return Number.isFinite(value) ? value : 0;
  }
}
