import { boxRing } from '../../geometry/index.js';
import type { Film, FilmPiece, Mat, Shop } from '../../shop/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import { reachOfPreparation, type PreparationWanted } from '../build/index.js';
import type { PrepareOut, PreparePatch } from '../prepare/index.js';
import type { SurfaceDecisions } from '../surface/index.js';
import type { Stage } from '../stage.js';
import type { SheetsDecisions, SheetsPatch } from './decisions.js';
import { isLayered, turnsOf } from './direction.js';
import { groupOf, groupsFor, outlinesOf, type Group } from './group.js';
import { layInPasses, numberOf, type LaidLayer } from './lay-in-passes.js';
import { fitsOn, loadableOf, smallestFirst, type Loadable, type RollHolder } from './loadable.js';
import { LONGEST_STRIP_MM, proposeGang } from './propose-gang.js';
import { sayDirection, sayFilmMissing, sayFilmUsedUp, sayLeftOut, sayGangSaves, sayMirrored, sayNoRoom, sayPiece, sayStrips } from './say.js';
import type { CutSoFar, LayerToCut, SheetPlan } from './sheet-plan.js';

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
    const films = new Map(laid.map(({ film }) => [film.id, film]));
    const wanted = laid.map((one): LaidLayer => {
      const { film, group, prepared: { layer, panel } } = one;
      const copies = groupsFor(panel, decisions.copies);
      const done = Math.min(copies, untaken.get(group.fingerprint) ?? 0);
      untaken.set(group.fingerprint, (untaken.get(group.fingerprint) ?? 0) - done);
      toCut.push({ film, panel: numberOf(panel), perStrip: panel.perStrip, fingerprint: group.fingerprint, copies, taken: done });
      if (one.isMirrored && isFirst(panel)) rulings.push(sayMirrored(film, isInside));
      return { ...one, copies, done, item: { id: `${layer.key} ${panel.number}`, quantity: copies - done, rotations: turns(film), group: outlinesOf(group) } };
    });
    for (const film of films.values()) {
      const layers = wanted.filter((one) => one.film.id === film.id && one.done < one.copies);
      if (layers.length === 0) continue;
      const inStock = inStockOf(film, pieces);
      const loadable = loadableOfFilm.get(film.id)!;
      if (layers.some(({ prepared }) => isFirst(prepared.panel))) findings.push(...inStock.filter((piece) => !loadable.some((other) => other.piece === piece)).map((piece) => sayLeftOut(film, piece, cutter.widthMm)));
      const found = await layInPasses(layers, loadable, { spacingMm: decisions.spacingMm, sharesBorder: layers[0]!.prepared.panel.sharesBorder }, breathe);
      for (const { left, layer } of found.left) {
        const { group, prepared: { panel, border }, copies, item: { rotations } } = layer;
        const fits = (what: Pick<Group, 'contours' | 'borders'>) => loadable.some((on) => fitsOn(what, on, rotations as readonly number[]));
        if (fits(group)) short.push({ film, have: Math.min(decisions.copies, Math.floor(((copies - left) * panel.perStrip) / panel.copies)) });
        else if (inStock.length === 0) findings.push(sayFilmMissing(film));
        else findings.push(sayNoRoom({ film, box: panel.box, hasBorder: border.length > 0, hasMarks: panel.marks !== null, fitsWithoutBorder: border.length > 0 && fits({ contours: group.contours, borders: [] }), fitsTurned: !film.directional && loadable.some((on) => fitsOn(group, on, [0, 90])) }));
      }
      takenMm2 += found.sheets.reduce((sum, { usedLengthMm, piece }) => sum + usedLengthMm * piece.widthMm, 0);
      sheets.push(...found.sheets);
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

/** What is said of a film is said once, whatever it is cut in. */
function isFirst({ number }: { readonly number: number }): boolean {
  return number === 1;
}
