import { boundsOf, CurvesBuilder, IDENTITY, signedArea, squareToEdge } from '../../geometry/index.js';
import { atPlaces } from '../../words/index.js';
import type { Paint } from './artwork.js';
import { SAME_MM, withoutDoubledLines } from './doubled-lines.js';
import { joiningReach, joinLoops, type OpenLine } from './join-loops.js';
import type { Noticed } from './noticed.js';

/** The lines of one colour, mm: those that close, and those that do not. */
export interface ColouredLines {
  readonly loops: Float64Array[];
  readonly open: OpenLine[];
}

/**
 * What a drawing of lines encloses: per colour all closed outlines, nested by even-odd; the larger colour lies below. Open ends within `joinMm` are joined into loops, what
 * is drawn twice counts once, and what stays open is noticed.
 */
export function paintsOfLines(
  byColour: ReadonlyMap<string, ColouredLines>,
  joinMm: number,
  note: (noticed: Noticed) => void,
): Paint[] {
  const paints: (Paint & { readonly size: number })[] = [];
  for (const [colour, { loops, open }] of byColour) {
    const single = withoutDoubledLines(open, loops);
    const joined = joinLoops(single.open, joinMm);
    if (joined.open.length > 0) {
      const places = joined.open.map((line) => boundsOf([Float64Array.from(line)])!);
      note({
        code: 'open-outline',
        colour,
        fills: false,
        reachMm: joiningReach(joined.open, joinMm),
        ...atPlaces(places),
      });
    }
    const { kept, doubled } = withoutDoubles([...loops, ...joined.loops.map((loop) => Float64Array.from(loop))]);
    if (doubled + single.doubled > 0) note({ code: 'painted-twice', count: doubled + single.doubled });
    if (kept.length === 0) continue;
    const curves = new CurvesBuilder();
    for (const loop of kept) {
      curves.add('M', loop[0]!, loop[1]!);
      for (let i = 2; i < loop.length; i += 2) curves.add('L', loop[i]!, loop[i + 1]!);
      curves.add('Z');
    }
    const size = Math.max(...kept.map((loop) => Math.abs(signedArea(loop))));
    paints.push({
      colour,
      curves: curves.build(),
      matrix: IDENTITY,
      how: { kind: 'fill', rule: 'evenodd' },
      clips: [],
      element: `outlines in ${colour}`,
      elementIndex: paints.length,
      size,
    });
  }
  return paints.sort((a, b) => b.size - a.size).map(({ size: _, ...paint }) => paint);
}

/** Each loop once: under even-odd, one that is drawn twice would vanish. */
function withoutDoubles(loops: readonly Float64Array[]): { kept: Float64Array[]; doubled: number } {
  const seen = new Map<string, Float64Array[]>();
  const kept = loops.filter((loop) => {
    const box = boundsOf([loop])!;
    const key = [box.minX, box.minY, box.maxX, box.maxY, Math.sqrt(Math.abs(signedArea(loop)))]
      .map((v) => Math.round(v / SAME_MM))
      .join(' ');
    const alike = seen.get(key) ?? [];
    seen.set(key, alike);
    if (alike.some((other) => liesOn(loop, other) && liesOn(other, loop))) return false;
    alike.push(loop);
    return true;
  });
  return { kept, doubled: loops.length - kept.length };
}

/** So many points of a loop are looked at, evenly spread: other loops of the same box and area differ at many. */
const LOOKED_AT = 64;

/** Whether a loop runs along another. */
function liesOn(loop: Float64Array, other: Float64Array): boolean {
  const n = loop.length / 2;
  const count = Math.min(n, LOOKED_AT);
  return Array.from({ length: count }, (_, k) => Math.floor((k * n) / count)).every((i) => {
    for (let a = other.length - 2, b = 0; b < other.length; a = b, b += 2)
      if (
        squareToEdge(loop[2 * i]!, loop[2 * i + 1]!, other[a]!, other[a + 1]!, other[b]!, other[b + 1]!) <=
        (2 * SAME_MM) ** 2
      )
        return true;
    return false;
  });
}
