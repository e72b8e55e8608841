import type { PaintedRegion } from '../../artwork/index.js';
import type { AssemblyStep } from '../../assembly/index.js';
import type { CutProgram } from '../../cutting/index.js';
import type { Box, Matrix, Ring, Rings } from '../../geometry/index.js';
import type { BuiltLayer, Neighbours, Separation, TrapWidth } from '../../layers/index.js';
import type { MarkLayout, WeedMap } from '../../preparation/index.js';
import type { PlacedDesign } from '../../surface/index.js';
import type { Film, FilmPiece, Mat } from '../film.js';
import type { Finding } from '../finding.js';
import type { Ruling } from '../ruling.js';
import type { ReadPart } from './artwork-stage.js';
import type { PairPlan } from './pairs.js';

interface Said {
  readonly findings: readonly Finding[];
  readonly rulings: readonly Ruling[];
}

export interface ArtworkStage extends Said {
  readonly parts: readonly ReadPart[];
  /** The size of the design before the surface sizes it. */
  readonly widthMm: number;
  readonly heightMm: number;
  readonly paints: number;
}

export interface SurfaceStage extends Said {
  readonly design: PlacedDesign;
}

export interface RegionsStage extends Said {
  /** The painted areas after the maker's remedies. */
  readonly regions: readonly PaintedRegion[];
  /** The same before them. */
  readonly asDrawn: readonly PaintedRegion[];
}

/** A colour of the artwork and the film it will be cut from. */
export interface ColourUse {
  readonly colour: string;
  readonly areaMm2: number;
  readonly pieces: number;
  readonly film: Film;
  /** CIEDE2000 between the artwork's colour and the film's. */
  readonly difference: number;
  readonly chosen: boolean;
  /** Other films of the stock that are near, the nearest first. */
  readonly others: readonly { readonly film: Film; readonly difference: number }[];
}

export interface FilmsStage extends Said {
  readonly colours: readonly ColourUse[];
  /** The artwork taken apart by colour, before colours share films. */
  readonly byColour: Separation;
}

export interface PlanLayer extends BuiltLayer {
  readonly film: Film;
  readonly areaMm2: number;
  readonly pieces: number;
  readonly holes: number;
}

export interface BuildStage extends Said {
  readonly layers: readonly PlanLayer[];
  /** Every two layers that meet. */
  readonly pairs: readonly PairPlan[];
  readonly trapMm: number;
  readonly trap: TrapWidth | null;
}

export interface PreparedLayer {
  readonly layer: PlanLayer;
  readonly weed: WeedMap;
}

export interface PrepareStage extends Said {
  readonly layers: readonly PreparedLayer[];
  readonly marks: MarkLayout | null;
  readonly border: Ring | null;
  /** Round everything that is cut. */
  readonly box: Box;
}

/** One layer's rigid group as it lies on a sheet. */
export interface PlacedGroup {
  readonly filmId: string;
  readonly copy: number;
  /** Of what is cut of the layer: see LayerToCut. */
  readonly fingerprint: string;
  /** From the design (mm, y down) to the sheet (mm, y up), mirroring included. */
  readonly matrix: Matrix;
  /** The layer's outlines and counters, then the marks. */
  readonly contours: Rings;
  readonly borders: Rings;
  readonly marks: number;
  /** For each contour, the number of the part it is outline or counter of; -1 for marks. */
  readonly partOf: readonly number[];
}

/**
 * One pass through the cutter: a piece of one film, fed by itself when it is a roll, else on a mat. Its origin is the piece's lower left corner;
 * x runs along the carriage, y with the feed.
 */
export interface SheetPlan {
  /** Made of the film, the piece, and what lies on it: another one when any of them is. */
  readonly id: string;
  readonly film: Film;
  readonly piece: FilmPiece;
  /** Null for a roll, which needs none. */
  readonly mat: Mat | null;
  /** What must be left free round everything, mm; below, also room to turn the knife. */
  readonly edges: { readonly sides: number; readonly bottom: number; readonly top: number };
  /** From the piece's beginning to the end of what is taken of it. */
  readonly usedLengthMm: number;
  readonly keptMm2: number;
  readonly groups: readonly PlacedGroup[];
}

/** What of a layer is to be cut: how many copies in all, and how many of exactly this outline and film are cut, in the cutter, or waiting for a decision. */
export interface LayerToCut {
  readonly film: Film;
  /** Of the film, its side, the layer's outlines and its marks: what must be the same for a copy that is cut already to fit. */
  readonly fingerprint: string;
  readonly copies: number;
  readonly taken: number;
}

export interface SheetsStage extends Said {
  /** What is left to be cut. */
  readonly sheets: readonly SheetPlan[];
  readonly toCut: readonly LayerToCut[];
  readonly density: number;
}

export interface CutStage extends Said {
  readonly programs: readonly CutProgram[];
  readonly seconds: number;
}

export interface AssembleStage extends Said {
  readonly steps: readonly AssemblyStep[];
}

/** What the stages make of a recipe. A stage that could not run is absent, and a finding says why. */
export interface Plan {
  readonly artwork?: ArtworkStage;
  readonly surface?: SurfaceStage;
  readonly regions?: RegionsStage;
  readonly films?: FilmsStage;
  readonly separation?: Separation;
  /** Which layers meet, and which lie over which. */
  readonly neighbours?: Neighbours;
  readonly build?: BuildStage;
  readonly prepare?: PrepareStage;
  readonly sheets?: SheetsStage;
  readonly cut?: CutStage;
  readonly assemble?: AssembleStage;
  /** Findings that the maker lets be. */
  readonly letBe: readonly Finding[];
  readonly findings: readonly Finding[];
  readonly rulings: readonly Ruling[];
}
