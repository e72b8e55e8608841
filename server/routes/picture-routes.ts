import { imageSize } from 'image-size';
import { Problem } from '../problem.js';
import type { Route } from '../route.js';
import type { Services } from '../services.js';
import { describeFile } from '../stores/artwork-store.js';

/** A photograph as a phone takes it; more than that only fills the disk. */
const LARGEST_PICTURE = 20_000_000;
const MOST_PX = 20_000;

const MEDIA: Readonly<Record<string, string>> = {
  png: 'image/png',
  jpg: 'image/jpeg',
  webp: 'image/webp',
  svg: 'image/svg+xml',
};

/** Pictures of films and blanks. */
export function pictureRoutes({ artworks }: Services): Route[] {
  return [
    {
      method: 'post',
      path: '/api/shop/pictures',
      summary: 'Hand in a picture of a pattern or of a blank: PNG, JPEG, WebP or SVG',
      query: { fileName: { type: 'string', minLength: 1, maxLength: 200 } },
      body: 'bytes',
      most: LARGEST_PICTURE,
      answer: 'Picture',
      answers: 'Its id, and its height by its width',
      handle: async ({ query, bytes }) => {
        const { ratio } = sizeOf(bytes);
        const source = describeFile(query['fileName'] ?? 'picture', bytes);
        await artworks.add(source, bytes);
        return { picture: source, ratio };
      },
    },
    {
      method: 'get',
      path: '/api/shop/pictures/:id',
      summary: 'Such a picture, to be shown',
      answers: 'The picture',
      handle: async ({ ctx, params }) => {
        const { bytes } = await artworks.get(params['id']!);
        const { type } = sizeOf(bytes);
        // An SVG that is opened by itself runs and fetches nothing.
        ctx.set('Content-Security-Policy', "default-src 'none'; style-src 'unsafe-inline'; sandbox");
        ctx.set('Cache-Control', 'private, max-age=31536000, immutable');
        ctx.type = MEDIA[type]!;
        ctx.body = Buffer.from(bytes);
        return undefined;
      },
    },
  ];
}

/** What kind of picture some bytes are, and how high for its width. @throws Problem 422 when they are none */
function sizeOf(bytes: Uint8Array): { readonly type: string; readonly ratio: number } {
  let size: ReturnType<typeof imageSize>;
  try {
    size = imageSize(bytes);
  } catch {
    throw noPicture();
  }
  const { width, height, type = '' } = size;
  if (!(type in MEDIA) || !(width > 0) || !(height > 0)) throw noPicture();
  if (Math.max(width, height) > MOST_PX)
    throw new Problem(
      422,
      'picture-too-large',
      `This picture has ${width} × ${height} pixels. At most ${MOST_PX} each way can be shown. Save it smaller.`,
    );
  return { type, ratio: height / width };
}

function noPicture(): Problem {
  return new Problem(
    422,
    'no-picture',
    'This file is no picture that can be shown. Use a PNG, JPEG, WebP or SVG file.',
  );
}
