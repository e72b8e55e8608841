import { parseArgs } from 'node:util';
import { separate } from '../core/engines/layers/index.js';
import { movedMap, taperMap, warpRings, whyNoCone, type Cone } from '../core/engines/surface/index.js';
import { boundsOf, joinBoxes, tolerances, translateRings, unite, type Box } from '../core/geometry/index.js';
import { mapFigures } from '../core/plan/index.js';
import { sayBeyondSlant, sayNoCone } from '../core/stations/surface/index.js';
import { InputError } from '../core/words/index.js';
import { numberOption, onlyFile, required } from './input.js';
import { readDesign } from './read-design.js';
import { writeSeparation } from './write-separation.js';

/** Half of what curves may err by is left for the warp. */
const TRUER = 0.4;

/** Warps a drawing for a taper and writes its layers as `separate` does, inlay, with the map beside them. */
export async function warpCommand(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      d1: { type: 'string' },
      d2: { type: 'string' },
      slant: { type: 'string' },
      wide: { type: 'string' },
      width: { type: 'string' },
      out: { type: 'string' },
    },
  });
  const file = onlyFile(positionals, 'warp', 'the artwork');
  const out = required(values.out, 'warp', 'out');
  const given = (option: 'd1' | 'd2' | 'slant' | 'width') =>
    numberOption(required(values[option], 'warp', option), option, 0, 'warp')!;
  const wide = values.wide ?? 'top';
  if (wide !== 'top' && wide !== 'foot')
    throw new InputError('usage', `--wide must be top or foot, but is “${wide}”.`, { source: 'warp' });
  const cone: Cone = { d1Mm: given('d1'), d2Mm: given('d2'), slantMm: given('slant'), wide };
  const trouble = whyNoCone(cone);
  if (trouble) throw new InputError('no-cone', sayNoCone(trouble, cone), { source: 'warp' });
  const widthMm = given('width');
  if (widthMm < 0.1) throw new InputError('usage', '--width must be at least 0.1 mm.', { source: 'warp' });

  const design = await readDesign(file, widthMm, TRUER);
  const flat = taperMap(cone, design);
  if (widthMm > flat.angleRad * flat.midRadiusMm)
    throw new InputError(
      'wider-than-round',
      `The design is ${widthMm} mm wide, but the side is only ${(flat.angleRad * flat.midRadiusMm).toFixed(1)} mm round at its middle height.`,
      { source: 'warp' },
    );
  const warped = design.regions.map((region) => ({
    ...region,
    rings: unite(warpRings(flat, region.rings, tolerances.FLATTEN_MM * TRUER)),
  }));
  const box = warped.reduce<Box | null>((sum, { rings }) => joinBoxes(sum, boundsOf(rings)), null)!;
  const regions = warped.map((region) => ({ ...region, rings: translateRings(region.rings, -box.minX, -box.minY) }));
  await writeSeparation(
    out,
    {
      artwork: design.artwork,
      noticed: design.noticed,
      regions,
      separation: separate(regions.map(({ colour, rings }) => ({ layer: colour, rings }))),
      frame: { widthMm: box.maxX - box.minX, heightMm: box.maxY - box.minY },
      build: 'inlay',
      trapMm: 0,
      findings: design.heightMm > cone.slantMm ? [sayBeyondSlant(design.heightMm, cone.slantMm)] : [],
    },
    { map: mapFigures(movedMap(flat, -box.minX, -box.minY)) },
  );
}
