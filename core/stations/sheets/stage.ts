import { areaOf, boxRing } from '../../geometry/index.js';
import {
  fitsOn,
  groupsFor,
  isLayered,
  layJobs,
  loadablesOf,
  NEW_LAY_WISH,
  numberOf,
  roomsOf,
  smallestFirst,
  type CutSoFar,
  type Group,
  type LayItem,
  type LayWish,
  type PanelNumber,
  type SheetPlan,
  type ShopToLay,
} from '../../laying/index.js';
import { isHeatAdhesive, type Film, type FilmPiece } from '../../shop/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import { reachOfPreparation, type PreparationWanted } from '../layers/index.js';
import type { PrepareOut, PreparePatch } from '../prepare/index.js';
import type { SurfaceDecisions } from '../surface/index.js';
import type { Stage } from '../stage.js';
import type { SheetsDecisions, SheetsPatch } from './decisions.js';
import { LONGEST_STRIP_MM, proposeGang } from './propose-gang.js';
import {
  sayDirection,
  sayFilmMissing,
  sayFilmUsedUp,
  sayFoil,
  sayFoilMissing,
  sayGangSaves,
  sayInCounters,
  sayLeftOut,
  sayLongFeed,
  sayMirrored,
  sayNoRoom,
  sayFromWhichPieces,
  saySections,
  sayStrips,
  sayZones,
} from './say.js';

/** What of a layer is to be cut: how many copies in all, and how many of exactly this outline and film are cut, in the cutter, or waiting for a decision. */
export interface LayerToCut {
  readonly film: Film;
  readonly panel: PanelNumber;
  /** How many copies of the design each of them holds; 1 but for strips of a gang. */
  readonly perStrip: number;
  /** Of the film, its side, the layer's outlines and its marks: what must be the same for a copy that is cut already to fit. */
  readonly fingerprint: string;
  /** What stays of the film on the work of each of them. */
  readonly areaMm2: number;
  readonly copies: number;
  readonly taken: number;
}

export interface SheetsOut {
  /** What is left to be cut, in the order of cutting. */
  readonly sheets: readonly SheetPlan[];
  readonly toCut: readonly LayerToCut[];
  /** The share of the film taken that stays on the job. */
  readonly density: number;
  readonly findings: readonly Finding<SheetsPatch & PreparePatch>[];
  readonly rulings: readonly Ruling<SheetsPatch>[];
}

interface SheetsContext extends CutSoFar {
  readonly prepare: PrepareOut;
  readonly recipe: SheetsDecisions & SurfaceDecisions & { readonly preparation: PreparationWanted };
  readonly shop: ShopToLay;
  readonly lone: LoneBatch | null;
}

interface SheetsRead extends CutSoFar, ShopToLay {
  readonly prepare: PrepareOut;
  /** Read through glass: what is cut as it is otherwise is cut mirrored, and the other way round. */
  readonly isInside: boolean;
  readonly sheets: SheetsDecisions['sheets'];
  /** What a strip of a gang would have round it. */
  readonly preparation: PreparationWanted;
  /** Null while nothing was decided of its batch, or it is cut with others. */
  readonly lone: LoneBatch | null;
}

/** How a job alone is laid out while nobody has decided otherwise: as several are together, but without spares. */
export const NEW_LONE_WISH: LayWish = { ...NEW_LAY_WISH, spares: { single: 0, layered: 0 } };

/** A job alone is a batch of one. Its recipe decides what a recipe can; `own` is what was decided of its batch. */
export function wishAlone(
  { spacingMm, oneDirection, zones, inCounters }: SheetsDecisions['sheets'],
  own: LayWish = NEW_LONE_WISH,
): LayWish {
  return { ...own, spacingMm, oneDirection, zones, inCounters };
}

/** The batch of one that a job is cut in: its id, by which copies are laid by hand, and what was decided of it. */
export interface LoneBatch {
  readonly id: string;
  readonly wish: LayWish;
}

