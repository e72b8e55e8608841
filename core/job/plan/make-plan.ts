import { colourDifference, paintRegions, readArtwork } from '../../artwork/index.js';
import { assemblySteps } from '../../assembly/index.js';
import { cutProgram } from '../../cutting/index.js';
import { checkLayers, checkPaints, putRight, relabelled, separate } from '../../layers/index.js';
import { fitToPanel } from '../../surface/index.js';
import type { Film, Shop } from '../film.js';
import { STAGES, type Finding } from '../finding.js';
import { InputError } from '../input-error.js';
import type { Recipe } from '../recipe.js';
import { buildStage } from './build-stage.js';
import { filmsStage } from './films-stage.js';
import type { ArtworkStage, AssembleStage, CutStage, Plan, RegionsStage, SheetsStage, SurfaceStage } from './plan.js';
import { prepareStage } from './prepare-stage.js';
import { sheetsStage } from './sheets-stage.js';
import { keyOf, StageCache } from './stage-cache.js';

export interface PlanInput {
  readonly recipe: Recipe;
  readonly shop: Shop;
  /** The untouched bytes of each artwork, by its id. */
  readonly sources: ReadonlyMap<string, Uint8Array>;
}

export interface PlanHooks {
  /** Called with the plan so far after every stage, and with how far along it is, 0 to 1. */
  readonly onProgress?: (plan: Plan, done: number) => void;
  /** Awaited between stages and placements; throwing from it cancels. */
  readonly breathe?: () => Promise<void>;
}

/**
 * Runs the stages of a job in their order, each only if what it reads has changed since this planner last saw it.
 * The same recipe, shop and sources give the same plan wherever it runs.
 */
export class Planner {
  readonly #cache = new StageCache();
  readonly #nests = new Map<string, SheetsStage>();

  async plan(input: PlanInput, hooks: PlanHooks = {}): Promise<Plan> {
    const { recipe, shop } = input;
    let plan: Plan = { findings: [], letBe: [], rulings: [] };
    let step = 0;
    const add = async (part: Partial<Plan>) => {
      plan = collect({ ...plan, ...part }, recipe.repair.letBe);
      step += 1;
      hooks.onProgress?.(plan, step / 8);
      await hooks.breathe?.();
    };

    const source = recipe.artworks[0];
    const bytes = source && input.sources.get(source.id);
    if (!source || !bytes) {
      return { ...plan, findings: [{ code: 'no-artwork', severity: 'blocker', stage: 'artwork', message: 'There is no artwork yet: drop an SVG or DXF file here.' }] };
    }
    const artworkKey = keyOf(source.sha256);
    const artwork = this.#cache.take('artwork', artworkKey, () => artworkStage(bytes, source.fileName));
    await add({ artwork });
    if (artwork.artwork.paints.length === 0) return plan;

    const surfaceKey = keyOf(artworkKey, recipe.surface);
    const surface = this.#cache.take('surface', surfaceKey, () => surfaceStage(artwork, recipe));
    await add({ surface });
    const drawnKey = keyOf(artworkKey, surface.design.scale);
    const drawn = this.#cache.take('drawn', drawnKey, () => paintRegions(artwork.artwork, surface.design.scale));
    const { letBe: _, ...remedies } = recipe.repair;
    const regionsKey = keyOf(drawnKey, remedies);
    const regions = this.#cache.take('regions', regionsKey, () => regionsStage(drawn, surface, recipe.repair));
    const withFrame = { ...artwork, findings: [...artwork.findings, ...regions.findings] };
    plan = { ...plan, artwork: withFrame, regions };
    if (regions.regions.length === 0) {
      const nothing: Finding = { code: 'nothing-painted', severity: 'blocker', stage: 'artwork', message: 'Nothing in this artwork has an area that could be cut.' };
      return collect({ ...plan, artwork: { ...withFrame, findings: [...withFrame.findings, nothing] } }, []);
    }

    const filmsKey = keyOf(regionsKey, recipe.films, shop.films);
    const films = this.#cache.take('films', filmsKey, () => filmsStage(regions.regions, recipe, shop.films));
    await add({ films });

    const filmByColour = new Map(films.colours.map((use) => [use.colour, use.film]));
    const usedFilms = new Map(films.colours.map((use) => [use.film.id, use.film]));
    const separationKey = keyOf(regionsKey, [...filmByColour].map(([colour, film]) => [colour, film.id]).sort());
    // A colour that is wholly hidden has no film and no layer, but still nothing of it shows.
    const layerOf = (colour: string) => filmByColour.get(colour)?.id ?? colour;
    const separation = this.#cache.take('separation', separationKey, () =>
      usedFilms.size === films.colours.length ? relabelled(films.byColour, layerOf) : separate(regions.regions.map((r) => ({ layer: layerOf(r.colour), rings: r.rings }))),
    );
    const known = { ...separation, layers: separation.layers.filter((layer) => usedFilms.has(layer.key)) };
    const { markSizeMm, marks } = recipe.preparation;
    const buildKey = keyOf(separationKey, filmsKey, recipe.build, markSizeMm, marks, shop.cutter.repeatabilityMm);
    const build = this.#cache.take('build', buildKey, () => buildStage(known, recipe, usedFilms, shop.cutter));
    await add({ separation: known, build });
    const thinnest = this.#cache.take('checks', buildKey, () => checkLayers(build.layers.map(({ film, cut }) => ({ filmName: film.name, thinnestMm: film.thinnestMm, cut }))));
    plan = { ...plan, artwork: { ...withFrame, findings: [...withFrame.findings, ...thinnest] } };

