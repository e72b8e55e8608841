import {
  flatten,
  joinBoxes,
  ringsToPathData,
  scaling,
  signedArea,
  subtract,
  tolerances,
  unite,
  type Box,
  type Rings,
} from '../../geometry/index.js';
import { colourName, type LetterChoice, type PaintedRegion } from '../../engines/artwork/index.js';
import { placedBox, type Regions } from '../../stations/artwork/index.js';
import type { JobLayer } from '../../stations/layers/index.js';
import { jobFigures } from '../job-card.js';
import type { ArtworkOut, Plan } from '../plan.js';
import { pullOrder } from '../../engines/weeding/index.js';
import { BARE, separate } from '../../engines/layers/index.js';
import { drawnPath, NOTHING_DRAWN } from './drawn-path.js';
import type { LayerView, LetterForms, PaintView, PartView, PlanView } from './plan-view.js';

/** Path data to a micron: finer than a screen shows at any zoom a hand uses. */
const path = (rings: Rings) => ringsToPathData(rings, 3);

/** A plan as the page draws it. Layers and sheets that have not changed keep their path data. */
export function viewOf(plan: Plan): Omit<PlanView, 'id'> {
  const { artwork, regions, surface, films, build, prepare, sheets, cut, assemble } = plan;
  return {
    figures: jobFigures(plan),
    findings: plan.findings,
    letBe: plan.letBe,
    rulings: plan.rulings,
    ...(artwork
      ? { artwork: { ...pick(artwork, ['widthMm', 'heightMm', 'paints']), ...partsOf(artwork, plan.matrices) } }
      : {}),
    ...(surface
      ? {
          surface: {
            ...pick(surface.design, ['widthMm', 'heightMm', 'xMm', 'yMm', 'scale']),
            ...pick(surface, ['surface', 'figures', 'map', 'frame', 'ruled']),
            isAmong: surface.instances
              ? surface.instances.some(({ among }) => among !== null)
              : plan.panels?.along === 'apart',
            panels:
              plan.panels && plan.panels.along !== null
                ? {
                    along: plan.panels.along,
                    spans: plan.panels.panels.map((panel) =>
                      pick(panel, ['number', 'label', 'copies', 'box', 'own', 'bends']),
                    ),
                  }
                : null,
          },
        }
      : {}),
    ...(regions ? { colourNames: remembered(colourNames, regions, ({ asDrawn }) => namesOf(asDrawn)) } : {}),
    ...(films ? { colours: films.colours } : {}),
    ...(build
      ? {
          layers: build.layers.map((layer) => remembered(layers, layer, layerView)),
          pairs: build.pairs,
          trapMm: build.trapMm,
        }
      : {}),
    ...(prepare
      ? {
          prepare: {
            panels: prepare.panels.map(({ number, label, perStrip, marks, markSizeMm, box, clip }) => ({
              number,
              label,
              perStrip,
              markSizeMm,
              clip: clip && path(clip),
              marks: path(marks?.marks.map((mark) => mark.ring) ?? []),
              marksAt: marks?.marks.map((mark) => pick(mark, ['shape', 'xMm', 'yMm'])) ?? [],
              box,
            })),
            weed: prepare.layers.map(({ layer, panel, weed, border, relief, asDrawn, labels, strips, minutes }) => ({
              filmId: layer.film.id,
              panel: panel.number,
              ...pick(weed, ['pieces', 'counters', 'spots']),
              cut: panel.perStrip > 1 ? drawnPath(layer.cut) : null,
              border: path(border),
              relief,
              asDrawn,
              labels,
              strips: pullOrder(strips).map(({ strip, pull }) => ({
                pull,
                ...pick(strip, ['areaMm2', 'bulkMm', 'xMm', 'yMm']),
                path: path([strip.region.outer, ...strip.region.holes]),
              })),
              minutes,
            })),
          },
        }
      : {}),
    ...(sheets
      ? {
          toCut: sheets.toCut.map(({ film, panel, perStrip, fingerprint, copies, taken }) => ({
            filmId: film.id,
            panel,
            perStrip,
            fingerprint,
            copies,
            taken,
          })),
        }
      : {}),
    ...(cut ? { seconds: cut.seconds } : {}),
    ...(assemble ? { steps: assemble.steps } : {}),
  };
}

