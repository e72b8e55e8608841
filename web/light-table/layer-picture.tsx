import { Shape } from './shape.js';
import { fillOf } from './film-fill.js';
import { lightOf } from './light-of.js';
import type { LayerView } from '../../core/plan/page/plan-view.js';

interface LayerPictureProps {
  readonly layers: readonly LayerView[];
  /** Film ids that are not shown. */
  readonly hidden?: ReadonlySet<string>;
  /** Laps drawn over it, hatched. */
  readonly laps?: boolean;
  /** Each layer drawn so much further up and to the right than the one beneath it, mm. */
  readonly apartMm?: number;
  /** Films step back to greys: the picture carries figures of its own. */
  readonly faded?: boolean;
}

/** The layers as they lie, the lowest first, in their films' colours. */
export function LayerPicture({ layers, hidden, laps = false, apartMm = 0, faded = false }: LayerPictureProps) {
  const shown = layers.filter((layer) => !hidden?.has(layer.film.id));
  return (
    <>
      {shown.map((layer) => (
        <Shape
          key={layer.film.id}
          path={layer.cut}
          {...(apartMm > 0
            ? { transform: `translate(${apartMm * (layer.order - 1)} ${(-apartMm * (layer.order - 1)) / 2})` }
            : {})}
          fill={faded ? greyOf(layer.film.colour) : fillOf(layer.film)}
          fillOpacity={layer.film.finish === 'translucent' && !faded ? 0.6 : 1}
          stroke="#182325"
          strokeOpacity="0.35"
          strokeWidth="0.6"
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {shown.map(
        (layer) =>
          layer.film.finish === 'textured' &&
          apartMm === 0 &&
          !faded && <Shape key={layer.film.id} path={layer.visible} fill="url(#film-grain)" />,
      )}
      {laps &&
        shown.map((layer) => (
          <Shape
            key={layer.film.id}
            path={layer.laps}
            fill="url(#hatch-lap)"
            stroke="#8a1f4b"
            strokeWidth="0.75"
            vectorEffect="non-scaling-stroke"
          />
        ))}
    </>
  );
}

/** Darkest and lightest grey that a film fades to: light enough for any colour to stand out from it, and still told from its neighbour. */
const GREYS = [176, 240] as const;

/** A colour's grey, as light as it is, between the two. */
function greyOf(colour: string): string {
  const grey = Math.round(GREYS[0] + (GREYS[1] - GREYS[0]) * lightOf(colour)).toString(16);
  return `#${grey}${grey}${grey}`;
}
