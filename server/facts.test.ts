import { createServer } from 'node:net';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { patchRecipe, type Job, type JobSummary, type RecipePatch } from '../core/recipe/index.js';
import type { Batch } from '../core/batch/index.js';
import type { PlanReport } from '../core/plan/index.js';
import {
  keyOfPlace,
  type CopyVerdict,
  type FrozenSheet,
  type Run,
  type SheetDecision,
} from '../core/stations/cut/index.js';
import { seeded } from '../core/testing/seeded.js';
import { recordedCuts } from '../core/stations/record/index.js';
import { askCutterControl } from './spooler/cutter-control.js';
import {
  asAtFirst,
  changeRecord,
  cutsOf,
  cutUntil,
  emptyCutter,
  jobWith,
  openBench,
  runUntil,
  startCut,
  type Bench,
} from './testing/bench.js';

/* What has touched film is a fact: it does not change when the job does, and what is to be cut is what is left. */

const DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60">
  <rect x="2" y="2" width="96" height="56" fill="#b3262b"/>
  ${Array.from({ length: 12 }, (_, i) => `<circle cx="${12 + (i % 6) * 15}" cy="${18 + Math.floor(i / 6) * 24}" r="${4 + (i % 3)}" fill="#f7f5ef"/>`).join('')}
  <path d="M20 30h60v4h-60z" fill="#f7f5ef"/>
