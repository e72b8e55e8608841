import { UNITS_PER_MM, type Instruction } from '../core/engines/cutting/index.js';
import { Carriage, LOOK_AHEAD, type CarriageOptions } from './carriage.js';
import { LineBuffer } from './line-buffer.js';

export interface DeviceOptions extends CarriageOptions {
  readonly bufferBytes: number;
  /** Where boot numbers come from: two power-ons must not have the same, or a host takes one for the other. Gives numbers from 0 to 1. */
  readonly random: () => number;
}

/** The simulated cutter as it leaves its imaginary works. */
export const DEVICE_DEFAULTS: DeviceOptions = {
  bufferBytes: 4096,
  accelerationMmS2: 2500,
  travelSpeedMmS: 500,
  liftSeconds: 0.06,
  bladeOffsetMm: 0.25,
  random: Math.random,
};

export type DeviceState = 'idle' | 'moving' | 'held' | 'out-of-film' | 'jammed';

export interface DeviceStatus {
  readonly state: DeviceState;
  /** Nothing waits and nothing moves: what was sent is done, and the count is final. Told apart from the state, since a fault hides it. */
  readonly empty: boolean;
  readonly freeBytes: number;
  /** Coordinate pairs driven to since power-on: tells a host exactly how far a broken connection got. */
  readonly pairsDone: number;
  /** Drawn anew at every power-on. */
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

/**
 * The cutter itself, without a wire: takes bytes into a small buffer (LineBuffer), reads HP-GL from it as moves fit, and moves only when time
 * is given to it (Carriage).
 */
export class CutterDevice {
  readonly #options: DeviceOptions;
  readonly #line: LineBuffer;
  readonly #carriage: Carriage;
  readonly #replies: string[] = [];
  #penUpWanted = true;
  #speed = 100;
  #force = 0;
  #fault: 'out-of-film' | 'jammed' | null = null;
  /** A fault that is still to come, and at which count of points. */
  #coming: { readonly fault: 'out-of-film' | 'jammed'; readonly atPairs: number } | null = null;
  #held = false;
  #boot: number;
  #unknown = 0;
  /** Bytes the device reads in a simulated second: lowered to imitate a slow buffer. */
  bytesPerSecond = Infinity;
  #credit = 0;

  constructor(options: Partial<DeviceOptions> = {}) {
    this.#options = { ...DEVICE_DEFAULTS, ...options };
    this.#line = new LineBuffer(this.#options.bufferBytes);
    this.#carriage = new Carriage(this.#options);
    this.#boot = this.#drawBoot();
  }

  /** Takes as much of the text as the buffer holds and returns how many characters that were. Escape requests are answered at once. */
  receive(text: string): number {
    return this.#line.receive(text, (letter) => this.#answerNow(letter));
  }

  /** A connection ended: whatever instruction was half through is dropped. */
  connectionLost(): void {
    this.#line.dropUnfinished();
    this.#replies.length = 0;
  }

  /** Answers waiting to be sent. */
  takeReplies(): string {
    return this.#replies.splice(0).join('');
  }

  /** Stands still until it is released; a fault beside it does not end the hold, nor the other way round. */
  hold(): void {
    this.#held = true;
  }

  release(): void {
    this.#held = false;
  }

  /** Stops with a fault, now or once so many more points are done. */
  fail(fault: 'out-of-film' | 'jammed', afterPairs = 0): void {
    this.#coming = { fault, atPairs: this.#carriage.counts.pairsDone + afterPairs };
    this.#strike();
  }

  /** Whatever stopped it is mended, by a hand at the machine. */
  clearFault(): void {
    this.#fault = null;
    this.#coming = null;
  }

  /** Everything in flight is lost and the head is back at its corner, as after a power cut. What was cut stays cut. */
  powerCycle(): void {
    this.#line.clear();
    this.#line.dropUnfinished();
    this.#carriage.reset();
    this.#penUpWanted = true;
    this.#fault = null;
    this.#coming = null;
    this.#held = false;
    this.#boot = this.#drawBoot();
  }

  /** Drops what is buffered and queued and lifts the knife where it is. */
  abort(): void {
    this.#line.clear();
    this.#carriage.abort();
  }

