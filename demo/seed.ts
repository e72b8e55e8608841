import { readFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { AT_ORIGIN, drawingPart, letteringPart, newLettering, picturePart, type LetteringPart } from '../core/stations/artwork/index.js';
import type { Lettering } from '../core/engines/artwork/index.js';
import type { Film } from '../core/shop/index.js';
import { emptyRecipe, patchRecipe, type RecipePatch } from '../core/recipe/index.js';
import { contoursOfGroups, wholeOnPiece } from '../core/stations/cut/index.js';
import { projectPath } from '../platform/project.js';
import { openDatabase } from '../server/db/open-database.js';
import { describeFile } from '../server/stores/artwork-store.js';
import { makeServices, type Services } from '../server/services.js';
import { DEMO_SHOP_FILE } from './shop.js';

// Fills an empty data folder with the demo shop and its jobs; one that holds a shop already is left as it is.
const { values } = parseArgs({ options: { data: { type: 'string', default: 'data/demo' }, 'cutter-port': { type: 'string' } } });
const db = await openDatabase(values.data);
const services = await makeServices(db, 0);
if (await services.shop.isEmpty()) {
  const port = values['cutter-port'];
  const { cutters } = DEMO_SHOP_FILE;
  const films = await withPattern(services);
  await services.shop.fill({ ...DEMO_SHOP_FILE, films, cutters: port === undefined ? cutters : cutters.map((cutter) => (cutter.host === null ? cutter : { ...cutter, port: Number(port) })) });
  await seedJobs(services);
}
await services.compute.close();
await db.destroy();

/** The films, the pattern film with the picture that it is printed with. */
async function withPattern({ artworks }: Services): Promise<readonly Film[]> {
  const bytes = await readFile(projectPath('demo', 'artwork', 'quay-tiles.svg'));
  const picture = describeFile('quay-tiles.svg', bytes);
  await artworks.add(picture, bytes);
  return DEMO_SHOP_FILE.films.map((film) => (film.id === 'quay-tiles' ? { ...film, pattern: { picture, repeatMm: 60, ratio: 1 } } : film));
}

async function seedJobs(to: Services): Promise<void> {
  await addJob(to, 'marsh-wren.svg', 'Marsh Wren, name for a narrow boat', {
    customer: 'Skipper of the Marsh Wren',
    due: inDays(12),
    surface: { kind: 'flat', flat: { widthMm: 1500, heightMm: 420, marginMm: { top: 40, right: 50, bottom: 40, left: 50 }, free: [] }, size: { mode: 'width', mm: 1400 } },
    build: { lives: 'outdoors' },
  });
  const window = await addJob(to, 'heron-window.svg', 'Heron and moon, tea-room window', {
    customer: 'The tea room at Wick Lock',
    due: inDays(5),
    surface: { kind: 'flat', flat: { widthMm: 420, heightMm: 360, marginMm: { top: 40, right: 40, bottom: 60, left: 40 }, free: [] }, size: { mode: 'width', mm: 230 } },
  });
  await addJob(to, 'weir-anglers.svg', 'Weir Anglers, badge for a landing net', {
    customer: 'The Weir Anglers',
    due: inDays(20),
    surface: { kind: 'flat', flat: { widthMm: 260, heightMm: 170, marginMm: { top: 5, right: 5, bottom: 5, left: 5 }, free: [] }, size: { mode: 'width', mm: 240 } },
    build: { lives: 'washed' },
    assembly: { way: 'tape' },
  });
  await addBakery(to);
  await cutInThePast(to, window, 'narrow-blue', { shareOfEstimate: 1.012, note: 'Weeded cleanly.' });
  await cutInThePast(to, window, 'towpath', { shareOfEstimate: 0.991, note: '' });
}

async function addJob({ jobs, artworks }: Services, fileName: string, title: string, decisions: RecipePatch): Promise<string> {
  const bytes = await readFile(projectPath('demo', 'artwork', fileName));
  const artwork = describeFile(fileName, bytes);
  await artworks.add(artwork, bytes);
  const recipe = patchRecipe(emptyRecipe(title), { ...decisions, artworks: [drawingPart(artwork)] });
  return (await jobs.create(recipe)).id;
}

/** A loaf from a photograph between two letterings, one of them bent over it. */
async function addBakery({ jobs, artworks }: Services): Promise<void> {
  const bytes = await readFile(projectPath('demo', 'artwork', 'loaf.jpg'));
  const loaf = describeFile('loaf.jpg', bytes);
  await artworks.add(loaf, bytes);
  const lettering = (id: string, text: string, yMm: number, more: Partial<Lettering>): LetteringPart => ({ ...letteringPart(id, { ...newLettering(text), ...more }), place: { ...AT_ORIGIN, yMm } });
  const recipe = patchRecipe(emptyRecipe('Lockside Bakery, shop door'), {
    customer: 'The bakery at the lock',
    due: inDays(9),
    artworks: [
      { ...picturePart(loaf), place: { ...AT_ORIGIN, yMm: 128, scale: 0.9 } },
      lettering('name', 'Lockside Bakery', 24, { font: 'lobster', capHeightMm: 34, arc: { radiusMm: 260, bend: 'up' }, colours: ['#6b4a2b'] }),
      lettering('hours', 'FRESH BY SEVEN', 236, { font: 'oswald', capHeightMm: 18, trackingPct: 20, colours: ['#6b4a2b'] }),
    ],
    surface: { kind: 'flat', flat: { widthMm: 420, heightMm: 330, marginMm: { top: 20, right: 20, bottom: 20, left: 20 }, free: [] }, size: { mode: 'own' } },
  });
  await jobs.create(recipe);
}

/** The sheet of a film, cut before the demo began, so that the record has something to show. */
async function cutInThePast(to: Services, jobId: string, filmId: string, how: { shareOfEstimate: number; note: string }): Promise<void> {
  const job = await to.planJob(jobId);
  const { sheets } = await to.compute.plan(job);
  const { sheet, toCut } = await to.compute.sheet(job, sheets!.find((one) => one.film === filmId)!.id);
  const sheetId = await to.sheets.freeze({ ...sheet, restOf: null, groups: sheet.groups.map((group) => ({ ...group, jobId, revision: job.revision })) });
  const { id } = await to.runs.create({ sheetId, who: 'Ilse' });
  const { wholeAt, partOf } = sheet.program;
  const whole = wholeOnPiece({ wholeAt, partOf, contoursOf: contoursOfGroups(sheet.groups) }, sheet.pairsTotal);
  await to.runs.save(id, { state: 'finished', message: '', pairsDone: sheet.pairsTotal, bearings: null, share: 1, actualSeconds: sheet.estimateSeconds * how.shareOfEstimate, whole });
  await to.runs.setRecord(id, { outcome: 'good', note: how.note });
  await to.jobs.setToCut(jobId, { layers: toCut });
}

function inDays(days: number): string {
  return new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);
}
