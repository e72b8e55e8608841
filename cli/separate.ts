import { writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { ArtworkReader, colourDifference, paintRegions, pictureKind, type Artwork } from '../core/engines/artwork/index.js';
import { areaOf, boundsOf, countPieces, joinBoxes, longestSide, type Box } from '../core/geometry/index.js';
import { DEFAULT_TRACING, inWords, NO_REPAIR, NOTHING_PAINTED, sayColour, sayLayerTroubles, sayNoticed, sayPaintTroubles } from '../core/stations/artwork/index.js';
import { FILM_FAMILIES } from '../core/shop/index.js';
import { sayUnit } from '../core/stations/surface/index.js';
import { InputError, type Finding } from '../core/words/index.js';
import { layerSvg } from '../core/plan/index.js';
import { buildLayers, CAREFUL_MM, checkLayers, checkPaints, contactsOf, placementErrorMm, separate, trapWidth, type School, type Separation } from '../core/engines/layers/index.js';
import { layOutMarks } from '../core/engines/marks/index.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { makeFolder, numberOption, onlyFile, readInput, required } from './input.js';

const SCHOOLS: ReadonlyMap<string, School> = new Map([['overlay', 'overlay'], ['stacked', 'overlay'], ['inlay', 'inlay'], ['trapped', 'trapped']]);

/** Takes an artwork apart by colour and writes one SVG per layer and `separation.json`. */
export async function separateCommand(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { out: { type: 'string' }, width: { type: 'string' }, height: { type: 'string' }, build: { type: 'string' }, trap: { type: 'string' } },
  });
  const file = onlyFile(positionals, 'separate', 'the artwork');
  const out = required(values.out, 'separate', 'out');
  const [width, height] = [numberOption(values.width, 'width', 0.1, 'separate'), numberOption(values.height, 'height', 0.1, 'separate')];
  if (width !== null && height !== null) throw new InputError('usage', 'Give --width or --height, not both: the other side follows.', { source: 'separate' });
  const school = SCHOOLS.get(values.build ?? 'trapped');
  if (!school) throw new InputError('usage', `--build must be overlay, inlay or trapped, but is “${values.build}”.`, { source: 'separate' });
  const trap = numberOption(values.trap, 'trap', 0, 'separate');

  const reader = new ArtworkReader(resourcesInNode);
  const bytes = await readInput(file);
  const artwork = await inWords(() => readAny(reader, bytes, basename(file)));
  const scale = width !== null ? width / artwork.widthMm : height !== null ? height / artwork.heightMm : 1;
  const { regions, noticed } = paintRegions(artwork, scale);
  const separation = separate(regions.map((r) => ({ layer: r.colour, rings: r.rings })));
  const trapMm = trap ?? ruledTrap(separation.layers);
  const { layers } = buildLayers(separation, { school, trapMm });
  const [widthMm, heightMm] = [artwork.widthMm * scale, artwork.heightMm * scale];
  const { name: filmName, thinnestMm } = FILM_FAMILIES.calendered;
  const nothing = layers.length === 0 ? [NOTHING_PAINTED] : [];
  const checked = [
    ...sayPaintTroubles(checkPaints(regions, [{ minX: 0, minY: 0, maxX: widthMm, maxY: heightMm }], colourDifference), NO_REPAIR),
    ...sayLayerTroubles(checkLayers(layers.map((layer) => ({ key: layer.key, thinnestMm, cut: layer.cut }))), (colour) => `${filmName} in ${sayColour(colour)}`),
  ];

  await makeFolder(out);
  const written = layers.map((layer) => ({
    id: `layer-${layer.order}`,
    colour: layer.key,
    order: layer.order,
    areaMm2: areaOf(layer.cut),
    ...countPieces(layer.cut),
    svg: `layer-${layer.order}-${layer.key.slice(1)}.svg`,
  }));
  await Promise.all(layers.map((layer, i) => writeFile(join(out, written[i]!.svg), layerSvg(layer.cut, layer.key, { widthMm, heightMm }))));
  const report = {
    widthMm,
    heightMm,
    build: school,
    trapMm: school === 'trapped' ? trapMm : 0,
    layers: written,
    findings: [...(artwork.mmPerUnit !== undefined && width === null && height === null ? [sayUnit(artwork, artwork.mmPerUnit)] : []), ...sayNoticed(artwork.noticed, NO_REPAIR), ...sayNoticed(noticed, NO_REPAIR), ...checked, ...nothing].map(({ code, severity, stage, message, count }: Finding) => ({ code, severity, stage, message, count })),
  };
  await writeFile(join(out, 'separation.json'), JSON.stringify(report, null, 2) + '\n');
}

/** A drawing as it is, or a picture traced as the app sees fit, specks measured at its own size. */
async function readAny(reader: ArtworkReader, bytes: Uint8Array, source: string): Promise<Artwork> {
  if (!pictureKind(bytes)) return reader.drawing(bytes, source, NO_REPAIR);
  return reader.traced(await reader.picture(bytes, source, DEFAULT_TRACING), DEFAULT_TRACING.speckMm);
}

/** The trap by chance with a careful hand, layers of one film laid dry indoors, marks at the ends of the long side, and a cutter true to 0.05 mm. */
function ruledTrap(layers: Separation['layers']): number {
  const art = layers.reduce<Box | null>((box, layer) => joinBoxes(box, boundsOf(layer.visible)), null);
  if (!art) return 0;
  const { drawBackIndoorsMm } = FILM_FAMILIES.calendered;
  const { distanceMm } = layOutMarks(art, { sizeMm: 6, distanceMm: null });
  const placement = placementErrorMm(CAREFUL_MM.marked, longestSide(art), 'dry');
  // The first layer is the one that the others are laid to.
  const traps = contactsOf(layers).map(({ a, farthestMm }) => trapWidth({ placementErrorMm: placement, bothLaid: a !== layers[0]!.key, shrinkDifference: 0, drawBackMm: 2 * drawBackIndoorsMm, reachMm: farthestMm, markDistanceMm: distanceMm, repeatabilityMm: 0.05 }).mm);
  return Math.max(0, ...traps);
}
