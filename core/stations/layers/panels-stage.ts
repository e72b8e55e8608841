import { safeEdges } from '../../engines/cutting/index.js';
import { PANEL_LAP_MM, tileBending, type PanelSpan } from '../../engines/surface/index.js';
import { boundsOf, joinBoxes, longestSide, type Box, type Ring, type Rings } from '../../geometry/index.js';
import type { CutterProfile, Film, FilmPiece } from '../../shop/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import type { Stage } from '../stage.js';
import type { SurfaceDecisions, SurfacePatch } from '../surface/index.js';
import { reachOfPreparation, type PreparationWanted } from './reach.js';
import { partsApart } from './parts-apart.js';
import { sayNoPanels, sayPanelLap, sayPanels, sayParts, sayWhole } from './say-panels.js';
import type { Separated } from './separate-stage.js';

/** A design that is laid by itself, beside others. */
export interface DesignApart {
  readonly label: string;
  readonly copies: number;
  readonly box: Box;
  /** All of it lies in here, and nothing of others. */
  readonly cell: Box;
  /** Where it is measured from, so that two that are alike are known to be. */
  readonly corner: Corner;
}

interface Corner {
  readonly xMm: number;
  readonly yMm: number;
}

/** What of a design is laid in one piece: a panel of one that is bigger than the roll, one of several designs, or all of it. */
export interface Panel {
  /** From 1, from the left or from the top. */
  readonly number: number;
  readonly of: number;
  readonly box: Box;
  /** The same without what it shares with the panel before it. */
  readonly own: Box;
  readonly lapMm: number;
  /** Where it begins and ends along a line that bends between what it parts, on the design: x, y, x, y, …; null for straight lines and the ends. */
  readonly bends: { readonly before: readonly number[] | null; readonly after: readonly number[] | null };
  /** What it is called, of designs that are laid one by one. */
  readonly label: string | null;
  /** How often it is made for each copy of the job. */
  readonly copies: number;
  /** Where all of it lies, of designs that are laid one by one; null for panels. */
  readonly cell: Box | null;
  readonly corner: Corner | null;
}

export interface PanelsOut {
  /** The axis along which it is split; `apart` for designs that are laid one by one; null for a design in one piece. */
  readonly along: 'across' | 'down' | 'apart' | null;
  readonly panels: readonly Panel[];
  /** What the split lines cross, summed over the layers, mm. */
  readonly crossedMm: number;
  /** The longest side of what is laid in one piece. */
  readonly longestMm: number;
  /** In the order in which they are laid. */
  readonly laying: readonly number[];
  readonly findings: readonly Finding<SurfacePatch>[];
  readonly rulings: readonly Ruling<SurfacePatch>[];
}

interface PanelsContext {
  readonly separated: Separated;
  readonly apart: readonly DesignApart[] | null;
  /** How far what is built reaches beyond what shows, mm. */
  readonly reachMm: number;
  readonly recipe: SurfaceDecisions & { readonly preparation: PreparationWanted };
  readonly shop: { readonly pieces: readonly FilmPiece[]; readonly cutter: CutterProfile };
}

interface PanelsRead {
  readonly separated: Separated;
  readonly apart: readonly DesignApart[] | null;
  readonly reachMm: number;
  readonly kind: SurfaceDecisions['surface']['kind'];
  readonly wish: SurfaceDecisions['surface']['panels'];
  readonly preparation: PreparationWanted;
  readonly pieces: readonly FilmPiece[];
  readonly cutter: Pick<CutterProfile, 'widthMm' | 'bladeOffsetMm'>;
}

/** What shows of a film. */
interface ShownLayer {
  readonly film: Film;
  readonly visible: Rings;
}

/** Nobody lays a longer piece true by hand, mm. Source: trade practice. */
const WIDEST_MM = 1500;
/** Of more parts it is not proposed to lay each by itself. */
const MOST_PARTS = 60;
/** Left free of a piece besides what is reckoned with, mm: the border of a panel grows with the panel. */
const SPARE_MM = 2;

