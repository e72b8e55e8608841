import { nest, type NestItem } from '../../engines/nesting/index.js';
import { areaOf, boundsOf, boxRing, keyOf } from '../../geometry/index.js';
import type { Film, FilmPiece, Mat, Shop } from '../../shop/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import { reachOfPreparation, type PreparationWanted } from '../build/index.js';
import type { PrepareOut, PreparePatch } from '../prepare/index.js';
import type { SurfaceDecisions } from '../surface/index.js';
import type { Stage } from '../stage.js';
import type { SheetsDecisions, SheetsPatch } from './decisions.js';
import { isLayered, turnsOf } from './direction.js';
import { groupOf, groupsFor, inOneBox, outlinesOf, placed, type Group } from './group.js';
import { fitsOn, loadableOf, roomOn, smallestFirst, type Loadable, type RollHolder } from './loadable.js';
import { LONGEST_STRIP_MM, proposeGang } from './propose-gang.js';
import { sayDirection, sayFilmMissing, sayFilmUsedUp, sayLeftOut, sayGangSaves, sayMirrored, sayNoRoom, sayPiece, sayStrips } from './say.js';
import type { CutSoFar, LayerToCut, PanelNumber, SheetPlan } from './sheet-plan.js';

export interface SheetsOut {
  /** What is left to be cut. */
  readonly sheets: readonly SheetPlan[];
  readonly toCut: readonly LayerToCut[];
  readonly density: number;
  readonly findings: readonly Finding<SheetsPatch & PreparePatch>[];
  readonly rulings: readonly Ruling<SheetsPatch>[];
}

interface SheetsContext extends CutSoFar {
  readonly prepare: PrepareOut;
  readonly recipe: SheetsDecisions & SurfaceDecisions & { readonly preparation: PreparationWanted };
  readonly shop: Shop;
}

interface SheetsRead extends CutSoFar {
  readonly prepare: PrepareOut;
  /** Read through glass: what is cut as it is otherwise is cut mirrored, and the other way round. */
  readonly isInside: boolean;
  readonly sheets: SheetsDecisions['sheets'];
  /** What a strip of a gang would have round it. */
  readonly preparation: PreparationWanted;
  readonly pieces: readonly FilmPiece[];
  readonly mats: readonly Mat[];
  readonly cutter: RollHolder;
}

/** Places every layer, as many times as copies of it are still to be cut, on the pieces of its film that are in stock. */
export const sheetsStage: Stage<SheetsContext, SheetsRead, SheetsOut> = {
  name: 'sheets',
  read: ({ prepare, recipe: { surface, sheets, preparation: { marks, markSizeMm, border, borderGapMm, lowestMoreMm } }, shop: { pieces, mats, cutter }, taken, lies }) => ({ prepare, isInside: surface.kind === 'glass', sheets, preparation: { marks, markSizeMm, border, borderGapMm, lowestMoreMm }, pieces, mats, cutter: { widthMm: cutter.widthMm, bladeOffsetMm: cutter.bladeOffsetMm, leaderMm: cutter.leaderMm, tailMm: cutter.tailMm }, taken, lies }),
  async run(read, { breathe }) {
    const { prepare, sheets: decisions, pieces, cutter, taken, isInside } = read;
    const used = new UsedUp();
    // Two designs that are alike share what is cut of them.
    const untaken = new Map(Object.entries(taken));
    const sheets: SheetPlan[] = [];
    const toCut: LayerToCut[] = [];
    const findings: Finding<SheetsPatch & PreparePatch>[] = [];
    const rulings: Ruling<SheetsPatch>[] = [];
    const short: { readonly film: Film; readonly have: number }[] = [];
    let takenMm2 = 0;
    const laid = prepare.layers.map((prepared) => {
      const { film } = prepared.layer;
      const isMirrored = film.mirrored !== isInside;
      return { prepared, film, isMirrored, group: groupOf(prepared, isMirrored) };
    });
    const loadableOfFilm = new Map(laid.map(({ film }) => [film.id, inStockOf(film, pieces).flatMap((piece) => loadableOf(piece, read) ?? [])]));
    const turns = turnsOf(laid, (film) => loadableOfFilm.get(film.id)!, { inOneDirection: decisions.oneDirection, lies: read.lies });
    if (isLayered(laid)) rulings.push(sayDirection(decisions.oneDirection));
    for (const { prepared, film, isMirrored, group } of laid) {
      const { panel } = prepared;
      const copies = groupsFor(panel, decisions.copies);
      const done = Math.min(copies, untaken.get(group.fingerprint) ?? 0);
      untaken.set(group.fingerprint, (untaken.get(group.fingerprint) ?? 0) - done);
      toCut.push({ film, panel: numberOf(panel), perStrip: panel.perStrip, fingerprint: group.fingerprint, copies, taken: done });
      if (isMirrored && isFirst(panel)) rulings.push(sayMirrored(film, isInside));
      if (done === copies) continue;
      const inStock = inStockOf(film, pieces);
      const loadable = loadableOfFilm.get(film.id)!;
      if (isFirst(panel)) findings.push(...inStock.filter((piece) => !loadable.some((other) => other.piece === piece)).map((piece) => sayLeftOut(film, piece, cutter.widthMm)));
      const rotations = turns(film);
      const item: NestItem = { id: prepared.layer.key, quantity: copies - done, rotations, group: outlinesOf(group) };
      const result = await nest({ sheets: loadable.flatMap((on) => used.leftOf(on)), spacingMm: decisions.spacingMm, items: [item] }, breathe ? { breathe } : {});
      const left = result.unplaced[0]?.quantity ?? 0;
      const fits = (what: Pick<Group, 'contours' | 'borders'>) => loadable.some((on) => fitsOn(what, on, rotations));
      if (left > 0 && fits(group)) short.push({ film, have: Math.min(decisions.copies, Math.floor(((copies - left) * panel.perStrip) / panel.copies)) });
      else if (left > 0 && inStock.length === 0) findings.push(sayFilmMissing(film));
      else if (left > 0) findings.push(sayNoRoom({ film, box: panel.box, hasBorder: prepared.border.length > 0, hasMarks: panel.marks !== null, fitsWithoutBorder: prepared.border.length > 0 && fits({ contours: group.contours, borders: [] }), fitsTurned: !film.directional && loadable.some((on) => fitsOn(group, on, [0, 90])) }));
      for (const key of new Set(result.placements.map((p) => `${p.sheet}#${p.sheetIndex}`))) {
        const placements = result.placements.filter((p) => `${p.sheet}#${p.sheetIndex}` === key);
        const { piece, mat, edges } = loadable.find((on) => on.piece.id === placements[0]!.sheet)!;
        const alone = placements.map((placement) => placed(group, { ...placement, copy: done + placement.copy, x: placement.x + edges.sides, y: placement.y + edges.bottom }));
        const groups = panel.sharesBorder ? inOneBox(alone) : alone;
        const highest = boundsOf(groups.flatMap((g) => [...g.contours, ...g.borders]))!.maxY;
        const usedLengthMm = Math.min(piece.lengthMm, highest + edges.top);
        takenMm2 += usedLengthMm * piece.widthMm;
        const id = keyOf(film.id, key, group.fingerprint, groups.map((g) => g.copy));
        used.take(piece, usedLengthMm);
        sheets.push({ id, film, panel: numberOf(panel), isMirrored, piece, mat, edges, usedLengthMm, keptMm2: areaOf(prepared.layer.cut) * groups.length, groups });
      }
    }
    for (const film of new Set(prepare.layers.map(({ layer }) => layer.film))) if (toCut.some((layer) => layer.film === film && layer.taken < layer.copies)) rulings.push(sayPiece(film, sheets.filter((sheet) => sheet.film === film)));
    const [panel] = prepare.panels;
    if (panel && panel.perStrip > 1) rulings.push(sayStrips({ copies: decisions.copies, strips: groupsFor(panel, decisions.copies), perStrip: panel.perStrip }));
    if (toCut.every((layer) => layer.taken === 0)) findings.push(...gangFindings(read, loadableOfFilm));
    const together = Math.min(...short.map(({ have }) => have));
    // Of the panels of a film the one that is shortest says how many there can be.
    const shortest = [...new Map([...short].sort((a, b) => b.have - a.have).map((one) => [one.film, one])).values()];
    findings.push(...shortest.map(({ film, have }) => sayFilmUsedUp({ film, have, copies: decisions.copies, together })));
    const keptMm2 = sheets.reduce((sum, sheet) => sum + sheet.keptMm2, 0);
    return { sheets, toCut, density: takenMm2 > 0 ? keptMm2 / takenMm2 : 0, findings, rulings };
  },
};

