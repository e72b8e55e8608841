import { widthOnSize, type Size } from '../../engines/surface/index.js';
import type { Box } from '../../geometry/index.js';
import type { SurfaceDecisions } from './decisions.js';

/** One of several designs that a job makes: for a size of a garment, for one of a team, or one of those that stand on one thing. */
export interface Instance {
  readonly label: string;
  readonly copies: number;
  /** How large it is made, by the design. */
  readonly factor: number;
  /** What letterings say in it, by their part's id. */
  readonly words: Readonly<Record<string, string>>;
  /** Where it lies beside others on one thing; null for what goes on a thing of its own. */
  readonly among: Among | null;
}

/** A design beside others on one thing, from the upper left corner of all of them. */
export interface Among extends Size {
  /** What of the artwork it is, by the parts' ids. */
  readonly parts: readonly string[];
  /** How large it is drawn. */
  readonly own: Size;
  readonly xMm: number;
  readonly yMm: number;
  /** Where it may lie, and what of the surface is its own. */
  readonly room: Box;
  readonly cell: Box;
}

/** The designs for the sizes of an order, or for a team; null for a job that makes the one. */
export function instancesOf(
  { kind, garment, team }: Pick<SurfaceDecisions['surface'], 'kind' | 'garment' | 'team'>,
  design: Size,
): readonly Instance[] | null {
  if (kind !== 'garment') return null;
  if (team && team.members.length > 0) {
    const { namePart, numberPart, members } = team;
    return members.map(({ name, number, size }) => ({
      label: [number, name, size && `(${size})`].filter((words) => words !== '').join(' '),
      copies: 1,
      factor: sizedWidth(garment, design, size) / design.widthMm,
      words: {
        ...(namePart !== null ? { [namePart]: name } : {}),
        ...(numberPart !== null ? { [numberPart]: number } : {}),
      },
      among: null,
    }));
  }
  const sizes = garment.sizes.filter(({ copies }) => copies > 0);
  return sizes.length === 0
    ? null
    : sizes.map(({ size, copies, widthMm }) => ({
        label: size,
        copies,
        factor: sizedWidth(garment, design, size, widthMm) / design.widthMm,
        words: {},
        among: null,
      }));
}

/** How wide a design is on a size: as was given for it in the order, or as is usual. */
function sizedWidth(
  { sizes }: SurfaceDecisions['surface']['garment'],
  { widthMm: onM }: Size,
  size: string,
  given = sizes.find((one) => one.size === size)?.widthMm ?? null,
): number {
  return size === '' ? onM : (given ?? widthOnSize(onM, size));
}

/** How often each digit is cut over a whole order, from 0 to 9. */
export function digitsOf(members: readonly { readonly number: string }[]): number[] {
  const counts = new Array<number>(10).fill(0);
  for (const { number } of members)
    for (const sign of number) if (sign >= '0' && sign <= '9') counts[Number(sign)]! += 1;
  return counts;
}
