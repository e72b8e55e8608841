import { colourDifference, type PaintedRegion } from '../../artwork/index.js';
import { areaOf, countPieces } from '../../geometry/index.js';
import { BARE, separate } from '../../layers/index.js';
import { FILM_FAMILIES, type Film } from '../film.js';
import type { Finding } from '../finding.js';
import type { Recipe } from '../recipe.js';
import type { Ruling } from '../ruling.js';
import type { ColourUse, FilmsStage } from './plan.js';

/** Above this the eye sees another colour, and the maker is told. */
const FAR_COLOUR = 10;
/** Films nearer to each other than this may stand for one another (CIEDE2000). */
const NEAR_FILMS = 14;

/** Every colour found, what shows of it, and its film: the maker's choice, or the nearest in stock by CIEDE2000. */
export function filmsStage(regions: readonly PaintedRegion[], { films: decisions }: Pick<Recipe, 'films'>, stock: readonly Film[]): FilmsStage {
  // The first film that the maker chose says how the job is made to stick.
  const first = Object.values(decisions.byColour).flatMap((id) => stock.find((film) => film.id === id) ?? [])[0];
  const way = first ? wayOf(first) : 'adhesive';
  const separation = separate(regions.map((region) => ({ layer: region.colour, rings: region.rings })));
  const findings: Finding[] = [];
  const rulings: Ruling[] = [];
  const colours: ColourUse[] = separation.layers.filter(({ key }) => key !== BARE).map(({ key: colour, visible }) => {
    const nearest = nearestFilm(colour, stock, way);
    const chosen = stock.find((film) => film.id === decisions.byColour[colour]);
    if (decisions.byColour[colour] !== undefined && !chosen) {
      findings.push({
        code: 'film-unknown',
        severity: 'warning',
        stage: 'films',
        message: `The film chosen for ${colour} is no longer in stock; ${nearest.name} stands in for it.`,
      });
    }
    const film = chosen ?? nearest;
    const difference = colourDifference(colour, film.colour);
    if (!chosen && difference > FAR_COLOUR) {
      findings.push({
        code: 'colour-far',
        severity: 'warning',
        stage: 'films',
        message: `No film in stock is near ${colour}: ${film.name} differs by ${difference.toFixed(0)}, which anyone will see.`,
      });
    }
    rulings.push({
      id: `films.${colour}`,
      stage: 'films',
      subject: `Film for ${colour}`,
      sentence: `${colour} is cut from {value}.`,
      value: film.name,
      unit: '',
      because: chosen
        ? ['You chose it.', `Its colour differs by ${difference.toFixed(1)} (CIEDE2000).`]
        : [
            `It is the nearest colour in stock: they differ by ${difference.toFixed(1)} (CIEDE2000; about 1 can just be seen; docs/films.md).`,
            ...(first && way !== 'adhesive' ? [`Films put on like ${first.name}, which you chose, were preferred.`] : []),
          ],
      overridden: chosen !== undefined && chosen.id !== nearest.id,
      proposed: nearest.name,
    });
    const { pieces } = countPieces(visible);
    return { colour, areaMm2: areaOf(visible), pieces, film, difference, chosen: chosen !== undefined, others: othersNear(colour, film, stock) };
  });
  findings.push(...fewerFilms(colours, decisions.byColour), ...mixedWays(colours));
  const shared = sharedFilms(colours);
  for (const [film, group] of shared) {
    rulings.push({
      id: `films.join.${film.id}`,
      stage: 'films',
      subject: `Colours on ${film.name}`,
      sentence: `${group.map((use) => use.colour).join(' and ')} are joined into one layer of {value}.`,
      value: film.name,
      unit: '',
      because: ['They are cut from one film: one sheet and one alignment fewer, and no cut between them.'],
    });
  }
  return { colours: [...colours].sort((a, b) => b.areaMm2 - a.areaMm2), byColour: separation, findings, rulings };
}

/** So many other films are offered for a colour. */
const OTHERS = 4;

function othersNear(colour: string, film: Film, stock: readonly Film[]): ColourUse['others'] {
  const others = stock.filter((other) => other !== film).map((other) => ({ film: other, difference: colourDifference(colour, other.colour) }));
  return others.sort((a, b) => a.difference - b.difference).slice(0, OTHERS);
}

/** Films so near to each other that one may do for both: a sheet and an alignment fewer. The smaller gives way. */
function fewerFilms(colours: readonly ColourUse[], byColour: Recipe['films']['byColour']): Finding[] {
  const found: Finding[] = [];
  colours.forEach((one, i) => {
    for (const other of colours.slice(i + 1)) {
      if (one.film === other.film || one.film.finish !== other.film.finish || wayOf(one.film) !== wayOf(other.film)) continue;
      const apart = colourDifference(one.film.colour, other.film.colour);
      if (apart > NEAR_FILMS) continue;
      const [large, small] = one.areaMm2 >= other.areaMm2 ? [one, other] : [other, one];
      found.push({
        code: 'fewer-films',
        severity: 'note',
        stage: 'films',
        message: `${small.film.name} and ${large.film.name} differ by ${apart.toFixed(1)}: one film for both is one sheet fewer, and one alignment fewer.`,
        remedies: [{ label: `Cut both from ${large.film.name}`, patch: { films: { byColour: { ...byColour, [small.colour]: large.film.id } } } }],
      });
    }
  });
  return found;
}

/** Films of which some are pressed on and others stick by themselves cannot lie on each other. */
function mixedWays(colours: readonly ColourUse[]): Finding[] {
  const ways = new Map<string, Film>();
  for (const { film } of colours) if (!ways.has(wayOf(film))) ways.set(wayOf(film), film);
  const [one, other] = [...ways.values()];
  if (!one || !other) return [];
  const message = `${one.name} (${FILM_FAMILIES[one.family].name}) and ${other.name} (${FILM_FAMILIES[other.family].name}) are not put on in the same way: they can go on one surface, but not on each other.`;
  return [{ code: 'families-mixed', severity: 'warning', stage: 'films', message }];
}

function sharedFilms(colours: readonly ColourUse[]): [Film, ColourUse[]][] {
  const groups = new Map<Film, ColourUse[]>();
  for (const use of colours) groups.set(use.film, [...(groups.get(use.film) ?? []), use]);
  return [...groups].filter(([, group]) => group.length > 1);
}

/** A film that is plain, and put on like the others, is preferred to one nearer in colour by up to so much (CIEDE2000). */
const STRANGE = 30;
const OTHER_WAY = 20;

/** How a film is made to stick: only films of one way can be built on each other. */
function wayOf(film: Film): 'press' | 'stencil' | 'adhesive' {
  if (film.family === 'heatTransfer' || film.family === 'flock' || film.family === 'dyeTransfer') return 'press';
  return film.family === 'stencil' ? 'stencil' : 'adhesive';
}

function nearestFilm(colour: string, stock: readonly Film[], way: ReturnType<typeof wayOf>): Film {
  let best = stock[0]!;
  let least = Infinity;
  for (const film of stock) {
    // A plain film is the safer guess: texture, and light through it, are a maker's decision; so is a press, which then goes for all.
    const strange = (film.finish === 'textured' || film.finish === 'translucent' ? STRANGE : 0) + (wayOf(film) === way ? 0 : OTHER_WAY);
    const difference = colourDifference(colour, film.colour) + strange;
    if (difference < least) [best, least] = [film, difference];
  }
  return best;
}
