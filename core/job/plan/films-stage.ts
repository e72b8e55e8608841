import { colourDifference, type PaintedRegion } from '../../artwork/index.js';
import { areaOf, countPieces } from '../../geometry/index.js';
import { BARE, separate } from '../../layers/index.js';
import type { Film } from '../film.js';
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
  const separation = separate(regions.map((region) => ({ layer: region.colour, rings: region.rings })));
  const findings: Finding[] = [];
  const rulings: Ruling[] = [];
  const colours: ColourUse[] = separation.layers.filter(({ key }) => key !== BARE).map(({ key: colour, visible }) => {
    const nearest = nearestFilm(colour, stock);
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
        : [`It is the nearest colour in stock: they differ by ${difference.toFixed(1)} (CIEDE2000; about 1 can just be seen).`],
      overridden: chosen !== undefined && chosen.id !== nearest.id,
      proposed: nearest.name,
    });
    const { pieces } = countPieces(visible);
    return { colour, areaMm2: areaOf(visible), pieces, film, difference, chosen: chosen !== undefined };
  });
  findings.push(...fewerFilms(colours, decisions.byColour));
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

/** Films so near to each other that one may do for both: a sheet and an alignment fewer. The smaller gives way. */
function fewerFilms(colours: readonly ColourUse[], byColour: Recipe['films']['byColour']): Finding[] {
  const found: Finding[] = [];
  colours.forEach((one, i) => {
    for (const other of colours.slice(i + 1)) {
      if (one.film === other.film || one.film.finish !== other.film.finish) continue;
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

function sharedFilms(colours: readonly ColourUse[]): [Film, ColourUse[]][] {
  const groups = new Map<Film, ColourUse[]>();
  for (const use of colours) groups.set(use.film, [...(groups.get(use.film) ?? []), use]);
  return [...groups].filter(([, group]) => group.length > 1);
}

function nearestFilm(colour: string, stock: readonly Film[]): Film {
  let best = stock[0]!;
  let least = Infinity;
  for (const film of stock) {
    // A plain film is the safer guess: texture, light through it, or a press are a maker's decision.
    const strange = film.finish === 'textured' || film.finish === 'translucent' || film.mirrored || film.family === 'stencil' ? 30 : 0;
    const difference = colourDifference(colour, film.colour) + strange;
    if (difference < least) [best, least] = [film, difference];
  }
  return best;
}