/** A design that is bigger than the roll in panels, over all its layers at once. */
export const panelsStage: Stage<PanelsContext, PanelsRead, PanelsOut> = {
  name: 'panels',
  read({ separated, apart, reachMm, recipe, shop: { pieces, cutter } }) {
    const { marks, markSizeMm, border, borderGapMm, lowestMoreMm } = recipe.preparation;
    return {
      separated,
      apart,
      reachMm,
      kind: recipe.surface.kind,
      wish: recipe.surface.panels,
      preparation: { marks, markSizeMm, border, borderGapMm, lowestMoreMm },
      pieces: pieces.filter(({ filmId, quantity }) => quantity > 0 && separated.films.has(filmId)),
      cutter: { widthMm: cutter.widthMm, bladeOffsetMm: cutter.bladeOffsetMm },
    };
  },
  run(read) {
    const {
      apart,
      wish,
      preparation,
      separated: { separation, films },
    } = read;
    if (apart) return oneByOne(apart);
    const isFlat = read.kind === 'flat' || read.kind === 'glass' || read.kind === 'unmeasured';
    // What marks register keeps its place. A design in one film has none.
    const isFree = wish.split === 'auto' && (!preparation.marks || films.size === 1);
    const parts =
      isFlat && (isFree || wish.split === 'parts')
        ? partsApart(
            separation.layers.filter(({ visible }) => visible.length > 0),
            read.reachMm,
          )
        : [];
    const inParts = parts.reduce((sum, { copies }) => sum + copies, 0);
    if (wish.split === 'parts' && inParts > 1) return { ...oneByOne(parts), rulings: [sayParts(inParts, true, wish)] };
    const found = inOneOrPanels(read);
    return (isFree && found.along === null && inParts > 1 && inParts <= MOST_PARTS) || wish.split === 'parts'
      ? { ...found, rulings: [...found.rulings, sayParts(inParts, false, wish)] }
      : found;
  },
};

