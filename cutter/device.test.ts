import { describe, expect, it } from 'vitest';
import { cutProgram, writeHpgl } from '../core/engines/cutting/index.js';
import { type Ring } from '../core/geometry/index.js';
import { disc, rectangle } from '../core/testing/seeded.js';
import { CutterDevice, DEVICE_DEFAULTS } from './device.js';
import { runOffline } from './run-offline.js';

const SETTINGS = { forceG: 90, speedMmS: 200, bladeOffsetMm: 0.25, overcutMm: 0.5 };
const programOf = (contours: Ring[]) =>
  cutProgram({ groups: [{ contours, borders: [] }], settings: SETTINGS, motion: DEVICE_DEFAULTS });
const finish = (device: CutterDevice) => {
  while (device.advance(10) === 0);
  return device.status();
};

/** How far the farthest point of what was cut lies from a ring, mm. */
function farthest(lines: readonly Float64Array[], ring: Ring): number {
  let worst = 0;
  for (const line of lines) {
    for (let i = 0; i < line.length; i += 2) {
      let near = Infinity;
      for (let j = 0; j < ring.length; j += 2) {
        const k = (j + 2) % ring.length;
        const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[k]!, ring[k + 1]!];
        const t = Math.min(
          1,
          Math.max(
            0,
            ((line[i]! - ax) * (bx - ax) + (line[i + 1]! - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2),
          ),
        );
        near = Math.min(near, Math.hypot(line[i]! - ax - t * (bx - ax), line[i + 1]! - ay - t * (by - ay)));
      }
      worst = Math.max(worst, near);
    }
  }
  return worst;
}

