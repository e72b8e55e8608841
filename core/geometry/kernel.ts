import type { MainModule, PathD, PathsD } from 'clipper2-wasm/dist/clipper2z.js';
import { withMemoryBound } from './kernel-memory.js';
import { offsetOutline } from './offset.js';
import {
  boundsOf,
  containsPoint,
  holdsBox,
  mirrored,
  reversed,
  signedArea,
  widenBox,
  type Ring,
  type Rings,
} from './rings.js';
import { ARC_MM, KERNEL_DECIMALS } from './tolerances.js';

/*
 * The one place that knows the polygon kernel. Its points are x, y, z triples, its objects live outside the garbage
 * collector and must be deleted by hand, and its C++ exceptions arrive as bare numbers. Nothing of that leaves this file.
 */

export type FillRule = 'nonzero' | 'evenodd';

/**
 * Raised when the kernel is used too early, is given coordinates that are not finite, or fails inside. After `kernel-failed` nothing is known of
 * its memory any more: whoever loaded it must be replaced.
 */
export class KernelError extends Error {
  constructor(
    readonly code: 'kernel-not-loaded' | 'coordinate-not-finite' | 'kernel-failed',
    message: string,
    cause?: unknown,
  ) {
    super(message, { cause });
    this.name = 'KernelError';
  }
}

/** Whether an error says that the kernel can be used no more. */
export function isKernelFailure(error: unknown): boolean {
  return error instanceof KernelError && error.code === 'kernel-failed';
}

type KernelFactory = (options: { wasmBinary: ArrayBufferLike | Uint8Array }) => Promise<MainModule>;

/** Room for a drawing of a million points and more; what wants still more is no drawing, and the machine has others to serve. */
const MOST_MEMORY_BYTES = 1024 ** 3;

let loaded: MainModule | null = null;

/**
 * Makes the kernel ready; call once before any other function here. The caller brings the WebAssembly bytes,
 * since only it knows whether they come from a disk or over the network.
 */
export async function loadKernel(factory: KernelFactory, wasmBinary: Uint8Array): Promise<void> {
  loaded ??= await factory({ wasmBinary: withMemoryBound(wasmBinary, MOST_MEMORY_BYTES) });
}

/** Area covered by the rings under a fill rule, as kernel-clean rings: nothing overlaps, outers positive, holes negative. */
export function unite(rings: Rings, fillRule: FillRule = 'nonzero'): Ring[] {
  if (rings.length === 0) return [];
  return run((k, keep) => k.UnionSelfD(keep(toPaths(k, rings)), rule(k, fillRule), KERNEL_DECIMALS));
}

/** What lies in both areas; both must be kernel-clean. */
export function intersect(a: Rings, b: Rings): Ring[] {
  if (a.length === 0 || b.length === 0) return [];
  return run((k, keep) => k.IntersectD(keep(toPaths(k, a)), keep(toPaths(k, b)), k.FillRule.NonZero, KERNEL_DECIMALS));
}

/** What lies in `a` but not in `b`; both must be kernel-clean. */
export function subtract(a: Rings, b: Rings): Ring[] {
  if (a.length === 0) return [];
  if (b.length === 0) return [...a];
  return run((k, keep) => k.DifferenceD(keep(toPaths(k, a)), keep(toPaths(k, b)), k.FillRule.NonZero, KERNEL_DECIMALS));
}

/**
 * The area grown by `d` mm all round (shrunk when negative) with round corners, which follow the true arc within `arcMm`.
 * The area must be kernel-clean. Zero gives a copy.
 */
export function grow(rings: Rings, d: number, arcMm = ARC_MM): Ring[] {
  return grown(rings, d, 'round', arcMm);
}

function grown(rings: Rings, d: number, corners: 'round' | 'bevelled', arcMm: number): Ring[] {
  if (d === 0) return [...rings];
  const moved = rings.map((ring) => offsetOutline(ring, d, corners, arcMm)).filter((ring) => ring.length >= 6);
  return uniteMoved(moved);
}

/** The area that moved outlines mean: where they wind round in the positive sense. */
export function uniteMoved(moved: Rings): Ring[] {
  if (moved.length === 0) return [];
  return run((k, keep) => k.UnionSelfD(keep(toPaths(k, moved)), k.FillRule.Positive, KERNEL_DECIMALS));
}

/** The same with mitred corners, cut off beyond twice the distance: fewer points where a little too much does no harm. */
export function growMitred(rings: Rings, d: number): Ring[] {
  if (rings.length === 0) return [];
  if (d === 0) return [...rings];
  return run((k, keep) =>
    k.InflatePathsD(keep(toPaths(k, rings)), d, k.JoinType.Miter, k.EndType.Polygon, 2, KERNEL_DECIMALS, 0),
  );
}

