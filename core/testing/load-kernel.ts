import { loadKernelInNode } from '../../platform/load-kernel.js';

await loadKernelInNode();
