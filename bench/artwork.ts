import { Resvg } from '@resvg/resvg-js';
import {
  ArtworkReader,
  colourDifference,
  paintRegions,
  READ_AS_IT_IS,
  readSvg,
  type Artwork,
} from '../core/engines/artwork/index.js';
import { areaOf, pointCount, ringsToPathData, subtract, unite } from '../core/geometry/index.js';
import { DEFAULT_TRACING, newLettering } from '../core/stations/artwork/index.js';
import type { Job } from '../core/recipe/index.js';
import { buildLayers, checkLayers, checkPaints, separate } from '../core/engines/layers/index.js';
import { openArtwork, type OpenArtwork } from '../core/testing/open-artwork.js';
import { comparedPdfs, pdfCase } from '../core/testing/pdf-cases.js';
import { layersSvg, pictureDifference } from '../core/testing/picture-difference.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { openBench } from '../server/testing/bench.js';
import { fastestMs, median, ms, percent, print, quantile, times } from './measure.js';

/** Findings that say that the look cannot be kept in flat film. */
const NOT_FLAT = new Set([
  'gradient-flattened',
  'pattern-left',
  'mask-ignored',
  'filter-ignored',
  'picture-left',
  'text-left',
  'font-missing',
  'opacity-flattened',
  'blend-ignored',
  'colour-unknown',
]);

/** Drawings at which the renderer itself falls over, or leaves out shapes that are scaled down a million times. */
const UNDRAWABLE = new Set(['noto-v1/hot-beverage', 'flags/nu.svg']);

const encode = (text: string) => new TextEncoder().encode(text);

/** What reading and checking makes of a drawing; the checks are those of the Artwork station, every colour in a film that is weeded from 1 mm on. */
function readAndCheck(bytes: Uint8Array, name: string, scale: number) {
  const artwork = readSvg(bytes, name);
  const { regions } = paintRegions(artwork, scale);
  const separation = separate(regions.map((r) => ({ layer: r.colour, rings: r.rings })));
  const frame = { minX: 0, minY: 0, maxX: artwork.widthMm * scale, maxY: artwork.heightMm * scale };
  checkPaints(regions, [frame], colourDifference);
  checkLayers(separation.layers.map((layer) => ({ key: layer.key, thinnestMm: 1, cut: layer.visible })));
  return { artwork, regions };
}

function mismatch({ svg }: OpenArtwork, artwork: Artwork): number {
  const { regions } = paintRegions(artwork, 1);
  const { layers } = buildLayers(separate(regions.map((r) => ({ layer: r.colour, rings: r.rings }))), {
    school: 'inlay',
    trapMm: 0,
  });
  return pictureDifference(
    svg,
    layersSvg(
      layers.map((l) => ({ colour: l.key, path: ringsToPathData(l.cut) })),
      artwork,
    ),
  );
}

function faithfulness(): void {
  const drawings = openArtwork(60, 5).filter((drawing) => !UNDRAWABLE.has(drawing.name));
  const read = drawings.flatMap((drawing) => {
    try {
      return [{ ...drawing, artwork: readSvg(encode(drawing.svg), drawing.name) }];
    } catch {
      return [];
    }
  });
  const flat = read.filter(({ artwork }) => artwork.noticed.every((noticed) => !NOT_FLAT.has(noticed.code)));
  const differences = flat.map((drawing) => ({ name: drawing.name, share: mismatch(drawing, drawing.artwork) }));
  const shares = differences.map((d) => d.share);
  const worst = differences.reduce((a, b) => (b.share > a.share ? b : a));
  print('Faithfulness to a renderer, pixels outside a band of 1 px that differ', [
    [`${drawings.length} open drawings, read`, percent(read.length / drawings.length)],
    [`${flat.length} of them flat: median`, percent(median(shares))],
    [`  99th of 100`, percent(quantile(shares, 0.99))],
    [`  worst, ${worst.name}`, percent(worst.share)],
  ]);
}

