import { Resvg } from '@resvg/resvg-js';
import { paintRegions, pictureKind, READ_AS_IT_IS, type ArtworkReader } from '../core/engines/artwork/index.js';
import { ringsToPathData } from '../core/geometry/index.js';

/** The longer side of a small picture, px: twice what the list shows, for fine screens. */
const LONGEST_PX = 296;

/**
 * A drawing as it is understood, or a picture, as a small PNG.
 * @throws Refusal when the file cannot be read, and what the renderer throws of a broken picture
 */
export async function smallPicture(bytes: Uint8Array, fileName: string, reader: ArtworkReader): Promise<Uint8Array> {
  const kind = pictureKind(bytes);
  const { svg, widerThanHigh } = kind ? pictureSvg(bytes, kind) : await drawingSvg(bytes, fileName, reader);
  // Letters are outlines by now: no fonts are looked for.
  return new Resvg(svg, { font: { loadSystemFonts: false }, fitTo: { mode: widerThanHigh ? 'width' : 'height', value: LONGEST_PX } }).render().asPng();
}

interface ToDraw {
  readonly svg: string;
  readonly widerThanHigh: boolean;
}

async function drawingSvg(bytes: Uint8Array, fileName: string, reader: ArtworkReader): Promise<ToDraw> {
  const artwork = await reader.drawing(bytes, fileName, READ_AS_IT_IS);
  const { widthMm, heightMm } = artwork;
  const paths = paintRegions(artwork, 1).regions.map(({ colour, rings }) => `<path fill="${colour}" fill-rule="evenodd" d="${ringsToPathData(rings, 3)}"/>`);
  return { svg: `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}" height="${heightMm}" viewBox="0 0 ${widthMm} ${heightMm}">${paths.join('')}</svg>`, widerThanHigh: widthMm >= heightMm };
}

function pictureSvg(bytes: Uint8Array, kind: string): ToDraw {
  // As large as it comes out: the frame is square and the picture is fitted into it.
  return { svg: `<svg xmlns="http://www.w3.org/2000/svg" width="${LONGEST_PX}" height="${LONGEST_PX}"><image width="100%" height="100%" href="data:image/${kind};base64,${Buffer.from(bytes).toString('base64')}"/></svg>`, widerThanHigh: true };
}
