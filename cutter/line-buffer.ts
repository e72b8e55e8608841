import { HpglReader, type Instruction } from '../core/engines/cutting/index.js';

/** A request that a plotter answers at once, ahead of what waits in its buffer: ESC . and a letter. */
const REQUEST = /^\x1b\.([A-Z])/;

/**
 * What lies between the wire and the carriage: a buffer of so many bytes, with requests picked out of the stream as they arrive, and
 * instructions read from it in order. A request may arrive in pieces; what is here of it waits for the rest.
 */
export class LineBuffer {
  readonly #reader = new HpglReader();
  #buffer = '';
  #request = '';

  constructor(readonly sizeBytes: number) {}

  get freeBytes(): number {
    return Math.max(0, this.sizeBytes - this.#buffer.length - this.#reader.waiting);
  }

  /** No whole instruction can come from what is here. */
  get isEmpty(): boolean {
    return this.#buffer.length === 0;
  }

  /** Takes as much of the text as there is room for; gives how many characters that were. Requests take no room. */
  receive(text: string, onRequest: (letter: string) => void): number {
    let taken = 0;
    while (taken < text.length) {
      if (this.#request !== '' || text[taken] === '\x1b') {
        this.#request += text[taken];
        taken += 1;
        const whole = REQUEST.exec(this.#request);
        if (whole) onRequest(whole[1]!);
        // Three characters that are no request are noise.
        if (whole || this.#request.length >= 3) this.#request = '';
        continue;
      }
      const next = text.indexOf('\x1b', taken);
      const piece = text.slice(taken, Math.min(next < 0 ? text.length : next, taken + this.freeBytes));
      if (piece.length === 0) break;
      this.#buffer += piece;
      taken += piece.length;
    }
    return taken;
  }

  /** Reads at most so many bytes on; gives the instructions that are whole by then. */
  read(bytes: number): Instruction[] {
    this.#reader.push(this.#buffer.slice(0, bytes));
    this.#buffer = this.#buffer.slice(bytes);
    const whole: Instruction[] = [];
    for (let instruction = this.#reader.next(); instruction; instruction = this.#reader.next()) whole.push(instruction);
    return whole;
  }

  /** The line broke: what is whole stays, half an instruction and half a request are forgotten. */
  dropUnfinished(): void {
    const unread = this.#reader.takeRest() + this.#buffer;
    this.#buffer = unread.slice(0, Math.max(unread.lastIndexOf(';'), unread.lastIndexOf('\n')) + 1);
    this.#request = '';
  }

  clear(): void {
    this.#buffer = '';
    this.#reader.takeRest();
  }
}
