import { boundsOf, crossingsAt, type Ring, type Rings } from '../../geometry/index.js';
import type { BuiltLayer } from './layer.js';

/** A run of film along a cut through the build, in mm from the cut's left or upper end. */
export interface SectionBar {
  readonly key: string;
  readonly order: number;
  readonly fromMm: number;
  readonly toMm: number;
  /** Thickness of the films that lie beneath it here, µm: it bends over their edges, so laps show as steps. */
  readonly baseUm: number;
  readonly thicknessUm: number;
}

/**
 * The build cut through along a line: level at a height, or upright at a distance from the left. Bars of one layer that lie at one height are
 * joined.
 */
export function crossSection(
  layers: readonly BuiltLayer[],
  atMm: number,
  thicknessUm: (key: string) => number,
  way: 'level' | 'upright' = 'level',
): SectionBar[] {
  const spans = layers.map((layer) => ({
    layer,
    spans: spansAt(way === 'level' ? layer.cut : layer.cut.map(turned), atMm),
  }));
  const cuts = [...new Set(spans.flatMap((s) => s.spans.flat()))].sort((a, b) => a - b);
  const bars: SectionBar[] = [];
  for (const { layer, spans: ownSpans } of spans) {
    for (const [from, to] of ownSpans) {
      const stops = [from, ...cuts.filter((x) => x > from && x < to), to];
      const own = { key: layer.key, order: layer.order, thicknessUm: thicknessUm(layer.key) };
      for (let i = 1; i < stops.length; i += 1) {
        const middle = (stops[i - 1]! + stops[i]!) / 2;
        const beneath = spans.filter(
          (s) => s.layer.order < layer.order && s.spans.some(([a, b]) => a < middle && middle < b),
        );
        const baseUm = beneath.reduce((sum, s) => sum + thicknessUm(s.layer.key), 0);
        const last = bars.at(-1);
        if (last && last.key === layer.key && last.baseUm === baseUm && last.toMm === stops[i - 1])
          bars[bars.length - 1] = { ...last, toMm: stops[i]! };
        else bars.push({ ...own, fromMm: stops[i - 1]!, toMm: stops[i]!, baseUm });
      }
    }
  }
  return bars;
}

/** The ring with its axes changed over. */
function turned(ring: Ring): Ring {
  return ring.map((_, i) => ring[i % 2 === 0 ? i + 1 : i - 1]!);
}

function spansAt(rings: Rings, y: number): [number, number][] {
  const box = boundsOf(rings);
  if (!box || y < box.minY || y > box.maxY) return [];
  const xs = crossingsAt(rings, y);
  const spans: [number, number][] = [];
  for (let i = 0; i + 1 < xs.length; i += 2) if (xs[i + 1]! - xs[i]! > 1e-6) spans.push([xs[i]!, xs[i + 1]!]);
  return spans;
}
