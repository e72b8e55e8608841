import {
  ArtworkReader,
  type ArtworkResources,
  type LetterChoice,
  type Lettering,
  type PaintedRegion,
} from '../engines/artwork/index.js';
import { BARE } from '../engines/layers/index.js';
import { APART_MM, setBeside, unwarpBox, type TaperMap } from '../engines/surface/index.js';
import { compose, stretchOf, transformBox, translation, widenBox, type Matrix } from '../geometry/index.js';
import type { JobFinding, Recipe, RecipePatch } from '../recipe/index.js';
import type { Shop } from '../shop/index.js';
import {
  comparePartStage,
  designOf,
  inWords,
  nameOfPart,
  NO_ARTWORK,
  NOTHING_PAINTED,
  paintPartStage,
  partExtentStage,
  partMatrix,
  placedFinding,
  placeRules,
  putRightStage,
  readPartStage,
  sayHiddenPart,
  sayJoinedWords,
  sayOfPart,
  sayTracing,
  sourcesOf,
  spotsOf,
  tracedFigures,
  tracePartStage,
  withRecipePlaces,
  type ArtworkPart,
  type Design,
  type PaintedPart,
  type PartAsRead,
  type Regions,
} from '../stations/artwork/index.js';
import { assembleStage } from '../stations/assemble/index.js';
import {
  buildStage,
  checkStage,
  panelsStage,
  separateStage,
  touchesUp,
  touchUpStage,
  type DesignApart,
} from '../stations/layers/index.js';
import { cutStage } from '../stations/cut/index.js';
import {
  builtWithNow,
  filmsStage,
  panelsAsBuilt,
  patternsStage,
  sayShopDiffers,
  shopAsBuilt,
  shopDifferences,
  type BuiltWith,
} from '../stations/films/index.js';
import { prepareStage, type LearnedWeeding } from '../stations/prepare/index.js';
import { sheetsStage } from '../stations/sheets/index.js';
import type { StageHooks } from '../stations/stage.js';
import {
  groundOf,
  partsInDesigns,
  sayCondensed,
  surfaceCheckStage,
  surfaceStage,
  warpStage,
  type Instance,
  type LettersOnDesign,
  type SurfaceOut,
} from '../stations/surface/index.js';
import { InputError, PLACE_REMEDIES } from '../words/index.js';
import type { RepeatWish, Replacement } from './change-parts.js';
import { collected } from './collect.js';
import type { JobSoFar } from './built-with.js';
import type { ArtworkOut, Plan } from './plan.js';
import { eachOf } from './several.js';
import { StageCache } from './stage-cache.js';
import { condensedMatrix, namesCondensed } from './teams.js';
import { unsuitedFilms } from './unsuited-films.js';

/** What is cut already is absent where there is no record. */
export interface PlanInput extends Partial<JobSoFar> {
  readonly recipe: Recipe;
  readonly shop: Shop;
  /** The untouched bytes of each artwork, by its id. */
  readonly sources: ReadonlyMap<string, Uint8Array>;
  /** What the shop's own log of weeding has taught; absent where there is none. */
  readonly weeding?: LearnedWeeding | undefined;
}

/** So many times what the remedies made is looked at again: to widen one part may thin its neighbour. */
const ROUNDS = 2;
/** So many steps of a plan are told as they are done. */
const STEPS = 8;

export interface PlanHooks extends StageHooks {
  /** Called with the plan so far after every step, and with how far along it is, 0 to 1. */
  readonly onProgress?: (plan: Plan, done: number) => void;
}

/**
 * The stages of a job in their order, each run only if what it reads has changed since this planner last saw it.
 * The same recipe, shop and sources give the same plan wherever it runs.
 */
export class Planner {
  readonly #cache = new StageCache();
  readonly #reader: ArtworkReader;

  constructor(resources: ArtworkResources) {
    this.#reader = new ArtworkReader(resources);
  }

