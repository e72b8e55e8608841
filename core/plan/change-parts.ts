import { colourDifference } from '../engines/artwork/index.js';
import { placeOn, placeSeveral, takesSeveral } from '../engines/surface/index.js';
import { measuredOf, severalWish } from '../stations/surface/index.js';
import { patchRecipe, type Recipe, type RecipePatch } from '../recipe/index.js';
import { joinBoxes, longestSide, type Box } from '../geometry/index.js';
import {
  atTrueSize,
  designOf,
  moved,
  placedBox,
  setOut,
  variantsOf,
  type ArtworkPart,
  type PartAsRead,
  type Placement,
  type Repeat,
  type SizeOf,
} from '../stations/artwork/index.js';
import type { ArtworkPlace, PlaceLists } from '../words/index.js';
import { FIT_TO_OLD, KEEP_SCALE, sayFitted, sayFresh, sayHeir, sayKeptScale } from './say.js';
import { eachOf } from './several.js';

/** Clear space between a new part and what stands already, as a share of the larger side. */
const GAP_SHARE = 0.05;
/** A colour that is gone is taken to live on in a new one no further away than this (CIEDE2000). */
const SAME_COLOUR = 4;

/**
 * The change that adds a part to a design, no larger than it: under what stands there already, in its middle, or alone at the origin. The design is then
 * kept at its own size, everything in it as large as it was, so that figures given for one part are true.
 */
export function addingPart(recipe: Recipe, read: readonly PartAsRead[], added: PartAsRead): RecipePatch {
  const { sizeOf } = recipe.surface;
  if (read.length === 0) {
    // Lettering is given a height, whatever it goes on.
    return {
      artworks: [added.part],
      ...(added.part.kind === 'lettering' ? { surface: { size: { mode: 'own' } } } : {}),
    };
  }
  const { frame, widthMm, heightMm } = designOf(read, sizeOf);
  const scale = scaleOf(recipe, read);
  const longest = Math.max(widthMm, heightMm) * scale;
  const own = longestSide(added.extents[sizeOf].box);
  // A photograph may come a metre wide; words have been given their height.
  const size = added.part.kind === 'lettering' || own <= longest ? 1 : longest / own;
  const box = placedBox({ ...added.part.place, xMm: 0, yMm: 0, scale: size }, added.extents[sizeOf]);
  const gap = longest * GAP_SHARE;
  const place = {
    ...added.part.place,
    scale: size,
    xMm: (scale * (frame.minX + frame.maxX) - box.minX - box.maxX) / 2,
    yMm: scale * frame.maxY + gap - box.minY,
  };
  return {
    artworks: [...atTrueSize(recipe.artworks, scale), { ...added.part, place }],
    surface: { size: { mode: 'own' } },
  };
}

/** How large parts are made, by what they are drawn at. */
function scaleOf(recipe: Recipe, read: readonly PartAsRead[]): number {
  const surface = measuredOf(recipe);
  const each = eachOf(read, recipe);
  if (each && takesSeveral(surface)) return placeSeveral(surface, each, severalWish(recipe.surface, each), 0).scale;
  return placeOn(surface, designOf(read, recipe.surface.sizeOf), recipe.surface.size, 0).design.scale;
}

/** What is repeated, and the names of what comes of it: as many as are needed are taken. */
export interface RepeatWish {
  readonly ids: readonly string[];
  /** The gap is on the design at its final size. */
  readonly how: Repeat;
  readonly newIds: readonly string[];
}

/** The change that repeats some parts of a design. Copies with other words are of other sizes: `readPart` tells how large they come out. */
export async function repeatingParts(
  recipe: Recipe,
  read: readonly PartAsRead[],
  { ids, how, newIds }: RepeatWish,
  readPart: (part: ArtworkPart) => Promise<PartAsRead>,
): Promise<RecipePatch> {
  const { sizeOf } = recipe.surface;
  const scale = scaleOf(recipe, read);
  const names = newIds[Symbol.iterator]();
  const whole = atTrueSize(recipe.artworks, scale);
  const chosen = whole.filter(({ id }) => ids.includes(id));
  const variants = variantsOf(chosen, how, () => String(names.next().value));
  const level: ArtworkPart[][] = [];
  const boxes: Box[] = [];
  let original: readonly PartAsRead[] | null = null;
  for (const parts of variants) {
    const read: PartAsRead[] = [];
    for (const part of parts) read.push(await readPart(part));
    const before = (original ??= read);
    const places = read.map((now, i) =>
      now.part.kind === 'lettering' ? onBaselineOf(before[i]!, now) : now.part.place,
    );
    level.push(parts.map((part, i) => ({ ...part, place: places[i]! })));
    boxes.push(read.map((now, i) => placedBox(places[i]!, now.extents[sizeOf])).reduce<Box | null>(joinBoxes, null)!);
  }
  const made = setOut(level, boxes, how);
  const first = new Map(made.slice(0, chosen.length).map((part) => [part.id, part]));
  return {
    artworks: [...whole.map((part) => first.get(part.id) ?? part), ...made.slice(chosen.length)],
    surface: { size: { mode: 'own' } },
  };
}

