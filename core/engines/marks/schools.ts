/** How a set of marks is made up: two far apart, two along one edge, one long bar, three, or none. */
export const MARK_SCHOOLS = ['ends', 'edge', 'bar', 'three', 'none'] as const;
export type MarkSchool = (typeof MARK_SCHOOLS)[number];
