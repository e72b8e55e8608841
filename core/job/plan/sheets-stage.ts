import { areaOf, regionsOf, transformRing, type Matrix, type Region, type Ring, type Rings } from '../../geometry/index.js';
import { nest, turned, type NestHooks, type NestItem, type Placement } from '../../nesting/index.js';
import type { Film, FilmPiece, Mat, Shop } from '../film.js';
import type { Finding } from '../finding.js';
import { formatLength } from '../length.js';
import type { Recipe } from '../recipe.js';
import type { Ruling } from '../ruling.js';
import type { PlacedGroup, PrepareStage, SheetPlan, SheetsStage } from './plan.js';

/** A layer's group as it lies before it is placed: y up, mirrored if its film asks for it. */
interface Group {
  readonly film: Film;
  readonly contours: Rings;
  readonly borders: Rings;
  readonly flip: Matrix;
}

/** Places every layer, as many times as there are copies, on the pieces of its film that are in stock. */
export async function sheetsStage(prepared: PrepareStage, decisions: Recipe['sheets'], shop: Shop, hooks: NestHooks): Promise<SheetsStage> {
  const sheets: SheetPlan[] = [];
  const findings: Finding[] = [];
  const rulings: Ruling[] = [];
  let [keptMm2, takenMm2] = [0, 0];
  for (const { layer } of prepared.layers) {
    const group = groupOf(layer.film, layer.cut, prepared);
    const pieces = shop.pieces.filter((piece) => piece.filmId === layer.film.id && piece.quantity > 0).sort(smallestFirst);
    const item: NestItem = {
      id: layer.key,
      quantity: decisions.copies,
      rotations: layer.film.directional ? [0] : [0, 90, 180, 270],
      group: outlinesOf(group),
    };
    const result = await nest(
      {
        sheets: pieces.map((p) => ({ id: p.id, widthMm: p.widthMm, lengthMm: p.lengthMm, quantity: p.quantity })),
        spacingMm: decisions.spacingMm,
        items: [item],
      },
      hooks,
    );
    for (const left of result.unplaced) findings.push(noRoom(layer.film, left.quantity, prepared));
    const used = [...new Set(result.placements.map((p) => `${p.sheet}#${p.sheetIndex}`))];
    used.forEach((key) => {
      const placements = result.placements.filter((p) => `${p.sheet}#${p.sheetIndex}` === key);
      const piece = pieces.find((p) => p.id === placements[0]!.sheet)!;
      const groups = placements.map((placement) => placed(group, placement));
      const usedLengthMm = Math.max(...groups.flatMap((g) => [...g.contours, ...g.borders]).map((ring) => highest(ring)));
      const kept = areaOf(layer.cut) * groups.length;
      keptMm2 += kept;
      takenMm2 += usedLengthMm * piece.widthMm;
      sheets.push({ id: key, film: layer.film, piece, mat: matFor(piece, shop.mats), usedLengthMm, keptMm2: kept, groups });
    });
    rulings.push(pieceRuling(layer.film, sheets.filter((s) => s.film === layer.film)));
    if (layer.film.mirrored) {
      rulings.push({
        id: `sheets.mirror.${layer.film.id}`,
        stage: 'sheets',
        subject: `Mirrored: ${layer.film.name}`,
        sentence: '{value} is cut as a mirror image.',
        value: layer.film.name,
        unit: '',
        because: ['This film is cut from its back and turned over when it is pressed. Forgetting that is the dearest slip there is.'],
      });
    }
  }
  return { sheets, density: takenMm2 > 0 ? keptMm2 / takenMm2 : 0, findings, rulings };
}

/** Offcuts before sheets before rolls, each the smallest first: what is used up leaves no new remainder. */
function smallestFirst(a: FilmPiece, b: FilmPiece): number {
  const kinds = ['offcut', 'sheet', 'roll'];
  return kinds.indexOf(a.kind) - kinds.indexOf(b.kind) || a.widthMm * a.lengthMm - b.widthMm * b.lengthMm;
}

function groupOf(film: Film, cut: Rings, prepared: PrepareStage): Group {
  const { box } = prepared;
  const flip: Matrix = film.mirrored ? [-1, 0, 0, -1, box.maxX, box.maxY] : [1, 0, 0, -1, -box.minX, box.maxY];
  const map = (rings: Rings) => rings.map((ring) => transformRing(ring, flip));
  const marks = prepared.marks?.marks.map((mark) => mark.ring) ?? [];
  return { film, contours: map([...cut, ...marks]), borders: map(prepared.border ? [prepared.border] : []), flip };
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
    matrix: [cos * a - sin * b, sin * a + cos * b, cos * c - sin * d, sin * c + cos * d, cos * e - sin * f + placement.x, sin * e + cos * f + placement.y],
    contours: group.contours.map(move),
    borders: group.borders.map(move),
  };
}

function highest(ring: Ring): number {
  let y = 0;
  for (let i = 1; i < ring.length; i += 2) y = Math.max(y, ring[i]!);
  return y;
}

function matFor(piece: FilmPiece, mats: readonly Mat[]): Mat | null {
  if (piece.kind === 'roll') return null;
  const holds = mats.filter((mat) => mat.widthMm >= piece.widthMm && mat.lengthMm >= piece.lengthMm);
  return holds.sort((a, b) => a.widthMm * a.lengthMm - b.widthMm * b.lengthMm)[0] ?? null;
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
          ...(film.directional ? ['This film has a direction, so it is not turned.'] : []),
        ]
      : ['No piece of this film is large enough.'],
  };
}

function noRoom(film: Film, quantity: number, prepared: PrepareStage): Finding {
  const { box } = prepared;
  return {
    code: 'film-too-small',
    severity: 'blocker',
    stage: 'sheets',
    message: `${quantity === 1 ? 'A layer' : `${quantity} layers`} of ${film.name}, ${formatLength(box.maxX - box.minX)} × ${formatLength(box.maxY - box.minY)} mm with ${prepared.marks ? 'marks' : 'its edge'}, fit on no piece in stock.`,
    remedies: prepared.border ? [{ label: 'Leave out the weeding border', patch: { preparation: { border: false } } }] : [],
  };
}