/** Where other words stand so that their baseline is that of the first: a part is placed by its middle, and words with a tail or an accent have theirs elsewhere. */
function onBaselineOf(first: PartAsRead, now: PartAsRead): Placement {
  const below = ({ read: { artwork } }: PartAsRead) =>
    artwork.baselineMm === undefined ? null : artwork.baselineMm - artwork.heightMm / 2;
  const [was, is] = [below(first), below(now)];
  const { place } = now.part;
  if (was === null || is === null) return place;
  const turn = (place.turnDeg * Math.PI) / 180;
  const by = (was - is) * place.scale;
  return moved(place, { x: -Math.sin(turn) * by, y: Math.cos(turn) * by });
}

/** A change, and in sentences what became of the decisions it touches. */
export interface Replacement {
  readonly patch: RecipePatch;
  readonly notes: readonly string[];
  /** How large the part could have been made instead; null when there was no choice. */
  readonly otherSize: OtherSize | null;
}

/** Another size for a part that a new version was put in. */
export interface OtherSize {
  readonly label: string;
  readonly partId: string;
  readonly place: Placement;
}

/**
 * The change that puts a new version in a part's place: at the same scale while the artboard or the unit is the same, else as large as the old one was, with all decisions that still apply. Decisions about
 * a colour that is gone go to a new colour that is nearly the same, or are dropped and told. `readWith` reads the new version by another recipe.
 */
export async function replacingPart(
  recipe: Recipe,
  read: readonly PartAsRead[],
  old: PartAsRead,
  now: PartAsRead,
  readWith: (recipe: Recipe) => Promise<PartAsRead>,
): Promise<Replacement> {
  const [before, after] = [coloursOf(old), coloursOf(now)];
  const elsewhere = new Set(read.filter((other) => other !== old).flatMap((other) => [...coloursOf(other)]));
  const heirs = heirsOf(
    [...before].filter((colour) => !after.has(colour) && !elsewhere.has(colour)),
    [...after].filter((colour) => !before.has(colour)),
  );
  const notes: string[] = [];
  const heirOf = (colour: string) => {
    const heir = heirs.get(colour);
    if (heir === undefined) return colour;
    notes.push(sayHeir(colour, heir));
    return heir;
  };
  const keys = (from: Readonly<Record<string, string>>) => {
    const kept = Object.entries(from).map(([colour, value]) => [heirOf(colour), value] as const);
    return Object.fromEntries(kept.filter(([colour]) => colour !== null)) as Record<string, string>;
  };
  const byColour = keys(recipe.films.byColour);
  // What colours are taken for may be gone as well.
  const recolour = Object.fromEntries(
    Object.entries(keys(recipe.repair.recolour)).flatMap(([from, to]) => {
      const heir = heirOf(to);
      return heir === null || heir === from ? [] : [[from, heir]];
    }),
  );
  const placed = { only: rescaled(recipe.repair.only, old, now), spared: rescaled(recipe.repair.spared, old, now) };
  const fresh = [...after].filter((colour) => !before.has(colour) && ![...heirs.values()].includes(colour));
  const decided: RecipePatch = {
    films: { byColour },
    repair: { ...placed, recolour, noFilm: recipe.repair.noFilm.flatMap((colour) => heirOf(colour) ?? []) },
  };
  if (fresh.length > 0) notes.push(sayFresh(fresh));
  // How large it is depends on what of it is bare surface now.
  const sized = sizeOfSuccessor(old, await readWith(patchRecipe(recipe, decided)), recipe.surface.sizeOf);
  if (sized.note !== null) notes.push(sized.note);
  const { group } = old.part;
  const same = { id: old.part.id, group, place: sized.place };
  // Letters have their colours where they are set.
  const part: ArtworkPart =
    now.part.kind === 'lettering' || old.part.kind === 'lettering'
      ? { ...now.part, ...same }
      : { ...now.part, ...same, recolour: keys(old.part.recolour) };
  return {
    patch: { ...decided, artworks: recipe.artworks.map((other) => (other.id === old.part.id ? part : other)) },
    notes: [...new Set(notes)],
    otherSize: sized.other && { ...sized.other, partId: old.part.id },
  };
}