/** The pieces of a film that are there, the first to be used first. */
function inStockOf({ id }: Film, pieces: readonly FilmPiece[]): FilmPiece[] {
  return pieces.filter((piece) => piece.filmId === id && piece.quantity > 0).sort(smallestFirst);
}

/** Strips, where they would spare a run of copies its alignments. */
function gangFindings({ prepare, preparation, sheets: { copies, spacingMm } }: SheetsRead, loadableOfFilm: ReadonlyMap<string, readonly Loadable[]>): Finding<SheetsPatch & PreparePatch>[] {
  const films = prepare.layers.map(({ layer }) => layer.film);
  const racks = films.map((film) => ({ film, rack: loadableOfFilm.get(film.id)! }));
  const proposal = proposeGang(prepare, {
    copies,
    gapMm: spacingMm,
    reachMm: reachOfPreparation(preparation, films, { widthMm: LONGEST_STRIP_MM, heightMm: LONGEST_STRIP_MM }),
    fits(widthMm, lengthMm) {
      const strip = { contours: [boxRing({ minX: 0, minY: 0, maxX: widthMm, maxY: lengthMm })], borders: [] };
      // What is not in stock is bought as it is wanted.
      const fitsOnAll = (turn: number) => racks.every(({ film, rack }) => (turn === 0 || !film.directional) && (rack.length === 0 || rack.some((on) => fitsOn(strip, on, [turn]))));
      return [0, 90].some(fitsOnAll);
    },
  });
  return proposal ? [sayGangSaves(proposal, { copies, films: films.length })] : [];
}

/** What of the pieces the panels before have taken. */
class UsedUp {
  readonly #lengths = new Map<string, number>();
  readonly #counts = new Map<string, number>();

  /** What is left of a piece to be nested on; nothing of one that is used up. */
  leftOf(on: Loadable) {
    const room = roomOn(on);
    const { id, kind } = on.piece;
    const left = kind === 'roll' ? { ...room, lengthMm: room.lengthMm - (this.#lengths.get(id) ?? 0) } : { ...room, quantity: room.quantity - (this.#counts.get(id) ?? 0) };
    return left.lengthMm > 0 && left.quantity > 0 ? [left] : [];
  }

  take({ id }: FilmPiece, lengthMm: number): void {
    this.#lengths.set(id, (this.#lengths.get(id) ?? 0) + lengthMm);
    this.#counts.set(id, (this.#counts.get(id) ?? 0) + 1);
  }
}

function numberOf({ number, of, label }: PanelNumber): PanelNumber {
  return { number, of, label };
}

/** What is said of a film is said once, whatever it is cut in. */
function isFirst({ number }: { readonly number: number }): boolean {
  return number === 1;
}
