import type { Ring } from '../geometry/index.js';

/** A rectangle of 240 × 200 cut into pieces that fill it without a gap, each turned by a random quarter: whoever lays them knows no solution. */
export const CUT_APART = { widthMm: 200, lengthMm: 240 } as const;

type Point = readonly [number, number];

/** Ways to cut: straight along the sides, straight in any direction, or along a grid of lines with tabs as in a jigsaw. */
export type CutInto = 'rectangles' | 'convex' | 'jigsaw';

export function cutApart(into: CutInto, pieces: number, random: () => number): Ring[] {
  const cut = into === 'jigsaw' ? jigsaw(pieces, random) : split(pieces, random, into === 'convex');
  return cut.map((points) => {
    const turn = Math.floor(random() * 4);
    const turned = points.map(
      ([x, y]): Point =>
        [
          [x, y],
          [-y, x],
          [-x, -y],
          [y, -x],
        ][turn] as unknown as Point,
    );
    const [left, low] = [Math.min(...turned.map(([x]) => x)), Math.min(...turned.map(([, y]) => y))];
    return Float64Array.from(turned.flatMap(([x, y]) => [x - left, y - low]));
  });
}

/** The largest piece is cut in two until there are enough. */
function split(pieces: number, random: () => number, inAnyDirection: boolean): Point[][] {
  const { widthMm: w, lengthMm: l } = CUT_APART;
  const all: Point[][] = [
    [
      [0, 0],
      [w, 0],
      [w, l],
      [0, l],
    ],
  ];
  while (all.length < pieces) {
    all.sort((a, b) => areaOf(b) - areaOf(a));
    // One of the three largest, so that sizes differ.
    const [piece] = all.splice(Math.floor(random() * Math.min(3, all.length)), 1);
    const [width, height] = [span(piece!, 0), span(piece!, 1)];
    const middle = [0, 1].map((k) => piece!.reduce((sum, point) => sum + point[k]!, 0) / piece!.length);
    const at: Point = [middle[0]! + (random() - 0.5) * 0.3 * width, middle[1]! + (random() - 0.5) * 0.3 * height];
    // Across its longer side, so that nothing gets thin.
    const straight = width > height ? 0 : Math.PI / 2;
    const angle = inAnyDirection ? straight + (random() - 0.5) * 1.6 : straight;
    all.push(side(piece!, at, angle, 1), side(piece!, at, angle, -1));
  }
  return all;
}

function span(points: readonly Point[], k: 0 | 1): number {
  const all = points.map((point) => point[k]);
  return Math.max(...all) - Math.min(...all);
}

/** What of a convex outline lies on one side of a line through a point; the line's normal is given by its angle. */
function side(points: readonly Point[], [px, py]: Point, angle: number, sign: 1 | -1): Point[] {
  const [nx, ny] = [Math.cos(angle) * sign, Math.sin(angle) * sign];
  const height = ([x, y]: Point) => (x - px) * nx + (y - py) * ny;
  return points.flatMap((a, i) => {
    const b = points[(i + 1) % points.length]!;
    const [ha, hb] = [height(a), height(b)];
    const crossing: Point[] =
      ha > 0 !== hb > 0 ? [[a[0] + ((b[0] - a[0]) * ha) / (ha - hb), a[1] + ((b[1] - a[1]) * ha) / (ha - hb)]] : [];
    return ha > 0 ? [a, ...crossing] : crossing;
  });
}

function jigsaw(pieces: number, random: () => number): Point[][] {
  const across = [...Array(Math.floor(Math.sqrt(pieces))).keys()]
    .map((k) => k + 1)
    .filter((k) => pieces % k === 0)
    .at(-1)!;
  const along = pieces / across;
  const { widthMm, lengthMm } = CUT_APART;
  const [w, l] = [widthMm / across, lengthMm / along];
  const node = Array.from({ length: along + 1 }, (_, j) =>
    Array.from({ length: across + 1 }, (_, i): Point => [
      i * w + (i > 0 && i < across ? (random() - 0.5) * 0.2 * w : 0),
      j * l + (j > 0 && j < along ? (random() - 0.5) * 0.2 * l : 0),
    ]),
  );
  // From one corner to the next: straight at the rim, with a tab to one side inside.
  const tab = (a: Point, b: Point): Point[] => {
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const out = (random() < 0.5 ? -1 : 1) * (0.12 + 0.1 * random());
    return (
      [
        [0.38, 0],
        [0.34, 0.6],
        [0.42, 1],
        [0.58, 1],
        [0.66, 0.6],
        [0.62, 0],
      ] as const
    ).map(([t, h]): Point => [a[0] + dx * t - dy * out * h, a[1] + dy * t + dx * out * h]);
  };
  const flat = Array.from({ length: along + 1 }, (_, j) =>
    Array.from({ length: across }, (_, i) => (j === 0 || j === along ? [] : tab(node[j]![i]!, node[j]![i + 1]!))),
  );
  const upright = Array.from({ length: along }, (_, j) =>
    Array.from({ length: across + 1 }, (_, i) => (i === 0 || i === across ? [] : tab(node[j]![i]!, node[j + 1]![i]!))),
  );
  return Array.from({ length: pieces }, (_, k) => {
    const [i, j] = [k % across, Math.floor(k / across)];
    return [
      node[j]![i]!,
      ...flat[j]![i]!,
      node[j]![i + 1]!,
      ...upright[j]![i + 1]!,
      node[j + 1]![i + 1]!,
      ...[...flat[j + 1]![i]!].reverse(),
      node[j + 1]![i]!,
      ...[...upright[j]![i]!].reverse(),
    ];
  });
}

function areaOf(points: readonly Point[]): number {
  return (
    Math.abs(
      points.reduce(
        (sum, [x, y], i) => sum + x * points[(i + 1) % points.length]![1] - points[(i + 1) % points.length]![0] * y,
        0,
      ),
    ) / 2
  );
}