  /** The change that adds a part; `input.sources` holds its file too. @throws InputError when it cannot be read */
  async adding(input: PlanInput, part: ArtworkPart): Promise<RecipePatch> {
    const added = await this.#readable(input, part);
    // Parts come and go seldom: how they change a recipe is fetched with the first that does.
    const { addingPart } = await import('./change-parts.js');
    return addingPart(input.recipe, await this.#readAll(input, {}), added);
  }

  /** The change that repeats some parts, each copy told apart as is wished. @throws InputError when a copy cannot be read */
  async repeating(input: PlanInput, wish: RepeatWish): Promise<RecipePatch> {
    const { repeatingParts } = await import('./change-parts.js');
    return repeatingParts(input.recipe, await this.#readAll(input, {}), wish, (part) => this.#readable(input, part));
  }

  /** The change that puts a new version in the place of the part called `id`. @throws InputError when it cannot be read */
  async replacing(input: PlanInput, id: string, part: ArtworkPart): Promise<Replacement> {
    const now = await this.#samePage(input, id, part);
    const read = await this.#readAll(input, {});
    const old = read.find((other) => other.part.id === id);
    if (!old)
      throw new InputError('part-unknown', 'This job does not have this artwork any more.', {
        source: nameOfPart(part, [part]),
      });
    const { replacingPart } = await import('./change-parts.js');
    return replacingPart(input.recipe, read, old, now, (recipe) =>
      this.#read({ ...input, recipe }, { ...now.part, place: old.part.place }, {}),
    );
  }

  /** A font's own name. @throws InputError when the file is no font */
  fontName(bytes: Uint8Array, fileName: string): Promise<string> {
    return inWords(() => this.#reader.fontName(bytes, fileName));
  }

  /** Letters of a lettering that its font has other forms for. @throws InputError when the font cannot be read */
  letterChoices(lettering: Lettering, ownFont: Uint8Array | null): Promise<LetterChoice[]> {
    return inWords(() => this.#reader.choices(lettering, ownFont));
  }

  /** What a design looks like in the colours of its artwork, the lowest first; what covers others and is no film is BARE. Empty when nothing is painted. */
  async look(input: PlanInput, hooks: StageHooks = {}): Promise<readonly PaintedRegion[]> {
    const design = designOf(await this.#readAll(input, hooks), input.recipe.surface.sizeOf);
    if (design.parts.length === 0) return [];
    const sized = await this.#sized(design, input.recipe);
    await hooks.breathe?.();
    return (await this.#drawn(design, sized, input, hooks)).untouched.regions;
  }

  /** What a recipe comes to, checked at the end against what another program draws of the same files. */
  async plan(input: PlanInput, hooks: PlanHooks = {}): Promise<Plan> {
    return this.#compared(await this.#planned(input, hooks), input, hooks);
  }

  /** The same as far as its layers are prepared: what is laid out together with other jobs. */
  async prepared(input: PlanInput, hooks: PlanHooks = {}): Promise<Plan> {
    return this.#planned(input, hooks, 'prepare');
  }

  async #planned(input: PlanInput, hooks: PlanHooks, upTo: 'prepare' | 'assemble' = 'assemble'): Promise<Plan> {
    const { recipe } = input;
    const built = builtWithNow(input.builtWith, recipe.films.renewals);
    const shop = shopAsBuilt(input.shop, built);
    const cache = this.#cache;
    let plan: Plan = { findings: [], letBe: [], rulings: [] };
    let step = 0;
    const add = async (made: Partial<Plan>) => {
      plan = collected({ ...plan, ...made }, recipe.repair.letBe);
      step += 1;
      hooks.onProgress?.(plan, step / STEPS);
      await hooks.breathe?.();
    };
    // What stops the artwork says already why nothing of it can be cut.
    const endedBare = (artwork: ArtworkOut): Plan => {
      const isSaid = artwork.findings.some(({ severity }) => severity === 'blocker');
      const findings = isSaid ? artwork.findings : [...artwork.findings, NOTHING_PAINTED];
      return collected({ ...plan, artwork: { ...artwork, findings } }, {});
    };

    if (recipe.artworks.length === 0) return { ...plan, findings: [NO_ARTWORK] };
    const design = designOf(await this.#readAll(input, hooks), recipe.surface.sizeOf);
    const paints = design.parts.reduce((sum, { read }) => sum + read.artwork.paints.length + (read.reduced ? 1 : 0), 0);
    const read: ArtworkOut = {
      ...design,
      paints,
      findings: design.parts.flatMap((part) => part.read.findings),
      rulings: [],
    };
    const isEmpty = paints === 0 && read.findings.every((finding) => finding.severity !== 'blocker');
    await add({ artwork: isEmpty ? { ...read, findings: [...read.findings, NOTHING_PAINTED] } : read });
    if (paints === 0) return plan;

    const ruled = await this.#sized(design, recipe);
    await add({ surface: ruled });
    if (ruled.isTooLong) return plan;
    const { scale } = ruled.design;
    const { parts, matrices, painted, apart, frame, condensed, untouched } = await this.#drawn(
      design,
      ruled,
      input,
      hooks,
    );
    const sized = {
      ...ruled,
      frame,
      rulings:
        condensed.length > 0 && recipe.surface.team
          ? [...ruled.rulings, sayCondensed(condensed, recipe.surface.team)]
          : ruled.rulings,
    };
    const artwork: ArtworkOut = {
      ...read,
      parts,
      findings: [
        ...painted.flatMap((part) => part.findings),
        ...untouched.findings,
        ...recipe.artworks
          .filter(({ id }) => untouched.hiddenParts.includes(id))
          .map((part) => sayHiddenPart(part, recipe.artworks)),
      ],
      rulings: parts.flatMap((part) => sayRuled(part, recipe.artworks, scale)),
    };
    plan = { ...plan, artwork, matrices, regions: untouched };
    if (isBare(untouched)) return endedBare(artwork);

    const { map } = sized;
    const placed = { matrices, map, apart };
    const bent = map ? await cache.take(warpStage, { regions: untouched, map }) : untouched;
    const layered = await this.#layered(bent, input, placed);
    const { regions, films, separated, panels, build } = layered;
    // Of a bent design the artwork is shown as it is drawn.
    if (!map) plan = { ...plan, regions };
    if (isBare(regions)) return endedBare(artwork);
    const { rulings: patterns } = await cache.take(patternsStage, { films, recipe });
    await add({
      films: {
        ...films,
        findings: [...films.findings, ...unsuitedFilms(recipe, films, shop.films), ...this.#shopDiffers(input, built)],
        rulings: [...films.rulings, ...patterns],
      },
    });
    if (!separated || !panels || !build) return plan;
    const letters = lettersOf(parts, matrices);
    const checked = await cache.take(surfaceCheckStage, { sized, build, letters, recipe });
    const surface = {
      ...sized,
      findings: [...sized.findings, ...checked.findings, ...panels.findings],
      rulings: [...sized.rulings, ...checked.rulings, ...panels.rulings],
    };
    await add({ separated, panels, build, surface });
    const checks = await cache.take(checkStage, { build, recipe });
    const rules = placeRules(spotsOf(recipe.repair, PLACE_REMEDIES, (part) => matrices.get(part)));
    plan = {
      ...plan,
      artwork: {
        ...artwork,
        findings: withRecipePlaces(
          [...artwork.findings, ...checks.artwork.map((finding) => flatFinding(finding, map))],
          rules,
          plan.regions!.regions,
          matrices,
        ),
      },
      build: checks.build,
    };

    const prepare = await cache.take(prepareStage, { build, panels, letters, weeding: input.weeding, recipe }, hooks);
    if (!prepare) return plan;
    await add({ prepare });
    if (upTo === 'prepare') return plan;
    const sheets = await cache.take(
      sheetsStage,
      { prepare, recipe, shop, taken: input.taken ?? {}, lies: input.lies ?? {}, lone: input.lone ?? null },
      hooks,
    );
    await add({ sheets });
    await add({ cut: await cache.take(cutStage, { sheets, cutter: shop.cutter }) });
    await add({ assemble: await cache.take(assembleStage, { prepare, panels, surface: sized, recipe }) });
    return plan;
  }

  /** A plan with what is not read as it is drawn among its findings. */
  async #compared(plan: Plan, { recipe, sources }: PlanInput, hooks: PlanHooks): Promise<Plan> {
    const { artwork, matrices } = plan;
    if (!artwork || !matrices) return plan;
    const found: JobFinding[] = [];
    for (const { part, read } of artwork.parts) {
      const bytes = part.kind === 'drawing' ? sources.get(part.source.id) : undefined;
      if (part.kind !== 'drawing' || !bytes || read.artwork.paints.length === 0) continue;
      await hooks.breathe?.();
      const findings = (await this.#cache.take(comparePartStage(this.#reader), { read, bytes })).map((finding) =>
        placedFinding(finding, matrices.get(part.id)!),
      );
      found.push(
        ...(artwork.parts.length > 1 ? findings.map((finding) => sayOfPart(finding, part, recipe.artworks)) : findings),
      );
    }
    return found.length === 0
      ? plan
      : collected({ ...plan, artwork: { ...artwork, findings: [...artwork.findings, ...found] } }, recipe.repair.letBe);
  }

  async #readAll(input: PlanInput, hooks: StageHooks): Promise<PartAsRead[]> {
    const parts: PartAsRead[] = [];
    for (const part of input.recipe.artworks) parts.push(await this.#read(input, part, hooks));
    return parts;
  }

  async #read({ recipe, sources }: PlanInput, part: ArtworkPart, hooks: StageHooks): Promise<PartAsRead> {
    for (const { id, sha256 } of sourcesOf(part)) {
      const bytes = sources.get(id);
      if (bytes) this.#cache.know(bytes, sha256);
    }
    const read = await this.#cache.take(readPartStage(this.#reader), { part, repair: recipe.repair, sources }, hooks);
    return { part, read, extents: await this.#cache.take(partExtentStage, { part, read, repair: recipe.repair }) };
  }

  /** A part that is to stand on the design. @throws InputError when it cannot be read */
  /** A new version of a drawing, the same page of it that was made before, or its first when it has no such page. */
  async #samePage(input: PlanInput, id: string, part: ArtworkPart): Promise<PartAsRead> {
    const before = input.recipe.artworks.find((other) => other.id === id);
    if (part.kind !== 'drawing' || before?.kind !== 'drawing' || before.page === part.page)
      return this.#readable(input, part);
    const sameNumber = await this.#readable(input, { ...part, page: before.page }).catch((error: unknown) => {
      if (error instanceof InputError && error.code === 'pdf-no-page') return null;
      throw error;
    });
    return sameNumber?.read.artwork.page ? sameNumber : this.#readable(input, part);
  }

  async #readable(input: PlanInput, part: ArtworkPart): Promise<PartAsRead> {
    const read = await this.#read(input, part, {});
    const blocked = read.read.findings.find((finding) => finding.severity === 'blocker');
    if (blocked) throw new InputError(blocked.code, blocked.message, { source: nameOfPart(part, [part]) });
    return read;
  }

  #sized(design: Design, recipe: Recipe) {
    return this.#cache.take(surfaceStage, {
      own: design,
      each: eachOf(design.parts, recipe),
      divided: partsInDesigns(
        recipe,
        design.parts.map(({ part }) => part.id),
      ).length,
      recipe,
      reachMm: reachOf(recipe),
      mmPerUnit: unitOf(design.parts),
    });
  }

  /** The design at its final size: its parts traced, where each lies, and what is painted of them. */
  async #drawn(design: Design, sized: SurfaceOut, input: PlanInput, hooks: StageHooks) {
    const { repair } = input.recipe;
    if (sized.instances) return this.#drawnApart(design, { ...sized, instances: sized.instances }, input, hooks);
    const { design: placed } = sized;
    const parts = await this.#traced(design.parts, placed.scale, hooks);
    const matrices = new Map(parts.map((part) => [part.part.id, partMatrix(part, design.frame, placed.scale)]));
    const painted = await this.#painted(parts, { ...placed, matrices, repair });
    return {
      parts,
      matrices,
      painted,
      apart: null,
      frame: sized.frame,
      condensed: [],
      untouched: await this.#cache.take(putRightStage, {
        painted: painted.map((part) => part.painted),
        repair,
        matrices,
      }),
    };
  }

  /** Several designs, those on one thing where they lie on it, others beside each other. What is found is told of the first that a part stands in, and so are places that remedies act at. */
  async #drawnApart(
    design: Design,
    { design: { scale }, instances }: SurfaceOut & { readonly instances: readonly Instance[] },
    input: PlanInput,
    hooks: StageHooks,
  ) {
    const { repair, surface } = input.recipe;
    const team = surface.kind === 'garment' ? surface.team : null;
    const designs: Design[] = [];
    for (const instance of instances) designs.push(await this.#designOf(instance, design, input, hooks));
    const shares = team
      ? namesCondensed(
          designs,
          team,
          instances.map(({ factor }) => scale * factor),
        )
      : designs.map(() => null);
    const sizes = designs.map((one, i) => ({
      widthMm: one.widthMm * scale * instances[i]!.factor,
      heightMm: one.heightMm * scale * instances[i]!.factor,
    }));
    const beside = setBeside(sizes, APART_MM);
    const corners = instances.map(({ among }, i) => among ?? beside[i]!);
    const told = new Map<
      string,
      { readonly part: PartAsRead; readonly matrix: Matrix; readonly painted: PaintedAsSaid }
    >();
    const all: PaintedPart[] = [];
    for (const [i, one] of designs.entries()) {
      const size = scale * instances[i]!.factor;
      const parts = await this.#traced(one.parts, size, hooks);
      const at = translation(corners[i]!.xMm, corners[i]!.yMm);
      const matrices = new Map(
        parts.map((part) => [
          part.part.id,
          compose(at, condensedMatrix(part, partMatrix(part, one.frame, size), team, shares[i] ?? null)),
        ]),
      );
      const own = await this.#painted(parts, { ...sizes[i]!, matrices, repair });
      all.push(...own.map((part) => part.painted));
      own.forEach((painted, k) => {
        const part = parts[k]!;
        if (!told.has(part.part.id)) told.set(part.part.id, { part, matrix: matrices.get(part.part.id)!, painted });
      });
      await hooks.breathe?.();
    }
    const apart = instances.map(({ label, copies, among }, i): DesignApart => {
      const box = {
        minX: corners[i]!.xMm,
        minY: corners[i]!.yMm,
        maxX: corners[i]!.xMm + sizes[i]!.widthMm,
        maxY: corners[i]!.yMm + sizes[i]!.heightMm,
      };
      if (among) return { label, copies, box, cell: among.cell, corner: corners[i]! };
      // Designs that are laid on things of their own lie further apart than anything reaches.
      const cell = widenBox(box, APART_MM / 2);
      return { label, copies, box, cell, corner: { xMm: cell.minX, yMm: cell.minY } };
    });
    const frame = {
      widthMm: Math.max(...apart.map(({ box }) => box.maxX)),
      heightMm: Math.max(...apart.map(({ box }) => box.maxY)),
    };
    const condensed = shares.flatMap((share, i) =>
      share && share.across < 1 ? [{ label: instances[i]!.label, ...share }] : [],
    );
    const matrices = new Map([...told].map(([id, { matrix }]) => [id, matrix]));
    // In the order of the artwork.
    const first = design.parts.flatMap(({ part }) => told.get(part.id) ?? []);
    return {
      parts: first.map(({ part }) => part),
      matrices,
      painted: first.map(({ painted }) => painted),
      apart,
      frame,
      condensed,
      untouched: await this.#cache.take(putRightStage, { painted: all, repair, matrices }),
    };
  }

  /** One of several designs: some parts of the artwork, or all of it with other words. Of a missing name or number nothing is set. */
  async #designOf({ words, among }: Instance, whole: Design, input: PlanInput, hooks: StageHooks): Promise<Design> {
    const { recipe } = input;
    if (among)
      return designOf(
        whole.parts.filter(({ part }) => among.parts.includes(part.id)),
        recipe.surface.sizeOf,
      );
    if (Object.keys(words).length === 0) return whole;
    const said = recipe.artworks.flatMap((part) =>
      part.kind !== 'lettering' || words[part.id] === undefined
        ? [part]
        : words[part.id] === ''
          ? []
          : [{ ...part, lettering: { ...part.lettering, text: words[part.id]!, alternates: {} } }],
    );
    return designOf(
      await this.#readAll({ ...input, recipe: { ...recipe, artworks: said } }, hooks),
      recipe.surface.sizeOf,
    );
  }

  async #traced(parts: readonly PartAsRead[], scale: number, hooks: StageHooks): Promise<PartAsRead[]> {
    const traced: PartAsRead[] = [];
    for (const as of parts) {
      const { part, read } = as;
      traced.push(
        part.kind === 'picture'
          ? { ...as, read: await this.#cache.take(tracePartStage(this.#reader), { part, read, scale }, hooks) }
          : as,
      );
    }
    return traced;
  }

  /** Every part where it lies on the design; of several, what is found says whose it is. */
  async #painted(
    parts: readonly PartAsRead[],
    {
      widthMm,
      heightMm,
      matrices,
      repair,
    }: {
      readonly widthMm: number;
      readonly heightMm: number;
      readonly matrices: ReadonlyMap<string, Matrix>;
      readonly repair: Recipe['repair'];
    },
  ) {
    const longestMm = Math.max(widthMm, heightMm);
    const named = parts.map(({ part }) => part);
    const all: PaintedAsSaid[] = [];
    for (const { part, read } of parts) {
      const painted = await this.#cache.take(paintPartStage, {
        id: part.id,
        recolour: part.kind === 'lettering' ? NONE : part.recolour,
        read,
        matrices,
        longestMm,
        repair,
      });
      all.push({
        painted,
        findings:
          parts.length > 1 ? painted.findings.map((finding) => sayOfPart(finding, part, named)) : painted.findings,
      });
    }
    return all;
  }

  /** The films of the painted areas and the layers built of them; no layers without films. */
  /** What in the shop is not as the job was cut with it. */
  #shopDiffers({ recipe, shop }: PlanInput, built: BuiltWith | null): JobFinding[] {
    const differences = built ? shopDifferences(shop, built, recipe.films.byColour) : [];
    return differences.length > 0 ? [sayShopDiffers(differences, recipe.films.renewals)] : [];
  }

  async #built(regions: Regions, { recipe, shop: today, builtWith }: PlanInput, { apart, ...placed }: PlacedParts) {
    const cache = this.#cache;
    const built = builtWithNow(builtWith, recipe.films.renewals);
    const shop = shopAsBuilt(today, built);
    const films = await cache.take(filmsStage, {
      regions,
      recipe,
      stock: shop.films,
      built,
      ground: groundOf(recipe.surface),
    });
    if (films.colours.length === 0) return { films };
    const separated = await cache.take(separateStage, { regions, films, recipe, stock: shop.films });
    const panels = await cache.take(panelsStage, {
      separated,
      apart,
      reachMm: reachOf(recipe),
      recipe,
      shop: panelsAsBuilt(shop, built),
    });
    return {
      films,
      separated,
      panels,
      build: await cache.take(buildStage, {
        separated,
        recipe,
        repeatabilityMm: (built ?? shop).cutter.repeatabilityMm,
        panels,
        ...placed,
      }),
    };
  }

  /**
   * The layers, with what the remedies for thin parts, gaps, specks and pinholes change: those act on what would be cut, so it is built
   * once to see that and once more without it. A second round sees to what the first one made thin.
   */
  async #layered(untouched: Regions, input: PlanInput, placed: PlacedParts) {
    const { repair } = input.recipe;
    let regions = untouched;
    let made = await this.#built(regions, input, placed);
    for (let round = 0; round < ROUNDS && touchesUp(repair) && made.build; round += 1) {
      const touched = await this.#cache.take(touchUpStage, {
        regions,
        films: made.films,
        build: made.build,
        repair,
        lives: input.recipe.build.lives,
        ...placed,
      });
      if (!touched) break;
      regions = touched;
      made = await this.#built(regions, input, placed);
    }
    return { ...made, regions };
  }
}

