import type { Told } from './compute/compute.js';
import { readFileSync } from 'node:fs';
import { request } from 'node:http';
import { Resvg } from '@resvg/resvg-js';
import { PNG as ReadPng } from 'pngjs';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { letteringPart, newLettering, type LetteringPart } from '../core/stations/artwork/index.js';
import { emptyRecipe, patchRecipe, type Job, type JobSummary } from '../core/recipe/index.js';
import type { PlanReport } from '../core/plan/index.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import type { OwnFont } from './stores/font-store.js';
import { seeded } from '../core/testing/seeded.js';
import { apiPage } from './api-page.js';
import { apiRoutes } from './app.js';
import { enterRoutes } from './routes/device-routes.js';
import { changeRecord, jobWith, openBench, type Bench } from './testing/bench.js';

const HERON = readFileSync('demo/artwork/heron-window.svg');
interface ProblemBody {
  readonly code: string;
  readonly title: string;
}

let bench: Bench;
beforeAll(async () => {
  bench = await openBench();
});
afterAll(() => bench.close());

const titles = async (query = '') =>
  (await bench.api<JobSummary[]>('GET', `/api/jobs${query}`)).body.map((job) => job.title);
const rename = (job: Job, title: string) =>
  bench.api<Job & ProblemBody>('PUT', `/api/jobs/${job.id}/recipe`, {
    recipe: { ...job.recipe, title },
    revision: job.revision,
  });

describe('jobs', () => {
  it('are made, found, duplicated, deleted and brought back', async () => {
    const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: 'Lock keeper’s plate' });
    expect(job).toMatchObject({ title: 'Lock keeper’s plate', state: 'new', canUndo: false });
    expect(await titles('?search=keeper')).toEqual(['Lock keeper’s plate']);
    expect(await titles('?search=keeper&state=cut')).toEqual([]);
    const { body: copy } = await bench.api<Job>('POST', `/api/jobs/${job.id}/duplicate`);
    expect(copy.title).toBe('Lock keeper’s plate (copy)');
    await bench.api('DELETE', `/api/jobs/${job.id}`);
    expect(await titles('?search=keeper')).toEqual(['Lock keeper’s plate (copy)']);
    expect(await titles('?search=keeper&deleted=yes')).toEqual(['Lock keeper’s plate']);
    await bench.api('POST', `/api/jobs/${job.id}/restore`);
    expect((await titles('?search=keeper')).sort()).toEqual(['Lock keeper’s plate', 'Lock keeper’s plate (copy)']);
    expect(await titles('?deleted=yes')).toEqual([]);
  });

  it('come back as they were after a restart, history and all', async () => {
    const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: 'One' });
    await rename(job, 'Two');
    await bench.restartServer();
    const { body: undone } = await step(job.id, 'undo', 2);
    expect(undone).toMatchObject({ title: 'One', canUndo: false, canRedo: true });
    const { body: redone } = await step(job.id, 'redo', undone.revision);
    expect(redone).toMatchObject({ title: 'Two', canRedo: false });
  });

  it('forget what was undone once something else is decided', async () => {
    const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: 'A' });
    await rename(job, 'B');
    const { body: back } = await step(job.id, 'undo', 2);
    const { body: other } = await rename(back, 'C');
    expect(other.canRedo).toBe(false);
    expect((await step(job.id, 'redo', other.revision)).body.title).toBe('C');
  });

  it('have revisions that only grow, also through undo and redo, so that a page that is behind overwrites nothing', async () => {
    const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: 'A' });
    const { body: seen } = await rename(job, 'B');
    const { body: back } = await step(job.id, 'undo', seen.revision);
    const { body: other } = await rename(back, 'C');
    expect([back.revision, other.revision]).toEqual([seen.revision + 1, seen.revision + 2]);
    const stale = await rename(seen, 'D');
    expect([stale.status, stale.body.code]).toEqual([409, 'job-changed']);
    expect((await step(job.id, 'undo', seen.revision)).status).toBe(409);
    expect((await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body.title).toBe('C');
  });

  it('take an edit once, however often it is sent', async () => {
    const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: 'A' });
    const send = () =>
      bench.api<Job>('PUT', `/api/jobs/${job.id}/recipe`, {
        recipe: { ...job.recipe, title: 'B' },
        revision: job.revision,
        edit: 'edit-1',
      });
    const [first, again] = [await send(), await send()];
    expect([first.status, again.status, again.body.revision]).toEqual([200, 200, first.body.revision]);
    const undo = () =>
      bench.api<Job>('POST', `/api/jobs/${job.id}/undo`, { revision: first.body.revision, edit: 'edit-2' });
    await undo();
    expect((await undo()).body).toMatchObject({ title: 'A', canRedo: true });
  });

  it.each(Array.from({ length: 6 }, (_, seed) => seed))(
    'lose no edit and take none twice when many hands write at once, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: '0' });
      const revisions: number[] = [];
      const hand = async (name: string) => {
        for (let done = 0; done < 4;) {
          const { body: seen } = await bench.api<Job>('GET', `/api/jobs/${job.id}`);
          const edit = `${name}-${done}`;
          const act = () =>
            random() < 0.2
              ? step(job.id, random() < 0.5 ? 'undo' : 'redo', seen.revision, edit)
              : bench.api<Job>('PUT', `/api/jobs/${job.id}/recipe`, {
                  recipe: { ...seen.recipe, title: `${seen.recipe.title} ${edit}`.slice(-190) },
                  revision: seen.revision,
                  edit,
                });
          const answer = await act();
          if (answer.status === 200) {
            done += 1;
            if (answer.body.revision > seen.revision) revisions.push(answer.body.revision);
          } else
            expect([
              answer.status,
              seen.revision < (await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body.revision,
            ]).toEqual([409, true]);
        }
      };
      await Promise.all(['a', 'b', 'c'].map(hand));
      // Every write that changed something got a number of its own, and there are no others.
      expect([...revisions].sort((a, b) => a - b)).toEqual(Array.from({ length: revisions.length }, (_, i) => i + 2));
    },
  );

  it('are not overwritten from a second window', async () => {
    const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: 'A' });
    await rename(job, 'B');
    const late = await rename(job, 'C');
    expect([late.status, late.body.code]).toEqual([409, 'job-changed']);
    expect((await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body.title).toBe('B');
  });
});

