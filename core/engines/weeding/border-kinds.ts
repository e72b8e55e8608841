/** How the waste is freed: by a box, one line that follows everything, one round each group, or not at all. */
export const BORDER_KINDS = ['box', 'contour', 'groups', 'none'] as const;
export type BorderKind = (typeof BORDER_KINDS)[number];