    const prepareKey = keyOf(buildKey, recipe.preparation);
    const prepare = this.#cache.take('prepare', prepareKey, () => prepareStage(build.layers, recipe.preparation));
    if (!prepare) return plan;
    await add({ prepare });

    const sheetsKey = keyOf(prepareKey, recipe.sheets, shop.pieces, shop.mats);
    let sheets = this.#nests.get(sheetsKey);
    if (!sheets) {
      sheets = await sheetsStage(prepare, recipe.sheets, shop, hooks.breathe ? { breathe: hooks.breathe } : {});
      if (this.#nests.size > 6) this.#nests.clear();
      this.#nests.set(sheetsKey, sheets);
    }
    await add({ sheets });

    const placed = sheets;
    const cut = this.#cache.take('cut', keyOf(sheetsKey, shop.cutter), () => cutStage(placed, shop));
    await add({ cut });
    const assemble = this.#cache.take('assemble', keyOf(prepareKey, recipe.assembly), () => assembleStage(prepare.layers, recipe, prepare.marks !== null, surface));
    await add({ assemble });
    return plan;
  }
}

function artworkStage(bytes: Uint8Array, fileName: string): ArtworkStage {
  try {
    const artwork = readArtwork(bytes, fileName);
    const empty: Finding[] =
      artwork.paints.length === 0
        ? [{ code: 'nothing-painted', severity: 'blocker', stage: 'artwork', message: 'Nothing in this artwork has an area that could be cut.' }]
        : [];
    return { artwork, findings: [...artwork.findings, ...empty], rulings: [] };
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    const finding: Finding = { code: error.code, severity: 'blocker', stage: 'artwork', message: error.message };
    return { artwork: { widthMm: 1, heightMm: 1, paints: [], findings: [] }, findings: [finding], rulings: [] };
  }
}

function surfaceStage({ artwork }: ArtworkStage, { surface }: Recipe): SurfaceStage {
  const design = fitToPanel(artwork, surface, surface.size);
  return { design, findings: design.findings, rulings: design.rulings };
}