const step = (id: string, name: 'undo' | 'redo', revision: number, edit?: string) =>
  bench.api<Job>('POST', `/api/jobs/${id}/${name}`, { revision, ...(edit ? { edit } : {}) });

describe('the shop', () => {
  it('is not overwritten by a page that is behind', async () => {
    const { body: shop } = await bench.api<{ revision: number }>('GET', '/api/shop');
    const change = (thinnestMm: number) => changeRecord(bench, 'films', 'tar', { thinnestMm }, shop.revision);
    expect((await change(1.1)).body.revision).toBe(shop.revision + 1);
    const stale = await change(1.3);
    expect([stale.status, stale.body.code]).toEqual([409, 'shop-changed']);
    // Another entry was not changed, so that one is written.
    expect((await changeRecord(bench, 'cutters', 'bench', { repeatabilityMm: 0.1 }, shop.revision)).status).toBe(200);
  });
});

describe('artwork', () => {
  it('is kept to the byte and given back as a download', async () => {
    const job = await jobWith(bench, HERON);
    const response = await fetch(`${bench.server.url}/api/artworks/${job.recipe.artworks[0]!.id}`);
    expect(Buffer.from(await response.arrayBuffer()).equals(HERON)).toBe(true);
    expect(response.headers.get('content-disposition')).toMatch(/^attachment/);
  });

  it.each([
    ['empty', '', 'empty-file'],
    ['not XML', 'hello', 'not-xml'],
    ['not an SVG', '<html/>', 'not-svg'],
    ['cut off', '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1 1">', 'not-xml'],
  ])('that is %s is refused with a sentence, and the job keeps what it had', async (_, text, code) => {
    const job = await jobWith(bench, HERON);
    const bad = await bench.api<ProblemBody>(
      'POST',
      `/api/jobs/${job.id}/artwork?fileName=bad.svg`,
      new TextEncoder().encode(text),
    );
    expect([bad.status, bad.body.code]).toEqual([422, code]);
    expect(bad.body.title).toMatch(/[a-z]{3}.*\.?$/);
    expect((await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body.recipe.artworks).toEqual(job.recipe.artworks);
  });

  const post = (id: string, query: string, bytes: Uint8Array) =>
    bench.api<Job & { notes: string[] }>('POST', `/api/jobs/${id}/artwork?${query}`, bytes);
  const RED = new TextEncoder().encode(
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><rect width="10" height="10" fill="#b3262b"/></svg>',
  );
  const NEAR = new TextEncoder().encode(
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><rect width="10" height="10" fill="#b3272c"/></svg>',
  );
  const PNG = new Uint8Array(
    new Resvg(
      '<svg xmlns="http://www.w3.org/2000/svg" width="60" height="60"><rect width="60" height="60" fill="#fff"/><circle cx="30" cy="30" r="20" fill="#1d4e89"/></svg>',
    )
      .render()
      .asPng(),
  );

  it('is added to what a job has, and the design kept at its size from then on', async () => {
    const job = await jobWith(bench, RED);
    const { status, body } = await post(job.id, 'fileName=logo.png', PNG);
    expect(status).toBe(200);
    expect(body.recipe.artworks.map((part) => part.kind)).toEqual(['drawing', 'picture']);
    expect(body.recipe.surface.size).toEqual({ mode: 'own' });
    expect((await bench.api<PlanReport>('GET', `/api/jobs/${job.id}/plan`)).body.layers).toHaveLength(2);
  });

  it('may be a PDF, of which a page is made, and which keeps its page and its colours in a new version', async () => {
    const pdf = (name: string) => new Uint8Array(readFileSync(`core/testing/pdfs/${name}.pdf`));
    const { body: empty } = await bench.api<Job>('POST', '/api/jobs', { title: 'From a PDF' });
    const { body: job } = await post(empty.id, 'fileName=pages.pdf', pdf('pages'));
    expect(job.recipe.artworks).toMatchObject([{ kind: 'drawing', page: 1 }]);
    const [part] = job.recipe.artworks;
    const { body: second } = await bench.api<Job>('PUT', `/api/jobs/${job.id}/recipe`, {
      recipe: { ...job.recipe, artworks: [{ ...part, page: 2, group: 'g', recolour: { '#1c4f89': '#1f6b45' } }] },
      revision: job.revision,
    });
    expect((await bench.api<PlanReport>('GET', `/api/jobs/${job.id}/plan`)).body.layers).toMatchObject([
      { film: 'towpath' },
    ]);
    const { body: again } = await post(
      job.id,
      `fileName=pages-2.pdf&replaces=${part!.id}`,
      Uint8Array.of(...pdf('pages'), 10),
    );
    expect(again.recipe.artworks).toMatchObject([
      { page: 2, group: 'g', recolour: { '#1c4f89': '#1f6b45' }, source: { fileName: 'pages-2.pdf' } },
    ]);
    const { body: single } = await post(job.id, `fileName=one.pdf&replaces=${part!.id}`, pdf('gs-1'));
    expect(single.recipe.artworks).toMatchObject([{ page: 1, group: 'g' }]);
    expect(second.revision).toBeLessThan(single.revision);
    const locked = await bench.api<ProblemBody>(
      'POST',
      `/api/jobs/${job.id}/artwork?fileName=locked.pdf`,
      pdf('locked'),
    );
    expect([locked.status, locked.body.code]).toEqual([422, 'pdf-encrypted']);
    expect(locked.body.title).toContain('password');
  });

  it('takes the place of an older version with the decisions that still apply, as one step', async () => {
    const job = await jobWith(bench, RED, (recipe) =>
      patchRecipe(recipe, { films: { byColour: { '#b3262b': 'ember' } } }),
    );
    const { body } = await post(job.id, `fileName=next.svg&replaces=${job.recipe.artworks[0]!.id}`, NEAR);
    expect(body.recipe.films.byColour).toEqual({ '#b3272c': 'ember' });
    expect(body.notes).toEqual(['Your decisions for vivid red (#b3262b) now apply to vivid red (#b3272c).']);
    const undone = (await step(job.id, 'undo', body.revision)).body;
    expect(undone.recipe).toEqual(job.recipe);
  });

  it.each([
    ['a picture that is cut off', PNG.slice(0, 80), 'picture-damaged'],
    ['a version of a part that is gone', NEAR, 'part-unknown'],
  ])('is refused when it is %s', async (_, bytes, code) => {
    const job = await jobWith(bench, RED);
    const { status, body } = await bench.api<ProblemBody>(
      'POST',
      `/api/jobs/${job.id}/artwork?fileName=a${code === 'part-unknown' ? '&replaces=nobody' : ''}`,
      bytes,
    );
    expect([status, body.code]).toEqual([422, code]);
  });

  it('that is too large is refused before it is read', async () => {
    const job = await jobWith(bench, HERON);
    const status = await new Promise((resolve, reject) => {
      const sending = request(
        `${bench.server.url}/api/jobs/${job.id}/artwork`,
        {
          method: 'POST',
          headers: { 'Content-Type': 'application/octet-stream', 'Content-Length': String(100 * 1024 * 1024) },
        },
        (response) => resolve(response.statusCode),
      );
      sending.on('error', reject);
      sending.flushHeaders();
    });
    expect(status).toBe(413);
  });
});

describe('fonts', () => {
  it('are added once, listed, and set words in a job', async () => {
    const lobster = new Uint8Array(
      await resourcesInNode.fontFile('@expo-google-fonts/lobster/400Regular/Lobster_400Regular.ttf'),
    );
    const added = (await bench.api<OwnFont>('POST', '/api/fonts?fileName=mine.ttf', lobster)).body;
    const again = (await bench.api<OwnFont>('POST', '/api/fonts?fileName=copy.ttf', lobster)).body;
    expect(again).toEqual(added);
    expect((await bench.api<OwnFont[]>('GET', '/api/fonts')).body).toEqual([added]);
    expect(added.name).toContain('Lobster');
    const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: 'Words' });
    const part: LetteringPart = {
      ...letteringPart('w', { ...newLettering('Wick'), font: `own:${added.source.id}` }),
      fontSource: added.source,
    };
    const put = await bench.api<Job>('PUT', `/api/jobs/${job.id}/recipe`, {
      recipe: { ...job.recipe, artworks: [part] },
      revision: job.revision,
    });
    expect([put.status, put.body.state, put.body.words]).toEqual([200, 'in work', 'Wick']);
    expect((await bench.api<PlanReport>('GET', `/api/jobs/${job.id}/plan`)).body.layers).toHaveLength(1);
  });

  it('that cannot be read are refused with a sentence', async () => {
    const { status, body } = await bench.api<ProblemBody>(
      'POST',
      '/api/fonts?fileName=no.ttf',
      new TextEncoder().encode('no font'),
    );
    expect([status, body.code]).toEqual([422, 'font-unreadable']);
  });
});

