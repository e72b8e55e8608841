export function sayTooLongForPdf(): string {
  return 'A PDF page can be 5 m long at most. Save it as SVG or DXF.';
}
