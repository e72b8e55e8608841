import type { ColourUse, PairPlan, SchoolFigures, SheetPlan, TakenCopies, TrialAnswer, TrialWish } from '../../core/job/plan/index.js';
import type { ArtworkPart, Finding, Film, FilmPiece, Lettering, Mat, Recipe, RecipePatch, Ruling, Shop } from '../../core/job/index.js';
import type { Box, Matrix } from '../../core/geometry/index.js';
import type { AssemblyStep } from '../../core/assembly/index.js';
import type { SectionBar } from '../../core/layers/index.js';
import type { DrawnPath } from './drawn-path.js';
import type { WeedSpot } from '../../core/preparation/index.js';

/** What the page is given of a plan: figures and ready path data (mm), no geometry to compute. */
export interface PlanView {
  /** Which plan it is: what else is asked of the worker is asked of this one. */
  readonly id: number;
  readonly artwork?: { readonly widthMm: number; readonly heightMm: number; readonly paints: number; readonly parts: readonly PartView[]; readonly frame: Box };
  readonly surface?: { readonly widthMm: number; readonly heightMm: number; readonly xMm: number; readonly yMm: number; readonly scale: number };
  readonly colours?: readonly ColourUse[];
  readonly layers?: readonly LayerView[];
  readonly pairs?: readonly PairPlan[];
  readonly trapMm?: number;
  readonly prepare?: PrepareView;
  /** What is left to be cut. */
  readonly sheets?: readonly SheetView[];
  readonly toCut?: readonly LayerToCutView[];
  readonly density?: number;
  readonly programs?: readonly ProgramView[];
  readonly seconds?: number;
  readonly steps?: readonly AssemblyStep[];
  readonly findings: readonly Finding[];
  /** Findings that are let be. */
  readonly letBe: readonly Finding[];
  readonly rulings: readonly Ruling[];
}

/** A part of the design: its own size and the box it takes up, in mm before the surface sizes the whole. */
export interface PartView {
  readonly id: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly box: Box;
}

export interface LayerView {
  readonly film: Film;
  readonly order: number;
  readonly areaMm2: number;
  readonly pieces: number;
  readonly holes: number;
  readonly cut: DrawnPath;
  readonly visible: DrawnPath;
  /** What runs under the layers above. */
  readonly laps: DrawnPath;
}

export interface PrepareView {
  readonly marks: string;
  readonly border: string;
  readonly box: { readonly minX: number; readonly minY: number; readonly maxX: number; readonly maxY: number };
  readonly weed: readonly { readonly filmId: string; readonly pieces: number; readonly counters: number; readonly spots: readonly WeedSpot[] }[];
}

/** What of a layer is to be cut in all, and how many copies of exactly that are cut or in the cutter. */
export interface LayerToCutView {
  readonly filmId: string;
  readonly fingerprint: string;
  readonly copies: number;
  readonly taken: number;
}

/** What is needed to draw a sheet. y points down, as the page draws it; the sheet's lower left corner is at 0, usedLengthMm. */
export interface DrawnSheet {
  readonly film: Film;
  readonly piece: FilmPiece | null;
  readonly mat: Mat | null;
  readonly usedLengthMm: number;
  readonly edges: SheetPlan['edges'] | null;
  /** Shapes that lie on it, each as often as it has places. */
  readonly shapes: readonly { readonly contours: string; readonly borders: string; readonly places: readonly Matrix[] }[];
}

export interface SheetView extends DrawnSheet {
  readonly id: string;
  readonly piece: FilmPiece;
  readonly keptMm2: number;
  /** Which copies of the layer lie on it, from 0. */
  readonly copies: readonly number[];
}

export interface ProgramView {
  readonly paths: number;
  readonly cutMm: number;
  readonly travelMm: number;
  readonly seconds: number;
  readonly forceG: number;
  readonly speedMmS: number;
}

/** A painted area of the artwork as it was understood. */
export interface PaintView {
  readonly part: string;
  readonly colour: string;
  readonly path: DrawnPath;
}

/** What was asked of a plan; null when the worker looks at another one by now. */
export type Answer<T> = { readonly value: T } | null;

/** What the planning worker does for the page. */
export interface PlanWorkerApi {
  /** Resolves once it can plan. */
  hello(): Promise<void>;
  /** Plans; `onView` is called when the build is there and when all is. A newer request ends this one without a further call. */
  plan(request: PlanRequest, onView: (view: PlanView, finished: boolean) => void | Promise<void>, onStep: (doing: string, done: number) => void): Promise<void>;
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
  gapTrial(plan: number, wish: TrialWish): Promise<Answer<{ readonly marked: TrialAnswer; readonly byEye: TrialAnswer } | null>>;
  /** The same job in all three schools. */
  schools(plan: number, wish: TrialWish): Promise<Answer<readonly SchoolFigures[]>>;
  /** The change that adds a part to the design. Refused with a sentence when it cannot be read. */
  adding(request: PlanRequest, part: ArtworkPart): Promise<RecipePatch>;
  /** Letters that the font has other forms for, each form as path data in a square of one em. */
  letterForms(lettering: Lettering, ownFont: Uint8Array | null): Promise<readonly LetterForms[]>;
}

/** A letter of a lettering and its forms, the plain one first. */
export interface LetterForms {
  readonly index: number;
  readonly letter: string;
  readonly forms: readonly { readonly feature: string | null; readonly path: string }[];
}

export interface PlanRequest {
  readonly id: number;
  readonly jobId: string;
  readonly recipe: Recipe;
  readonly shop: Shop;
  /** Files of the job that this worker has not been sent before. */
  readonly sources: ReadonlyMap<string, Uint8Array>;
  readonly taken: TakenCopies;
}
