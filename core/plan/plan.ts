import type { Matrix } from '../geometry/index.js';
import type { JobFinding, JobRuling } from '../recipe/index.js';
import type { Design, Regions } from '../stations/artwork/index.js';
import type { AssembleOut } from '../stations/assemble/index.js';
import type { BuildOut, PanelsOut, Separated } from '../stations/layers/index.js';
import type { CutOut } from '../stations/cut/index.js';
import type { FilmsOut } from '../stations/films/index.js';
import type { PrepareOut } from '../stations/prepare/index.js';
import type { SheetsOut } from '../stations/sheets/index.js';
import type { SurfaceOut } from '../stations/surface/index.js';

/** The artwork as it was read and arranged, before it is sized. */
export interface ArtworkOut extends Design {
  readonly paints: number;
  readonly findings: readonly JobFinding[];
  readonly rulings: readonly JobRuling[];
}

/** What the stages make of a recipe. A stage that could not run is absent, and a finding says why. */
export interface Plan {
  readonly artwork?: ArtworkOut;
  readonly surface?: SurfaceOut;
  /** From each part's own mm to the design's at its final size. */
  readonly matrices?: ReadonlyMap<string, Matrix>;
  readonly regions?: Regions;
  readonly films?: FilmsOut;
  readonly separated?: Separated;
  readonly panels?: PanelsOut;
  readonly build?: BuildOut;
  readonly prepare?: PrepareOut;
  readonly sheets?: SheetsOut;
  readonly cut?: CutOut;
  readonly assemble?: AssembleOut;
  /** Findings that the maker lets be. */
  readonly letBe: readonly JobFinding[];
  readonly findings: readonly JobFinding[];
  readonly rulings: readonly JobRuling[];
}
