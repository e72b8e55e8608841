import type { Declaration, StyleRule, Styles } from './style-rules.js';
import { parseSvgLength } from './lengths.js';
import type { XmlElement } from './xml.js';

/** What a style sheet may say of a shape's size and place. */
const GEOMETRY = ['x', 'y', 'width', 'height', 'cx', 'cy', 'r', 'rx', 'ry'] as const;

/** The properties that decide what is cut; `inherited` as in the SVG specification. */
const PROPERTIES: ReadonlyMap<string, { initial: string; inherited: boolean }> = new Map(
  Object.entries({
    'clip-path': { initial: 'none', inherited: false },
    'clip-rule': { initial: 'nonzero', inherited: true },
    color: { initial: 'black', inherited: true },
    display: { initial: 'inline', inherited: false },
    fill: { initial: 'black', inherited: true },
    'fill-opacity': { initial: '1', inherited: true },
    'fill-rule': { initial: 'nonzero', inherited: true },
    filter: { initial: 'none', inherited: false },
    'font-family': { initial: '', inherited: true },
    'font-size': { initial: '16', inherited: true },
    'font-weight': { initial: '400', inherited: true },
    'letter-spacing': { initial: 'normal', inherited: true },
    'marker-end': { initial: 'none', inherited: true },
    'marker-mid': { initial: 'none', inherited: true },
    'marker-start': { initial: 'none', inherited: true },
    mask: { initial: 'none', inherited: false },
    'mask-type': { initial: 'luminance', inherited: false },
    'mix-blend-mode': { initial: 'normal', inherited: false },
    opacity: { initial: '1', inherited: false },
    overflow: { initial: 'hidden', inherited: false },
    'paint-order': { initial: 'normal', inherited: true },
    'stop-color': { initial: 'black', inherited: false },
    'stop-opacity': { initial: '1', inherited: false },
    stroke: { initial: 'none', inherited: true },
    'stroke-dasharray': { initial: 'none', inherited: true },
    'stroke-dashoffset': { initial: '0', inherited: true },
    'stroke-linecap': { initial: 'butt', inherited: true },
    'stroke-linejoin': { initial: 'miter', inherited: true },
    'stroke-miterlimit': { initial: '4', inherited: true },
    'stroke-opacity': { initial: '1', inherited: true },
    'stroke-width': { initial: '1', inherited: true },
    direction: { initial: 'ltr', inherited: true },
    'text-anchor': { initial: 'start', inherited: true },
    transform: { initial: 'none', inherited: false },
    'transform-origin': { initial: '0 0', inherited: false },
    'vector-effect': { initial: 'none', inherited: false },
    visibility: { initial: 'visible', inherited: true },
    ...Object.fromEntries(GEOMETRY.map((name) => [name, { initial: '', inherited: false }])),
  }),
);

export type ComputedStyle = Readonly<Record<string, string>>;

export const INITIAL_STYLE: ComputedStyle = Object.fromEntries([...PROPERTIES].map(([name, p]) => [name, p.initial]));

/**
 * The element's computed style: presentation attributes, then rules by specificity, then its own style attribute,
 * `!important` over all; what is not set is inherited from `parent` or initial.
 */
export function computeStyle(element: XmlElement, parent: ComputedStyle, { rules, own }: Styles): ComputedStyle {
  const declared = new Map<string, { value: string; weight: number }>();
  const declare = (property: string, value: string, weight: number) => {
    const before = declared.get(property);
    if (!before || weight >= before.weight) declared.set(property, { value, weight });
  };
  const declareAll = (declarations: readonly Declaration[], weight: number) => {
    for (const d of declarations) {
      const parts =
        d.property === 'font'
          ? fontShorthand(d.value)
          : d.property === 'marker'
            ? MARKERS.map((property) => [property, d.value] as const)
            : [];
      for (const [property, value] of parts) declare(property, value, d.important ? weight + IMPORTANT : weight);
      if (PROPERTIES.has(d.property)) declare(d.property, d.value, d.important ? weight + IMPORTANT : weight);
    }
  };
  for (const [name, value] of Object.entries(element.attributes))
    if (PROPERTIES.has(name)) declare(name, value.trim(), 0);
  for (const rule of rulesFor(element, rules))
    if (rule.matches(element)) declareAll(rule.declarations, 1 + rule.specificity);
  declareAll(own.get(element) ?? [], INLINE);

  const style: Record<string, string> = {};
  for (const [name, property] of PROPERTIES) {
    const value = declared.get(name)?.value;
    const takesParent = value === 'inherit' || ((value === undefined || value === 'unset') && property.inherited);
    style[name] = takesParent
      ? parent[name]!
      : value === undefined || value === 'initial' || value === 'unset'
        ? property.initial
        : value;
  }
  style['font-size'] = fontSizePx(style['font-size']!, parent['font-size']!);
  style['font-weight'] = fontWeight(style['font-weight']!, parent['font-weight']!);
  return style;
}

