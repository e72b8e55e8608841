/** CSS fixes the inch at 96 px. */
export const MM_PER_PX = 25.4 / 96;

const PX_PER: ReadonlyMap<string, number> = new Map(
  Object.entries({
    '': 1,
    px: 1,
    mm: 96 / 25.4,
    cm: 960 / 25.4,
    q: 24 / 25.4,
    in: 96,
    pt: 96 / 72,
    pc: 16,
  }),
);

/**
 * An SVG length in user units, or null when it is none. Percentages are of `reference`; em is `fontSize`, ex half of it.
 */
export function parseSvgLength(text: string | undefined, reference: number, fontSize = 16): number | null {
  if (text === undefined) return null;
  const match = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*(%|[a-z]*)\s*$/i.exec(text);
  if (!match) return null;
  const value = Number(match[1]);
  const unit = match[2]!.toLowerCase();
  if (!Number.isFinite(value)) return null;
  if (unit === '%') return (value / 100) * reference;
  if (unit === 'em') return value * fontSize;
  if (unit === 'ex') return (value * fontSize) / 2;
  const factor = PX_PER.get(unit);
  return factor === undefined ? null : value * factor;
}

/** All numbers of a list separated by white space or commas; stops at the first thing that is not a number. */
export function parseNumbers(text: string): number[] {
  const numbers: number[] = [];
  const pattern = /[\s,]*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)/iy;
  for (let match = pattern.exec(text); match; match = pattern.exec(text)) {
    const value = Number(match[1]);
    if (!Number.isFinite(value)) break;
    numbers.push(value);
  }
  return numbers;
}

/** All lengths of a list separated by white space or commas, in user units; null when one of them is none. */
export function parseSvgLengths(text: string, reference: number, fontSize: number): number[] | null {
  const lengths = text
    .split(/[\s,]+/)
    .filter(Boolean)
    .map((one) => parseSvgLength(one, reference, fontSize));
  return lengths.every((length) => length !== null) ? lengths : null;
}

/** An opacity from 0 to 1, given as a number or in percent; solid when it is neither. */
export function parseOpacity(text: string): number {
  const value = parseSvgLength(text, 1);
  return value === null ? 1 : Math.min(1, Math.max(0, value));
}
