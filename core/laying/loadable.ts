import { safeEdges, type Edges } from '../engines/cutting/index.js';
import { fieldOf, type CutterProfile, type FilmPiece, type Mat, type Rectangle } from '../shop/index.js';
import { sizeOf, type Group } from './group.js';

/** A piece in stock that the cutter can take, with what must stay free on it. */
export interface Loadable {
  readonly piece: FilmPiece;
  readonly mat: Mat | null;
  /** No mat holds the whole piece: this much is cut off it, from its corner; null where it goes in as it is. */
  readonly cutOff: Rectangle | null;
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

/**
 * How a piece goes into the cutter: a roll by itself, another on the smallest mat that holds it. Of a piece that no mat holds as much is cut off as one can hold.
 * Null for a roll that is too wide for the cutter, and for another where the cutter takes no mat.
 */
export function loadableOf(piece: FilmPiece, { mats, cutter }: LoadedWith): Loadable | null {
  const edges = edgesOf(piece, cutter);
  const bottomAgainMm = safeEdges(piece.edgeMm, cutter.bladeOffsetMm).bottom;
  if (piece.kind === 'roll')
    return piece.widthMm <= cutter.widthMm
      ? { piece, mat: null, cutOff: null, edges, bottomAgainMm, tailMm: cutter.tailMm }
      : null;
  const [best] = mats
    .filter((mat) => mat.widthMm <= cutter.widthMm)
    .map((mat) => ({ mat, held: heldOn(mat, piece) }))
    .filter(({ held }) => held.widthMm > 0 && held.lengthMm > 0)
    .sort((a, b) => sizeMm2(b.held) - sizeMm2(a.held) || sizeMm2(a.mat) - sizeMm2(b.mat));
  if (!best) return null;
  const isWhole = sizeMm2(best.held) === sizeMm2(piece);
  return { piece, mat: best.mat, cutOff: isWhole ? null : best.held, edges, bottomAgainMm, tailMm: 0 };
}

/** As much of a piece as a mat holds; where it does not hold all of it, in the whole millimetres to which a hand cuts. */
function heldOn(mat: Mat, { widthMm, lengthMm }: Rectangle): Rectangle {
  const field = fieldOf(mat);
  return {
    widthMm: widthMm <= field.widthMm ? widthMm : Math.floor(field.widthMm),
    lengthMm: lengthMm <= field.lengthMm ? lengthMm : Math.floor(field.lengthMm),
  };
}

const sizeMm2 = ({ widthMm, lengthMm }: Rectangle) => widthMm * lengthMm;

/** Offcuts before sheets before rolls, each the smallest first: what is used up leaves no new remainder. */
export function smallestFirst(
  a: Pick<FilmPiece, 'kind' | 'widthMm' | 'lengthMm'>,
  b: Pick<FilmPiece, 'kind' | 'widthMm' | 'lengthMm'>,
): number {
  const kinds = ['offcut', 'sheet', 'roll'];
  return kinds.indexOf(a.kind) - kinds.indexOf(b.kind) || a.widthMm * a.lengthMm - b.widthMm * b.lengthMm;
}

/** Where something may lie on a piece. */
export function roomOn({ piece, cutOff, edges, tailMm }: Loadable) {
  const { widthMm, lengthMm } = cutOff ?? piece;
  return {
    id: piece.id,
    widthMm: widthMm - 2 * edges.sides,
    lengthMm: lengthMm - edges.bottom - Math.max(edges.top, tailMm),
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
