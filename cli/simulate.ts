import { writeFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import { InputError } from '../core/words/index.js';
import { runOffline } from '../cutter/run-offline.js';
import { traceSvg } from '../cutter/trace-picture.js';
import { numberOf } from './numbers.js';
import { onlyFile, readInput, required } from './input.js';

/** More moves than this are no sheet, and their paths would fill the memory. */
const MOST_MOVES = 250_000;

/** Runs HP-GL through the simulated cutter, writes what its knife cut as SVG, and prints what it did. */
export async function simulateCommand(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({ args, allowPositionals: true, options: { out: { type: 'string' } } });
  const file = onlyFile(positionals, 'simulate', 'the HP-GL');
  const out = required(values.out, 'simulate', 'out');
  const text = Buffer.from(await readInput(file)).toString('latin1');
  if (!/(PU|PD|PA)\s*-?\d/i.test(text))
    throw new InputError('not-hpgl', 'It holds no HP-GL moves (PU, PD or PA with coordinates).', {
      source: basename(file),
    });
  const moves = text.match(/-?\d+\s*,\s*-?\d+/g)?.length ?? 0;
  if (moves > MOST_MOVES)
    throw new InputError(
      'too-many-moves',
      `It has ${moves} moves; at most ${MOST_MOVES} are simulated. Save a part of it and simulate that.`,
      { source: basename(file) },
    );
  const { status, lines } = runOffline(text);
  await writeFile(out, traceSvg(lines));
  console.log(
    JSON.stringify({
      paths: status.paths,
      cutMm: numberOf(status.cutMm),
      travelMm: numberOf(status.travelMm),
      seconds: numberOf(status.busySeconds),
      unknownInstructions: status.unknownInstructions,
      forceG: status.forceG,
      speedMmS: status.speedMmS,
    }),
  );
}
