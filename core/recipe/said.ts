import type { Finding, Remedy, Ruling } from '../words/index.js';
import type { RecipePatch } from './recipe.js';

/*
 * Findings, remedies and rulings about a job: what they change is its recipe.
 */
export type JobFinding = Finding<RecipePatch>;
export type JobRemedy = Remedy<RecipePatch>;
export type JobRuling = Ruling<RecipePatch>;
