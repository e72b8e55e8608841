import type { Box } from '../../geometry/index.js';
import type { Difference } from './as-drawn/differing-places.js';

interface Named {
  /** What a maker can find again: `<path id="hull">, line 12`. */
  readonly element: string;
}

/** A paint that film cannot show as it is. */
interface LostPaint extends Named {
  readonly which: 'fill' | 'stroke';
}

type Nothing = Readonly<Record<never, never>>;

/** The figures and names behind all that can be noticed while a file is read and painted, by code. */
export interface NoticedFigures {
  'arc-too-tight': Nothing;
  'blend-ignored': Named;
  'block-left': { readonly block: string; readonly why: 'contains-itself' | 'missing' };
  'clip-ignored': Named & { readonly why: 'contains-itself' | 'unknown' };
  'colour-unknown': LostPaint;
  'dxf-left': { readonly type: string };
  'element-ignored': Named;
  'entity-ignored': Nothing;
  'filter-ignored': Named;
  /** Left out, or cut as if it were sharp. */
  'blur-left': Named;
  blurred: Named;
  'shadow-left': Named;
  'font-missing': Named & {
    readonly family: string;
    readonly standIns: readonly { readonly id: string; readonly name: string }[];
  };
  'font-weight': { readonly font: string; readonly here: number; readonly asked: number };
  'foreign-left': Named;
  'gradient-banded': Named;
  'gradient-flattened': LostPaint;
  'hatch-damaged': Nothing;
  /** An instruction that is not read; LB for letters that the stroke font does not have. */
  'hpgl-left': { readonly name: string };
  hairlines: { readonly thinnestMm: number };
  /** `fonts`: names of shipped fonts that have the scripts of those letters. */
  'letters-missing': { readonly letters: readonly string[]; readonly fonts: readonly string[] };
  'mask-ignored': Named;
  /** An independent picture of the drawing shows something else than what was read. */
  'not-as-drawn': { readonly difference: Difference };
  /** No such picture could be made. */
  'not-compared': Nothing;
  'opacity-flattened': LostPaint;
  /** `fills`: what they enclose is filled all the same. `reachMm`: ends up to so far apart would have to be joined; null when none is near another. */
  'open-outline': { readonly colour: string; readonly fills: boolean; readonly reachMm: number | null };
  'out-of-range': { readonly what: string; readonly why: 'far' | 'no-number' };
  'outside-frame': Nothing;
  'painted-twice': Nothing;
  'pattern-flattened': LostPaint;
  'pattern-left': LostPaint;
  'picture-damaged': Named;
  'shines-left': Nothing;
  'picture-empty': Nothing;
  /** Thin lines and small spots that have a colour of their own in the file, and not in what is cut. */
  'picture-hairs-lost': Nothing;
  'picture-left': Named & { readonly why: 'elsewhere' | 'not-traced' };
  'picture-specks': Nothing;
  'picture-too-busy': Nothing;
  'picture-traced': Named;
  'script-ignored': Named;
  'self-crossing': Nothing;
  'shape-cut-short': Named & { readonly error: string };
  'stroke-scaled': Named;
  'style-ignored': { readonly rule: string };
  'text-left': Named & { readonly why: 'no-path' | 'too-long' };
  'too-many-colours': { readonly colours: number; readonly most: number };
  'too-many-points': { readonly most: number };
  'too-tangled': Named;
  'transform-ignored': Named;
  'use-cycle': Named;
  'use-ignored': Named & { readonly href: string };
}

export type NoticedCode = keyof NoticedFigures;

/** Something of one code that was noticed: no words, but all that a sentence about it needs, and where it is, mm. */
export type NoticedOf<Code extends NoticedCode> = NoticedFigures[Code] & {
  readonly code: Code;
  readonly count?: number;
  readonly where?: Box;
  readonly places?: readonly Box[];
};

export type Noticed = { [Code in NoticedCode]: NoticedOf<Code> }[NoticedCode];
