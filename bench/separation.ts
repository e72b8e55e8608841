import { Resvg } from '@resvg/resvg-js';
import { paintRegions, readSvg } from '../core/engines/artwork/index.js';
import { pointCount, unite, type Ring } from '../core/geometry/index.js';
import { buildLayers, separate } from '../core/engines/layers/index.js';
import { openArtwork, type OpenArtwork } from '../core/testing/open-artwork.js';
import { fastestMs, median, ms, print, quantile, times } from './measure.js';

interface Row {
  readonly points: number;
  readonly separated: number;
  readonly trapped: number;
  readonly whole: number;
}

/** Ratios of one artwork: taking it apart against the kernel's bare union of the same regions, and all of it against a renderer. */
function ratios({ name, svg }: OpenArtwork, scale: number): Row | null {
  const bytes = new TextEncoder().encode(svg);
  const artwork = readSvg(bytes, name);
  const { regions } = paintRegions(artwork, scale);
  const points = regions.reduce((sum, region) => sum + pointCount(region.rings), 0);
  if (new Set(regions.map((region) => region.colour)).size < 2) return null;
  const paints = regions.map((region) => ({ layer: region.colour, rings: region.rings }));
  const rings = regions.flatMap((region) => region.rings as Ring[]);
  const bare = fastestMs(() => unite(rings));
  const build = () => buildLayers(separate(paints), { school: 'trapped', trapMm: 0.35, thinnestMm: () => 0.8 });
  const draw = fastestMs(() => new Resvg(svg, { fitTo: { mode: 'width', value: 1024 } }).render(), 3);
  const all = fastestMs(() => {
    const again = paintRegions(readSvg(bytes, name), scale).regions;
    buildLayers(separate(again.map((region) => ({ layer: region.colour, rings: region.rings }))), {
      school: 'trapped',
      trapMm: 0.35,
    });
  }, 3);
  return {
    points,
    separated: fastestMs(() => separate(paints)) / bare,
    trapped: fastestMs(build) / bare,
    whole: all / draw,
  };
}

/** 5,000 points in six colours: overlapping discs in a grid, some of them rings. */
function made(points: number): OpenArtwork {
  const count = points / 50;
  const side = Math.ceil(Math.sqrt(count));
  const colours = ['#b3262b', '#1d4e89', '#f2b632', '#1f6b45', '#f7f5ef', '#16181a'];
  const discs = Array.from(
    { length: count },
    (_, i) =>
      `<circle cx="${(i % side) * 16 + 12}" cy="${Math.floor(i / side) * 16 + 12}" r="${9 + (i % 3)}" fill="${colours[i % 6]}"/>`,
  );
  return {
    name: `made, ${points}`,
    svg: `<svg xmlns="http://www.w3.org/2000/svg" width="${side * 17}mm" height="${side * 17}mm" viewBox="0 0 ${side * 17} ${side * 17}">${discs.join('')}</svg>`,
  };
}

export function separationBench(): void {
  const own = ratios(made(5000), 1)!;
  const rows = openArtwork(12, 1).flatMap((artwork) => ratios(artwork, 8) ?? []);
  const large = rows.filter((row) => row.points >= 1500 && row.points <= 10_000);
  print('Taking artwork apart (ratio to the bare kernel’s union of the same regions; at most 4 ×)', [
    [`separate(), made artwork of ${own.points} points`, times(own.separated)],
    ['  with the trapped build', times(own.trapped)],
    [
      `separate(), ${large.length} open artworks of 1,500 to 10,000 points, median / worst`,
      `${times(median(large.map((r) => r.separated)))} / ${times(Math.max(...large.map((r) => r.separated)))}`,
    ],
    [
      '  with the trapped build, median / worst',
      `${times(median(large.map((r) => r.trapped)))} / ${times(Math.max(...large.map((r) => r.trapped)))}`,
    ],
  ]);
  print('Reading, separating and building against a renderer drawing the same file at 1024 px', [
    [`made artwork of ${own.points} points`, times(own.whole)],
    [
      `${rows.length} open artworks, median / 90th of 100`,
      `${times(median(rows.map((r) => r.whole)))} / ${times(
        quantile(
          rows.map((r) => r.whole),
          0.9,
        ),
      )}`,
    ],
  ]);
  const growth = [1000, 4000, 16_000, 64_000].map((points) => {
    const { svg, name } = made(points);
    const bytes = new TextEncoder().encode(svg);
    return {
      points,
      took: fastestMs(
        () =>
          buildLayers(
            separate(paintRegions(readSvg(bytes, name), 1).regions.map((r) => ({ layer: r.colour, rings: r.rings }))),
            { school: 'trapped', trapMm: 0.35 },
          ),
        2,
      ),
    };
  });
  const [first, last] = [growth[0]!, growth.at(-1)!];
  print('How the cost grows with the artwork', [
    ...growth.map(({ points, took }) => [`${points} points, read to built`, ms(took)] as const),
    ['exponent', (Math.log(last.took / first.took) / Math.log(last.points / first.points)).toFixed(2)],
  ]);
}
