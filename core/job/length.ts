/** Units a maker may type or choose to see. */
export type LengthUnit = 'mm' | 'cm' | 'in';

const MM_PER: Readonly<Record<string, number>> = {
  mm: 1, cm: 10, m: 1000, in: 25.4, inch: 25.4, inches: 25.4, '"': 25.4, '″': 25.4, '”': 25.4, ft: 304.8, "'": 304.8,
};

/**
 * Reads a length as people say it and gives mm: "120", "12 cm", "1,4 m", "4 3/4\"", "3-1/2in", "½ in", "5′".
 * A bare number is in `unit`. Gives null for what is not a length, is negative, or divides by zero.
 */
export function parseLength(text: string, unit: LengthUnit = 'mm'): number | null {
  const tidy = text
    .trim()
    .toLowerCase()
    .replace(/′/g, "'")
    .replace(/[¼½¾⅛⅜⅝⅞]/g, (c) => ` ${FRACTIONS[c] ?? ''}`)
    .replace(/,/g, '.')
    .trim();
  const match = /^(?:(\d*\.?\d+)(?:\s*-\s*|\s+|$|(?=[a-z"″”'])))?(?:(\d+)\s*\/\s*(\d+))?\s*([a-z"″”']*)$/.exec(tidy);
  if (!match || (match[1] === undefined && match[2] === undefined)) return null;
  const [, whole, numerator, denominator, suffix] = match;
  if (denominator !== undefined && Number(denominator) === 0) return null;
  const value = Number(whole ?? 0) + (numerator === undefined ? 0 : Number(numerator) / Number(denominator));
  const factor = suffix ? MM_PER[suffix] : MM_PER[unit];
  return factor === undefined || !Number.isFinite(value) ? null : value * factor;
}

const FRACTIONS: Readonly<Record<string, string>> = {
  '¼': '1/4', '½': '1/2', '¾': '3/4', '⅛': '1/8', '⅜': '3/8', '⅝': '5/8', '⅞': '7/8',
};

const DECIMALS: Readonly<Record<LengthUnit, number>> = { mm: 1, cm: 2, in: 3 };

/** A length in the shop's unit with as many decimals as a maker can use: "212", "0.35", "8.346". No unit sign. */
export function formatLength(mm: number, unit: LengthUnit = 'mm'): string {
  const value = mm / MM_PER[unit]!;
  // Under 10 mm (traps, gaps) a tenth is too coarse.
  const decimals = DECIMALS[unit] + (mm < 10 && unit !== 'in' ? 1 : 0);
  return String(Number(value.toFixed(decimals)));
}
