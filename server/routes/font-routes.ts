import { Problem } from '../problem.js';
import type { Route } from '../route.js';
import type { Services } from '../services.js';
import { describeFile } from '../stores/artwork-store.js';

/** The shop's own fonts; those that are shipped come with the pages. */
export function fontRoutes({ artworks, fonts, compute }: Services): Route[] {
  return [
    {
      method: 'get',
      path: '/api/fonts',
      summary: 'Fonts that were added',
      answer: 'Fonts',
      answers: 'A list of names and files; a file is read at /api/artworks/:id',
      handle: () => fonts.list(),
    },
    {
      method: 'post',
      path: '/api/fonts',
      summary: 'Add a font: the bytes of a TTF, OTF, WOFF or WOFF2 file. One that cannot be read is refused',
      query: { fileName: { type: 'string', minLength: 1, maxLength: 200 } },
      body: 'bytes',
      answer: 'Font',
      answers: 'The font',
      handle: async ({ query, bytes, signal }) => {
        if (bytes.length === 0) throw new Problem(422, 'empty-file', 'The file is empty.');
        const source = describeFile(query['fileName'] ?? 'font', bytes);
        const known = (await fonts.list()).find((font) => font.source.sha256 === source.sha256);
        if (known) return known;
        const name = await compute.fontName(source.fileName, bytes, signal);
        await artworks.add(source, bytes);
        return fonts.add({ name, source });
      },
    },
  ];
}
