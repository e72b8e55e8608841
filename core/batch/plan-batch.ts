import { nesterOf, turned, type NestHooks, type NestItem, type NestResult } from '../engines/nesting/index.js';
import { areaOf, boundsOf, keyOf, translateRings, type Box } from '../geometry/index.js';
import type { Film, Mat, Shop } from '../shop/index.js';
import type { PrepareOut } from '../stations/prepare/index.js';
import { fitsOn, groupOf, loadableOf, outlinesOf, placed, roomOn, type Group, type Loadable } from '../stations/sheets/index.js';
import type { BatchGroup, BatchOut, BatchSheet, BatchWish, Leftover, Unplaced } from './batch.js';
import { choosePieces, spentOf, type LaidOut, type RackPiece } from './choose-pieces.js';
import { isKept, leftoversOf, type Rectangle } from './leftovers.js';
import { inOrder } from './order.js';
import { zonesOf, type Zone } from './zones.js';

/** What of a job is cut: its prepared layers, and how often. */
export interface BatchJob {
  readonly prepare: PrepareOut;
  /** Read through glass: what is cut as it is otherwise is cut mirrored. */
  readonly isInside: boolean;
  readonly copies: number;
  /** The day it is due; null for none. */
  readonly due: string | null;
}

/** Between blanks on a mat, and round them, mm. */
export const BLANK_MARGIN_MM = 3;
/** No more like sheets of one stack are looked at. */
const MOST_ALIKE = 12;

interface Hooks {
  readonly breathe?: () => Promise<void>;
  /** For the layout of one film, the so-manieth of so many: whether a further step of the search may be made, after so many. The first arrangements are always made. */
  readonly budget?: (film: Film, part: number, of: number) => (steps: number) => boolean;
}

/** A layer of a job that is laid, and how often. */
interface BatchItem {
  readonly id: string;
  readonly job: number;
  readonly film: Film;
  readonly group: Group;
  readonly isMirrored: boolean;
  readonly quantity: number;
  readonly keptMm2: number;
  readonly rotations: readonly number[];
}

/** A piece as it goes into the cutter; like sheets of a stack are one each, told apart by their key. */
interface Loaded extends Loadable {
  readonly key: string;
}

/** What lies on a piece before it is known in which pass it is cut. */
interface Laid {
  readonly on: Loaded;
  readonly film: Film;
  readonly groups: readonly BatchGroup[];
  /** From the piece's corner to the farthest that is taken. */
  readonly used: Rectangle;
}

/**
 * The layers of several jobs on the pieces of the shop on which they spend the least film, everything of one film together; then in as few passes as can be, films of the same settings side by
 * side on a mat. All layers of one design lie in one direction, turned by a half at most against each other: feeds err, and films draw back more along the roll (trade).
 */
export async function planBatch(jobs: readonly BatchJob[], shop: Shop, wish: BatchWish, { breathe, budget }: Hooks = {}): Promise<BatchOut> {
  const items = jobs.flatMap((job, j) => itemsOf(job, j, shop));
  const unplaced: Unplaced[] = [];
  const laid: Laid[] = [];
  const steps: { film: Film; steps: number }[] = [];
  const films = [...new Set(items.map((item) => item.film))];
  for (const [part, film] of films.entries()) {
    await breathe?.();
    const own = items.filter((item) => item.film === film);
    const rack = rackOf(film, shop);
    const mayTryMore = budget?.(film, part, films.length);
    const chosen = await layFilm(own, rack, wish.spacingMm, { ...(breathe && { breathe }), ...(mayTryMore && { mayTryMore }) });
    laid.push(...(chosen?.laid ?? []));
    if (chosen && mayTryMore) steps.push({ film, steps: chosen.steps });
    for (const item of own) {
      const missing = chosen ? chosen.result.unplaced.find((one) => one.item === item.id) : { quantity: item.quantity, reason: 'there is no film of it that the cutter can take' };
      if (missing) unplaced.push({ job: item.job, film, quantity: missing.quantity, reason: missing.reason });
    }
  }
  return { sheets: inOrder(wish.zones ? zoned(laid, shop) : laid.map((one) => alone(one)), wish.order, jobs.map(({ due }) => due)), unplaced, steps };
}

function itemsOf({ prepare, isInside, copies }: BatchJob, job: number, shop: Shop): BatchItem[] {
  // One film with a direction keeps the whole design as it is drawn.
  const isDirected = prepare.layers.some(({ layer }) => layer.film.directional);
  const isLayered = new Set(prepare.layers.map(({ layer }) => layer.film.id)).size > 1;
  const items = prepare.layers.map((prepared, i): BatchItem => {
    const { layer: { film, cut }, panel } = prepared;
    const isMirrored = film.mirrored !== isInside;
    return { id: `${job}/${i}`, job, film, group: groupOf(prepared, isMirrored), isMirrored, quantity: copies * panel.copies, keptMm2: areaOf(cut), rotations: [0] };
  });
  const turned = (item: BatchItem, turns: readonly number[]) => ({ ...item, rotations: item.film.directional ? [0] : turns });
  if (!isLayered) return items.map((item) => turned(item, [0, 90, 180, 270]));
  const racks = new Map(items.map(({ film }) => [film, rackOf(film, shop)]));
  const fits = (turn: number) => items.every(({ film, group }) => racks.get(film)!.length === 0 || racks.get(film)!.some((on) => fitsOn(group, on, [turn])));
  // All layers together a quarter round, where one of them fits no other way.
  const together = !isDirected && !fits(0) && fits(90) ? [90, 270] : [0, 180];
  return items.map((item) => turned(item, together));
}

