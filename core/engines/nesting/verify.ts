import { areaOf, boundsOf, grow, intersect, subtract, translateRings, type Rings } from '../../geometry/index.js';
import type { NestRequest, Placement } from './nest-request.js';
import { turned } from './shape.js';

/** A placed group's rings on its sheet. */
export function placedRings(request: NestRequest, placement: Placement): Rings {
  const item = request.items.find((i) => i.id === placement.item)!;
  const rings = item.group
    .flatMap((region) => [region.outer, ...region.holes])
    .map((ring) => turned(ring, placement.rotation));
  return translateRings(rings, placement.x, placement.y);
}

/**
 * What is wrong with an arrangement, as sentences; empty when it is right. Checked on the true outlines, not on the shells that
 * the placing used: no group over the sheet's edge or outline, none nearer to another than the spacing.
 */
export function nestingFaults(request: NestRequest, placements: readonly Placement[]): string[] {
  const faults: string[] = [];
  const bySheet = new Map<string, { name: string; rings: Rings }[]>();
  for (const p of placements) {
    const sheet = request.sheets.find((s) => s.id === p.sheet)!;
    const rings = placedRings(request, p);
    const box = boundsOf(rings)!;
    const name = `${p.item} ${p.copy}`;
    if (
      box.minX < -1e-4 ||
      box.minY < -1e-4 ||
      box.maxX > sheet.widthMm + 1e-4 ||
      box.maxY > (sheet.lengthMm ?? Infinity) + 1e-4
    ) {
      faults.push(`${name} reaches over the edge of ${p.sheet}.`);
    }
    if (sheet.outline && areaOf(subtract(rings, [sheet.outline.outer, ...sheet.outline.holes])) > 0.01)
      faults.push(`${name} reaches over the outline of ${p.sheet}.`);
    const key = `${p.sheet}#${p.sheetIndex}`;
    bySheet.set(key, [...(bySheet.get(key) ?? []), { name, rings }]);
  }
  for (const group of bySheet.values()) {
    group.forEach((a, i) => {
      const grown = grow(a.rings, Math.max(0, request.spacingMm - 0.02));
      for (const b of group.slice(i + 1)) {
        if (areaOf(intersect(grown, b.rings)) > 0.01)
          faults.push(`${a.name} and ${b.name} are nearer than the spacing.`);
      }
    });
  }
  return faults;
}
