import { APART_MM } from '../../engines/surface/index.js';
import { areaOf, boxRing, countPieces, intersect, widenBox } from '../../geometry/index.js';
import type { JobLayer, Panel, PanelsOut } from '../build/index.js';

/** What is built may reach beyond what shows by less than this, mm: the outermost panels take all of it. */
const BEYOND_MM = 100;

/** What of the layers lies on a panel. Translucent film butts, since a lap of it would show. A design in one piece is as it was built. */
export function layersOnPanel(layers: readonly JobLayer[], { number, of, box, own, lapMm }: Panel, along: PanelsOut['along']): readonly JobLayer[] {
  if (of === 1) return layers;
  const [first, last] = [number === 1, number === of];
  return layers.flatMap((layer) => {
    const at = layer.film.family === 'translucent' && lapMm > 0 ? own : box;
    const wide = widenBox(at, BEYOND_MM);
    // Designs that are laid one by one lie further apart than anything reaches.
    const clip = along === 'apart' ? widenBox(box, APART_MM / 2) : along === 'across' ? { ...wide, ...(first ? {} : { minX: at.minX }), ...(last ? {} : { maxX: at.maxX }) } : { ...wide, ...(first ? {} : { minY: at.minY }), ...(last ? {} : { maxY: at.maxY }) };
    const ring = [boxRing(clip)];
    const cut = intersect(layer.cut, ring);
    if (cut.length === 0) return [];
    return [{ ...layer, cut, visible: layer.visible === layer.cut ? cut : intersect(layer.visible, ring), areaMm2: areaOf(cut), ...countPieces(cut) }];
  });
}
