import { SHEET_ORDERS } from '../laying/index.js';
import { figure, id, object, oneOf, text, whole, yes } from '../words/schema.js';

/** What is decided of a batch, as it comes from outside. */
export const BATCH_WISH_SCHEMA = object({
  spacingMm: figure(0, 100),
  sharesBorders: yes,
  inCounters: yes,
  zones: yes,
  order: oneOf(SHEET_ORDERS),
  sequence: { type: 'array', maxItems: 2000, items: { type: 'string', maxLength: 20_000 } },
  oneDirection: yes,
  anyTurn: yes,
  spares: object({ single: figure(0, 1), layered: figure(0, 1) }),
  longFeedMm: figure(100, 100_000),
  leftovers: object({
    leastSideMm: figure(1, 10_000),
    leastMm2: figure(0, 10_000_000),
    share: figure(0, 1),
    narrowMm: figure(0, 10_000),
    narrowShare: figure(0, 1),
  }),
  avoid: { type: 'array', maxItems: 1000, items: id },
  steps: { type: 'array', maxItems: 1000, items: object({ filmId: id, steps: whole(0, 1e9) }) },
  pins: {
    type: 'array',
    maxItems: 2000,
    items: object({
      jobId: id,
      fingerprint: text,
      copy: whole(0, 1_000_000),
      pieceKey: text,
      xMm: figure(-1, 100_000),
      yMm: figure(-1, 100_000),
      rotation: figure(0, 360),
    }),
  },
});
