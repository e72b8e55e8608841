import type { Box } from '../../core/geometry/index.js';
import type { PlanView } from '../../core/plan/page/plan-view.js';

const NOTHING_YET: Box = { minX: 0, minY: 0, maxX: 100, maxY: 70 };

/** The design's own frame, mm. */
export function designBox(plan: PlanView | null): Box {
  return plan?.surface ? { minX: 0, minY: 0, maxX: plan.surface.widthMm, maxY: plan.surface.heightMm } : NOTHING_YET;
}
