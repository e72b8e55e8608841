import { formatLength } from '../job/index.js';

export interface AssemblyLayer {
  readonly filmName: string;
  readonly filmId: string;
  /** 1 is nearest the surface. */
  readonly order: number;
  readonly counters: number;
}

/** One step: what to do, and which layers lie there once it is done (film ids, lowest first as they lie). */
export interface AssemblyStep {
  readonly title: string;
  readonly text: string;
  readonly done: readonly string[];
  readonly laying: string | null;
}

/**
 * The assembly in order. On the surface the layer nearest it goes down first; on tape the front layer is picked up first and the
 * others follow backwards, so the order turns over and the work is seen from behind.
 */
export function assemblySteps(
  layers: readonly AssemblyLayer[],
  options: { readonly way: 'surface' | 'tape'; readonly marks: boolean; readonly longestSideMm: number },
): AssemblyStep[] {
  const upwards = [...layers].sort((a, b) => a.order - b.order);
  if (upwards.length === 0) return [];
  const onTape = options.way === 'tape';
  const sequence = onTape ? [...upwards].reverse() : upwards;
  const hinge = options.longestSideMm > 400 ? 'a centre hinge: tape across the middle, one half at a time' : 'a top hinge: tape along the upper edge';
  const steps: AssemblyStep[] = [
    {
      title: 'Weed every layer',
      text: `Pull the waste from the border inwards, then take out the counters (${layers.reduce((n, l) => n + l.counters, 0)} in all) and check the weed map for loose parts. Leave the marks.`,
      done: [],
      laying: null,
    },
  ];
  const done: string[] = [];
  sequence.forEach((layer, i) => {
    const lieAs = onTape ? [layer.filmId, ...done] : [...done, layer.filmId];
    steps.push({ title: layerTitle(layer, i, onTape), text: layerText(i, { onTape, marks: options.marks, hinge }), done: lieAs, laying: layer.filmId });
    done.splice(0, done.length, ...lieAs);
  });
  const tape = formatLength(options.longestSideMm + 40);
  steps.push(
    onTape
      ? { title: 'Apply in one go', text: `Clean the surface, dry it, and see that it is between 10 and 25 °C. Set up ${hinge}. Peel the liner, lay down from the middle outwards, rub, and peel the tape at a sharp angle.`, done: [...done], laying: null }
      : { title: 'Take off the marks', text: `Rub everything once more from the middle outwards and peel the tape (cut it about ${tape} mm long) at a sharp angle.${options.marks ? ' Lift the registration marks last.' : ''}`, done: [...done], laying: null },
  );
  if (onTape && options.marks) steps.push({ title: 'Take off the marks', text: 'Lift the registration marks once everything holds.', done: [...done], laying: null });
  return steps;
}

function layerTitle(layer: AssemblyLayer, i: number, onTape: boolean): string {
  if (onTape) return i === 0 ? `Pick up ${layer.filmName} first: it is the front` : `Add ${layer.filmName} behind it`;
  return i === 0 ? `Lay ${layer.filmName} on the surface` : `Lay ${layer.filmName} over it`;
}

function layerText(i: number, how: { onTape: boolean; marks: boolean; hinge: string }): string {
  const align = how.marks
    ? 'Cover all but the marks with a strip of liner, bring mark onto mark, then pull the strip and let the layer down from the middle outwards.'
    : 'Lay it by eye into its neighbour, from the middle outwards.';
  if (i > 0) return how.onTape ? `Turn the tape face up. ${align} The order is turned over on tape: what lies nearest the surface comes last.` : align;
  return how.onTape
    ? 'Lay tape over the weeded layer, rub it down, and lift it off its liner. It stays on the tape until the end.'
    : `Clean the surface, dry it, and see that it is between 10 and 25 °C. Tape over the layer, set up ${how.hinge}, peel the liner and lay it down from the middle outwards.`;
}
