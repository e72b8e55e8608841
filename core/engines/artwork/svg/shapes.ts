import { CurvesBuilder, type Curves } from '../../../geometry/index.js';
import { parseNumbers, parseSvgLength } from './lengths.js';
import { parsePathData } from './path-data.js';
import type { XmlElement } from './xml.js';

export const SHAPE_NAMES: ReadonlySet<string> = new Set([
  'path',
  'rect',
  'circle',
  'ellipse',
  'line',
  'polyline',
  'polygon',
]);

/** A shape element's outline in its user space; null when it draws nothing (no size, no points). `error` says what was cut short. */
export function shapeCurves(
  element: Pick<XmlElement, 'name' | 'attributes'>,
  viewport: { readonly width: number; readonly height: number },
  fontSize: number,
): { curves: Curves | null; error: string | null } {
  const a = element.attributes;
  const across = (name: string) => parseSvgLength(a[name], viewport.width, fontSize);
  const down = (name: string) => parseSvgLength(a[name], viewport.height, fontSize);
  const diagonal = Math.hypot(viewport.width, viewport.height) / Math.SQRT2;
  const none = { curves: null, error: null };
  switch (element.name) {
    case 'path': {
      const { curves, error } = parsePathData(a['d'] ?? '');
      return { curves: curves.ops.length > 0 ? curves : null, error };
    }
    case 'rect': {
      const [x, y, w, h] = [across('x') ?? 0, down('y') ?? 0, across('width') ?? 0, down('height') ?? 0];
      if (!(w > 0) || !(h > 0)) return none;
      const [rx, ry] = [across('rx'), down('ry')];
      return {
        curves: rectangle(x, y, w, h, Math.min(rx ?? ry ?? 0, w / 2), Math.min(ry ?? rx ?? 0, h / 2)),
        error: null,
      };
    }
    case 'circle':
    case 'ellipse': {
      const r = parseSvgLength(a['r'], diagonal, fontSize);
      const rx = element.name === 'circle' ? r : (across('rx') ?? down('ry'));
      const ry = element.name === 'circle' ? r : (down('ry') ?? across('rx'));
      if (!rx || !ry || rx < 0 || ry < 0) return none;
      const [cx, cy] = [across('cx') ?? 0, down('cy') ?? 0];
      return {
        curves: new CurvesBuilder()
          .add('M', cx + rx, cy)
          .add('A', cx, cy, rx, ry, 0, 0, 2 * Math.PI)
          .add('Z')
          .build(),
        error: null,
      };
    }
    case 'line': {
      const out = new CurvesBuilder()
        .add('M', across('x1') ?? 0, down('y1') ?? 0)
        .add('L', across('x2') ?? 0, down('y2') ?? 0);
      return { curves: out.build(), error: null };
    }
    default: {
      const n = parseNumbers(a['points'] ?? '');
      const error = n.length % 2 === 1 ? 'its points list has an odd number of coordinates' : null;
      if (n.length < 4) return { curves: null, error };
      const out = new CurvesBuilder().add('M', n[0]!, n[1]!);
      for (let i = 2; i + 1 < n.length; i += 2) out.add('L', n[i]!, n[i + 1]!);
      if (element.name === 'polygon') out.add('Z');
      return { curves: out.build(), error };
    }
  }
}

/** A rectangle, its corners rounded by quarter ellipses when both radii are above 0. */
export function rectangle(x: number, y: number, w: number, h: number, rx = 0, ry = 0): Curves {
  const out = new CurvesBuilder();
  if (!(rx > 0) || !(ry > 0)) {
    return out
      .add('M', x, y)
      .add('L', x + w, y)
      .add('L', x + w, y + h)
      .add('L', x, y + h)
      .add('Z')
      .build();
  }
  const quarter = Math.PI / 2;
  return out
    .add('M', x + rx, y)
    .add('L', x + w - rx, y)
    .add('A', x + w - rx, y + ry, rx, ry, 0, -quarter, quarter)
    .add('L', x + w, y + h - ry)
    .add('A', x + w - rx, y + h - ry, rx, ry, 0, 0, quarter)
    .add('L', x + rx, y + h)
    .add('A', x + rx, y + h - ry, rx, ry, 0, quarter, quarter)
    .add('L', x, y + ry)
    .add('A', x + rx, y + ry, rx, ry, 0, 2 * quarter, quarter)
    .add('Z')
    .build();
}
