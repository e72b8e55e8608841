/** Words that are their own labels. */
export function words(values: readonly string[]): readonly (readonly [string, string])[] {
  return values.map((value) => [value, value] as const);
}