function speed(): void {
  const usual = openArtwork(40, 2)
    .filter((drawing) => !UNDRAWABLE.has(drawing.name))
    .flatMap(({ name, svg }) => {
      const bytes = encode(svg);
      const { regions, artwork } = readAndCheck(bytes, name, 8);
      const points = regions.reduce((sum, region) => sum + pointCount(region.rings), 0);
      if (points < 2000 || points > 10_000) return [];
      const draw = fastestMs(() => new Resvg(svg, { fitTo: { mode: 'width', value: 1024 } }).render(), 5);
      const reading = fastestMs(() => readAndCheck(bytes, name, 8), 5);
      return artwork.paints.length > 0 ? [reading / draw] : [];
    });
  print(
    `Reading and checking ${usual.length} open drawings of 2,000 to 10,000 points, against drawing them at 1024 px`,
    [
      ['read, taken apart by colour, all checks: median', times(median(usual))],
      ['  90th of 100 / worst', `${times(quantile(usual, 0.9))} / ${times(Math.max(...usual))}`],
      ['  within 3 x', `${usual.filter((ratio) => ratio <= 3).length} of ${usual.length}`],
    ],
  );
}

/** What holding a drawing against a picture of it takes, once all of it is planned, and how often that raises an alarm. */
async function compared(): Promise<void> {
  const reader = new ArtworkReader(resourcesInNode);
  const rows: { readonly name: string; readonly ratio: number; readonly codes: readonly string[] }[] = [];
  for (const { name, svg } of openArtwork(40, 2).filter((drawing) => !UNDRAWABLE.has(drawing.name))) {
    const bytes = encode(svg);
    const artwork = readSvg(bytes, name);
    const draw = fastestMs(() => new Resvg(svg, { fitTo: { mode: 'width', value: 1024 } }).render(), 3);
    let took = Infinity;
    let noticed: readonly { readonly code: string }[] = [];
    for (let i = 0; i < 3; i += 1) {
      const start = performance.now();
      noticed = await reader.notAsDrawn(bytes, artwork);
      took = Math.min(took, performance.now() - start);
    }
    rows.push({ name, ratio: took / draw, codes: noticed.map(({ code }) => code) });
  }
  const ratios = rows.map(({ ratio }) => ratio);
  const alarmed = rows.filter(({ codes }) => codes.includes('not-as-drawn'));
  print(`Holding ${rows.length} open drawings against a picture of them, against drawing them at 1024 px`, [
    ['median / worst', `${times(median(ratios))} / ${times(Math.max(...ratios))}`],
    [
      'said to differ',
      `${alarmed.length}${alarmed.length > 0 ? ` (${alarmed.map(({ name }) => name).join(', ')})` : ''}`,
    ],
    ['that could not be drawn', String(rows.filter(({ codes }) => codes.includes('not-compared')).length)],
  ]);
}

/** Many wavy shapes of four colours, together of so many points. */
function wavy(points: number): string {
  const each = 250;
  const count = Math.max(1, Math.round(points / each));
  const side = Math.ceil(Math.sqrt(count));
  const colours = ['#b3262b', '#1d4e89', '#f2b632', '#1f6b45'];
  const shapes = Array.from({ length: count }, (_, i) => {
    const [x, y] = [(i % side) * 20 + 12, Math.floor(i / side) * 20 + 12];
    const d = Array.from({ length: each }, (__, k) => {
      const t = (2 * Math.PI * k) / each;
      const r = 9.5 + 1.5 * Math.sin(9 * t);
      return `${k === 0 ? 'M' : 'L'}${(x + r * Math.cos(t)).toFixed(3)} ${(y + r * Math.sin(t)).toFixed(3)}`;
    });
    return `<path fill="${colours[i % 4]}" d="${d.join('')}z"/>`;
  });
  const size = side * 20 + 4;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${size}mm" height="${size}mm" viewBox="0 0 ${size} ${size}">${shapes.join('')}</svg>`;
}

function growth(): void {
  const rows = [1000, 10_000, 100_000, 1_000_000].map((points) => {
    const bytes = encode(wavy(points));
    return { points, took: fastestMs(() => readAndCheck(bytes, 'wavy.svg', 1), points < 100_000 ? 3 : 1) };
  });
  const [first, last] = [rows[0]!, rows.at(-1)!];
  const exponent = (from: (typeof rows)[number], to: (typeof rows)[number]) =>
    (Math.log(to.took / from.took) / Math.log(to.points / from.points)).toFixed(2);
  print('How reading and checking grow', [
    ...rows.map(({ points, took }) => [`${points} points`, ms(took)] as const),
    ['exponent over all / from 100,000 to 1,000,000', `${exponent(first, last)} / ${exponent(rows[2]!, last)}`],
  ]);
}

