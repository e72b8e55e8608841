import { Refusal } from '../refusal.js';
import { pictureKind, pictureSize, type PictureKind, type Pixels } from './pixels.js';

/**
 * Gives the compiled WebAssembly of an unpacker: the caller brings it, since only it knows whether its bytes come from a disk or over
 * the network.
 */
export type UnpackerOf = (kind: PictureKind) => Promise<object>;

const unpackers = new Map<PictureKind, Promise<(bytes: ArrayBufferLike) => Promise<Pixels>>>();

/**
 * A file's pixels; a photograph stands upright, as its camera says.
 * @throws Refusal when it is no picture, larger than 40 megapixels, or damaged
 */
export async function decodePicture(bytes: Uint8Array, source: string, unpackerOf: UnpackerOf): Promise<Pixels> {
  const kind = pictureKind(bytes);
  if (!kind) throw new Refusal('not-a-picture', {}, { source });
  pictureSize(bytes, kind, source);
  if (!unpackers.has(kind)) unpackers.set(kind, open(kind, unpackerOf));
  const unpack = await unpackers.get(kind)!;
  try {
    return await unpack(bytes.slice().buffer);
  } catch (error) {
    throw new Refusal('picture-damaged', { kind: kind.toUpperCase() }, { source, cause: error });
  }
}

async function open(kind: PictureKind, unpackerOf: UnpackerOf): Promise<(bytes: ArrayBufferLike) => Promise<Pixels>> {
  const wasm = await unpackerOf(kind);
  // The published types know only some of what these functions take.
  type Unpacker = {
    readonly init: (wasm: object, options: { readonly printErr: (line: string) => void }) => Promise<unknown>;
    readonly default: (bytes: ArrayBufferLike, options?: { preserveOrientation: boolean }) => Promise<Pixels>;
  };
  const unpacker = (await (kind === 'png'
    ? openPng()
    : kind === 'jpeg'
      ? import('@jsquash/jpeg/decode.js')
      : import('@jsquash/webp/decode.js'))) as unknown as Unpacker;
  const said: string[] = [];
  await unpacker.init(wasm, { printErr: (line) => void said.push(line) });
  // One picture after the other, so that what is said of one is not taken for another's.
  let before: Promise<unknown> = Promise.resolve();
  return (bytes) => {
    const pixels = before.then(async () => {
      said.length = 0;
      const made = await unpacker.default(bytes, { preserveOrientation: true });
      // Whatever it says of a picture means that part of it was missing, and was filled with grey.
      if (said.length > 0) throw new Error(said.join('; '));
      return made;
    });
    before = pixels.catch(() => null);
    return pixels;
  };
}

async function openPng() {
  // Outside a browser it answers with a class that only its sister module brings along.
  await import('@jsquash/jpeg/decode.js');
  return import('@jsquash/png/decode.js');
}
