import { describe, expect, it } from 'vitest';
import { seeded } from '../../../testing/seeded.js';
import { cssReader } from './css.js';
import { computeStyle, INITIAL_STYLE, type ComputedStyle } from './style.js';
import { parseXml, type XmlElement } from './xml.js';

const NAMES = ['g', 'rect', 'path', 'circle'];
const pick = <T>(random: () => number, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

/** A tree of elements with ids and classes from a small pool, so that rules meet them often. */
function tree(random: () => number, depth = 0): string {
  const name = depth < 3 && random() < 0.6 ? 'g' : pick(random, NAMES);
  const children =
    name === 'g' && depth < 4
      ? Array.from({ length: 1 + Math.floor(random() * 4) }, () => tree(random, depth + 1)).join('')
      : '';
  return `<${name}${random() < 0.3 ? ` id="i${Math.floor(random() * 6)}"` : ''}${random() < 0.5 ? ` class="${Array.from({ length: 1 + Math.floor(random() * 2) }, () => `c${Math.floor(random() * 5)}`).join(' ')}"` : ''}>${children}</${name}>`;
}

function sheet(random: () => number): string {
  const part = () =>
    pick(random, [
      () => pick(random, NAMES),
      () => '*',
      () => `.c${Math.floor(random() * 5)}`,
      () => `#i${Math.floor(random() * 6)}`,
      () => `${pick(random, NAMES)}.c${Math.floor(random() * 5)}`,
      () => `:not(.c${Math.floor(random() * 5)})`,
      () => '[class]',
    ])();
  const selector = () =>
    Array.from({ length: 1 + Math.floor(random() * 3) }, part).reduce(
      (left, right) => left + pick(random, [' ', ' > ', ' + ', ' ~ ']) + right,
    );
  return Array.from(
    { length: 40 },
    (_, i) => `${selector()}${random() < 0.3 ? `, ${selector()}` : ''} { fill: #${String(i).padStart(6, '0')} }`,
  ).join('\n');
}

describe('rules looked up by what an element must have', () => {
  it.each(Array.from({ length: 40 }, (_, seed) => seed))(
    'are the same as all rules tried one by one, seed %i',
    (seed) => {
      const random = seeded(900 + seed);
      const { root } = parseXml(new TextEncoder().encode(`<svg>${tree(random)}${tree(random)}</svg>`), 'a.svg');
      const rules = cssReader.styleSheet(sheet(random), () => undefined);
      const all = rules.map((rule) => ({ ...rule, key: null }));
      const own = new Map<XmlElement, never>();
      const compare = (element: XmlElement, parent: ComputedStyle) => {
        const found = computeStyle(element, parent, { rules, own });
        expect(found).toEqual(computeStyle(element, parent, { rules: all, own }));
        for (const child of element.children) compare(child, found);
      };
      compare(root, INITIAL_STYLE);
    },
  );
});
