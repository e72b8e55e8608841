import { IDENTITY, type Matrix } from '../../../geometry/index.js';
import { Refusal } from '../refusal.js';
import { parseSvgLength } from './lengths.js';
import { parseViewBox, viewBoxMatrix } from './transform.js';
import type { XmlElement } from './xml.js';

/** An artboard smaller than this is a slip of the pen: a fortieth of a cutter's step. */
const SMALLEST_PX = 0.002;
const LARGEST_PX = 1e7;
/** A length on paper. Pixels are none: their size is a screen's. */
const STATED = /\d\s*(mm|cm|in|pt|pc|q)\s*$/i;

/**
 * The artboard of a drawing in px and the map from user units to it. Missing sizes come from the viewBox, as its aspect asks. `pxPerUnit` is null when the
 * drawing says how large it is on paper.
 * @throws Refusal `no-size`
 */
export function artboardOf(
  root: XmlElement,
  source: string,
): { width: number; height: number; matrix: Matrix; pxPerUnit: number | null } {
  const a = root.attributes;
  const box = parseViewBox(a['viewBox']);
  let width = parseSvgLength(a['width'], box?.width ?? NaN);
  let height = parseSvgLength(a['height'], box?.height ?? NaN);
  if (box) {
    if (width === null && height !== null) width = (height * box.width) / box.height;
    if (height === null && width !== null) height = (width * box.height) / box.width;
    width ??= box.width;
    height ??= box.height;
  }
  if (!(width! > SMALLEST_PX) || !(height! > SMALLEST_PX) || width! > LARGEST_PX || height! > LARGEST_PX)
    throw new Refusal('no-size', {}, { source });
  const isStated = [a['width'], a['height']].some((length) => length !== undefined && STATED.test(length));
  return {
    width: width!,
    height: height!,
    pxPerUnit: isStated ? null : box ? width! / box.width : 1,
    matrix: box ? viewBoxMatrix(box, width!, height!, a['preserveAspectRatio']) : IDENTITY,
  };
}
