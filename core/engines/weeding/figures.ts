/** Seconds that weeding takes, by what there is to do. */
export interface WeedingFigures {
  readonly sheetS: number;
  readonly counterS: number;
  /** A part that is easily lost, and any other. */
  readonly smallPartS: number;
  readonly partS: number;
  readonly stripS: number;
  /** A metre of outline, and how much more where strokes are thin. */
  readonly metreS: number;
  readonly thinMetreS: number;
}

/** What a hand takes to begin with. Source: trade practice; the shop's own log corrects it (core/engines/learning). */
export const WEEDING_FIGURES: WeedingFigures = {
  sheetS: 40,
  counterS: 5,
  smallPartS: 4,
  partS: 0.7,
  stripS: 0,
  metreS: 12,
  thinMetreS: 6,
};
