import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import { Problem } from '../problem.js';

/** A code is good for so long, and for one device. */
export const CODE_LIVES_MS = 120_000;
/** The first wrong code is answered after no wait; each further one doubles how long nobody is heard, up to the last of these. */
const FIRST_WAIT_MS = 1000;
const LONGEST_WAIT_MS = 60_000;
/** With so many wrong codes the one that is shown is thrown away: somebody is guessing. */
const MOST_WRONG = 5;
/** 80 bits: nobody guesses it in two minutes. */
const CODE_BYTES = 10;

export interface FreshCode {
  readonly code: string;
  readonly until: number;
}

/** Codes that let a device in: one at a time, one use, two minutes; whoever tries wrong ones waits longer each time. */
export class Pairing {
  #waiting: { readonly hash: Buffer; readonly until: number } | null = null;
  #wrong = 0;
  #deafUntil = 0;

  constructor(private readonly now: () => number = Date.now) {}

  /** A new code; the one before is void. */
  make(): FreshCode {
    const code = randomBytes(CODE_BYTES).toString('hex');
    const until = this.now() + CODE_LIVES_MS;
    this.#waiting = { hash: hashOf(code), until };
    return { code, until };
  }

  /** Takes a code, which is then used up. @throws Problem 429 while nobody is heard, 403 when it is not the code, or no code waits any more */
  take(code: string): void {
    const now = this.now();
    if (now < this.#deafUntil)
      throw new Problem(
        429,
        'too-many-codes',
        `Too many wrong codes. Try again in ${Math.ceil((this.#deafUntil - now) / 1000)} seconds, with a new code.`,
      );
    const waiting = this.#waiting;
    if (waiting && now < waiting.until && timingSafeEqual(waiting.hash, hashOf(code))) {
      this.#waiting = null;
      this.#wrong = 0;
      return;
    }
    this.#wrong += 1;
    this.#deafUntil = now + Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (this.#wrong - 1));
    if (this.#wrong >= MOST_WRONG) this.#waiting = null;
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