describe('the plan', () => {
  it('is computed by a worker and reported', async () => {
    const job = await jobWith(bench, HERON, (recipe) =>
      patchRecipe(recipe, { surface: { size: { mode: 'width', mm: 120 } } }),
    );
    const { body } = await bench.api<PlanReport>('GET', `/api/jobs/${job.id}/plan`);
    expect(body.design?.widthMm).toBe(120);
    expect(body.layers).toHaveLength(4);
  });

  it('tells its progress as it goes', async () => {
    const job = await jobWith(bench, HERON);
    const text = await (await fetch(`${bench.server.url}/api/jobs/${job.id}/plan/events`)).text();
    const events = [...text.matchAll(/^event: (\w+)/gm)].map((m) => m[1]);
    expect(events.at(-1)).toBe('report');
    expect(events.filter((event) => event === 'progress').length).toBeGreaterThan(2);
  });

  it('leaves the server free to answer meanwhile', async () => {
    const job = await jobWith(bench, manyDots(1200));
    let planned = false;
    const plan = bench.api('GET', `/api/jobs/${job.id}/plan`).then(() => (planned = true));
    let answers = 0;
    while (!planned && answers < 5) {
      await bench.api('GET', '/api/shop');
      answers += 1;
    }
    expect(answers).toBe(5);
    await plan;
  });

  it('lets a small file in while two large drawings are planned', async () => {
    const heavy = await Promise.all([0, 1].map((n) => jobWith(bench, manyDots(1200 + n))));
    const ended: string[] = [];
    const plans = heavy.map((one, n) =>
      bench.api('GET', `/api/jobs/${one.id}/plan`).then(() => ended.push(`plan ${n}`)),
    );
    await jobWith(
      bench,
      '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40"><rect width="40" height="40"/></svg>',
    );
    ended.push('small');
    await Promise.all(plans);
    expect(ended[0]).toBe('small');
  });

  it('answers a small plan while two large ones and a search go on, and each of those in the end', async () => {
    const heavy = await Promise.all([0, 1].map((n) => jobWith(bench, manyDots(2000 + n))));
    const [small, other] = [await jobWith(bench, manyDots(20)), await jobWith(bench, manyDots(60))];
    const { body: batch } = await bench.api<{ id: string; revision: number }>('POST', '/api/batches', {
      jobIds: [other.id],
    });
    const ended: string[] = [];
    const ends = (name: string, answer: Promise<{ status: number }>) =>
      answer.then(({ status }) => ended.push(`${name} ${status}`));
    const busy = [
      ends('search', bench.api('POST', `/api/batches/${batch.id}/search`, { revision: batch.revision, seconds: 3 })),
      ...heavy.map((one, n) => ends(`large ${n}`, bench.api('GET', `/api/jobs/${one.id}/plan`))),
    ];
    await ends('small', bench.api('GET', `/api/jobs/${small.id}/plan`));
    expect(ended).toEqual(['small 200']);
    await Promise.all(busy);
    expect([...ended].sort()).toEqual(['large 0 200', 'large 1 200', 'search 200', 'small 200']);
  });

  it('is given up when nobody waits for it any more, and made once for all who do', async () => {
    const { sourceOfJob, compute } = bench.server.services;
    const source = await sourceOfJob((await jobWith(bench, manyDots(1200))).id);
    const leave = new AbortController();
    const left = compute.plan(source, { signal: leave.signal, onProgress: () => leave.abort(new Error('left')) });
    await expect(left).rejects.toThrow('left');
    // Had it gone on, it would be known by now, or its first steps be over.
    const steps: number[][] = [[], []];
    const [one, two] = await Promise.all(steps.map((mine) => compute.plan(source, { onProgress: tellDone(mine) })));
    expect(two).toBe(one);
    expect(steps[0]![0]).toBeLessThan(0.2);
    expect(steps[1]).toEqual(steps[0]);
    // And a plan that is known is answered whatever else is asked for.
    const again: number[] = [];
    expect(await compute.plan(source, { onProgress: tellDone(again) })).toBe(one);
    expect(again).toEqual([]);
  });

  it('frees its place when the page that asked goes away', async () => {
    const [heavy, small] = [await jobWith(bench, manyDots(1200)), await jobWith(bench, manyDots(20))];
    const leave = new AbortController();
    const asked = fetch(`${bench.server.url}/api/jobs/${heavy.id}/plan`, { signal: leave.signal }).then(
      () => 'answered',
      () => 'left',
    );
    const small1 = bench.api<PlanReport>('GET', `/api/jobs/${small.id}/plan`);
    leave.abort();
    expect(await asked).toBe('left');
    expect((await small1).status).toBe(200);
    const known = await bench.server.services.sourceOfJob(heavy.id);
    const steps: number[] = [];
    await bench.server.services.compute.plan(known, { onProgress: tellDone(steps) });
    expect(steps.length).toBeGreaterThan(2);
  });
});

