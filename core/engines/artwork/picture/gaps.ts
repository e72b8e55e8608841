import { CurvesBuilder, type Curves, type Matrix } from '../../../geometry/index.js';
import type { Clip } from '../artwork.js';
import type { ThinLine } from './thin-lines.js';

/*
 * A thin line of the background through an area is a gap in it. It is taken out of what is painted as a band: its middle, as wide as it is.
 */

/**
 * What cuts a traced picture down to all but its gaps, as the clips of its paints: none where there are none.
 * `width` and `height` are the picture's, in pixels; `matrix` leads from pixels to mm.
 */
export function withoutGaps(
  gaps: readonly ThinLine[],
  { width, height }: { readonly width: number; readonly height: number },
  matrix: Matrix,
): readonly Clip[] {
  if (gaps.length === 0) return [];
  const outline = (curves: Curves) => ({ curves, matrix, rule: 'nonzero' as const, clips: [] });
  // Tips of outlines may reach beyond the picture.
  const all = new CurvesBuilder();
  addRing(all, [-width, -height, 2 * width, -height, 2 * width, 2 * height, -width, 2 * height]);
  return [
    { outlines: [outline(all.build()), ...gaps.map((gap) => ({ ...outline(bandOf(gap)), hides: true }))], clips: [] },
  ];
}

/** A line as a band of its width: a rectangle for each stretch, which reaches half the width into the next. */
function bandOf({ points, closed, widthPx }: ThinLine): Curves {
  const band = new CurvesBuilder();
  const half = widthPx / 2;
  const count = points.length / 2;
  const stretches = closed ? count : count - 1;
  for (let i = 0; i < stretches; i += 1) {
    const j = (i + 1) % count;
    const [x, y, endX, endY] = [points[2 * i]!, points[2 * i + 1]!, points[2 * j]!, points[2 * j + 1]!];
    const length = Math.hypot(endX - x, endY - y);
    if (length === 0) continue;
    const [dx, dy] = [(half * (endX - x)) / length, (half * (endY - y)) / length];
    const [before, after] = [closed || i > 0 ? 1 : 0, closed || i < stretches - 1 ? 1 : 0];
    const [fromX, fromY, toX, toY] = [x - before * dx, y - before * dy, endX + after * dx, endY + after * dy];
    addRing(band, [fromX + dy, fromY - dx, toX + dy, toY - dx, toX - dy, toY + dx, fromX - dy, fromY + dx]);
  }
  return band.build();
}

function addRing(to: CurvesBuilder, ring: readonly number[]): void {
  for (let i = 0; i < ring.length; i += 2) to.add(i === 0 ? 'M' : 'L', ring[i]!, ring[i + 1]!);
  to.add('Z');
}