/** The style that an element passes on to those in it, wherever it is used: of what surrounds it in the document. */
export function styleWithin(element: XmlElement | null, styles: Styles): ComputedStyle {
  if (!element) return INITIAL_STYLE;
  let style = passedOn.get(element);
  if (!style) passedOn.set(element, (style = computeStyle(element, styleWithin(element.parent, styles), styles)));
  return style;
}

/** A marker stands on every corner of a path, and a clip is used by many: what surrounds them is the same each time. */
const passedOn = new WeakMap<XmlElement, ComputedStyle>();

/** An element's attributes, its size and place as its computed style has them. */
export function withCssGeometry({ attributes }: XmlElement, style: ComputedStyle): XmlElement['attributes'] {
  const said = GEOMETRY.flatMap((name) =>
    style[name] === '' || style[name] === 'auto' || style[name] === attributes[name]
      ? []
      : [[name, style[name]!] as const],
  );
  return said.length === 0 ? attributes : { ...attributes, ...Object.fromEntries(said) };
}

const SIZE_WORDS: ReadonlyMap<string, number> = new Map(
  Object.entries({ 'xx-small': 9, 'x-small': 10, small: 13, medium: 16, large: 18, 'x-large': 24, 'xx-large': 32 }),
);

/** A font size in px, whatever it was relative to. */
function fontSizePx(value: string, parent: string): string {
  const before = Number(parent) || 16;
  if (value === 'larger' || value === 'smaller') return String(value === 'larger' ? before * 1.2 : before / 1.2);
  return String(SIZE_WORDS.get(value) ?? parseSvgLength(value, before, before) ?? before);
}

/** A weight as a number, whatever word it was. */
function fontWeight(value: string, parent: string): string {
  const before = Number(parent) || 400;
  const words: ReadonlyMap<string, number> = new Map(
    Object.entries({
      normal: 400,
      bold: 700,
      bolder: before < 350 ? 400 : before < 550 ? 700 : 900,
      lighter: before < 550 ? 100 : before < 750 ? 400 : 700,
    }),
  );
  return String(words.get(value) ?? (Number(value) || 400));
}

/** What the `marker` shorthand stands for. */
const MARKERS = ['marker-start', 'marker-mid', 'marker-end'] as const;

/** Weight, size and family of the `font` shorthand. */
function fontShorthand(value: string): [string, string][] {
  const match = /(?:^|\s)(\d*\.?\d+(?:px|pt|pc|mm|cm|in|em|ex|%)?)(?:\s*\/\s*\S+)?\s+(.+)$/.exec(value);
  const weight = /(?:^|\s)(bold|[1-9]00)(?=\s|$)/.exec(value.slice(0, match?.index))?.[1];
  return match
    ? [
        ['font-weight', weight ?? '400'],
        ['font-size', match[1]!],
        ['font-family', match[2]!],
      ]
    : [];
}

const INLINE = 1e12;
const IMPORTANT = 1e13;

interface RuleIndex {
  readonly count: number;
  /** Places in the style sheets, by what an element must have; under null those that any element may match. */
  readonly byKey: ReadonlyMap<string | null, readonly number[]>;
}

const indexes = new WeakMap<readonly StyleRule[], RuleIndex>();

/** The rules that may match an element, in the order of the style sheets: thousands of rules against thousands of elements would take minutes. */
function rulesFor(element: XmlElement, rules: readonly StyleRule[]): readonly StyleRule[] {
  if (rules.length === 0) return rules;
  let index = indexes.get(rules);
  if (index?.count !== rules.length) {
    const byKey = new Map<string | null, number[]>();
    rules.forEach(({ key }, i) => {
      const list = byKey.get(key);
      if (list) list.push(i);
      else byKey.set(key, [i]);
    });
    index = { count: rules.length, byKey };
    indexes.set(rules, index);
  }
  const keys: (string | null)[] = [null, element.name, ...namesOf(element)];
  for (let outer = element.parent; outer; outer = outer.parent)
    for (const name of namesOf(outer)) keys.push(`^${name}`);
  const found = new Set(keys.flatMap((key) => index.byKey.get(key) ?? []));
  return [...found].sort((a, b) => a - b).map((i) => rules[i]!);
}

/** An element's id and classes as selectors name them. */
function namesOf({ attributes: { id, class: classes } }: XmlElement): string[] {
  return [
    ...(id === undefined ? [] : [`#${id}`]),
    ...(classes === undefined
      ? []
      : classes
          .split(/\s+/)
          .filter(Boolean)
          .map((name) => `.${name}`)),
  ];
}
