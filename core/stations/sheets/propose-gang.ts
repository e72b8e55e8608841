import type { GangWish } from '../../engines/nesting/index.js';
import { boundsOf, joinBoxes, type Box } from '../../geometry/index.js';
import { wayOf } from '../../shop/index.js';
import type { PrepareOut } from '../prepare/index.js';

/** Strips in which a run of layered stickers would be laid, and what that saves. */
export interface GangProposal {
  readonly gang: GangWish;
  readonly strips: number;
  /** Minutes for aligning: each copy by itself, and strip by strip. */
  readonly aloneMin: number;
  readonly inStripsMin: number;
}

/** Fewer copies are no run: each is looked after. */
const LEAST_RUN = 10;
/** What a run of several films loses on the way. Source: trade practice, 10 %. */
const SPOILS = 0.1;
/** Up to this size work is laid as truly as a hand can, mm (docs/trap.md). */
export const LONGEST_STRIP_MM = 300;
/** Aligning one layer of a single piece, and of a strip, minutes. Source: trade practice, to begin with. */
const ALIGN_MIN = { single: 1.5, strip: 4 };

interface Run {
  readonly copies: number;
  readonly gapMm: number;
  /** How far marks and border reach beyond a strip at each side, mm. */
  readonly reachMm: number;
  /** Whether something so large fits on a piece of each of the films, turned alike on all of them. */
  readonly fits: (widthMm: number, lengthMm: number) => boolean;
}

/**
 * The strips in which a run takes the fewest alignments, with spoils; of those the ones that make the fewest too many, then the most compact. None longer than a hand lays as truly as a single piece.
 * Null where nothing is to be aligned, the run is short, or a strip of two already fits on no piece.
 */
export function proposeGang(
  { panels, layers }: Pick<PrepareOut, 'panels' | 'layers'>,
  { copies, gapMm, reachMm, fits }: Run,
): GangProposal | null {
  const [panel] = panels;
  const films = layers.map(({ layer }) => layer.film);
  const art = layers.reduce<Box | null>((box, { layer }) => joinBoxes(box, boundsOf(layer.cut)), null);
  if (
    !art ||
    panels.length !== 1 ||
    panel!.perStrip > 1 ||
    panel!.corner ||
    layers.length < 2 ||
    copies < LEAST_RUN ||
    !films.every((film) => wayOf(film) === 'adhesive')
  )
    return null;
  const along = (side: number, count: number) => count * side + (count - 1) * gapMm;
  const [width, height] = [art.maxX - art.minX, art.maxY - art.minY];
  const wanted = Math.ceil(copies * (1 + SPOILS) - 1e-9);
  const found: {
    readonly across: number;
    readonly down: number;
    readonly strips: number;
    readonly made: number;
    readonly longestMm: number;
  }[] = [];
  for (let down = 1; along(height, down) <= LONGEST_STRIP_MM; down += 1) {
    for (let across = 1; along(width, across) <= LONGEST_STRIP_MM && across * down <= wanted; across += 1) {
      const [w, h] = [along(width, across), along(height, down)];
      if (across * down < 2 || !fits(w + 2 * reachMm, h + 2 * reachMm)) continue;
      const strips = Math.ceil(wanted / (across * down));
      found.push({ across, down, strips, made: strips * across * down, longestMm: Math.max(w, h) });
    }
  }
  const best = found.sort((a, b) => a.strips - b.strips || a.made - b.made || a.longestMm - b.longestMm)[0];
  if (!best) return null;
  const { across, down } = best;
  const strips = Math.ceil(copies / (across * down));
  return {
    gang: { across, down, rows: 'straight', gapMm },
    strips,
    aloneMin: copies * (films.length - 1) * ALIGN_MIN.single,
    inStripsMin: strips * (films.length - 1) * ALIGN_MIN.strip,
  };
}
