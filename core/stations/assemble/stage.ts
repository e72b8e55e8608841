import { listed, type Finding, type Ruling } from '../../words/index.js';
import type { PanelsOut } from '../layers/index.js';
import { isFoil } from '../../shop/index.js';
import { keyOf, longestSide } from '../../geometry/index.js';
import type { PrepareDecisions, PreparedLayer, PrepareOut } from '../prepare/index.js';
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
    const perStrip = panels[0]?.perStrip ?? 1;
    const listOf = (some: readonly PreparedLayer[], hasMarks: boolean) => {
      const all = assembled(some);
      const steps = assemblyOrder(all, {
        way,
        isInside,
        hasMarks,
        isInPanels: panelsLaid.length > 1,
        isInStrips: perStrip > 1,
      });
      const figures = {
        way,
        perStrip,
        isStraight,
        isInside,
        hasMarks,
        panelsLaid,
        longestSideMm: perStrip > 1 ? longestSide(panels[0]!.box) : longestSideMm,
        counters: all.reduce((sum, layer) => sum + layer.counters, 0),
        marks: some.reduce((sum, { panel }) => sum + (panel.marks?.marks.length ?? 0), 0),
      };
      return steps.map((step) => sayAssemblyStep(step, figures));
    };
    const whole = listOf(
      layers,
      panels.some(({ marks }) => marks !== null),
    );
    const alike = designsAlike(panels, layers);
    // What is weeded is weeded of all; what differs is put together design by design.
    const steps =
      alike.length < 2
        ? whole
        : [
            whole[0]!,
            ...alike.flatMap((own) =>
              listOf(own.layers, own.hasMarks)
                .slice(1)
                .map((step) => ({ ...step, title: `${listed(own.labels)}: ${step.title}` })),
            ),
          ];
    return { steps, findings: [], rulings: [sayWay(way, isInside)] };
  },
};

/** The films of some layers as they are put together, each once. */
function assembled(layers: readonly PreparedLayer[]): AssemblyLayer[] {
  const films = new Map<string, AssemblyLayer>();
  for (const { layer, weed } of layers)
    films.set(layer.film.id, {
      filmId: layer.film.id,
      filmName: layer.film.name,
      order: layer.order,
      foil: isFoil(layer.film) ? layer.film.press : null,
      counters: weed.counters + (films.get(layer.film.id)?.counters ?? 0),
    });
  return [...films.values()];
}

/** Designs that are put together in the same steps: of the same films, with marks or without. */
interface DesignsAlike {
  readonly labels: readonly string[];
  readonly hasMarks: boolean;
  readonly layers: readonly PreparedLayer[];
}

/** Several designs, those together that are put together alike; none for a design in one piece, and for one in panels. */
function designsAlike(panels: PrepareOut['panels'], layers: readonly PreparedLayer[]): DesignsAlike[] {
  const groups = new Map<string, DesignsAlike>();
  for (const { number, label, corner, marks } of panels) {
    if (corner === null || label === null) continue;
    const own = layers.filter(({ panel }) => panel.number === number);
    const hasMarks = marks !== null;
    const key = keyOf(
      hasMarks,
      assembled(own).map(({ filmId, order }) => [order, filmId]),
    );
    const before = groups.get(key);
    groups.set(key, {
      labels: [...(before?.labels ?? []), label],
      hasMarks,
      layers: [...(before?.layers ?? []), ...own],
    });
  }
  return [...groups.values()];
}

/** Designs and panels that are laid by themselves count alone. */
function longestLaid({ along, longestMm }: PanelsOut, { widthMm, heightMm }: SurfaceOut['design']): number {
  return along === null ? Math.max(widthMm, heightMm) : longestMm;
}
