/** A colour that stands for others that are like it. */
export interface ColourFamily {
  /** The one with most area. */
  readonly keep: string;
  readonly others: readonly string[];
}

/**
 * Colours gathered round the largest of them: each goes to the first, by area, that it differs from by less than `within` (CIEDE2000). Only families of more than one
 * are told. No colour is in two, and none is kept that another stands for.
 */
export function colourFamilies(
  colours: readonly { readonly colour: string; readonly areaMm2: number }[],
  within: number,
  difference: (a: string, b: string) => number,
): ColourFamily[] {
  const families: { readonly keep: string; readonly others: string[] }[] = [];
  for (const { colour } of [...colours].sort((a, b) => b.areaMm2 - a.areaMm2)) {
    const home = families.find(({ keep }) => difference(keep, colour) < within);
    if (home) home.others.push(colour);
    else families.push({ keep: colour, others: [] });
  }
  return families.filter(({ others }) => others.length > 0);
}

/** What is taken for what, with what was decided before: a colour that stood for others takes them along. */
export function withFamilies(
  recolour: Readonly<Record<string, string>>,
  families: readonly ColourFamily[],
): Record<string, string> {
  const heir = new Map(families.flatMap(({ keep, others }) => others.map((other) => [other, keep] as const)));
  return {
    ...Object.fromEntries(Object.entries(recolour).map(([from, to]) => [from, heir.get(to) ?? to])),
    ...Object.fromEntries(heir),
  };
}