  /** A new sheet is in: forgets what was cut on the last one. */
  newSheet(): void {
    this.#carriage.newSheet();
  }

  /** A hand turned the knife. */
  turnKnife(radians: number): void {
    this.#carriage.turnKnife(radians);
  }

  /** What the knife's tip cut so far, in mm, the run in progress last. */
  cutLines(): Float64Array[] {
    return this.#carriage.cutLines;
  }

  status(): DeviceStatus {
    const empty = this.#carriage.isEmpty && this.#line.isEmpty;
    return {
      state: this.#fault ?? (this.#held ? 'held' : empty ? 'idle' : 'moving'),
      empty,
      freeBytes: this.#line.freeBytes,
      boot: this.#boot,
      ...this.#carriage.place,
      knifeDown: this.#carriage.knifeDown,
      speedMmS: this.#speed,
      forceG: this.#force,
      unknownInstructions: this.#unknown,
      ...this.#carriage.counts,
    };
  }

  /** Lets `seconds` of simulated time pass. Returns the part that was not needed because nothing was left to do. */
  advance(seconds: number): number {
    if (this.#fault || this.#held) return seconds;
    this.#credit = Math.min(this.#credit + seconds * this.bytesPerSecond, this.#options.bufferBytes);
    return this.#carriage.advance(seconds, () => {
      this.#strike();
      if (!this.#fault) this.#readOn();
      return !this.#fault;
    });
  }

  #strike(): void {
    if (!this.#coming || this.#carriage.counts.pairsDone < this.#coming.atPairs) return;
    this.#fault = this.#coming.fault;
    this.#coming = null;
  }

  #drawBoot(): number {
    return 1 + Math.floor(this.#options.random() * 0x7fffffff);
  }

  #readOn(): void {
    while (this.#carriage.waiting < LOOK_AHEAD && !this.#line.isEmpty && this.#credit >= 1) {
      const bytes = Math.min(64, Math.floor(this.#credit));
      for (const instruction of this.#line.read(bytes)) this.#obey(instruction);
      if (Number.isFinite(this.bytesPerSecond)) this.#credit -= bytes;
    }
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
        this.#carriage.push({ kind: 'say', say: () => this.#sayPlace() });
        break;
      case 'OS':
        this.#carriage.push({
          kind: 'say',
          say: () => this.#replies.push(`${this.#fault || this.#held ? 32 : 24}\r\n`),
        });
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
    const { ahead } = this.#carriage;
    const down = !this.#penUpWanted;
    const speed = this.#speed;
    // PU or PD alone still moves the knife: a step to where the head already will be.
    if (numbers.length === 0 && down !== ahead.down)
      this.#carriage.push({ kind: 'go', x: ahead.x, y: ahead.y, down, speed });
    for (let i = 0; i < numbers.length; i += 2) {
      this.#carriage.push({
        kind: 'go',
        x: numbers[i]! / UNITS_PER_MM,
        y: numbers[i + 1]! / UNITS_PER_MM,
        down,
        speed,
      });
    }
  }

  #sayPlace(): void {
    const { place, knifeDown } = this.#carriage;
    this.#replies.push(`${units(place.xMm)},${units(place.yMm)},${knifeDown ? 1 : 0}\r\n`);
  }

  #answerNow(request: string): void {
    const s = this.status();
    if (request === 'B') this.#replies.push(`${s.freeBytes}\r\n`);
    else if (request === 'A') this.#replies.push('WRY LANTERN SIMULATED CUTTER,1\r\n');
    else if (request === 'S') {
      this.#replies.push(
        `S ${s.state} ${s.empty ? 1 : 0} ${s.freeBytes} ${s.pairsDone} ${s.boot} ${units(s.xMm)} ${units(s.yMm)} ${s.knifeDown ? 1 : 0} ${Math.round(s.busySeconds * 1000)}\r\n`,
      );
    } else if (request === 'H') this.hold();
    else if (request === 'G') this.release();
    else if (request === 'K') this.abort();
    else if (request === 'N') this.newSheet();
    else this.#unknown += 1;
  }
}

function units(mm: number): number {
  return Math.round(mm * UNITS_PER_MM);
}
