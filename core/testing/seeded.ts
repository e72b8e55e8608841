import { boxRing, unite, type Ring, type Rings } from '../geometry/index.js';

/** A seeded generator of numbers from 0 to 1 (xorshift32): a failing case can be run again by its seed. */
export function seeded(seed: number): () => number {
  let state = (seed + 1) * 0x9e3779b9;
  return () => {
    state ^= state << 13;
    state ^= state >>> 17;
    state ^= state << 5;
    return (state >>> 0) / 4294967296;
  };
}

export function rectangle(x: number, y: number, width: number, height: number): Ring {
  return boxRing({ minX: x, minY: y, maxX: x + width, maxY: y + height });
}

/** A regular outline of `points` corners, positive area. */
export function disc(x: number, y: number, radius: number, points = 48): Ring {
  return Float64Array.from({ length: 2 * points }, (_, i) => {
    const t = (Math.PI * 2 * Math.floor(i / 2)) / points;
    return i % 2 === 0 ? x + radius * Math.cos(t) : y + radius * Math.sin(t);
  });
}

/** A star-shaped blob about x, y: bumpy, sometimes thin, never crossing itself. */
export function blob(random: () => number, x: number, y: number, size: number): Ring {
  const points = 5 + Math.floor(random() * 14);
  const out = new Float64Array(2 * points);
  for (let i = 0; i < points; i += 1) {
    const t = (2 * Math.PI * i) / points;
    const r = size * (0.25 + 0.75 * random());
    out[2 * i] = x + r * Math.cos(t);
    out[2 * i + 1] = y + r * Math.sin(t);
  }
  return out;
}

/** Painted areas as an artwork has them: blobs, discs and rings on a sheet of about 100 mm, in `colours` layers. */
export function randomPaints(seed: number, count: number, colours: number): { layer: string; rings: Rings }[] {
  const random = seeded(seed);
  return Array.from({ length: count }, (_, i) => {
    const [x, y, size] = [random() * 100, random() * 100, 4 + random() * 24];
    const kind = random();
    const rings =
      kind < 0.5
        ? unite([blob(random, x, y, size)])
        : kind < 0.8
          ? unite([disc(x, y, size)])
          : unite([disc(x, y, size), disc(x, y, size * 0.6)], 'evenodd');
    return { layer: `film-${i < colours ? i : Math.floor(random() * colours)}`, rings };
  });
}
