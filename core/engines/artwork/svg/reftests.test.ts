import { Resvg } from '@resvg/resvg-js';
import { PNG } from 'pngjs';
import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../../../platform/artwork-resources.js';
import { ringsToPathData } from '../../../geometry/index.js';
import { NO_REPAIR } from '../../../stations/artwork/index.js';
import { fetchReftests } from '../../../testing/reftests.js';
import { isExplained } from '../as-drawn/compare-pictures.js';
import { differingPlaces, type DifferingPlace } from '../as-drawn/differing-places.js';
import { ArtworkReader, paintRegions } from '../index.js';
import type { Pixels } from '../picture/pixels.js';

/** Folders and beginnings of names of what film cannot show anyway: filters and what bleeds from colour to colour. */
const NOT_FLAT =
  /(^|\/)(filter|pservers-|masking-filter|masking-mask|masking-intro|masking-opacity|include-|css-import)|gradient|pattern|blend|multi-filter|mask-lum|recursive-masks|light-source|blur-/;

/** Those that are drawn otherwise, each with its reason. */
const OTHERWISE: ReadonlyMap<string, string> = new Map([
  ['svg1.1/coords-viewattr-01-b.svg', 'defines elements as entities, which are never used; it is said'],
  ['svg1.1/coords-viewattr-02-b.svg', 'defines elements as entities, which are never used; it is said'],
  ['svg1.1/struct-cond-03-t.svg', 'asks for features by names that SVG 2 has given up: all are taken as there'],
  ['bugs/738367.svg', 'lines half a pixel off the grid, mixed with what lies on either side'],
  ['bugs/749415.svg', 'its picture is a pixel higher than it says, so its letters cannot be told from its shapes'],
  ['bugs/548-data-url-without-mimetype.svg', 'an embedded picture that does not say of what kind it is'],
  ['hexchat.svg', 'a gradient in the frame of a button'],
  ['gzip-compressed.svg', 'compressed files are refused with a sentence'],
  ['text-objectBoundingBox.svg', 'a clip in units of the box of letters, which is not known; it is said'],
]);

const reader = new ArtworkReader(resourcesInNode);

/** Letters are drawn in fonts that are not here, so places at which a renderer without fonts differs too say nothing. */
function withoutLetters(places: readonly DifferingPlace[], svg: Uint8Array, reference: Pixels): DifferingPlace[] {
  const drawn = drawnAt(Buffer.from(svg), reference.width);
  const letters = drawn.height === reference.height ? differingPlaces(reference, drawn) : [];
  return places.filter(
    ({ difference, box }) =>
      !letters.some(
        (other) =>
          other.difference === difference &&
          other.box.minX - 2 <= box.minX &&
          other.box.maxX + 2 >= box.maxX &&
          other.box.minY - 2 <= box.minY &&
          other.box.maxY + 2 >= box.maxY,
      ),
  );
}

function drawnAt(svg: Buffer | string, width: number): Pixels {
  const drawn = new Resvg(svg, { fitTo: { mode: 'width', value: width }, font: { loadSystemFonts: false } }).render();
  return { width: drawn.width, height: drawn.height, data: new Uint8ClampedArray(drawn.pixels) };
}

describe.runIf(process.env['LANTERN_LONG'])(
  'the tests of the standard, and of faults that another reader once had',
  () => {
    const tests = process.env['LANTERN_LONG'] ? fetchReftests().filter(({ name }) => !NOT_FLAT.test(name)) : [];

    it('are at least 100', () => expect(tests.length).toBeGreaterThanOrEqual(100));

    it.each(tests.filter(({ name }) => !OTHERWISE.has(name)))('$name', async ({ name, svg, reference: png }) => {
      const { width, height, data } = PNG.sync.read(Buffer.from(png));
      const reference: Pixels = { width, height, data: new Uint8ClampedArray(data) };
      const artwork = await reader.drawing(svg, name, { ...NO_REPAIR, shines: 'keep' });
      const { regions } = paintRegions(artwork, 1);
      const paths = regions.map(
        ({ colour, rings }) => `<path fill="${colour}" fill-rule="evenodd" d="${ringsToPathData(rings, 3)}"/>`,
      );
      const remade = drawnAt(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${artwork.widthMm} ${artwork.heightMm}">${paths.join('')}</svg>`,
        width,
      );
      const places = differingPlaces(reference, remade).filter(
        (place) => !isExplained(place, artwork.noticed, width / artwork.widthMm),
      );
      expect(places.length === 0 ? [] : withoutLetters(places, svg, reference)).toEqual([]);
    });
  },
);
