import { areaOf } from '../geometry/index.js';
import { cutFilmOf, isFoil } from '../shop/index.js';
import { isLayered, turnsOf } from './direction.js';
import { groupOf, groupsFor } from './group.js';
import type { JobToLay } from './job-to-lay.js';
import { loadablesOf, type LayItem, type ShopToLay } from './lay-film.js';
import type { LayWish } from './lay-wish.js';
import { roomsOf } from './rooms.js';

/** What the layers of a job come to: how many copies of each, by fingerprint. */
export function toCutOf({
  prepare,
  isInside,
  copies,
}: JobToLay): { readonly fingerprint: string; readonly copies: number }[] {
  return prepare.layers.map((prepared) => ({
    fingerprint: groupOf(prepared, prepared.layer.film.mirrored !== isInside).fingerprint,
    copies: groupsFor(prepared.panel, copies),
  }));
}

type ItemWish = Pick<LayWish, 'oneDirection' | 'anyTurn' | 'spares' | 'inCounters'>;

/** Fewer copies than this are no run: each is looked after. */
const LEAST_RUN = 10;

/** How many more than wanted are cut of a run. */
function sparesOf(copies: number, share: number): number {
  return copies < LEAST_RUN ? 0 : Math.ceil(copies * share - 1e-9);
}

/** The layers of a job, also those of which nothing is left to be cut: all of them say in which direction they lie. */
export function itemsOf(
  { id: jobId, prepare, isInside, copies, taken, lies }: JobToLay,
  job: number,
  shop: ShopToLay,
  { oneDirection, anyTurn, spares, inCounters }: ItemWish,
): LayItem[] {
  // Two designs that are alike share what is cut of them.
  const untaken = new Map(Object.entries(taken));
  const isRun = isLayered(prepare.layers.map(({ layer }) => layer));
  const items = prepare.layers.map((prepared, i): LayItem => {
    const {
      layer: { film, cut },
      panel,
    } = prepared;
    const isMirrored = film.mirrored !== isInside;
    const cutFilm = cutFilmOf(film, shop);
    const group = groupOf(prepared, isMirrored, cutFilm);
    const wanted = groupsFor(panel, copies);
    // What a strip holds more than is wanted counts as spares.
    const inAll = copies * panel.copies;
    const withSpares = Math.ceil((inAll + sparesOf(inAll, isRun ? spares.layered : spares.single)) / panel.perStrip);
    const done = Math.min(withSpares, untaken.get(group.fingerprint) ?? 0);
    untaken.set(group.fingerprint, (untaken.get(group.fingerprint) ?? 0) - done);
    // Spares make up for what is spoiled: once enough are good, none is missing.
    const quantity = done >= wanted ? 0 : withSpares - done;
    const rooms = inCounters && quantity > 0 ? roomsOf(group) : [];
    return {
      id: `${job}/${i}`,
      job,
      jobId,
      layer: i,
      firstCopy: done,
      film: cutFilm,
      foil: isFoil(film) ? film : null,
      group,
      rooms,
      isMirrored,
      quantity,
      // Of foil both stay, the adhesive and what is laid on it.
      keptMm2: areaOf(cut) * (isFoil(film) ? 2 : 1),
      rotations: [0],
      sharesBorder: panel.sharesBorder,
    };
  });
  const racks = new Map(items.map(({ film }) => [film.id, loadablesOf(film, shop)]));
  const turns = turnsOf(items, (film) => racks.get(film.id)!, { inOneDirection: oneDirection, anyTurn, lies });
  return items.map((item) => ({ ...item, rotations: turns(item.film) }));
}
