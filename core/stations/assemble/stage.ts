import type { PlacedDesign } from '../../engines/surface/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import type { PrepareOut } from '../prepare/index.js';
import type { Stage } from '../stage.js';
import type { SurfaceOut } from '../surface/index.js';
import type { AssembleDecisions, AssemblePatch } from './decisions.js';
import { sayAssemblyStep, sayWay, type AssemblyStep } from './say.js';
import { assemblyOrder } from './steps.js';

export interface AssembleOut {
  readonly steps: readonly AssemblyStep[];
  readonly findings: readonly Finding<AssemblePatch>[];
  readonly rulings: readonly Ruling<AssemblePatch>[];
}

interface AssembleContext {
  readonly prepare: PrepareOut;
  readonly surface: SurfaceOut;
  readonly recipe: AssembleDecisions;
}

interface AssembleRead {
  readonly prepare: PrepareOut;
  readonly design: Pick<PlacedDesign, 'widthMm' | 'heightMm'>;
  readonly way: AssembleDecisions['assembly']['way'];
}

/** The steps in which the layers come together. */
export const assembleStage: Stage<AssembleContext, AssembleRead, AssembleOut> = {
  name: 'assemble',
  read: ({ prepare, surface: { design }, recipe }) => ({ prepare, design: { widthMm: design.widthMm, heightMm: design.heightMm }, way: recipe.assembly.way }),
  run({ prepare: { layers, marks }, design, way }) {
    const assembled = layers.map(({ layer, weed }) => ({ filmId: layer.film.id, filmName: layer.film.name, order: layer.order, counters: weed.counters }));
    const figures = { way, hasMarks: marks !== null, longestSideMm: Math.max(design.widthMm, design.heightMm), counters: assembled.reduce((sum, layer) => sum + layer.counters, 0) };
    return { steps: assemblyOrder(assembled, way, figures.hasMarks).map((step) => sayAssemblyStep(step, figures)), findings: [], rulings: [sayWay(way)] };
  },
};
