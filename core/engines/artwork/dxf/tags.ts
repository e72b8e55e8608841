import { Refusal } from '../refusal.js';

/** A group of a DXF file: its code says what the value means. */
export interface Tag {
  readonly code: number;
  readonly value: string;
}

/** One entity, table entry or block head: its type (group 0) and the groups that follow. */
export interface Entity {
  readonly type: string;
  readonly tags: readonly Tag[];
}

/** What of a DXF file matters here. */
export interface DxfFile {
  readonly header: ReadonlyMap<string, string>;
  readonly layers: ReadonlyMap<string, Entity>;
  readonly blocks: ReadonlyMap<
    string,
    { readonly base: readonly [number, number]; readonly entities: readonly Entity[] }
  >;
  readonly entities: readonly Entity[];
}

/** More groups than this are no drawing for a blade. */
const MAX_TAGS = 6_000_000;

/**
 * Reads the sections of an ASCII DXF file (R12 to 2018).
 * @throws Refusal `dxf-binary`, `not-dxf` (with the line) or `dxf-no-entities`
 */
export function parseDxf(bytes: Uint8Array, source: string): DxfFile {
  const text = new TextDecoder('utf-8').decode(bytes);
  if (text.startsWith('AutoCAD Binary DXF')) throw new Refusal('dxf-binary', {}, { source });
  const lines = text.split(/\r\n|\r|\n/);
  const header = new Map<string, string>();
  const layers = new Map<string, Entity>();
  const blocks = new Map<string, { base: readonly [number, number]; entities: Entity[] }>();
  const entities: Entity[] = [];
  let section = '';
  let hasEntities = false;
  let variable = '';
  let block: Entity[] | null = null;
  let tags: Tag[] = [];
  let into: Entity[] | null = null;
  let type = '';
  const finish = () => {
    if (type === '') return;
    const entity = { type, tags };
    const name = textOf(entity, 2);
    if (section === 'TABLES' && type === 'LAYER') layers.set(name.toUpperCase(), entity);
    if (section === 'BLOCKS' && type === 'BLOCK')
      blocks.set(name.toUpperCase(), { base: [numberOf(entity, 10), numberOf(entity, 20)], entities: (block = []) });
    else if (section === 'BLOCKS' && type !== 'ENDBLK') block?.push(entity);
    else into?.push(entity);
    type = '';
  };
  for (let i = 0; i + 1 < lines.length; i += 2) {
    const code = Number(lines[i]!.trim());
    if (!Number.isInteger(code) || lines[i]!.trim() === '')
      throw new Refusal(
        'not-dxf',
        { line: i + 1, got: lines[i]!.trim().slice(0, 40) },
        { source, path: `line ${i + 1}` },
      );
    if (i / 2 > MAX_TAGS) throw new Refusal('dxf-too-large', { most: MAX_TAGS }, { source });
    const value = lines[i + 1]!.trim();
    if (code === 0) {
      finish();
      if (value === 'EOF') break;
      tags = [];
      type = value === 'SECTION' || value === 'ENDSEC' || value === 'TABLE' || value === 'ENDTAB' ? '' : value;
      if (value === 'ENDSEC') section = '';
      if (value === 'SECTION') variable = '';
      continue;
    }
    if (code === 2 && type === '' && section === '') {
      section = value;
      hasEntities ||= value === 'ENTITIES';
      into = value === 'ENTITIES' ? entities : null;
    } else if (section === 'HEADER') {
      if (code === 9) variable = value;
      else if (!header.has(variable)) header.set(variable, value);
    } else tags.push({ code, value });
  }
  finish();
  if (!hasEntities) throw new Refusal('dxf-no-entities', {}, { source });
  return { header, layers, blocks, entities };
}

/** The first value of a group code as a number; `otherwise` when it is missing or none. */
export function numberOf(entity: Entity, code: number, otherwise = 0): number {
  const tag = entity.tags.find((t) => t.code === code);
  const value = tag ? Number(tag.value) : NaN;
  return Number.isFinite(value) ? value : otherwise;
}

export function textOf(entity: Entity, code: number): string {
  return entity.tags.find((t) => t.code === code)?.value ?? '';
}

/** All values of a group code, in order; what is no number is left out. */
export function numbersOf(entity: Entity, code: number): number[] {
  return entity.tags
    .filter((t) => t.code === code)
    .map((t) => Number(t.value))
    .filter(Number.isFinite);
}
