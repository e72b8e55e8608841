import { printFigure as figure, type PrintDrawing } from './drawing.js';

/** The drawing as DXF R12: polylines and texts in mm, y up from the foot of the page, one layer to a name. */
export function writePrintDxf({ box, items }: PrintDrawing): string {
  const out: (string | number)[] = [
    0,
    'SECTION',
    2,
    'HEADER',
    9,
    '$ACADVER',
    1,
    'AC1009',
    9,
    '$INSUNITS',
    70,
    4,
    9,
    '$MEASUREMENT',
    70,
    1,
    0,
    'ENDSEC',
    0,
    'SECTION',
    2,
    'ENTITIES',
  ];
  const [x, y] = [(mm: number) => figure(mm - box.minX), (mm: number) => figure(box.maxY - mm)];
  const names = [...new Set(items.map(({ name }) => name))];
  for (const item of items) {
    const index = names.indexOf(item.name) + 1;
    // Names of layers in R12 are letters, figures, and a few signs.
    const layer = `${index}_${item.name.toUpperCase().replace(/[^A-Z0-9]+/g, '_')}`.slice(0, 31);
    if (item.kind === 'text') {
      // Its middle lies at the second point.
      out.push(
        0,
        'TEXT',
        8,
        layer,
        10,
        x(item.xMm),
        20,
        y(item.yMm),
        30,
        0,
        40,
        figure(item.heightMm),
        1,
        item.text.replace(/[^\x20-\x7e]/g, '?'),
        50,
        figure(-item.turnDeg),
        72,
        1,
        11,
        x(item.xMm),
        21,
        y(item.yMm),
        31,
        0,
      );
      continue;
    }
    const colour = Number.parseInt(item.colour.slice(1), 16);
    const lines = item.kind === 'area' ? item.rings.map((points) => ({ points, closed: true })) : item.lines;
    for (const { points, closed } of lines) {
      out.push(0, 'POLYLINE', 8, layer, 66, 1, 70, closed ? 1 : 0, 62, index, 420, colour);
      for (let k = 0; k < points.length; k += 2)
        out.push(0, 'VERTEX', 8, layer, 10, x(points[k]!), 20, y(points[k + 1]!), 30, 0);
      out.push(0, 'SEQEND', 8, layer);
    }
  }
  out.push(0, 'ENDSEC', 0, 'EOF');
  return `${out.join('\n')}\n`;
}
