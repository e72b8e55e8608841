import type { TrapForm } from '../../engines/layers/index.js';
import { setBeside } from '../../engines/surface/index.js';
import type { MarkLayout } from '../../engines/marks/index.js';
import {
  WEEDING_FIGURES,
  type ReliefLine,
  type Strip,
  type WeedingFigures,
  type WeedingWork,
  type WeedMap,
} from '../../engines/weeding/index.js';
import { boxesTouch, type Box, type Rings } from '../../geometry/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import {
  clipOfPanel,
  layersOnPanel,
  type BuildOut,
  type JobLayer,
  type Panel,
  type PanelsOut,
} from '../layers/index.js';
import type { Stage } from '../stage.js';
import type { LettersOnDesign, SurfaceKindName } from '../surface/index.js';
import type { PrepareDecisions, PreparePatch } from './decisions.js';
import type { Prepared } from './prepared-panel.js';

export interface PreparedLayer {
  readonly layer: JobLayer;
  /** What it is cut with. */
  readonly panel: PreparedPanel;
  readonly weed: WeedMap;
  /** What frees its waste, and what parts it. */
  readonly border: Rings;
  /** How far the border keeps clear of what stays, mm. */
  readonly borderGapMm: number;
  readonly relief: readonly ReliefLine[];
  /** Of each of them the line as the maker drew it; null for the app's. */
  readonly asDrawn: readonly (ReliefLine | null)[];
  /** What is written into the waste, in single strokes. */
  readonly labels: readonly ReliefLine[];
  /** Lines that the maker drew and that would run into what stays. */
  readonly refused: readonly ReliefLine[];
  readonly strips: readonly Strip[];
  readonly work: WeedingWork;
  /** The areas of parts under 2 mm across, mm². */
  readonly dotsMm2: readonly number[];
  /** How long one copy takes to weed. */
  readonly minutes: number;
}

/** A panel, or the whole design, with what all its layers share. */
export interface PreparedPanel {
  readonly number: number;
  readonly of: number;
  readonly label: string | null;
  readonly copies: number;
  /** How many copies of the design it holds: a strip of a gang has several, and what is prepared is prepared for all of them together. */
  readonly perStrip: number;
  readonly marks: MarkLayout | null;
  /** How large each of them is; 0 without marks. */
  readonly markSizeMm: number;
  /** One box goes round all copies on a sheet, and none round a copy alone. */
  readonly sharesBorder: boolean;
  /** Round everything that is cut. */
  readonly box: Box;
  /** Where one of several designs is measured from; null for panels, and for a design in one piece. */
  readonly corner: { readonly xMm: number; readonly yMm: number } | null;
  /** What of the design it is; null for a design in one piece. */
  readonly clip: Rings | null;
  /** How far it is moved where panels are shown beside each other, so that none lies on another. */
  readonly apart: { readonly xMm: number; readonly yMm: number };
}

export interface PrepareOut {
  readonly panels: readonly PreparedPanel[];
  /** Panel by panel, the lowest layer first. */
  readonly layers: readonly PreparedLayer[];
  readonly findings: readonly Finding<PreparePatch>[];
  readonly rulings: readonly Ruling<PreparePatch>[];
}

/** The shop's own figures of weeding, and from how many times it was timed they are. */
export interface LearnedWeeding {
  readonly figures: WeedingFigures;
  readonly logs: number;
}

interface PrepareContext {
  readonly build: BuildOut;
  readonly panels: PanelsOut;
  /** Letters of the design: how high their capitals are. */
  readonly letters: readonly LettersOnDesign[];
  /** Absent while nothing was timed. */
  readonly weeding?: LearnedWeeding | undefined;
  readonly recipe: PrepareDecisions & {
    readonly title: string;
    readonly build: { readonly trapForm: TrapForm };
    readonly surface: { readonly kind: SurfaceKindName };
  };
}

