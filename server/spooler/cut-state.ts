import type { RunState } from '../../core/stations/cut/index.js';
import { SAID } from './said.js';

/*
 * What a report of the cutter means for the run under way, as a pure function: (what is stored, what this connection knows, the maker's
 * wish, the report) → (what is stored then, what the connection knows then, what the cutter is told). The driver round it (spooler.ts) stores
 * before it tells, so that a stop at any moment leaves the store no further than the cutter.
 *
 * The promise: nothing is cut twice, nothing is missed, nothing of one sheet is cut on another, while the cutter keeps its place. It rests on
 * three rules. A count is taken for final only when the cutter is empty *and* idle, since a hold or a fault may hide a full buffer. A sheet's
 * own base is taken only after that. And a run is over only when the cutter holds nothing of it any more.
 */

/** The cutter's own report, as ESC.S answers it. */
export interface CutterReport {
  readonly state: 'idle' | 'moving' | 'held' | 'out-of-film' | 'jammed';
  /** Nothing waits in it and nothing moves. */
  readonly empty: boolean;
  readonly freeBytes: number;
  readonly pairsDone: number;
  readonly boot: number;
  readonly xMm: number;
  readonly yMm: number;
  readonly knifeDown: boolean;
  /** The cutter's own hour meter. */
  readonly meterMs: number;
}

/** The cutter's own counters when the sheet was begun: what its reports are held against. */
export interface Bearings {
  readonly pairsBase: number;
  readonly boot: number;
  readonly meterMs: number;
}

/** What must outlive this process. */
export interface StoredCut {
  readonly state: RunState;
  readonly message: string;
  readonly pairsDone: number;
  /** Null until the cutter was seen empty for this sheet; nothing of it is sent before. */
  readonly bearings: Bearings | null;
}

/** What is known only as long as the connection lasts. */
export type Talk =
  /** The cutter is made ready for a new sheet; `asked` once it was told that one is in. */
  | { readonly phase: 'claiming'; readonly asked: boolean }
  /** What the broken line left in its buffer is still being cut, or held: its count is not final. */
  | { readonly phase: 'settling' }
  /** Its count was final at `from`; the program is sent from there. */
  | { readonly phase: 'sending'; readonly from: number };

export type Wish = 'go' | 'pause' | 'cancel';

export type Telling = 'hold' | 'release' | 'drop' | 'new-sheet' | 'feed';

export interface CutStep {
  readonly stored: StoredCut;
  readonly talk: Talk;
  readonly tell: readonly Telling[];
}

export interface CutNow {
  readonly stored: StoredCut;
  readonly talk: Talk;
  readonly wish: Wish;
  readonly pairsTotal: number;
  /** Where the holder stands once so many pairs were driven to, mm; null where that is not known. */
  readonly placeAfter: (pairs: number) => readonly [number, number] | null;
}

/** How a conversation begins: with a new sheet, or with finding out how far the last one got. */
export function greeting({ bearings }: StoredCut): Talk {
  return bearings ? { phase: 'settling' } : { phase: 'claiming', asked: false };
}

/** The cutter does not answer. */
export function onSilence({ stored, talk, wish }: CutNow): CutStep {
  // Nothing of it was ever sent: there is nothing to drop.
  if (wish === 'cancel' && !stored.bearings) return ended(stored, talk, 'cancelled', SAID.cancelled);
  return wish === 'cancel'
    ? going(stored, talk, 'cancelling', SAID.cancellingUnreached)
    : going(stored, talk, 'waiting', SAID.waiting);
}