/** The same with corners cut off straight. */
export function growBevelled(rings: Rings, d: number): Ring[] {
  return grown(rings, d, 'bevelled', ARC_MM);
}

/** All positions of the origin of `b` at which it lies inside of the outline `room`, as rings of positive area: what a simple outline leaves free for another. None where it does not fit. */
export function roomInside(room: Ring, b: Ring): Ring[] {
  const own = widenBox(boundsOf([room])!, 1e-6);
  const { minX, minY, maxX, maxY } = boundsOf([b])!;
  // Where the outlines do not touch, `b` is inside, or beside, or round the room: only inside is its box within that of the room.
  return touching(room, b)
    .filter((ring) => signedArea(ring) < 0)
    .filter(([x, y]) => holdsBox(own, { minX: minX + x!, minY: minY + y!, maxX: maxX + x!, maxY: maxY + y! }))
    .filter(([x, y]) => b.some((v, i) => i % 2 === 0 && containsPoint([room], v + x!, b[i + 1]! + y!)))
    .map(reversed);
}

/** All positions of the origin of `b` at which the outlines touch or cross. */
function touching(a: Ring, b: Ring): Ring[] {
  return run((k, keep) => {
    const pattern = keep(toPath(k, mirrored(b)));
    const path = keep(toPath(k, a));
    return k.MinkowskiSumD(pattern, path, true, KERNEL_DECIMALS);
  });
}

type Keep = <T extends { delete(): void }>(object: T) => T;

function run(operation: (kernel: MainModule, keep: Keep) => PathsD): Ring[] {
  const kernel = loaded;
  if (!kernel)
    throw new KernelError('kernel-not-loaded', 'The polygon kernel was used before loadKernel() had finished.');
  const kept: { delete(): void }[] = [];
  const keep: Keep = (object) => {
    kept.push(object);
    return object;
  };
  try {
    return fromPaths(keep(operation(kernel, keep)));
  } catch (error) {
    if (error instanceof KernelError) throw error;
    throw new KernelError('kernel-failed', 'The polygon kernel gave up on this geometry.', error);
  } finally {
    release(kept);
  }
}

/** What a failed kernel cannot delete any more goes with it. */
function release(kept: readonly { delete(): void }[]): void {
  try {
    for (const object of kept) object.delete();
  } catch (error) {
    throw new KernelError('kernel-failed', 'The polygon kernel gave up on this geometry.', error);
  }
}

function rule(
  kernel: MainModule,
  fillRule: FillRule,
): MainModule['FillRule']['NonZero'] | MainModule['FillRule']['EvenOdd'] {
  return fillRule === 'evenodd' ? kernel.FillRule.EvenOdd : kernel.FillRule.NonZero;
}

/** Triples on their way into the kernel, the third of each always 0; kept from one path to the next. */
let triples = new Float64Array(3 * 1024);

function assign(path: PathD, ring: Ring): void {
  const size = (ring.length / 2) * 3;
  if (triples.length < size) triples = new Float64Array(2 * size);
  for (let i = 0, t = 0; i < ring.length; i += 2, t += 3) {
    const x = ring[i]!;
    const y = ring[i + 1]!;
    // The kernel answers NaN with an empty result and no word, so it is caught here.
    if (!Number.isFinite(x) || !Number.isFinite(y)) {
      throw new KernelError(
        'coordinate-not-finite',
        `Point ${i / 2} of an outline is (${x}, ${y}); coordinates must be finite.`,
      );
    }
    triples[t] = x;
    triples[t + 1] = y;
  }
  path.assign(triples.subarray(0, size));
}

function toPath(kernel: MainModule, ring: Ring): PathD {
  const path = new kernel.PathD();
  assign(path, ring);
  return path;
}

function toPaths(kernel: MainModule, rings: Rings): PathsD {
  const paths = new kernel.PathsD();
  // One path carries all of them over: each is copied, and to make one costs more than to fill it.
  const carrier = new kernel.PathD();
  try {
    for (const ring of rings) {
      assign(carrier, ring);
      paths.push_back(carrier);
    }
  } catch (error) {
    paths.delete();
    throw error;
  } finally {
    carrier.delete();
  }
  return paths;
}

function fromPaths(paths: PathsD): Ring[] {
  const rings: Ring[] = [];
  const n = paths.size();
  for (let p = 0; p < n; p += 1) {
    const path = paths.get(p);
    const view = path.view();
    if (view.length >= 9) {
      const ring = new Float64Array((view.length / 3) * 2);
      for (let t = 0, i = 0; t < view.length; t += 3, i += 2) {
        ring[i] = view[t]!;
        ring[i + 1] = view[t + 1]!;
      }
      rings.push(ring);
    }
    path.delete();
  }
  return rings;
}
