import { ringsToPathData } from '../geometry/index.js';
import { printFigure as figure, type PrintDrawing, type Printed } from './drawing.js';

const escaped = (text: string) => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);

/** The drawing as SVG in mm. */
export function writePrintSvg({ title, box, items }: PrintDrawing): string {
  const [w, h] = [figure(box.maxX - box.minX), figure(box.maxY - box.minY)];
  const head = title === '' ? '' : `<title>${escaped(title)}</title>`;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="${figure(box.minX)} ${figure(box.minY)} ${w} ${h}">${head}${items.map(svgOf).join('')}</svg>\n`;
}

function svgOf(item: Printed): string {
  switch (item.kind) {
    case 'area':
      return `<path fill="${item.colour}" fill-rule="evenodd" d="${ringsToPathData(item.rings)}"><title>${escaped(item.name)}</title></path>`;
    case 'lines':
      return `<path fill="none" stroke="${item.colour}" stroke-width="${figure(item.widthMm)}"${item.dashed ? ' stroke-dasharray="3 2"' : ''} d="${item.lines.map(({ points, closed }) => lineData(points, closed)).join('')}"><title>${escaped(item.name)}</title></path>`;
    case 'text':
      return `<text x="${figure(item.xMm)}" y="${figure(item.yMm)}" font-family="sans-serif" font-size="${figure(item.heightMm / 0.7)}" text-anchor="middle"${item.turnDeg === 0 ? '' : ` transform="rotate(${figure(item.turnDeg)} ${figure(item.xMm)} ${figure(item.yMm)})"`}>${escaped(item.text)}</text>`;
  }
}

function lineData(points: ArrayLike<number>, closed: boolean): string {
  let d = '';
  for (let i = 0; i < points.length; i += 2)
    d += `${i === 0 ? 'M' : 'L'}${figure(points[i]!)} ${figure(points[i + 1]!)}`;
  return d + (closed ? 'Z' : '');
}
