import {
  boundsOf,
  boxesTouch,
  grow,
  reversed,
  signedArea,
  subtract,
  tolerances,
  type Box,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import type { PlaceRules } from '../../words/index.js';
import type { ColouredArea } from './put-right.js';
import { boxIndex } from './separate.js';
import { cutBesides, pinholes, speckRegions } from './specks.js';
import { narrowGaps, thickening, thinParts } from './thin-parts.js';

/** A layer as it would be cut, as much as touching up has to know of it. */
export interface TouchedLayer {
  readonly key: string;
  readonly thinnestMm: number;
  /** Parts are thickened to no more than this: what lasts where the work will live. */
  readonly durableMm: number;
  readonly cut: Rings;
  readonly visible: Rings;
}

/** Remedies for what would be cut. */
export interface CutRemedies {
  /** Smaller pieces are dropped and smaller holes filled; 0 keeps all. */
  readonly speckMm2: number;
  /** Thinner parts are thickened to this; 0 leaves them. */
  readonly thickenMm: number;
  /** Narrower gaps are filled; 0 leaves them. */
  readonly closeGapsMm: number;
}

/**
 * The painted areas with what the checks find in the layers cut from them put right: specks are taken out of what paints them, so that
 * what lies beneath shows; pinholes and narrow gaps are filled as far as nothing else shows in them; thin parts are widened. What is
 * added lies on top, in the colour of what it belongs to. `filmOf` gives the layer a colour is cut in. Null when nothing is to be done.
 *
 * It works from the cut, and not shape by shape as they are painted: a part may be thin only because others cover it, and many small
 * shapes may be one large piece.
 */
export function touchUp<T extends ColouredArea>(
  areas: readonly T[],
  layers: readonly TouchedLayer[],
  filmOf: (colour: string) => string | undefined,
  repair: CutRemedies,
  rules: PlaceRules,
): T[] | null {
  if (areas.length === 0) return null;
  const boxes = areas.map((area) => boundsOf(area.rings)!);
  const touching = boxIndex(boxes);
  /** The uppermost area of a layer that touches a box. */
  const ownerAt = (key: string, box: Box): T | undefined => {
    const [index] = touching(box, (i) => filmOf(areas[i]!.colour) === key).sort((a, b) => b - a);
    return index === undefined ? undefined : areas[index];
  };
  const taken = new Map<number, Ring[]>();
  const added: T[] = [];
  const add = (key: string, where: Box, rings: Rings) => {
    const owner = ownerAt(key, where);
    const real = rings.filter((ring) => Math.abs(signedArea(ring)) > tolerances.CRUMB_MM2);
    if (owner && real.length > 0) added.push({ ...owner, rings: real });
  };
  const specks = new Map(
    layers.map((layer) => [
      layer.key,
      speckRegions(layer.cut, repair.speckMm2).filter((region) => rules.reaches('specks', boundsOf([region.outer])!)),
    ]),
  );
  // A hair more than a speck, or rounding leaves a rim of it standing.
  const dropped = new Map(
    [...specks].map(([key, list]) => [
      key,
      list.map((speck) => grow([speck.outer, ...speck.holes], tolerances.HAIRLINE_MM)).filter((out) => out.length > 0),
    ]),
  );
  for (const [key, list] of dropped) {
    for (const out of list)
      for (const i of touching(boundsOf(out)!, (j) => filmOf(areas[j]!.colour) === key))
        taken.set(i, [...(taken.get(i) ?? []), ...out]);
  }
  const shown = layers.map(({ key, visible }) => {
    const out = dropped.get(key)!.flat();
    return {
      key,
      rings: (out.length > 0 ? subtract(visible, out) : visible).map((ring) => ({ ring, box: boundsOf([ring])! })),
    };
  });
  /** Fills what of an opening nothing else shows in. */
  const fill = (key: string, opening: Rings, box: Box) => {
    const others = shown.flatMap((layer) =>
      layer.key === key ? [] : layer.rings.filter((other) => boxesTouch(other.box, box)).map((other) => other.ring),
    );
    const besides = (rings: Rings) => (others.length > 0 ? subtract(rings, others) : rings);
    const bare = besides(opening).filter((ring) => Math.abs(signedArea(ring)) > tolerances.CRUMB_MM2);
    // A hair wider, so that it joins the edges round it.
    if (bare.length > 0) add(key, box, besides(grow(bare, tolerances.HAIRLINE_MM)));
  };
  for (const { key, thinnestMm, durableMm, cut } of layers) {
    const large = cutBesides(cut, specks.get(key)!);
    for (const hole of pinholes(large, repair.speckMm2)) {
      const box = boundsOf([hole])!;
      if (rules.reaches('specks', box)) fill(key, [reversed(hole)], box);
    }
    for (const gap of narrowGaps(large, Math.min(repair.closeGapsMm, thinnestMm))) {
      const box = boundsOf([gap.outer])!;
      if (rules.reaches('gaps', box)) fill(key, [gap.outer, ...gap.holes], box);
    }
    const width = Math.min(repair.thickenMm, durableMm);
    for (const part of thinParts(large, width)) {
      const box = boundsOf([part.outer])!;
      if (rules.reaches('thicken', box)) add(key, box, thickening(large, part, width));
    }
  }
  if (taken.size === 0 && added.length === 0) return null;
  const left = areas.map((area, i) => (taken.has(i) ? { ...area, rings: subtract(area.rings, taken.get(i)!) } : area));
  return [...left.filter((area) => area.rings.length > 0), ...added];
}