/** The pieces of a film that the cutter can take. */
function rackOf(film: Film, shop: Shop): Loaded[] {
  return shop.pieces
    .filter((piece) => piece.filmId === film.id && piece.quantity > 0)
    .flatMap((piece): Loaded[] => {
      const on = loadableOf(piece, shop);
      return on ? Array.from({ length: piece.kind === 'roll' ? 1 : Math.min(piece.quantity, MOST_ALIKE) }, (_, i) => ({ ...on, key: piece.kind === 'roll' ? piece.id : `${piece.id}#${i}` })) : [];
    });
}

async function layFilm(items: readonly BatchItem[], rack: readonly Loaded[], spacingMm: number, { mayTryMore, ...hooks }: NestHooks): Promise<{ readonly laid: readonly Laid[]; readonly result: NestResult; readonly steps: number } | null> {
  const film = items[0]!.film;
  const asked: readonly NestItem[] = items.map(({ id, quantity, rotations, group }) => ({ id, quantity, rotations, group: outlinesOf(group) }));
  const byKey = new Map(rack.map((on) => [on.key, on]));
  const areas = new Map(items.map(({ id, group }) => [id, outlinesOf(group).reduce((sum, { outer, holes }) => sum + areaOf([outer, ...holes]), 0)]));
  const layAll = nesterOf({ items: asked, spacingMm });
  const boxes = new BoxesOf(items);
  const layOut = async (given: readonly RackPiece[], more: NestHooks = {}): Promise<LaidOut<NestResult>> => {
    const sheets = given.map(({ id }) => ({ ...roomOn(byKey.get(id)!), id, quantity: 1 }));
    const result = await layAll({ sheets: sheets.filter(({ widthMm, lengthMm }) => widthMm > 0 && lengthMm > 0) }, { ...hooks, ...more });
    const used = given.map(({ id }) => ({ pieceId: id, ...usedOn(byKey.get(id)!, id, result, boxes) }));
    return { used, leftOverMm2: result.unplaced.reduce((sum, { item, quantity }) => sum + quantity * areas.get(item)!, 0), layout: result };
  };
  const first = await choosePieces(rack.map(({ key, piece }): RackPiece => ({ id: key, kind: piece.kind, widthMm: piece.widthMm, lengthMm: piece.lengthMm, costPerM2: film.costPerM2 })), (given) => layOut(given));
  if (!first) return null;
  // The pieces that were chosen are laid out once more, for as long as there is time; what spends less is kept.
  const again = mayTryMore ? await choosePieces(first.pieces, (given) => layOut(given, given.length === first.pieces.length ? { mayTryMore } : {})) : null;
  const chosen = again && again.layout.unplaced.length <= first.layout.unplaced.length && again.value < first.value ? again : first;
  const laid = chosen.pieces.map(({ id }): Laid => {
    const on = byKey.get(id)!;
    return { on, film, groups: groupsOn(id, chosen.layout, items, on), used: usedOn(on, id, chosen.layout, boxes) };
  });
  return { laid, result: chosen.layout, steps: again?.layout.steps ?? 0 };
}

/** What was laid on one piece, from its own corner. */
function groupsOn(key: string, { placements }: NestResult, items: readonly BatchItem[], { edges }: Loadable): BatchGroup[] {
  return placements
    .filter((placement) => placement.sheet === key)
    .map((placement) => {
      const { group, job, isMirrored, keptMm2 } = items.find(({ id }) => id === placement.item)!;
      return { ...placed(group, { ...placement, x: placement.x + edges.sides, y: placement.y + edges.bottom }), job, isMirrored, keptMm2 };
    });
}

/** The boxes of items at their turns, from where they are placed. */
class BoxesOf {
  readonly #known = new Map<string, Box>();
  readonly #items: ReadonlyMap<string, BatchItem>;

  constructor(items: readonly BatchItem[]) {
    this.#items = new Map(items.map((item) => [item.id, item]));
  }

  at(id: string, rotation: number): Box {
    const key = `${id} ${rotation}`;
    let box = this.#known.get(key);
    if (!box) {
      const { contours, borders } = this.#items.get(id)!.group;
      this.#known.set(key, (box = boundsOf([...contours, ...borders].map((ring) => turned(ring, rotation)))!));
    }
    return box;
  }
}

