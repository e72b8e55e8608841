import { seeded } from './seeded.js';

type Group = readonly [code: number, value: number | string];

/** How far apart the figures of a made-up drawing stand, and how far each reaches from its middle at most, in its units. */
const PITCH = 100;
const REACH = 40;

/**
 * A small drawing made up by a grammar: loops of lines and arcs in any order and direction, polylines of both kinds with bulges, circles, rings, ellipses,
 * splines, and blocks repeated in blocks, scaled, turned, mirrored and in rows. Each figure stands apart from the others. The same seed gives the same drawing.
 *
 * Left out is what the reader that judges them does otherwise than the reference says, or not at all: hatches, solids, wide lines, layers that are off,
 * ellipses and polylines seen from behind, the layer 0 inside of blocks, repeats in a block whose base is not at 0, 0,
 * what is seen from behind in a block.
 */
export function randomDxf(seed: number): { readonly text: string; readonly mmPerUnit: number } {
  const random = seeded(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const between = (from: number, to: number) => Number((from + (to - from) * random()).toFixed(4));
  const shuffled = <T>(list: readonly T[]): T[] =>
    list
      .map((one) => ({ one, at: random() }))
      .sort((a, b) => a.at - b.at)
      .map(({ one }) => one);
  const layer = () => pick(['0', 'CUT', 'Cut 2']);
  const entity = (type: string, ...groups: Group[]): Group[] => [[0, type], [8, layer()], ...groups];
  const at = (x: number, y: number, [across, up]: readonly [number, number] = [10, 20]): Group[] => [
    [across, Number(x.toFixed(6))],
    [up, Number(y.toFixed(6))],
  ];
  const line = (ax: number, ay: number, bx: number, by: number) =>
    random() < 0.5
      ? entity('LINE', ...at(ax, ay), ...at(bx, by, [11, 21]))
      : entity('LINE', ...at(bx, by), ...at(ax, ay, [11, 21]));

  /** Corners round a middle, so that no side crosses another. */
  const corners = (cx: number, cy: number, reach: number): [number, number][] => {
    const count = 3 + Math.floor(5 * random());
    const turn = random() * 2 * Math.PI;
    return Array.from({ length: count }, (_, i) => {
      const angle = turn + (2 * Math.PI * (i + 0.3 * random())) / count;
      const far = reach * (0.55 + 0.35 * random());
      return [cx + far * Math.cos(angle), cy + far * Math.sin(angle)];
    });
  };
  const polyline = (points: readonly (readonly [number, number])[], isOld: boolean): Group[] => {
    // Small bulges: a side that bends far crosses its neighbour.
    const bulges = points.map(() => (random() < 0.4 ? between(-0.12, 0.12) : 0));
    const bulge = (i: number): Group[] => (bulges[i] === 0 ? [] : [[42, bulges[i]!]]);
    if (!isOld)
      return entity(
        'LWPOLYLINE',
        [90, points.length],
        [70, 1],
        ...points.flatMap(([x, y], i) => [...at(x, y), ...bulge(i)]),
      );
    return [
      ...entity('POLYLINE', [66, 1], [70, 1]),
      ...points.flatMap(([x, y], i) => entity('VERTEX', ...at(x, y), ...bulge(i))),
      [0, 'SEQEND'],
    ];
  };
  /** A clamped spline that ends where it begins. */
  const spline = (cx: number, cy: number, reach: number): Group[] => {
    const ring = corners(cx, cy, reach);
    const controls = [...ring, ring[0]!];
    const degree = Math.min(3, controls.length - 1);
    const inner = controls.length - degree - 1;
    const knots = [
      ...Array<number>(degree + 1).fill(0),
      ...Array.from({ length: inner }, (_, i) => i + 1),
      ...Array<number>(degree + 1).fill(inner + 1),
    ];
    return entity(
      'SPLINE',
      [70, 8],
      [71, degree],
      [72, knots.length],
      [73, controls.length],
      [74, 0],
      ...knots.map((knot): Group => [40, knot]),
      ...controls.flatMap(([x, y]) => at(x, y)),
    );
  };
  const figure = (cx: number, cy: number, reach: number, isInBlock = true): Group[] =>
    pick([
      () => entity('CIRCLE', ...at(cx, cy), [40, between(0.2, 1) * reach]),
      () => {
        const r = between(0.5, 1) * reach;
        return [
          ...entity('CIRCLE', ...at(cx, cy), [40, r]),
          ...entity('CIRCLE', ...at(cx, cy), [40, between(0.3, 0.8) * r]),
        ];
      },
      // Seen from behind, the same circle on the other side.
      () =>
        entity(
          'CIRCLE',
          ...at(isInBlock ? cx : -cx, cy),
          [40, between(0.2, 1) * reach],
          ...(isInBlock
            ? []
            : ([
                [210, 0],
                [220, 0],
                [230, -1],
              ] as const)),
        ),
      () => {
        const turn = random() * 2 * Math.PI;
        const r = between(0.4, 1) * reach;
        return entity(
          'ELLIPSE',
          ...at(cx, cy),
          ...at(r * Math.cos(turn), r * Math.sin(turn), [11, 21]),
          [40, between(0.2, 1)],
          [41, 0],
          [42, 2 * Math.PI],
        );
      },
      () => polyline(corners(cx, cy, reach), false),
      () => polyline(corners(cx, cy, reach), true),
      () => spline(cx, cy, reach),
      () => {
        const points = corners(cx, cy, reach);
        return shuffled(points.map(([x, y], i) => line(x, y, ...points[(i + 1) % points.length]!))).flat();
      },
      () => {
        // A slice of a disc: an arc and two lines, every which way.
        const [from, sweep, r] = [between(0, 360), between(40, 300), between(0.5, 1) * reach];
        const on = (deg: number) =>
          [cx + r * Math.cos((deg * Math.PI) / 180), cy + r * Math.sin((deg * Math.PI) / 180)] as const;
        return shuffled([
          entity('ARC', ...at(cx, cy), [40, r], [50, from], [51, (from + sweep) % 360]),
          line(cx, cy, ...on(from)),
          line(cx, cy, ...on(from + sweep)),
        ]).flat();
      },
    ])();

  const blocks: Group[] = [];
  let named = 0;
  /** A block of what is drawn round its base, and its name. */
  const block = (content: (x: number, y: number) => Group[], [x, y] = [between(-50, 50), between(-50, 50)]): string => {
    const name = `B${(named += 1)}`;
    blocks.push([0, 'BLOCK'], [8, '0'], [2, name], [70, 0], ...at(x, y), ...content(x, y), [0, 'ENDBLK'], [8, '0']);
    return name;
  };
  const insert = (name: string, x: number, y: number, ...more: Group[]) =>
    entity('INSERT', [2, name], ...at(x, y), ...more);
  const scale = () => between(0.5, 1) * pick([1, 1, -1]);
  const repeated = (cx: number, cy: number): Group[] =>
    pick([
      () =>
        insert(
          block((x, y) => figure(x, y, REACH)),
          cx,
          cy,
          [41, scale()],
          [42, scale()],
          [50, between(-180, 180)],
        ),
      () => {
        const inner = block((x, y) => figure(x, y, REACH / 2));
        return insert(
          block(
            (x, y) => [
              ...insert(inner, x - 18, y, [41, scale()], [42, scale()]),
              ...insert(inner, x + 18, y, [50, between(0, 360)]),
            ],
            [0, 0],
          ),
          cx,
          cy,
          [50, between(-180, 180)],
        );
      },
      // Rows stand as far apart as they say, whatever the scale.
      () =>
        insert(
          block((x, y) => figure(x, y, REACH / 4)),
          cx - 12,
          cy - 12,
          [41, between(0.6, 1)],
          [42, between(0.6, 1)],
          [70, 2],
          [71, 2],
          [44, 24],
          [45, 24],
        ),
    ])();

  const entities = Array.from({ length: 2 + Math.floor(7 * random()) }, (_, i) => {
    const [cx, cy] = [PITCH * (i % 3), PITCH * Math.floor(i / 3)];
    return random() < 0.35 ? repeated(cx, cy) : figure(cx, cy, REACH, false);
  }).flat();
  const [code, mmPerUnit] = pick([
    [4, 1],
    [5, 10],
    [1, 25.4],
  ] as const);
  const groups: Group[] = [
    [0, 'SECTION'],
    [2, 'HEADER'],
    [9, '$INSUNITS'],
    [70, code],
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'TABLES'],
    [0, 'TABLE'],
    [2, 'LAYER'],
    ...['0', 'CUT', 'Cut 2'].flatMap((name): Group[] => [
      [0, 'LAYER'],
      [2, name],
      [70, 0],
      [62, 7],
    ]),
    [0, 'ENDTAB'],
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'BLOCKS'],
    ...blocks,
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'ENTITIES'],
    ...entities,
    [0, 'ENDSEC'],
    [0, 'EOF'],
  ];
  return {
    text: `${groups.map(([group, value]) => `${String(group).padStart(3)}\n${value}`).join('\n')}\n`,
    mmPerUnit,
  };
}
