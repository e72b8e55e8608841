import { readFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import {
  AT_ORIGIN,
  drawingPart,
  letteringPart,
  newLettering,
  picturePart,
  type DrawingPart,
  type LetteringPart,
} from '../core/stations/artwork/index.js';
import type { Lettering } from '../core/engines/artwork/index.js';
import type { Film } from '../core/shop/index.js';
import { emptyRecipe, patchRecipe, type RecipePatch } from '../core/recipe/index.js';
import type { TaperMeasures } from '../core/stations/surface/index.js';
import { contoursOfGroups, wholeOnPiece } from '../core/stations/cut/index.js';
import { projectPath } from '../platform/project.js';
import { openDatabase } from '../server/db/open-database.js';
import { describeFile } from '../server/stores/artwork-store.js';
import { makeServices, type Services } from '../server/services.js';
import { DEMO_SHOP_FILE } from './shop.js';

/** An eight and its cox, made up. */
/** Who rows in which size. */
const SIZES = ['S', 'L', 'XL', 'M', 'XL', 'L', 'M', 'L', 'S'];
const ROWERS = ['ADA', 'BRAM', 'CORNELIUS', 'DILYS', 'EVERDINGEN', 'FLORIS', 'GWENDOLINE', 'HUW', 'IVO'];

// Fills an empty data folder with the demo shop and its jobs; one that holds a shop already is left as it is.
const { values } = parseArgs({
  options: { data: { type: 'string', default: 'data/demo' }, 'cutter-port': { type: 'string' } },
});
const db = await openDatabase(values.data);
const services = await makeServices(db, 0);
if (await services.shop.isEmpty()) {
  const port = values['cutter-port'];
  const { cutters } = DEMO_SHOP_FILE;
  const films = await withPattern(services);
  await services.shop.fill({
    ...DEMO_SHOP_FILE,
    films,
    cutters:
      port === undefined
        ? cutters
        : cutters.map((cutter) => (cutter.host === null ? cutter : { ...cutter, port: Number(port) })),
  });
  await seedJobs(services);
}
await services.compute.close();
await db.destroy();

/** The films, the pattern film with the picture that it is printed with. */
async function withPattern({ artworks }: Services): Promise<readonly Film[]> {
  const bytes = await readFile(projectPath('demo', 'artwork', 'quay-tiles.svg'));
  const picture = describeFile('quay-tiles.svg', bytes);
  await artworks.add(picture, bytes);
  return DEMO_SHOP_FILE.films.map((film) =>
    film.id === 'quay-tiles' ? { ...film, pattern: { picture, repeatMm: 60, ratio: 1 } } : film,
  );
}

async function seedJobs(to: Services): Promise<void> {
  await addJob(to, 'marsh-wren.svg', 'Marsh Wren, name for a narrow boat', {
    customer: 'Skipper of the Marsh Wren',
    due: inDays(12),
    surface: {
      kind: 'flat',
      flat: { widthMm: 1500, heightMm: 420, marginMm: { top: 40, right: 50, bottom: 40, left: 50 }, free: [] },
      size: { mode: 'width', mm: 1400 },
    },
    build: { lives: 'outdoors' },
  });
  const window = await addJob(to, 'heron-window.svg', 'Heron and moon, tea-room window', {
    customer: 'The tea room at Wick Lock',
    due: inDays(5),
    surface: {
      kind: 'flat',
      flat: { widthMm: 420, heightMm: 360, marginMm: { top: 40, right: 40, bottom: 60, left: 40 }, free: [] },
      size: { mode: 'width', mm: 230 },
    },
    // Two of its films were cut by themselves.
    sheets: { zones: false },
  });
  await addJob(to, 'weir-anglers.svg', 'Weir Anglers, badge for a landing net', {
    customer: 'The Weir Anglers',
    due: inDays(20),
    surface: {
      kind: 'flat',
      flat: { widthMm: 260, heightMm: 170, marginMm: { top: 5, right: 5, bottom: 5, left: 5 }, free: [] },
      size: { mode: 'width', mm: 240 },
    },
    build: { lives: 'washed' },
    assembly: { way: 'tape' },
  });
  // A run that is aligned strip by strip.
  await addJob(to, 'quay-lantern.svg', 'Quay Lantern, stickers for the market', {
    customer: 'The lantern walk',
    due: inDays(8),
    surface: {
      kind: 'flat',
      flat: { widthMm: 70, heightMm: 70, marginMm: { top: 2, right: 2, bottom: 2, left: 2 }, free: [] },
      size: { mode: 'width', mm: 56 },
    },
    preparation: { gang: { across: 4, down: 2, rows: 'straight', gapMm: 4 } },
    sheets: { copies: 40, spacingMm: 5 },
    assembly: { way: 'dry' },
  });
  await addBakery(to);
  await addSurfaces(to);
  await cutInThePast(to, window, 'narrow-blue', { shareOfEstimate: 1.012, note: 'Weeded cleanly.' });
  await cutInThePast(to, window, 'towpath', { shareOfEstimate: 0.991, note: '' });
  await putTogether(to, ['Kingfisher', 'Quay Blend', 'Lockside', 'Rowing club']);
}

async function addJob(to: Services, fileName: string, title: string, decisions: RecipePatch): Promise<string> {
  const part = await drawingOf(to, fileName);
  const recipe = patchRecipe(emptyRecipe(title), { ...decisions, artworks: [part] });
  return (await to.jobs.create(recipe)).id;
}

/** A drawing of the demo, kept with the shop's files. */
async function drawingOf({ artworks }: Services, fileName: string): Promise<DrawingPart> {
  const bytes = await readFile(projectPath('demo', 'artwork', fileName));
  const artwork = describeFile(fileName, bytes);
  await artworks.add(artwork, bytes);
  return drawingPart(artwork);
}

/** A loaf from a photograph between two letterings, one of them bent over it. */
async function addBakery({ jobs, artworks }: Services): Promise<void> {
  const bytes = await readFile(projectPath('demo', 'artwork', 'loaf.jpg'));
  const loaf = describeFile('loaf.jpg', bytes);
  await artworks.add(loaf, bytes);
  const lettering = (id: string, text: string, yMm: number, more: Partial<Lettering>): LetteringPart => ({
    ...letteringPart(id, { ...newLettering(text), ...more }),
    place: { ...AT_ORIGIN, yMm },
  });
  const recipe = patchRecipe(emptyRecipe('Lockside Bakery, shop door'), {
    customer: 'The bakery at the lock',
    due: inDays(9),
    artworks: [
      { ...picturePart(loaf), place: { ...AT_ORIGIN, yMm: 128, scale: 0.9 } },
      lettering('name', 'Lockside Bakery', 24, {
        font: 'lobster',
        capHeightMm: 34,
        arc: { radiusMm: 260, bend: 'up' },
        colours: ['#6b4a2b'],
      }),
      lettering('hours', 'FRESH BY SEVEN', 236, {
        font: 'oswald',
        capHeightMm: 18,
        trackingPct: 20,
        colours: ['#6b4a2b'],
      }),
    ],
    surface: {
      kind: 'flat',
      flat: { widthMm: 420, heightMm: 330, marginMm: { top: 20, right: 20, bottom: 20, left: 20 }, free: [] },
      size: { mode: 'own' },
    },
  });
  await jobs.create(recipe);
}

/** Jobs on things that are round, tapered, long, or read through glass. */
async function addSurfaces(to: Services): Promise<void> {
  const { surface } = emptyRecipe('');
  const words = (id: string, text: string, more: Partial<Lettering>, xMm = 0, yMm = 0): LetteringPart => ({
    ...letteringPart(id, { ...newLettering(text), ...more }),
    place: { ...AT_ORIGIN, xMm, yMm },
  });
  const create = async (title: string, decisions: RecipePatch) =>
    (await to.jobs.create(patchRecipe(emptyRecipe(title), decisions))).id;
  await create('Kingfisher, enamel jug with two sides', {
    customer: 'The lock keeper',
    due: inDays(7),
    // The bird looks at who holds the jug, the words at the room.
    artworks: [
      await drawingOf(to, 'kingfisher-jug.svg'),
      words('lock', 'Wick Lock', { font: 'lobster', capHeightMm: 20, colours: ['#12859a'] }, 0, 110),
    ],
    surface: {
      kind: 'cylinder',
      cylinder: {
        ...surface.cylinder,
        girthBy: 'circumference',
        girthMm: 372,
        straightHeightMm: 150,
        lipMm: 22,
        footMm: 12,
        gapMm: 52,
        side: 'holder',
      },
      several: { others: [{ parts: ['lock'], widthMm: null }], copies: 1, betweenMm: null },
      ground: { matter: 'gloss paint', colour: '#f2efe4' },
      size: { mode: 'fit' },
    },
    build: { lives: 'washed' },
  });
  await create('Boat’s names for two cabin doors', {
    customer: 'Skipper of the Marsh Wren',
    due: inDays(16),
    artworks: [
      words('wren', 'Marsh Wren', { font: 'lobster', capHeightMm: 34, colours: ['#12859a'] }),
      words('no', 'No. 7', { font: 'oswald', capHeightMm: 18, trackingPct: 12, colours: ['#12859a'] }, 0, 70),
    ],
    surface: {
      kind: 'flat',
      flat: {
        widthMm: 520,
        heightMm: 330,
        marginMm: { top: 25, right: 25, bottom: 25, left: 25 },
        free: [{ shape: 'circle', what: 'ring', xMm: 260, yMm: 165, diameterMm: 44 }],
      },
      several: { others: [{ parts: ['no'], widthMm: null }], copies: 2, betweenMm: null },
      ground: { matter: 'gloss paint', colour: '#e9e2d0' },
      size: { mode: 'fit' },
    },
    build: { lives: 'outdoors' },
  });
  await create('Aprons for the tea room, five sizes', {
    customer: 'The tea room at Wick Lock',
    due: inDays(18),
    artworks: [
      words('name', 'Wick Lock', { font: 'lobster', capHeightMm: 52, colours: ['#efe3c8'] }),
      words('what', 'TEA ROOM', { font: 'oswald', capHeightMm: 22, trackingPct: 30, colours: ['#efe3c8'] }, 0, 62),
    ],
    films: { byColour: { '#efe3c8': 'apron-cream' } },
    surface: {
      kind: 'garment',
      garment: {
        ...surface.garment,
        piece: 'apron',
        spot: 'full front',
        sizes: [
          ['S', 2],
          ['M', 4],
          ['L', 3],
          ['XL', 2],
          ['XXL', 1],
        ].map(([size, copies]) => ({ size: String(size), copies: Number(copies), widthMm: null })),
      },
      ground: { matter: 'cotton', colour: '#3b3a36' },
      blankId: 'apron',
      size: { mode: 'fit' },
    },
    build: { lives: 'washed' },
  });
  await create('Rowing club, numbers for an eight', {
    customer: 'Wick Water Rowing Club',
    due: inDays(24),
    artworks: [
      words('name', 'ADA', { font: 'oswald', capHeightMm: 60, trackingPct: 8, colours: ['#16181a'] }),
      words('number', '7', { font: 'oswald', capHeightMm: 220, colours: ['#1d4e89'] }, 0, 165),
    ],
    films: { byColour: { '#16181a': 'galley-black', '#1d4e89': 'jersey-blue' } },
    surface: {
      kind: 'garment',
      garment: { ...surface.garment, spot: 'back' },
      team: {
        namePart: 'name',
        numberPart: 'number',
        widestMm: 300,
        condense: 'each',
        members: ROWERS.map((name, i) => ({ name, number: String(i === 8 ? 0 : i + 1), size: SIZES[i] ?? 'M' })),
      },
      ground: { matter: 'polyester', colour: '#f5f5f5' },
      blankId: 'jersey',
      size: { mode: 'own' },
    },
    build: { lives: 'washed' },
  });
  await addTeaTin(to, surface.taper);
  await addFascia(to);
  await create('Name for a flask: Wren', {
    customer: 'Wren of the rowing club',
    due: inDays(3),
    artworks: [words('name', 'Wren', { font: 'lobster', capHeightMm: 30, colours: ['#f7f5ef'] })],
    films: { byColour: { '#f7f5ef': 'chalk' } },
    surface: {
      kind: 'cylinder',
      cylinder: {
        ...surface.cylinder,
        girthBy: 'circumference',
        girthMm: 229,
        straightHeightMm: 142,
        lipMm: 10,
        footMm: 10,
        gapMm: 0,
        side: 'front',
      },
      ground: { matter: 'powder coat', colour: '#2d4f7c' },
      blankId: 'flask-blue',
      size: { mode: 'fit' },
    },
    build: { lives: 'washed' },
  });
  await create('Opening hours, tea-room door, read from outside', {
    customer: 'The tea room at Wick Lock',
    due: inDays(6),
    artworks: [
      words('open', 'OPEN', { font: 'alfa-slab-one', capHeightMm: 60, colours: ['#f2b632'] }),
      words('days', 'Tuesday to Sunday', { font: 'zilla-slab', capHeightMm: 22, colours: ['#f7f5ef'] }, 0, 75),
      words('hours', '9 to 5', { font: 'zilla-slab', capHeightMm: 40, colours: ['#f7f5ef'] }, 0, 130),
    ],
    films: { byColour: { '#f7f5ef': 'chalk', '#f2b632': 'wick-yellow' } },
    surface: {
      kind: 'glass',
      flat: {
        widthMm: 620,
        heightMm: 700,
        marginMm: { top: 60, right: 50, bottom: 60, left: 50 },
        free: [{ shape: 'circle', what: 'lock', xMm: 560, yMm: 610, diameterMm: 90 }],
      },
      ground: { matter: 'glass', colour: '#33403f' },
      blankId: 'door-tearoom',
      readFromMm: 6000,
      size: { mode: 'width', mm: 380 },
    },
    build: { lives: 'outdoors' },
  });
}

/** A label between two letterings, bent for the tin it goes on. */
async function addTeaTin(to: Services, taper: TaperMeasures): Promise<void> {
  const label = await drawingOf(to, 'tea-tin.svg');
  const recipe = patchRecipe(emptyRecipe('Quay Blend, tapered tea tin'), {
    customer: 'The tea room at Wick Lock',
    due: inDays(14),
    artworks: [
      label,
      {
        ...letteringPart('name', {
          ...newLettering('Quay Blend'),
          font: 'lobster',
          capHeightMm: 11,
          colours: ['#b3262b'],
        }),
        place: { ...AT_ORIGIN, yMm: 10 },
      },
    ],
    surface: {
      kind: 'taper',
      taper: {
        ...taper,
        d1Mm: 102,
        d2Mm: 86,
        wide: 'top',
        sideBy: 'slant',
        sideMm: 118,
        lipMm: 14,
        footMm: 8,
        gapMm: 0,
      },
      ground: { matter: 'gloss paint', colour: '#21452f' },
      blankId: 'tin-tea',
      size: { mode: 'fit' },
    },
  });
  await to.jobs.create(recipe);
}

/** A sign that is longer than anyone can lay in one piece. */
async function addFascia(to: Services): Promise<void> {
  const coil = await drawingOf(to, 'rope-coil.svg');
  const recipe = patchRecipe(emptyRecipe('Wick Lock Chandlery, fascia of 4 m'), {
    customer: 'Wick Lock Chandlery',
    due: inDays(30),
    artworks: [
      { ...coil, place: { ...AT_ORIGIN, xMm: 210, yMm: 210 } },
      {
        ...letteringPart('name', {
          ...newLettering('WICK LOCK CHANDLERY'),
          font: 'oswald',
          capHeightMm: 250,
          trackingPct: 6,
          colours: ['#1d4e89'],
        }),
        place: { ...AT_ORIGIN, xMm: 2260, yMm: 210 },
      },
    ],
    surface: {
      kind: 'flat',
      flat: { widthMm: 4200, heightMm: 560, marginMm: { top: 60, right: 90, bottom: 60, left: 90 }, free: [] },
      ground: { matter: 'gloss paint', colour: '#f3f0e6' },
      readFromMm: 30_000,
      size: { mode: 'width', mm: 4000 },
    },
    build: { lives: 'outdoors' },
  });
  await to.jobs.create(recipe);
}

/** The sheet of a film, cut before the demo began, so that the record has something to show. */
async function cutInThePast(
  to: Services,
  jobId: string,
  filmId: string,
  how: { shareOfEstimate: number; note: string },
): Promise<void> {
  const batch = await to.sourceOfBatch(jobId);
  const { sheets } = await to.compute.batch(batch);
  const { sheet, toCut } = await to.compute.sheet(batch, sheets.find((one) => one.film.id === filmId)!.id);
  const [{ layers, builtWith }] = toCut as [(typeof toCut)[number]];
  const sheetId = await to.sheets.freeze({
    ...sheet,
    restOf: null,
    jobs: [{ jobId, recipe: batch.jobs[0]!.source.recipe, builtWith }],
    batchId: null,
    groups: sheet.groups.map((group) => ({ ...group, revision: batch.revisions.get(jobId)!, of: null })),
  });
  const { id } = await to.runs.create({ sheetId, who: 'Ilse' });
  const { wholeAt, partOf } = sheet.program;
  const whole = wholeOnPiece({ wholeAt, partOf, contoursOf: contoursOfGroups(sheet.groups) }, sheet.pairsTotal);
  await to.runs.save(id, {
    state: 'finished',
    message: '',
    pairsDone: sheet.pairsTotal,
    bearings: null,
    share: 1,
    actualSeconds: sheet.estimateSeconds * how.shareOfEstimate,
    whole,
  });
  await to.runs.setNote(id, how.note);
  await to.sheets.judge(
    sheetId,
    sheet.groups.map((_, position) => position),
    'good',
    'Ilse',
  );
  await to.jobs.setToCut(jobId, { layers });
  await to.shop.putBack([], sheetId, { revision: (await to.shop.get()).revision, who: 'Ilse' });
}

/** Jobs that are cut together, by how their titles begin. */
async function putTogether({ jobs, batches }: Services, titles: readonly string[]): Promise<void> {
  const { jobs: all } = await jobs.list({ search: '', state: null, from: 0, most: 100 });
  await batches.create(titles.map((title) => all.find((job) => job.title.startsWith(title))!.id));
}

function inDays(days: number): string {
  return new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
}
