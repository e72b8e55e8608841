/** The files of the shipped fonts among the pages' own, by their place in the font packages. A test holds the list against the fonts. */
const FILES = import.meta.glob<string>(
  [
    '../../node_modules/@fontsource/{zilla-slab,arvo,cinzel,playfair-display,archivo,stardos-stencil,frank-ruhl-libre,manrope,cairo,comfortaa,rubik}/files/*-{latin,latin-ext,cyrillic,greek,hebrew,arabic}-700-normal.woff2',
    '../../node_modules/@fontsource/{work-sans,oswald,barlow-condensed,fredoka}/files/*-{latin,latin-ext,cyrillic,hebrew}-600-normal.woff2',
    '../../node_modules/@fontsource/nunito/files/*-{latin,latin-ext,cyrillic}-800-normal.woff2',
    '../../node_modules/@fontsource/{alfa-slab-one,bebas-neue,varela-round,pacifico,kaushan-script,courgette,saira-stencil-one}/files/*-{latin,latin-ext,cyrillic,hebrew}-400-normal.woff2',
    '../../node_modules/@expo-google-fonts/lobster/400Regular/*.ttf',
    '../../node_modules/@expo-google-fonts/great-vibes/400Regular/*.ttf',
    '../../node_modules/@expo-google-fonts/sansita-swashed/SansitaSwashed_700Bold.ttf',
  ],
  { query: '?url', import: 'default', eager: true },
);

/** Where the pages have a font's file; undefined when they have not. */
export function fontUrl(path: string): string | undefined {
  return FILES[`../../node_modules/${path}`];
}

/** A shipped font's file. @throws Error when it cannot be fetched */
export async function fetchFont(path: string): Promise<Uint8Array> {
  const response = await fetch(fontUrl(path)!);
  if (!response.ok) throw new Error(`The font ${path} could not be fetched.`);
  return new Uint8Array(await response.arrayBuffer());
}