/** Places every layer, as many times as copies of it are still to be cut, on the pieces in stock on which the least film is spent. */
export const sheetsStage: Stage<SheetsContext, SheetsRead, SheetsOut> = {
  name: 'sheets',
  read: ({
    prepare,
    recipe: {
      surface,
      sheets,
      preparation: { marks, markSizeMm, border, borderGapMm, lowestMoreMm },
    },
    shop: { films, pieces, mats, cutter },
    taken,
    lies,
    lone,
  }) => ({
    prepare,
    isInside: surface.kind === 'glass',
    sheets,
    preparation: { marks, markSizeMm, border, borderGapMm, lowestMoreMm },
    films: films.filter(isHeatAdhesive),
    pieces,
    mats,
    cutter: {
      widthMm: cutter.widthMm,
      bladeOffsetMm: cutter.bladeOffsetMm,
      leaderMm: cutter.leaderMm,
      tailMm: cutter.tailMm,
    },
    taken,
    lies,
    lone,
  }),
  async run(read, { breathe }) {
    const { prepare, sheets: decisions, pieces, cutter, isInside, taken, lies, lone } = read;
    const { copies } = decisions;
    const wish = wishAlone(decisions, lone?.wish);
    const laid = await layJobs(
      [{ id: lone?.id ?? '', prepare, isInside, copies, taken, lies, due: null }],
      read,
      wish,
      breathe ? { breathe } : {},
    );
    const { items } = laid;
    const panelOf = ({ layer }: Pick<LayItem, 'layer'>) => prepare.layers[layer]!.panel;
    const isCut = (item: LayItem) => item.quantity === 0;
    const toCut = items.map((item): LayerToCut => ({
      film: item.film,
      panel: numberOf(panelOf(item)),
      perStrip: item.group.perStrip,
      fingerprint: item.group.fingerprint,
      areaMm2: areaOf(prepare.layers[item.layer]!.layer.cut),
      copies: groupsFor(panelOf(item), copies),
      taken: item.firstCopy,
    }));
    const findings: Finding<SheetsPatch & PreparePatch>[] = [];
    const rulings: Ruling<SheetsPatch>[] = [];
    const short: { readonly film: Film; readonly have: number }[] = [];
    if (isLayered(items)) rulings.push(sayDirection(decisions.oneDirection));
    const films = eachOnce(items.map(({ film }) => film));
    const roundMm = 2 * reachOfPreparation(read.preparation, films, LONGEST_FEED);
    const isInPanels = prepare.panels.some(({ of, corner }) => of > 1 && corner === null);
    for (const film of films) {
      const own = items.filter((item) => item.film.id === film.id);
      if (own.some(({ isMirrored }) => isMirrored)) rulings.push(sayMirrored(film, isInside));
      if (own.every(isCut)) continue;
      const inStock = inStockOf(film, pieces);
      const loadable = loadablesOf(film, read);
      findings.push(
        ...inStock
          .filter((piece) => !loadable.some((other) => other.piece === piece))
          .map((piece) => sayLeftOut(film, piece, cutter.widthMm)),
      );
      if (inStock.length === 0) findings.push(sayFilmMissing(film, foilsOn(own)));
      for (const { layer, quantity } of laid.unplaced.filter((one) => one.film.id === film.id)) {
        const { group, rotations } = items[layer]!;
        const { border } = prepare.layers[layer]!;
        const panel = panelOf({ layer });
        const fits = (what: Pick<Group, 'contours' | 'borders'>) => loadable.some((on) => fitsOn(what, on, rotations));
        if (fits(group))
          short.push({
            film,
            have: Math.min(copies, Math.floor(((toCut[layer]!.copies - quantity) * panel.perStrip) / panel.copies)),
          });
        else if (inStock.length > 0)
          findings.push(
            sayNoRoom({
              film,
              box: panel.box,
              hasBorder: border.length > 0,
              hasMarks: panel.marks !== null,
              fitsWithoutBorder: border.length > 0 && fits({ contours: group.contours, borders: [] }),
              fitsTurned: !film.directional && loadable.some((on) => fitsOn(group, on, [0, 90])),
            }),
          );
      }
      const sheets = laid.sheets.filter(({ films }) => films.some(({ id }) => id === film.id));
      rulings.push(sayFromWhichPieces(film, sheets, loadable));
      const sections = sheets.find(({ section }) => section !== null)?.section;
      if (sections) rulings.push(saySections(film, sections.of, wish.longFeedMm));
      const fedMm = Math.max(0, ...sheets.map((sheet) => longFeedOf(sheet, wish.longFeedMm, roundMm)));
      if (fedMm > 0) findings.push(sayLongFeed(film, { lengthMm: fedMm, longFeedMm: wish.longFeedMm, isInPanels }));
    }
    for (const foil of laid.missingFoil) findings.push(sayFoilMissing(foil));
    const foilsTaken = eachOnce(laid.sheets.flatMap(({ foils }) => foils.map(({ film }) => film)));
    for (const foil of foilsTaken) rulings.push(sayFoil(foil, laid.sheets));
    // A single piece on a mat shares it with nothing.
    const zoned = laid.sheets.filter(({ zones }) => zones !== null && zones.length > 1);
    if (zoned.length > 0 || (!decisions.zones && isLayered(items))) rulings.push(sayZones(decisions.zones, zoned));
    const lyingInCounters = laid.sheets.flatMap(({ groups }) => groups.filter((one) => one.liesInCounter)).length;
    if (
      lyingInCounters > 0 ||
      (!decisions.inCounters && items.some(({ group, quantity }) => quantity > 0 && roomsOf(group).length > 0))
    )
      rulings.push(sayInCounters(decisions.inCounters, lyingInCounters));
    const [panel] = prepare.panels;
    if (panel && panel.perStrip > 1)
      rulings.push(sayStrips({ copies, strips: groupsFor(panel, copies), perStrip: panel.perStrip }));
    if (toCut.every((layer) => layer.taken === 0)) findings.push(...gangFindings(read));
    const together = Math.min(...short.map(({ have }) => have));
    // Of the panels of a film the one that is shortest says how many there can be.
    const shortest = [...new Map([...short].sort((a, b) => b.have - a.have).map((one) => [one.film.id, one])).values()];
    findings.push(
      ...shortest.map(({ film, have }) =>
        sayFilmUsedUp({ ...laid.short.find((one) => one.film.id === film.id)!, film, have, copies, together }),
      ),
    );
    const keptMm2 = laid.sheets.reduce((sum, { groups }) => sum + groups.reduce((own, one) => own + one.keptMm2, 0), 0);
    const takenMm2 = laid.sheets.reduce((sum, { usedMm2 }) => sum + usedMm2, 0);
    return { sheets: laid.sheets, toCut, density: takenMm2 > 0 ? keptMm2 / takenMm2 : 0, findings, rulings };
  },
};

