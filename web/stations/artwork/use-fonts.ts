import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { SHIPPED_FONTS } from '../../../core/engines/artwork/index.js';
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
export function useFonts(): { readonly fonts: readonly FontChoice[]; readonly add: (file: File) => Promise<FontChoice | null> } {
  const client = useQueryClient();
  const notify = useNotify();
  const own = useQuery({ queryKey: ['fonts'], queryFn: () => ask<OwnFont[]>('/api/fonts'), staleTime: Infinity }).data ?? [];
  const choice = ({ name, source }: OwnFont): FontChoice => ({ id: `own:${source.id}`, name, style: 'your own', source, face: `lettering ${source.id}` });
  const shipped = SHIPPED_FONTS.map(({ id, name, style }): FontChoice => ({ id, name, style, source: null, face: `lettering ${id}` }));
  return {
    fonts: [...own.map(choice), ...shipped],
    add: async (file) => {
      try {
        const font = await ask<OwnFont>(`/api/fonts?fileName=${encodeURIComponent(file.name.slice(0, 200))}`, { method: 'POST', bytes: file });
        await client.invalidateQueries({ queryKey: ['fonts'] });
        return choice(font);
      } catch (error) {
        notify(error instanceof ApiProblem ? error.message : 'The font could not be added.');
        return null;
      }
    },
  };
}

/** Fonts that the page was asked to show samples in; each is fetched once. */
const asked = new Set<string>();

/** Has the page fetch a font so that its name can be shown in it; says when it has. */
export function useSample(font: FontChoice, wanted: boolean): boolean {
  const [ready, setReady] = useState(() => document.fonts.check(`16px "${font.face}"`) && asked.has(font.face));
  useEffect(() => {
    if (!wanted || ready) return undefined;
    let current = true;
    const url = font.source ? `/api/artworks/${font.source.id}` : fontUrl(SHIPPED_FONTS.find((shipped) => shipped.id === font.id)!.files[0]!)!;
    const face = new FontFace(font.face, `url("${url}")`);
    face.load().then(
      (loaded) => {
        if (!asked.has(font.face)) document.fonts.add(loaded);
        asked.add(font.face);
        if (current) setReady(true);
      },
      // Without it the name stands in the page's own letters.
      () => undefined,
    );
    return () => {
      current = false;
    };
  }, [font, wanted, ready]);
  return ready;
}
