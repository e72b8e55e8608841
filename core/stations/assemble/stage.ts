import type { Finding, Ruling } from '../../words/index.js';
import type { PanelsOut } from '../build/index.js';
import { isFoil } from '../../shop/index.js';
import { longestSide } from '../../geometry/index.js';
import type { PrepareDecisions, PrepareOut } from '../prepare/index.js';
import type { Stage } from '../stage.js';
import type { SurfaceOut } from '../surface/index.js';
import type { AssembleDecisions, AssemblePatch } from './decisions.js';
import { sayAssemblyStep, sayWay, type AssemblyStep } from './say.js';
import { assemblyOrder, type AssemblyLayer } from './steps.js';

export interface AssembleOut {
  readonly steps: readonly AssemblyStep[];
  readonly findings: readonly Finding<AssemblePatch>[];
  readonly rulings: readonly Ruling<AssemblePatch>[];
}

interface AssembleContext {
  readonly prepare: PrepareOut;
  readonly panels: PanelsOut;
  readonly surface: SurfaceOut;
  readonly recipe: AssembleDecisions & Pick<PrepareDecisions, 'preparation'>;
}

interface AssembleRead {
  readonly prepare: PrepareOut;
  readonly panelsLaid: readonly number[];
  readonly isInside: boolean;
  /** The longest side of what is laid in one piece. */
  readonly longestSideMm: number;
  readonly way: AssembleDecisions['assembly']['way'];
  /** Copies of a strip have straight gutters between them. */
  readonly isStraight: boolean;
}

/** The steps in which the layers come together. */
export const assembleStage: Stage<AssembleContext, AssembleRead, AssembleOut> = {
  name: 'assemble',
  read: ({ prepare, panels, surface: { surface, design }, recipe }) => ({
    prepare,
    panelsLaid: panels.along === 'apart' ? [1] : panels.laying,
    isInside: surface.kind === 'glass',
    longestSideMm: longestLaid(panels, design),
    way: recipe.assembly.way,
    isStraight: recipe.preparation.gang?.rows === 'straight',
  }),
  run({ prepare: { layers, panels }, panelsLaid, isInside, longestSideMm, way, isStraight }) {
    const assembled = new Map<string, AssemblyLayer>();
    for (const { layer, weed } of layers)
      assembled.set(layer.film.id, {
        filmId: layer.film.id,
        filmName: layer.film.name,
        order: layer.order,
        foil: isFoil(layer.film) ? layer.film.press : null,
        counters: weed.counters + (assembled.get(layer.film.id)?.counters ?? 0),
      });
    const all = [...assembled.values()];
    const hasMarks = panels.some(({ marks }) => marks !== null);
    const perStrip = panels[0]?.perStrip ?? 1;
    const figures = {
      way,
      perStrip,
      isStraight,
      isInside,
      hasMarks,
      panelsLaid,
      longestSideMm: perStrip > 1 ? longestSide(panels[0]!.box) : longestSideMm,
      counters: all.reduce((sum, layer) => sum + layer.counters, 0),
      marks: layers.reduce((sum, { panel }) => sum + (panel.marks?.marks.length ?? 0), 0),
    };
    return {
      steps: assemblyOrder(all, {
        way,
        isInside,
        hasMarks,
        isInPanels: panelsLaid.length > 1,
        isInStrips: perStrip > 1,
      }).map((step) => sayAssemblyStep(step, figures)),
      findings: [],
      rulings: [sayWay(way, isInside)],
    };
  },
};

/** Designs and panels that are laid by themselves count alone. */
function longestLaid({ along, longestMm }: PanelsOut, { widthMm, heightMm }: SurfaceOut['design']): number {
  return along === null ? Math.max(widthMm, heightMm) : longestMm;
}
