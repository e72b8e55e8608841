import { areaOf } from '../geometry/index.js';
import type { Shop } from '../shop/index.js';
import type { PrepareOut } from '../stations/prepare/index.js';
import { groupOf, groupsFor, isLayered, turnsOf, type CutSoFar } from '../stations/sheets/index.js';
import type { BatchWish } from './batch.js';
import { rackOf, type BatchItem } from './lay-film.js';

/** What of a job is cut: its prepared layers, and how often. */
export interface BatchJob extends CutSoFar {
  /** What it is known by where pieces are laid by hand. */
  readonly id: string;
  readonly prepare: PrepareOut;
  /** Read through glass: what is cut as it is otherwise is cut mirrored. */
  readonly isInside: boolean;
  readonly copies: number;
  /** The day it is due; null for none. */
  readonly due: string | null;
}

/** What the layers of a job come to: how many copies of each, by fingerprint. */
export function toCutOf({ prepare, isInside, copies }: BatchJob): { readonly fingerprint: string; readonly copies: number }[] {
  return prepare.layers.map((prepared) => ({ fingerprint: groupOf(prepared, prepared.layer.film.mirrored !== isInside).fingerprint, copies: groupsFor(prepared.panel, copies) }));
}

type ItemWish = Pick<BatchWish, 'oneDirection' | 'spares'>;

/** Fewer copies than this are no run: each is looked after. */
const LEAST_RUN = 10;

/** How many more than wanted are cut of a run. Source of the shares to begin with: trade practice, 5 % of single films and 10 % of layered runs. */
function sparesOf(copies: number, share: number): number {
  return copies < LEAST_RUN ? 0 : Math.ceil(copies * share - 1e-9);
}

/** The layers of a job, also those of which nothing is left to be cut: all of them say in which direction they lie. */
export function itemsOf({ id: jobId, prepare, isInside, copies, taken, lies }: BatchJob, job: number, shop: Shop, { oneDirection, spares }: ItemWish): BatchItem[] {
  // Two designs that are alike share what is cut of them.
  const untaken = new Map(Object.entries(taken));
  const isRun = isLayered(prepare.layers.map(({ layer }) => layer));
  const items = prepare.layers.map((prepared, i): BatchItem => {
    const { layer: { film, cut }, panel } = prepared;
    const isMirrored = film.mirrored !== isInside;
    const group = groupOf(prepared, isMirrored);
    const wanted = groupsFor(panel, copies);
    // What a strip holds more than is wanted counts as spares.
    const inAll = copies * panel.copies;
    const withSpares = Math.ceil((inAll + sparesOf(inAll, isRun ? spares.layered : spares.single)) / panel.perStrip);
    const done = Math.min(withSpares, untaken.get(group.fingerprint) ?? 0);
    untaken.set(group.fingerprint, (untaken.get(group.fingerprint) ?? 0) - done);
    // Spares make up for what is spoiled: once enough are good, none is missing.
    return { id: `${job}/${i}`, job, jobId, layer: i, firstCopy: done, film, group, isMirrored, quantity: done >= wanted ? 0 : withSpares - done, keptMm2: areaOf(cut), rotations: [0] };
  });
  const racks = new Map(items.map(({ film }) => [film.id, rackOf(film, shop)]));
  const turns = turnsOf(items, (film) => racks.get(film.id)!, { inOneDirection: oneDirection, lies });
  return items.map((item) => ({ ...item, rotations: turns(item.film) }));
}
