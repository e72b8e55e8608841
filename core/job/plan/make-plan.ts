import { ArtworkReader, colourDifference, flattenTolerance, paintPlaced, type ArtworkResources, type LetterChoice, type PaintedRegion, type TraceHooks } from '../../artwork/index.js';
import { boundsOf, boxesTouch, boxRing, joinBoxes, transformRing, type Box, type Matrix } from '../../geometry/index.js';
import { nameOfPart, type ArtworkPart, type Lettering } from '../artwork-part.js';
import { arranged, partMatrix, readParts, traceParts, tracingRulings, type Arrangement, type ReadPart } from './artwork-stage.js';
import { assemblySteps } from '../../assembly/index.js';
import { cutProgram } from '../../cutting/index.js';
import { BARE, checkLayers, checkPaints, neighboursOf, putRight, relabelled, separate, touchesUp, touchUp, type Neighbours, type Separation } from '../../layers/index.js';
import { fitToPanel } from '../../surface/index.js';
import type { Film, Shop } from '../film.js';
import { STAGES, type Finding } from '../finding.js';
import { InputError } from '../input-error.js';
import { formatLength } from '../length.js';
import { besidesSpared, placeOf, placeRules, type PlaceRules } from '../places.js';
import type { Recipe, RecipePatch } from '../recipe.js';
import { buildStage, closingUnder } from './build-stage.js';
import { settingsFor } from './settings.js';
import { addingPart, replacingPart, type Replacement } from './change-parts.js';
import { filmsStage } from './films-stage.js';
import { framing, type Framed } from './framing.js';
import type { ArtworkStage, AssembleStage, BuildStage, CutStage, FilmsStage, Plan, RegionsStage, SheetsStage, SurfaceStage } from './plan.js';
import { prepareStage } from './prepare-stage.js';
import { sheetsStage, type TakenCopies } from './sheets-stage.js';
import { keyOf, StageCache } from './stage-cache.js';

export interface PlanInput {
  readonly recipe: Recipe;
  readonly shop: Shop;
  /** The untouched bytes of each artwork, by its id. */
  readonly sources: ReadonlyMap<string, Uint8Array>;
  /** Copies of layers that need not be cut any more, as the record has them; absent where there is no record. */
  readonly taken?: TakenCopies;
}

/** So many times what the remedies made is looked at again: to widen one part may thin its neighbour. */
const ROUNDS = 2;

export interface PlanHooks {
  /** Called with the plan so far after every stage, and with how far along it is, 0 to 1. */
  readonly onProgress?: (plan: Plan, done: number) => void;
  /** Awaited between stages and placements; throwing from it cancels. */
  readonly breathe?: () => Promise<void>;
  /** Told what is being done when a picture is traced, and how far along that is, 0 to 1. */
  readonly onStep?: (doing: string, done: number) => void;
}

/**
 * Runs the stages of a job in their order, each only if what it reads has changed since this planner last saw it.
 * The same recipe, shop and sources give the same plan wherever it runs.
 */
export class Planner {
  readonly #cache = new StageCache();
  readonly #nests = new Map<string, SheetsStage>();
  readonly #reader: ArtworkReader;

  constructor(resources: ArtworkResources) {
    this.#reader = new ArtworkReader(resources);
  }

  /** The change that adds a part; `input.sources` holds its file too. @throws InputError when it cannot be read */
  async adding(input: PlanInput, part: ArtworkPart): Promise<RecipePatch> {
    const [added, ...read] = await this.#readAll(input, part, input.recipe.artworks);
    return addingPart(input.recipe, read, added!);
  }

  /** The change that puts a new version in the place of the part called `id`. @throws InputError when it cannot be read */
  async replacing(input: PlanInput, id: string, part: ArtworkPart): Promise<Replacement> {
    const [now, ...read] = await this.#readAll(input, part, input.recipe.artworks);
    const old = read.find((other) => other.part.id === id);
    if (!old) throw new InputError('part-unknown', 'This job has no such artwork any more.', { source: nameOfPart(part) });
    return replacingPart(input.recipe, read, old, now!);
  }

