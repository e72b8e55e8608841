import { boundsOf, boxRing, IDENTITY, keyOf } from '../geometry/index.js';
import { FOIL_OVERHANG_MM, type Film, type FilmPiece, type LaidRectangle, type Rectangle } from '../shop/index.js';
import { eachOfStack, layFilm, type Laid, type LayItem, type Loaded } from './lay-film.js';
import type { LayWish } from './lay-wish.js';
import type { FoilOnSheet, MissingFoil, SheetGroup, SheetPlan } from './sheet-plan.js';
import { takenOf } from './taken-of.js';

interface FoilOf {
  readonly pieces: readonly FilmPiece[];
  readonly wish: Pick<LayWish, 'leftovers'>;
  /** The foil that is laid on a copy; null where none is. */
  readonly foilOf: (group: SheetGroup) => Film | null;
  readonly breathe?: () => Promise<void>;
}

/**
 * Sheets with the foil that is laid on their adhesive: for each copy a rectangle as large as its artwork and `FOIL_OVERHANG_MM` more on each side, cut by hand from the pieces of which the least is spent. What one sheet takes
 * of a piece is gone for those after it. What they take, what goes back and what it costs counts with the sheet.
 */
export async function withFoil(
  sheets: readonly SheetPlan[],
  { pieces, wish, foilOf, breathe }: FoilOf,
): Promise<{ readonly sheets: readonly SheetPlan[]; readonly missing: readonly MissingFoil[] }> {
  let left = pieces;
  const missing: MissingFoil[] = [];
  const made: SheetPlan[] = [];
  for (const sheet of sheets) {
    const asked = sheet.groups.flatMap((group) => {
      const film = foilOf(group);
      return film ? [{ film, size: sizeOfFoil(group) }] : [];
    });
    let done = sheet;
    for (const film of new Map(asked.map((one) => [one.film.id, one.film])).values()) {
      const sizes = asked.filter((one) => one.film.id === film.id).map(({ size }) => size);
      const items = itemsOfSizes(film, sizes);
      const laid = await layFilm(
        items,
        rackOfFoil(film, left),
        { borders: 'apart', spacingMm: 0, insetMm: 0, leftovers: wish.leftovers, pinned: [] },
        breathe ? { breathe } : {},
      );
      for (const item of items) {
        const quantity =
          laid?.result.unplaced.find((one) => one.item === item.id)?.quantity ?? (laid ? 0 : item.quantity);
        if (quantity > 0) missing.push({ film, ...sizes[Number(item.id)]!, quantity });
      }
      const taken = laid?.laid.map((one) => foilTaken(one, wish)) ?? [];
      left = taken.reduce(withoutTaken, left);
      done = carrying(done, taken);
    }
    made.push(done);
  }
  return { sheets: made, missing: byFilm(missing) };
}

/** What is missing of each foil in all, with the size of the largest. */
function byFilm(missing: readonly MissingFoil[]): MissingFoil[] {
  const films = new Map<string, MissingFoil>();
  for (const one of missing) {
    const before = films.get(one.film.id) ?? { ...one, quantity: 0 };
    const isLarger = one.widthMm * one.lengthMm > before.widthMm * before.lengthMm;
    films.set(one.film.id, { ...(isLarger ? one : before), quantity: before.quantity + one.quantity });
  }
  return [...films.values()];
}

/** How large the foil for a copy is, in the whole millimetres to which a hand cuts. */
function sizeOfFoil({ contours, marks }: SheetGroup): Rectangle {
  const { minX, minY, maxX, maxY } = boundsOf(contours.slice(0, contours.length - marks))!;
  const more = 2 * FOIL_OVERHANG_MM - 1e-6;
  return { widthMm: Math.ceil(maxX - minX + more), lengthMm: Math.ceil(maxY - minY + more) };
}

/** Rectangles of foil as they are laid on its pieces; alike ones together, each known by the number of the first. */
function itemsOfSizes(film: Film, sizes: readonly Rectangle[]): LayItem[] {
  const alike = new Map<string, { readonly first: number; readonly size: Rectangle; count: number }>();
  for (const [first, size] of sizes.entries()) {
    const key = keyOf(size.widthMm, size.lengthMm);
    const known = alike.get(key);
    if (known) known.count += 1;
    else alike.set(key, { first, size, count: 1 });
  }
  return [...alike.values()].map(({ first, size, count }): LayItem => ({
    id: String(first),
    job: 0,
    jobId: '',
    layer: first,
    firstCopy: 0,
    film,
    foil: null,
    group: {
      film,
      fingerprint: '',
      contours: [boxRing({ minX: 0, minY: 0, maxX: size.widthMm, maxY: size.lengthMm })],
      borders: [],
      borderGapMm: 0,
      marks: 0,
      partOf: [0],
      flip: IDENTITY,
      perStrip: 1,
    },
    rooms: [],
    isMirrored: false,
    quantity: count,
    keptMm2: 0,
    rotations: film.directional ? [0] : [0, 90],
    sharesBorder: false,
  }));
}

/** The pieces of a foil that are there. No cutter and no mat has to take them: they are cut by hand. */
function rackOfFoil(film: Film, pieces: readonly FilmPiece[]): Loaded[] {
  return pieces
    .filter((piece) => piece.filmId === film.id && piece.quantity > 0)
    .flatMap((piece) => {
      const { edgeMm } = piece;
      const edges = { sides: edgeMm, bottom: edgeMm, top: edgeMm };
      return eachOfStack({ piece, mat: null, cutOff: null, edges, bottomAgainMm: edgeMm, tailMm: 0 });
    });
}

function foilTaken(laid: Laid, { leftovers: rule }: Pick<LayWish, 'leftovers'>): FoilOnSheet {
  const { film, groups, used, on } = laid;
  return {
    film,
    piece: on.piece,
    usedLengthMm: used.lengthMm,
    cuts: groups.map(({ contours }): LaidRectangle => {
      const { minX, minY, maxX, maxY } = boundsOf(contours)!;
      return { xMm: minX, yMm: minY, widthMm: maxX - minX, lengthMm: maxY - minY };
    }),
    ...takenOf(laid, rule),
  };
}

/** What is left of some pieces once foil is cut off one of them. */
function withoutTaken(pieces: readonly FilmPiece[], { piece, usedLengthMm }: FoilOnSheet): readonly FilmPiece[] {
  return pieces.map((one) =>
    one.id !== piece.id
      ? one
      : one.kind === 'roll'
        ? { ...one, lengthMm: Math.max(0, one.lengthMm - usedLengthMm) }
        : { ...one, quantity: one.quantity - 1 },
  );
}

/** A sheet with foil: another one than without, and than with other foil. */
function carrying(sheet: SheetPlan, taken: readonly FoilOnSheet[]): SheetPlan {
  if (taken.length === 0) return sheet;
  return {
    ...sheet,
    id: keyOf(
      sheet.id,
      taken.map(({ piece, cuts }) => [
        piece.id,
        cuts.map(({ xMm, yMm, widthMm, lengthMm }) => [xMm, yMm, widthMm, lengthMm]),
      ]),
    ),
    foils: [...sheet.foils, ...taken],
    usedMm2: taken.reduce((sum, one) => sum + one.usedMm2, sheet.usedMm2),
    leftovers: [...sheet.leftovers, ...taken.flatMap(({ leftovers }) => leftovers)],
    value: taken.reduce((sum, one) => sum + one.value, sheet.value),
  };
}
