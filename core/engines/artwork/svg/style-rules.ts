import type { XmlElement } from './xml.js';

export interface Declaration {
  readonly property: string;
  readonly value: string;
  readonly important: boolean;
}

export interface StyleRule {
  readonly matches: (element: XmlElement) => boolean;
  /** What an element must have for it to match at all: "#id", ".class" or a name, or "^#id" and "^.class" of one round it; null when any may. */
  readonly key: string | null;
  readonly specificity: number;
  readonly declarations: readonly Declaration[];
}

/** All that a drawing's style sheets and style attributes say. */
export interface Styles {
  readonly rules: readonly StyleRule[];
  /** What an element's own style attribute says. */
  readonly own: ReadonlyMap<XmlElement, readonly Declaration[]>;
}

/** Reads CSS. Apart from the drawing's reader, since many drawings have none and it is large. */
export interface CssReader {
  /** A `style` attribute. What cannot be parsed is left out, as a browser would. */
  readonly declarations: (text: string) => readonly Declaration[];
  /** A style sheet's rules in document order. Selectors that cannot be understood, and at-rules, are passed to `onSkipped`. */
  readonly styleSheet: (text: string, onSkipped: (what: string) => void) => readonly StyleRule[];
}
