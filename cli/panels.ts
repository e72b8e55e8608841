import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { buildLayers, separate } from '../core/engines/layers/index.js';
import { MOST_PANELS, PANEL_LAP_MM, tile } from '../core/engines/surface/index.js';
import { boxRing, intersect } from '../core/geometry/index.js';
import { layerSvg } from '../core/plan/index.js';
import { InputError } from '../core/words/index.js';
import { makeFolder, numberOption, onlyFile, required } from './input.js';
import { readDesign } from './read-design.js';

/** Splits a design that is wider than a roll into panels over all its layers at once. */
export async function panelsCommand(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { width: { type: 'string' }, roll: { type: 'string' }, lap: { type: 'string' }, out: { type: 'string' } },
  });
  const file = onlyFile(positionals, 'panels', 'the artwork');
  const out = required(values.out, 'panels', 'out');
  const widthMm = numberOption(required(values.width, 'panels', 'width'), 'width', 1, 'panels')!;
  const rollMm = numberOption(required(values.roll, 'panels', 'roll'), 'roll', 1, 'panels')!;
  const lapMm = numberOption(values.lap, 'lap', 0, 'panels') ?? PANEL_LAP_MM;
  if (lapMm * 2 > rollMm)
    throw new InputError(
      'lap-too-wide',
      `A lap of ${lapMm} mm is more than half of the roll, ${rollMm} mm wide. Give a narrower --lap.`,
      { source: 'panels' },
    );
  const design = await readDesign(file, widthMm);
  const { layers } = buildLayers(separate(design.regions.map(({ colour, rings }) => ({ layer: colour, rings }))), {
    school: 'inlay',
    trapMm: 0,
  });
  const tiling = tile(
    layers.map(({ cut }) => cut),
    { widthMm, rollMm, lapMm },
  );
  if (!tiling)
    throw new InputError(
      'too-many-panels',
      `The design would need more than ${MOST_PANELS} panels. Give a wider --roll.`,
      { source: 'panels' },
    );
  await makeFolder(out);
  const panels = await Promise.all(
    tiling.panels.map(async ({ x0, x1, lapMm: lap }, k) => {
      const cut = layers
        .map(({ key, order, cut: rings }) => ({
          key,
          order,
          rings: intersect(rings, [boxRing({ minX: x0, minY: -1, maxX: x1, maxY: design.heightMm + 1 })]),
        }))
        .filter(({ rings }) => rings.length > 0);
      const written = cut.map(({ key, order }) => ({
        id: `layer-${order}`,
        svg: `panel-${k + 1}-layer-${order}-${key.slice(1)}.svg`,
      }));
      await Promise.all(
        cut.map(({ key, rings }, i) => writeFile(join(out, written[i]!.svg), layerSvg(rings, key, design))),
      );
      return { x0, x1, lapMm: lap, layers: written };
    }),
  );
  await writeFile(join(out, 'panels.json'), JSON.stringify({ panels }, null, 2) + '\n');
}
