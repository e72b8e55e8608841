import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import { Problem } from '../problem.js';

/** A code is good for so long, and for one device. */
export const CODE_LIVES_MS = 120_000;
/** The first wrong code is answered after no wait; each further one doubles how long nobody is heard, up to the last of these. */
const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 60_000;
/** So many addresses are remembered; the oldest is forgotten first. */
const MOST_ADDRESSES = 1000;
/** 80 bits: nobody guesses it in two minutes. */
const CODE_BYTES = 10;

export interface FreshCode {
  readonly code: string;
  readonly until: number;
}

/** Wrong codes of one address. */
interface Tries {
  wrong: number;
  deafUntil: number;
}

/**
 * Codes that let a device in: one at a time, one use, two minutes. An address that tries wrong ones waits longer each time; that keeps nobody else waiting, and does not void the code that
 * is shown: 80 bits cannot be guessed, from however many addresses.
 */
export class Pairing {
  #waiting: { readonly hash: Buffer; readonly until: number } | null = null;
  readonly #tries = new Map<string, Tries>();

  constructor(private readonly now: () => number = Date.now) {}

  /** A new code; the one before is void. */
  make(): FreshCode {
    const code = randomBytes(CODE_BYTES).toString('hex');
    const until = this.now() + CODE_LIVES_MS;
    this.#waiting = { hash: hashOf(code), until };
    return { code, until };
  }

  /** Takes a code from an address; it is then used up. @throws Problem 429 while that address is not heard, 403 when it is not the code, or no code waits any more */
  take(code: string, from: string): void {
    const now = this.now();
    const tries = this.#tries.get(from) ?? { wrong: 0, deafUntil: 0 };
    if (now < tries.deafUntil)
      throw new Problem(
        429,
        'too-many-codes',
        `Too many wrong codes from this device. Try again in ${Math.ceil((tries.deafUntil - now) / 1000)} seconds.`,
      );
    const waiting = this.#waiting;
    this.#tries.delete(from);
    if (waiting && now < waiting.until && timingSafeEqual(waiting.hash, hashOf(code))) {
      this.#waiting = null;
      return;
    }
    const wrong = tries.wrong + 1;
    this.#tries.set(from, { wrong, deafUntil: now + Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (wrong - 1)) });
    if (this.#tries.size > MOST_ADDRESSES) this.#tries.delete(this.#tries.keys().next().value!);
    throw new Problem(
      403,
      'code-wrong',
      'This code is not good any more. A code lives two minutes and lets in one device. Show a new one on the bench computer.',
    );
  }
}

function hashOf(code: string): Buffer {
  return createHash('sha256').update(code).digest();
}