function partsOf({ parts, sizeOf }: ArtworkOut, matrices: Plan['matrices']): { parts: PartView[]; frame: Box } {
  const views = parts.map(({ part, read, extents }) => ({
    id: part.id,
    extent: extents[sizeOf],
    artboard: { ...pick(read.artwork, ['widthMm', 'heightMm']), matrix: matrices?.get(part.id) ?? null },
    box: placedBox(part.place, extents[sizeOf]),
    ...(read.artwork.page ? { pages: read.artwork.page.of } : {}),
  }));
  return { parts: views, frame: views.map((view) => view.box).reduce<Box | null>(joinBoxes, null)! };
}

function namesOf(drawn: readonly PaintedRegion[]): Record<string, string> {
  return Object.fromEntries([...new Set(drawn.map((region) => region.colour))].map((hex) => [hex, colourName(hex)]));
}

/** What is no film shows what lies under the design, which the light table draws white. */
const BARE_SHEET = '#ffffff';

/** The painted areas of an artwork, bottom first, neighbours of one part and colour in one path. */
export function paintsOf(regions: readonly PaintedRegion[]): PaintView[] {
  const paints: { part: string; colour: string; rings: Rings[number][] }[] = [];
  for (const { part = '', colour: meant, rings } of regions) {
    const colour = meant === BARE ? BARE_SHEET : meant;
    const last = paints.at(-1);
    if (last?.colour === colour && last.part === part) last.rings.push(...rings);
    else paints.push({ part, colour, rings: [...rings] });
  }
  return paints.map(({ part, colour, rings }) => ({ part, colour, path: drawnPath(rings) }));
}

/** Letters with their forms as path data in a square of one em. */
export function letterFormsOf(choices: readonly LetterChoice[]): LetterForms[] {
  return choices.map(({ index, letter, forms }) => ({
    index,
    letter,
    forms: forms.map(({ feature, curves }) => ({
      feature,
      path: path(
        unite(
          flatten(curves, scaling(1000), 2)
            .map((line) => line.points)
            .filter((points) => points.length >= 6),
        ),
      ),
    })),
  }));
}

/** What is painted in another colour than before, or not at all any more, and what newly is. */
export function changesOf(
  before: readonly PaintedRegion[],
  after: readonly PaintedRegion[],
): { added: string; removed: string } {
  const shown = (regions: readonly PaintedRegion[]) =>
    new Map(
      separate(regions.map((r) => ({ layer: r.colour, rings: r.rings }))).layers.flatMap((layer) =>
        layer.key === BARE ? [] : [[layer.key, layer.visible] as const],
      ),
    );
  const [old, now] = [shown(before), shown(after)];
  const real = (rings: Rings) => rings.filter((ring) => Math.abs(signedArea(ring)) > tolerances.CRUMB_MM2);
  const lost = [...old].flatMap(([colour, rings]) => real(subtract(rings, now.get(colour) ?? [])));
  const won = [...now].flatMap(([colour, rings]) => real(subtract(rings, old.get(colour) ?? [])));
  return { added: path(won), removed: path(lost) };
}

const colourNames = new WeakMap<Regions, Record<string, string>>();
const layers = new WeakMap<JobLayer, LayerView>();

function remembered<K extends object, V>(known: WeakMap<K, V>, key: K, make: (key: K) => V): V {
  let value = known.get(key);
  if (!value) known.set(key, (value = make(key)));
  return value;
}

function layerView(layer: JobLayer): LayerView {
  return {
    ...pick(layer, ['film', 'order', 'areaMm2', 'pieces', 'holes']),
    cut: drawnPath(layer.cut),
    visible: drawnPath(layer.visible),
    laps: layer.cut === layer.visible ? NOTHING_DRAWN : drawnPath(subtract(layer.cut, layer.visible)),
  };
}

/** The path data of a layer is made once for all its copies. */

function pick<T extends object, K extends keyof T>(from: T, keys: readonly K[]): Pick<T, K> {
  return Object.fromEntries(keys.map((key) => [key, from[key]])) as Pick<T, K>;
}
