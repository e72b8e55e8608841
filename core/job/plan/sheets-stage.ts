import { turningStrip } from '../../cutting/index.js';
import { areaOf, boundsOf, fingerprintOf, regionsOf, transformRing, type Matrix, type Region, type Ring, type Rings } from '../../geometry/index.js';
import { nest, turned, type NestHooks, type NestItem, type Placement } from '../../nesting/index.js';
import type { CutterProfile, Film, FilmPiece, Mat, Shop } from '../film.js';
import type { Finding, Remedy } from '../finding.js';
import { formatLength } from '../length.js';
import type { Recipe } from '../recipe.js';
import type { Ruling } from '../ruling.js';
import type { LayerToCut, PlacedGroup, PrepareStage, SheetPlan, SheetsStage } from './plan.js';
import { keyOf } from './stage-cache.js';

/** A layer's group as it lies before it is placed: y up, mirrored if its film asks for it. */
interface Group {
  readonly film: Film;
  readonly fingerprint: string;
  readonly contours: Rings;
  readonly borders: Rings;
  readonly marks: number;
  readonly partOf: readonly number[];
  readonly flip: Matrix;
}

/** A piece in stock that the cutter can take, with what must stay free on it. */
interface Loadable {
  readonly piece: FilmPiece;
  readonly mat: Mat | null;
  readonly edges: SheetPlan['edges'];
}

/** The knife needs this much more than its turning, mm. */
const TURN_MARGIN_MM = 1;

/** How many copies of what is cut already, in the cutter, or waiting for a decision, by fingerprint. */
export type TakenCopies = Readonly<Record<string, number>>;

/** Places every layer, as many times as copies of it are still to be cut, on the pieces of its film that are in stock. */
export async function sheetsStage(prepared: PrepareStage, decisions: Recipe['sheets'], shop: Shop, taken: TakenCopies, hooks: NestHooks): Promise<SheetsStage> {
  const sheets: SheetPlan[] = [];
  const toCut: LayerToCut[] = [];
  const findings: Finding[] = [];
  const rulings: Ruling[] = [];
  const short: { readonly film: Film; readonly have: number }[] = [];
  let [keptMm2, takenMm2] = [0, 0];
  for (const { layer } of prepared.layers) {
    const group = groupOf(layer.film, layer.cut, prepared);
    const done = Math.min(decisions.copies, taken[group.fingerprint] ?? 0);
    toCut.push({ film: layer.film, fingerprint: group.fingerprint, copies: decisions.copies, taken: done });
    if (layer.film.mirrored) rulings.push(mirrorRuling(layer.film));
    if (done === decisions.copies) continue;
    const inStock = shop.pieces.filter((piece) => piece.filmId === layer.film.id && piece.quantity > 0).sort(smallestFirst);
    const loadable = inStock.flatMap((piece) => loadableOf(piece, shop) ?? []);
    findings.push(...inStock.filter((piece) => !loadable.some((other) => other.piece === piece)).map((piece) => leftOut(layer.film, piece, shop.cutter)));
    const item: NestItem = {
      id: layer.key,
      quantity: decisions.copies - done,
      rotations: layer.film.directional ? [0] : [0, 90, 180, 270],
      group: outlinesOf(group),
    };
    const result = await nest({ sheets: loadable.map(roomOn), spacingMm: decisions.spacingMm, items: [item] }, hooks);
    const left = result.unplaced[0]?.quantity ?? 0;
    if (left > 0 && loadable.some((on) => fitsOn(group, on, item.rotations as readonly number[]))) short.push({ film: layer.film, have: decisions.copies - left });
    else if (left > 0) findings.push(noRoom(group, inStock.length, loadable, prepared, item.rotations as readonly number[]));
    for (const key of new Set(result.placements.map((p) => `${p.sheet}#${p.sheetIndex}`))) {
      const placements = result.placements.filter((p) => `${p.sheet}#${p.sheetIndex}` === key);
      const { piece, mat, edges } = loadable.find((on) => on.piece.id === placements[0]!.sheet)!;
      const groups = placements.map((placement) => placed(group, { ...placement, copy: done + placement.copy, x: placement.x + edges.sides, y: placement.y + edges.bottom }));
      const highest = boundsOf(groups.flatMap((g) => [...g.contours, ...g.borders]))!.maxY;
      const usedLengthMm = Math.min(piece.lengthMm, highest + edges.top);
      const kept = areaOf(layer.cut) * groups.length;
      keptMm2 += kept;
      takenMm2 += usedLengthMm * piece.widthMm;
      const id = keyOf(layer.film.id, key, group.fingerprint, groups.map((g) => g.copy));
      sheets.push({ id, film: layer.film, piece, mat, edges, usedLengthMm, keptMm2: kept, groups });
    }
    rulings.push(pieceRuling(layer.film, sheets.filter((s) => s.film === layer.film)));
  }
  findings.push(...short.map((film) => usedUp(film, decisions.copies, Math.min(...short.map(({ have }) => have)))));
  return { sheets, toCut, density: takenMm2 > 0 ? keptMm2 / takenMm2 : 0, findings, rulings };
}