describe('the simulated cutter', () => {
  it.each([
    ['a square', rectangle(20, 20, 30, 30)],
    ['a circle', disc(40, 40, 20, 200)],
    ['a sliver', Float64Array.of(10, 10, 60, 10, 60, 11)],
  ])('cuts %s where it was meant, by the tip of its trailing knife', (_, ring) => {
    // The first line turns the knife in the waste.
    const lines = runOffline(writeHpgl(programOf([ring]))).lines.slice(1);
    // A cutter step, its rounding, and what a knife swivels within.
    expect(farthest(lines, ring)).toBeLessThan(0.06);
  });

  it('takes the time that was estimated, within 5 %', () => {
    const rings = Array.from({ length: 20 }, (_, i) =>
      disc(30 + 40 * (i % 5), 30 + 40 * Math.floor(i / 5), 4 + i / 2, 30 + 5 * i),
    );
    const program = programOf(rings);
    const { status } = runOffline(writeHpgl(program));
    expect(Math.abs(status.busySeconds / program.seconds - 1)).toBeLessThan(0.05);
  });

  it('counts unknown commands and goes on', () => {
    const { status } = runOffline('IN;XX1,2;LB hello;PU400,400;PD800,400;ZZ;PU0,0;');
    expect(status.unknownInstructions).toBeGreaterThanOrEqual(3);
    expect([status.paths, Math.round(status.cutMm)]).toEqual([1, 10]);
  });

  it('reads instructions that arrive in pieces', () => {
    const device = new CutterDevice();
    for (const part of ['P', 'U4', '00,4', '00;P', 'D80', '0,400', ';']) device.receive(part);
    expect(finish(device)).toMatchObject({ xMm: 20, yMm: 10, knifeDown: true });
  });

  it('takes no more than its buffer holds, and takes the rest once it has read on', () => {
    const device = new CutterDevice({ bufferBytes: 64 });
    const text = 'PU400,400;PD800,400;'.repeat(20);
    let sent = device.receive(text);
    expect(sent).toBeLessThanOrEqual(64);
    while (sent < text.length) {
      device.advance(0.5);
      sent += device.receive(text.slice(sent));
    }
    expect(finish(device).pairsDone).toBe(40);
  });

  it('stops for a fault and goes on where it stopped', () => {
    const device = new CutterDevice();
    device.receive('PU400,400;PD4000,400;');
    device.advance(0.3);
    device.fail('out-of-film');
    const before = device.status();
    expect(device.advance(100)).toBe(100);
    expect(device.status()).toMatchObject({ state: 'out-of-film', xMm: before.xMm });
    device.clearFault();
    expect(finish(device)).toMatchObject({ state: 'idle', xMm: 100 });
  });

  it('keeps a hold through a fault and its mending', () => {
    const device = new CutterDevice();
    device.receive('PU400,400;PD4000,400;\x1b.H');
    device.fail('jammed');
    expect(device.status()).toMatchObject({ state: 'jammed', empty: false });
    device.clearFault();
    expect(device.status().state).toBe('held');
    device.receive('\x1b.G');
    expect(finish(device)).toMatchObject({ state: 'idle', empty: true, xMm: 100 });
  });

  it('says whether anything is left to do also while it stands still', () => {
    const device = new CutterDevice();
    device.receive('\x1b.H');
    expect(device.status()).toMatchObject({ state: 'held', empty: true });
    device.receive('PU400,400;');
    expect(device.status()).toMatchObject({ state: 'held', empty: false });
  });

  it('answers a request that arrives in pieces, also when its buffer is full', () => {
    const device = new CutterDevice({ bufferBytes: 8 });
    device.receive('PU400,400;PD800,400;');
    expect(device.receive('\x1b') + device.receive('.') + device.receive('B')).toBe(3);
    expect(device.takeReplies()).toBe('0\r\n');
  });

  it('stops in the middle of a move when it is told to drop everything, and what it cut by then stays cut', () => {
    const device = new CutterDevice();
    device.receive('VS10;PU400,400;PD4000,400;');
    device.advance(0.5);
    const { xMm } = device.status();
    device.abort();
    expect(device.status()).toMatchObject({ xMm, knifeDown: false, state: 'idle' });
    expect(device.status().cutMm).toBeCloseTo(xMm - 10, 6);
    const [line] = device.cutLines();
    expect(line!.at(-2)! - line![0]!).toBeCloseTo(xMm - 10, 1);
  });

  it('holds, goes on, and drops everything when it is told to', () => {
    const device = new CutterDevice();
    device.receive('PU400,400;PD4000,400;PD4000,4000;\x1b.H');
    expect(device.status().state).toBe('held');
    device.receive('\x1b.G');
    device.advance(0.2);
    device.receive('\x1b.K');
    expect(finish(device)).toMatchObject({ state: 'idle', knifeDown: false });
    expect(device.status().yMm).toBeLessThan(11);
  });

  it('forgets half an instruction when the line breaks, and nothing else', () => {
    const device = new CutterDevice();
    device.receive('PU400,400;PD800,400;PD12');
    device.connectionLost();
    device.receive('PD1600,400;');
    expect(finish(device)).toMatchObject({ xMm: 40, pairsDone: 3 });
  });

  it('loses its place in a power cut and says so by a new boot number', () => {
    const device = new CutterDevice();
    device.receive('PU400,400;PD800,400;');
    device.advance(0.5);
    const { boot } = device.status();
    device.powerCycle();
    expect(device.status()).toMatchObject({ pairsDone: 0, xMm: 0, state: 'idle' });
    expect(device.status().boot).not.toBe(boot);
    expect(new CutterDevice().status().boot).not.toBe(new CutterDevice().status().boot);
  });

  it('answers what a plotter is asked', () => {
    const device = new CutterDevice();
    device.receive('\x1b.A\x1b.BPU400,800;OA;');
    finish(device);
    expect(device.takeReplies()).toBe(
      `WRY LANTERN SIMULATED CUTTER,1\r\n${DEVICE_DEFAULTS.bufferBytes}\r\n400,800,0\r\n`,
    );
  });
});
