import {
  nesterOf,
  turned,
  type NestHooks,
  type NestItem,
  type NestResult,
  type Placement,
} from '../engines/nesting/index.js';
import { areaOf, boundsOf, grow, regionsOf, subtract, type Box, type Rings } from '../geometry/index.js';
import type { Film, FilmPiece, LaidRectangle, LeftoverRule, Rectangle } from '../shop/index.js';
import { choosePieces, spentOf, type LaidOut, type RackPiece, type Used } from './choose-pieces.js';
import { outlinesOf, placed, type Group } from './group.js';
import { loadableOf, roomOn, type Loadable, type LoadedWith } from './loadable.js';
import { gapInCounters, widened } from './rooms.js';
import { rollSections, type SectionWish } from './sections.js';
import type { Neighbours } from './shared-borders.js';
import type { Section, SheetGroup } from './sheet-plan.js';

/** So many sets of pieces are tried: of few copies many, of many copies few, as each takes longer and a piece more or less matters less. */
const [MOST_SETS, LEAST_SETS, COPIES_TRIED] = [128, 6, 4000];
/** No more like sheets of one stack are looked at: nobody cuts as many in a day. */
const MOST_ALIKE = 200;

/** A layer of a job that is laid, and how often. */
export interface LayItem {
  readonly id: string;
  readonly job: number;
  /** What its job is known by. */
  readonly jobId: string;
  readonly layer: number;
  /** The first copy that is still to be cut. */
  readonly firstCopy: number;
  /** What is cut for it. */
  readonly film: Film;
  /** What is laid on it where that is heat adhesive; null for all else. */
  readonly foil: Film | null;
  readonly group: Group;
  /** Where in its counters other copies may lie, as the group lies. */
  readonly rooms: Rings;
  readonly isMirrored: boolean;
  readonly quantity: number;
  readonly keptMm2: number;
  readonly rotations: readonly number[];
  /** One border goes round all that lies on a piece, where all of it is so. */
  readonly sharesBorder: boolean;
}

/** What of the shop matters to what is laid where. */
export interface ShopToLay extends LoadedWith {
  readonly pieces: readonly FilmPiece[];
  /** At least all heat adhesives: what is cut for foil is one of them. */
  readonly films: readonly Film[];
}

/** A piece as it goes into the cutter; like sheets of a stack are one each, and sections of a roll, told apart by their key. */
export interface Loaded extends Loadable {
  readonly key: string;
  /** Where something may lie on it, from its safe edges on. */
  readonly room: Rectangle;
}

/** What lies on a piece before it is known in which pass it is cut. */
export interface Laid {
  readonly on: Loaded;
  readonly film: Film;
  readonly groups: readonly SheetGroup[];
  /** From the piece's corner to the farthest that is taken. */
  readonly used: Used;
  /** Where it is one of several sections of a roll. */
  readonly section: Section | null;
}

/** The pieces of a film that are there and that the cutter can take. */
export function loadablesOf(film: Film, shop: ShopToLay): Loadable[] {
  return shop.pieces
    .filter((piece) => piece.filmId === film.id && piece.quantity > 0)
    .flatMap((piece) => loadableOf(piece, shop) ?? []);
}

/** The same, a roll in sections that are fed no farther than asked. */
export function rackOf(film: Film, shop: ShopToLay, sections: SectionWish): Loaded[] {
  return loadablesOf(film, shop).flatMap((on): Loaded[] => {
    const { piece } = on;
    return piece.kind === 'roll' ? rollSections(on, sections) : eachOfStack(on);
  });
}

/** The like pieces of a stack, one each. */
export function eachOfStack(on: Loadable): Loaded[] {
  const { piece } = on;
  return Array.from({ length: Math.min(piece.quantity, MOST_ALIKE) }, (_, i) => ({
    ...on,
    key: `${piece.id}#${i}`,
    room: roomOn(on),
  }));
}

/** An item as it is nested: its outlines, with rooms as holes. Where borders run into each other, drawn in by as much; where boxes touch, the box alone. */
export function nestItemOf(
  { id, quantity, rotations, group, rooms }: LayItem,
  { borders, spacingMm, insetMm }: Neighbours,
): NestItem {
  const filled = outlinesOf(group).map(({ outer }) => outer);
  const drawn = insetMm > 0 ? grow(filled, -insetMm) : filled;
  // The spacing is kept in rooms, too, and is no second gap beside the one they have.
  const holed =
    rooms.length > 0 && borders !== 'touch'
      ? subtract(drawn, widened(rooms, Math.min(spacingMm, gapInCounters(group)) + insetMm))
      : drawn;
  return {
    id,
    quantity,
    rotations: borders === 'touch' ? rotations.filter((turn) => turn % 90 === 0) : rotations,
    group: regionsOf(holed),
  };
}

