/*
 * The recipe: the stations' decisions put together, with one schema and one way up from every version that ever shipped.
 */
export { asItWasCut, changedStations } from './changed-stations.js';
export type { DeletedJob, Job, JobSummary } from './job.js';
export { describeSchemaError, parseRecipe, RECIPE_SCHEMA } from './parse-recipe.js';
export { emptyRecipe, patchRecipe, type Recipe, type RecipePatch } from './recipe.js';
export type { JobFinding, JobRemedy, JobRuling } from './said.js';
