import { figure, id, name, object, orNull, size, whole, yes } from '../words/schema.js';

/** The blade cutter: what it can reach and how it moves. */
export interface CutterProfile {
  readonly id: string;
  readonly name: string;
  /** Where it listens; null for one that is given files. */
  readonly host: string | null;
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
  /** So much of a roll stands out in front before anything is cut: what the rollers need to draw it straight. */
  readonly leaderMm: number;
  /** So much at a roll's end stays in the rollers and is not cut. */
  readonly tailMm: number;
  /** How truly it comes back to a point; part of the trap formula. */
  readonly repeatabilityMm: number;
}

/** A cutter as the shop keeps it. */
export interface CutterCard extends CutterProfile {
  /** The blade that is in it; null when nobody said. */
  readonly bladeId: string | null;
  readonly retired: boolean;
}

export const CUTTER_SCHEMA = object({
  id,
  name,
  host: orNull({ type: 'string', minLength: 1, maxLength: 200, pattern: '^[A-Za-z0-9._:-]+$' }),
  port: whole(1, 65_535),
  widthMm: size,
  accelerationMmS2: figure(1, 100_000),
  travelSpeedMmS: figure(1, 5000),
  liftSeconds: figure(0, 10),
  bladeOffsetMm: figure(0, 2),
  overcutMm: figure(0, 10),
  leaderMm: figure(0, 500),
  tailMm: figure(0, 1000),
  repeatabilityMm: figure(0, 1),
  bladeId: orNull(id),
  retired: yes,
});

/** A cutter of which nothing is known but how wide it is: it is given files. */
export function newCutter(id: string): CutterCard {
  return {
    id,
    name: 'Cutter',
    host: null,
    port: 9100,
    widthMm: 610,
    accelerationMmS2: 2500,
    travelSpeedMmS: 500,
    liftSeconds: 0.06,
    bladeOffsetMm: 0.25,
    overcutMm: 0.5,
    leaderMm: 0,
    tailMm: 0,
    repeatabilityMm: 0.05,
    bladeId: null,
    retired: false,
  };
}
