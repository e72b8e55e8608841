import type { Box } from '../../core/geometry/index.js';
import type { PlanView } from '../../core/plan/page/plan-view.js';

const NOTHING_YET: Box = { minX: 0, minY: 0, maxX: 100, maxY: 70 };

/** The design's own frame as it is cut, mm: bent where it goes on a taper. */
export function designBox(plan: PlanView | null): Box {
  return plan?.surface
    ? { minX: 0, minY: 0, maxX: plan.surface.frame.widthMm, maxY: plan.surface.frame.heightMm }
    : NOTHING_YET;
}