/** Offcuts before sheets before rolls, each the smallest first: what is used up leaves no new remainder. */
function smallestFirst(a: FilmPiece, b: FilmPiece): number {
  const kinds = ['offcut', 'sheet', 'roll'];
  return kinds.indexOf(a.kind) - kinds.indexOf(b.kind) || a.widthMm * a.lengthMm - b.widthMm * b.lengthMm;
}

/** How a piece goes into the cutter; null when it cannot. */
function loadableOf(piece: FilmPiece, { mats, cutter }: Shop): Loadable | null {
  const bottom = Math.max(piece.edgeMm, turningStrip(cutter.bladeOffsetMm) + TURN_MARGIN_MM);
  const edges = { sides: Math.max(piece.edgeMm, cutter.bladeOffsetMm), bottom, top: Math.max(piece.edgeMm, cutter.bladeOffsetMm) };
  if (piece.kind === 'roll') return piece.widthMm <= cutter.widthMm ? { piece, mat: null, edges } : null;
  const holds = mats.filter((mat) => mat.widthMm <= cutter.widthMm && mat.widthMm - 2 * mat.edgeMm >= piece.widthMm && mat.lengthMm - 2 * mat.edgeMm >= piece.lengthMm);
  const mat = holds.sort((a, b) => a.widthMm * a.lengthMm - b.widthMm * b.lengthMm)[0];
  return mat ? { piece, mat, edges } : null;
}

function roomOn({ piece, edges }: Loadable) {
  return { id: piece.id, widthMm: piece.widthMm - 2 * edges.sides, lengthMm: piece.lengthMm - edges.bottom - edges.top, quantity: piece.quantity };
}

function fitsOn(group: { readonly contours: Rings; readonly borders: Rings }, on: Loadable, rotations: readonly number[]): boolean {
  const box = boundsOf([...group.contours, ...group.borders])!;
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  const room = roomOn(on);
  return rotations.some((turn) => (turn % 180 === 0 ? w : h) <= room.widthMm + 1e-6 && (turn % 180 === 0 ? h : w) <= room.lengthMm + 1e-6);
}

function groupOf(film: Film, cut: Rings, prepared: PrepareStage): Group {
  const { box } = prepared;
  const flip: Matrix = film.mirrored ? [-1, 0, 0, -1, box.maxX, box.maxY] : [1, 0, 0, -1, -box.minX, box.maxY];
  const map = (rings: Rings) => rings.map((ring) => transformRing(ring, flip));
  const marks = prepared.marks?.marks.map((mark) => mark.ring) ?? [];
  const fingerprint = keyOf(film.id, film.mirrored, fingerprintOf([...cut, ...marks]));
  return { film, fingerprint, contours: map([...cut, ...marks]), borders: map(prepared.border ? [prepared.border] : []), marks: marks.length, partOf: [...partsOf(cut), ...marks.map(() => -1)], flip };
}

/** For each ring, the piece it belongs to. */
function partsOf(cut: Rings): number[] {
  const of = new Map<Ring, number>();
  regionsOf(cut).forEach(({ outer, holes }, part) => {
    for (const ring of [outer, ...holes]) of.set(ring, part);
  });
  return cut.map((ring) => of.get(ring) ?? -1);
}

/** With a border the box is the outline; without, the pieces themselves are. */
function outlinesOf(group: Group): Region[] {
  return regionsOf(group.borders.length > 0 ? group.borders : group.contours);
}

