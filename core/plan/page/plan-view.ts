import type { PlacedDesign } from '../../engines/surface/index.js';
import type { MarkShape } from '../../engines/marks/index.js';
import type { Pull, WeedSpot } from '../../engines/weeding/index.js';
import type { Box, Matrix } from '../../geometry/index.js';
import type { JobFinding, JobRuling } from '../../recipe/index.js';
import type { Film, FilmPiece, LaidRectangle, Mat } from '../../shop/index.js';
import type { PartExtent } from '../../stations/artwork/index.js';
import type { AssemblyStep } from '../../stations/assemble/index.js';
import type { PairPlan, Panel } from '../../stations/layers/index.js';
import type { ColourUse } from '../../stations/films/index.js';
import type { Edges } from '../../engines/cutting/index.js';
import type { FoilView, LeftoverView, OnPiece, PanelNumber, Section } from '../../laying/index.js';
import type { SurfaceOut } from '../../stations/surface/index.js';
import type { JobFigures } from '../job-card.js';
import type { DrawnPath } from './drawn-path.js';

/** What the page is given of a plan: figures and ready path data (mm), no geometry to compute. */
export interface PlanView {
  /** Which plan it is: what else is asked of the worker is asked of this one. */
  readonly id: number;
  /** What the job card shows. */
  readonly figures: JobFigures;
  readonly artwork?: {
    readonly widthMm: number;
    readonly heightMm: number;
    readonly paints: number;
    readonly parts: readonly PartView[];
    readonly frame: Box;
  };
  readonly surface?: PlacedDesign &
    Pick<SurfaceOut, 'surface' | 'figures' | 'map' | 'frame' | 'ruled'> & {
      /** Several designs lie on it beside each other. */ readonly isAmong: boolean;
      readonly panels: PanelsView | null;
    };
  readonly colours?: readonly ColourUse[];
  /** What the colours of the artwork, as drawn, are called. */
  readonly colourNames?: Readonly<Record<string, string>>;
  readonly layers?: readonly LayerView[];
  readonly pairs?: readonly PairPlan[];
  readonly trapMm?: number;
  readonly prepare?: PrepareView;
  /** Every layer, with how often it is to be cut and how often it is. */
  readonly toCut?: readonly LayerToCutView[];
  readonly seconds?: number;
  readonly steps?: readonly AssemblyStep[];
  readonly findings: readonly JobFinding[];
  /** Findings that are let be. */
  readonly letBe: readonly JobFinding[];
  readonly rulings: readonly JobRuling[];
}

/** A part of the design: what it takes up at its own size and where it stands, in mm before the surface sizes the whole. */
export interface PartView {
  readonly id: string;
  readonly extent: PartExtent;
  /** Its artboard: how large it is, and from its mm to the design's at its final size, once that is known. */
  readonly artboard: { readonly widthMm: number; readonly heightMm: number; readonly matrix: Matrix | null };
  readonly box: Box;
  /** Of a file with pages: how many. */
  readonly pages?: number;
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

/** What is weeded of a layer on a panel. */
export interface WeedView {
  readonly filmId: string;
  readonly panel: number;
  readonly pieces: number;
  readonly counters: number;
  readonly spots: readonly WeedSpot[];
  /** A strip of a gang, all copies of it; null for a layer as it was built. */
  readonly cut: DrawnPath | null;
  readonly border: string;
  readonly relief: readonly (readonly number[])[];
  /** Of each relief line the line as the maker drew it; null for the app's. */
  readonly asDrawn: readonly (readonly number[] | null)[];
  /** What is written into the waste, in single strokes. */
  readonly labels: readonly (readonly number[])[];
  /** In the order in which they are pulled, each with its way. */
  readonly strips: readonly {
    readonly path: string;
    readonly areaMm2: number;
    readonly bulkMm: number;
    readonly xMm: number;
    readonly yMm: number;
    readonly pull: Pull;
  }[];
  /** For one copy. */
  readonly minutes: number;
}

export interface PrepareView {
  /** One for a design in one piece. */
  readonly panels: readonly PanelView[];
  readonly weed: readonly WeedView[];
}

/** How a design is split that is bigger than the roll, on the design. */
export interface PanelsView {
  readonly along: 'across' | 'down' | 'apart';
  readonly spans: readonly {
    readonly number: number;
    readonly label: string | null;
    readonly copies: number;
    readonly box: Box;
    /** Without what it shares with the one before. */ readonly own: Box;
    readonly bends: Panel['bends'];
  }[];
}

/** A panel with what all its layers share. */
export interface PanelView {
  readonly number: number;
  readonly label: string | null;
  /** How many copies of the design it holds: several in a strip of a gang. */
  readonly perStrip: number;
  readonly marks: string;
  readonly markSizeMm: number;
  /** Where each of them stands, and what it looks like. */
  readonly marksAt: readonly { readonly shape: MarkShape; readonly xMm: number; readonly yMm: number }[];
  readonly box: Box;
  /** What of the layers lies on it; null for all. */
  readonly clip: string | null;
}

/** What of a layer is to be cut in all, and how many copies of exactly that are cut or in the cutter. */
export interface LayerToCutView {
  readonly filmId: string;
  readonly panel: PanelNumber;
  /** How many copies of the design each of them holds. */
  readonly perStrip: number;
  readonly fingerprint: string;
  readonly copies: number;
  readonly taken: number;
}

/** What is needed to draw a sheet. y points down, as the page draws it; the sheet's lower left corner is at 0, usedLengthMm. */
export interface DrawnSheet {
  readonly film: Film;
  readonly piece: FilmPiece | null;
  readonly mat: Mat | null;
  /** Pieces side by side on the mat, from its lower left corner, y up; null for one piece as it is. */
  readonly zones: readonly (LaidRectangle & { readonly film: Film; readonly piece: FilmPiece })[] | null;
  readonly usedLengthMm: number;
  readonly edges: Edges | null;
  /** Shapes that lie on it, each as often as it has places. */
  readonly shapes: readonly {
    readonly film: Film;
    readonly contours: string;
    readonly borders: string;
    readonly places: readonly Matrix[];
  }[];
}

/** A sheet that is laid out and not cut yet, of a job or of a batch. */
export interface LaidSheetView extends DrawnSheet {
  readonly id: string;
  readonly films: readonly Film[];
  readonly pieces: readonly FilmPiece[];
  /** Those of its films that are cut as a mirror image. */
  readonly mirroredFilmIds: readonly string[];
  readonly section: Section | null;
  /** How many copies lie in counters of others. */
  readonly inCounters: number;
  /** What lies on each of its pieces. */
  readonly onPieces: readonly (readonly OnPiece[])[];
  /** What is laid on it in foil, by the piece that it is cut from. */
  readonly foils: readonly FoilView[];
  readonly leftovers: readonly LeftoverView[];
  readonly keptMm2: number;
  readonly takenMm2: number;
}

/** A painted area of the artwork as it was understood. */
export interface PaintView {
  readonly part: string;
  readonly colour: string;
  readonly path: DrawnPath;
}

/** A letter of a lettering and its forms, the plain one first. */
export interface LetterForms {
  readonly index: number;
  readonly letter: string;
  readonly forms: readonly { readonly feature: string | null; readonly path: string }[];
}
