import { wayOf, type CutterProfile, type Film, type FilmPiece, type Shop } from '../../shop/index.js';
import { ruledFilm } from './ruled-film.js';

/**
 * What of the shop decided how a job is built, as it was when a sheet of it was first sent. From then on it is part of the job: what happens in the shop later voids nothing that
 * is cut. Plain data, kept with the sheet.
 */
export interface BuiltWith {
  /** How often the maker had taken the shop's newer films by then (`films.renewals`). */
  readonly renewals: number;
  /** The film of each colour, ruled or chosen. */
  readonly byColour: Readonly<Record<string, string>>;
  readonly films: readonly Film[];
  /** Pieces of these films: they say how wide a panel may be. */
  readonly pieces: readonly FilmPiece[];
  readonly cutter: Pick<CutterProfile, 'widthMm' | 'bladeOffsetMm' | 'repeatabilityMm'>;
}

/** Figures of a film by which layers, traps and marks are built. All others (its price, its settings, its name) are those of today. */
export const BUILD_FIGURES = [
  'family',
  'colour',
  'finish',
  'directional',
  'thicknessUm',
  'thinnestMm',
  'drawBackIndoorsMm',
  'drawBackSunMm',
  'shrinkPct',
  'takesOnTop',
  'mirrored',
  'opacityPct',
  'adhesive',
  'adhesiveColour',
] as const satisfies readonly (keyof Film)[];

/** A shop as a job is built with it: the films that it has are as they were, also those that are gone by now, which are offered for nothing else. */
export function shopAsBuilt(shop: Shop, built: BuiltWith | null): Shop {
  if (!built) return shop;
  const kept = new Map(built.films.map((film) => [film.id, film]));
  const films = shop.films.map((film) => {
    const was = kept.get(film.id);
    return was ? { ...film, ...Object.fromEntries(BUILD_FIGURES.map((figure) => [figure, was[figure]])) } : film;
  });
  const gone = built.films.filter(({ id }) => !shop.films.some((film) => film.id === id));
  return { ...shop, films: [...films, ...gone.map((film) => ({ ...film, retired: true }))] };
}

/** The pieces and the cutter by which a job is split into panels. */
export function panelsAsBuilt(
  { pieces, cutter }: Pick<Shop, 'pieces' | 'cutter'>,
  built: BuiltWith | null,
): { readonly pieces: readonly FilmPiece[]; readonly cutter: CutterProfile } {
  if (!built) return { pieces, cutter };
  const kept = new Set(built.films.map(({ id }) => id));
  return {
    pieces: [...built.pieces, ...pieces.filter(({ filmId }) => !kept.has(filmId))],
    cutter: { ...cutter, ...built.cutter },
  };
}

/** What a job was built with, of which it keeps what was decided at its newest renewal; null while nothing of that is cut. */
export function builtWithNow(all: readonly BuiltWith[] | undefined, renewals: number): BuiltWith | null {
  return all?.find((built) => built.renewals === renewals) ?? null;
}

/** How the shop differs by now from what a job was built with. */
export interface ShopDifference {
  readonly filmName: string;
  /** gone, retired: the film is; figures: those named are others; nearer: another film is nearer to a colour by now. */
  readonly what: 'gone' | 'retired' | 'figures' | 'nearer';
  readonly figures: readonly (typeof BUILD_FIGURES)[number][];
  readonly nearer: string | null;
}

/** Every way in which the shop as it is now would build a job in another way; `decided` are the films that the maker chose. */
export function shopDifferences(
  { films }: Pick<Shop, 'films'>,
  built: BuiltWith,
  decided: Readonly<Record<string, string>>,
): ShopDifference[] {
  const found: ShopDifference[] = [];
  for (const was of built.films) {
    const now = films.find(({ id }) => id === was.id);
    const figures = now ? BUILD_FIGURES.filter((figure) => now[figure] !== was[figure]) : [];
    if (!now) found.push({ filmName: was.name, what: 'gone', figures, nearer: null });
    else if (figures.length > 0) found.push({ filmName: now.name, what: 'figures', figures, nearer: null });
    else if (now.retired && !was.retired) found.push({ filmName: now.name, what: 'retired', figures, nearer: null });
  }
  for (const [colour, id] of Object.entries(built.byColour)) {
    const was = built.films.find((film) => film.id === id);
    if (decided[colour] !== undefined || !was) continue;
    const offered = films.filter((film) => !film.retired);
    const nearest = offered.length > 0 ? ruledFilm(colour, offered, wayOf(was)).film : was;
    const nearer = nearest.id === id || !films.some((film) => film.id === id && !film.retired) ? null : nearest;
    if (nearer) found.push({ filmName: was.name, what: 'nearer', figures: [], nearer: nearer.name });
  }
  return found;
}
