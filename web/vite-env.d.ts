/// <reference types="vite/client" />

/** Made when the pages are built (scripts/shop-validators.ts): a check of each kind of record, by its name. */
declare module 'shop-validators' {
  import type { Fault } from '../core/shop/fields/index.js';
  interface Check {
    (value: unknown): boolean;
    errors?: readonly Fault[] | null;
  }
  export const settings: Check,
    films: Check,
    pieces: Check,
    mats: Check,
    blades: Check,
    cutters: Check,
    tapes: Check,
    presses: Check,
    makers: Check,
    blanks: Check;
}
