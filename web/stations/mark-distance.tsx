import { useJobContext } from '../job/job-context.js';
import { FigureField } from '../ui/figure-field.js';

/** How far apart the registration marks stand; nearer than clears the artwork they are not put. */
export function MarkDistance({ mm }: { readonly mm: number }) {
  const { handle, unit } = useJobContext();
  return <FigureField label="Distance of the marks" mm={mm} unit={unit} min={1} stepMm={5} onChange={(markDistanceMm) => handle.change({ preparation: { markDistanceMm } })} />;
}
