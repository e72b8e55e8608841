import type { CutProgram } from './program.js';

/** HP-GL's plotter unit is 0.025 mm. */
export const UNITS_PER_MM = 40;

/** Coordinate pairs in one PD command: keeps a command within a small device buffer. */
const PAIRS_PER_COMMAND = 16;

/** Starts the device and sets force (grams) and speed (HP-GL states it in cm/s). */
export function hpglHead(settings: { readonly forceG: number; readonly speedMmS: number }): string {
  return `IN;SP1;${hpglSettings(settings)}`;
}

/** Force and speed alone: what a cut that goes on needs. */
export function hpglSettings(settings: { readonly forceG: number; readonly speedMmS: number }): string {
  return `FS${Math.round(settings.forceG)};VS${Number((settings.speedMmS / 10).toFixed(2))};`;
}

/** One run: over to its first point with the knife up, then along it with the knife down. `from` skips pairs already driven to. */
export function hpglRun(run: Int32Array, from = 0): string[] {
  const commands = from === 0 ? [`PU${run[0]},${run[1]};`] : [];
  const pairs: string[] = [];
  for (let i = 2 * Math.max(from, 1); i < run.length; i += 2) pairs.push(`${run[i]},${run[i + 1]}`);
  for (let i = 0; i < pairs.length; i += PAIRS_PER_COMMAND)
    commands.push(`PD${pairs.slice(i, i + PAIRS_PER_COMMAND).join(',')};`);
  return commands;
}

/** Lifts the knife, goes back to the beginning and puts the pen away. */
export const HPGL_TAIL = 'PU0,0;SP0;';

/** Coordinate pairs that a program's runs drive to, with the tail's. */
export function programPairs(runs: readonly { readonly length: number }[]): number {
  return runs.reduce((sum, run) => sum + run.length / 2, 0) + 1;
}

/** A whole program as HP-GL text, a command to a line. */
export function writeHpgl(
  program: Pick<CutProgram, 'runs'> & { readonly settings: Parameters<typeof hpglHead>[0] },
): string {
  const lines = [hpglHead(program.settings), ...program.runs.flatMap((run) => hpglRun(run)), HPGL_TAIL];
  return lines.join('\n') + '\n';
}
