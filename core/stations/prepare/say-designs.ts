import { firstNamed, formatLength, listed, type Ruling } from '../../words/index.js';
import type { PreparePatch } from './decisions.js';

/** What was ruled for one of several designs. */
export interface RuledDesign {
  readonly label: string;
  readonly rulings: readonly Ruling<PreparePatch>[];
}

/** So many designs are named; of more the first. */
const MOST_NAMED = 4;

/**
 * What was ruled for several designs that are prepared one by one. Designs of which the same is said share a ruling, which names them when others differ. The one that offers a choice comes first and keeps the
 * ruling's id: a design of one layer, which needs no marks, must not hide the choice from all others.
 */
export function rulingsOfDesigns(designs: readonly RuledDesign[]): Ruling<PreparePatch>[] {
  const ids = [...new Set(designs.flatMap(({ rulings }) => rulings.map(({ id }) => id)))];
  return ids.flatMap((id) => {
    const groups = new Map<string, { readonly label: string; readonly ruling: Ruling<PreparePatch> }[]>();
    for (const { label, rulings } of designs) {
      const ruling = rulings.find((one) => one.id === id);
      // What leaves a choice has other reasons than what does not.
      const key = ruling && `${ruling.sentence} ${ruling.alternatives !== undefined}`;
      if (key) groups.set(key, [...(groups.get(key) ?? []), { label, ruling }]);
    }
    const inOrder = [...groups.values()].sort((a, b) => choices(b) - choices(a));
    const named = (group: readonly { readonly label: string }[]) =>
      listed(
        firstNamed(
          group.map(({ label }) => label),
          MOST_NAMED,
        ),
      );
    return inOrder.map((group, i): Ruling<PreparePatch> => {
      const { ruling } = group[0]!;
      const namesDesigns = inOrder.length > 1;
      return {
        ...ruling,
        id: i === 0 ? id : `${id}.${i + 1}`,
        subject: namesDesigns ? `${ruling.subject}: ${named(group)}` : ruling.subject,
        sentence: namesDesigns ? `${named(group)}: ${ruling.sentence}` : ruling.sentence,
        because: [...ruling.because, ...range(group.map((one) => one.ruling))],
      };
    });
  });
}

function choices([first]: readonly { readonly ruling: Ruling<PreparePatch> }[]): number {
  return first!.ruling.alternatives?.length ?? 0;
}

/** Where the figure differs between designs, from where to where. */
function range(rulings: readonly Ruling<PreparePatch>[]): string[] {
  const values = rulings.flatMap(({ value, unit }) => (typeof value === 'number' && unit === 'mm' ? [value] : []));
  const [least, most] = [Math.min(...values), Math.max(...values)];
  return most - least > 0.05
    ? [
        `The figure is that of the first of these designs. Over all of them it runs from ${formatLength(least)} to ${formatLength(most)} mm.`,
      ]
    : [];
}
