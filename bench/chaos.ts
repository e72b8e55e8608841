import { setTimeout as sleep } from 'node:timers/promises';
import { hpglHead, hpglRun, HPGL_TAIL } from '../core/engines/cutting/index.js';
import { patchRecipe, type Job } from '../core/recipe/index.js';
import type { PlanReport } from '../core/plan/index.js';
import { ENDED, unpackLists, type FrozenSheet, type Run } from '../core/stations/cut/index.js';
import { seeded } from '../core/testing/seeded.js';
import { runOffline } from '../cutter/run-offline.js';
import { print } from './measure.js';
import { openRealShop, type RealShop } from './processes.js';

/** kill -9 so often for each process. */
const MOMENTS = Number(process.env['LANTERN_MOMENTS'] ?? 200);

const DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" width="240mm" height="180mm" viewBox="0 0 240 180">${Array.from({ length: 108 }, (_, i) => `<path fill="#16181a" fill-rule="evenodd" d="M${12 + (i % 12) * 19} ${10 + Math.floor(i / 12) * 19}m-7 0a7 7 0 1 0 14 0a7 7 0 1 0 -14 0M${12 + (i % 12) * 19} ${10 + Math.floor(i / 12) * 19}m-3 0a3 3 0 1 0 6 0a3 3 0 1 0 -6 0"/>`).join('')}</svg>`;

/** What was wrong with what was cut, over all sheets, by what a maker would call it. */
interface Wrongs {
  sheets: number;
  kills: number;
  twice: number;
  missed: number;
  foreign: number;
  dead: number;
}

type Line = readonly (readonly [number, number])[];

async function traced(shop: RealShop): Promise<Line[]> {
  const { svg } = await shop.control<{ svg: string }>({ do: 'trace' });
  const height = Number(/height="(\d+)mm"/.exec(svg)![1]);
  return [...svg.matchAll(/<path d="M([^"]*)"/g)].map((m) =>
    m[1]!
      .split('L')
      .map((pair) => pair.split(' ').map(Number))
      .map(([x, y]) => [x!, height - y!] as const),
  );
}

const lengthOf = (line: Line) =>
  line.slice(1).reduce((sum, [x, y], i) => sum + Math.hypot(x - line[i]![0], y - line[i]![1]), 0);

/** Lines that a sheet's program cuts when nothing happens. */
async function meantOf(shop: RealShop, sheet: FrozenSheet): Promise<Line[]> {
  const packed = new Uint8Array(await (await fetch(`${shop.url}/api/sheets/${sheet.id}/runs`)).arrayBuffer());
  const hpgl = [hpglHead(sheet), ...unpackLists(packed).flatMap((run) => hpglRun(run)), HPGL_TAIL].join('\n');
  return runOffline(hpgl).lines.map((line) =>
    Array.from({ length: line.length / 2 }, (_, i) => [line[2 * i]!, line[2 * i + 1]!] as const),
  );
}

/** Holds what was cut against what was meant, line by line in order; the first turns the knife, which stood anyhow. An overcut is not twice. */
function compare(cut: readonly Line[], meant: readonly Line[], wrongs: Wrongs): void {
  for (let i = 1; i < Math.max(cut.length, meant.length); i += 1) {
    const [is, should] = [cut[i], meant[i]];
    if (!should) wrongs.foreign += 1;
    else if (!is) wrongs.missed += 1;
    else if (Math.hypot(is[0]![0] - should[0]![0], is[0]![1] - should[0]![1]) > 0.06) wrongs.foreign += 1;
    else if (lengthOf(is) > lengthOf(should) + 0.1) wrongs.twice += 1;
    else if (lengthOf(is) < lengthOf(should) - 0.1) wrongs.missed += 1;
  }
}

async function makeJob(shop: RealShop): Promise<Job> {
  const { body: job } = await shop.api<Job>('POST', '/api/jobs', { title: 'Chaos' });
  const { body: drawn } = await shop.api<Job>(
    'POST',
    `/api/jobs/${job.id}/artwork?fileName=a.svg`,
    new TextEncoder().encode(DRAWING),
  );
  return (
    await shop.api<Job>('PUT', `/api/jobs/${job.id}/recipe`, {
      recipe: patchRecipe(drawn.recipe, { surface: { size: { mode: 'own' } } }),
      revision: drawn.revision,
    })
  ).body;
}

async function startSheet(shop: RealShop): Promise<{ run: Run; sheet: FrozenSheet }> {
  const job = await makeJob(shop);
  const { body: plan } = await shop.api<PlanReport>('GET', `/api/jobs/${job.id}/plan`);
  const started = await shop.api<Run & { title: string }>(
    'POST',
    `/api/batches/${job.id}/sheets/${plan.sheets![0]!.id}/cut`,
    { loadedFilmIds: [plan.sheets![0]!.film], revision: 0 },
  );
  if (started.status !== 200) throw new Error(`A sheet did not start: ${started.body.title}`);
  return { run: started.body, sheet: (await shop.api<FrozenSheet>('GET', `/api/sheets/${started.body.sheetId}`)).body };
}

const runOf = async (shop: RealShop, id: string) => (await shop.api<Run>('GET', `/api/runs/${id}`)).body;

async function until(shop: RealShop, id: string, holds: (run: Run) => boolean): Promise<Run> {
  for (let i = 0; i < 3000; i += 1) {
    const run = await runOf(shop, id);
    if (holds(run)) return run;
    await sleep(20);
  }
  throw new Error(`A run stayed ${(await runOf(shop, id)).state}.`);
}

