import { distanceAt, planMoves, UNITS_PER_MM, type PlannedMove } from '../core/cutting/index.js';
import { HpglReader, type Instruction } from './hpgl-reader.js';
import { KnifeTip } from './knife-tip.js';

export interface DeviceOptions {
  readonly bufferBytes: number;
  readonly accelerationMmS2: number;
  readonly travelSpeedMmS: number;
  readonly liftSeconds: number;
  readonly bladeOffsetMm: number;
}

/** The simulated cutter as it leaves its imaginary works. */
export const DEVICE_DEFAULTS: DeviceOptions = {
  bufferBytes: 4096,
  accelerationMmS2: 2500,
  travelSpeedMmS: 500,
  liftSeconds: 0.06,
  bladeOffsetMm: 0.25,
};

export type DeviceState = 'idle' | 'moving' | 'held' | 'out-of-film' | 'jammed';

export interface DeviceStatus {
  readonly state: DeviceState;
  readonly freeBytes: number;
  /** Coordinate pairs driven to since power-on: tells a host exactly how far a broken connection got. */
  readonly pairsDone: number;
  /** Changes with every power-on. */
  readonly boot: number;
  readonly xMm: number;
  readonly yMm: number;
  readonly knifeDown: boolean;
  readonly speedMmS: number;
  readonly forceG: number;
  readonly unknownInstructions: number;
  readonly cutMm: number;
  readonly travelMm: number;
  /** Simulated seconds spent moving. */
  readonly busySeconds: number;
  readonly paths: number;
}

/** Moves planned ahead: as many as the device's own memory for them holds. */
const LOOK_AHEAD = 128;

type Step =
  | { readonly kind: 'go'; readonly x: number; readonly y: number; readonly down: boolean; readonly speed: number }
  | { readonly kind: 'say'; readonly what: 'position' | 'state' };

interface MoveInProgress {
  readonly plan: PlannedMove;
  readonly fromX: number;
  readonly fromY: number;
  readonly toX: number;
  readonly toY: number;
  elapsed: number;
}

/**
 * The cutter itself, without a wire: takes bytes into a small buffer, reads HP-GL from it as moves fit, and moves only when time is
 * given to it. Speed and acceleration are finite, and the knife's tip trails its holder.
 */
export class CutterDevice {
  readonly #options: DeviceOptions;
  readonly #reader = new HpglReader();
  readonly #tip: KnifeTip;
  readonly #steps: Step[] = [];
  readonly #replies: string[] = [];
  #buffer = '';
  #x = 0;
  #y = 0;
  #down = false;
  #penUpWanted = true;
  #speed = 100;
  #force = 0;
  #fault: 'held' | 'out-of-film' | 'jammed' | null = null;
  #move: MoveInProgress | null = null;
  #speedNow = 0;
  #lifting = 0;
  #pairsDone = 0;
  #boot = 1;
  #unknown = 0;
  #cutMm = 0;
  #travelMm = 0;
  #busy = 0;
  #paths = 0;
  /** Bytes the device reads in a simulated second: lowered to imitate a slow buffer. */
  bytesPerSecond = Infinity;
  #credit = 0;

  constructor(options: Partial<DeviceOptions> = {}) {
    this.#options = { ...DEVICE_DEFAULTS, ...options };
    this.#tip = new KnifeTip(this.#options.bladeOffsetMm);
  }

