import {
  neighboursOf,
  relabelled,
  separate,
  withoutFineParts,
  type Neighbours,
  type Separation,
} from '../../engines/layers/index.js';
import type { Film } from '../../shop/index.js';
import type { Regions } from '../artwork/index.js';
import type { FilmsOut } from '../films/index.js';
import type { Stage } from '../stage.js';
import type { BuildDecisions } from './decisions.js';
import { framingFilms } from './framing-films.js';
import type { Framed, FramingDecisions } from './framing.js';

/** The artwork taken apart by film, before any school is applied. Keys of layers are film ids. */
export interface Separated {
  readonly separation: Separation;
  /** Which layers meet, and which lie over which. */
  readonly neighbours: Neighbours;
  /** Knock-outs, contour, base and outlines as they were laid; null when there are none. */
  readonly framed: Framed | null;
  /** All films of the build, by id: those of colours, and those of outlines, a base, backings and the print. */
  readonly films: ReadonlyMap<string, Film>;
}

interface SeparateContext {
  readonly regions: Regions;
  readonly films: FilmsOut;
  readonly recipe: BuildDecisions;
  readonly stock: readonly Film[];
}

interface SeparateRead {
  readonly regions: Regions;
  readonly films: FilmsOut;
  readonly decisions: FramingDecisions;
  /** Films that only outlines, a base, a backing or the print are of. */
  readonly more: readonly Film[];
}

/** Takes the artwork apart by film. */
export const separateStage: Stage<SeparateContext, SeparateRead, Separated> = {
  name: 'separation',
  read({ regions, films, recipe: { build }, stock }) {
    const { outlines, knockOuts, contour, base } = build;
    return {
      regions,
      films,
      decisions: { outlines, knockOuts, contour, base },
      more: framingFilms(build).flatMap((id) => stock.find((film) => film.id === id) ?? []),
    };
  },
  async run({ regions: { regions }, films: { colours, byColour }, decisions, more }) {
    const filmByColour = new Map(colours.map((use) => [use.colour, use.film]));
    const films = new Map(colours.map((use) => [use.film.id, use.film]));
    const ownFilms = films.size;
    for (const film of more) films.set(film.id, film);
    // A colour that is wholly hidden has no film and no layer, but still nothing of it shows.
    const layerOf = (colour: string) => filmByColour.get(colour)?.id ?? colour;
    const isFramed =
      decisions.outlines.length + decisions.knockOuts.length > 0 ||
      decisions.contour !== null ||
      decisions.base !== null;
    // Few jobs have outlines or cut-outs: what lays them is fetched with the first.
    const frame = isFramed
      ? (await import('./framing.js')).framed(
          regions
            .filter((region) => filmByColour.has(region.colour))
            .map((region) => ({ layer: layerOf(region.colour), rings: region.rings, part: region.part })),
          decisions,
          films,
        )
      : null;
    // What no blade can cut is taken out before anything grows; of colours that keep a film each that is done already.
    const all = frame
      ? withoutFineParts(separate(frame.paints))
      : ownFilms === colours.length
        ? relabelled(byColour, layerOf)
        : withoutFineParts(separate(regions.map((region) => ({ layer: layerOf(region.colour), rings: region.rings }))));
    const separation = { ...all, layers: all.layers.filter((layer) => films.has(layer.key)) };
    return { separation, neighbours: neighboursOf(separation), framed: frame, films };
  },
};
