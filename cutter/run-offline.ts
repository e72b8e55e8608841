import { CutterDevice, type DeviceOptions, type DeviceStatus } from './device.js';

/** Feeds a whole HP-GL text to a device without a wire and lets it finish, faster than time. */
export function runOffline(
  hpgl: string,
  options: Partial<DeviceOptions> = {},
): { status: DeviceStatus; lines: Float64Array[] } {
  const device = new CutterDevice(options);
  let sent = 0;
  for (;;) {
    sent += device.receive(hpgl.slice(sent, sent + 4096));
    const idle = device.advance(0.25) > 0;
    if (idle && sent >= hpgl.length) break;
    // A last instruction without its end would wait for ever on a real line; here the file's end is its end.
    if (sent >= hpgl.length && device.status().state === 'idle') break;
  }
  device.receive(';');
  while (device.advance(60) === 0);
  return { status: device.status(), lines: device.cutLines() };
}