  get freeBytes(): number {
    return Math.max(0, this.#options.bufferBytes - this.#buffer.length - this.#reader.waiting);
  }

  /** Takes as much of the text as the buffer holds and returns how many characters that were. Escape requests are answered at once. */
  receive(text: string): number {
    let taken = 0;
    while (taken < text.length) {
      const escape = /^\x1b\.([A-Z])/.exec(text.slice(taken, taken + 3));
      if (escape) {
        this.#answerNow(escape[1]!);
        taken += 3;
        continue;
      }
      const next = text.indexOf('\x1b', taken);
      const piece = text.slice(taken, Math.min(next < 0 ? text.length : next, taken + this.freeBytes));
      if (piece.length === 0) break;
      this.#buffer += piece;
      taken += piece.length;
    }
    return taken;
  }

  /** A connection ended: whatever instruction was half through is dropped. */
  connectionLost(): void {
    const unread = this.#reader.takeRest() + this.#buffer;
    this.#buffer = unread.slice(0, Math.max(unread.lastIndexOf(';'), unread.lastIndexOf('\n')) + 1);
  }

  /** Answers waiting to be sent. */
  takeReplies(): string {
    return this.#replies.splice(0).join('');
  }

  hold(): void {
    this.#fault ??= 'held';
  }

  fail(fault: 'out-of-film' | 'jammed'): void {
    this.#fault = fault;
  }

  /** Whatever stopped it is mended, or the hold is over. */
  clearFault(): void {
    this.#fault = null;
  }

  /** Everything in flight is lost and the head is back at its corner, as after a power cut. What was cut stays cut. */
  powerCycle(): void {
    this.#tip.lift();
    this.abort();
    this.#x = this.#y = 0;
    this.#pairsDone = 0;
    this.#fault = null;
    this.#boot += 1;
  }

  /** Drops what is buffered and queued and lifts the knife. */
  abort(): void {
    this.#buffer = '';
    this.#reader.takeRest();
    this.#steps.length = 0;
    this.#move = null;
    this.#speedNow = 0;
    this.#setDown(false);
  }

  /** A new sheet is in: forgets what was cut on the last one. */
  newSheet(): void {
    this.#tip.reset();
    this.#cutMm = this.#travelMm = this.#busy = this.#paths = 0;
  }

  /** What the knife's tip cut so far, in mm, the run in progress last. */
  cutLines(): Float64Array[] {
    const current = this.#tip.current;
    return current.length >= 4 ? [...this.#tip.lines, Float64Array.from(current)] : [...this.#tip.lines];
  }

  status(): DeviceStatus {
    const busy = this.#move !== null || this.#steps.length > 0 || this.#buffer.length > 0;
    return {
      state: this.#fault ?? (busy ? 'moving' : 'idle'),
      freeBytes: this.freeBytes,
      pairsDone: this.#pairsDone,
      boot: this.#boot,
      ...this.#position(),
      knifeDown: this.#down,
      speedMmS: this.#speed,
      forceG: this.#force,
      unknownInstructions: this.#unknown,
      cutMm: this.#cutMm,
      travelMm: this.#travelMm,
      busySeconds: this.#busy,
      paths: this.#paths,
    };
  }

  /** Lets `seconds` of simulated time pass. Returns the part that was not needed because nothing was left to do. */
  advance(seconds: number): number {
    if (this.#fault) return seconds;
    this.#credit = Math.min(this.#credit + seconds * this.bytesPerSecond, this.#options.bufferBytes);
    let left = seconds;
    for (;;) {
      this.#readBuffer();
      if (this.#lifting > 0) {
        const spent = Math.min(left, this.#lifting);
        this.#lifting -= spent;
        this.#busy += spent;
        left -= spent;
        if (this.#lifting > 0) return 0;
      }
      if (!this.#move && !this.#begin()) return left;
      const move = this.#move;
      if (!move) continue;
      const spent = Math.min(left, move.plan.seconds - move.elapsed);
      move.elapsed += spent;
      this.#busy += spent;
      left -= spent;
      if (move.elapsed < move.plan.seconds - 1e-12) return 0;
      this.#arrive(move);
    }
  }

  #position(): { xMm: number; yMm: number } {
    const move = this.#move;
    if (!move) return { xMm: this.#x, yMm: this.#y };
    const share = move.plan.lengthMm > 0 ? distanceAt(move.plan, move.elapsed, this.#options.accelerationMmS2) / move.plan.lengthMm : 1;
    return { xMm: move.fromX + (move.toX - move.fromX) * share, yMm: move.fromY + (move.toY - move.fromY) * share };
  }

  #arrive(move: MoveInProgress): void {
    this.#tip.drag(move.fromX, move.fromY, move.toX, move.toY);
    if (this.#down) this.#cutMm += move.plan.lengthMm;
    else this.#travelMm += move.plan.lengthMm;
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
      this.#replies.push(step.what === 'position' ? `${this.#units(this.#x)},${this.#units(this.#y)},${this.#down ? 1 : 0}\r\n` : `${this.#fault ? 32 : 24}\r\n`);
      return true;
    }
    if (step.down !== this.#down) {
      this.#setDown(step.down);
      return true;
    }
    const points = [this.#x, this.#y];
    for (const ahead of this.#steps) {
      if (ahead.kind !== 'go' || ahead.down !== step.down || ahead.speed !== step.speed || points.length > 2 * LOOK_AHEAD) break;
      points.push(ahead.x, ahead.y);
    }
    if (points[2] === this.#x && points[3] === this.#y) {
      this.#steps.shift();
      this.#pairsDone += 1;
      return true;
    }
    const plan = planMoves(points, step.down ? step.speed : this.#options.travelSpeedMmS, this.#options.accelerationMmS2, this.#speedNow)[0]!;
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

  #readBuffer(): void {
    while (this.#steps.length < LOOK_AHEAD && this.#buffer.length > 0 && this.#credit >= 1) {
      const take = Math.min(this.#buffer.length, 64, Math.floor(this.#credit));
      this.#reader.push(this.#buffer.slice(0, take));
      this.#buffer = this.#buffer.slice(take);
      if (Number.isFinite(this.bytesPerSecond)) this.#credit -= take;
      this.#readInstructions();
    }
  }

  #readInstructions(): void {
    for (let instruction = this.#reader.next(); instruction; instruction = this.#reader.next()) this.#obey(instruction);
  }

  #obey({ name, text }: Instruction): void {
    const numbers = text === '' ? [] : text.split(/[\s,]+/).map(Number);
    switch (name) {
      case 'IN':
        this.#penUpWanted = true;
        break;
      case 'PU':
      case 'PD':
        this.#penUpWanted = name === 'PU';
        this.#queue(numbers);
        break;
      case 'PA':
        this.#queue(numbers);
        break;
      case 'VS':
        if (numbers[0]! > 0) this.#speed = numbers[0]! * 10;
        break;
      case 'FS':
        if (numbers[0]! > 0) this.#force = numbers[0]!;
        break;
      case 'SP':
        break;
      case 'OA':
        this.#steps.push({ kind: 'say', what: 'position' });
        break;
      case 'OS':
        this.#steps.push({ kind: 'say', what: 'state' });
        break;
      default:
        this.#unknown += 1;
    }
  }

  #queue(numbers: readonly number[]): void {
    if (numbers.length % 2 === 1 || numbers.some((n) => !Number.isFinite(n))) {
      this.#unknown += 1;
      return;
    }
    const last = this.#steps.findLast((s) => s.kind === 'go');
    const down = !this.#penUpWanted;
    const speed = this.#speed;
    // PU or PD alone still moves the knife: a step to where the head already will be.
    if (numbers.length === 0 && down !== (last?.down ?? this.#down)) this.#steps.push({ kind: 'go', x: last?.x ?? this.#x, y: last?.y ?? this.#y, down, speed });
    for (let i = 0; i < numbers.length; i += 2) {
      this.#steps.push({ kind: 'go', x: numbers[i]! / UNITS_PER_MM, y: numbers[i + 1]! / UNITS_PER_MM, down, speed });
    }
  }

  #answerNow(request: string): void {
    const s = this.status();
    if (request === 'B') this.#replies.push(`${this.freeBytes}\r\n`);
    else if (request === 'A') this.#replies.push('WRY LANTERN SIMULATED CUTTER,1\r\n');
    else if (request === 'S') {
      this.#replies.push(`S ${s.state} ${s.freeBytes} ${s.pairsDone} ${s.boot} ${this.#units(s.xMm)} ${this.#units(s.yMm)} ${s.knifeDown ? 1 : 0} ${Math.round(s.busySeconds * 1000)}\r\n`);
    } else if (request === 'H') this.hold();
    else if (request === 'G') this.clearFault();
    else if (request === 'K') this.abort();
    else if (request === 'N') this.newSheet();
    else this.#unknown += 1;
  }

  #units(mm: number): number {
    return Math.round(mm * UNITS_PER_MM);
  }
}
