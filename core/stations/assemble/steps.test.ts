import { describe, expect, it } from 'vitest';
import { filmUse } from '../cut/index.js';
import { sayAssemblyStep } from './say.js';
import { assemblyOrder, type AssemblyLayer } from './steps.js';

const layers = ['base', 'middle', 'front'].map((filmId, i) => ({
  filmId,
  filmName: filmId,
  order: i + 1,
  counters: i,
  foil: null,
}));
function assemblySteps(
  of: readonly AssemblyLayer[],
  {
    way,
    marks,
    longestSideMm,
    isInside = false,
    isInPanels = false,
    perStrip = 1,
  }: {
    readonly way: 'dry' | 'wet' | 'tape';
    readonly marks: boolean;
    readonly longestSideMm: number;
    readonly isInside?: boolean;
    readonly isInPanels?: boolean;
    readonly perStrip?: number;
  },
) {
  return assemblyOrder(of, { way, isInside, hasMarks: marks, isInPanels, isInStrips: perStrip > 1 }).map((step) =>
    sayAssemblyStep(step, {
      way,
      isInside,
      hasMarks: marks,
      marks: marks ? 6 : 0,
      perStrip,
      isStraight: true,
      panelsLaid: isInPanels ? [3, 2, 1] : [1],
      longestSideMm,
      counters: of.reduce((sum, layer) => sum + layer.counters, 0),
    }),
  );
}
const laid = (way: 'dry' | 'tape', isInside = false) =>
  assemblySteps(layers, { way, marks: true, longestSideMm: 200, isInside }).flatMap((step) => step.laying ?? []);

describe('assembly', () => {
  it('begins at the surface on the surface, and at the front on tape', () => {
    expect([laid('dry'), laid('tape')]).toEqual([
      ['base', 'middle', 'front'],
      ['front', 'middle', 'base'],
    ]);
  });

  it('turns both over behind glass, and ends with the same order seen from in front', () => {
    expect([laid('dry', true), laid('tape', true)]).toEqual([
      ['front', 'middle', 'base'],
      ['base', 'middle', 'front'],
    ]);
    for (const way of ['dry', 'tape'] as const)
      expect(assemblySteps(layers, { way, marks: true, longestSideMm: 200, isInside: true }).at(-1)!.done).toEqual([
        'base',
        'middle',
        'front',
      ]);
  });

  it('lays strips as one and parts them at the very end, on tape once the marks are off', () => {
    for (const way of ['dry', 'tape'] as const) {
      const steps = assemblySteps(layers, { way, marks: true, longestSideMm: 280, perStrip: 10 });
      expect(steps.at(-1)).toMatchObject({
        title: 'Part the strips',
        text: expect.stringMatching(/knife and a ruler: 10 a strip/) as string,
        done: ['base', 'middle', 'front'],
      });
      expect(steps.filter(({ text }) => text.includes('all 10 of a strip at once'))).toHaveLength(2);
    }
    expect(
      assemblySteps(layers, { way: 'dry', marks: true, longestSideMm: 280 }).some(
        ({ title }) => title === 'Part the strips',
      ),
    ).toBe(false);
  });

  it('shows marks until the step in which they are lifted', () => {
    const lies = (way: 'dry' | 'tape', marks = true) =>
      assemblySteps(layers, { way, marks, longestSideMm: 280, perStrip: 10 }).map(({ hasMarks }) => hasMarks);
    expect(lies('dry')).toEqual([true, true, true, true, false, false]);
    expect(lies('tape')).toEqual([true, true, true, true, true, false, false]);
    expect(lies('dry', false)).toEqual(Array(6).fill(false));
  });

  it('tells the order of panels once, before anything is laid', () => {
    const steps = assemblySteps(layers, { way: 'dry', marks: true, longestSideMm: 4000, isInPanels: true });
    expect(steps.map(({ title }) => title).findIndex((title) => title.includes('3, 2, 1'))).toBe(1);
  });

  it.each(['dry', 'wet', 'tape'] as const)('ends with all layers in their order, %s', (way) => {
    const steps = assemblySteps(layers, { way, marks: true, longestSideMm: 200 });
    expect(steps.at(-1)!.done).toEqual(['base', 'middle', 'front']);
    expect(steps.at(-1)!.title).toBe(way === 'tape' ? 'Lift the marks' : 'Take off the tape');
    for (const step of steps)
      expect(step.done).toEqual(layers.map((l) => l.filmId).filter((id) => step.done.includes(id)));
  });

  it('counts the counters, hinges long work in the middle, and speaks of no marks where there are none', () => {
    const long = assemblySteps(layers, { way: 'dry', marks: false, longestSideMm: 1400 });
    expect(long[0]!.text).toContain('3 in all');
    expect(long[1]!.text).toContain('centre hinge');
    expect(long.slice(1).every((step) => !/mark on mark|Lift the registration/.test(step.text))).toBe(true);
  });

  it('has no steps for no layers', () =>
    expect(assemblySteps([], { way: 'tape', marks: true, longestSideMm: 1 })).toEqual([]));
});

describe('the record', () => {
  it('charges the film that was taken, waste and all', () => {
    expect(filmUse({ id: 'tar', costPerM2: 10 }, { widthMm: 500, usedLengthMm: 400, keptMm2: 1000 })).toEqual({
      filmId: 'tar',
      takenMm2: 200_000,
      keptMm2: 1000,
      cost: 2,
    });
  });
});
