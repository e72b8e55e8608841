import { IDENTITY, inverse, compose, type Matrix } from '../../../geometry/index.js';

/** Writes an SVG from the bottom up, keeping what shares a clip and a mask together. */
export class SvgWriter {
  readonly #defs: string[] = [];
  readonly #body: string[] = [];
  #open = '';
  #ids = 0;
  #painted = 0;

  /** How many things were painted. */
  get painted(): number {
    return this.#painted;
  }

  /** A definition under a new id. */
  define(write: (id: string) => string): string {
    const id = `d${(this.#ids += 1)}`;
    this.#defs.push(write(id));
    return id;
  }

  /** What is painted, within a clip and a mask. */
  paint(element: string, within: { readonly clip: string | null; readonly mask: string | null }): void {
    // Each on a group of its own: clips and masks are in the page's coordinates, and the element has its own.
    const groups = [
      ...(within.mask === null ? [] : [`<g mask="url(#${within.mask})">`]),
      ...(within.clip === null ? [] : [`<g clip-path="url(#${within.clip})">`]),
    ];
    const opening = groups.join('');
    if (opening !== this.#open) {
      this.#close();
      this.#body.push(opening);
      this.#open = opening;
    }
    this.#body.push(element);
    this.#painted += 1;
  }

  /** What was painted since a mark, taken out again: the inside of a mask or a pattern. */
  mark(): number {
    this.#close();
    return this.#body.length;
  }

  takeSince(mark: number): string {
    this.#close();
    return this.#body.splice(mark).join('\n');
  }

  document(width: number, height: number, mmPerPt: number): string {
    this.#close();
    return `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="${figure(width * mmPerPt)}mm" height="${figure(height * mmPerPt)}mm" viewBox="0 0 ${figure(width)} ${figure(height)}">\n<defs>${this.#defs.join('\n')}</defs>\n${this.#body.join('\n')}\n</svg>`;
  }

  #close(): void {
    if (this.#open) this.#body.push('</g>'.repeat(this.#open.split('<g').length - 1));
    this.#open = '';
  }
}

export const figure = (value: number) => (Number.isFinite(value) ? String(Number(value.toPrecision(9))) : '0');

export function matrixAttribute(matrix: Matrix, name = 'transform'): string {
  return matrix === IDENTITY ? '' : ` ${name}="matrix(${matrix.map(figure).join(' ')})"`;
}

/** A matrix given in another's coordinates: what maps from it to the page mapped back into `own`. */
export function within(own: Matrix, outer: Matrix): Matrix {
  const back = inverse(own);
  return back ? compose(back, outer) : IDENTITY;
}

export function escaped(text: string): string {
  return text
    .replace(/[&<>"]/g, (letter) => `&#${letter.charCodeAt(0)};`)
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '');
}
