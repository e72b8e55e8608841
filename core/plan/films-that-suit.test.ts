import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { emptyRecipe, parseRecipe, patchRecipe, type RecipePatch } from '../recipe/index.js';
import { FILM_FAMILIES, newFilm, type Film, type FilmFamily, type Shop } from '../shop/index.js';
import { drawingPart } from '../stations/artwork/index.js';
import { newOutline } from '../stations/layers/index.js';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { seeded } from '../testing/seeded.js';
import { Planner } from './planner.js';
import { seeds } from '../testing/long-run.js';

/* By the trade's own table, and not by the app's: what a plain colour may be cut from without anyone choosing. */
const ON_CLOTH = ['heatTransfer'];
const ON_HARD = ['calendered', 'polymeric', 'cast'];
/** What may stand in for those when none is in stock, with a word about it. */
const FOR_WANT = { cloth: ['heatGlitter', 'flock', 'puff', 'foil'], hard: ['translucent', 'reflective', 'textured'] };

const SURFACES: readonly (readonly [on: 'cloth' | 'hard', RecipePatch['surface'] & object])[] = [
  ['cloth', { kind: 'garment' }],
  ['cloth', { kind: 'flat', ground: { matter: 'cotton', colour: '#ffffff' } }],
  ['cloth', { kind: 'unmeasured', ground: { matter: 'nylon', colour: '#101010' } }],
  ['hard', { kind: 'flat' }],
  ['hard', { kind: 'glass' }],
  ['hard', { kind: 'cylinder' }],
  ['hard', { kind: 'flat', ground: { matter: 'wood', colour: '#b98b52' } }],
  ['hard', { kind: 'unmeasured' }],
];

const hex = (random: () => number) =>
  `#${Math.floor(random() * 0x1000000)
    .toString(16)
    .padStart(6, '0')}`;

/** A shop with films of some families only; every other one keeps plain films. */
function randomShop(random: () => number): Shop {
  const families = Object.keys(FILM_FAMILIES) as FilmFamily[];
  const some = families.filter(() => random() < 0.5);
  const films = (some.length > 0 ? some : families).flatMap((family) =>
    Array.from({ length: 1 + Math.floor(random() * 3) }, (_, i): Film => ({
      ...newFilm(`${family}-${i}`, family),
      name: `${family} ${i}`,
      colour: hex(random),
      retired: random() < 0.1,
      ...(random() < 0.1 ? { finish: 'textured' as const } : {}),
    })),
  );
  return { ...BENCH_SHOP, films };
}

const isPlain = (film: Film, families: readonly string[]) =>
  !film.retired && families.includes(film.family) && film.finish !== 'textured' && film.finish !== 'translucent';

function planOf(shop: Shop, colours: readonly string[], patch: RecipePatch) {
  const body = colours.map((colour, i) => `<rect x="${i * 20}" width="18" height="18" fill="${colour}"/>`).join('');
  const bytes = new TextEncoder().encode(
    `<svg xmlns="http://www.w3.org/2000/svg" width="${colours.length * 20}mm" height="18mm" viewBox="0 0 ${colours.length * 20} 18">${body}</svg>`,
  );
  const recipe = parseRecipe(
    patchRecipe(
      patchRecipe(emptyRecipe('Suits'), {
        artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: '0'.repeat(64) })],
      }),
      patch,
    ),
  );
  return new Planner(resourcesInNode).prepared({ recipe, shop, sources: new Map([['a', bytes]]) });
}
const filmNamed = (shop: Shop, id: string) => shop.films.find((film) => film.id === id)!;

