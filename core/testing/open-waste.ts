import { unite, type Ring } from '../geometry/index.js';
import type { seeded } from './seeded.js';

/** Random artwork for what is done with waste: stars, bars, frames with a gap, letters' rings, some of them large. Sizes in mm. */
export function openWaste(
  random: ReturnType<typeof seeded>,
  { widthMm, heightMm, shapes }: { readonly widthMm: number; readonly heightMm: number; readonly shapes: number },
): Ring[] {
  const rings: Ring[] = [];
  const star = (x: number, y: number, radius: number, points: number, inner: number) =>
    Float64Array.from(
      Array.from({ length: 2 * points }, (_, i) => {
        const [a, r] = [(Math.PI * i) / points, i % 2 === 0 ? radius : radius * inner];
        return [x + r * Math.cos(a), y + r * Math.sin(a)];
      }).flat(),
    );
  for (let i = 0; i < shapes; i += 1) {
    const [x, y] = [random() * widthMm, random() * heightMm];
    const kind = Math.floor(random() * 4);
    if (kind === 0) rings.push(star(x, y, 4 + random() * 90, 3 + Math.floor(random() * 9), 0.4 + random() * 0.6));
    else if (kind === 1) rings.push(...bar(x, y, 10 + random() * widthMm * 0.5, 3 + random() * 20));
    else if (kind === 2) rings.push(...bar(x, y, 3 + random() * 15, 10 + random() * heightMm * 0.5));
    // A frame that is open at one side: waste in it is no counter.
    else {
      const [w, h, t] = [60 + random() * 260, 60 + random() * 220, 4 + random() * 8];
      rings.push(
        ...bar(x, y, w, t),
        ...bar(x, y, t, h),
        ...bar(x, y + h - t, w, t),
        ...(random() < 0.5 ? bar(x + w - t, y + h * 0.4, t, h * 0.6) : []),
      );
    }
  }
  return unite(rings);
}

function bar(x: number, y: number, width: number, height: number): Ring[] {
  return [Float64Array.of(x, y, x + width, y, x + width, y + height, x, y + height)];
}
