/** Borders that save film: they follow what stays, 3 mm clear of it. Nearer than 2 mm neighbours could not share them. */
export const CLOSE_BORDERS = { border: 'groups', borderGapMm: 3 } as const;
