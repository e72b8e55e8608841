import type { PartAsRead } from './read-part.js';
import type { TracedFigures } from './say.js';

/** The figures of a part that was traced, the design `scale` times its own size; null for any other part. */
export function tracedFigures({ part, read: { reduced, artwork } }: PartAsRead, scale: number): TracedFigures | null {
  if (part.kind !== 'picture' || !reduced) return null;
  const pixelMm = artwork.widthMm > 0 ? (artwork.widthMm * part.place.scale * scale) / reduced.frame.width : 0;
  return { ruledColours: reduced.inks, background: reduced.background, pixelMm };
}
