import { formatHex } from 'culori/fn';
import { numberOf, textOf, type DxfFile, type Entity } from './tags.js';

const BY_BLOCK = 0;
const BY_LAYER = 256;

/** Lightness of the five steps that each hue of the palette has. */
const STEPS = [1, 0.65, 0.5, 0.3, 0.15];
const GREYS: Readonly<Record<number, number>> = {
  8: 128,
  9: 192,
  250: 51,
  251: 91,
  252: 132,
  253: 173,
  254: 214,
  255: 255,
};
const PURE: readonly (readonly [number, number, number])[] = [
  [0, 0, 0],
  [255, 0, 0],
  [255, 255, 0],
  [0, 255, 0],
  [0, 255, 255],
  [0, 0, 255],
  [255, 0, 255],
  [0, 0, 0],
];

/**
 * The colour of an index of the DXF palette: 1 to 7 pure (7 is drawn black, as on paper), 10 to 249 in 24 hues of ten shades,
 * the rest greys.
 */
export function indexColour(index: number): string {
  const pure = PURE[index];
  if (pure) return hexOf(...pure);
  const grey = GREYS[index];
  if (grey !== undefined) return hexOf(grey, grey, grey);
  if (index < 10 || index > 249) return '#000000';
  const value = 255 * STEPS[Math.floor((index % 10) / 2)]!;
  const low = index % 2 === 1 ? value / 2 : 0;
  const sector = (Math.floor(index / 10) - 1) / 4;
  const rise = low + (value - low) * (sector - Math.floor(sector));
  const fall = low + (value - low) * (1 - (sector - Math.floor(sector)));
  const rgb = (
    [
      [value, rise, low],
      [fall, value, low],
      [low, value, rise],
      [low, fall, value],
      [rise, low, value],
      [value, low, fall],
    ] as const
  )[Math.floor(sector) % 6]!;
  return hexOf(...rgb);
}

function hexOf(r: number, g: number, b: number): string {
  return formatHex({ mode: 'rgb', r: Math.round(r) / 255, g: Math.round(g) / 255, b: Math.round(b) / 255 });
}

/** An entity's colour: its own, its layer's, or that of the block it is inserted with. */
export function colourOf(entity: Entity, file: DxfFile, blockColour: string, blockLayer: string): string {
  const truth = numberOf(entity, 420, -1);
  if (truth >= 0) return `#${(truth & 0xffffff).toString(16).padStart(6, '0')}`;
  const index = numberOf(entity, 62, BY_LAYER);
  if (index === BY_BLOCK) return blockColour;
  if (index !== BY_LAYER) return indexColour(Math.abs(index));
  const layer = file.layers.get(layerOf(entity, blockLayer));
  if (!layer) return '#000000';
  const layerTruth = numberOf(layer, 420, -1);
  return layerTruth >= 0
    ? `#${(layerTruth & 0xffffff).toString(16).padStart(6, '0')}`
    : indexColour(Math.abs(numberOf(layer, 62, 7)));
}

/** The name of an entity's layer, as layers are kept: capitals do not matter. What stands on layer 0 of a block is on the layer that the block is inserted on. */
export function layerOf(entity: Entity, blockLayer: string): string {
  const name = textOf(entity, 8).toUpperCase();
  return name === '0' || name === '' ? blockLayer : name;
}

/** Not drawn: what is marked as invisible or belongs to the paper around the drawing, and layers that are frozen, or off (their colour is then negative). */
export function isHidden(entity: Entity, file: DxfFile, blockLayer: string): boolean {
  if (numberOf(entity, 60) === 1 || numberOf(entity, 67) === 1) return true;
  const layer = file.layers.get(layerOf(entity, blockLayer));
  return layer !== undefined && ((numberOf(layer, 70) & 1) === 1 || numberOf(layer, 62, 7) < 0);
}
