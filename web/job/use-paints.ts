import { useAsked } from './use-asked.js';
import type { PaintView } from '../../core/plan/page/plan-view.js';

const NO_PAINTS: readonly PaintView[] = [];

/** The design's painted areas, bottom first, before or after they are put right. Nothing while they are not wanted. */
export function usePaints(when: 'before' | 'after' | null): readonly PaintView[] {
  return useAsked<readonly PaintView[]>(when && ((api, plan) => api.paints(plan, when)), NO_PAINTS, String(when));
}
