import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { colourDifference, type Artwork, type Noticed, type PaintedRegion } from '../core/engines/artwork/index.js';
import {
  buildLayers,
  checkLayers,
  checkPaints,
  type BuiltLayer,
  type School,
  type Separation,
} from '../core/engines/layers/index.js';
import { areaOf, countPieces, type Box } from '../core/geometry/index.js';
import { layerSvg } from '../core/plan/index.js';
import { FILM_FAMILIES } from '../core/shop/index.js';
import {
  NO_REPAIR,
  NOTHING_PAINTED,
  sayColour,
  sayLayerTroubles,
  sayNoticed,
  sayPaintTroubles,
} from '../core/stations/artwork/index.js';
import type { Finding } from '../core/words/index.js';
import { makeFolder } from './input.js';

/** What is separated, in a frame whose upper left corner is at 0, 0. */
export interface ToSeparate {
  readonly artwork: Pick<Artwork, 'noticed'>;
  readonly noticed: readonly Noticed[];
  readonly regions: readonly PaintedRegion[];
  readonly separation: Separation;
  readonly frame: { readonly widthMm: number; readonly heightMm: number };
  readonly build: School;
  readonly trapMm: number;
  /** Findings that come before all others. */
  readonly findings: readonly Finding[];
}

/** Builds the layers and writes one SVG for each and `separation.json`, with some more figures in it. */
export async function writeSeparation(
  out: string,
  { artwork, noticed, regions, separation, frame, build, trapMm, findings }: ToSeparate,
  more: Readonly<Record<string, unknown>> = {},
): Promise<void> {
  const { layers } = buildLayers(separation, { school: build, trapMm });
  await makeFolder(out);
  const written = await Promise.all(layers.map((layer) => writeLayer(out, layer, frame)));
  const all = [
    ...findings,
    ...sayNoticed(artwork.noticed, NO_REPAIR),
    ...sayNoticed(noticed, NO_REPAIR),
    ...troublesOf(regions, layers, frame),
    ...(layers.length === 0 ? [NOTHING_PAINTED] : []),
  ];
  const report = {
    ...frame,
    build,
    trapMm: build === 'trapped' ? trapMm : 0,
    layers: written,
    ...more,
    findings: all.map(({ code, severity, stage, message, count }) => ({ code, severity, stage, message, count })),
  };
  await writeFile(join(out, 'separation.json'), JSON.stringify(report, null, 2) + '\n');
}

async function writeLayer(out: string, { key, order, cut }: BuiltLayer, frame: ToSeparate['frame']) {
  const svg = `layer-${order}-${key.slice(1)}.svg`;
  await writeFile(join(out, svg), layerSvg(cut, key, frame));
  return { id: `layer-${order}`, colour: key, order, areaMm2: areaOf(cut), ...countPieces(cut), svg };
}

/** Checked as if every colour were calendered film. */
function troublesOf(
  regions: readonly PaintedRegion[],
  layers: readonly BuiltLayer[],
  { widthMm, heightMm }: ToSeparate['frame'],
): Finding[] {
  const { name, thinnestMm } = FILM_FAMILIES.calendered;
  const frame: Box = { minX: 0, minY: 0, maxX: widthMm, maxY: heightMm };
  return [
    ...sayPaintTroubles(checkPaints(regions, [frame], colourDifference), NO_REPAIR),
    ...sayLayerTroubles(
      checkLayers(layers.map((layer) => ({ key: layer.key, thinnestMm, cut: layer.cut }))),
      (colour) => `${name} in ${sayColour(colour)}`,
    ),
  ];
}
