import type { Batch, BatchSheetView, BetterView } from '../../core/batch/index.js';
import { wayOf } from '../../core/shop/index.js';
import { useShop } from '../plan/use-shop.js';
import { useSettings } from '../ui/settings.js';
import { BatchWishes } from './batch-wishes.js';
import { PickList } from './pick-list.js';
import { SearchForLess } from './search-for-less.js';
import { titleIn } from './say-sheet.js';
import { useBatchActs, type BatchPlanState } from './use-batches.js';

interface HowItIsLaidOutProps {
  readonly batch: Batch;
  readonly state: BatchPlanState;
  readonly isBusy: boolean;
  /** What a search finds on the way, to be drawn; null once nothing is looked for any more. */
  readonly onBetter: (found: BetterView | null) => void;
}

/** What a batch is cut from: the pieces to fetch, any of which can be left alone. */
export function WhatToFetch({ batch, state: { plan } }: Pick<HowItIsLaidOutProps, 'batch' | 'state'>) {
  const { unit } = useSettings();
  const acts = useBatchActs();
  const sheets = plan?.sheets ?? [];
  if (sheets.length === 0) return null;
  const { wish } = batch;
  return (
    <PickList
      sheets={sheets}
      unit={unit}
      titleOf={(jobId) => titleIn(batch, jobId)}
      onAvoid={(pieceId) => acts.change(batch, { wish: { ...wish, avoid: [...wish.avoid, pieceId] } })}
    />
  );
}

/** What can be decided of how a batch is laid out, and the search for less film. */
export function HowItIsLaidOut({ batch, state: { plan }, isBusy, onBetter }: HowItIsLaidOutProps) {
  const { unit } = useSettings();
  const shop = useShop();
  const acts = useBatchActs();
  const films = shop?.films ?? [];
  const sheets = plan?.sheets ?? [];
  const wish = (change: Partial<Batch['wish']>) => acts.change(batch, { wish: { ...batch.wish, ...change } });
  return (
    <>
      {sheets.length > 0 && (
        <SearchForLess
          batch={batch}
          steps={plan!.steps}
          isBusy={isBusy}
          onForget={() => wish({ steps: [] })}
          onBetter={onBetter}
          films={films}
        />
      )}
      <BatchWishes
        batch={batch}
        unit={unit}
        films={films}
        stock={shop?.stock ?? []}
        unshared={plan?.unshared ?? []}
        closable={withoutStencils(sheets)}
        isBusy={isBusy}
        inCounters={plan ? sheets.reduce((sum, { inCounters }) => sum + inCounters, 0) : null}
        onChange={wish}
      />
    </>
  );
}

/** The jobs on some sheets of which no stencil is cut: its margin is wanted. */
function withoutStencils(sheets: readonly BatchSheetView[]): string[] {
  const masks = new Set(
    sheets
      .flatMap(({ films }) => films)
      .filter((film) => wayOf(film) === 'stencil')
      .map(({ id }) => id),
  );
  const carried = sheets.flatMap(({ carries }) => carries);
  return [...new Set(carried.map(({ jobId }) => jobId))].filter(
    (id) => !carried.some(({ jobId, filmId }) => jobId === id && masks.has(filmId)),
  );
}
