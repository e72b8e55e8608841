import { Resvg } from '@resvg/resvg-js';
import { createRequire } from 'node:module';
import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../../../platform/artwork-resources.js';
import { areaOf, boundsOf, ringsToPathData, unite, type Rings } from '../../../geometry/index.js';
import { NO_REPAIR } from '../../../stations/artwork/index.js';
import { separate } from '../../layers/index.js';
import { pixelDifference } from '../../../testing/picture-difference.js';
import { ArtworkReader, paintRegions } from '../index.js';
import type { ReadRepair } from '../read-given.js';
import { withFindings } from '../../../testing/with-findings.js';

const reader = new ArtworkReader(resourcesInNode);
const svg = (body: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 300 150" width="300mm" height="150mm">${body}</svg>`;
const read = async (body: string, repair: Partial<ReadRepair> = {}) => {
  const artwork = withFindings(
    await reader.drawing(new TextEncoder().encode(svg(body)), 'test.svg', { ...NO_REPAIR, ...repair }),
  );
  return { artwork, ...paintRegions(artwork, 1), codes: artwork.findings.map((f) => f.code) };
};
const remade = (regions: readonly { readonly colour: string; readonly rings: Rings }[]) =>
  svg(regions.map((r) => `<path fill="${r.colour}" fill-rule="evenodd" d="${ringsToPathData(r.rings)}"/>`).join(''));

describe('text in a shipped font', () => {
  const fontFiles = [
    createRequire(import.meta.url).resolve('@expo-google-fonts/lobster/400Regular/Lobster_400Regular.ttf'),
  ];
  const draw = (source: string) => {
    const { width, height, pixels } = new Resvg(source, {
      fitTo: { mode: 'width', value: 900 },
      background: 'white',
      font: { fontFiles, loadSystemFonts: false },
    }).render();
    return { width, height, pixels };
  };
  const F = 'font-family="Lobster" font-size="40"';
  it.each([
    ['plain', `<text x="20" y="80" ${F}>Wry Lantern</text>`],
    ['anchored at its middle', `<text x="150" y="80" text-anchor="middle" ${F}>Quay &amp; Wick</text>`],
    ['anchored at its end', `<text x="290" y="80" text-anchor="end" ${F}>Heron</text>`],
    [
      'in spans of their own colour and size',
      `<text x="20" y="80" ${F}>Tea <tspan fill="#b3262b" font-size="150%">room</tspan> open</text>`,
    ],
    ['with letters placed one by one', `<text x="20 60 100" y="80 60 80" ${F}>abcdef</text>`],
    ['moved along', `<text x="20" y="80" ${F}>up<tspan dx="10" dy="-20">there</tspan> again</text>`],
    ['letters apart', `<text x="20" y="80" ${F} letter-spacing="6">Wick</text>`],
    ['stroked', `<text x="20" y="80" ${F} fill="#f2b632" stroke="#16181a" stroke-width="2">Moon</text>`],
    [
      'transformed',
      `<g transform="translate(30 20) rotate(12) scale(1.4 1)"><text x="0" y="40" ${F}>Lock 12</text></g>`,
    ],
    [
      'styled by rules, over lines',
      `<style>text{font-family:Lobster;font-size:40px;fill:#1d4e89}</style><text x="20" y="80">\n   Two\n   words\n</text>`,
    ],
    [
      'in the second of two families',
      `<text x="20" y="80" font-size="40" font-family="Nowhere Sans, 'Lobster'">Barge</text>`,
    ],
  ])('%s looks as a renderer draws it', async (_, body) => {
    const { regions, codes } = await read(body);
    expect(codes).toEqual([]);
    expect(regions.length).toBeGreaterThan(2);
    expect(pixelDifference(draw(svg(body)), draw(remade(regions)))).toBeLessThan(0.001);
  });

  it('sets accents that are typed after their letters, and counts both for positions', async () => {
    const composed = await read(`<text x="20 60 100" y="80" ${F}>éab</text>`);
    // The letter and its accent are two characters, so the third position is that of the second letter.
    const apart = await read(`<text x="20 40 60 100" y="80" ${F}>${'éab'.normalize('NFD')}</text>`);
    expect(apart.codes).toEqual([]);
    const boxes = ({ regions }: typeof apart) => regions.map(({ rings }) => boundsOf(rings));
    expect(boxes(apart)).toEqual(boxes(composed));
  });

  it('names a font that is not here, and another can stand in', async () => {
    const body = '<text x="20" y="80" font-family="Harbour Script" font-size="30">Wick</text>';
    const { codes, artwork, regions } = await read(body);
    expect(codes).toEqual(['font-missing']);
    expect(regions).toEqual([]);
    expect(artwork.findings[0]!.message).toContain('“Harbour Script”');
    const [remedy] = artwork.findings[0]!.remedies!;
    expect(remedy!.label).toMatch(/^Set “.*” in Pacifico$/);
    const put = await read(body, remedy!.patch.repair as Partial<ReadRepair>);
    expect([put.codes, put.regions.length]).toEqual([[], 4]);
  });

  const ARC =
    '<defs><path id="arc" d="M30 120A110 90 0 0 1 270 120"/><path id="wave" d="M20 80C80 20 100 20 150 80S240 140 290 80" transform="translate(0 10)"/></defs>';
  it.each([
    ['along an arc', `${ARC}<text ${F}><textPath href="#arc">Over the weir</textPath></text>`],
    [
      'along a wave, from its middle',
      `${ARC}<text ${F} text-anchor="middle"><textPath xlink:href="#wave" startOffset="50%">Mill stream</textPath></text>`,
    ],
    [
      'along an arc from a length on, in two colours',
      `${ARC}<text ${F}><textPath href="#arc" startOffset="40">Tea <tspan fill="#b3262b">room</tspan></textPath></text>`,
    ],
    [
      'along two lines, from the one to the other',
      `<path id="two" d="M10 40H90M10 90H150" fill="none"/><text ${F}><textPath href="#two">Tea on the towpath</textPath></text>`,
    ],
    [
      'along an arc and longer than it',
      `${ARC}<text ${F}><textPath href="#arc">As long as the canal is and on</textPath></text>`,
    ],
  ])('%s looks as a renderer draws it', async (_, body) => {
    const { regions, codes } = await read(body);
    expect(codes).toEqual([]);
    expect(regions.length).toBeGreaterThan(4);
    expect(pixelDifference(draw(svg(body)), draw(remade(regions)))).toBeLessThan(0.002);
  });

  it('along a path that is not there is left out, and says so', async () =>
    expect((await read('<text font-family="Lobster"><textPath href="#p">round</textPath></text>')).codes).toEqual([
      'text-left',
    ]));

  it('in a weight that the font is not here in says so', async () => {
    const { codes, artwork } = await read(
      '<text x="20" y="80" font-family="Zilla Slab" font-size="30">Wick <tspan font-weight="bold">and Lantern</tspan></text>',
    );
    expect([codes, artwork.findings[0]!.message]).toEqual([
      ['font-weight'],
      expect.stringContaining('is here only in bold. Text that should be regular'),
    ]);
    expect((await read('<text x="20" y="80" style="font:bold 30px Zilla Slab">Wick</text>')).codes).toEqual([]);
  });
});

describe('a gradient', () => {
  const linear =
    '<linearGradient id="g"><stop stop-color="#000000"/><stop offset="1" stop-color="#ffffff"/></linearGradient>';
  const radial =
    '<radialGradient id="g" fx="0.4"><stop stop-color="#f2b632"/><stop offset="1" stop-color="#b3262b"/></radialGradient>';
  const shape = '<path d="M20 20h200v80a60 40 0 0 1-200 0z" fill="url(#g)"/>';

  it('becomes its mean, laid by offsets, with bands as a remedy', async () => {
    const { regions, artwork } = await read(
      `<linearGradient id="g"><stop stop-color="#000000"/><stop offset=".1" stop-color="#c80000"/><stop offset="1" stop-color="#c80000"/></linearGradient>${shape}`,
    );
    expect(regions).toHaveLength(1);
    expect(Number.parseInt(regions[0]!.colour.slice(1, 3), 16)).toBeGreaterThan(0xb0);
    expect(artwork.findings[0]!.remedies!.map((r) => r.patch.repair!.gradientBands)).toEqual([3, 5, 8]);
  });

  it.each([
    ['linear', linear, 5],
    ['linear, turned', linear.replace('id="g"', 'id="g" gradientTransform="rotate(37 .5 .5)"'), 5],
    [
      'linear, in user space',
      linear.replace('id="g"', 'id="g" gradientUnits="userSpaceOnUse" x1="20" y1="20" x2="220" y2="140"'),
      8,
    ],
    ['radial', radial, 5],
    ['inherited', `${linear.replace('"g"', '"base"')}<linearGradient id="g" href="#base" x2="0" y2="1"/>`, 4],
  ])('%s is cut as bands that fill its shape and are near its colours', async (_, gradient, bands) => {
    const { regions, codes } = await read(gradient + shape, { gradientBands: bands });
    expect(codes).toEqual(['gradient-banded']);
    const layers = separate(regions.map((r) => ({ layer: r.colour, rings: r.rings }))).layers;
    expect(layers).toHaveLength(bands);
    const whole = (await read(shape.replace('url(#g)', '#000'))).regions[0]!.rings;
    expect(layers.reduce((sum, layer) => sum + areaOf(layer.visible), 0)).toBeCloseTo(areaOf(whole), 1);
    // Drawn over each other, the bands are as near to the gradient as half a band's step of colour.
    const draw = (source: string) =>
      new Resvg(source, { fitTo: { mode: 'width', value: 300 }, background: 'white' }).render().pixels;
    const [a, b] = [draw(svg(gradient + shape)), draw(remade(regions))];
    let sum = 0;
    for (let i = 0; i < a.length; i += 1) sum += Math.abs(a[i]! - b[i]!);
    expect(sum / a.length).toBeLessThan(255 / bands / 3);
  });
});

describe('a pattern', () => {
  const body =
    '<pattern id="p" width="10" height="10" patternUnits="userSpaceOnUse"><rect width="10" height="10" fill="#1f6b45"/><circle cx="5" cy="5" r="2" fill="#f2b632"/></pattern><rect width="100" height="50" fill="url(#p)"/>';
  it('is left out, or becomes its main colour', async () => {
    const left = await read(body);
    expect([left.codes, left.regions]).toEqual([['pattern-left'], []]);
    const flat = await read(body, left.artwork.findings[0]!.remedies![0]!.patch.repair as Partial<ReadRepair>);
    expect([flat.codes, flat.regions.map((r) => r.colour)]).toEqual([['pattern-flattened'], ['#1f6b45']]);
  });
});

describe('a picture inside a drawing', () => {
  const png = new Resvg(
    '<svg xmlns="http://www.w3.org/2000/svg" width="200" height="100"><rect width="200" height="100" fill="#fff"/><circle cx="60" cy="50" r="40" fill="#b3262b"/></svg>',
  )
    .render()
    .asPng()
    .toString('base64');
  const image = `<image x="50" y="20" width="200" height="100" href="data:image/png;base64,${png}"/>`;

  it('is left out until its outlines are asked for, and then lies where it was drawn', async () => {
    const left = await read(image);
    expect([left.codes, left.regions]).toEqual([['picture-left'], []]);
    const { regions, codes } = await read(
      image,
      left.artwork.findings[0]!.remedies![0]!.patch.repair as Partial<ReadRepair>,
    );
    expect(codes).toEqual(['picture-traced']);
    const box = boundsOf(unite(regions.flatMap((r) => [...r.rings])))!;
    expect([box.minX, box.minY, box.maxX, box.maxY].map((v) => Math.round(v))).toEqual([70, 30, 150, 110]);
  });

  it.each([
    ['from elsewhere', '<image width="9" height="9" href="http://example.invalid/a.png"/>', 'picture-left'],
    ['that is broken', '<image width="9" height="9" href="data:image/png;base64,AAAA"/>', 'picture-damaged'],
    ['that is no base64', '<image width="9" height="9" href="data:image/png;base64,%%%"/>', 'picture-damaged'],
  ])('%s is a finding', async (_, body, code) =>
    expect((await read(body, { pictures: 'trace' })).codes).toEqual([code]),
  );
});
