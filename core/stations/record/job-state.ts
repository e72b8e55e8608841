import { takenCopies, type FrozenSheet } from '../cut/index.js';

/** What has become of a job, as lists tell it. */
export type JobState = 'new' | 'in work' | 'cutting' | 'cut';

/** What a job's state depends on besides its sheets. */
export interface JobSoFar {
  readonly jobId: string;
  /** Parts of its design. */
  readonly parts: number;
  /** What was to be cut when it was last sent; null when it never was, or when anything that is cut of it was changed since. */
  readonly toCut: readonly { readonly fingerprint: string; readonly copies: number }[] | null;
}

/** A job is cut once every copy of every layer is, and nothing that is cut of it was changed since it was sent. */
export function jobStateOf({ jobId, parts, toCut }: JobSoFar, sheets: readonly FrozenSheet[]): JobState {
  if (Object.keys(takenCopies(sheets, jobId, ['in-cutter'])).length > 0) return 'cutting';
  const good = takenCopies(sheets, jobId, ['good']);
  if (toCut?.every(({ fingerprint, copies }) => (good[fingerprint] ?? 0) >= copies)) return 'cut';
  return parts > 0 ? 'in work' : 'new';
}
