/** A font that comes with the application. Files are paths in font packages; later ones fill in letters the first has not. */
export interface ShippedFont {
  readonly id: string;
  readonly name: string;
  readonly style: 'slab' | 'roman' | 'grotesque' | 'condensed' | 'rounded' | 'script' | 'stencil';
  readonly weight: number;
  readonly files: readonly string[];
  /** The scripts it has beside the Latin one. */
  readonly scripts: readonly OtherScript[];
}

/** Scripts that some fonts have and others have not, by the name of their part in a font's package. */
export type OtherScript = 'cyrillic' | 'greek' | 'hebrew' | 'arabic';

/** A font whose package has it in parts: the latin and the extended latin one, and those of other scripts. */
function inParts(
  id: string,
  weight: number,
  ...scripts: readonly OtherScript[]
): Pick<ShippedFont, 'files' | 'scripts'> {
  return {
    files: ['latin', 'latin-ext', ...scripts].map(
      (part) => `@fontsource/${id}/files/${id}-${part}-${weight}-normal.woff2`,
    ),
    scripts,
  };
}

function onePart(id: string, weight: number): Pick<ShippedFont, 'files' | 'scripts'> {
  return { files: inParts(id, weight).files.slice(0, 1), scripts: [] };
}

/** Fonts under the SIL Open Font License that sign makers have a use for (docs/fonts.md); the first is what a new lettering is set in. */
export const SHIPPED_FONTS: readonly ShippedFont[] = [
  { id: 'zilla-slab', name: 'Zilla Slab', style: 'slab', weight: 700, ...inParts('zilla-slab', 700) },
  { id: 'alfa-slab-one', name: 'Alfa Slab One', style: 'slab', weight: 400, ...inParts('alfa-slab-one', 400) },
  { id: 'arvo', name: 'Arvo', style: 'slab', weight: 700, ...onePart('arvo', 700) },
  { id: 'cinzel', name: 'Cinzel', style: 'roman', weight: 700, ...inParts('cinzel', 700) },
  {
    id: 'playfair-display',
    name: 'Playfair Display',
    style: 'roman',
    weight: 700,
    ...inParts('playfair-display', 700, 'cyrillic'),
  },
  {
    id: 'frank-ruhl-libre',
    name: 'Frank Ruhl Libre',
    style: 'roman',
    weight: 700,
    ...inParts('frank-ruhl-libre', 700, 'hebrew'),
  },
  { id: 'archivo', name: 'Archivo', style: 'grotesque', weight: 700, ...inParts('archivo', 700) },
  { id: 'work-sans', name: 'Work Sans', style: 'grotesque', weight: 600, ...inParts('work-sans', 600) },
  { id: 'manrope', name: 'Manrope', style: 'grotesque', weight: 700, ...inParts('manrope', 700, 'cyrillic', 'greek') },
  { id: 'cairo', name: 'Cairo', style: 'grotesque', weight: 700, ...inParts('cairo', 700, 'arabic') },
  { id: 'oswald', name: 'Oswald', style: 'condensed', weight: 600, ...inParts('oswald', 600, 'cyrillic') },
  { id: 'bebas-neue', name: 'Bebas Neue', style: 'condensed', weight: 400, ...inParts('bebas-neue', 400) },
  {
    id: 'barlow-condensed',
    name: 'Barlow Condensed',
    style: 'condensed',
    weight: 600,
    ...inParts('barlow-condensed', 600),
  },
  {
    id: 'varela-round',
    name: 'Varela Round',
    style: 'rounded',
    weight: 400,
    ...inParts('varela-round', 400, 'hebrew'),
  },
  { id: 'fredoka', name: 'Fredoka', style: 'rounded', weight: 600, ...inParts('fredoka', 600, 'hebrew') },
  {
    id: 'comfortaa',
    name: 'Comfortaa',
    style: 'rounded',
    weight: 700,
    ...inParts('comfortaa', 700, 'cyrillic', 'greek'),
  },
  {
    id: 'rubik',
    name: 'Rubik',
    style: 'rounded',
    weight: 700,
    ...inParts('rubik', 700, 'cyrillic', 'hebrew', 'arabic'),
  },
  { id: 'nunito', name: 'Nunito', style: 'rounded', weight: 800, ...inParts('nunito', 800, 'cyrillic') },
  { id: 'pacifico', name: 'Pacifico', style: 'script', weight: 400, ...inParts('pacifico', 400, 'cyrillic') },
  {
    id: 'lobster',
    name: 'Lobster',
    style: 'script',
    weight: 400,
    files: ['@expo-google-fonts/lobster/400Regular/Lobster_400Regular.ttf'],
    scripts: ['cyrillic'],
  },
  { id: 'kaushan-script', name: 'Kaushan Script', style: 'script', weight: 400, ...inParts('kaushan-script', 400) },
  { id: 'courgette', name: 'Courgette', style: 'script', weight: 400, ...inParts('courgette', 400) },
  {
    id: 'great-vibes',
    name: 'Great Vibes',
    style: 'script',
    weight: 400,
    files: ['@expo-google-fonts/great-vibes/400Regular/GreatVibes_400Regular.ttf'],
    scripts: ['cyrillic'],
  },
  {
    id: 'sansita-swashed',
    name: 'Sansita Swashed',
    style: 'script',
    weight: 700,
    files: ['@expo-google-fonts/sansita-swashed/SansitaSwashed_700Bold.ttf'],
    scripts: [],
  },
  { id: 'stardos-stencil', name: 'Stardos Stencil', style: 'stencil', weight: 700, ...onePart('stardos-stencil', 700) },
  {
    id: 'saira-stencil-one',
    name: 'Saira Stencil One',
    style: 'stencil',
    weight: 400,
    ...inParts('saira-stencil-one', 400),
  },
];

/** The shipped font of an id; undefined when there is none. */
export function shippedFont(id: string): ShippedFont | undefined {
  return SHIPPED_FONTS.find((font) => font.id === id);
}

/** The shipped font of a family's name as a drawing writes it, or null. */
export function shippedFontCalled(family: string): ShippedFont | null {
  const plain = (name: string) => name.toLowerCase().replace(/[^a-z0-9]/g, '');
  return SHIPPED_FONTS.find((font) => plain(font.name) === plain(family) || plain(font.id) === plain(family)) ?? null;
}
