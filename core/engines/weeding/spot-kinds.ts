/** What is looked for while weeding: a counter or a stencil's cut-out that comes out, a loose part that is easily lost, an island that the tape has to carry. */
export const SPOT_KINDS = ['counter', 'loose part', 'cut-out', 'island'] as const;
export type SpotKind = (typeof SPOT_KINDS)[number];

/** Whether what is looked for comes out, or is seen to stay: the one is drawn round, the other square. */
export function comesOut(kind: SpotKind): boolean {
  return kind === 'counter' || kind === 'cut-out';
}