/** How far a roll is fed in one pass, mm, where that is more than it may be; else 0. What stays free of it, and marks and border, `roundMm` in all, do not count: the limit is for what has to fit, as that of a panel is. */
function longFeedOf(
  { zones, pieces: [piece], edges, usedLengthMm }: SheetPlan,
  longFeedMm: number,
  roundMm: number,
): number {
  if (zones || piece!.kind !== 'roll') return 0;
  return usedLengthMm - edges.bottom - edges.top - roundMm > longFeedMm + 1e-6 ? usedLengthMm : 0;
}

/** Films, each once. */
function eachOnce(films: readonly Film[]): Film[] {
  return [...new Map(films.map((film) => [film.id, film])).values()];
}

/** The foils that are laid on some layers, each once. */
function foilsOn(items: readonly LayItem[]): Film[] {
  return eachOnce(items.flatMap(({ foil }) => foil ?? []));
}

/** The pieces of a film that are there. */
function inStockOf({ id }: Film, pieces: readonly FilmPiece[]): FilmPiece[] {
  return pieces.filter((piece) => piece.filmId === id && piece.quantity > 0).sort(smallestFirst);
}

/** Marks and borders are reckoned for what is as long as a roll may be fed, mm. */
const LONGEST_FEED = { widthMm: NEW_LAY_WISH.longFeedMm, heightMm: NEW_LAY_WISH.longFeedMm };

/** Strips, where they would spare a run of copies its alignments. */
function gangFindings({
  prepare,
  preparation,
  sheets: { copies, spacingMm },
  ...shop
}: SheetsRead): Finding<SheetsPatch & PreparePatch>[] {
  const films = prepare.layers.map(({ layer }) => layer.film);
  const racks = films.map((film) => ({ film, rack: loadablesOf(film, shop) }));
  const proposal = proposeGang(prepare, {
    copies,
    gapMm: spacingMm,
    reachMm: reachOfPreparation(preparation, films, { widthMm: LONGEST_STRIP_MM, heightMm: LONGEST_STRIP_MM }),
    fits(widthMm, lengthMm) {
      const strip = { contours: [boxRing({ minX: 0, minY: 0, maxX: widthMm, maxY: lengthMm })], borders: [] };
      // What is not in stock is bought as it is wanted.
      const fitsOnAll = (turn: number) =>
        racks.every(
          ({ film, rack }) =>
            (turn === 0 || !film.directional) && (rack.length === 0 || rack.some((on) => fitsOn(strip, on, [turn]))),
        );
      return [0, 90].some(fitsOnAll);
    },
  });
  return proposal ? [sayGangSaves(proposal, { copies, films: films.length })] : [];
}
