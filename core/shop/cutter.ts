/** The blade cutter: what it can reach and how it moves. */
export interface CutterProfile {
  readonly id: string;
  readonly name: string;
  readonly host: string;
  readonly port: number;
  /** The widest film or mat it takes. */
  readonly widthMm: number;
  readonly accelerationMmS2: number;
  readonly travelSpeedMmS: number;
  /** Time for the knife to go down or up, each. */
  readonly liftSeconds: number;
  /** How far the knife's tip trails its holder. */
  readonly bladeOffsetMm: number;
  readonly overcutMm: number;
  /** How truly it comes back to a point; part of the trap formula. */
  readonly repeatabilityMm: number;
}
