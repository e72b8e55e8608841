import { jobWith, openBench } from '../server/testing/bench.js';
import { largeDrawing } from './looking.js';
import { ms, print } from './measure.js';

const SMALL =
  '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40"><rect width="40" height="40"/></svg>';
const TIMES = 10;

/** What a small file waits for while large drawings are planned, and what a plan that is known does. */
export async function uploadBench(): Promise<void> {
  const bench = await openBench();
  try {
    const small = await jobWith(bench, SMALL);
    await bench.api('GET', `/api/jobs/${small.id}/plan`);
    const heavy = await Promise.all([jobWith(bench, largeDrawing()), jobWith(bench, largeDrawing(2900))]);
    let planned = 0;
    const plans = heavy.map((job) =>
      bench.api('GET', `/api/jobs/${job.id}/plan`).then(({ status }) => void (planned += status === 200 ? 1 : 0)),
    );
    const [uploads, known]: [number[], number[]] = [[], []];
    for (let i = 0; i < TIMES; i += 1) {
      let start = performance.now();
      await jobWith(bench, SMALL);
      uploads.push(performance.now() - start);
      start = performance.now();
      await bench.api('GET', `/api/jobs/${small.id}/plan`);
      known.push(performance.now() - start);
    }
    const meanwhile = planned;
    await Promise.all(plans);
    print('While two drawings of 2.7 MB are planned', [
      ['a small drawing uploaded and answered in, at most (1 s)', ms(Math.max(...uploads))],
      ['a plan that is known, at most', ms(Math.max(...known))],
      ['of the large ones, made meanwhile / made in the end', `${meanwhile} / ${planned} of 2`],
    ]);
  } finally {
    await bench.close();
  }
}
