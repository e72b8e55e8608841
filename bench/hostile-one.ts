import { pictureKind } from '../core/artwork/index.js';
import { drawingPart, emptyRecipe, patchRecipe, picturePart } from '../core/job/index.js';
import { Planner } from '../core/job/plan/index.js';
import { HOSTILE, hostileFile } from '../core/testing/hostile-files.js';
import { DEMO_SHOP } from '../demo/shop.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { loadKernelInNode } from '../platform/load-kernel.js';

/* Plans one hostile file in a process of its own, and writes how long that took and how large the process grew. */

const { bytes, fileName } = hostileFile(HOSTILE[Number(process.argv[2])]!);
await loadKernelInNode();
const source = { id: 'a', fileName, sha256: '0'.repeat(64) };
const recipe = patchRecipe(emptyRecipe('Hostile'), { artworks: [pictureKind(bytes) ? picturePart(source) : drawingPart(source)], repair: { pictures: 'trace', patterns: 'flat', gradientBands: 3 } });
const start = performance.now();
await new Planner(resourcesInNode).plan({ recipe, shop: DEMO_SHOP, sources: new Map([['a', bytes]]) });
process.stdout.write(JSON.stringify({ tookMs: performance.now() - start, mb: process.resourceUsage().maxRSS / 1024 }));