/** The cutter has answered. */
export function onReport(now: CutNow, report: CutterReport): CutStep {
  const { stored, talk, wish, pairsTotal } = now;
  const { bearings } = stored;
  if (!bearings) return wish === 'cancel' ? ended(stored, talk, 'cancelled', SAID.cancelled) : claim(now, report);
  if (report.boot !== bearings.boot)
    return wish === 'cancel'
      ? ended(stored, talk, 'cancelled', SAID.cancelled)
      : ended(stored, talk, 'failed', SAID.placeLost);
  const pairsDone = report.pairsDone - bearings.pairsBase;
  if (pairsDone < stored.pairsDone || pairsDone > pairsTotal)
    return { ...ended(stored, talk, 'failed', SAID.countWrong), tell: ['drop', 'release'] };
  const counted = { ...stored, pairsDone };
  if (wish === 'cancel') {
    const release: readonly Telling[] = report.state === 'held' ? ['release'] : [];
    return report.empty
      ? { ...ended(counted, talk, 'cancelled', SAID.cancelled), tell: release }
      : { ...going(counted, talk, 'cancelling', SAID.cancelling), tell: ['drop', 'release'] };
  }
  if (report.empty && pairsDone === pairsTotal) return ended(counted, talk, 'finished', '');
  const isFinal = report.empty && report.state === 'idle';
  // Told to drop what it held, and stopped before that was recorded: it stands in the middle of a line, and cannot go on from there.
  if (talk.phase === 'settling' && isFinal && !standsAt(report, now.placeAfter(pairsDone)))
    return ended(counted, talk, 'failed', SAID.dropped);
  const then: Talk = talk.phase === 'settling' && isFinal ? { phase: 'sending', from: pairsDone } : talk;
  return { ...going(counted, then, stateOf(report, wish), messageOf(report)), tell: tellings(report, wish, then) };
}

/** Takes the cutter for a new sheet: whatever it holds is of an earlier one and is dropped; its count is the base once it stands empty and idle. */
function claim({ stored, talk, wish }: CutNow, report: CutterReport): CutStep {
  const asked = talk.phase === 'claiming' && talk.asked;
  const state = stateOf(report, wish);
  if (!report.empty)
    return { ...going(stored, { phase: 'claiming', asked: false }, state, SAID.clearing), tell: ['drop', 'release'] };
  if (report.state === 'held')
    return { ...going(stored, { phase: 'claiming', asked: false }, 'cutting', ''), tell: ['release'] };
  if (report.state !== 'idle') return going(stored, { phase: 'claiming', asked: false }, state, messageOf(report));
  if (!asked) return { ...going(stored, { phase: 'claiming', asked: true }, 'cutting', ''), tell: ['new-sheet'] };
  const bearings: Bearings = { pairsBase: report.pairsDone, boot: report.boot, meterMs: report.meterMs };
  return going({ ...stored, bearings }, { phase: 'sending', from: 0 }, 'cutting', '');
}

/** Nearer than this it stands where it should, mm: the cutter tells hundredths. */
const NEAR_MM = 0.1;

function standsAt({ xMm, yMm }: CutterReport, place: readonly [number, number] | null): boolean {
  return place === null || Math.hypot(xMm - place[0], yMm - place[1]) <= NEAR_MM;
}

function tellings({ state }: CutterReport, wish: Wish, talk: Talk): readonly Telling[] {
  if (wish === 'pause') return state === 'held' ? [] : ['hold'];
  if (state === 'held') return ['release'];
  return talk.phase === 'sending' && (state === 'idle' || state === 'moving') ? ['feed'] : [];
}

function stateOf({ state }: CutterReport, wish: Wish): RunState {
  // Not before it stands still: a wish is no pause yet.
  return state === 'out-of-film' || state === 'jammed'
    ? 'stuck'
    : wish === 'pause' && state === 'held'
      ? 'paused'
      : 'cutting';
}

function messageOf({ state }: CutterReport): string {
  return state === 'out-of-film' ? SAID.outOfFilm : state === 'jammed' ? SAID.jammed : '';
}

function going(stored: StoredCut, talk: Talk, state: RunState, message: string): CutStep {
  return { stored: { ...stored, state, message }, talk, tell: [] };
}

function ended(stored: StoredCut, talk: Talk, state: 'finished' | 'cancelled' | 'failed', message: string): CutStep {
  return going(stored, talk, state, message);
}
