import { SaxesParser } from 'saxes';
import { Refusal } from '../refusal.js';

/** An element of the document as plain data. `content` is its text and its children in their order. */
export interface XmlElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: XmlElement[];
  readonly parent: XmlElement | null;
  readonly line: number;
  readonly content: (string | XmlElement)[];
}

/** An element's own character data, its children's excluded. */
export function ownText(element: XmlElement): string {
  return element.content.filter((part) => typeof part === 'string').join('');
}

/** Deeper nesting than any drawing program writes; the reader recurses, so it must end somewhere stated. */
const MAX_DEPTH = 800;
const MAX_ELEMENTS = 500_000;

/**
 * Parses bytes as XML. Entities that the drawing itself declares as plain text are read; none is fetched, and none may hold others, so that
 * they cannot multiply. Those that stay unknown are counted.
 * @throws Refusal `not-xml` with line and column, `too-deep`, or `too-many-elements`
 */
export function parseXml(bytes: Uint8Array, source: string): { root: XmlElement; unknownEntities: number } {
  const parser = new SaxesParser({ xmlns: false, position: true });
  let root: XmlElement | null = null;
  let current: XmlElement | null = null;
  let depth = 0;
  let count = 0;
  let unknownEntities = 0;
  // A drawing may call its own elements by a prefix.
  const prefixes = new Set(['svg']);

  parser.on('error', (error) => {
    if (/undefined entity/.test(error.message)) {
      unknownEntities += 1;
      return;
    }
    throw new Refusal(
      'not-xml',
      { reason: error.message.replace(/^\d+:\d+: /, '') },
      {
        source,
        path: `line ${parser.line}, column ${parser.column}`,
      },
    );
  });
  parser.on('doctype', (text) => {
    for (const [name, value] of harmlessEntities(text)) parser.ENTITIES[name] = value;
  });
  parser.on('opentag', (tag) => {
    depth += 1;
    count += 1;
    if (depth > MAX_DEPTH) {
      throw new Refusal('too-deep', { most: MAX_DEPTH }, { source, path: `line ${parser.line}` });
    }
    if (count > MAX_ELEMENTS) {
      throw new Refusal('too-many-elements', { most: MAX_ELEMENTS }, { source });
    }
    for (const [name, value] of Object.entries(tag.attributes))
      if (name.startsWith('xmlns:') && value === SVG_NAMESPACE) prefixes.add(name.slice(6));
    const element: XmlElement = {
      name: localName(tag.name, prefixes),
      attributes: tag.attributes as Record<string, string>,
      children: [],
      parent: current,
      line: parser.line,
      content: [],
    };
    if (current) {
      current.children.push(element);
      current.content.push(element);
    } else root = element;
    current = element;
  });
  const addText = (text: string) => {
    current?.content.push(text);
  };
  parser.on('text', addText);
  parser.on('cdata', addText);
  parser.on('closetag', () => {
    depth -= 1;
    current = current?.parent ?? null;
  });
  parser.write(decode(bytes)).close();
  if (!root) throw new Refusal('not-xml', { reason: null }, { source });
  return { root, unknownEntities };
}

const SVG_NAMESPACE = 'http://www.w3.org/2000/svg';

/** The name of an element of a drawing without its prefix; others keep theirs. */
function localName(name: string, prefixes: ReadonlySet<string>): string {
  const at = name.indexOf(':');
  return at > 0 && prefixes.has(name.slice(0, at)) ? name.slice(at + 1) : name;
}

/** More declarations than this, or longer ones, are no abbreviations. */
const MOST_ENTITIES = 200;
const LONGEST_ENTITY = 1000;

/** Entities of a document type that stand for plain text: no markup, no other entities. */
function harmlessEntities(doctype: string): [name: string, value: string][] {
  const found = [...doctype.matchAll(/<!ENTITY\s+([A-Za-z_][\w.-]*)\s+(?:"([^"]*)"|'([^']*)')\s*>/g)].map(
    (match): [string, string] => [match[1]!, match[2] ?? match[3] ?? ''],
  );
  return found
    .filter(([name, value]) => name !== '__proto__' && value.length <= LONGEST_ENTITY && !/[&<%]/.test(value))
    .slice(0, MOST_ENTITIES);
}

function decode(bytes: Uint8Array): string {
  const utf16 =
    bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : null;
  if (utf16) return new TextDecoder(utf16).decode(bytes);
  const head = String.fromCharCode(...bytes.subarray(0, 100));
  const stated = /encoding=["']([\w-]+)["']/.exec(head)?.[1]?.toLowerCase();
  try {
    return new TextDecoder(stated && !stated.startsWith('utf-16') ? stated : 'utf-8').decode(bytes);
  } catch {
    return new TextDecoder('utf-8').decode(bytes);
  }
}
