import { Shape } from './shape.js';
import type { LayerView } from '../../core/plan/page/plan-view.js';

interface LayerPictureProps {
  readonly layers: readonly LayerView[];
  /** Film ids that are not shown. */
  readonly hidden?: ReadonlySet<string>;
  /** Laps drawn over it, hatched. */
  readonly laps?: boolean;
  /** Each layer drawn so much further up and to the right than the one beneath it, mm. */
  readonly apartMm?: number;
}

/** The layers as they lie, the lowest first, in their films' colours. */
export function LayerPicture({ layers, hidden, laps = false, apartMm = 0 }: LayerPictureProps) {
  const shown = layers.filter((layer) => !hidden?.has(layer.film.id));
  return (
    <>
      {shown.map((layer) => (
        <Shape key={layer.film.id} path={layer.cut} {...(apartMm > 0 ? { transform: `translate(${apartMm * (layer.order - 1)} ${(-apartMm * (layer.order - 1)) / 2})` } : {})} fill={layer.film.colour} fillOpacity={layer.film.finish === 'translucent' ? 0.6 : 1} stroke="#182325" strokeOpacity="0.35" strokeWidth="0.6" vectorEffect="non-scaling-stroke" />
      ))}
      {shown.map((layer) => layer.film.finish === 'textured' && apartMm === 0 && <Shape key={layer.film.id} path={layer.visible} fill="url(#film-grain)" />)}
      {laps && shown.map((layer) => <Shape key={layer.film.id} path={layer.laps} fill="url(#hatch-lap)" stroke="#8a1f4b" strokeWidth="0.75" vectorEffect="non-scaling-stroke" />)}
    </>
  );
}