/** The server is killed again and again while sheets are cut, some of the time held, out of film or jammed; each sheet must come out exact. */
async function killServer(shop: RealShop): Promise<Wrongs> {
  const random = seeded(11);
  const wrongs: Wrongs = { sheets: 0, kills: 0, twice: 0, missed: 0, foreign: 0, dead: 0 };
  while (wrongs.kills < MOMENTS) {
    const { run, sheet } = await startSheet(shop);
    for (;;) {
      await sleep(random() * 500);
      const dice = random();
      if (dice < 0.2) await shop.control({ do: 'fail', how: dice < 0.1 ? 'out-of-film' : 'jammed' });
      else if (dice < 0.4) await shop.api('POST', `/api/runs/${run.id}/pause`);
      else if (dice < 0.5) await shop.control({ do: 'pull-cable', seconds: random() * 0.4 });
      await sleep(random() * 250);
      if (ENDED.includes((await runOf(shop, run.id)).state)) break;
      await shop.server.kill();
      wrongs.kills += 1;
      await sleep(random() * 400);
      await shop.server.start();
      await shop.control({ do: 'clear' });
      await shop.api('POST', `/api/runs/${run.id}/resume`);
      if (wrongs.kills >= MOMENTS) break;
    }
    await shop.control({ do: 'clear' });
    await shop.api('POST', `/api/runs/${run.id}/resume`);
    const ended = await until(shop, run.id, (r) => ENDED.includes(r.state));
    if (ended.state !== 'finished' || !shop.cutter.isRunning) wrongs.dead += 1;
    compare(await traced(shop), await meantOf(shop, sheet), wrongs);
    wrongs.sheets += 1;
  }
  return wrongs;
}

/**
 * The cutter is killed in the middle of each sheet, and so loses its place: the sheet must fail, nothing may be said to be whole that is not,
 * and the rest must be cut whole on a new piece. It is stopped an instant before, so that what lies on the film is known.
 */
async function killCutter(shop: RealShop): Promise<Wrongs> {
  const random = seeded(12);
  const wrongs: Wrongs = { sheets: 0, kills: 0, twice: 0, missed: 0, foreign: 0, dead: 0 };
  while (wrongs.kills < MOMENTS) {
    const { run, sheet } = await startSheet(shop);
    await until(shop, run.id, (r) => r.pairsDone > 0 || ENDED.includes(r.state));
    await sleep(random() * 1400);
    await shop.control({ do: 'fail', how: 'jammed' });
    const cut = await traced(shop);
    const wasOver = ENDED.includes((await runOf(shop, run.id)).state);
    await shop.cutter.kill();
    wrongs.kills += 1;
    await sleep(random() * 100);
    await shop.cutter.start();
    const meant = await meantOf(shop, sheet);
    const failed = await until(shop, run.id, (r) => ENDED.includes(r.state));
    if (!wasOver && failed.state !== 'failed') wrongs.dead += 1;
    compare(
      cut,
      meant.slice(0, cut.length).map((line, i) => (i === cut.length - 1 ? cut[i]! : line)),
      wrongs,
    );
    const wholeLines = cut
      .slice(1)
      .filter((line, i) => Math.abs(lengthOf(line) - lengthOf(meant[i + 1]!)) < 0.1).length;
    const { parts, ofParts } = failed.whole!;
    // A part is a ring of two lines; what is said to be whole must be.
    if (2 * parts > wholeLines) wrongs.missed += 1;
    if (failed.state === 'failed' && parts < ofParts) {
      const how = parts > 0 ? 'rest' : 'again';
      const { body: next } = await shop.api<Run>('POST', `/api/sheets/${sheet.id}/${how}`, {
        loadedFilmIds: [sheet.film.id],
      });
      await until(shop, next.id, (r) => r.state === 'finished');
      const rest = (await shop.api<FrozenSheet>('GET', `/api/sheets/${next.sheetId}`)).body;
      compare(await traced(shop), await meantOf(shop, rest), wrongs);
      const restParts = rest.runs.at(-1)!.whole!.parts;
      if (restParts > ofParts - (how === 'rest' ? parts : 0)) wrongs.twice += 1;
      if (restParts < ofParts - (how === 'rest' ? parts : 0)) wrongs.missed += 1;
    }
    if (!shop.server.isRunning) wrongs.dead += 1;
    wrongs.sheets += 1;
  }
  return wrongs;
}

const told = ({ sheets, kills, twice, missed, foreign, dead }: Wrongs) =>
  `${kills} kills, ${sheets} sheets: ${twice} twice, ${missed} missed, ${foreign} foreign, ${dead} dead`;

/** Each half with a shop of its own; a cutter that is to be killed once a sheet runs faster, so that its moments lie anywhere in the sheet. */
const HALVES = [
  {
    title: 'Cutting while real processes are killed with kill -9 (0 cut twice, 0 missed, 0 foreign, 0 dead)',
    what: 'the server, at random moments of a cut, held, stuck or not',
    timeLapse: 40,
    run: killServer,
  },
  {
    title: 'The same, where the cutter loses its place',
    what: 'the cutter; what is whole is kept, the rest is cut on a new piece',
    timeLapse: 200,
    run: killCutter,
  },
] as const;

export async function chaosBench(): Promise<void> {
  for (const { title, what, timeLapse, run } of HALVES) {
    const shop = await openRealShop(9500, timeLapse);
    try {
      print(title, [[what, told(await run(shop))]]);
    } finally {
      await shop.close();
    }
  }
}
