import { ringsToPathData, type Rings } from '../geometry/index.js';

/** A layer as an SVG file in true size: mm throughout, one frame for all layers of a job, one path. */
export function layerSvg(
  rings: Rings,
  colour: string,
  frame: { readonly widthMm: number; readonly heightMm: number },
): string {
  const [w, h] = [round(frame.widthMm), round(frame.heightMm)];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}"><path fill="${colour}" fill-rule="evenodd" d="${ringsToPathData(rings)}"/></svg>\n`;
}

const round = (v: number) => Number(v.toFixed(4));