describe('films that are ruled', () => {
  it.each(seeds(10, 30))('suit what the job goes on, and none is special that nobody chose, shop %i', async (seed) => {
    const random = seeded(seed);
    const shop = randomShop(random);
    for (let job = 0; job < 10; job += 1) {
      const [on, surface] = SURFACES[Math.floor(random() * SURFACES.length)]!;
      const colours = [...new Set(Array.from({ length: 1 + Math.floor(random() * 3) }, () => hex(random)))];
      const plan = await planOf(shop, colours, { surface });
      const codes = plan.findings.map(({ code }) => code);
      const plain = shop.films.filter((film) => isPlain(film, on === 'cloth' ? ON_CLOTH : ON_HARD));
      const standIns = shop.films.filter(
        (film) => !film.retired && [...(on === 'cloth' ? ON_CLOTH : ON_HARD), ...FOR_WANT[on]].includes(film.family),
      );
      const said = plan.films?.colours ?? [];
      const reasons = plan.rulings
        .filter(({ id }) => colours.some((colour) => id === `films.${colour}`))
        .map(({ because }) => because.join(' '));
      const isSaid = (words: string) => reasons.filter((reason) => reason.includes(words)).length;
      expect(isSaid('the closest of the plain films')).toBe(plain.length > 0 ? reasons.length : 0);
      expect(isSaid('the closest of the special ones')).toBe(
        plain.length === 0 && standIns.length > 0 ? reasons.length : 0,
      );
      if (plain.length > 0) {
        expect(said.every(({ film }) => plain.includes(film))).toBe(true);
        expect(codes).not.toContain('special-film');
        expect(codes).not.toContain('no-film-suits');
      } else if (standIns.length > 0) {
        expect(said.every(({ film }) => standIns.includes(film))).toBe(true);
        expect(codes).toContain('special-film');
      } else {
        const stop = plan.findings.filter(({ severity }) => severity === 'blocker').map(({ code }) => code);
        expect(stop.some((code) => code === 'no-film-suits' || code === 'no-films')).toBe(true);
      }
    }
  });

  it('on a shirt are pressed, and what the maker chose leads to a warning with one remedy for all', async () => {
    const shop: Shop = {
      ...BENCH_SHOP,
      films: [...BENCH_SHOP.films, { ...newFilm('apron-tar', 'heatTransfer'), name: 'Apron tar', colour: '#16181a' }],
    };
    const patch: RecipePatch = {
      surface: { kind: 'garment' },
      films: { byColour: { '#b3262b': 'lock-gate' } },
      build: { outlines: [newOutline('o', 'chalk')] },
    };
    const plan = await planOf(shop, ['#16181a', '#b3262b'], patch);
    expect(plan.films!.colours.find(({ colour }) => colour === '#16181a')!.film.id).toBe('apron-tar');
    const found = plan.findings.find(({ code }) => code === 'film-unsuited')!;
    expect([found.severity, found.stage]).toEqual(['warning', 'films']);
    const remedy = found.remedies![0]!.patch as RecipePatch;
    const after = await planOf(shop, ['#16181a', '#b3262b'], { ...patch, ...remedy });
    expect(after.findings.map(({ code }) => code)).not.toContain('film-unsuited');
    expect(after.build!.layers.every(({ film }) => filmNamed(shop, film.id).family === 'heatTransfer')).toBe(true);
    expect(after.build!.layers.length).toBeGreaterThan(1);
  });

  it('heat film on wood is a choice: a warning, and the job can be cut', async () => {
    const plan = await planOf(BENCH_SHOP, ['#efe3c8'], {
      surface: { kind: 'flat', ground: { matter: 'wood', colour: '#5b3a1c' } },
      films: { byColour: { '#efe3c8': 'apron-cream' } },
    });
    expect(plan.findings.filter(({ severity }) => severity === 'blocker')).toEqual([]);
    expect(plan.findings.find(({ code }) => code === 'film-unsuited')!.message).toContain('wood');
  });

  it('say which film to buy when the shop has none of the kind, and stop the cut', async () => {
    const shop: Shop = { ...BENCH_SHOP, films: BENCH_SHOP.films.filter(({ family }) => family !== 'heatTransfer') };
    const plan = await planOf(shop, ['#16181a'], { surface: { kind: 'garment' } });
    const stop = plan.findings.find(({ code }) => code === 'no-film-suits')!;
    expect(stop.severity).toBe('blocker');
    expect(stop.message).toContain('Buy heat-transfer film in');
  });

  it('of one way are one press away when they were mixed', async () => {
    const plan = await planOf(BENCH_SHOP, ['#efe3c8', '#16181a'], {
      films: { byColour: { '#efe3c8': 'apron-cream', '#16181a': 'tar' } },
    });
    const mixed = plan.findings.find(({ code }) => code === 'families-mixed')!;
    expect(mixed.remedies!.map(({ label }) => label)).toEqual([
      'Cut all of it from films that are pressed on',
      'Cut all of it from films that stick by themselves',
    ]);
    const after = await planOf(BENCH_SHOP, ['#efe3c8', '#16181a'], mixed.remedies![1]!.patch as RecipePatch);
    expect(after.findings.map(({ code }) => code)).not.toContain('families-mixed');
  });
});

describe('a colour of which nothing can be cut', () => {
  it('is no film, no layer and no sheet, and one finding says so', async () => {
    const bytes = new TextEncoder().encode(
      '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="20mm" viewBox="0 0 60 20"><rect width="40" height="20" fill="#16181a"/><rect x="50" width="0.06" height="20" fill="#b3262b"/></svg>',
    );
    const recipe = parseRecipe(
      patchRecipe(emptyRecipe('Fine'), {
        artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: '0'.repeat(64) })],
      }),
    );
    const plan = await new Planner(resourcesInNode).plan({
      recipe,
      shop: BENCH_SHOP,
      sources: new Map([['a', bytes]]),
    });
    expect(plan.films!.colours.map(({ colour }) => colour)).toEqual(['#16181a']);
    expect(plan.build!.layers.map(({ film }) => film.id)).toEqual(['tar']);
    expect(plan.sheets!.sheets).toHaveLength(1);
    expect(plan.findings.filter(({ code }) => code === 'too-fine')).toHaveLength(1);
  });
});
