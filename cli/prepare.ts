import { writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { parseArgs } from 'node:util';
import { paintRegions } from '../core/engines/artwork/index.js';
import { CAREFUL_MM, thinParts, withoutCrumbs } from '../core/engines/layers/index.js';
import { MARK_SCHOOLS, markGapMm, placeMarks } from '../core/engines/marks/index.js';
import { BORDER_KINDS, layerWeeding, weedingMinutes } from '../core/engines/weeding/index.js';
import { boundsOf, joinBoxes, unite, type Box, type Ring } from '../core/geometry/index.js';
import { FILM_FAMILIES, type FilmFamily } from '../core/shop/index.js';
import { ruledBorderMm } from '../core/stations/layers/index.js';
import { InputError } from '../core/words/index.js';
import { makeFolder, required } from './input.js';
import { readAnyArtwork } from './read-design.js';

/** Across a mark, mm. */
const MARK_MM = 6;

/** Prepares the layers of one design, as `separate` writes them, for weeding: marks, borders, relief lines, and what there is to weed, in `prepare.json`. */
export async function prepareCommand(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      out: { type: 'string' },
      family: { type: 'string' },
      border: { type: 'string' },
      relief: { type: 'boolean' },
      marks: { type: 'string' },
    },
  });
  const out = required(values.out, 'prepare', 'out');
  if (positionals.length === 0)
    throw new InputError('usage', 'Give the layers of a design, as separate writes them: at least one SVG.', {
      source: 'prepare',
    });
  const family = oneOf(Object.keys(FILM_FAMILIES) as FilmFamily[], values.family ?? 'calendered', 'family');
  const border = oneOf(BORDER_KINDS, values.border ?? 'box', 'border');
  // One layer needs no alignment, unless it is asked for.
  const school = oneOf(MARK_SCHOOLS, values.marks ?? (positionals.length > 1 ? 'ends' : 'none'), 'marks');
  const { thinnestMm, stripBulkMm } = FILM_FAMILIES[family];
  const layers = [];
  for (const file of positionals) layers.push({ svg: basename(file), cut: await readLayer(file) });
  const gapMm = markGapMm(MARK_MM);
  const placed = placeMarks(
    layers.map(({ cut }) => cut),
    { school, shape: 'diamond', sizeMm: MARK_MM, gapMm, placementErrorMm: CAREFUL_MM.marked },
  );
  const marks = placed?.marks ?? [];
  const all = layers.reduce<Box | null>((box, { cut }) => joinBoxes(box, boundsOf(cut)), null);
  const borderGapMm = all ? ruledBorderMm({ widthMm: all.maxX - all.minX, heightMm: all.maxY - all.minY }) : 0;
  await makeFolder(out);
  const report = {
    marks: marks.map(({ shape, xMm, yMm, ring }) => ({ shape, x: xMm, y: yMm, ring: pairs(ring) })),
    markGapMm: gapMm,
    borderGapMm,
    slipMm: placed?.slipMm ?? null,
    layers: layers.map(({ svg, cut }) => {
      const weeding = layerWeeding(
        cut,
        marks.map(({ ring }) => ring),
        thinParts(cut, 2 * thinnestMm),
        {
          border: { kind: border, gapMm: borderGapMm },
          relief: values.relief ?? false,
          bulkMm: stripBulkMm,
          drawn: [],
          gone: [],
          thinnestMm,
        },
      );
      return {
        svg,
        border: weeding.border.map(pairs),
        relief: weeding.relief,
        strips: weeding.strips.map(({ areaMm2, bulkMm, region: { outer, holes } }) => ({
          areaMm2,
          bulkMm,
          ring: [outer, ...holes].map(pairs),
        })),
        counters: weeding.map.spots
          .filter(({ kind }) => kind === 'counter')
          .map(({ xMm, yMm, areaMm2 }) => ({ x: xMm, y: yMm, areaMm2 })),
        looseParts: weeding.looseParts.map(({ xMm, yMm, areaMm2, easilyLost }) => ({
          x: xMm,
          y: yMm,
          areaMm2,
          easilyLost,
        })),
        minutes: weedingMinutes(weeding.work),
      };
    }),
    extraFilmMm2: placed?.extraFilmMm2 ?? 0,
  };
  await writeFile(join(out, 'prepare.json'), JSON.stringify(report, null, 2) + '\n');
}

/** All that a layer's file paints, as a blade can leave it, mm in its own frame. @throws InputError when it paints nothing */
async function readLayer(file: string): Promise<Ring[]> {
  const { regions } = paintRegions(await readAnyArtwork(file), 1);
  const cut = withoutCrumbs(unite(regions.flatMap(({ rings }) => rings))).rings;
  if (cut.length === 0)
    throw new InputError('nothing-painted', 'Nothing in it can be cut. Give a layer as separate writes it.', {
      source: basename(file),
    });
  return [...cut];
}

function pairs(ring: ArrayLike<number>): [number, number][] {
  return Array.from({ length: ring.length / 2 }, (_, i) => [ring[2 * i]!, ring[2 * i + 1]!]);
}

function oneOf<T extends string>(words: readonly T[], given: string, option: string): T {
  const found = words.find((word) => word === given);
  if (!found)
    throw new InputError('usage', `--${option} must be one of ${words.join(', ')}, but is “${given}”.`, {
      source: 'prepare',
    });
  return found;
}