  async #readAll({ recipe, sources }: PlanInput, part: ArtworkPart, others: readonly ArtworkPart[]): Promise<ReadPart[]> {
    const read = await readParts({ ...recipe, artworks: [part, ...others] }, sources, this.#reader, this.#cache, {});
    const blocked = read[0]!.findings.find((finding) => finding.severity === 'blocker');
    if (blocked) throw new InputError(blocked.code, blocked.message, { source: nameOfPart(part) });
    return read;
  }

  /** A font's own name. @throws InputError when the file is no font */
  fontName(bytes: Uint8Array, fileName: string): Promise<string> {
    return this.#reader.fontName(bytes, fileName);
  }

  /** Letters of a lettering that its font has other forms for. @throws InputError when the font cannot be read */
  letterChoices(lettering: Lettering, ownFont: Uint8Array | null): Promise<LetterChoice[]> {
    return this.#reader.choices(lettering, ownFont);
  }

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

    if (recipe.artworks.length === 0) {
      return { ...plan, findings: [{ code: 'no-artwork', severity: 'blocker', stage: 'artwork', message: 'There is no artwork yet: drop a file here, or set some lettering.' }] };
    }
    const trace: TraceHooks = { ...(hooks.onStep ? { onStep: hooks.onStep } : {}), ...(hooks.breathe ? { breathe: hooks.breathe } : {}) };
    const read = await readParts(recipe, input.sources, this.#reader, this.#cache, trace);
    const arrangement = arranged(read);
    const paints = arrangement.parts.reduce((sum, part) => sum + part.artwork.paints.length + (part.reduced ? 1 : 0), 0);
    await add({ artwork: artworkStage(arrangement, paints) });
    if (paints === 0) return plan;

    const { widthMm, heightMm } = arrangement;
    const surface = this.#cache.take('surface', keyOf(widthMm, heightMm, recipe.surface, reachOf(recipe)), () => surfaceStage(arrangement, recipe));
    await add({ surface });
    const { scale } = surface.design;
    const traced = { ...arrangement, parts: await traceParts(read, scale, this.#reader, this.#cache, trace) };
    const { letBe: _, ...remedies } = recipe.repair;
    const matrices = new Map(traced.parts.map((part) => [part.part.id, partMatrix(part, traced, scale)]));
    const rules = placeRules(recipe.repair, (part) => matrices.get(part));
    const drawn = traced.parts.map((part) => this.#drawn(part, matrices.get(part.part.id)!, traced, scale, remedies, rules));
    const partsKey = keyOf(drawn.map((part) => part.key));
    const regionsKey = keyOf(partsKey, remedies);
    const untouched = this.#cache.take('regions', regionsKey, () => regionsStage(drawn, recipe.repair, rules));
    const rulings = traced.parts.flatMap((part) => tracingRulings(recipe, part, scale));
    const withFrame: ArtworkStage = { ...artworkStage(traced, paints), rulings: [...rulings, ...(plan.artwork?.rulings ?? [])] };
    const said = { ...withFrame, findings: [...drawn.flatMap((part) => part.findings), ...untouched.findings] };
    plan = { ...plan, artwork: said, regions: untouched };
    const isBare = ({ regions }: RegionsStage) => regions.every((region) => region.colour === BARE);
    const nothing = (): Plan => {
      const finding: Finding = { code: 'nothing-painted', severity: 'blocker', stage: 'artwork', message: 'Nothing in this artwork has an area that could be cut.' };
      return collect({ ...plan, artwork: { ...said, findings: [...said.findings, finding] } }, {});
    };
    if (isBare(untouched)) return nothing();

    const { regions, films, separation, neighbours, build, buildKey } = this.#touchedUp(untouched, regionsKey, input, rules);
    plan = { ...plan, regions };
    if (isBare(regions)) return nothing();
    await add({ films });
    const over = overhang(build, surface, recipe);
    await add({ separation, neighbours, build, ...(over.length > 0 ? { surface: { ...surface, findings: [...surface.findings, ...over] } } : {}) });
    const checked = this.#cache.take('checks', buildKey, () => ({
      thinnest: checkLayers(build.layers.map(({ film, cut }) => ({ filmName: film.name, thinnestMm: film.thinnestMm, cut }))),
      build: { ...build, findings: [...build.findings, ...closingUnder(build)] },
    }));
    const pointed = pointing([...said.findings, ...checked.thinnest], rules, regions.regions, matrices);
    plan = { ...plan, artwork: { ...said, findings: pointed }, build: checked.build };

    const prepareKey = keyOf(buildKey, recipe.preparation);
    const prepare = this.#cache.take('prepare', prepareKey, () => prepareStage(build.layers, recipe.preparation));
    if (!prepare) return plan;
    await add({ prepare });

    const taken = input.taken ?? {};
    const sheetsKey = keyOf(prepareKey, recipe.sheets, shop.pieces, shop.mats, shop.cutter, taken);
    let sheets = this.#nests.get(sheetsKey);
    if (!sheets) {
      sheets = await sheetsStage(prepare, recipe.sheets, shop, taken, hooks.breathe ? { breathe: hooks.breathe } : {});
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

  /**
   * The layers, with what the remedies for thin parts, gaps, specks and pinholes change: those act on what would be cut, so it is built
   * once to see that and once more without it. A second round sees to what the first one made thin.
   */
  #touchedUp(untouched: RegionsStage, regionsKey: string, input: PlanInput, rules: PlaceRules): Layered & { readonly regions: RegionsStage } {
    const { repair } = input.recipe;
    let [regions, key] = [untouched, regionsKey];
    let made = this.#layered(regions, key, input, rules);
    for (let round = 0; round < ROUNDS && touchesUp(repair); round += 1) {
      const { build, films, buildKey } = made;
      const filmOf = new Map(films.colours.map((use) => [use.colour, use.film.id]));
      const layers = build.layers.map((layer) => ({ key: layer.key, thinnestMm: layer.film.thinnestMm, cut: layer.cut, visible: layer.visible }));
      const before = regions.regions;
      const touched = this.#cache.take(`touched up ${round}`, keyOf(key, buildKey), () => touchUp(before, layers, (colour) => filmOf.get(colour), repair, rules));
      if (!touched) break;
      regions = { ...regions, regions: touched };
      key = keyOf(key, buildKey, round);
      made = this.#layered(regions, key, input, rules);
    }
    return { ...made, regions };
  }

  /** The films of the painted areas and the layers built of them. */
  #layered({ regions }: RegionsStage, regionsKey: string, { recipe, shop }: PlanInput, rules: PlaceRules): Layered {
    const filmsKey = keyOf(regionsKey, recipe.films, shop.films);
    const films = this.#cache.take('films', filmsKey, () => filmsStage(regions, recipe, shop.films));
    const filmByColour = new Map(films.colours.map((use) => [use.colour, use.film]));
    const usedFilms = new Map(films.colours.map((use) => [use.film.id, use.film]));
    const ownFilms = usedFilms.size;
    const { outlines, knockOuts, blockOut, contour } = recipe.build;
    for (const id of [...outlines.map((outline) => outline.filmId), ...(blockOut ? [blockOut.filmId] : []), ...(contour ? [contour.filmId] : [])]) {
      const film = shop.films.find((other) => other.id === id);
      if (film) usedFilms.set(id, film);
    }
    const separationKey = keyOf(regionsKey, [...filmByColour].map(([colour, film]) => [colour, film.id]).sort(), outlines, knockOuts, contour, [...usedFilms.values()].map((film) => film.thinnestMm));
    // A colour that is wholly hidden has no film and no layer, but still nothing of it shows.
    const layerOf = (colour: string) => filmByColour.get(colour)?.id ?? colour;
    const framed = this.#cache.take('framed', separationKey, (): Framed | null => {
      if (outlines.length + knockOuts.length === 0 && !contour) return null;
      return framing(regions.filter((r) => filmByColour.has(r.colour)).map((r) => ({ layer: layerOf(r.colour), rings: r.rings })), recipe.build, usedFilms);
    });
    const separation = this.#cache.take('separation', separationKey, () => {
      if (framed) return separate(framed.paints);
      return ownFilms === films.colours.length ? relabelled(films.byColour, layerOf) : separate(regions.map((r) => ({ layer: layerOf(r.colour), rings: r.rings })));
    });
    const known = { ...separation, layers: separation.layers.filter((layer) => usedFilms.has(layer.key)) };
    const neighbours = this.#cache.take('neighbours', separationKey, () => neighboursOf(known));
    const { markSizeMm, markDistanceMm, marks } = recipe.preparation;
    const { closeGapsMm, only, spared } = recipe.repair;
    const buildKey = keyOf(separationKey, filmsKey, recipe.build, markSizeMm, markDistanceMm, marks, shop.cutter.repeatabilityMm, closeGapsMm, only.gaps, spared.gaps);
    const build = this.#cache.take('build', buildKey, () => {
      const built = buildStage(known, neighbours, recipe, usedFilms, shop.cutter, rules);
      return framed ? { ...built, rulings: [...built.rulings, ...framed.rulings], findings: [...built.findings, ...framed.findings] } : built;
    });
    return { films, separation: known, neighbours, build, buildKey };
  }

  #drawn(part: ReadPart, matrix: Matrix, arrangement: Arrangement, scale: number, { hairlines, fillCrossings, joinEndsMm, only, spared }: Omit<Recipe['repair'], 'letBe'>, rules: PlaceRules): DrawnPart {
    const toleranceMm = flattenTolerance(Math.max(arrangement.widthMm, arrangement.heightMm) * scale);
    const repair = { hairlines, fillCrossings, joinEndsMm };
    const key = keyOf(part.key, matrix, toleranceMm, repair, only.hairlines, only.crossings, spared.hairlines, spared.crossings);
    const { regions, findings } = this.#cache.take('part drawn', key, () => paintPlaced(part.artwork, { matrix, toleranceMm, repair, rules }));
    const name = arrangement.parts.length > 1 ? `${nameOfPart(part.part)}: ` : '';
    const named = (finding: Finding) => ({ ...finding, message: name + finding.message });
    const frame = boundsOf([transformRing(boxRing({ minX: 0, minY: 0, maxX: part.artwork.widthMm, maxY: part.artwork.heightMm }), matrix)])!;
    const { id } = part.part;
    return { key: keyOf(key, id), regions: regions.map((region) => ({ ...region, part: id })), frame, findings: [...part.findings.map((finding) => named(placed(finding, matrix))), ...findings.map(named)] };
  }
}

