import { areaOf, boxRing, countPieces, intersect, unite, widenBox, type Box, type Ring } from '../../geometry/index.js';
import type { Panel, PanelsOut } from './panels-stage.js';
import type { JobLayer } from './stage.js';

/** What is built may reach beyond what shows by less than this, mm: the outermost panels take all of it. */
const BEYOND_MM = 100;

/** What of the layers lies on a panel. Translucent film butts, since a lap of it would show. A design in one piece is as it was built. */
export function layersOnPanel(
  layers: readonly JobLayer[],
  panel: Panel,
  along: PanelsOut['along'],
): readonly JobLayer[] {
  const lapped = clipOfPanel(panel, along);
  if (!lapped || along === null) return layers;
  const butted = clipOf(panel, panel.own, along);
  return layers.flatMap((layer) => {
    const clip = layer.film.family === 'translucent' && panel.lapMm > 0 ? butted : lapped;
    const cut = intersect(layer.cut, clip);
    if (cut.length === 0) return [];
    return [
      {
        ...layer,
        cut,
        visible: layer.visible === layer.cut ? cut : intersect(layer.visible, clip),
        areaMm2: areaOf(cut),
        ...countPieces(cut),
      },
    ];
  });
}

/** What a panel takes of the design, its laps with it; null for a design in one piece. */
export function clipOfPanel(panel: Panel, along: PanelsOut['along']): Ring[] | null {
  return panel.of === 1 || along === null ? null : clipOf(panel, panel.box, along);
}

/** What a panel takes of the design: between its two lines, straight or bent, and beyond the design at its ends. */
function clipOf({ number, of, bends, cell }: Panel, at: Box, along: 'across' | 'down' | 'apart'): Ring[] {
  if (cell) return [boxRing(cell)];
  const wide = widenBox(at, BEYOND_MM);
  const isAcross = along === 'across';
  const [top, bottom] = isAcross ? [wide.minY, wide.maxY] : [wide.minX, wide.maxX];
  const [low, high] = isAcross
    ? [number === 1 ? wide.minX : at.minX, number === of ? wide.maxX : at.maxX]
    : [number === 1 ? wide.minY : at.minY, number === of ? wide.maxY : at.maxY];
  // As if it were split across: x runs along the split, y down the line.
  const before = lineOf(bends.before, isAcross, low, top, bottom);
  const after = lineOf(bends.after, isAcross, high, top, bottom);
  const back = Array.from({ length: before.length / 2 }, (_, i) =>
    before.slice(before.length - 2 - 2 * i, before.length - 2 * i),
  ).flat();
  const ring = [...after, ...back];
  return unite([Float64Array.from(isAcross ? ring : ring.map((_, i) => ring[i % 2 === 0 ? i + 1 : i - 1]!))]);
}

/** A line from above the design to below it. */
function lineOf(
  bend: readonly number[] | null,
  isAcross: boolean,
  straight: number,
  top: number,
  bottom: number,
): number[] {
  if (!bend) return [straight, top, straight, bottom];
  const line = isAcross ? [...bend] : bend.map((_, i) => bend[i % 2 === 0 ? i + 1 : i - 1]!);
  return [line[0]!, top, ...line, line.at(-2)!, bottom];
}
