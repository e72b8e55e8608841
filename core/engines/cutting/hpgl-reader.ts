/** One HP-GL instruction as it arrived: two letters and what follows. */
export interface Instruction {
  readonly name: string;
  readonly text: string;
}

/**
 * Cuts a stream of characters into instructions as a plotter does: two letters begin one, and it ends at a semicolon, a line end after
 * parameters, or the next letters. What stays unfinished waits for more.
 */
export class HpglReader {
  #rest = '';

  /** Characters that wait for the end of their instruction. */
  get waiting(): number {
    return this.#rest.length;
  }

  push(text: string): void {
    this.#rest += text;
  }

  /** The next complete instruction, or null while there is none. */
  next(): Instruction | null {
    for (;;) {
      this.#rest = this.#rest.replace(/^[\s;,]+/, '');
      const match = /^([A-Za-z])\s*([A-Za-z])([^;A-Za-z\n]*)([;\nA-Za-z])/.exec(this.#rest);
      if (match) {
        const ends = match[4] === ';' || match[4] === '\n';
        this.#rest = this.#rest.slice(match[0].length - (ends ? 0 : 1));
        return { name: (match[1]! + match[2]!).toUpperCase(), text: match[3]!.trim() };
      }
      // Not two letters where an instruction should begin: noise on the line, dropped a character at a time.
      if (this.#rest.length > 0 && !/^[A-Za-z]\s*([A-Za-z]|$)/.test(this.#rest)) this.#rest = this.#rest.slice(1);
      else return null;
    }
  }

  /** Hands over what is unfinished and forgets it. */
  takeRest(): string {
    const rest = this.#rest;
    this.#rest = '';
    return rest;
  }
}