/** What of a piece is nested on, by the piece's key: what is drawn in has a room that is. */
export function nestSheetOf({ room: { widthMm, lengthMm }, key }: Loaded, insetMm: number) {
  return { widthMm: widthMm - 2 * insetMm, lengthMm: lengthMm - 2 * insetMm, id: key, quantity: 1 };
}

/** A place in a room as one in the room that is drawn in by so much; with less than 0 the other way. */
export function drawnIn<P extends Pick<Placement, 'x' | 'y'>>(place: P, insetMm: number): P {
  return { ...place, x: place.x - insetMm, y: place.y - insetMm };
}

interface FilmWish extends Neighbours {
  readonly leftovers: LeftoverRule;
  readonly pinned: readonly Placement[];
}

/** What a caller lends the layout of a film. */
export interface LayHooks extends Omit<NestHooks, 'onBetter' | 'costOf'> {
  /** Told of what the search finds on the way, and of what there was before; both are made when they are asked for. */
  readonly onBetter?: (found: () => readonly Laid[], before: () => readonly Laid[]) => void;
}

/** The layers of one film on the pieces on which they spend the least of it; null where there is no piece to lay them on. */
export async function layFilm(
  items: readonly LayItem[],
  rack: readonly Loaded[],
  { pinned, leftovers, ...between }: FilmWish,
  { mayTryMore, onBetter, ...hooks }: LayHooks,
): Promise<{
  readonly laid: readonly Laid[];
  readonly result: NestResult;
  readonly steps: number;
  readonly helped: boolean;
} | null> {
  const film = items[0]!.film;
  const { spacingMm, insetMm } = between;
  const asked = items.map((item) => nestItemOf(item, between));
  const areas = new Map(
    asked.map(({ id, group }) => [id, group.reduce((sum, { outer, holes }) => sum + areaOf([outer, ...holes]), 0)]),
  );
  const layAll = nesterOf({ items: asked, spacingMm });
  const inRoom = (result: NestResult): NestResult =>
    insetMm > 0 ? { ...result, placements: result.placements.map((place) => drawnIn(place, -insetMm)) } : result;
  const boxes = new BoxesOf(items);
  const copies = items.reduce((sum, { quantity }) => sum + quantity, 0);
  const work = {
    areaMm2: items.reduce((sum, { id, quantity }) => sum + quantity * areas.get(id)!, 0),
    mostSets: Math.max(LEAST_SETS, Math.min(MOST_SETS, Math.floor(COPIES_TRIED / copies))),
  };
  // The sections of a roll are one piece to choose.
  const idOf = ({ key, piece }: Loaded) => (piece.kind === 'roll' ? piece.id : key);
  const ofPiece = (id: string) => rack.filter((on) => idOf(on) === id);
  const layOut = async (given: readonly RackPiece[], more: NestHooks = {}): Promise<LaidOut<NestResult>> => {
    const loaded = given.flatMap(({ id }) => ofPiece(id));
    // A piece that something is pinned on is used.
    if (!pinned.every(({ sheet }) => loaded.some(({ key }) => key === sheet))) return NOT_SO;
    const usedBy = (found: NestResult) => loaded.map((on) => ({ pieceId: idOf(on), ...usedOn(on, found, boxes) }));
    const costOf = (found: NestResult) =>
      usedBy(inRoom(found)).reduce(
        (sum, used, i) => sum + spentOf({ ...loaded[i]!.piece, costPerM2: film.costPerM2 }, used, leftovers),
        0,
      );
    const result = inRoom(
      await layAll(
        {
          sheets: loaded
            .map((on) => nestSheetOf(on, insetMm))
            .filter(({ widthMm, lengthMm }) => widthMm > 0 && lengthMm > 0),
          pinned: pinned.map((place) => drawnIn(place, insetMm)),
        },
        { ...hooks, ...more, costOf },
      ),
    );
    return {
      used: usedBy(result),
      leftOverMm2: result.unplaced.reduce((sum, { item, quantity }) => sum + quantity * areas.get(item)!, 0),
      layout: result,
    };
  };
  const first = await choosePieces(piecesOf(rack, idOf, film, pinned), (given) => layOut(given), work, leftovers);
  if (!first) return null;
  const laidOn = ({ pieces, layout }: { readonly pieces: readonly RackPiece[]; readonly layout: NestResult }) =>
    pieces.flatMap(({ id }) => {
      const sections = ofPiece(id)
        .map((on) => ({ on, film, groups: groupsOn(on, layout, { items, pinned }), used: usedOn(on, layout, boxes) }))
        .filter(({ groups }) => groups.length > 0);
      return sections.map((one, i): Laid => ({
        ...one,
        section: sections.length > 1 ? { number: i + 1, of: sections.length } : null,
      }));
    });
  const better =
    onBetter &&
    ((found: () => NestResult) =>
      onBetter(
        () => laidOn({ pieces: first.pieces, layout: inRoom(found()) }),
        () => laidOn(first),
      ));
  // The pieces that were chosen are laid out once more, for as long as there is time; what spends less is kept.
  const again = mayTryMore
    ? await choosePieces(
        first.pieces,
        (given) =>
          layOut(
            given,
            given.length === first.pieces.length ? { mayTryMore, ...(better && { onBetter: better }) } : {},
          ),
        work,
        leftovers,
      )
    : null;
  const chosen =
    again && again.layout.unplaced.length <= first.layout.unplaced.length && again.value < first.value ? again : first;
  return { laid: laidOn(chosen), result: chosen.layout, steps: again?.layout.steps ?? 0, helped: chosen === again };
}

