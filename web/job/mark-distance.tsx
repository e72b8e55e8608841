import { useJobContext } from './job-context.js';
import { FigureField } from '../ui/figure-field.js';

/** How far apart the registration marks stand; nearer than clears the artwork they are not put. `mm` holds while nothing is decided. */
export function MarkDistance({ mm }: { readonly mm: number }) {
  const { handle, recipe, unit } = useJobContext();
  return (
    <FigureField
      label="Distance of the marks"
      mm={recipe.preparation.markDistanceMm ?? mm}
      unit={unit}
      min={1}
      stepMm={5}
      onChange={(markDistanceMm) => handle.change({ preparation: { markDistanceMm } })}
    />
  );
}