</svg>`;

let bench: Bench;
let job: Job;
beforeAll(async () => {
  bench = await openBench({ timeLapse: 400 });
});
afterAll(() => bench.close());
beforeEach(async () => {
  await asAtFirst(bench);
  job = await jobWith(bench, DRAWING, (recipe) =>
    patchRecipe(recipe, { surface: { size: { mode: 'own' } }, preparation: { labels: false } }),
  );
});

afterEach(() => emptyCutter(bench));

const plan = async () => (await bench.api<PlanReport>('GET', `/api/jobs/${job.id}/plan`)).body;
const toCut = async () =>
  Object.fromEntries((await plan()).toCut!.map((layer) => [layer.film, [layer.taken, layer.copies]]));
const change = async (patch: RecipePatch) => {
  const { body } = await bench.api<Job>('GET', `/api/jobs/${job.id}`);
  return (
    await bench.api<Job>('PUT', `/api/jobs/${job.id}/recipe`, {
      recipe: patchRecipe(body.recipe, patch),
      revision: body.revision,
    })
  ).body;
};
const finished = (run: Run) => run.state === 'finished';
const cut = async (film: string) => runUntil(bench, (await startCut(bench, job.id, film)).body.id, finished);
const summary = async () => (await bench.api<JobSummary[]>('GET', '/api/jobs')).body.find((one) => one.id === job.id)!;
const judge = async (sheetId: string, verdict: CopyVerdict | null, positions?: readonly number[]) => {
  const { groups } = (await bench.api<FrozenSheet>('GET', `/api/sheets/${sheetId}`)).body;
  return bench.api<FrozenSheet & { code: string }>('PUT', `/api/sheets/${sheetId}/verdicts`, {
    positions: positions ?? groups.map((_, i) => i),
    verdict,
  });
};
const decide = (sheet: FrozenSheet, decided: SheetDecision | null) =>
  bench.api<FrozenSheet & { code: string }>('POST', `/api/sheets/${sheet.id}/decide`, { decided });

/** Cuts a sheet until so much of it is done, then ends its run. */
async function cutInPart(film: string, share: number, how: 'cancel' | 'power-cut'): Promise<FrozenSheet> {
  const run = await cutUntil(bench, job.id, film, share);
  if (how === 'cancel') await bench.api('POST', `/api/runs/${run.id}/cancel`);
  else await bench.api('POST', '/api/cutter/control', { do: 'power-cut' });
  await runUntil(bench, run.id, (r) => r.state === (how === 'cancel' ? 'cancelled' : 'failed'));
  if (how === 'cancel') await bench.api('POST', '/api/cutter/control', { do: 'clear' });
  return (await cutsOf(bench, job.id)).find((sheet) => sheet.id === run.sheetId)!;
}

describe('a sheet that was cut', () => {
  it('is not the sheet of another film', async () => {
    await cut('lock-gate');
    expect(await toCut()).toEqual({ 'lock-gate': [1, 1], chalk: [0, 1] });
    await change({ films: { byColour: { '#b3262b': 'towpath' } } });
    expect(await toCut()).toEqual({ towpath: [0, 1], chalk: [0, 1] });
    // Back again, it fits again.
    await change({ films: { byColour: {} } });
    expect(await toCut()).toEqual({ 'lock-gate': [1, 1], chalk: [0, 1] });
  });

  it('is one copy when five are wanted, and the other four are laid out', async () => {
    await cut('lock-gate');
    await change({ sheets: { copies: 5 } });
    const { sheets, toCut } = await plan();
    expect(toCut!.find((layer) => layer.film === 'lock-gate')).toEqual({
      film: 'lock-gate',
      panel: 1,
      perStrip: 1,
      areaMm2: expect.closeTo(4389.44, 1) as number,
      copies: 5,
      taken: 1,
    });
    expect(sheets!.filter((sheet) => sheet.film === 'lock-gate').reduce((sum, sheet) => sum + sheet.groups, 0)).toBe(4);
  });

  it('keeps its figures, its drawing and its revision whatever becomes of the job', async () => {
    await cut('lock-gate');
    const [before] = await cutsOf(bench, job.id);
    const bytes = async (what: string) =>
      Buffer.from(await (await fetch(`${bench.server.url}/api/sheets/${before!.id}/${what}`)).arrayBuffer()).toString(
        'hex',
      );
    const drawing = async () => [await bytes('outlines'), await bytes('runs')];
    const drawn = await drawing();
    await change({ title: 'Other', surface: { size: { mode: 'width', mm: 60 } }, sheets: { copies: 3 } });
    await changeRecord(bench, 'films', 'lock-gate', { thinnestMm: 2 });
    const [after] = await cutsOf(bench, job.id);
    expect(after).toEqual(before);
    expect(await drawing()).toEqual(drawn);
    expect([after!.groups[0]!.revision, (await toCut())['lock-gate']]).toEqual([job.revision, [0, 3]]);
  });

  it('that is to be remade is back among what is to be cut, exactly, and nothing else is', async () => {
    await change({ sheets: { copies: 2 } });
    const run = await cut('lock-gate');
    await cut('chalk');
    expect((await summary()).state).toBe('cut');
    await judge(run.sheetId, 'spoiled');
    expect(await toCut()).toEqual({ 'lock-gate': [0, 2], chalk: [2, 2] });
    expect([(await plan()).sheets!.map((sheet) => sheet.film), (await summary()).state]).toEqual([
      ['lock-gate'],
      'in work',
    ]);
    await judge(run.sheetId, 'good');
    expect([(await plan()).sheets, (await summary()).state]).toEqual([[], 'cut']);
  });

  it('leaves a job cut that is renamed, and not one that is changed', async () => {
    for (const film of ['lock-gate', 'chalk']) await cut(film);
    await change({ title: 'Renamed', customer: 'Someone' });
    expect((await summary()).state).toBe('cut');
    await change({ sheets: { copies: 2 } });
    expect((await summary()).state).toBe('in work');
  });
});

describe('sending a sheet', () => {
  it('is refused when the sheet, or what is decided of its batch, is not what was looked at', async () => {
    const looked = (await plan()).sheets!.find(({ film }) => film === 'lock-gate')!;
    const { wish } = (await bench.api<Batch>('GET', `/api/batches/${job.id}`)).body;
    const ask = (revision: number) =>
      bench.api<{ code: string }>('POST', `/api/batches/${job.id}/sheets/${looked.id}/cut`, {
        loadedFilmIds: ['lock-gate'],
        revision,
      });
    await change({ sheets: { copies: 2 } });
    const stale = await ask(0);
    expect([stale.status, stale.body.code]).toEqual([422, 'sheet-changed']);
    await change({ sheets: { copies: 1 } });
    await bench.api('PATCH', `/api/batches/${job.id}`, { revision: 0, wish: { ...wish, order: 'smallest' } });
    const decided = await ask(0);
    expect([decided.status, decided.body.code]).toEqual([409, 'sheet-changed']);
    expect(await cutsOf(bench, job.id)).toEqual([]);
    expect((await ask(1)).status).toBe(200);
  });

  it('is refused when the sheet is not in the plan any more', async () => {
    const { sheets } = await plan();
    await cut('lock-gate');
    const again = await bench.api<{ code: string }>(
      'POST',
      `/api/batches/${job.id}/sheets/${sheets!.find((sheet) => sheet.film === 'lock-gate')!.id}/cut`,
      { loadedFilmIds: ['lock-gate'], revision: 0 },
    );
    expect([again.status, again.body.code]).toEqual([422, 'sheet-changed']);
    expect(await cutsOf(bench, job.id)).toHaveLength(1);
  });

  it('is refused when something stops the job: twenty copies with film for ten', async () => {
    const { shop } = bench.server.services;
    const stock = await shop.get();
    await shop.fill({
      ...stock,
      stock: stock.stock.map((piece) =>
        piece.filmId !== 'lock-gate' ? piece : { ...piece, left: piece.kind === 'roll' ? 300 : 0 },
      ),
    });
    await change({ sheets: { copies: 20 } });
    const report = await plan();
    const finding = report.findings.find((one) => one.code === 'film-used-up')!;
    expect([finding.severity, finding.message]).toEqual(['blocker', expect.stringMatching(/ for \d+ of 20 copies/)]);
    const refused = await startCut(bench, job.id, 'lock-gate');
    expect([refused.status, refused.body.code, refused.body.title]).toEqual([
      422,
      'blocked',
      expect.stringMatching(/^Nothing was cut, because .*There is not enough Lock-gate red for 9 layers/),
    ]);
    // The remedy remedies.
    await change({ sheets: { copies: Number(/for (\d+) of/.exec(finding.message)![1]) } });
    expect((await startCut(bench, job.id, 'lock-gate')).status).toBe(200);
  });

  it('keeps the job from being deleted until it is out of the cutter', async () => {
    await bench.api('POST', '/api/cutter/control', { do: 'time-lapse', factor: 1 });
    const { body: run } = await startCut(bench, job.id, 'lock-gate');
    const refused = await bench.api<{ code: string }>('DELETE', `/api/jobs/${job.id}`);
    expect([refused.status, refused.body.code]).toEqual([409, 'job-in-cutter']);
    expect((await bench.api<{ busy: { jobId: string; runId: string } }>('GET', '/api/cutter')).body.busy).toMatchObject(
      { jobId: job.id, jobTitle: 'Test', runId: run.id, filmName: 'Lock-gate red' },
    );
    await bench.api('POST', `/api/runs/${run.id}/cancel`);
    expect((await bench.api('DELETE', `/api/jobs/${job.id}`)).status).toBe(200);
    expect((await bench.api('GET', '/api/cutter')).body).toEqual({ busy: null });
  });
});

describe('a cut that failed', () => {
  it.each(['cancel', 'power-cut'] as const)(
    'leaves what is whole, and offers the rest, whole, for a new piece: %s',
    async (how) => {
      const sheet = await cutInPart('chalk', 0.5, how);
      const { whole } = sheet.runs[0]!;
      expect([whole!.ofParts, whole!.ofCopies, whole!.copies]).toEqual([13, 1, 0]);
      expect(whole!.parts).toBeGreaterThan(2);
      // Nothing of it is planned anew before that is decided.
      expect((await toCut())['chalk']).toEqual([1, 1]);
      const { body: run } = await bench.api<Run>('POST', `/api/sheets/${sheet.id}/rest`, { loadedFilmIds: ['chalk'] });
      await runUntil(bench, run.id, finished);
      const rest = (await cutsOf(bench, job.id)).find((one) => one.restOf === sheet.id)!;
      const [group] = rest.groups;
      expect(rest.runs[0]!.whole).toEqual({
        parts: 13 - whole!.parts,
        ofParts: 13 - whole!.parts,
        copies: 1,
        ofCopies: 1,
        byCopy: null,
      });
      // Its marks and its border come with it, or it could neither be laid true nor weeded.
      expect([group!.contours, group!.marks, group!.borders]).toEqual([13 - whole!.parts, sheet.groups[0]!.marks, 1]);
      await cut('lock-gate');
      expect((await summary()).state).toBe('cut');
      expect(
        (await bench.api<{ code: string }>('POST', `/api/sheets/${sheet.id}/rest`, { loadedFilmIds: ['chalk'] })).body
          .code,
      ).toBe('sheet-decided');
    },
  );

  it('can be thrown away, and that taken back', async () => {
    const sheet = await cutInPart('chalk', 0.3, 'cancel');
    await decide(sheet, 'thrown-away');
    expect((await toCut())['chalk']).toEqual([0, 1]);
    await decide(sheet, null);
    expect((await toCut())['chalk']).toEqual([1, 1]);
    expect((await decide(sheet, 'kept')).body.code).toBe('parts-missing');
  });

  it('can be kept when only its border is missing', async () => {
    const sheet = await cutInPart('chalk', 0.985, 'cancel');
    expect(sheet.runs[0]!.whole).toMatchObject({ parts: 13, ofParts: 13 });
    expect(
      (await bench.api<{ code: string }>('POST', `/api/sheets/${sheet.id}/rest`, { loadedFilmIds: ['chalk'] })).body
        .code,
    ).toBe('nothing-open');
    expect((await decide(sheet, 'kept')).status).toBe(200);
    await cut('lock-gate');
    expect((await summary()).state).toBe('cut');
  });

  it('is cut again as it was, on a new piece', async () => {
    const sheet = await cutInPart('chalk', 0.3, 'power-cut');
    const wrong = await bench.api<{ code: string }>('POST', `/api/sheets/${sheet.id}/again`, {
      loadedFilmIds: ['tar'],
    });
    expect(wrong.body.code).toBe('wrong-film');
    const { body: run } = await bench.api<Run>('POST', `/api/sheets/${sheet.id}/again`, { loadedFilmIds: ['chalk'] });
    await runUntil(bench, run.id, finished);
    const [after] = await cutsOf(bench, job.id);
    expect([after!.id, after!.runs.map((one) => one.state)]).toEqual([sheet.id, ['failed', 'finished']]);
  });

  it('counts for nothing when nothing was cut of it', async () => {
    await bench.api('POST', '/api/cutter/control', { do: 'fail', how: 'jammed' });
    const { body: run } = await startCut(bench, job.id, 'chalk');
    await runUntil(bench, run.id, (r) => r.state === 'stuck');
    await bench.api('POST', `/api/runs/${run.id}/cancel`);
    expect((await toCut())['chalk']).toEqual([0, 1]);
  });
});

describe('ticks of the weed map', () => {
  const tick = (sheet: FrozenSheet, place: object, ticked = true) => tickAll(sheet, [place], ticked);
  const tickAll = (sheet: FrozenSheet, places: readonly object[], ticked = true) =>
    bench.api<FrozenSheet & { code: string }>('PUT', `/api/sheets/${sheet.id}/ticks`, {
      places: places.map((place) => ({ position: 0, ...place })),
      ticked,
    });

  it('stay with the place and the copy, also when the drawing is turned', async () => {
    await cut('lock-gate');
    const [sheet] = await cutsOf(bench, job.id);
    const places = sheet!.groups[0]!.weedPlaces;
    expect(places.length).toBeGreaterThan(10);
    await tick(sheet!, places[3]!);
    await tick(sheet!, places[3]!);
    await tick(sheet!, places[5]!);
    await tick(sheet!, places[5]!, false);
    const { recipe } = (await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body;
    await change({ artworks: recipe.artworks.map((part) => ({ ...part, place: { ...part.place, turnDeg: 90 } })) });
    await bench.restartServer();
    expect((await cutsOf(bench, job.id))[0]!.groups[0]!.ticked.map(keyOfPlace)).toEqual([keyOfPlace(places[3]!)]);
    expect((await toCut())['lock-gate']).toEqual([0, 1]);
  });

  it('are refused for a place that the copy has not', async () => {
    await cut('lock-gate');
    const [sheet] = await cutsOf(bench, job.id);
    expect((await tick(sheet!, { kind: 'counter', xMm: 1, yMm: 1 })).body.code).toBe('place-unknown');
    // Of many, one of which is not there, none is ticked.
    const { weedPlaces } = sheet!.groups[0]!;
    expect((await tickAll(sheet!, [...weedPlaces, { kind: 'counter', xMm: 1, yMm: 1 }])).body.code).toBe(
      'place-unknown',
    );
    expect(
      (
        await tickAll(
          sheet!,
          weedPlaces.map((place) => ({ ...place, position: 1 })),
        )
      ).body.code,
    ).toBe('place-unknown');
    expect((await cutsOf(bench, job.id))[0]!.groups[0]!.ticked).toEqual([]);
  });

  it.each([1, 2, 3])(
    'are what was last said of each place, whoever says it in whatever order and however many at once, seed %i',
    async (seed) => {
      await cut('lock-gate');
      const [sheet] = await cutsOf(bench, job.id);
      const { weedPlaces } = sheet!.groups[0]!;
      const random = seeded(seed);
      const expected = new Set<number>();
      for (let round = 0; round < 12; round += 1) {
        const some = weedPlaces.map((_, i) => i).filter(() => random() < 0.3);
        const ticked = random() < 0.6;
        if (some.length === 0) continue;
        for (const i of some) {
          if (ticked) expected.add(i);
          else expected.delete(i);
        }
        await tickAll(
          sheet!,
          some.map((i) => weedPlaces[i]!),
          ticked,
        );
        if (round % 5 === 4) await bench.restartServer();
      }
      const { ticked } = (await cutsOf(bench, job.id))[0]!.groups[0]!;
      const key = ({ kind, xMm, yMm }: { kind: string; xMm: number; yMm: number }) => `${kind} ${xMm} ${yMm}`;
      expect(ticked.map(key).sort()).toEqual([...expected].map((i) => key(weedPlaces[i]!)).sort());
    },
  );

  it('of a copy with nothing to look for say that all is out, and nobody is asked for them', async () => {
    const square = await jobWith(
      bench,
      '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40"><path fill="#f7f5ef" d="M0 0h40v40H0z"/></svg>',
    );
    const run = (await startCut(bench, square.id, 'chalk')).body;
    await runUntil(bench, run.id, finished);
    const [sheet] = await cutsOf(bench, square.id);
    expect(sheet!.groups[0]!.weedPlaces).toEqual([{ kind: 'all out', xMm: 0, yMm: 0 }]);
    expect(recordedCuts([sheet!], square.id).unweeded).toEqual([]);
    await tick(sheet!, { kind: 'all out', xMm: 0, yMm: 0 });
    expect((await cutsOf(bench, square.id))[0]!.groups[0]!.ticked).toEqual([{ kind: 'all out', xMm: 0, yMm: 0 }]);
  });
});

describe('the cutter’s control port', () => {
  const answering = async (answer: string | null) => {
    const server = createServer((socket) => {
      socket.on('error', () => {});
      socket.resume();
      if (answer === null) socket.destroy();
      else socket.write(answer);
    });
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const { port } = server.address() as { port: number };
    const outcome = await askCutterControl('127.0.0.1', port, { do: 'status' }).catch(
      (error: { code: string }) => error.code,
    );
    await new Promise((done) => server.close(done));
    return outcome;
  };

  it('may answer what it likes, or nothing, and the server lives', async () => {
    expect(await answering('{"state":"idle"}\n')).toEqual({ state: 'idle' });
    expect(await answering('not json\n')).toBe('cutter-answer');
    expect(await answering(null)).toBe('cutter-unreachable');
  });

  it.each([
    'null',
    '[]',
    '{"do":"pull-cable","seconds":"soon"}',
    '{"do":"time-lapse","factor":-1}',
    'nonsense',
    '{"do":"dance"}',
  ])('refuses %s in a sentence and lives', async (line) => {
    const socket = await import('node:net').then(({ connect }) =>
      connect({ host: '127.0.0.1', port: bench.server.services.cutterControlPort }),
    );
    socket.write(`${line}\n`);
    const answer = await new Promise<string>((resolve) =>
      socket.once('data', (data: Buffer) => resolve(data.toString())),
    );
    socket.destroy();
    expect(JSON.parse(answer)).toEqual({
      error: expect.stringMatching(/^(A request is|This cutter does not)/) as string,
    });
    expect((await bench.api<{ state: string }>('POST', '/api/cutter/control', { do: 'status' })).body.state).toBe(
      'idle',
    );
  });
});