/** Pieces that cannot be laid on alone: as if nothing had found a place. */
const NOT_SO: LaidOut<NestResult> = {
  used: [],
  leftOverMm2: Number.MAX_VALUE,
  layout: { placements: [], usedLengthMm: 0, density: 0, unplaced: [], steps: 0 },
};

/** The pieces of a rack as they are chosen from, each roll once. */
function piecesOf(
  rack: readonly Loaded[],
  idOf: (on: Loaded) => string,
  film: Film,
  pinned: readonly Placement[],
): RackPiece[] {
  const pieces = rack.map((on): RackPiece => {
    const {
      key,
      piece: { id, kind, widthMm, lengthMm },
    } = on;
    return {
      id: idOf(on),
      kind,
      widthMm,
      lengthMm,
      costPerM2: film.costPerM2,
      stack: kind !== 'roll' && pinned.some(({ sheet }) => sheet === key) ? key : id,
    };
  });
  return [...new Map(pieces.map((piece) => [piece.id, piece])).values()];
}

/** What was laid on one piece, from its own corner. */
function groupsOn(
  { key, edges }: Loaded,
  { placements }: NestResult,
  { items, pinned }: { readonly items: readonly LayItem[]; readonly pinned: readonly Placement[] },
): SheetGroup[] {
  return placements
    .filter((placement) => placement.sheet === key)
    .map((placement) => {
      const { group, job, layer, firstCopy, isMirrored, keptMm2 } = items.find(({ id }) => id === placement.item)!;
      return {
        ...placed(group, {
          ...placement,
          copy: firstCopy + placement.copy,
          x: placement.x + edges.sides,
          y: placement.y + edges.bottom,
        }),
        job,
        layer,
        isMirrored,
        keptMm2,
        place: { pieceKey: key, xMm: placement.x, yMm: placement.y, rotation: placement.rotation },
        isPinned: pinned.some(({ item, copy }) => item === placement.item && copy === placement.copy),
        liesInCounter: false,
      };
    });
}

/** Of a group in more parts than this, the box round all of them is reckoned with. */
const MOST_PARTS = 8;

/** The boxes of items at their turns, from where they are placed: of what lies far apart each part has its own, as what is between them may be left over. */
export class BoxesOf {
  readonly #known = new Map<string, readonly Box[]>();
  readonly #items: ReadonlyMap<string, LayItem>;

  constructor(items: readonly LayItem[]) {
    this.#items = new Map(items.map((item) => [item.id, item]));
  }

  at(id: string, rotation: number): readonly Box[] {
    const key = `${id} ${rotation}`;
    let boxes = this.#known.get(key);
    if (!boxes) {
      const outlines = outlinesOf(this.#items.get(id)!.group).map(({ outer }) => turned(outer, rotation));
      this.#known.set(
        key,
        (boxes =
          outlines.length > MOST_PARTS ? [boundsOf(outlines)!] : outlines.map((outline) => boundsOf([outline])!)),
      );
    }
    return boxes;
  }
}

/** From a piece's corner to the farthest that is taken of it; nothing where nothing was laid. */
function usedOn({ key, edges, piece }: Loaded, { placements }: NestResult, boxes: BoxesOf): Used {
  const groups = placements
    .filter(({ sheet }) => sheet === key)
    .flatMap(({ item, x, y, rotation }) =>
      boxes.at(item, rotation).map(({ minX, minY, maxX, maxY }): LaidRectangle => {
        // What must stay free at the piece's edge stays free round it, too; the leader of a roll only before all of it.
        const [left, below] = [
          Math.max(0, minX + x),
          Math.max(0, minY + y + edges.bottom - Math.min(edges.bottom, Math.max(edges.sides, edges.top))),
        ];
        return {
          xMm: left,
          yMm: below,
          widthMm: Math.min(piece.widthMm, maxX + x + 2 * edges.sides) - left,
          lengthMm: Math.min(piece.lengthMm, maxY + y + edges.bottom + edges.top) - below,
        };
      }),
    );
  return {
    widthMm: Math.max(0, ...groups.map(({ xMm, widthMm }) => xMm + widthMm)),
    lengthMm: Math.max(0, ...groups.map(({ yMm, lengthMm }) => yMm + lengthMm)),
    groups,
  };
}
