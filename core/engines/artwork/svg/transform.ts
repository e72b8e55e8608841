import { compose, IDENTITY, rotation, scaling, translation, type Matrix } from '../../../geometry/index.js';
import { parseNumbers, parseSvgLength } from './lengths.js';

/** Reads a transform, as an attribute or a style sheet has it; null when any part of it is not understood, since half a transform misplaces the work. */
export function parseTransform(
  text: string | undefined,
  viewport: { readonly width: number; readonly height: number } = NO_VIEWPORT,
): Matrix | null {
  if (text === undefined || text.trim() === '' || text.trim() === 'none') return IDENTITY;
  let matrix: Matrix = IDENTITY;
  const pattern = /[\s,]*([a-zA-Z]+)\s*\(([^)]*)\)/y;
  let end = 0;
  for (let match = pattern.exec(text); match; match = pattern.exec(text)) {
    const step = oneTransform(match[1]!, match[2]!, viewport);
    if (!step) return null;
    matrix = compose(matrix, step);
    end = pattern.lastIndex;
  }
  return text.slice(end).trim() === '' ? matrix : null;
}

const NO_VIEWPORT = { width: 0, height: 0 };
const ORIGIN_WORDS: ReadonlyMap<string, string> = new Map([
  ['left', '0'],
  ['top', '0'],
  ['center', '50%'],
  ['right', '100%'],
  ['bottom', '100%'],
]);

/** A transform about the origin that a style sheet gives it. */
export function aboutOrigin(
  matrix: Matrix,
  origin: string,
  { width, height }: { readonly width: number; readonly height: number },
): Matrix {
  let [across = '0', down = across === 'top' || across === 'bottom' ? across : 'center'] = origin.trim().split(/\s+/);
  if (across === 'top' || across === 'bottom' || down === 'left' || down === 'right')
    [across, down] = [down === across ? 'center' : down, across];
  const x = parseSvgLength(ORIGIN_WORDS.get(across) ?? across, width) ?? 0;
  const y = parseSvgLength(ORIGIN_WORDS.get(down) ?? down, height) ?? 0;
  return x === 0 && y === 0 ? matrix : [matrix, translation(-x, -y)].reduce(compose, translation(x, y));
}

const DEGREES: ReadonlyMap<string, number> = new Map([
  ['', 1],
  ['deg', 1],
  ['grad', 0.9],
  ['rad', 180 / Math.PI],
  ['turn', 360],
]);

/** An angle in degrees, or null when it is none. */
function angleOf(text: string): number | null {
  const match = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)([a-z]*)$/i.exec(text);
  const unit = DEGREES.get(match?.[2]?.toLowerCase() ?? '');
  return match && unit !== undefined ? Number(match[1]) * unit : null;
}

/** Figures with or without a unit. */
const FIGURES = /[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?(?:%|[a-z]+)?/gi;

function oneTransform(
  name: string,
  list: string,
  viewport: { readonly width: number; readonly height: number },
): Matrix | null {
  // Numbers may follow each other with nothing but a sign between them.
  const given = list.match(FIGURES) ?? [];
  if (given.length === 0 || list.replace(FIGURES, '').replace(/[\s,]/g, '') !== '') return null;
  const plain = () => (given.some((one) => /[a-z%]$/i.test(one)) ? null : given.map(Number));
  const across = (one: string | undefined) => (one === undefined ? 0 : parseSvgLength(one, viewport.width));
  const down = (one: string | undefined) => (one === undefined ? 0 : parseSvgLength(one, viewport.height));
  switch (name) {
    case 'matrix': {
      const n = plain();
      return n?.length === 6 ? [n[0]!, n[1]!, n[2]!, n[3]!, n[4]!, n[5]!] : null;
    }
    case 'translate':
    case 'translateX':
    case 'translateY': {
      const [x, y] =
        name === 'translateY' ? [0, down(given[0])] : [across(given[0]), name === 'translateX' ? 0 : down(given[1])];
      return x === null || y === null ? null : translation(x, y);
    }
    case 'scale': {
      const n = plain();
      return n && scaling(n[0]!, n[1] ?? n[0]!);
    }
    case 'scaleX':
    case 'scaleY': {
      const n = plain();
      return n && (name === 'scaleX' ? scaling(n[0]!, 1) : scaling(1, n[0]!));
    }
    case 'rotate': {
      const [turn, x, y] = [angleOf(given[0]!), across(given[1]), down(given[2])];
      if (turn === null || x === null || y === null) return null;
      return given.length < 3
        ? rotation(turn)
        : [rotation(turn), translation(-x, -y)].reduce(compose, translation(x, y));
    }
    case 'skewX':
    case 'skewY': {
      const lean = angleOf(given[0]!);
      if (lean === null) return null;
      const t = Math.tan((lean * Math.PI) / 180);
      return name === 'skewX' ? [1, 0, t, 1, 0, 0] : [1, t, 0, 1, 0, 0];
    }
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
  const [align = 'xMidYMid', fit = 'meet'] = preserve
    .trim()
    .replace(/^defer\s+/, '')
    .split(/\s+/);
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