/** A design that keeps together: in one piece, or in panels. */
function inOneOrPanels(read: PanelsRead): PanelsOut {
  const {
    wish,
    preparation,
    separated: { separation, films },
  } = read;
  const layers = separation.layers.flatMap(({ key, visible }): ShownLayer[] =>
    visible.length > 0 ? [{ film: films.get(key)!, visible }] : [],
  );
  const box = layers.reduce<Box | null>((sum, { visible }) => joinBoxes(sum, boundsOf(visible)), null);
  if (!box) return whole({ minX: 0, minY: 0, maxX: 1, maxY: 1 });
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const most = mostOf(read);
  const reach =
    2 *
      reachOfPreparation(
        preparation,
        layers.map(({ film }) => film),
        { widthMm: WIDEST_MM, heightMm: Math.min(height, WIDEST_MM) },
      ) +
    SPARE_MM;
  const widestMm = wish.widestMm ?? WIDEST_MM;
  const fitsWhole = layers.every(({ film }) => fits(film, width + reach, height + reach, most));
  if (wish.split === 'never')
    return {
      ...whole(box),
      rulings: fitsWhole && Math.max(width, height) > widestMm ? [sayWhole(Math.max(width, height), wish)] : [],
    };
  // What goes round or bends is laid in one piece; so is what fits in one that two hands can hold.
  if (
    (read.kind !== 'flat' && read.kind !== 'glass' && read.kind !== 'unmeasured') ||
    (fitsWhole && Math.max(width, height) <= widestMm)
  )
    return whole(box);
  const inStock = layers.every(({ film }) => read.pieces.some(({ filmId }) => filmId === film.id));
  // Without film in stock nobody knows how wide a panel may be.
  if (!inStock) return whole(box);
  const lapMm = wish.lapMm ?? PANEL_LAP_MM;
  const sideways = tiled(layers, box, 'across', { most, reach, widestMm, lapMm });
  const downwards = tiled(layers, box, 'down', { most, reach, widestMm, lapMm });
  // Strips that are too long to be laid true are the last resort.
  const best = [sideways, downwards]
    .filter((one) => one !== null)
    .sort(
      (a, b) =>
        Number(a.breadthMm > widestMm) - Number(b.breadthMm > widestMm) ||
        a.spans.length - b.spans.length ||
        a.crossedMm - b.crossedMm,
    )[0];
  if (!best) return { ...whole(box), findings: [sayNoPanels(width, height)] };
  const { along, spans, crossedMm } = best;
  const panels = spans.map((span, i): Panel => ({
    number: i + 1,
    of: spans.length,
    box: boxOfSpan(span, along, box),
    own: boxOfSpan({ ...span, x0: span.x0 + span.lapMm }, along, box),
    lapMm: span.lapMm,
    bends: { before: bendOf(spans[i - 1], along, box), after: bendOf(span, along, box) },
    label: null,
    copies: 1,
    cell: null,
    corner: null,
  }));
  const laying = orderOf(panels.length, along, wish);
  const butts = layers.filter(({ film }) => film.family === 'translucent').map(({ film }) => film.name);
  return {
    along,
    panels,
    crossedMm,
    longestMm: Math.max(...panels.map((panel) => longestSide(panel.box))),
    laying,
    findings: [],
    rulings: [
      sayPanels({
        count: panels.length,
        along,
        crossedMm,
        bent: spans.filter(({ bend }) => bend).length,
        fitsWhole,
        longestMm: Math.max(width, height),
        widestMm: best.panelMm,
        wish,
      }),
      sayPanelLap({ lapMm, along, laying, wish, butts }),
    ],
  };
}

/** Several designs beside each other, each laid by itself. */
function oneByOne(apart: readonly DesignApart[]): PanelsOut {
  const panels = apart.map(({ label, copies, box, cell, corner }, i): Panel => ({
    number: i + 1,
    of: apart.length,
    box,
    own: box,
    lapMm: 0,
    bends: NO_BENDS,
    label,
    copies,
    cell,
    corner,
  }));
  return {
    along: 'apart',
    panels,
    crossedMm: 0,
    longestMm: Math.max(...panels.map(({ box }) => longestSide(box))),
    laying: panels.map(({ number }) => number),
    findings: [],
    rulings: [],
  };
}

function whole(box: Box): PanelsOut {
  return {
    along: null,
    panels: [
      { number: 1, of: 1, box, own: box, lapMm: 0, bends: NO_BENDS, label: null, copies: 1, cell: null, corner: null },
    ],
    crossedMm: 0,
    longestMm: longestSide(box),
    laying: [1],
    findings: [],
    rulings: [],
  };
}

/** What of each piece in stock can be cut: across the cutter, and along the feed; without end of a roll. */
interface Usable {
  readonly filmId: string;
  readonly acrossMm: number;
  readonly alongMm: number;
}

function mostOf({ pieces, cutter }: PanelsRead): Usable[] {
  return pieces
    .filter(({ widthMm }) => widthMm <= cutter.widthMm)
    .map(({ filmId, kind, widthMm, lengthMm, edgeMm }) => {
      const edges = safeEdges(edgeMm, cutter.bladeOffsetMm);
      // A roll counts by its width alone: what is left of it changes with every cut, and panels that are cut must go on fitting the others.
      return {
        filmId,
        acrossMm: widthMm - 2 * edges.sides,
        alongMm: kind === 'roll' ? Infinity : lengthMm - edges.bottom - edges.top,
      };
    });
}

function fits(film: Film, width: number, height: number, most: readonly Usable[]): boolean {
  return most.some(
    ({ filmId, acrossMm, alongMm }) =>
      filmId === film.id &&
      ((width <= acrossMm && height <= alongMm) || (!film.directional && width <= alongMm && height <= acrossMm)),
  );
}

