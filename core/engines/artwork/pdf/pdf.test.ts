import { deflateSync } from 'node:zlib';
import { decode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../../../platform/artwork-resources.js';
import { areaOf, ringsToPathData } from '../../../geometry/index.js';
import { comparedPdfs, pdfCase as file } from '../../../testing/pdf-cases.js';
import { layersSvg, pixelDifference, drawn } from '../../../testing/picture-difference.js';
import { seeded } from '../../../testing/seeded.js';
import { ArtworkReader, paintRegions, READ_AS_IT_IS, Refusal } from '../index.js';

const reader = new ArtworkReader(resourcesInNode);
const read = (name: string, page = 1) => reader.drawing(file(name), name, READ_AS_IT_IS, page);
const compared = comparedPdfs();

/** In the inks of a press: how they look on a screen is each program's own guess, so only that shapes are there is compared. */
const IN_INKS = new Set(['gs-4.pdf', 'tex-1.pdf', 'tex-4.pdf']);

/** A kept picture, its pixels with alpha. */
function kept(name: string) {
  const { width, height, data, channels } = decode(file(name));
  const pixels = Buffer.alloc(width * height * 4, 255);
  for (let i = 0; i < width * height; i += 1)
    for (let c = 0; c < 3; c += 1) pixels[4 * i + c] = data[channels * i + (channels < 3 ? 0 : c)]!;
  return { width, height, pixels };
}

describe('PDFs of five unlike writers', () => {
  it('are twenty, and one with a mask', () => expect(compared.length).toBe(21));

  it.each(compared)('%s looks as another program draws it', async (name) => {
    const artwork = await read(name);
    const { regions } = paintRegions(artwork, 1);
    const picture = kept(name.replace('.pdf', '.png'));
    const ours = drawn(
      layersSvg(
        regions.map(({ colour, rings }) => ({ colour, path: ringsToPathData(rings) })),
        artwork,
      ),
      picture.width,
    );
    expect(pixelDifference(picture, ours, IN_INKS.has(name) ? 80 : undefined)).toBeLessThanOrEqual(0.005);
  });
});

describe('a PDF', () => {
  it('is read page by page, and says how many there are', async () => {
    const [first, second] = [await read('pages.pdf'), await read('pages.pdf', 2)];
    expect([first.page, second.page]).toEqual([
      { number: 1, of: 2 },
      { number: 2, of: 2 },
    ]);
    expect([first, second].map(({ widthMm, paints }) => [Math.round(widthMm), paints[0]!.colour])).toEqual([
      [71, '#b2262b'],
      [35, '#1c4f89'],
    ]);
    await expect(read('pages.pdf', 3)).rejects.toMatchObject({ code: 'pdf-no-page', figures: { page: 3, pages: 2 } });
  });

  it('that is locked or no PDF inside is refused, with why', async () => {
    await expect(read('locked.pdf')).rejects.toMatchObject({ code: 'pdf-encrypted' });
    await expect(
      reader.drawing(new TextEncoder().encode('%PDF-1.7\nnothing of the kind'), 'x.pdf', READ_AS_IT_IS),
    ).rejects.toMatchObject({ code: 'pdf-damaged' });
  });

  it('has its spot colours by what stands in for them', async () => {
    const bytes = new TextEncoder().encode(SPOT);
    const artwork = await reader.drawing(bytes, 'spot.pdf', READ_AS_IT_IS);
    expect(artwork.paints.map(({ colour }) => colour)).toEqual(['#cc0000']);
  });

  it('leaves text in fonts that it does not bring, says so, and sets it in another when that is wanted', async () => {
    const artwork = await read('not-embedded.pdf');
    const missing = artwork.noticed.filter(({ code }) => code === 'font-missing');
    expect(missing.map((one) => ('family' in one ? one.family : ''))).toEqual(['Helvetica-Bold', 'Times-Roman']);
    const set = await reader.drawing(file('not-embedded.pdf'), 'not-embedded.pdf', {
      ...READ_AS_IT_IS,
      fonts: { 'Helvetica-Bold': 'archivo', 'Times-Roman': 'archivo' },
    });
    expect(set.paints.length).toBeGreaterThan(artwork.paints.length + 10);
  });

  it('has its shadings and pictures told as those of an SVG are, with the same remedies', async () => {
    expect((await read('shaded.pdf')).noticed.map(({ code }) => code)).toEqual(['gradient-flattened', 'picture-left']);
    const made = await reader.drawing(file('shaded.pdf'), 'shaded.pdf', {
      ...READ_AS_IT_IS,
      gradientBands: 3,
      pictures: 'trace',
    });
    const { regions } = paintRegions(made, 1);
    // The disc of the picture is 220 of its 40 × 40 pixels' units across, 1 mm each.
    expect(
      regions.filter(({ colour }) => colour === '#1d4e89').reduce((sum, { rings }) => sum + areaOf(rings), 0),
    ).toBeCloseTo(Math.PI * 220, -2);
    expect(new Set(regions.map(({ colour }) => colour)).size).toBe(4);
  });

  it.each([
    ['shapes', Array.from({ length: 60_000 }, (_, i) => `${i % 90} ${(7 * i) % 90} 3 3 re f`)],
    ['steps', Array.from({ length: 450_000 }, (_, i) => `${i % 9} w`)],
  ])('of more %s than any drawing has is refused before it takes minutes', async (_, steps) => {
    const packed = deflateSync(steps.join('\n'));
    const head = Buffer.from(
      SPOT.slice(0, SPOT.indexOf('4 0 obj')).replace(/\/Resources.*?>>>>>>>/, '/Resources<<>>>>'),
    );
    const bytes = Buffer.concat([
      head,
      Buffer.from(`4 0 obj\n<</Length ${packed.length}/Filter/FlateDecode>>\nstream\n`),
      packed,
      Buffer.from('\nendstream\nendobj\ntrailer<</Root 1 0 R>>\n'),
    ]);
    await expect(reader.drawing(bytes, 'x.pdf', READ_AS_IT_IS)).rejects.toMatchObject({ code: 'too-many-shapes' });
  });

  it.each(Array.from({ length: process.env['LANTERN_LONG'] ? 600 : 60 }, (_, seed) => seed))(
    'that is damaged is read or refused, never a crash, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const bytes = file(compared[seed % compared.length]!).slice(
        0,
        seed % 3 === 0 ? undefined : 400 + Math.floor(random() * 6000),
      );
      for (let i = 0; i < 1 + 20 * random(); i += 1)
        bytes[Math.floor(random() * bytes.length)] = Math.floor(256 * random());
      bytes.set(new TextEncoder().encode('%PDF-1.5'));
      try {
        const artwork = await reader.drawing(bytes, 'x.pdf', READ_AS_IT_IS);
        expect(
          paintRegions(artwork, 1).regions.every(({ rings }) => rings.every((ring) => ring.every(Number.isFinite))),
        ).toBe(true);
      } catch (error) {
        expect(error).toBeInstanceOf(Refusal);
      }
    },
  );
});

/** A page with one square in an ink of its own name, which a function turns into red. */
const SPOT = `%PDF-1.4
1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj
2 0 obj<</Type/Pages/Kids[3 0 R]/Count 1>>endobj
3 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 100 100]/Contents 4 0 R/Resources<</ColorSpace<</S[/Separation/SignalRed/DeviceRGB 5 0 R]>>>>>>endobj
4 0 obj<</Length 40>>stream
/S cs 1 scn 10 10 50 50 re f            
endstream endobj
5 0 obj<</FunctionType 2/Domain[0 1]/C0[1 1 1]/C1[0.8 0 0]/N 1>>endobj
trailer<</Root 1 0 R>>
`;
