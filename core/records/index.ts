/*
 * What a run of the cutter came to: film used, cost, and the estimate against what really happened.
 */
export { filmUse, type FilmUse } from './film-use.js';
export { ENDED, type Run, type RunProgress, type RunState } from './run.js';
