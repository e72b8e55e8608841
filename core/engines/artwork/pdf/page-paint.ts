import { compose, type Matrix } from '../../../geometry/index.js';
import type { PdfPicture } from './open-pdf.js';
import { figure, matrixAttribute, within, type SvgWriter } from './svg-writer.js';

/** A shading as the parser gives it: along a line, from circle to circle, or a mesh. */
export type Shading = readonly [kind: string, ...rest: unknown[]];

type Stop = readonly [at: number, colour: string];

/** A shading as a gradient under an id; null for one of no known kind. `to` maps its coordinates to the page, `own` those of what it fills. */
export function gradient(writer: SvgWriter, shading: Shading, to: Matrix, own: Matrix): string | null {
  if (shading[0] === 'Mesh') return meshMean(writer, shading);
  if (shading[0] !== 'RadialAxial') return null;
  const [, type, , stops, [x1, y1], [x2, y2], r1, r2] = shading as unknown as [
    string,
    'axial' | 'radial',
    unknown,
    readonly Stop[],
    [number, number],
    [number, number],
    number,
    number,
  ];
  const colours = stops
    .map(([at, colour]) =>
      colour === 'transparent'
        ? `<stop offset="${figure(at)}" stop-color="#ffffff" stop-opacity="0"/>`
        : `<stop offset="${figure(at)}" stop-color="${colour}"/>`,
    )
    .join('');
  const shared = `gradientUnits="userSpaceOnUse"${matrixAttribute(within(own, to), 'gradientTransform')}`;
  return writer.define((id) =>
    type === 'axial'
      ? `<linearGradient id="${id}" ${shared} x1="${figure(x1)}" y1="${figure(y1)}" x2="${figure(x2)}" y2="${figure(y2)}">${colours}</linearGradient>`
      : `<radialGradient id="${id}" ${shared} fx="${figure(x1)}" fy="${figure(y1)}" fr="${figure(r1)}" cx="${figure(x2)}" cy="${figure(y2)}" r="${figure(r2)}">${colours}</radialGradient>`,
  );
}

/** A mesh of colours comes to its mean, as a gradient does in film: no SVG has one. */
function meshMean(writer: SvgWriter, shading: Shading): string {
  const colours = shading[3] as Uint8Array;
  const sums = [0, 0, 0];
  for (let i = 0; i + 2 < colours.length; i += 3) for (let c = 0; c < 3; c += 1) sums[c]! += colours[i + c]!;
  const count = Math.max(1, Math.floor(colours.length / 3));
  const mean = `#${sums
    .map((sum) =>
      Math.round(sum / count)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
  return writer.define((id) => `<linearGradient id="${id}"><stop stop-color="${mean}"/></linearGradient>`);
}

/** A picture as a PNG inside the drawing, in the unit square that its matrix places. */
export async function picture(image: PdfPicture, ink: string | null, matrix: Matrix): Promise<string> {
  const { encode } = await import('fast-png');
  const { width, height } = image;
  const png = encode({
    width,
    height,
    ...(image.kind > 1 && ink === null
      ? { data: Uint8Array.from(image.data), channels: image.kind + 1 }
      : { data: bitsAsRgba(image, ink), channels: 4 }),
    depth: 8,
  });
  let letters = '';
  for (let i = 0; i < png.length; i += 8192) letters += String.fromCharCode(...png.subarray(i, i + 8192));
  return `<image${matrixAttribute(compose(matrix, [1 / width, 0, 0, -1 / height, 0, 1]))} width="${width}" height="${height}" xlink:href="data:image/png;base64,${btoa(letters)}"/>`;
}

/** A picture of one bit a pixel, black and white; of a stencil, the pixels that are cleared, in its ink. */
function bitsAsRgba({ width, height, data }: PdfPicture, ink: string | null): Uint8Array {
  const out = new Uint8Array(width * height * 4);
  const rowBytes = (width + 7) >> 3;
  const [r, g, b] = ink === null ? [0, 0, 0] : [1, 3, 5].map((at) => Number.parseInt(ink.slice(at, at + 2), 16));
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const isSet = ((data[y * rowBytes + (x >> 3)]! >> (7 - (x & 7))) & 1) === 1;
      const white = isSet ? 255 : 0;
      out.set(ink === null ? [white, white, white, 255] : [r!, g!, b!, isSet ? 0 : 255], 4 * (y * width + x));
    }
  }
  return out;
}
