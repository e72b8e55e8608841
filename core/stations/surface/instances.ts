import { widthOnSize, type Size } from '../../engines/surface/index.js';
import type { SurfaceDecisions } from './decisions.js';

/** One of several designs that a job makes of one: for a size of a garment, or for one of a team. */
export interface Instance {
  readonly label: string;
  readonly copies: number;
  /** How large it is made, by the design. */
  readonly factor: number;
  /** What letterings say in it, by their part's id. */
  readonly words: Readonly<Record<string, string>>;
}

/** The designs that a job makes of one; null for a job that makes the one. */
export function instancesOf({ kind, garment, team }: Pick<SurfaceDecisions['surface'], 'kind' | 'garment' | 'team'>, design: Size): readonly Instance[] | null {
  if (kind !== 'garment') return null;
  if (team && team.members.length > 0) {
    const { namePart, numberPart, members } = team;
    return members.map(({ name, number }) => ({
      label: [number, name].filter((words) => words !== '').join(' '),
      copies: 1,
      factor: 1,
      words: { ...(namePart !== null ? { [namePart]: name } : {}), ...(numberPart !== null ? { [numberPart]: number } : {}) },
    }));
  }
  const sizes = garment.sizes.filter(({ copies }) => copies > 0);
  return sizes.length === 0 ? null : sizes.map(({ size, copies, widthMm }) => ({ label: size, copies, factor: (widthMm ?? widthOnSize(design.widthMm, size)) / design.widthMm, words: {} }));
}

/** How often each digit is cut over a whole order, from 0 to 9. */
export function digitsOf(members: readonly { readonly number: string }[]): number[] {
  const counts = new Array<number>(10).fill(0);
  for (const { number } of members) for (const sign of number) if (sign >= '0' && sign <= '9') counts[Number(sign)]! += 1;
  return counts;
}
