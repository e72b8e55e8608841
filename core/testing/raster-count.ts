import { boundsOf, type Rings } from '../geometry/index.js';

/** Pieces and counters of an area, counted on a raster. */
export interface RasterCount {
  readonly pieces: number;
  readonly holes: number;
}

/**
 * Counts what holds together of an area (rings, mm) after an opening by `radiusMm`, and the closed-in waste that a disc of that radius fits
 * into, on squares of `cellMm`. It knows nothing of the kernel: rows are filled by the even-odd rule, distances measured square by square.
 */
export function rasterCount(rings: Rings, radiusMm: number, cellMm = 0.02): RasterCount {
  const box = boundsOf(rings);
  if (!box) return { pieces: 0, holes: 0 };
  const rim = Math.ceil(radiusMm / cellMm) + 4;
  const [width, height] = [
    Math.ceil((box.maxX - box.minX) / cellMm) + 2 * rim,
    Math.ceil((box.maxY - box.minY) / cellMm) + 2 * rim,
  ];
  const r = radiusMm / cellMm;
  const at: Raster = {
    width,
    height,
    cellMm,
    x: box.minX - rim * cellMm,
    y: box.minY - rim * cellMm,
    reach: Math.ceil(r) + 2,
  };
  const nearEdge = distanceToEdges(rings, at);
  const inside = filled(rings, at);
  const eroded = inside.map((v, i) => (v === 1 && nearEdge[i]! > r ? 1 : 0));
  const opened = mapCells(distanceTo(eroded, at, 1), (d) => d <= r + 0.5);
  const waste = mapCells(opened, (v) => v === 0);
  const roomy = inside.map((v, i) => (v === 0 && nearEdge[i]! > r ? 1 : 0));
  return { pieces: components(opened, width, false, null), holes: components(waste, width, true, roomy) };
}

function mapCells(cells: Float32Array | Uint8Array, is: (v: number) => boolean): Uint8Array {
  const out = new Uint8Array(cells.length);
  for (let i = 0; i < cells.length; i += 1) out[i] = is(cells[i]!) ? 1 : 0;
  return out;
}

interface Raster {
  readonly width: number;
  readonly height: number;
  /** One square, mm. */
  readonly cellMm: number;
  /** So many squares round an edge are measured. */
  readonly reach: number;
  /** Of its first corner, mm. */
  readonly x: number;
  readonly y: number;
}

/** From the middle of every square to the nearest edge, in squares, exactly; only near ones are told. */
function distanceToEdges(rings: Rings, { width, height, x, y, cellMm, reach }: Raster): Float32Array {
  const out = new Float32Array(width * height).fill(reach);
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [ax, ay] = [(ring[j]! - x) / cellMm - 0.5, (ring[j + 1]! - y) / cellMm - 0.5];
      const [dx, dy] = [(ring[i]! - ring[j]!) / cellMm, (ring[i + 1]! - ring[j + 1]!) / cellMm];
      const square = dx * dx + dy * dy;
      for (
        let row = Math.max(0, Math.ceil(Math.min(ay, ay + dy) - reach));
        row <= Math.min(height - 1, Math.max(ay, ay + dy) + reach);
        row += 1
      ) {
        // Along a row only what lies round the stretch of the edge near it.
        const [from, to] =
          dy === 0
            ? [0, 1]
            : ([(row - reach - ay) / dy, (row + reach - ay) / dy].map((t) => Math.min(1, Math.max(0, t))) as [
                number,
                number,
              ]);
        const [left, right] = [
          Math.min(ax + from * dx, ax + to * dx) - reach,
          Math.max(ax + from * dx, ax + to * dx) + reach,
        ];
        for (let column = Math.max(0, Math.ceil(left)); column <= Math.min(width - 1, right); column += 1) {
          const share = square === 0 ? 0 : Math.min(1, Math.max(0, ((column - ax) * dx + (row - ay) * dy) / square));
          const far = Math.hypot(column - ax - share * dx, row - ay - share * dy);
          if (far < out[row * width + column]!) out[row * width + column] = far;
        }
      }
    }
  }
  return out;
}

function filled(rings: Rings, at: Raster): Uint8Array {
  const out = new Uint8Array(at.width * at.height);
  const crossings: number[][] = Array.from({ length: at.height }, () => []);
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      const [x1, y1, x2, y2] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
      const row = (y: number) => (y - at.y) / at.cellMm - 0.5;
      for (
        let k = Math.max(0, Math.ceil(row(Math.min(y1, y2))));
        k <= Math.min(at.height - 1, row(Math.max(y1, y2)));
        k += 1
      ) {
        const y = at.y + (k + 0.5) * at.cellMm;
        if (y1 > y !== y2 > y) crossings[k]!.push((x1 + ((x2 - x1) * (y - y1)) / (y2 - y1) - at.x) / at.cellMm - 0.5);
      }
    }
  }
  crossings.forEach((row, k) => {
    row.sort((a, b) => a - b);
    for (let i = 0; i + 1 < row.length; i += 2)
      for (let x = Math.ceil(row[i]!); x < row[i + 1]!; x += 1) out[k * at.width + x] = 1;
  });
  return out;
}

/** From every square to the nearest of a value, in squares; only near ones are told, which is all that is asked. */
function distanceTo(cells: Uint8Array, { width, height, reach }: Raster, value: 0 | 1): Float32Array {
  const out = new Float32Array(cells.length).fill(reach);
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const at = y * width + x;
      if (cells[at] !== value) continue;
      out[at] = 0;
      // Only those at the edge are the nearest of anything.
      if (
        x === 0 ||
        y === 0 ||
        x === width - 1 ||
        y === height - 1 ||
        (cells[at - 1] === value &&
          cells[at + 1] === value &&
          cells[at - width] === value &&
          cells[at + width] === value)
      )
        continue;
      for (let dy = Math.max(-reach, -y); dy <= Math.min(reach, height - 1 - y); dy += 1) {
        for (let dx = Math.max(-reach, -x); dx <= Math.min(reach, width - 1 - x); dx += 1) {
          const far = Math.sqrt(dx * dx + dy * dy);
          if (far < out[at + dy * width + dx]!) out[at + dy * width + dx] = far;
        }
      }
    }
  }
  return out;
}

/** How many parts hang together; with `closedIn` those that reach the rim do not count, and with `marked` only those that hold a marked square. */
function components(cells: Uint8Array, width: number, closedIn: boolean, marked: Uint8Array | null): number {
  const seen = new Uint8Array(cells.length);
  const steps = closedIn
    ? [1, -1, width, -width, width + 1, width - 1, -width + 1, -width - 1]
    : [1, -1, width, -width];
  let count = 0;
  for (let start = 0; start < cells.length; start += 1) {
    if (!cells[start] || seen[start]) continue;
    const stack = [start];
    seen[start] = 1;
    let [reachesRim, isMarked] = [false, marked === null];
    while (stack.length > 0) {
      const at = stack.pop()!;
      const x = at % width;
      if (x === 0 || x === width - 1 || at < width || at >= cells.length - width) reachesRim = true;
      if (marked?.[at]) isMarked = true;
      for (const step of steps) {
        const next = at + step;
        if (next >= 0 && next < cells.length && Math.abs((next % width) - x) <= 1 && cells[next] && !seen[next]) {
          seen[next] = 1;
          stack.push(next);
        }
      }
    }
    if (isMarked && !(closedIn && reachesRim)) count += 1;
  }
  return count;
}
