/**
 * Every tolerance of the geometry, with its reason. All in mm unless the name says otherwise.
 */

/**
 * Digits after the decimal point that the polygon kernel keeps. It rounds to the next power of two above, here 2^-24 mm = 6e-8: fine
 * enough that thirty pieces side by side on a sheet add up to less than SAME_POINT_MM, coarse enough that a kilometre still fits its integers.
 */
export const KERNEL_DECIMALS = 7;

/** Largest distance between a curve and its polyline: less than half a cutter step, so flattening never shows in film. */
export const FLATTEN_MM = 0.01;

/** Small artwork is flattened finer than that, to this share of its longer side: a picture of it 1000 pixels wide then shows no facets. */
export const FLATTEN_SHARE = 1 / 10_000;

/** Points nearer than this are one point: it is below the kernel's own grid, so nothing that the kernel can tell apart is lost. */
export const SAME_POINT_MM = 1e-6;

/**
 * No blade can cut a piece or a hole, or leave a join, that vanishes when it is moved in by this from all sides: a tenth of a millimetre
 * across is less than a blade's own width at the depth of film. Source: trade practice.
 */
export const CRUMB_MM = 0.05;

/** A ring smaller than this (mm²) is a rounding crumb of a Boolean operation, not a piece: its side is under a tenth of a cutter step. */
export const CRUMB_MM2 = 1e-4;

/** A sliver thinner than this along its whole length comes from two edges that should coincide: half a cutter step. */
export const HAIRLINE_MM = 0.01;

/** Largest distance between a grown round corner and the true arc: the same promise as for curves. */
export const ARC_MM = 0.005;
