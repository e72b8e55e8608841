import { compose, IDENTITY, rotation, scaling, translation, type Matrix } from '../../../geometry/index.js';
import { parseNumbers } from './lengths.js';

/** Reads a transform attribute; null when any part of it is not understood, since half a transform misplaces the work. */
export function parseTransform(text: string | undefined): Matrix | null {
  if (text === undefined || text.trim() === '' || text.trim() === 'none') return IDENTITY;
  let matrix: Matrix = IDENTITY;
  const pattern = /[\s,]*([a-zA-Z]+)\s*\(([^)]*)\)/y;
  let end = 0;
  for (let match = pattern.exec(text); match; match = pattern.exec(text)) {
    const step = oneTransform(match[1]!, parseNumbers(match[2]!));
    if (!step) return null;
    matrix = compose(matrix, step);
    end = pattern.lastIndex;
  }
  return text.slice(end).trim() === '' ? matrix : null;
}

function oneTransform(name: string, n: number[]): Matrix | null {
  const [a = 0, b, c] = n;
  if (n.length === 0) return null;
  switch (name) {
    case 'matrix':
      return n.length === 6 ? [n[0]!, n[1]!, n[2]!, n[3]!, n[4]!, n[5]!] : null;
    case 'translate':
      return translation(a, b ?? 0);
    case 'scale':
      return scaling(a, b ?? a);
    case 'rotate':
      return b === undefined || c === undefined
        ? rotation(a)
        : compose(compose(translation(b, c), rotation(a)), translation(-b, -c));
    case 'skewX':
      return [1, 0, Math.tan((a * Math.PI) / 180), 1, 0, 0];
    case 'skewY':
      return [1, Math.tan((a * Math.PI) / 180), 0, 1, 0, 0];
    default:
      return null;
  }
}

export interface ViewBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Reads a viewBox; null when it is absent, malformed, or has no area. */
export function parseViewBox(text: string | undefined): ViewBox | null {
  const [x, y, width, height] = parseNumbers(text ?? '');
  if (height === undefined || !(width! > 0) || !(height > 0)) return null;
  return { x: x!, y: y!, width: width!, height };
}

/** The map from viewBox units to a viewport of the given size, as preserveAspectRatio says. */
export function viewBoxMatrix(box: ViewBox, width: number, height: number, preserve = 'xMidYMid meet'): Matrix {
  const [align = 'xMidYMid', fit = 'meet'] = preserve.trim().replace(/^defer\s+/, '').split(/\s+/);
  const sx = width / box.width;
  const sy = height / box.height;
  if (align === 'none') return [sx, 0, 0, sy, -box.x * sx, -box.y * sy];
  const s = fit === 'slice' ? Math.max(sx, sy) : Math.min(sx, sy);
  const at = (axis: 'x' | 'Y', spare: number) => {
    const where = new RegExp(`${axis}(Min|Mid|Max)`).exec(align)?.[1] ?? 'Mid';
    return where === 'Min' ? 0 : where === 'Max' ? spare : spare / 2;
  };
  return [s, 0, 0, s, at('x', width - box.width * s) - box.x * s, at('Y', height - box.height * s) - box.y * s];
}
