import type { Instruction } from '../../cutting/index.js';

/** Escape sequences that wrap HP-GL for a printer, or set a device up: they draw nothing. */
const ESCAPES = /\u001b(?:\.[()@A-Z](?:[\d;]*:)?|%-?\d*[A-Z]|[&*(][^A-Z\u001b]*[A-Z]|[A-Z=9])/g;
/** What a label ends with unless DT says otherwise. */
const END_OF_TEXT = '\u0003';
/** Their text may hold anything, up to the end that is set for labels. */
const LABELS = new Set(['LB', 'BL', 'WD']);

/**
 * The instructions of a file in order: two letters and what follows, up to a semicolon or the next letters. What labels, comments and packed lines hold is
 * their text; all else between instructions is noise and passed over.
 */
export function* instructionsOf(file: string): Generator<Instruction> {
  const text = file.replace(ESCAPES, ' ');
  const start = /[A-Za-z][ \t\r\n]*[A-Za-z]/g;
  const stop = /[;A-Za-z]/g;
  const stopFrom = (from: number) => {
    stop.lastIndex = from;
    return stop.exec(text)?.index ?? text.length;
  };
  let end = END_OF_TEXT;
  let isEndDrawn = false;
  for (let at = 0; ;) {
    start.lastIndex = at;
    const found = start.exec(text);
    if (!found) return;
    const name = found[0].replace(/\s/g, '').toUpperCase();
    const from = found.index + found[0].length;
    if (LABELS.has(name)) {
      const found = text.indexOf(end, from);
      const to = found < 0 ? text.length : found;
      yield { name, text: text.slice(from, to) + (isEndDrawn && found >= 0 ? end : '') };
      at = to + 1;
    } else if (name === 'DT') {
      // One character, which may be a letter, and whether labels draw it.
      const isReset = text[from] === ';' || from >= text.length;
      end = isReset ? END_OF_TEXT : text[from]!;
      const mode = /^,\s*(\d)/.exec(text.slice(from + 1, from + 8));
      isEndDrawn = !isReset && mode?.[1] === '0';
      yield { name, text: '' };
      at = isReset ? from + 1 : from + 1 + (mode?.[0].length ?? 0);
    } else if (name === 'CO') {
      const opens = /^\s*"/.exec(text.slice(from, from + 8));
      const closes = opens ? text.indexOf('"', from + opens[0].length) : -1;
      at = closes < 0 ? from : closes + 1;
    } else if (name === 'SM') {
      // The symbol is any character but a semicolon, which ends it.
      const symbol = text[from] === ';' || text[from] === undefined ? '' : text[from]!;
      yield { name, text: symbol };
      at = from + symbol.length;
    } else {
      const packed = text.indexOf(';', from);
      const to = name === 'PE' ? (packed < 0 ? text.length : packed) : stopFrom(from);
      yield { name, text: text.slice(from, to).trim() };
      at = to;
    }
  }
}
