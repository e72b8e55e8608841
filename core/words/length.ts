/** Units a maker may type or choose to see. */
export type LengthUnit = 'mm' | 'cm' | 'in';

const MM_PER: Readonly<Record<string, number>> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: 25.4,
  inch: 25.4,
  inches: 25.4,
  '"': 25.4,
  ft: 304.8,
  "'": 304.8,
};

/** What was read: a length, or why it is none. “1,200” is 1.2 to some and 1200 to others, so it is asked about. */
export type LengthRead =
  | { readonly mm: number }
  | { readonly problem: 'no-length' }
  | { readonly problem: 'unclear'; readonly either: readonly [string, string] };

/** What is asked about a length, or a figure, that some read otherwise than others. */
export function sayUnclear(text: string, either: readonly [string, string]): string {
  return `“${text}” can be read in two ways: write ${either[0]} or ${either[1]}.`;
}

const NO_LENGTH: LengthRead = { problem: 'no-length' };

/** Digits in groups of three, parted by blanks or by the one of comma and point that is not the decimal sign. */
const GROUPED = [
  { number: /^\d{1,3}( \d{3})+([.,]\d+)?$/, group: / /g },
  { number: /^\d{1,3}(,\d{3})+\.\d+$|^\d{1,3}(,\d{3}){2,}$/, group: /,/g },
  { number: /^\d{1,3}(\.\d{3})+,\d+$|^\d{1,3}(\.\d{3}){2,}$/, group: /\./g },
] as const;

/** A whole part, then a fraction; either may be missing. The unit stands behind. */
const LENGTH = /^(?:([\d., ]*\d)(?:\s*-\s*|\s+|$|(?=[a-z"'/])))?(?:(\d+)\s*\/\s*(\d+))?\s*([a-z"']*)$/;
const FEET_AND_INCHES = /^(.+?)\s*(?:'|ft)\s*(.+?)\s*(?:"|in|inch|inches)?$/;

/**
 * Reads a length as people say it: "120", "12 cm", "1,4 m", "1 200", "4 3/4\"", "3-1/2in", "½ in", "5′", "4'6\"". A bare number is in `unit`.
 * What is negative, divides by zero or is written otherwise is no length.
 */
export function readLength(text: string, unit: LengthUnit = 'mm'): LengthRead {
  const tidy = text
    .toLowerCase()
    .replace(/[′’‘]/g, "'")
    .replace(/[″”“]|''/g, '"')
    .replace(/[¼½¾⅛⅜⅝⅞]/g, (c) => ` ${FRACTIONS[c] ?? ''}`)
    .replace(/\s+/g, ' ')
    .trim();
  const both = FEET_AND_INCHES.exec(tidy);
  if (!both) return readSingle(tidy, unit);
  const [feet, inches] = [readSingle(`${both[1]!} ft`, unit), readSingle(`${both[2]!} in`, unit)];
  return 'mm' in feet && 'mm' in inches && inches.mm < 304.8 - NANOMETRE
    ? { mm: exact(feet.mm + inches.mm) }
    : NO_LENGTH;
}

const NANOMETRE = 1e-6;

/** Without the hair by which binary fractions miss: 12" is 304.8, not 304.79999999999995. */
function exact(mm: number): number {
  return Number(mm.toFixed(6));
}

function readSingle(tidy: string, unit: LengthUnit): LengthRead {
  const match = LENGTH.exec(tidy);
  if (!match || (match[1] === undefined && match[2] === undefined)) return NO_LENGTH;
  const [, whole, numerator, denominator, suffix = ''] = match;
  const factor = suffix ? MM_PER[suffix] : MM_PER[unit];
  if (factor === undefined || (denominator !== undefined && Number(denominator) === 0)) return NO_LENGTH;
  if (whole !== undefined && /^[1-9]\d{0,2},\d{3}$/.test(whole))
    return { problem: 'unclear', either: [whole.replace(',', '.'), whole.replace(',', '')] };
  const value =
    (whole === undefined ? 0 : readNumber(whole)) +
    (numerator === undefined ? 0 : Number(numerator) / Number(denominator));
  return Number.isFinite(value) ? { mm: exact(value * factor) } : NO_LENGTH;
}

/** NaN for what is no number. */
function readNumber(text: string): number {
  const grouped = GROUPED.find(({ number }) => number.test(text));
  const plain = grouped ? text.replace(grouped.group, '') : text;
  return /^\d*[.,]?\d+$/.test(plain) ? Number(plain.replace(',', '.')) : NaN;
}

const FRACTIONS: Readonly<Record<string, string>> = {
  '¼': '1/4',
  '½': '1/2',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
};

const DECIMALS: Readonly<Record<LengthUnit, number>> = { mm: 1, cm: 2, in: 3 };

/** A length in the shop's unit with as many decimals as a maker can use: "212", "0.35", "8.346". No unit sign. */
export function formatLength(mm: number, unit: LengthUnit = 'mm'): string {
  const value = mm / MM_PER[unit]!;
  // Under 10 mm (traps, gaps) a tenth is too coarse.
  const decimals = DECIMALS[unit] + (mm < 10 && unit !== 'in' ? 1 : 0);
  return String(Number(value.toFixed(decimals)));
}
