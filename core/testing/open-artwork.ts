import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

const require = createRequire(import.meta.url);

export interface OpenArtwork {
  readonly name: string;
  readonly svg: string;
}

interface IconSet {
  readonly icons: Readonly<
    Record<string, { readonly body: string; readonly width?: number; readonly height?: number }>
  >;
  readonly width?: number;
  readonly height?: number;
}

const ICON_SETS = ['emojione', 'fxemoji', 'streamline-emojis', 'noto-v1'] as const;

/** About `perSet` drawings of each of the five open sets, spread evenly over it; `offset` picks others. */
export function openArtwork(perSet: number, offset = 0): OpenArtwork[] {
  return [...flags(perSet, offset), ...ICON_SETS.flatMap((set) => icons(set, perSet, offset))];
}

function flags(count: number, offset: number): OpenArtwork[] {
  const folder = join(dirname(require.resolve('svg-country-flags/package.json')), 'svg');
  const files = readdirSync(folder).filter((file) => file.endsWith('.svg'));
  return spread(files, count, offset).map((file) => ({
    name: `flags/${file}`,
    svg: readFileSync(join(folder, file), 'utf8'),
  }));
}

function icons(set: string, count: number, offset: number): OpenArtwork[] {
  const data = JSON.parse(readFileSync(require.resolve(`@iconify-json/${set}/icons.json`), 'utf8')) as IconSet;
  return spread(Object.keys(data.icons), count, offset).map((name) => {
    const icon = data.icons[name]!;
    const [width, height] = [icon.width ?? data.width ?? 16, icon.height ?? data.height ?? 16];
    return {
      name: `${set}/${name}`,
      svg: `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 ${width} ${height}">${icon.body}</svg>`,
    };
  });
}

function spread<T>(list: readonly T[], count: number, offset: number): T[] {
  const step = list.length / count;
  return Array.from(
    { length: Math.min(count, list.length) },
    (_, i) => list[Math.floor(i * step + offset) % list.length]!,
  );
}