/** Keeps how far work is; what it waits for is left out. */
function tellDone(steps: number[]): (told: Told) => void {
  return (told) => {
    if ('done' in told) steps.push(told.done);
  };
}

describe('the list of jobs', () => {
  const list = async (query: string) => {
    const response = await fetch(`${bench.server.url}/api/jobs?${query}`);
    return {
      total: Number(response.headers.get('Total-Count')),
      titles: ((await response.json()) as JobSummary[]).map((job) => job.title),
    };
  };

  it('comes in pieces that fit together, the soonest due first, and is searched by the start, middle and end of words', async () => {
    const { jobs } = bench.server.services;
    const random = seeded(3);
    for (let i = 0; i < 60; i += 1)
      await jobs.create({
        ...emptyRecipe(`Läger ${i}`),
        customer: i % 2 ? '100%_ sure' : 'Quay',
        due: random() < 0.5 ? `2027-01-${String(1 + Math.floor(random() * 28)).padStart(2, '0')}` : null,
      });
    const whole = await list('search=läger');
    expect(whole.total).toBe(60);
    const dues = (await bench.api<JobSummary[]>('GET', '/api/jobs?search=LÄGER')).body.map((job) => job.due ?? '9');
    expect(dues).toEqual([...dues].sort());
    const pieces: string[] = [];
    for (let from = 0; from < 60; from += 7) {
      const piece = await list(`search=läger&from=${from}&most=7`);
      expect(piece.total).toBe(60);
      pieces.push(...piece.titles);
    }
    expect(pieces).toEqual(whole.titles);
    expect((await list('search=äge%20quay')).total).toBe(30);
    // Signs that a database would take for any letters are signs.
    expect((await list(`search=${encodeURIComponent('0%_ s')}`)).total).toBe(30);
    expect((await list(`search=${encodeURIComponent('l_ger')}`)).total).toBe(0);
    expect((await list(`search=läger&state=new&from=50&most=20`)).titles).toHaveLength(10);
    expect((await list('search=läger&state=cut')).total).toBe(0);
  });

  describe('has a small picture of each whole design', () => {
    const svg =
      '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="40mm" viewBox="0 0 80 40"><rect width="80" height="40" fill="#b3262b"/></svg>';
    const onWhite =
      '<svg xmlns="http://www.w3.org/2000/svg" width="80" height="40"><rect width="80" height="40" fill="#fff"/><rect x="10" y="10" width="60" height="20" fill="#b3262b"/></svg>';
    const dxf = '0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n8\n0\n10\n50\n20\n50\n40\n20\n0\nENDSEC\n0\nEOF\n';
    const pictured = async (job: Job) => {
      const response = await fetch(`${bench.server.url}/api/jobs/${job.id}/picture?design=${job.design}`);
      return {
        status: response.status,
        kept: response.headers.get('cache-control'),
        png: new Uint8Array(await response.arrayBuffer()),
      };
    };
    /** The pixels of a small picture. */
    const pixels = (png: Uint8Array) => ReadPng.sync.read(Buffer.from(png));
    const give = async (id: string, name: string, bytes: Uint8Array) =>
      (await bench.api<Job>('POST', `/api/jobs/${id}/artwork?fileName=${name}`, bytes)).body;

    it.each([
      ['a.svg', new TextEncoder().encode(svg)],
      ['a.dxf', new TextEncoder().encode(dxf)],
      ['a.png', new Uint8Array(new Resvg(onWhite).render().asPng())],
    ] as const)('of %s', async (name, bytes) => {
      const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: name });
      expect([job.design, (await pictured(job)).status]).toEqual([null, 404]);
      const drawn = await give(job.id, name, bytes);
      const { status, png } = await pictured(drawn);
      expect([status, Math.max(pixels(png).width, pixels(png).height)]).toEqual([200, 296]);
      expect((await pictured(drawn)).png).toEqual(png);
    });

    it('with all its parts, and another when it changes; a name alone changes nothing', async () => {
      const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: 'Two parts' });
      const one = await give(job.id, 'one.svg', new TextEncoder().encode(svg));
      const two = await give(job.id, 'two.svg', new TextEncoder().encode(svg.replace('#b3262b', '#1d4e89')));
      expect(two.design).not.toBe(one.design);
      // Asked for by an older name, it is the newest, and not to be kept.
      expect(await pictured(one)).toMatchObject({ status: 200, kept: 'no-store' });
      const { png, kept } = await pictured(two);
      expect(kept).toContain('immutable');
      const { data } = pixels(png);
      const has = (r: number, g: number, b: number) =>
        Array.from({ length: data.length / 4 }, (_, i) => [...data.subarray(4 * i, 4 * i + 3)]).some(
          (px) => px[0] === r && px[1] === g && px[2] === b,
        );
      expect([has(0xb3, 0x26, 0x2b), has(0x1d, 0x4e, 0x89)]).toEqual([true, true]);
      expect((await rename(two, 'Another name')).body.design).toBe(two.design);
    });

    it('is not there for a job that is not', async () =>
      expect((await fetch(`${bench.server.url}/api/jobs/none/picture`)).status).toBe(404));
  });
});

