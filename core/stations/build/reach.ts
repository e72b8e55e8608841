import { markGapMm } from '../../engines/marks/index.js';
import type { BorderKind } from '../../engines/weeding/index.js';

/** What is known of how the layers will be prepared before they are built. */
export interface PreparationWanted {
  readonly marks: boolean;
  readonly markSizeMm: number;
  readonly border: BorderKind;
  readonly borderGapMm: number | null;
}

/** A border stands clear of the work by this share of its diagonal, within bounds, mm. */
const BORDER_SHARE = 1 / 60;
const BORDER_MM = { least: 3, most: 8 };

/** The gap of a weeding border that the app would take, mm. */
export function ruledBorderMm({ widthMm, heightMm }: { readonly widthMm: number; readonly heightMm: number }): number {
  return Math.max(BORDER_MM.least, Math.min(BORDER_MM.most, Math.round(Math.hypot(widthMm, heightMm) * BORDER_SHARE)));
}

/** How far marks and border reach beyond what is cut at each side, mm, where marks stand as near as they may. */
export function reachOfPreparation({ marks, markSizeMm, border, borderGapMm }: PreparationWanted, layers: number, size: { readonly widthMm: number; readonly heightMm: number }): number {
  return (marks && layers > 1 ? markGapMm(markSizeMm) + markSizeMm : 0) + (border !== 'none' ? (borderGapMm ?? ruledBorderMm(size)) : 0);
}
