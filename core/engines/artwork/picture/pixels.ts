import { Refusal } from '../refusal.js';

/** A picture as bytes: red, green, blue, alpha of every pixel, row by row from the top left. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
}

export type PictureKind = 'png' | 'jpeg' | 'webp';

/** Larger pictures are refused before they are unpacked. */
const MOST_PIXELS = 40_000_000;
/** Outlines are followed on so many pixels at most: a line of one of them is then a tenth of a millimetre on a design of 250 mm. */
export const WORKING_PIXELS = 6_000_000;

type Size = Pick<Pixels, 'width' | 'height'>;

/** The middle of a pixel, x and y in pixels from the upper left corner. */
export const middleOfPixel = (p: number, width: number): [number, number] => [
  (p % width) + 0.5,
  Math.floor(p / width) + 0.5,
];

/** The pixels of a picture up to `reach` pixels away to each side of the one that a place lies in, and that one. */
export function pixelsRound(x: number, y: number, reach: number, { width, height }: Size): number[] {
  const [atX, atY] = [Math.floor(x), Math.floor(y)];
  const out: number[] = [];
  for (let v = Math.max(0, atY - reach); v <= Math.min(height - 1, atY + reach); v += 1)
    for (let u = Math.max(0, atX - reach); u <= Math.min(width - 1, atX + reach); u += 1) out.push(v * width + u);
  return out;
}

/** The up to eight pixels that touch one, also over a corner. */
export function neighboursOf(p: number, size: Size): number[] {
  return pixelsRound(p % size.width, Math.floor(p / size.width), 1, size).filter((q) => q !== p);
}

/** What kind of picture a file is by its first bytes, whatever it is called; null when it is none that is read. */
export function pictureKind(bytes: Uint8Array): PictureKind | null {
  const at = (i: number, text: string) => [...text].every((c, n) => bytes[i + n] === c.charCodeAt(0));
  if (bytes[0] === 0x89 && at(1, 'PNG')) return 'png';
  if (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) return 'jpeg';
  return at(0, 'RIFF') && at(8, 'WEBP') ? 'webp' : null;
}

/**
 * Width and height that a picture's head states.
 * @throws Refusal `picture-damaged` when it states none, `picture-too-large` above 40 megapixels, `picture-cmyk` for a JPEG in four printing colours
 */
export function pictureSize(bytes: Uint8Array, kind: PictureKind, source: string): { width: number; height: number } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let size: { width: number; height: number; channels?: number } | null = null;
  try {
    size =
      kind === 'png'
        ? { width: view.getUint32(16), height: view.getUint32(20) }
        : kind === 'jpeg'
          ? jpegSize(view)
          : webpSize(view);
  } catch (error) {
    // Reading past the end: the head is cut off.
    if (!(error instanceof RangeError)) throw error;
  }
  if (!size || !(size.width > 0) || !(size.height > 0))
    throw new Refusal('picture-damaged', { kind: null }, { source });
  if (size.width * size.height > MOST_PIXELS) {
    throw new Refusal(
      'picture-too-large',
      { megapixels: Math.round((size.width * size.height) / 1e6), most: MOST_PIXELS / 1e6 },
      { source },
    );
  }
  if (size.channels === 4) throw new Refusal('picture-cmyk', {}, { source });
  return size;
}

function jpegSize(view: DataView): { width: number; height: number; channels: number } | null {
  for (let at = 2; at < view.byteLength;) {
    if (view.getUint8(at) !== 0xff) return null;
    const marker = view.getUint8(at + 1);
    if (marker === 0xff) {
      at += 1;
      continue;
    }
    // Frames of all kinds but the tables that share their range.
    if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker))
      return { height: view.getUint16(at + 5), width: view.getUint16(at + 7), channels: view.getUint8(at + 9) };
    if (marker === 0xda || marker === 0xd9) return null;
    at += 2 + view.getUint16(at + 2);
  }
  return null;
}

function webpSize(view: DataView): { width: number; height: number } | null {
  const kind = String.fromCharCode(...[12, 13, 14, 15].map((i) => view.getUint8(i)));
  const three = (at: number) => view.getUint16(at, true) + view.getUint8(at + 2) * 65536;
  if (kind === 'VP8X') return { width: 1 + three(24), height: 1 + three(27) };
  if (kind === 'VP8 ') return { width: view.getUint16(26, true) & 0x3fff, height: view.getUint16(28, true) & 0x3fff };
  if (kind !== 'VP8L') return null;
  const bits = view.getUint32(21, true);
  return { width: 1 + (bits & 0x3fff), height: 1 + ((bits >>> 14) & 0x3fff) };
}

/** The picture laid on white, and made smaller by a whole factor when it has more than `most` pixels; the factor is told. Alpha stays. */
export function prepared(pixels: Pixels, most: number): Pixels & { readonly factor: number } {
  const factor = Math.ceil(Math.sqrt((pixels.width * pixels.height) / most));
  const [width, height] = [
    Math.max(1, Math.floor(pixels.width / factor)),
    Math.max(1, Math.floor(pixels.height / factor)),
  ];
  const data = new Uint8ClampedArray(4 * width * height);
  const from = pixels.data;
  const area = factor * factor;
  if (factor === 1) {
    data.set(from);
    for (let i = 3; i < data.length; i += 4) {
      const alpha = from[i]!;
      if (alpha === 255) continue;
      for (let c = i - 3; c < i; c += 1) data[c] = (from[c]! * alpha) / 255 + 255 - alpha;
    }
    return { width, height, data, factor };
  }
  for (let y = 0, o = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1, o += 4) {
      let [r, g, b, a] = [0, 0, 0, 0];
      for (let dy = 0; dy < factor; dy += 1) {
        let i = 4 * ((y * factor + dy) * pixels.width + x * factor);
        for (let dx = 0; dx < factor; dx += 1, i += 4) {
          const alpha = from[i + 3]!;
          const white = 255 - alpha;
          r += (from[i]! * alpha) / 255 + white;
          g += (from[i + 1]! * alpha) / 255 + white;
          b += (from[i + 2]! * alpha) / 255 + white;
          a += alpha;
        }
      }
      data[o] = r / area;
      data[o + 1] = g / area;
      data[o + 2] = b / area;
      data[o + 3] = a / area;
    }
  }
  return { width, height, data, factor };
}
