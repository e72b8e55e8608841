import type { NoticedOf } from '../noticed.js';
import { SHIPPED_FONTS, type OtherScript, type ShippedFont } from './shipped-fonts.js';

const LETTERS_OF: Readonly<Record<OtherScript, RegExp>> = {
  cyrillic: /\p{Script=Cyrillic}/u,
  greek: /\p{Script=Greek}/u,
  hebrew: /\p{Script=Hebrew}/u,
  arabic: /\p{Script=Arabic}/u,
};

/** The scripts beside the Latin one that letters of a text are of. */
export function scriptsIn(text: string): OtherScript[] {
  return (Object.keys(LETTERS_OF) as OtherScript[]).filter((script) => LETTERS_OF[script].test(text));
}

/** Whether a shipped font has the scripts of a text. */
export function setsScriptsOf(font: ShippedFont, text: string): boolean {
  return scriptsIn(text).every((script) => font.scripts.includes(script));
}

/** Letters that a font has not, with the shipped fonts that have their scripts; none when they are of no script that fonts differ in. */
export function lettersMissing(letters: readonly string[]): NoticedOf<'letters-missing'> {
  const text = letters.join('');
  const fonts =
    scriptsIn(text).length === 0
      ? []
      : SHIPPED_FONTS.filter((font) => setsScriptsOf(font, text)).map((font) => font.name);
  return { code: 'letters-missing', letters, fonts };
}