/** A part as it is painted, and what is found of it, said so that it is clear whose it is. */
interface PaintedAsSaid {
  readonly painted: PaintedPart;
  readonly findings: readonly JobFinding[];
}

/** Where parts lie on the design at its final size, and how that is bent after. */
interface PlacedParts {
  readonly matrices: ReadonlyMap<string, Matrix>;
  readonly map: TaperMap | null;
  /** Several designs made of the one. */
  readonly apart: readonly DesignApart[] | null;
}

/** What was found of a bent design with its places where they are on the flat one. */
function flatFinding<F extends JobFinding>(finding: F, map: TaperMap | null): F {
  if (!map) return finding;
  return {
    ...finding,
    ...(finding.where ? { where: unwarpBox(map, finding.where) } : {}),
    ...(finding.places ? { places: finding.places.map((box) => unwarpBox(map, box)) } : {}),
  };
}

/** Letterings as they stand on the design. */
function lettersOf(parts: readonly PartAsRead[], matrices: ReadonlyMap<string, Matrix>): LettersOnDesign[] {
  return parts.flatMap(({ part, read }) => {
    const matrix = matrices.get(part.id);
    if (part.kind !== 'lettering' || !matrix) return [];
    return [
      {
        words: nameOfPart(
          part,
          parts.map((one) => one.part),
        ),
        capHeightMm: part.lettering.capHeightMm * stretchOf(matrix),
        box: transformBox({ minX: 0, minY: 0, maxX: read.artwork.widthMm, maxY: read.artwork.heightMm }, matrix),
      },
    ];
  });
}

function sayRuled(part: PartAsRead, parts: readonly ArtworkPart[], scale: number) {
  if (part.part.kind === 'lettering')
    return sayJoinedWords(part.part, parts, part.read.artwork.joined ?? [], scale * part.part.place.scale);
  const figures = tracedFigures(part, scale);
  return figures && part.part.kind === 'picture' ? sayTracing(part.part, parts, figures) : [];
}

/** What one unit of a design was taken for, if it is one drawing that does not say; of several, each was given its size. */
function unitOf(parts: readonly PartAsRead[]): number | null {
  return parts.length === 1 ? (parts[0]!.read.artwork.mmPerUnit ?? null) : null;
}

/** Letters have their colours where they are set. */
const NONE: Readonly<Record<string, string>> = {};

function isBare({ regions }: Regions): boolean {
  return regions.every((region) => region.colour === BARE);
}

/** How far what is built reaches beyond the design, as far as that is decided: what the app rules the width of is known only once all is built. */
function reachOf({ build: { outlines, contour } }: Recipe): number {
  return (
    outlines.reduce((sum, outline) => sum + (outline.widthMm ?? 0), 0) +
    (contour?.side === 'outside' ? (contour.byMm ?? 0) : 0)
  );
}
