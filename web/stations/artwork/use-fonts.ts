import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import {
  scriptsIn,
  setsScriptsOf,
  shippedFont,
  SHIPPED_FONTS,
  type OtherScript,
  type ShippedFont,
} from '../../../core/engines/artwork/index.js';
import type { Source } from '../../../core/stations/artwork/index.js';
import { ApiProblem, ask } from '../../api/client.js';
import { fontUrl } from '../../plan/font-files.js';
import { useNotify } from '../../ui/notices.js';

/** A font that a lettering can be set in. */
export interface FontChoice {
  readonly id: string;
  readonly name: string;
  readonly style: string;
  /** Its file, when the shop added it. */
  readonly source: Source | null;
  /** The name under which the page shows samples of it. */
  readonly face: string;
}

interface OwnFont {
  readonly name: string;
  readonly source: Source;
}

/** All fonts, the shop's own first, and a way to add one. */
export function useFonts(): {
  readonly fonts: readonly FontChoice[];
  readonly add: (file: File) => Promise<FontChoice | null>;
} {
  const client = useQueryClient();
  const notify = useNotify();
  const own =
    useQuery({ queryKey: ['fonts'], queryFn: () => ask<OwnFont[]>('/api/fonts'), staleTime: Infinity }).data ?? [];
  const choice = ({ name, source }: OwnFont): FontChoice => ({
    id: `own:${source.id}`,
    name,
    style: 'your own',
    source,
    face: `lettering ${source.id}`,
  });
  const shipped = SHIPPED_FONTS.map(({ id, name, style }): FontChoice => ({
    id,
    name,
    style,
    source: null,
    face: `lettering ${id}`,
  }));
  return {
    fonts: [...own.map(choice), ...shipped],
    add: async (file) => {
      try {
        const font = await ask<OwnFont>(`/api/fonts?fileName=${encodeURIComponent(file.name.slice(0, 200))}`, {
          method: 'POST',
          bytes: file,
        });
        await client.invalidateQueries({ queryKey: ['fonts'] });
        return choice(font);
      } catch (error) {
        notify(error instanceof ApiProblem ? error.message : 'The font could not be added.');
        return null;
      }
    },
  };
}

/** Files of fonts that the page has or is fetching for samples, by their address; each is fetched once. */
const fetched = new Map<string, Promise<void>>();
const ready = new Set<string>();

/** Has the page fetch what of a font some words are shown in; says when it has. */
export function useSample(font: FontChoice, words: string): boolean {
  const scripts = scriptsIn(words);
  const urls = font.source
    ? [`/api/artworks/${font.source.id}`]
    : sampleFiles(shippedFont(font.id)!, scripts).map((path) => fontUrl(path)!);
  const wanted = urls.join(' ');
  const [, setAsked] = useState('');
  useEffect(() => {
    let current = true;
    // Without its letters the name stands in the page's own.
    void Promise.allSettled(wanted.split(' ').map((url) => fetchFace(font.face, url))).then(
      () => current && setAsked(wanted),
    );
    return () => {
      current = false;
    };
  }, [font.face, wanted]);
  return urls.every((url) => ready.has(url));
}

/** The file of the latin letters, and those of some scripts. */
function sampleFiles({ files }: ShippedFont, scripts: readonly OtherScript[]): string[] {
  return files.filter((file, i) => i === 0 || scripts.some((script) => file.includes(`-${script}-`)));
}

function fetchFace(name: string, url: string): Promise<void> {
  let face = fetched.get(url);
  if (!face) {
    face = new FontFace(name, `url("${url}")`).load().then((loaded) => {
      document.fonts.add(loaded);
      ready.add(url);
    });
    fetched.set(url, face);
    // A fetch that failed is tried again next time.
    face.catch(() => fetched.delete(url));
  }
  return face;
}

/** Whether a font has the letters of a text, as far as can be said of it: of a font of the shop's own nothing is known. */
export function canSet(font: FontChoice, text: string): boolean {
  return font.source !== null || setsScriptsOf(shippedFont(font.id)!, text);
}
