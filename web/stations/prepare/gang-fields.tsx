import { useJobContext } from '../../job/job-context.js';
import type { Recipe } from '../../../core/recipe/index.js';
import { FigureField } from '../../ui/figure-field.js';
import { NumberField } from '../../ui/number-field.js';

/** How many copies a strip holds, and how far apart, editable where the ruling says it. */
export function GangFields({ gang }: { readonly gang: NonNullable<Recipe['preparation']['gang']> }) {
  const { handle, unit } = useJobContext();
  const set = (to: Partial<typeof gang>) => handle.change({ preparation: { gang: { ...gang, ...to } } });
  return (
    <>
      <NumberField
        label="Copies across a strip"
        value={gang.across}
        min={1}
        max={40}
        onChange={(across) => set({ across })}
      />{' '}
      ×{' '}
      <NumberField label="Copies down a strip" value={gang.down} min={1} max={40} onChange={(down) => set({ down })} />,{' '}
      <FigureField
        label="Gap between copies"
        mm={gang.gapMm}
        unit={unit}
        max={100}
        stepMm={1}
        onChange={(gapMm) => set({ gapMm })}
      />{' '}
      apart
    </>
  );
}
