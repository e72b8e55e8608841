export function sayTooLongForPdf(): string {
  return 'A PDF page can be 5 m long at most. Save it as SVG or DXF.';
}

/** What stands below each of several sheets that are glued together. */
export function saySheetOfPaper(
  title: string,
  {
    row,
    rows,
    column,
    columns,
    lineMm,
  }: {
    readonly row: number;
    readonly rows: number;
    readonly column: number;
    readonly columns: number;
    readonly lineMm: number;
  },
): string {
  return `${title}: row ${row} of ${rows}, sheet ${column} of ${columns}. True size: this line is ${lineMm} mm.`;
}