function placed(group: Group, placement: Placement): PlacedGroup {
  const move = (ring: Ring) => turned(ring, placement.rotation).map((v, i) => v + (i % 2 === 0 ? placement.x : placement.y));
  const r = (placement.rotation * Math.PI) / 180;
  const [cos, sin] = [Math.round(Math.cos(r)), Math.round(Math.sin(r))];
  const [a, b, c, d, e, f] = group.flip;
  return {
    filmId: group.film.id,
    copy: placement.copy,
    fingerprint: group.fingerprint,
    matrix: [cos * a - sin * b, sin * a + cos * b, cos * c - sin * d, sin * c + cos * d, cos * e - sin * f + placement.x, sin * e + cos * f + placement.y],
    contours: group.contours.map(move),
    borders: group.borders.map(move),
    marks: group.marks,
    partOf: group.partOf,
  };
}

function mirrorRuling(film: Film): Ruling {
  return {
    id: `sheets.mirror.${film.id}`,
    stage: 'sheets',
    subject: `Mirrored: ${film.name}`,
    sentence: '{value} is cut as a mirror image.',
    value: film.name,
    unit: '',
    because: ['This film is cut from its back and turned over when it is pressed. Forgetting that is the dearest slip there is.'],
  };
}

function pieceRuling(film: Film, sheets: readonly SheetPlan[]): Ruling {
  const first = sheets[0];
  const name = first ? { roll: 'the roll', sheet: 'a sheet on a mat', offcut: 'an offcut on a mat' }[first.piece.kind] : 'nothing';
  return {
    id: `sheets.${film.id}`,
    stage: 'sheets',
    subject: `Piece of ${film.name}`,
    sentence: `${film.name} comes from {value}${sheets.length > 1 ? `, ${sheets.length} pieces in all` : ''}.`,
    value: name,
    unit: '',
    because: first
      ? [
          first.piece.kind === 'roll'
            ? `No smaller piece in stock holds it; ${formatLength(first.usedLengthMm)} mm come off the roll.`
            : 'It is the smallest piece in stock that holds the layer, and using it up leaves no new remainder.',
          `Its edges stay free: ${formatLength(first.edges.sides)} mm at the sides, ${formatLength(first.edges.bottom)} mm where it begins, where the knife is turned.`,
          ...(film.directional ? ['This film has a direction, so it is not turned.'] : []),
        ]
      : ['No piece of this film holds it.'],
  };
}

/** A piece that is in stock and cannot be cut as it is. */
function leftOut(film: Film, piece: FilmPiece, cutter: CutterProfile): Finding {
  const size = piece.kind === 'roll' ? `${formatLength(piece.widthMm)} mm wide` : `${formatLength(piece.widthMm)} × ${formatLength(piece.lengthMm)} mm`;
  const tooWide = piece.kind === 'roll';
  return {
    code: tooWide ? 'piece-too-wide' : 'piece-without-mat',
    severity: 'note',
    stage: 'sheets',
    message: tooWide
      ? `The roll of ${film.name} is ${size}, and the cutter takes ${formatLength(cutter.widthMm)} mm. It is left out; cut it narrower to use it.`
      : `The ${piece.kind} of ${film.name}, ${size}, fits on no mat. It is left out; cut it smaller to use it.`,
  };
}

/** No piece could hold even one copy. Leaving out the border is offered only where it then fits. */
function noRoom(group: Group, inStock: number, loadable: readonly Loadable[], prepared: PrepareStage, rotations: readonly number[]): Finding {
  const { film } = group;
  if (inStock === 0) return { code: 'film-missing', severity: 'blocker', stage: 'sheets', message: `No piece of ${film.name} is in stock.` };
  const { box } = prepared;
  const bare = { contours: group.contours, borders: [] };
  const remedies: Remedy[] = prepared.border && loadable.some((on) => fitsOn(bare, on, rotations)) ? [{ label: 'Leave out the weeding border', patch: { preparation: { border: false } } }] : [];
  return {
    code: 'film-too-small',
    severity: 'blocker',
    stage: 'sheets',
    message: `The layer of ${film.name} is ${formatLength(box.maxX - box.minX)} × ${formatLength(box.maxY - box.minY)} mm with ${prepared.border ? 'its border' : prepared.marks ? 'its marks' : 'its edge'}, and no piece of that film is large enough.`,
    remedies,
  };
}

/** There is film for some of the copies. `together` is how many all films suffice for. */
function usedUp({ film, have }: { readonly film: Film; readonly have: number }, copies: number, together: number): Finding {
  return {
    code: 'film-used-up',
    severity: 'blocker',
    stage: 'sheets',
    message: `The ${film.name} in stock is enough for ${have} of ${copies} copies.`,
    remedies: together > 0 ? [{ label: `Make ${together === 1 ? 'one copy' : `${together} copies`}`, patch: { sheets: { copies: together } } }] : [],
  };
}