describe('what open pages are told', () => {
  /** Reads events until `enough` of the kind are there, then hangs up. */
  async function events(
    kind: string,
    enough: number,
    act: () => Promise<unknown>,
    lastId?: string,
  ): Promise<{ id: string; data: Record<string, unknown> }[]> {
    const leave = new AbortController();
    const response = await fetch(`${bench.server.url}/api/changes`, {
      signal: leave.signal,
      headers: lastId === undefined ? {} : { 'Last-Event-ID': lastId },
    });
    await act();
    let text = '';
    const decoder = new TextDecoder();
    const read = () =>
      [...text.matchAll(/^id: (.*)\nevent: (.*)\ndata: (.*)\n\n/gm)]
        .filter((m) => m[2] === kind)
        .map((m) => ({ id: m[1]!, data: JSON.parse(m[3]!) as Record<string, unknown> }));
    for await (const chunk of response.body!) {
      text += decoder.decode(chunk as Uint8Array, { stream: true });
      if (read().length >= enough) break;
    }
    leave.abort();
    return read();
  }

  it('are changes of jobs and of the shop, also those that were made while a page was away', async () => {
    const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: 'Told' });
    const rename = async (title: string, revision: number) =>
      bench.api('PUT', `/api/jobs/${job.id}/recipe`, { recipe: { ...job.recipe, title }, revision });
    const [first] = await events('change', 1, () => rename('Other', 1));
    expect(first!.data).toEqual({ of: 'job', jobId: job.id, revision: 2 });
    const { body: shop } = await bench.api<{ revision: number }>('GET', '/api/shop');
    await rename('Third', 2);
    await changeRecord(bench, 'cutters', 'bench', { repeatabilityMm: 0.06 });
    const missed = await events('change', 2, () => Promise.resolve(), first!.id);
    expect(missed.map((one) => one.data)).toEqual([
      { of: 'job', jobId: job.id, revision: 3 },
      { of: 'shop', revision: shop.revision + 1 },
    ]);
    expect(await events('missed', 1, () => Promise.resolve(), 'another-server.7')).toHaveLength(1);
    // Refused and repeated writes change nothing, and nothing is told.
    const [only] = await events('change', 1, async () => {
      await rename('Refused', 1);
      await rename('Fourth', 3);
    });
    expect(only!.data['revision']).toBe(4);
  });
});

