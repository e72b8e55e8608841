/** A font that comes with the application. Files are paths in font packages; later ones fill in letters the first has not. */
export interface ShippedFont {
  readonly id: string;
  readonly name: string;
  readonly style: 'slab' | 'roman' | 'grotesque' | 'condensed' | 'rounded' | 'script' | 'stencil';
  readonly weight: number;
  readonly files: readonly string[];
}

/** Package folder of the latin and the extended latin part of a font. */
function twoParts(id: string, weight: number): string[] {
  return ['latin', 'latin-ext'].map((part) => `@fontsource/${id}/files/${id}-${part}-${weight}-normal.woff2`);
}

function onePart(id: string, weight: number): string[] {
  return twoParts(id, weight).slice(0, 1);
}

/** Fonts under the SIL Open Font License that sign makers have a use for (docs/fonts.md); the first is what a new lettering is set in. */
export const SHIPPED_FONTS: readonly ShippedFont[] = [
  { id: 'zilla-slab', name: 'Zilla Slab', style: 'slab', weight: 700, files: twoParts('zilla-slab', 700) },
  { id: 'alfa-slab-one', name: 'Alfa Slab One', style: 'slab', weight: 400, files: twoParts('alfa-slab-one', 400) },
  { id: 'arvo', name: 'Arvo', style: 'slab', weight: 700, files: onePart('arvo', 700) },
  { id: 'cinzel', name: 'Cinzel', style: 'roman', weight: 700, files: twoParts('cinzel', 700) },
  { id: 'playfair-display', name: 'Playfair Display', style: 'roman', weight: 700, files: twoParts('playfair-display', 700) },
  { id: 'archivo', name: 'Archivo', style: 'grotesque', weight: 700, files: twoParts('archivo', 700) },
  { id: 'work-sans', name: 'Work Sans', style: 'grotesque', weight: 600, files: twoParts('work-sans', 600) },
  { id: 'oswald', name: 'Oswald', style: 'condensed', weight: 600, files: twoParts('oswald', 600) },
  { id: 'bebas-neue', name: 'Bebas Neue', style: 'condensed', weight: 400, files: twoParts('bebas-neue', 400) },
  { id: 'barlow-condensed', name: 'Barlow Condensed', style: 'condensed', weight: 600, files: twoParts('barlow-condensed', 600) },
  { id: 'varela-round', name: 'Varela Round', style: 'rounded', weight: 400, files: twoParts('varela-round', 400) },
  { id: 'fredoka', name: 'Fredoka', style: 'rounded', weight: 600, files: twoParts('fredoka', 600) },
  { id: 'nunito', name: 'Nunito', style: 'rounded', weight: 800, files: twoParts('nunito', 800) },
  { id: 'pacifico', name: 'Pacifico', style: 'script', weight: 400, files: twoParts('pacifico', 400) },
  { id: 'lobster', name: 'Lobster', style: 'script', weight: 400, files: ['@expo-google-fonts/lobster/400Regular/Lobster_400Regular.ttf'] },
  { id: 'kaushan-script', name: 'Kaushan Script', style: 'script', weight: 400, files: twoParts('kaushan-script', 400) },
  { id: 'courgette', name: 'Courgette', style: 'script', weight: 400, files: twoParts('courgette', 400) },
  { id: 'great-vibes', name: 'Great Vibes', style: 'script', weight: 400, files: ['@expo-google-fonts/great-vibes/400Regular/GreatVibes_400Regular.ttf'] },
  { id: 'sansita-swashed', name: 'Sansita Swashed', style: 'script', weight: 700, files: ['@expo-google-fonts/sansita-swashed/SansitaSwashed_700Bold.ttf'] },
  { id: 'stardos-stencil', name: 'Stardos Stencil', style: 'stencil', weight: 700, files: onePart('stardos-stencil', 700) },
  { id: 'saira-stencil-one', name: 'Saira Stencil One', style: 'stencil', weight: 400, files: twoParts('saira-stencil-one', 400) },
];

/** The shipped font of a family's name as a drawing writes it, or null. */
export function shippedFontCalled(family: string): ShippedFont | null {
  const plain = (name: string) => name.toLowerCase().replace(/[^a-z0-9]/g, '');
  return SHIPPED_FONTS.find((font) => plain(font.name) === plain(family) || plain(font.id) === plain(family)) ?? null;
}
