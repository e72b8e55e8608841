import type { Mark } from '../engines/marks/index.js';
import type { ReliefLine } from '../engines/weeding/index.js';
import type { Box, Rings } from '../geometry/index.js';
import type { Film } from '../shop/index.js';
import type { CutSoFar } from './sheet-plan.js';

/** A panel by its number, from 1; of several designs, what it is called. */
export interface PanelNumber {
  readonly number: number;
  readonly of: number;
  readonly label: string | null;
}

/** What laying out needs to know of a panel, or of the whole design: what all its layers share. */
export interface PanelToLay extends PanelNumber {
  readonly copies: number;
  /** How many copies of the design it holds: several in a strip of a gang. */
  readonly perStrip: number;
  readonly marks: { readonly marks: readonly Pick<Mark, 'ring'>[] } | null;
  /** One box goes round all copies on a sheet, and none round a copy alone. */
  readonly sharesBorder: boolean;
  /** Round everything that is cut, mm. */
  readonly box: Box;
  /** Where one of several designs is measured from; null for panels, and for a design in one piece. */
  readonly corner: { readonly xMm: number; readonly yMm: number } | null;
}

/** What laying out needs to know of a prepared layer. Outlines are in mm, y down, as the design is. */
export interface LayerToLay {
  readonly layer: { readonly film: Film; readonly cut: Rings };
  readonly panel: PanelToLay;
  readonly border: Rings;
  readonly borderGapMm: number;
  readonly relief: readonly ReliefLine[];
  readonly labels: readonly ReliefLine[];
}

/** A job whose layers are laid out, alone or with others: its prepared layers, and how often they are cut. */
export interface JobToLay extends CutSoFar {
  /** What it is known by where pieces are laid by hand; of no use to a job alone. */
  readonly id: string;
  readonly prepare: { readonly layers: readonly LayerToLay[] };
  /** Read through glass: a layer is cut as a mirror image where it is not otherwise, and the other way round. */
  readonly isInside: boolean;
  readonly copies: number;
  /** The day it is due; null for none. */
  readonly due: string | null;
}
