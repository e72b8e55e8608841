import { loadKernelInNode } from '../platform/load-kernel.js';
import { cuttingBench } from './cutting.js';
import { nestingBench } from './nesting.js';
import { pageBench } from './page.js';
import { separationBench } from './separation.js';

await loadKernelInNode();
separationBench();
await cuttingBench();
await nestingBench();
await pageBench();
