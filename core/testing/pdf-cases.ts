import { readdirSync, readFileSync } from 'node:fs';

const FOLDER = new URL('pdfs/', import.meta.url);

/** A file of the kept PDFs and their pictures. */
export const pdfCase = (name: string) => new Uint8Array(readFileSync(new URL(name, FOLDER)));

/** PDFs of several writers of which another program's picture is kept, as it drew it. */
export function comparedPdfs(): string[] {
  const names = readdirSync(FOLDER);
  return names.filter((name) => name.endsWith('.pdf') && names.includes(name.replace('.pdf', '.png')));
}
