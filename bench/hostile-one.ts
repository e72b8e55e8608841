import { Planner } from '../core/plan/index.js';
import { HOSTILE, hostileInput } from '../core/testing/hostile-files.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { loadKernelInNode } from '../platform/load-kernel.js';

/* Plans one hostile file in a process of its own, and writes how long that took and how large the process grew. */

const input = hostileInput(HOSTILE[Number(process.argv[2])]!);
await loadKernelInNode();
const start = performance.now();
await new Planner(resourcesInNode).plan(input);
process.stdout.write(JSON.stringify({ tookMs: performance.now() - start, mb: process.resourceUsage().maxRSS / 1024 }));