/** From a piece's corner to the farthest that is taken of it; nothing where nothing was laid. */
function usedOn({ edges, piece }: Loadable, key: string, { placements }: NestResult, boxes: BoxesOf): Rectangle {
  let [widthMm, lengthMm] = [0, 0];
  for (const { sheet, item, x, y, rotation } of placements) {
    if (sheet !== key) continue;
    const { maxX, maxY } = boxes.at(item, rotation);
    widthMm = Math.max(widthMm, maxX + x + 2 * edges.sides);
    lengthMm = Math.max(lengthMm, maxY + y + edges.bottom + edges.top);
  }
  return { widthMm: Math.min(piece.widthMm, widthMm), lengthMm: Math.min(piece.lengthMm, lengthMm) };
}

/** One piece in one pass. */
function alone({ on, film, groups, used }: Laid, zones: BatchSheet['zones'] = null): BatchSheet {
  const { piece, mat, edges } = on;
  return { id: keyOf(film.id, on.key, groups.map(({ fingerprint, copy, job, matrix }) => [fingerprint, copy, job, matrix])), films: [film], pieces: [piece], mat, zones, edges, forceG: film.forceG, speedMmS: film.speedMmS, groups, ...takenOf(on, film, used), usedLengthMm: used.lengthMm };
}

function takenOf({ piece, key }: Loaded, film: Film, used: Rectangle): Pick<BatchSheet, 'usedMm2' | 'leftovers' | 'value'> {
  const { costPerM2 } = film;
  const taken = piece.kind === 'roll' ? { widthMm: piece.widthMm, lengthMm: used.lengthMm } : { widthMm: piece.widthMm, lengthMm: piece.lengthMm };
  const leftovers = leftoversOf(taken, used, costPerM2).map((left): Leftover => ({ ...left, piece, keep: isKept(left) }));
  const kept = leftovers.reduce((sum, { keep, widthMm, lengthMm }) => sum + (keep ? widthMm * lengthMm : 0), 0);
  return { usedMm2: taken.widthMm * taken.lengthMm - kept, leftovers, value: spentOf({ id: key, kind: piece.kind, widthMm: piece.widthMm, lengthMm: piece.lengthMm, costPerM2 }, used) };
}

/** What fits on a mat side by side goes in together: each piece is cut to a blank of what it carries. */
function zoned(laid: readonly Laid[], { mats, cutter }: Shop): BatchSheet[] {
  const mat = [...mats].filter(({ widthMm }) => widthMm <= cutter.widthMm).sort((a, b) => b.widthMm * b.lengthMm - a.widthMm * a.lengthMm)[0];
  if (!mat) return laid.map((one) => alone(one));
  const room = { widthMm: mat.widthMm - 2 * mat.edgeMm, lengthMm: mat.lengthMm - 2 * mat.edgeMm };
  const fits = ({ used }: Laid) => used.widthMm <= room.widthMm + 1e-6 && used.lengthMm <= room.lengthMm + 1e-6;
  const small = laid.filter(fits);
  const passes = zonesOf(small.map(({ used, film }, i) => ({ id: String(i), ...used, settings: keyOf(film.forceG, film.speedMmS), mayTurn: false })), { room }, BLANK_MARGIN_MM) ?? [];
  return [...laid.filter((one) => !fits(one)).map((one) => alone(one)), ...passes.map((pass) => onMat(pass, small, mat))];
}

function onMat(pass: readonly Zone[], small: readonly Laid[], mat: Mat): BatchSheet {
  const parts = pass.map((zone) => ({ zone, laid: small[Number(zone.id)]! }));
  const only = parts[0]!;
  // A piece that goes in alone, and on a mat by itself anyhow, is laid as it is.
  if (parts.length === 1 && only.laid.on.piece.kind !== 'roll') return alone(only.laid);
  const taken = parts.map(({ laid: { on, film, used } }) => takenOf(on, film, used));
  const groups = parts.flatMap(({ zone, laid }) => laid.groups.map((group): BatchGroup => moved(group, zone.xMm + mat.edgeMm, zone.yMm + mat.edgeMm)));
  const { film } = only.laid;
  return {
    id: keyOf(mat.id, groups.map(({ fingerprint, copy, job, matrix }) => [fingerprint, copy, job, matrix])),
    films: parts.map(({ laid }) => laid.film),
    pieces: parts.map(({ laid }) => laid.on.piece),
    mat,
    zones: parts.map(({ zone: { xMm, yMm, widthMm, lengthMm }, laid }) => ({ xMm: xMm + mat.edgeMm, yMm: yMm + mat.edgeMm, widthMm, lengthMm, film: laid.film, piece: laid.on.piece })),
    edges: only.laid.on.edges,
    forceG: film.forceG,
    speedMmS: film.speedMmS,
    groups,
    usedMm2: taken.reduce((sum, { usedMm2 }) => sum + usedMm2, 0),
    leftovers: taken.flatMap(({ leftovers }) => leftovers),
    value: taken.reduce((sum, { value }) => sum + value, 0),
    usedLengthMm: Math.max(...parts.map(({ zone }) => zone.yMm + zone.lengthMm + mat.edgeMm)),
  };
}

function moved<G extends BatchGroup>(group: G, dx: number, dy: number): G {
  const [a, b, c, d, e, f] = group.matrix;
  return { ...group, matrix: [a, b, c, d, e + dx, f + dy], contours: translateRings(group.contours, dx, dy), borders: translateRings(group.borders, dx, dy) };
}