/** A finding of a part with its places where they are on the design. */
function placed(finding: Finding, matrix: Matrix): Finding {
  const moved = (box: Box) => boundsOf([transformRing(boxRing(box), matrix)])!;
  return { ...finding, ...(finding.where ? { where: moved(finding.where) } : {}), ...(finding.places ? { places: finding.places.map(moved) } : {}) };
}

/** What was found with its places as a recipe keeps them, without those that are let be. A place belongs to the uppermost part that has something there. */
function pointing(findings: readonly Finding[], rules: PlaceRules, regions: readonly PaintedRegion[], matrices: ReadonlyMap<string, Matrix>): Finding[] {
  const [only] = matrices.size === 1 ? [...matrices.keys()] : [];
  const boxes = only === undefined ? regions.map(({ part, rings }) => ({ part: part!, box: boundsOf(rings)! })).reverse() : [];
  const partAt = (box: Box) => only ?? boxes.find((area) => boxesTouch(area.box, box))?.part;
  return findings.flatMap((finding) => {
    const left = besidesSpared(finding, rules);
    if (!left) return [];
    if (!left.places || !left.remedies?.some((remedy) => remedy.acts)) return [left];
    const at = left.places.map((box) => {
      const part = partAt(box);
      return part === undefined ? null : placeOf(box, part, matrices.get(part)!);
    });
    return [{ ...left, at }];
  });
}

