import { boundsOf, joinBoxes, translateRings, type Box } from '../geometry/index.js';
import { writePrint, type PrintArea, type PrintFormat } from '../print/index.js';
import { InputError } from '../words/index.js';
import type { Plan } from './plan.js';
import { sayNoSuchLayer } from './say.js';

/**
 * One layer (by its film's id), or the whole build, at true size with its registration marks, every layer in one frame.
 * @throws InputError `layer-unknown`, `too-long-for-pdf`
 */
export async function exportBuild(plan: Plan, filmId: string | null, format: PrintFormat): Promise<Uint8Array> {
  const { build, prepare } = plan;
  const layers = (build?.layers ?? []).filter((layer) => filmId === null || layer.film.id === filmId);
  if (!build || layers.length === 0)
    throw new InputError('layer-unknown', sayNoSuchLayer(filmId === null), { source: 'export' });
  // Panels stand beside each other, each with its marks.
  const onPanels = (prepare?.layers ?? []).map(({ layer: { film, cut }, panel: { marks, apart } }) => ({
    film,
    rings: translateRings([...cut, ...(marks?.marks.map((mark) => mark.ring) ?? [])], apart.xMm, apart.yMm),
  }));
  const ringsOf = (id: string) => onPanels.flatMap(({ film, rings }) => (film.id === id ? rings : []));
  const drawn = layers.map(({ film }): PrintArea => ({
    kind: 'area',
    name: film.name,
    colour: film.colour,
    rings: ringsOf(film.id),
  }));
  // The frame is that of the whole build, so that files of single layers lie on each other.
  const box = onPanels.map(({ rings }) => boundsOf(rings)).reduce<Box | null>(joinBoxes, null)!;
  return writePrint({ title: 'Layers at true size', box, items: drawn }, format);
}
