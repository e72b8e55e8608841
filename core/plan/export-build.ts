import { PDFDocument, closePath, fill, lineTo, moveTo, popGraphicsState, pushGraphicsState, setFillingRgbColor } from 'pdf-lib';
import { boundsOf, joinBoxes, ringsToPathData, type Box, type Rings } from '../geometry/index.js';
import { InputError } from '../words/index.js';
import type { Plan } from './plan.js';
import { sayNoSuchLayer, sayTooLongForPdf } from './say.js';

export const EXPORT_FORMATS = ['svg', 'dxf', 'pdf'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

/** A layer ready to be written: its film, and all that is cut of it, marks included, mm, y down. */
interface DrawnLayer {
  readonly name: string;
  readonly colour: string;
  readonly rings: Rings;
}

/**
 * One layer (by its film's id), or the whole build, at true size with its registration marks, every layer in one frame.
 * @throws InputError `layer-unknown`
 */
export async function exportBuild(plan: Plan, filmId: string | null, format: ExportFormat): Promise<Uint8Array> {
  const { build, prepare } = plan;
  const layers = (build?.layers ?? []).filter((layer) => filmId === null || layer.film.id === filmId);
  if (!build || layers.length === 0) throw new InputError('layer-unknown', sayNoSuchLayer(filmId === null), { source: 'export' });
  const marks = prepare?.marks?.marks.map((mark) => mark.ring) ?? [];
  const drawn = layers.map(({ film, cut }): DrawnLayer => ({ name: film.name, colour: film.colour, rings: [...cut, ...marks] }));
  // The frame is that of the whole build, so that files of single layers lie on each other.
  const box = [...build.layers.map((layer) => boundsOf(layer.cut)), boundsOf(marks)].reduce<Box | null>(joinBoxes, null)!;
  if (format === 'pdf') return pdfOf(drawn, box);
  return new TextEncoder().encode(format === 'svg' ? svgOf(drawn, box) : dxfOf(drawn, box));
}

const figure = (v: number) => String(Number(v.toFixed(4)));
const escaped = (text: string) => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);

function svgOf(layers: readonly DrawnLayer[], box: Box): string {
  const [w, h] = [figure(box.maxX - box.minX), figure(box.maxY - box.minY)];
  const paths = layers.map(({ name, colour, rings }) => `<path fill="${colour}" fill-rule="evenodd" d="${ringsToPathData(rings)}"><title>${escaped(name)}</title></path>`);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="${figure(box.minX)} ${figure(box.minY)} ${w} ${h}">${paths.join('')}</svg>\n`;
}

/** R12: closed polylines in mm, y up, one layer to a film. */
function dxfOf(layers: readonly DrawnLayer[], box: Box): string {
  const out: (string | number)[] = [0, 'SECTION', 2, 'HEADER', 9, '$ACADVER', 1, 'AC1009', 9, '$INSUNITS', 70, 4, 9, '$MEASUREMENT', 70, 1, 0, 'ENDSEC', 0, 'SECTION', 2, 'ENTITIES'];
  layers.forEach(({ name, colour, rings }, i) => {
    // Names of layers in R12 are letters, figures, and a few signs.
    const layer = `${i + 1}_${name.toUpperCase().replace(/[^A-Z0-9]+/g, '_')}`.slice(0, 31);
    for (const ring of rings) {
      out.push(0, 'POLYLINE', 8, layer, 66, 1, 70, 1, 62, i + 1, 420, Number.parseInt(colour.slice(1), 16));
      for (let k = 0; k < ring.length; k += 2) out.push(0, 'VERTEX', 8, layer, 10, figure(ring[k]! - box.minX), 20, figure(box.maxY - ring[k + 1]!), 30, 0);
      out.push(0, 'SEQEND', 8, layer);
    }
  });
  out.push(0, 'ENDSEC', 0, 'EOF');
  return `${out.join('\n')}\n`;
}

const PT_PER_MM = 72 / 25.4;
/** A page of a PDF is no longer than this on a side, pt. */
const LONGEST_PT = 14_400;

async function pdfOf(layers: readonly DrawnLayer[], box: Box): Promise<Uint8Array> {
  const [w, h] = [(box.maxX - box.minX) * PT_PER_MM, (box.maxY - box.minY) * PT_PER_MM];
  if (Math.max(w, h) > LONGEST_PT) throw new InputError('too-long-for-pdf', sayTooLongForPdf(), { source: 'export' });
  const document = await PDFDocument.create();
  document.setTitle('Layers at true size');
  // The same build gives the same file.
  document.setCreationDate(new Date(0));
  document.setModificationDate(new Date(0));
  const page = document.addPage([w, h]);
  for (const { colour, rings } of layers) {
    const channel = (i: number) => Number.parseInt(colour.slice(i, i + 2), 16) / 255;
    page.pushOperators(pushGraphicsState(), setFillingRgbColor(channel(1), channel(3), channel(5)));
    for (const ring of rings) {
      for (let k = 0; k < ring.length; k += 2) {
        const [x, y] = [(ring[k]! - box.minX) * PT_PER_MM, (box.maxY - ring[k + 1]!) * PT_PER_MM];
        page.pushOperators(k === 0 ? moveTo(x, y) : lineTo(x, y));
      }
      page.pushOperators(closePath());
    }
    // Outer outlines wind one way and holes the other, so the plain rule leaves the holes open.
    page.pushOperators(fill(), popGraphicsState());
  }
  return document.save();
}