async function tracing(): Promise<void> {
  const logo = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100"><rect width="100" height="100" fill="#fff"/><circle cx="30" cy="30" r="22" fill="#b3262b"/><path d="M55 50l8 24h25l-20 15 8 24-21-15-20 15 7-24-20-15h25z" fill="#b3262b" transform="scale(.8)"/><path d="M60 10h30v12h-9v18h-12v-18h-9z" fill="#16181a"/></svg>`;
  const reader = new ArtworkReader(resourcesInNode);
  const rows: (readonly [string, string])[] = [];
  for (const side of [1414, 2828, 6324]) {
    const png = new Uint8Array(new Resvg(logo, { fitTo: { mode: 'width', value: side } }).render().asPng());
    const took: number[] = [];
    for (let i = 0; i < 3; i += 1) {
      const start = performance.now();
      paintRegions(await reader.traced(await reader.picture(png, 'logo.png', DEFAULT_TRACING), 0.5), 0.5);
      took.push(performance.now() - start);
    }
    rows.push([
      `${((side * side) / 1e6).toFixed(0)} megapixels, file to areas: first / fastest`,
      `${ms(took[0]!)} / ${ms(Math.min(...took))}`,
    ]);
  }
  print('Tracing a two-colour logo', rows);
}

/** Two hundred letters in three bands: set, painted and taken apart by colour, and what the layers recompose to. */
async function bands(): Promise<void> {
  const reader = new ArtworkReader(resourcesInNode);
  const text = Array.from({ length: 7 }, () => 'Halyard and Wick on the canal quay').join('\n');
  const lettering = (colourBy: 'all' | 'band') => ({
    ...newLettering(text),
    capHeightMm: 20,
    colourBy,
    colours: ['#b3262b', '#f2b632', '#1d4e89'],
  });
  const make = async (colourBy: 'all' | 'band') => {
    const artwork = await reader.lettering(lettering(colourBy), null);
    const { regions } = paintRegions(artwork, 1);
    return separate(regions.map((region) => ({ layer: region.colour, rings: region.rings })));
  };
  const plain = await make('all');
  let took = Infinity;
  let banded = await make('band');
  for (let i = 0; i < 3; i += 1) {
    const start = performance.now();
    banded = await make('band');
    took = Math.min(took, performance.now() - start);
  }
  const whole = (made: typeof plain) => unite(made.layers.flatMap(({ visible }) => [...visible]));
  const apart = areaOf(subtract(whole(plain), whole(banded))) + areaOf(subtract(whole(banded), whole(plain)));
  print(`${text.replace(/\s/g, '').length} letters in three bands`, [
    ['set, painted, taken apart by colour (300 ms asked)', ms(took)],
    [
      'the layers together against the lettering without bands',
      `${(apart / areaOf(whole(plain))).toExponential(1)} of its area`,
    ],
  ]);
}

/** PDFs of several writers, from their bytes to painted areas; the parser is loaded by then. */
async function pdfs(): Promise<void> {
  const files = comparedPdfs();
  const reader = new ArtworkReader(resourcesInNode);
  const took: number[] = [];
  for (const name of files) {
    const bytes = pdfCase(name);
    let least = Infinity;
    for (let i = 0; i < 3; i += 1) {
      const start = performance.now();
      // A copy each time: what was read of the same bytes is kept.
      paintRegions(await reader.drawing(bytes.slice(), name, READ_AS_IT_IS), 1);
      least = Math.min(least, performance.now() - start);
    }
    took.push(least);
  }
  print(`${files.length} PDFs, from their bytes to areas`, [
    ['median / slowest', `${ms(median(took))} / ${ms(Math.max(...took))}`],
  ]);
}

/** How long the server takes to answer while its workers read what is hostile. */
async function answering(): Promise<void> {
  const bench = await openBench();
  try {
    const hostile = [
      wavy(1_000_000),
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9">${'<path d="M0 0h9v9z"/>'.repeat(10_000)}</svg>`,
    ];
    const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: 'Hostile' });
    const waits: number[] = [];
    let busy = true;
    const work = (async () => {
      for (const text of hostile) await bench.api('POST', `/api/jobs/${job.id}/artwork?fileName=a.svg`, encode(text));
      await bench.api('GET', `/api/jobs/${job.id}/plan`);
      busy = false;
    })();
    while (busy) {
      const start = performance.now();
      await bench.api('GET', '/api/jobs');
      waits.push(performance.now() - start);
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    await work;
    print('The server’s answers while a million points are read and planned', [
      [`${waits.length} answers: median / slowest`, `${ms(median(waits))} / ${ms(Math.max(...waits))}`],
    ]);
  } finally {
    await bench.close();
  }
}

export async function artworkBench(): Promise<void> {
  faithfulness();
  speed();
  await compared();
  growth();
  await tracing();
  await bands();
  await pdfs();
  await answering();
}
