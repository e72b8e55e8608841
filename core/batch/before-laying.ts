import type { Finding } from '../words/index.js';

/** Whether a finding stops a job from being cut together with others: that it finds no room by itself says nothing of that. */
export function stopsBatch({ severity, stage }: Pick<Finding, 'severity' | 'stage'>): boolean {
  return severity === 'blocker' && stage !== 'sheets';
}

/** Of the way to a batch that is laid out, preparing its jobs is this share. */
export const PREPARING_SHARE = 0.7;
