import type { StationName } from './station.js';

/**
 * Something the app decided for the maker. `sentence` can be read aloud and holds the value where `{value}` stands;
 * `because` gives the reasons, each a sentence. `Patch` is what of a recipe its alternatives may change.
 */
export interface Ruling<Patch = unknown> {
  readonly id: string;
  readonly stage: StationName;
  readonly subject: string;
  readonly sentence: string;
  readonly value: number | string;
  readonly unit: 'mm' | '' | 'g' | 'mm/s';
  readonly because: readonly string[];
  readonly alternatives?: readonly { readonly label: string; readonly patch: Patch }[];
  readonly overridden?: boolean;
  /** What the app would have ruled, when it was overridden. */
  readonly proposed?: number | string;
}
