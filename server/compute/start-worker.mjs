import { register } from 'tsx/esm/api';

// A worker thread does not inherit what its parent was started with, and modules that are loaded late must be understood here too.
register();
const { work } = await import('./worker.ts');

// What the pool of workers calls.
export default work;
