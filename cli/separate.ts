import { parseArgs } from 'node:util';
import { paintRegions } from '../core/engines/artwork/index.js';
import { boundsOf, joinBoxes, longestSide, type Box } from '../core/geometry/index.js';
import { FILM_FAMILIES } from '../core/shop/index.js';
import { sayUnit } from '../core/stations/surface/index.js';
import { InputError } from '../core/words/index.js';
import {
  CAREFUL_MM,
  contactsOf,
  placementErrorMm,
  separate,
  trapWidth,
  type School,
  type Separation,
} from '../core/engines/layers/index.js';
import { layOutMarks } from '../core/engines/marks/index.js';
import { numberOption, onlyFile, required } from './input.js';
import { readAnyArtwork } from './read-design.js';
import { writeSeparation } from './write-separation.js';

const SCHOOLS: ReadonlyMap<string, School> = new Map([
  ['overlay', 'overlay'],
  ['stacked', 'overlay'],
  ['inlay', 'inlay'],
  ['trapped', 'trapped'],
]);

/** Takes an artwork apart by colour and writes one SVG per layer and `separation.json`. */
export async function separateCommand(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      out: { type: 'string' },
      width: { type: 'string' },
      height: { type: 'string' },
      build: { type: 'string' },
      trap: { type: 'string' },
    },
  });
  const file = onlyFile(positionals, 'separate', 'the artwork');
  const out = required(values.out, 'separate', 'out');
  const [width, height] = [
    numberOption(values.width, 'width', 0.1, 'separate'),
    numberOption(values.height, 'height', 0.1, 'separate'),
  ];
  if (width !== null && height !== null)
    throw new InputError('usage', 'Give --width or --height, not both: the other side follows.', {
      source: 'separate',
    });
  const school = SCHOOLS.get(values.build ?? 'trapped');
  if (!school)
    throw new InputError('usage', `--build must be overlay, inlay or trapped, but is “${values.build}”.`, {
      source: 'separate',
    });
  const trap = numberOption(values.trap, 'trap', 0, 'separate');

  const artwork = await readAnyArtwork(file);
  const scale = width !== null ? width / artwork.widthMm : height !== null ? height / artwork.heightMm : 1;
  const { regions, noticed } = paintRegions(artwork, scale);
  const separation = separate(regions.map((r) => ({ layer: r.colour, rings: r.rings })));
  await writeSeparation(out, {
    artwork,
    noticed,
    regions,
    separation,
    frame: { widthMm: artwork.widthMm * scale, heightMm: artwork.heightMm * scale },
    build: school,
    trapMm: trap ?? ruledTrap(separation.layers),
    findings:
      artwork.mmPerUnit !== undefined && width === null && height === null ? [sayUnit(artwork, artwork.mmPerUnit)] : [],
  });
}

/** The trap by chance with a careful hand, layers of one film laid dry indoors, marks at the ends of the long side, and a cutter true to 0.05 mm. */
function ruledTrap(layers: Separation['layers']): number {
  const art = layers.reduce<Box | null>((box, layer) => joinBoxes(box, boundsOf(layer.visible)), null);
  if (!art) return 0;
  const { drawBackIndoorsMm } = FILM_FAMILIES.calendered;
  const { distanceMm } = layOutMarks(art, { sizeMm: 6, distanceMm: null });
  const placement = placementErrorMm(CAREFUL_MM.marked, longestSide(art), 'dry');
  // The first layer is the one that the others are laid to.
  const traps = contactsOf(layers).map(
    ({ a, farthestMm }) =>
      trapWidth({
        placementErrorMm: placement,
        bothLaid: a !== layers[0]!.key,
        shrinkDifference: 0,
        drawBackMm: 2 * drawBackIndoorsMm,
        reachMm: farthestMm,
        markDistanceMm: distanceMm,
        repeatabilityMm: 0.05,
      }).mm,
  );
  return Math.max(0, ...traps);
}
