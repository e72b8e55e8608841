/*
 * What the record says of a job: how far it is cut, how much of that was judged, and what has become of it.
 */
export { countCuts, NOTHING_CUT, recordedCuts, type CutCounts, type RecordedCuts, type Unweeded } from './counts.js';
export { filmOfRun, jobSums, type JobSums } from './job-sums.js';
export { jobStateOf, type JobState } from './job-state.js';