function artworkStage({ parts, widthMm, heightMm }: Arrangement, paints: number): ArtworkStage {
  const findings = parts.flatMap((part) => part.findings);
  if (paints === 0 && findings.every((finding) => finding.severity !== 'blocker')) {
    findings.push({ code: 'nothing-painted', severity: 'blocker', stage: 'artwork', message: 'Nothing in this artwork has an area that could be cut.' });
  }
  return { parts, widthMm, heightMm, paints, findings, rulings: [] };
}

/** How far what is built reaches beyond the design, as far as that is decided: outlines whose width the app rules are known only once all is built. */
function reachOf({ build: { outlines, contour } }: Recipe): number {
  return outlines.reduce((sum, outline) => sum + (outline.widthMm ?? 0), 0) + (contour?.side === 'outside' ? contour.byMm : 0);
}

/** What is cut reaches into the margins though the design does not: its outline is wider than was known when it was sized. */
function overhang({ layers }: BuildStage, { design, findings }: SurfaceStage, { surface }: Recipe): Finding[] {
  const box = layers.reduce<Box | null>((sum, layer) => joinBoxes(sum, boundsOf(layer.cut)), null);
  if (!box || findings.length > 0) return [];
  const { top, right, bottom, left } = surface.marginMm;
  const [beyondX, beyondY] = [box.maxX - box.minX - design.widthMm, box.maxY - box.minY - design.heightMm];
  const room = { width: surface.widthMm - left - right, height: surface.heightMm - top - bottom };
  const isOver = design.xMm + box.minX < left - 0.01 || design.yMm + box.minY < top - 0.01 || design.xMm + box.maxX > surface.widthMm - right + 0.01 || design.yMm + box.maxY > surface.heightMm - bottom + 0.01;
  if (!isOver) return [];
  const scale = Math.min((room.width - Math.max(0, beyondX)) / design.widthMm, (room.height - Math.max(0, beyondY)) / design.heightMm);
  const mm = Math.floor(design.widthMm * Math.min(1, scale) * 10) / 10;
  const remedies = mm >= 1 ? [{ label: `Make the design ${formatLength(mm)} mm wide`, patch: { surface: { size: { mode: 'width', mm } as const } } }] : [];
  return [{ code: 'outline-into-margins', severity: 'warning', stage: 'surface', message: `The outline takes the work to ${formatLength(box.maxX - box.minX)} × ${formatLength(box.maxY - box.minY)} mm, and into the margins.`, where: box, remedies }];
}