interface PrepareRead {
  readonly build: BuildOut;
  readonly panels: readonly Panel[];
  readonly along: PanelsOut['along'];
  readonly letters: readonly LettersOnDesign[];
  readonly preparation: PrepareDecisions['preparation'];
  readonly trapForm: TrapForm;
  /** What the waste is labelled with; none of it is looked at where nothing is. */
  readonly title: string;
  /** Read through glass: what is cut as it is otherwise is cut mirrored. */
  readonly isInside: boolean;
  readonly weeding: LearnedWeeding | null;
}

/** Marks, border, relief lines and weed maps for the built layers, for each panel its own; null when there is nothing to cut. */
export const prepareStage: Stage<PrepareContext, PrepareRead, PrepareOut | null> = {
  name: 'prepare',
  read: ({ build, panels, letters, weeding, recipe }) => ({
    build,
    panels: panels.panels,
    along: panels.along,
    letters,
    preparation: recipe.preparation,
    trapForm: recipe.build.trapForm,
    title: recipe.preparation.labels ? recipe.title : '',
    isInside: recipe.surface.kind === 'glass',
    weeding: weeding ?? null,
  }),
  async run({ build, panels, along, letters, preparation, trapForm, title, isInside, weeding }, hooks) {
    const { preparedPanel, saidOfPrepared } = await import('./prepared-panel.js');
    // Panels and several designs are laid one by one.
    const gang = along === null ? preparation.gang : null;
    const prepared: Prepared[] = [];
    for (const [i, panel] of panels.entries()) {
      const made = await preparedPanel(
        { ...panel, clip: clipOfPanel(panel, along) },
        layersOnPanel(build.layers, panel, along),
        {
          preparation,
          gang,
          pairs: build.pairs,
          trapForm,
          title,
          isInside,
          figures: weeding?.figures ?? WEEDING_FIGURES,
          hooks,
          begun: i / panels.length,
          share: 1 / panels.length,
        },
      );
      if (made) prepared.push(made);
    }
    const first = prepared[0];
    if (!first) return null;
    const set = setApart(prepared, along);
    const designs = along === 'apart' ? prepared : [first];
    return { ...set, ...saidOfPrepared(set, { build, letters, preparation, gang, trapForm, weeding, designs }) };
  },
};

/** Between two panels that are shown beside each other, mm. */
const BESIDE_MM = 20;

/** What is laid one by one, moved so that all of it can be shown side by side. */
function setApart(prepared: readonly Prepared[], along: PanelsOut['along']) {
  const layers: PreparedLayer[] = [];
  const moves =
    along === 'apart'
      ? movesOfDesigns(prepared.map(({ panel }) => panel.box))
      : movesOfPanels(
          prepared.map(({ panel }) => panel.box),
          along,
        );
  const panels = prepared.map((one, i): PreparedPanel => {
    const panel = { ...one.panel, apart: moves[i]! };
    layers.push(...one.layers.map((layer) => ({ ...layer, panel })));
    return panel;
  });
  return { panels, layers };
}

function movesOfPanels(boxes: readonly Box[], along: 'across' | 'down' | null): PreparedPanel['apart'][] {
  let end: number | null = null;
  return boxes.map(({ minX, minY, maxX, maxY }) => {
    const by: number = end === null || along === null ? 0 : end + BESIDE_MM - (along === 'across' ? minX : minY);
    end = (along === 'down' ? maxY : maxX) + by;
    return along === 'down' ? { xMm: 0, yMm: by } : { xMm: by, yMm: 0 };
  });
}

/** Designs that lie on one thing may be nearer to each other than their marks and borders leave room for. */
function movesOfDesigns(boxes: readonly Box[]): PreparedPanel['apart'][] {
  const isClear = boxes.every((box, i) => boxes.slice(i + 1).every((other) => !boxesTouch(box, other)));
  if (isClear) return boxes.map(() => ({ xMm: 0, yMm: 0 }));
  const corners = setBeside(
    boxes.map(({ minX, minY, maxX, maxY }) => ({ widthMm: maxX - minX, heightMm: maxY - minY })),
    BESIDE_MM,
  );
  return boxes.map(({ minX, minY }, i) => ({ xMm: corners[i]!.xMm - minX, yMm: corners[i]!.yMm - minY }));
}
