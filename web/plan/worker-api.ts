import type { Lettering } from '../../core/engines/artwork/index.js';
import type { SectionBar } from '../../core/engines/layers/index.js';
import type { Box } from '../../core/geometry/index.js';
import type { JobSoFar, LetterForms, PaintView, PlanView, RepeatWish } from '../../core/plan/index.js';
import type { Recipe, RecipePatch } from '../../core/recipe/index.js';
import type { Shop } from '../../core/shop/index.js';
import type { ArtworkPart } from '../../core/stations/artwork/index.js';
import type { SchoolFigures, TrialAnswer, TrialWish } from '../../core/stations/layers/index.js';
import type { LearnedWeeding } from '../../core/stations/prepare/index.js';

/** What was asked of a plan; null when the worker looks at another one by now. */
export type Answer<T> = { readonly value: T } | null;

/** What the planning worker does for the page. */
export interface PlanWorkerApi {
  /** Resolves once it can plan. */
  hello(): Promise<void>;
  /** Plans; `onView` is called when the build is there and when all is. A newer request ends this one without a further call. */
  plan(
    request: PlanRequest,
    onView: (view: PlanView, finished: boolean) => void | Promise<void>,
    onStep: (doing: string, done: number) => void,
  ): Promise<void>;
  /** Gives up what is being planned. */
  stop(): Promise<void>;
  /** The build cut through along a line, level or upright. */
  section(plan: number, atMm: number, way: 'level' | 'upright'): Promise<Answer<readonly SectionBar[]>>;
  /** The thinnest part of each layer, by film id; none for a layer that is nowhere thin. */
  thinnest(plan: number): Promise<Answer<Readonly<Record<string, { readonly mm: number; readonly where: Box }>>>>;
  /** The artwork as it was understood, bottom first, before or after the remedies. */
  paints(plan: number, when: 'before' | 'after'): Promise<Answer<readonly PaintView[]>>;
  /** What the remedies added and took away. */
  changes(plan: number): Promise<Answer<{ readonly added: string; readonly removed: string }>>;
  /** The build laid many times, with marks and by eye; null when it has one layer. */
  gapTrial(
    plan: number,
    wish: TrialWish,
  ): Promise<Answer<{ readonly marked: TrialAnswer; readonly byEye: TrialAnswer } | null>>;
  /** The same job in all three schools. */
  schools(plan: number, wish: TrialWish): Promise<Answer<readonly SchoolFigures[]>>;
  /** The change that adds a part to the design. Refused with a sentence when it cannot be read. */
  adding(request: PlanRequest, part: ArtworkPart): Promise<RecipePatch>;
  /** The change that repeats some parts of the design. */
  repeating(request: PlanRequest, wish: RepeatWish): Promise<RecipePatch>;
  /** Letters that the font has other forms for, each form as path data in a square of one em. */
  letterForms(lettering: Lettering, ownFont: Uint8Array | null): Promise<readonly LetterForms[]>;
}

export interface PlanRequest extends JobSoFar {
  readonly id: number;
  readonly jobId: string;
  readonly recipe: Recipe;
  readonly shop: Shop;
  /** Files of the job that this worker has not been sent before. */
  readonly sources: ReadonlyMap<string, Uint8Array>;
  readonly weeding?: LearnedWeeding | undefined;
}
