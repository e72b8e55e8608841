import { safeEdges, type Edges } from '../../engines/cutting/index.js';
import type { CutterProfile, FilmPiece, Mat } from '../../shop/index.js';
import { sizeOf, type Group } from './group.js';

/** A piece in stock that the cutter can take, with what must stay free on it. */
export interface Loadable {
  readonly piece: FilmPiece;
  readonly mat: Mat | null;
  readonly edges: Edges;
  /** What must stay free before the first cut when a roll's beginning stands out in front already, behind what was cut of it, mm. */
  readonly bottomAgainMm: number;
  /** So much of a roll's end is out of reach. */
  readonly tailMm: number;
}

/** What of a cutter matters to where something may lie. */
export type RollHolder = Pick<CutterProfile, 'widthMm' | 'bladeOffsetMm' | 'leaderMm' | 'tailMm'>;

/** What a piece is loaded with. */
export interface LoadedWith {
  readonly mats: readonly Mat[];
  readonly cutter: RollHolder;
}

/** What must stay free on a piece: before a roll is cut, its leader stands out in front. */
export function edgesOf(
  { kind, edgeMm }: Pick<FilmPiece, 'kind' | 'edgeMm'>,
  { bladeOffsetMm, leaderMm }: Pick<CutterProfile, 'bladeOffsetMm' | 'leaderMm'>,
): Edges {
  const edges = safeEdges(edgeMm, bladeOffsetMm);
  return kind === 'roll' ? { ...edges, bottom: Math.max(edges.bottom, leaderMm) } : edges;
}

/** How a piece goes into the cutter: a roll by itself, another on the smallest mat that holds it; null when it cannot. */
export function loadableOf(piece: FilmPiece, { mats, cutter }: LoadedWith): Loadable | null {
  const edges = edgesOf(piece, cutter);
  const bottomAgainMm = safeEdges(piece.edgeMm, cutter.bladeOffsetMm).bottom;
  if (piece.kind === 'roll')
    return piece.widthMm <= cutter.widthMm ? { piece, mat: null, edges, bottomAgainMm, tailMm: cutter.tailMm } : null;
  const holds = mats.filter(
    (mat) =>
      mat.widthMm <= cutter.widthMm &&
      mat.widthMm - 2 * mat.edgeMm >= piece.widthMm &&
      mat.lengthMm - 2 * mat.edgeMm >= piece.lengthMm,
  );
  const mat = holds.sort((a, b) => a.widthMm * a.lengthMm - b.widthMm * b.lengthMm)[0];
  return mat ? { piece, mat, edges, bottomAgainMm, tailMm: 0 } : null;
}

/** Offcuts before sheets before rolls, each the smallest first: what is used up leaves no new remainder. */
export function smallestFirst(
  a: Pick<FilmPiece, 'kind' | 'widthMm' | 'lengthMm'>,
  b: Pick<FilmPiece, 'kind' | 'widthMm' | 'lengthMm'>,
): number {
  const kinds = ['offcut', 'sheet', 'roll'];
  return kinds.indexOf(a.kind) - kinds.indexOf(b.kind) || a.widthMm * a.lengthMm - b.widthMm * b.lengthMm;
}

/** Where something may lie on a piece. */
export function roomOn({ piece, edges, tailMm }: Loadable) {
  return {
    id: piece.id,
    widthMm: piece.widthMm - 2 * edges.sides,
    lengthMm: piece.lengthMm - edges.bottom - Math.max(edges.top, tailMm),
    quantity: piece.quantity,
  };
}

/** Whether a group fits on a piece in one of some turns, of which only quarters count. */
export function fitsOn(
  group: Pick<Group, 'contours' | 'borders'>,
  on: Loadable,
  rotations: readonly number[],
): boolean {
  const { widthMm, lengthMm } = sizeOf(group);
  const room = roomOn(on);
  return rotations
    .filter((turn) => turn % 90 === 0)
    .some(
      (turn) =>
        (turn % 180 === 0 ? widthMm : lengthMm) <= room.widthMm + 1e-6 &&
        (turn % 180 === 0 ? lengthMm : widthMm) <= room.lengthMm + 1e-6,
    );
}
