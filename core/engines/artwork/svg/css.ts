import { compile } from 'css-select';
import type { CssNode } from 'css-tree';
// The parts that are used, and not the whole with its dictionary of all properties: the page loads this too.
import parse from 'css-tree/parser';
import walk from 'css-tree/walker';
import type { CssReader, Declaration, StyleRule } from './style-rules.js';
import { ownText, type XmlElement } from './xml.js';

function parseDeclarations(text: string): Declaration[] {
  const found: Declaration[] = [];
  const tree = parse(text, { context: 'declarationList', parseValue: false, onParseError: () => undefined });
  walk(tree, (node) => collect(node, found));
  return found;
}

/** At-rules are skipped: a cut has one medium and no animation. */
function parseStyleSheet(text: string, onSkipped: (what: string) => void): StyleRule[] {
  const rules: StyleRule[] = [];
  // With places, so that what is said and matched is the text itself.
  const tree = parse(text, { parseValue: false, positions: true, onParseError: () => undefined });
  const textOf = ({ loc }: CssNode) => (loc ? text.slice(loc.start.offset, loc.end.offset) : '');
  walk(tree, {
    enter(this: { atrule: unknown }, node: CssNode) {
      if (node.type === 'Atrule') onSkipped(`@${node.name}`);
      if (node.type !== 'Rule' || this.atrule) return;
      const declarations: Declaration[] = [];
      walk(node.block, (inner) => collect(inner, declarations));
      if (node.prelude.type !== 'SelectorList') {
        onSkipped(textOf(node.prelude));
        return;
      }
      node.prelude.children.forEach((selector) => {
        const source = textOf(selector);
        try {
          const test = compile<XmlElement, XmlElement>(source, { xmlMode: true, adapter: ADAPTER });
          rules.push({ matches: test, key: keyOf(selector), specificity: specificityOf(selector), declarations });
        } catch {
          onSkipped(source);
        }
      });
    },
  });
  return rules;
}

function collect(node: CssNode, into: Declaration[]): void {
  if (node.type !== 'Declaration') return;
  into.push({
    property: node.property.toLowerCase(),
    value: node.value.type === 'Raw' ? node.value.value.trim() : '',
    important: node.important !== false,
  });
}

/** The narrowest thing that the element itself must have, or one that it lies in, from the parts of its selector. */
function keyOf(selector: CssNode): string | null {
  const parts = selector.type === 'Selector' ? selector.children.toArray() : [];
  const last = parts.findLastIndex((part) => part.type === 'Combinator');
  const own = namesIn(parts.slice(last + 1));
  if (own.narrow) return own.narrow;
  // Beside it there may be others; only what it lies in is looked up.
  const isWithin = parts.every((part) => part.type !== 'Combinator' || part.name === ' ' || part.name === '>');
  const outer = isWithin ? namesIn(parts.slice(0, Math.max(0, last))).narrow : null;
  return outer ? `^${outer}` : own.name;
}

function namesIn(parts: readonly CssNode[]): { readonly narrow: string | null; readonly name: string | null } {
  const of = (type: CssNode['type']) =>
    (parts.find((part) => part.type === type) as { readonly name: string } | undefined)?.name;
  const [id, className, name] = [of('IdSelector'), of('ClassSelector'), of('TypeSelector')];
  return {
    narrow: id !== undefined ? `#${id}` : className !== undefined ? `.${className}` : null,
    name: name !== undefined && name !== '*' && !name.includes('|') ? name : null,
  };
}

/** (ids, classes and attributes, types) packed into one number that sorts as the cascade does. */
function specificityOf(selector: CssNode): number {
  let sum = 0;
  walk(selector, (node) => {
    if (node.type === 'IdSelector') sum += 1_000_000;
    else if (node.type === 'ClassSelector' || node.type === 'AttributeSelector' || node.type === 'PseudoClassSelector')
      sum += 1_000;
    else if (node.type === 'TypeSelector' && node.name !== '*') sum += 1;
  });
  return sum;
}

const ADAPTER = {
  isTag: (_node: XmlElement): _node is XmlElement => true,
  getAttributeValue: (element: XmlElement, name: string) => element.attributes[name],
  getChildren: (element: XmlElement) => element.children,
  getName: (element: XmlElement) => element.name,
  getParent: (element: XmlElement) => element.parent,
  getSiblings: (element: XmlElement) => element.parent?.children ?? [element],
  getText: ownText,
  hasAttrib: (element: XmlElement, name: string) => name in element.attributes,
  removeSubsets: (elements: XmlElement[]) => elements,
};

export const cssReader: CssReader = { declarations: parseDeclarations, styleSheet: parseStyleSheet };
