import type { Refusal, RefusalCode, RefusalFigures } from '../../engines/artwork/index.js';

const SAY: { readonly [Code in RefusalCode]: (figures: RefusalFigures[Code]) => string } = {
  'dxf-binary': () => 'This is a binary DXF. Save it as an ASCII DXF and add it again.',
  'dxf-no-entities': () => 'The file has no ENTITIES section, so nothing is drawn in it.',
  'dxf-nothing-drawn': () => 'Nothing in this drawing has an outline that can be cut.',
  'dxf-too-large': ({ most }) => `The drawing has more than ${most} groups. Save a part of it and add that.`,
  'font-unknown': ({ font }) => `The font “${font}” is not here. Choose another one.`,
  'font-unreadable': ({ reason }) =>
    `This cannot be read as a font (${reason}). Choose a TTF, OTF, WOFF or WOFF2 file.`,
  'hpgl-nothing-drawn': () => 'Nothing is drawn in this file: the pen never goes down.',
  'no-size': () => 'The drawing has no usable size. Give its <svg> a viewBox, or a width and a height above 0.',
  'not-a-picture': () => 'This is not a PNG, JPEG or WebP picture.',
  'not-dxf': ({ line, got }) => `Line ${line} should hold a group code, but it says “${got}”.`,
  'not-svg': ({ element }) => `Its first element is <${element}>, but an SVG begins with <svg>.`,
  'not-xml': ({ reason }) =>
    reason === null ? 'The file holds no XML element.' : `This is not well-formed XML: ${reason}`,
  'pdf-damaged': ({ reason }) =>
    `The PDF is damaged and cannot be read (${reason.slice(0, 80)}). Ask for it again, or save it anew.`,
  'pdf-encrypted': () =>
    'The PDF is locked with a password. Ask for one without, or print it to a new PDF where it can be opened.',
  'pdf-no-page': ({ page, pages }) =>
    `There is no page ${page}: the PDF has ${pages === 1 ? 'one page' : `${pages} pages`}. Choose another page.`,
  'pdf-too-long': ({ most }) => `The PDF has more than ${most} pages. Save the page that is wanted by itself.`,
  'picture-cmyk': () =>
    'This JPEG is in the colours of a printing press (CMYK), which screens and films do not have. Save it in RGB, or as a PNG, and add that.',
  'picture-damaged': ({ kind }) =>
    kind === null
      ? 'The picture is damaged: it does not say how large it is. Export it again.'
      : `The ${kind} picture is damaged and cannot be read. Export it again.`,
  'picture-too-large': ({ megapixels, most }) =>
    `The picture has ${megapixels} megapixels. At most ${most} can be read. Save it smaller.`,
  'too-deep': ({ most }) => `Elements are nested more than ${most} deep. Ungroup the drawing and save it again.`,
  'too-many-elements': ({ most }) => `The drawing has more than ${most} elements. Save a part of it and add that.`,
  'too-many-shapes': ({ most }) =>
    `The drawing comes to more than ${most} shapes once its repeats are drawn. Save a part of it and add that.`,
};

/** Why a file is refused, in words. */
export function sayRefusal<Code extends RefusalCode>(refusal: Refusal<Code>): string {
  return SAY[refusal.code](refusal.figures);
}