/** The colour that the decisions about a colour that is gone go to: the nearest new one, if it is nearly the same. Each new colour is heir to one, the nearest. */
function heirsOf(gone: readonly string[], fresh: readonly string[]): Map<string, string | null> {
  const near = gone
    .flatMap((colour) => fresh.map((heir) => ({ colour, heir, difference: colourDifference(colour, heir) })))
    .filter(({ difference }) => difference <= SAME_COLOUR);
  const heirs = new Map<string, string | null>(gone.map((colour) => [colour, null]));
  const taken = new Set<string>();
  for (const { colour, heir } of near.sort((a, b) => a.difference - b.difference)) {
    if (heirs.get(colour) !== null || taken.has(heir)) continue;
    heirs.set(colour, heir);
    taken.add(heir);
  }
  return heirs;
}

/** Artboards whose sides are in the same proportion to this share are the same drawing at another size. */
const SAME_SHAPE = 0.01;

type Sides = { readonly widthMm: number; readonly heightMm: number };

/** Whether two artboards have the same proportions. */
function isSameShape(was: Sides, is: Sides): boolean {
  return Math.abs(is.heightMm / was.heightMm / (is.widthMm / was.widthMm) - 1) <= SAME_SHAPE;
}

/** Places on a part where they are when its drawing comes at another size. Where its proportions are others, nobody knows. */
function rescaled<P extends ArtworkPlace>(lists: PlaceLists<P>, old: PartAsRead, now: PartAsRead): PlaceLists<P> {
  const [was, is] = [old.read.artwork, now.read.artwork];
  if (!isSameShape(was, is)) return lists;
  const times = is.widthMm / was.widthMm;
  const moved = (place: P): P =>
    place.part === old.part.id
      ? { ...place, xMm: place.xMm * times, yMm: place.yMm * times, acrossMm: place.acrossMm * times }
      : place;
  return Object.fromEntries(Object.entries(lists).map(([kind, places]) => [kind, places.map(moved)]));
}

/** Sides that differ by less than this share are the same. */
const SAME_SIDE = 0.001;

/** How large a new version is made, what is said of that, and the other size that it could have. */
function sizeOfSuccessor(
  old: PartAsRead,
  now: PartAsRead,
  sizeOf: SizeOf,
): {
  readonly place: Placement;
  readonly note: string | null;
  readonly other: { readonly label: string; readonly place: Placement } | null;
} {
  const fitted = placeOfSuccessor(old, now, sizeOf);
  if (old.part.kind === 'lettering' || now.part.kind === 'lettering') return { place: fitted, note: null, other: null };
  const [was, is] = [old.read.artwork, now.read.artwork];
  const isSame = (a: number, b: number) => Math.abs(a / b - 1) < SAME_SIDE;
  // On the same artboard everything stands where it stood.
  if (isSame(is.widthMm, was.widthMm) && isSame(is.heightMm, was.heightMm))
    return { place: old.part.place, note: null, other: null };
  const kept = placeOfSuccessor(old, now, sizeOf, old.part.place.scale);
  if (isSame(kept.scale, fitted.scale)) return { place: kept, note: null, other: null };
  const artboards = { was, is };
  // In the same proportions it is the same drawing at another size; otherwise a millimetre stays a millimetre.
  return isSameShape(was, is) || was.mmPerUnit !== is.mmPerUnit
    ? { place: fitted, note: sayFitted(artboards), other: { label: KEEP_SCALE, place: kept } }
    : { place: kept, note: sayKeptScale(artboards), other: { label: FIT_TO_OLD, place: fitted } };
}

/** Where a new version stands so that what counts of it is as large as that of the old one, or at a given scale, about the same middle. */
function placeOfSuccessor(
  { part: { place }, extents: old }: PartAsRead,
  { extents: now }: PartAsRead,
  sizeOf: SizeOf,
  scale = (place.scale * longestSide(old[sizeOf].box)) / longestSide(now[sizeOf].box),
): Placement {
  const middle = ({ minX, minY, maxX, maxY }: Box, times: number) => ({
    x: ((minX + maxX) / 2) * times,
    y: ((minY + maxY) / 2) * times,
  });
  const [was, is] = [middle(old[sizeOf].box, place.scale), middle(now[sizeOf].box, scale)];
  return { ...moved(place, { x: was.x - is.x, y: was.y - is.y }), scale };
}

function coloursOf({ read: { artwork, reduced } }: PartAsRead): Set<string> {
  if (reduced)
    return new Set(
      reduced.colours.slice(1).map(
        (rgba) =>
          `#${rgba
            .slice(0, 3)
            .map((v) => Math.round(v).toString(16).padStart(2, '0'))
            .join('')}`,
      ),
    );
  return new Set(artwork.paints.map((paint) => paint.colour));
}
