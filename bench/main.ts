import { loadKernelInNode } from '../platform/load-kernel.js';
import { artworkBench } from './artwork.js';
import { buildBench } from './build.js';
import { cuttingBench } from './cutting.js';
import { hostileBench } from './hostile.js';
import { nestingBench } from './nesting.js';
import { pageBench } from './page.js';
import { separationBench } from './separation.js';

await loadKernelInNode();
await artworkBench();
hostileBench();
separationBench();
await buildBench();
await cuttingBench();
await nestingBench();
await pageBench();