function manyDots(count: number): string {
  const dots = Array.from(
    { length: count },
    (_, i) =>
      `<circle cx="${(i % 80) * 6}" cy="${Math.floor(i / 80) * 6}" r="3.5" fill="${i % 2 ? '#b3262b' : '#1d4e89'}"/>`,
  ).join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 480 ${Math.ceil(count / 80) * 6}">${dots}</svg>`;
}

describe('the edge of the server', () => {
  const ask = (headers: Record<string, string>, method = 'GET', path = '/api/jobs') =>
    new Promise<{ status: number; headers: Record<string, unknown> }>((resolve, reject) => {
      const asking = request(bench.server.url + path, { method, headers }, (response) => {
        response.resume();
        resolve({ status: response.statusCode!, headers: response.headers });
      });
      asking.on('error', reject);
      asking.end();
    });

  it('answers only under its own address and only its own pages', async () => {
    expect((await ask({ Host: 'evil.example' })).status).toBe(421);
    expect((await ask({ Origin: 'http://evil.example' }, 'POST')).status).toBe(403);
    expect((await ask({ 'Sec-Fetch-Site': 'cross-site' }, 'POST')).status).toBe(403);
    expect((await ask({ Origin: bench.server.url })).status).toBe(200);
  });

  it('sends a strict policy with everything', async () => {
    const { headers } = await ask({});
    expect(headers['content-security-policy']).toContain("default-src 'none'");
    expect(headers['content-security-policy']).not.toContain('unsafe-eval');
    expect(headers['x-content-type-options']).toBe('nosniff');
  });

  it.each([
    ['GET', '/api/nothing', undefined, 404, 'not-found'],
    ['GET', '/api/jobs/nobody', undefined, 404, 'job-unknown'],
    ['POST', '/api/jobs', { title: 7 }, 400, 'body-invalid'],
    ['POST', '/api/jobs', { shiny: true }, 400, 'body-invalid'],
    ['GET', '/api/jobs?state=lost', undefined, 400, 'query-invalid'],
  ])('%s %s with %o is a problem, said as one', async (method, path, body, status, code) => {
    const answer = await bench.api<ProblemBody>(method, path, body);
    expect([answer.status, answer.body.code]).toEqual([status, code]);
  });

  it('refuses a recipe that is none, and keeps the one there was', async () => {
    const { body: job } = await bench.api<Job>('POST', '/api/jobs', {});
    const bad = await bench.api<ProblemBody & { path: string }>('PUT', `/api/jobs/${job.id}/recipe`, {
      recipe: { ...job.recipe, build: { ...job.recipe.build, trapMm: -1 } },
      revision: job.revision,
    });
    expect([bad.status, bad.body.path]).toEqual([400, expect.stringContaining('/build/trapMm')]);
  });

  it.each([
    ['text/plain', 'PUT', (id: string) => `/api/jobs/${id}/recipe`],
    ['', 'PUT', (id: string) => `/api/jobs/${id}/recipe`],
    ['application/x-www-form-urlencoded', 'POST', (id: string) => `/api/jobs/${id}/undo`],
    ['application/json', 'POST', (id: string) => `/api/jobs/${id}/artwork`],
  ])('refuses a body of type “%s” where it takes another', async (type, method, path) => {
    const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: 'A' });
    const answer = await fetch(bench.server.url + path(job.id), {
      method,
      headers: type ? { 'Content-Type': type } : {},
      body: new TextEncoder().encode(JSON.stringify({ recipe: { ...job.recipe, title: 'B' }, revision: job.revision })),
    });
    expect([answer.status, ((await answer.json()) as ProblemBody).code]).toEqual([415, 'media-type']);
    expect((await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body.title).toBe('A');
  });

  it('describes every route it serves, from the schemas it checks them by', async () => {
    const { body } = await bench.api<{ paths: Record<string, Record<string, unknown>> }>('GET', '/api/openapi.json');
    expect(Object.keys(body.paths)).toEqual(
      expect.arrayContaining([
        '/api/jobs',
        '/api/jobs/{id}/recipe',
        '/api/batches/{id}/sheets/{sheet}/cut',
        '/api/runs/{id}/events',
        '/api/openapi.json',
      ]),
    );
  });
});

it('the page of the documentation about the API is made from its routes', () => {
  expect(readFileSync(new URL('../docs/api.md', import.meta.url), 'utf8')).toBe(
    apiPage([
      ...enterRoutes(bench.server.door, { host: '', origin: '', isSecure: false }),
      ...apiRoutes(bench.server.services, bench.server.door),
    ]),
  );
});