function surfaceStage(arrangement: Arrangement, recipe: Recipe): SurfaceStage {
  const { surface } = recipe;
  const design = fitToPanel(arrangement, surface, surface.size, reachOf(recipe));
  return { design, findings: design.findings, rulings: design.rulings };
}

/** What the films stage and those after it make of the painted areas, as far as the build. */
interface Layered {
  readonly films: FilmsStage;
  readonly separation: Separation;
  readonly neighbours: Neighbours;
  readonly build: BuildStage;
  readonly buildKey: string;
}

/** A part's areas where it lies on the design, and what was noticed of it, its places on the design. */
interface DrawnPart {
  readonly key: string;
  readonly regions: readonly PaintedRegion[];
  /** What the part takes up, mm. */
  readonly frame: Box;
  readonly findings: readonly Finding[];
}

function regionsStage(drawn: readonly DrawnPart[], repair: Recipe['repair'], rules: PlaceRules): RegionsStage {
  const asDrawn = drawn.flatMap((part) => part.regions);
  const regions = putRight(asDrawn, repair, rules);
  return { regions, asDrawn, findings: checkPaints(regions, drawn.map((part) => part.frame), repair, colourDifference), rulings: [] };
}

function cutStage(sheets: SheetsStage, shop: Shop): CutStage {
  const programs = sheets.sheets.map((sheet) =>
    cutProgram({
      groups: sheet.groups,
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
function collect(plan: Plan, letBe: Recipe['repair']['letBe']): Plan {
  const stages = [plan.artwork, plan.films, plan.surface, plan.build, plan.prepare, plan.sheets, plan.cut, plan.assemble];
  const findings = stages.flatMap((stage) => stage?.findings ?? []);
  // What stops a job cannot be let be.
  const isLetBe = (finding: Finding) => finding.severity !== 'blocker' && finding.code in letBe;
  return {
    ...plan,
    findings: findings.filter((finding) => !isLetBe(finding)).sort((a, b) => STAGES.indexOf(a.stage) - STAGES.indexOf(b.stage)),
    letBe: findings.filter(isLetBe),
    rulings: stages.flatMap((stage) => stage?.rulings ?? []),
  };
}
