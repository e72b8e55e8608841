import type { Film } from '../shop/index.js';
import type { Group } from './group.js';
import { fitsOn, type Loadable } from './loadable.js';
import type { TakenDirections } from './sheet-plan.js';

/** A layer that is laid, and its film. */
interface DirectedLayer {
  readonly film: Film;
  readonly group: Pick<Group, 'contours' | 'borders' | 'fingerprint'>;
}

const QUARTERS: readonly number[] = [0, 90, 180, 270];
/** Finer steps take longer than the film is worth that they save. */
const ANY_TURN: readonly number[] = Array.from({ length: 24 }, (_, i) => 15 * i);
const AS_DRAWN: readonly number[] = [0, 180];
const ACROSS: readonly number[] = [90, 270];

/** Whether a design has layers that must fit each other. */
export function isLayered(layers: readonly Pick<DirectedLayer, 'film'>[]): boolean {
  return new Set(layers.map(({ film }) => film.id)).size > 1;
}

/**
 * By how much the layers of a design may be turned on their films, degrees: all in one direction, or turned by a half against each other, since a cutter feeds a little too far or too short and films draw back more along the
 * roll (trade). As what is cut already lies, if anything is; else all a quarter round where one of them fits no other way. A design of one film, and layers that may lie each for itself, as they fit; the former by any angle where that is wished. A film with a direction is never turned.
 */
export function turnsOf(
  layers: readonly DirectedLayer[],
  rackOf: (film: Film) => readonly Loadable[],
  {
    inOneDirection,
    anyTurn,
    lies,
  }: { readonly inOneDirection: boolean; readonly anyTurn: boolean; readonly lies: TakenDirections },
): (film: Film) => readonly number[] {
  const turnsTogether = () => {
    const cut = layers.map(({ group }) => lies[group.fingerprint]).find((direction) => direction !== undefined);
    if (cut !== undefined) return cut === 'across' ? ACROSS : AS_DRAWN;
    const fits = (turn: number) =>
      layers.every(
        ({ film, group }) => rackOf(film).length === 0 || rackOf(film).some((on) => fitsOn(group, on, [turn])),
      );
    // One film with a direction keeps the whole design as it is drawn.
    return !layers.some(({ film }) => film.directional) && !fits(0) && fits(90) ? ACROSS : AS_DRAWN;
  };
  const apart = anyTurn && !isLayered(layers) ? ANY_TURN : QUARTERS;
  const turns = isLayered(layers) && inOneDirection ? turnsTogether() : apart;
  return (film) => (film.directional ? [0] : turns);
}
