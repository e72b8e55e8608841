import type { Stage } from './finding.js';
import type { RecipePatch } from './recipe.js';

/**
 * Something the app decided for the maker. `sentence` can be read aloud and holds the value where `{value}` stands;
 * `because` gives the reasons, each a sentence.
 */
export interface Ruling {
  readonly id: string;
  readonly stage: Stage;
  readonly subject: string;
  readonly sentence: string;
  readonly value: number | string;
  readonly unit: 'mm' | '' | 'g' | 'mm/s';
  readonly because: readonly string[];
  readonly alternatives?: readonly { readonly label: string; readonly patch: RecipePatch }[];
  readonly overridden?: boolean;
  /** What the app would have ruled, when it was overridden. */
  readonly proposed?: number | string;
}
