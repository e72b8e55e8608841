/** A figure for a report: three decimals are a micron or a millisecond. */
export function numberOf(value: number): number {
  return Number(value.toFixed(3));
}
