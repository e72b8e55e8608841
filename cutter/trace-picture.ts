import { Resvg } from '@resvg/resvg-js';

/** What was cut as an SVG in mm, y down, one path per run of the knife. */
export function traceSvg(lines: readonly Float64Array[]): string {
  let [maxX, maxY] = [1, 1];
  for (const line of lines) {
    for (let i = 0; i < line.length; i += 2) {
      maxX = Math.max(maxX, line[i]!);
      maxY = Math.max(maxY, line[i + 1]!);
    }
  }
  const [width, height] = [Math.ceil(maxX + 1), Math.ceil(maxY + 1)];
  const paths = lines.map((line) => {
    let d = '';
    for (let i = 0; i < line.length; i += 2)
      d += `${i === 0 ? 'M' : 'L'}${line[i]!.toFixed(3)} ${(height - line[i + 1]!).toFixed(3)}`;
    return `<path d="${d}"/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}mm" height="${height}mm" viewBox="0 0 ${width} ${height}"><g fill="none" stroke="#000" stroke-width="0.1">${paths.join('')}</g></svg>\n`;
}

/** The same as a PNG of at most 1600 px in width. */
export function tracePng(lines: readonly Float64Array[]): Uint8Array {
  return new Resvg(traceSvg(lines).replace('stroke-width="0.1"', 'stroke-width="0.4"'), {
    fitTo: { mode: 'width', value: 1600 },
    background: 'white',
  })
    .render()
    .asPng();
}