/** How long along the split a panel of a film may be whose other side is given; 0 when none fits. Both with what is prepared round it. */
function longestOf(film: Film, along: 'across' | 'down', breadth: number, most: readonly Usable[]): number {
  return most
    .filter(({ filmId }) => filmId === film.id)
    .reduce((best, { acrossMm, alongMm }) => {
      // As the design lies on the film, and, unless the film has a direction, turned a quarter.
      const [own, other] = along === 'across' ? [acrossMm, alongMm] : [alongMm, acrossMm];
      return Math.max(best, breadth <= other ? own : 0, !film.directional && breadth <= own ? other : 0);
    }, 0);
}

interface TilingHow {
  readonly most: readonly Usable[];
  readonly reach: number;
  readonly widestMm: number;
  readonly lapMm: number;
}

function tiled(
  layers: readonly ShownLayer[],
  box: Box,
  along: 'across' | 'down',
  { most, reach, widestMm, lapMm }: TilingHow,
) {
  const [length, breadth] =
    along === 'across' ? [box.maxX - box.minX, box.maxY - box.minY] : [box.maxY - box.minY, box.maxX - box.minX];
  const room = Math.min(...layers.map(({ film }) => longestOf(film, along, breadth + reach, most)));
  const panelMm = Math.min(widestMm, room - reach);
  // Panels must be wider than they lap.
  if (panelMm < Math.max(50, 3 * lapMm) || panelMm >= length) return null;
  const tiling = tileBending(
    layers.map(({ visible }) => turned(visible, along, box)),
    { widthMm: length, rollMm: panelMm, lapMm, heightMm: breadth },
  );
  return tiling && { along, spans: tiling.panels, crossedMm: tiling.crossedMm, panelMm, breadthMm: breadth };
}

/** Rings from the design's corner; split downwards, its sides change places. */
function turned(rings: Rings, along: 'across' | 'down', { minX, minY }: Box): Ring[] {
  return rings.map((ring) => {
    const out = new Float64Array(ring.length);
    // Run round backwards as well, so that what was outside stays outside.
    for (let i = 0; i < ring.length; i += 2) {
      const o = along === 'across' ? i : ring.length - 2 - i;
      out[o] = along === 'across' ? ring[i]! - minX : ring[i + 1]! - minY;
      out[o + 1] = along === 'across' ? ring[i + 1]! - minY : ring[i]! - minX;
    }
    return out;
  });
}

const NO_BENDS: Panel['bends'] = { before: null, after: null };

/** The line at the end of a panel where it bends, on the design. */
function bendOf(span: PanelSpan | undefined, along: 'across' | 'down', { minX, minY }: Box): number[] | null {
  if (!span?.bend) return null;
  return Array.from({ length: span.bend.length / 2 }, (_, i) => [span.bend![2 * i]!, span.bend![2 * i + 1]!]).flatMap(
    ([a, b]) => (along === 'across' ? [a! + minX, b! + minY] : [b! + minX, a! + minY]),
  );
}

function boxOfSpan({ x0, x1 }: Pick<PanelSpan, 'x0' | 'x1'>, along: 'across' | 'down', box: Box): Box {
  return along === 'across'
    ? { ...box, minX: box.minX + x0, maxX: box.minX + x1 }
    : { ...box, minY: box.minY + x0, maxY: box.minY + x1 };
}

/** The order of laying, so that the lap of the last laid covers the edge of the one before: from below upwards, from the stern or the rear forward, and towards the weather. */
function orderOf(count: number, along: 'across' | 'down', { weather }: PanelsRead['wish']): number[] {
  const numbers = Array.from({ length: count }, (_, i) => i + 1);
  return along === 'down' || weather === 'left' ? numbers.reverse() : numbers;
}
