import { useState } from 'react';
import { newBlank, type Blank } from '../../../core/shop/index.js';
import { newReadings, readingsOf } from '../../../core/stations/surface/index.js';
import { makerAtWork } from '../../api/maker.js';
import { newId } from '../../api/new-id.js';
import { useJobContext } from '../../job/job-context.js';
import { useShopWrites } from '../../plan/shop-writes.js';
import { WordButton } from '../../ui/button.js';
import { useSurface } from './surface-fields.js';

/** Writes what was measured down with the blank, with the day and who is at work; or makes a blank of the shop of it. */
export function KeepReadings({ blank }: { readonly blank: Blank | null }) {
  const { shop, recipe, job } = useJobContext();
  const { surface, change } = useSurface();
  const writes = useShopWrites();
  const [problem, setProblem] = useState<string | null>(null);
  const taken = newReadings(readingsOf(recipe), blank ?? { readings: [] });
  if (taken.length === 0 || surface.kind === 'unmeasured' || surface.kind === 'garment') return null;
  const { kind, ground } = surface;
  const keep = async () => {
    const by = shop.makers.find(({ id }) => id === makerAtWork())?.name ?? '';
    const on = new Date().toISOString().slice(0, 10);
    const made: Blank = blank ?? { ...newBlank(newId()), name: job.title.slice(0, 80), kind, ...(ground ?? {}) };
    const value = { ...made, readings: [...made.readings, ...taken.map((one) => ({ ...one, on, by }))] };
    setProblem(null);
    try {
      await writes.save([{ kind: 'blanks', value }], shop.revision);
      if (!blank) change({ blankId: value.id });
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <div>
      <WordButton onPress={() => void keep()}>
        {blank ? 'Write these readings down with the blank' : 'Keep it as a blank of the shop'}
      </WordButton>
      {problem && <p role="alert">{problem}</p>}
    </div>
  );
}
