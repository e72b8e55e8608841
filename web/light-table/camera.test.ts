import { describe, expect, it } from 'vitest';
import { seeded } from '../../core/testing/seeded.js';
import { between, fitted, pinched, resized, shifted, zoomedAt, type Camera, type Point } from './camera.js';

/** Where the camera shows a place, and which place it shows somewhere. */
const shown = ({ zoom, x, y }: Camera, mm: Point): Point => ({ x: mm.x * zoom + x, y: mm.y * zoom + y });
const under = ({ zoom, x, y }: Camera, px: Point): Point => ({ x: (px.x - x) / zoom, y: (px.y - y) / zoom });
const expectSame = (a: Point, b: Point) => expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(1e-6);

describe.each(Array.from({ length: 20 }, (_, seed) => seed))('the camera over the light table, seed %i', (seed) => {
  const random = seeded(seed);
  const point = (): Point => ({ x: random() * 1000, y: random() * 700 });
  const camera: Camera = { zoom: 0.5 + random() * 20, ...point() };
  const size = { width: 400 + random() * 900, height: 300 + random() * 600 };

  it('keeps what lies under the pointer there when it zooms', () => {
    const at = point();
    for (const factor of [0.5, 1.25, 3]) expectSame(under(zoomedAt(camera, factor, at), at), under(camera, at));
  });

  it('keeps what lies under two fingers under them', () => {
    const before = [point(), point()] as const;
    const [shift, grow] = [point(), 0.5 + random()];
    // The fingers move apart along their own line, and together somewhere.
    const after = before.map(({ x, y }) => ({ x: x * grow + shift.x, y: y * grow + shift.y })) as unknown as readonly [
      Point,
      Point,
    ];
    const now = pinched(camera, before, after);
    before.forEach((finger, i) => expectSame(under(now, after[i]!), under(camera, finger)));
  });

  it('keeps zoom and middle when the window changes', () => {
    const to = { width: 320, height: 500 };
    const now = resized(camera, size, to);
    expect(now.zoom).toBe(camera.zoom);
    expectSame(
      under(now, { x: to.width / 2, y: to.height / 2 }),
      under(camera, { x: size.width / 2, y: size.height / 2 }),
    );
  });

  it('shows all of a box, and a picture drawn before where it is now', () => {
    const corner = point();
    const box = {
      minX: corner.x,
      minY: corner.y,
      maxX: corner.x + 1 + random() * 500,
      maxY: corner.y + 1 + random() * 500,
    };
    const fit = fitted(box, size, 22);
    for (const mm of [
      { x: box.minX, y: box.minY },
      { x: box.maxX, y: box.maxY },
    ]) {
      const px = shown(fit, mm);
      expect(px.x > 22 && px.y > 22 && px.x < size.width && px.y < size.height).toBe(true);
    }
    const now = zoomedAt(shifted(fit, 30, -12), 1.7, point());
    const { factor, x, y } = between(fit, now);
    const mm = point();
    const drawn = shown(fit, mm);
    expectSame({ x: drawn.x * factor + x, y: drawn.y * factor + y }, shown(now, mm));
  });
});
