import { distanceAt, planMoves, type PlannedMove } from '../core/engines/cutting/index.js';
import { KnifeTip } from './knife-tip.js';

/** How the carriage moves. */
export interface CarriageOptions {
  readonly accelerationMmS2: number;
  readonly travelSpeedMmS: number;
  readonly liftSeconds: number;
  readonly bladeOffsetMm: number;
}

/** One thing the carriage is to do: go somewhere with the knife up or down, or call back when it is come to. */
export type Step =
  | { readonly kind: 'go'; readonly x: number; readonly y: number; readonly down: boolean; readonly speed: number }
  | { readonly kind: 'say'; readonly say: () => void };

interface MoveInProgress {
  readonly plan: PlannedMove;
  readonly fromX: number;
  readonly fromY: number;
  readonly toX: number;
  readonly toY: number;
  elapsed: number;
}

/** Moves planned ahead: as many as the device's own memory for them holds. */
export const LOOK_AHEAD = 128;

/**
 * The physics of the cutter: a queue of steps, driven with finite speed and acceleration as time is given to it, and the knife's tip that
 * trails its holder. Counts what it did.
 */
export class Carriage {
  readonly #options: CarriageOptions;
  readonly #tip: KnifeTip;
  readonly #steps: Step[] = [];
  #x = 0;
  #y = 0;
  #down = false;
  #move: MoveInProgress | null = null;
  #speedNow = 0;
  #lifting = 0;
  #pairsDone = 0;
  #cutMm = 0;
  #travelMm = 0;
  #busySeconds = 0;
  #paths = 0;

  constructor(options: CarriageOptions) {
    this.#options = options;
    this.#tip = new KnifeTip(options.bladeOffsetMm);
  }

  get waiting(): number {
    return this.#steps.length;
  }

  get isEmpty(): boolean {
    return this.#move === null && this.#steps.length === 0;
  }

  get counts() {
    return {
      pairsDone: this.#pairsDone,
      cutMm: this.#cutMm,
      travelMm: this.#travelMm,
      busySeconds: this.#busySeconds,
      paths: this.#paths,
    };
  }

  get knifeDown(): boolean {
    return this.#down;
  }

  get place(): { xMm: number; yMm: number } {
    const move = this.#move;
    if (!move) return { xMm: this.#x, yMm: this.#y };
    const share = this.#drivenMm(move) / (move.plan.lengthMm || 1);
    return { xMm: move.fromX + (move.toX - move.fromX) * share, yMm: move.fromY + (move.toY - move.fromY) * share };
  }

  /** What the tip cut so far, in mm, the run in progress last. */
  get cutLines(): Float64Array[] {
    const current = this.#tip.current;
    return current.length >= 4 ? [...this.#tip.lines, Float64Array.from(current)] : [...this.#tip.lines];
  }

  push(step: Step): void {
    this.#steps.push(step);
  }

  /** Where the head will be, and how the knife, once all that waits is done. */
  get ahead(): { readonly x: number; readonly y: number; readonly down: boolean } {
    const last = this.#steps.findLast((step) => step.kind === 'go');
    return last ? { x: last.x, y: last.y, down: last.down } : { x: this.#x, y: this.#y, down: this.#down };
  }

  /** Stops where it is, forgets what waits and lifts the knife. What was cut of the move under way stays cut. */
  abort(): void {
    const move = this.#move;
    if (move) {
      const { xMm, yMm } = this.place;
      this.#tip.drag(move.fromX, move.fromY, xMm, yMm);
      this.#count(this.#drivenMm(move));
      [this.#x, this.#y] = [xMm, yMm];
    }
    this.#move = null;
    this.#steps.length = 0;
    this.#speedNow = 0;
    this.#setDown(false);
  }

  /** The power was off: the head is put to its corner by hand, and the count begins anew. */
  reset(): void {
    this.abort();
    this.#x = this.#y = 0;
    this.#pairsDone = 0;
    this.#lifting = 0;
  }

  /** Another sheet is in: forgets what was cut on the last one, not how the knife stands. */
  newSheet(): void {
    this.#tip.reset();
    this.#cutMm = this.#travelMm = this.#busySeconds = this.#paths = 0;
  }

  /** A hand at the knife: it stands anyhow until it is dragged. */
  turnKnife(radians: number): void {
    this.#tip.turn(radians);
  }

  /** Moves for `seconds`; `readOn` is called whenever a step could be added. Gives the part that was not needed. */
  advance(seconds: number, readOn: () => boolean): number {
    let left = seconds;
    for (;;) {
      if (!readOn()) return left;
      if (this.#lifting > 0) {
        const spent = Math.min(left, this.#lifting);
        this.#lifting -= spent;
        this.#busySeconds += spent;
        left -= spent;
        if (this.#lifting > 0) return 0;
      }
      if (!this.#move && !this.#begin()) return left;
      const move = this.#move;
      if (!move) continue;
      const spent = Math.min(left, move.plan.seconds - move.elapsed);
      move.elapsed += spent;
      this.#busySeconds += spent;
      left -= spent;
      if (move.elapsed < move.plan.seconds - 1e-12) return 0;
      this.#arrive(move);
    }
  }

  #drivenMm(move: MoveInProgress): number {
    return distanceAt(move.plan, move.elapsed, this.#options.accelerationMmS2);
  }

  #count(mm: number): void {
    if (this.#down) this.#cutMm += mm;
    else this.#travelMm += mm;
  }

  #arrive(move: MoveInProgress): void {
    this.#tip.drag(move.fromX, move.fromY, move.toX, move.toY);
    this.#count(move.plan.lengthMm);
    this.#x = move.toX;
    this.#y = move.toY;
    this.#speedNow = move.plan.exit;
    this.#move = null;
    this.#pairsDone += 1;
    this.#steps.shift();
  }

  /** Starts the next step; false when there is none. */
  #begin(): boolean {
    const step = this.#steps[0];
    if (!step) return false;
    if (step.kind === 'say') {
      this.#steps.shift();
      step.say();
      return true;
    }
    if (step.down !== this.#down) {
      this.#setDown(step.down);
      return true;
    }
    const points = [this.#x, this.#y];
    for (const ahead of this.#steps) {
      if (
        ahead.kind !== 'go' ||
        ahead.down !== step.down ||
        ahead.speed !== step.speed ||
        points.length > 2 * LOOK_AHEAD
      )
        break;
      points.push(ahead.x, ahead.y);
    }
    if (points[2] === this.#x && points[3] === this.#y) {
      this.#steps.shift();
      this.#pairsDone += 1;
      return true;
    }
    const plan = planMoves(
      points,
      step.down ? step.speed : this.#options.travelSpeedMmS,
      this.#options.accelerationMmS2,
      this.#speedNow,
    )[0]!;
    this.#move = { plan, fromX: this.#x, fromY: this.#y, toX: step.x, toY: step.y, elapsed: 0 };
    return true;
  }

  #setDown(down: boolean): void {
    if (down === this.#down) return;
    this.#down = down;
    this.#lifting += this.#options.liftSeconds;
    this.#speedNow = 0;
    if (down) {
      this.#paths += 1;
      this.#tip.lower(this.#x, this.#y);
    } else this.#tip.lift();
  }
}
