import { writeFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import { paintRegions, readArtwork, splitCutLines } from '../core/engines/artwork/index.js';
import { cutProgram, writeHpgl, type CutPath } from '../core/engines/cutting/index.js';
import { unite, type Ring } from '../core/geometry/index.js';
import { InputError } from '../core/words/index.js';
import { settingsFor, type Film } from '../core/shop/index.js';
import { inWords } from '../core/stations/artwork/index.js';
import { DEMO_SHOP } from '../demo/shop.js';
import { numberOf } from './numbers.js';
import { onlyFile, readInput, required } from './input.js';

/** Turns the outlines of an SVG into HP-GL for one sheet and prints what the cut comes to. */
export async function cutCommand(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { out: { type: 'string' }, cutter: { type: 'string' }, material: { type: 'string' } },
  });
  const file = onlyFile(positionals, 'cut', 'the outlines');
  const out = required(values.out, 'cut', 'out');
  const shop = DEMO_SHOP;
  if (values.cutter !== undefined && values.cutter !== shop.cutter.id) {
    throw new InputError(
      'cutter-unknown',
      `There is no cutter called “${values.cutter}”; the shop has “${shop.cutter.id}”.`,
      { source: 'cut' },
    );
  }
  const film = filmCalled(values.material ?? 'tar', shop.films);
  const bytes = await readInput(file);
  const artwork = await inWords(() => readArtwork(bytes, basename(file)));
  const { areas, lines: followed } = splitCutLines(artwork);
  const { regions } = paintRegions(areas, 1);
  const byColour = new Map<string, Ring[]>();
  for (const region of regions) byColour.set(region.colour, [...(byColour.get(region.colour) ?? []), ...region.rings]);
  const { widthMm, heightMm } = artwork;
  const flip = (points: Float64Array) =>
    points.map((v, i) => (i % 2 === 1 ? heightMm - v : film.mirrored ? widthMm - v : v));
  const contours = [...byColour.values()].flatMap((rings) => unite(rings)).map(flip);
  const lines: CutPath[] = followed.map((line) => ({ points: flip(line.points), closed: line.closed }));
  if (contours.length === 0 && lines.length === 0)
    throw new InputError('nothing-to-cut', 'It holds no outline that could be cut.', { source: basename(file) });
  const program = cutProgram({
    groups: [{ contours, borders: [] }],
    lines,
    settings: settingsFor(film, shop.cutter),
    motion: shop.cutter,
  });
  await writeFile(out, writeHpgl(program));
  console.log(
    JSON.stringify({
      paths: program.paths.length,
      cutMm: numberOf(program.cutMm),
      travelMm: numberOf(program.travelMm),
      seconds: numberOf(program.seconds),
      material: film.name,
      mirrored: film.mirrored,
      shiftMm: program.shiftMm,
    }),
  );
}

function filmCalled(name: string, films: readonly Film[]): Film {
  const wanted = name.toLowerCase();
  const film = films.find(
    (f) => f.id === wanted || f.name.toLowerCase() === wanted || f.family.toLowerCase() === wanted,
  );
  if (!film)
    throw new InputError(
      'material-unknown',
      `There is no film called “${name}”; known are ${films.map((f) => f.id).join(', ')}.`,
      { source: 'cut' },
    );
  return film;
}
