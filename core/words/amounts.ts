/*
 * Amounts as people say them.
 */

/** Seconds: "40 s", "14 min", "1 h 05". */
export function sayDuration(seconds: number): string {
  if (seconds < 90) return `${Math.max(0, Math.round(seconds))} s`;
  const minutes = Math.round(seconds / 60);
  return minutes < 90 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`;
}

/** Areas in cm², the size a hand knows; from a square metre on in m². */
export function sayArea(mm2: number): string {
  const cm2 = mm2 / 100;
  if (cm2 >= 10_000) return `${(cm2 / 10_000).toFixed(2)} m²`;
  return `${cm2 < 10 ? cm2.toFixed(1) : Math.round(cm2)} cm²`;
}

/** "1 sheet", "3 sheets". */
export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}

/** Things named in a row: "a", "a and b", "a, b and c". */
export function listed(names: readonly string[]): string {
  return LIST.format(names);
}

const LIST = new Intl.ListFormat('en-GB');

/** The first of some names, and how many more there are: at most one more than `most`, since “1 more” is no shorter than a name. */
export function firstNamed(names: readonly string[], most: number): readonly string[] {
  return names.length > most + 1 ? [...names.slice(0, most), `${names.length - most} more`] : names;
}