function regionsStage(drawn: ReturnType<typeof paintRegions>, { design }: SurfaceStage, repair: Recipe['repair']): RegionsStage {
  const regions = putRight(drawn.regions, repair);
  const frame = { minX: 0, minY: 0, maxX: design.widthMm, maxY: design.heightMm };
  return { regions, asDrawn: drawn.regions, findings: [...drawn.findings, ...checkPaints(regions, frame, repair, colourDifference)], rulings: [] };
}

function cutStage(sheets: SheetsStage, shop: Shop): CutStage {
  const programs = sheets.sheets.map((sheet) =>
    cutProgram({
      contours: sheet.groups.flatMap((group) => group.contours),
      borders: sheet.groups.flatMap((group) => group.borders),
      settings: settingsFor(sheet.film, shop),
      motion: shop.cutter,
    }),
  );
  const seconds = programs.reduce((sum, program) => sum + program.seconds, 0);
  const rulings = [...new Set(sheets.sheets.map((sheet) => sheet.film))].map((film) => ({
    id: `cut.${film.id}`,
    stage: 'cut' as const,
    subject: `Settings for ${film.name}`,
    sentence: `${film.name} is cut with {value} at ${film.speedMmS} mm/s.`,
    value: film.forceG,
    unit: 'g' as const,
    because: ['These settings worked on this cutter before; make a test cut when the blade or the roll is new.'],
  }));
  return { programs, seconds, findings: [], rulings };
}

/** The knife settings of a film on the shop's cutter. */
export function settingsFor(film: Film, shop: Shop): { forceG: number; speedMmS: number; bladeOffsetMm: number; overcutMm: number } {
  return { forceG: film.forceG, speedMmS: film.speedMmS, bladeOffsetMm: shop.cutter.bladeOffsetMm, overcutMm: shop.cutter.overcutMm };
}

function assembleStage(
  layers: readonly { readonly layer: { readonly film: Film; readonly order: number }; readonly weed: { readonly counters: number } }[],
  recipe: Recipe,
  marks: boolean,
  surface: SurfaceStage,
): AssembleStage {
  const { widthMm, heightMm } = surface.design;
  const steps = assemblySteps(
    layers.map(({ layer, weed }) => ({ filmId: layer.film.id, filmName: layer.film.name, order: layer.order, counters: weed.counters })),
    { way: recipe.assembly.way, marks, longestSideMm: Math.max(widthMm, heightMm) },
  );
  const other = recipe.assembly.way === 'tape' ? 'surface' : 'tape';
  return {
    steps,
    findings: [],
    rulings: [
      {
        id: 'assemble.way',
        stage: 'assemble',
        subject: 'Where it is put together',
        sentence: 'The layers are put together {value}.',
        value: recipe.assembly.way === 'tape' ? 'on tape' : 'on the surface',
        unit: '',
        because: [recipe.assembly.way === 'tape' ? 'The front layer is picked up first and the order turns over.' : 'The layer nearest the surface goes down first.'],
        alternatives: [{ label: other === 'tape' ? 'On tape, to apply in one go' : 'On the surface', patch: { assembly: { way: other } } }],
      },
    ],
  };
}

/** Findings and rulings of all stages, in the order of the job card. */
function collect(plan: Plan, letBe: readonly string[]): Plan {
  const stages = [plan.artwork, plan.films, plan.surface, plan.build, plan.prepare, plan.sheets, plan.cut, plan.assemble];
  const findings = stages.flatMap((stage) => stage?.findings ?? []);
  // What stops a job cannot be let be.
  const isLetBe = (finding: Finding) => finding.severity !== 'blocker' && letBe.includes(finding.code);
  return {
    ...plan,
    findings: findings.filter((finding) => !isLetBe(finding)).sort((a, b) => STAGES.indexOf(a.stage) - STAGES.indexOf(b.stage)),
    letBe: findings.filter(isLetBe),
    rulings: stages.flatMap((stage) => stage?.rulings ?? []),
  };
}
