import { describe, expect, it } from 'vitest';
import { areaOf, boundsOf } from '../../../geometry/index.js';
import { Refusal } from '../refusal.js';
import { seeded } from '../../../testing/seeded.js';
import { paintRegions, readArtwork } from '../index.js';
import { readDxf } from './read-dxf.js';
import { fittedPoints } from './spline.js';
import { indexColour } from './colours.js';
import { joinLoops } from '../join-loops.js';
import { withFindings } from '../../../testing/with-findings.js';

type Group = readonly [code: number, value: number | string];
interface Parts {
  readonly entities: readonly Group[];
  readonly header?: readonly Group[];
  readonly layers?: readonly Group[];
  readonly blocks?: readonly Group[];
}

const MM: readonly Group[] = [
  [9, '$INSUNITS'],
  [70, 4],
];
const dxf = ({ entities, header = MM, layers = [], blocks = [] }: Parts, end = '\n') =>
  [
    [0, 'SECTION'],
    [2, 'HEADER'],
    ...header,
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'TABLES'],
    ...layers,
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
    [],
  ]
    .map((group) => group.map((v, i) => (i === 0 ? String(v).padStart(3) : String(v))).join(end))
    .join(end);
const read = (parts: Parts) => withFindings(readArtwork(new TextEncoder().encode(dxf(parts)), 'part.dxf'));
const areas = (parts: Parts) => paintRegions(read(parts), 1).regions.map((region) => areaOf(region.rings));
const codes = (parts: Parts) => read(parts).findings.map((finding) => finding.code);
const line = (x0: number, y0: number, x1: number, y1: number): Group[] => [
  [0, 'LINE'],
  [8, '0'],
  [10, x0],
  [20, y0],
  [11, x1],
  [21, y1],
];
const circle = (x: number, y: number, r: number, ...more: Group[]): Group[] => [
  [0, 'CIRCLE'],
  [8, '0'],
  ...more,
  [10, x],
  [20, y],
  [40, r],
];
const poly = (points: readonly (readonly number[])[], closed = 1): Group[] => [
  [0, 'LWPOLYLINE'],
  [8, '0'],
  [90, points.length],
  [70, closed],
  ...points.flatMap(([x, y, b]): Group[] => [[10, x!], [20, y!], ...(b ? ([[42, b]] as Group[]) : [])]),
];
const square = (x: number, y: number, side: number) =>
  poly([
    [x, y],
    [x + side, y],
    [x + side, y + side],
    [x, y + side],
  ]);

/** A circle of radius 10 as a rational quadratic spline of nine points. */
const w = Math.SQRT1_2;
const circleSpline: Group[] = [
  [0, 'SPLINE'],
  [8, '0'],
  [70, 1],
  [71, 2],
  ...[0, 0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 4].map((k): Group => [40, k]),
  ...[1, w, 1, w, 1, w, 1, w, 1].map((k): Group => [41, k]),
  ...[
    [10, 0],
    [10, 10],
    [0, 10],
    [-10, 10],
    [-10, 0],
    [-10, -10],
    [0, -10],
    [10, -10],
    [10, 0],
  ].flatMap(([x, y]): Group[] => [
    [10, x!],
    [20, y!],
  ]),
];

describe('entities', () => {
  it.each<[string, Group[], number]>([
    ['circle', circle(0, 0, 10), Math.PI * 100],
    [
      'four lines, every which way',
      [...line(0, 0, 10, 0), ...line(10, 10, 10, 0), ...line(10, 10, 0, 10), ...line(0, 0, 0, 10)],
      100,
    ],
    [
      'lines whose ends nearly meet',
      [...line(0, 0, 10, 0.04), ...line(10.03, 0, 10, 10), ...line(10, 10.05, 0, 10), ...line(0, 10, 0, 0.02)],
      100,
    ],
    [
      'arc and its chord',
      [[0, 'ARC'], [8, '0'], [10, 0], [20, 0], [40, 10], [50, 0], [51, 180], ...line(-10, 0, 10, 0)],
      Math.PI * 50,
    ],
    [
      'arc that goes through zero',
      [[0, 'ARC'], [8, '0'], [10, 0], [20, 0], [40, 10], [50, 270], [51, 90], ...line(0, -10, 0, 10)],
      Math.PI * 50,
    ],
    [
      'ellipse',
      [
        [0, 'ELLIPSE'],
        [8, '0'],
        [10, 0],
        [20, 0],
        [11, 20],
        [21, 0],
        [40, 0.5],
        [41, 0],
        [42, 2 * Math.PI],
      ],
      Math.PI * 200,
    ],
    ['closed polyline', square(3, 3, 10), 100],
    [
      'polyline with bulges: a disc of two half circles',
      poly([
        [-10, 0, 1],
        [10, 0, 1],
      ]),
      Math.PI * 100,
    ],
    [
      'polyline with inward bulges',
      poly([
        [0, 0],
        [20, 0],
        [20, 20, -1],
        [0, 20],
      ]),
      400 - Math.PI * 50,
    ],
    [
      'old polyline of vertices',
      [
        [0, 'POLYLINE'],
        [8, '0'],
        [66, 1],
        [70, 1],
        ...[
          [0, 0],
          [10, 0],
          [10, 10],
        ].flatMap(([x, y]): Group[] => [
          [0, 'VERTEX'],
          [8, '0'],
          [10, x!],
          [20, y!],
        ]),
        [0, 'SEQEND'],
      ],
      50,
    ],
    ['rational spline that is a circle', circleSpline, Math.PI * 100],
    [
      'solid',
      [
        [0, 'SOLID'],
        [8, '0'],
        [10, 0],
        [20, 0],
        [11, 10],
        [21, 0],
        [12, 0],
        [22, 10],
        [13, 10],
        [23, 10],
      ],
      100,
    ],
    [
      'hatch of a polyline with a hole',
      [
        [0, 'HATCH'],
        [8, '0'],
        [10, 0],
        [20, 0],
        [91, 2],
        [92, 3],
        [72, 0],
        [73, 1],
        [93, 4],
        ...[
          [0, 0],
          [20, 0],
          [20, 20],
          [0, 20],
        ].flatMap(([x, y]): Group[] => [
          [10, x!],
          [20, y!],
        ]),
        [92, 2],
        [72, 0],
        [73, 1],
        [93, 4],
        ...[
          [5, 5],
          [15, 5],
          [15, 15],
          [5, 15],
        ].flatMap(([x, y]): Group[] => [
          [10, x!],
          [20, y!],
        ]),
        [97, 0],
      ],
      300,
    ],
    [
      'hatch of edges: a half disc',
      [
        [0, 'HATCH'],
        [8, '0'],
        [10, 0],
        [20, 0],
        [91, 1],
        [92, 1],
        [93, 2],
        [72, 1],
        [10, -10],
        [20, 0],
        [11, 10],
        [21, 0],
        [72, 2],
        [10, 0],
        [20, 0],
        [40, 10],
        [50, 0],
        [51, 180],
        [73, 1],
        [97, 0],
      ],
      Math.PI * 50,
    ],
  ])('%s', (_, entities, area) => {
    const found = areas({ entities });
    expect(found).toHaveLength(1);
    expect(Math.abs(found[0]! / area - 1)).toBeLessThan(0.005);
  });

  it('nest by even-odd: a letter keeps its counter, and an island in it', () => {
    expect(areas({ entities: [...square(0, 0, 40), ...square(10, 10, 20), ...square(15, 15, 5)] })[0]).toBeCloseTo(
      1600 - 400 + 25,
      3,
    );
  });

  it('stand upright: up in the drawing is up on the sheet', () => {
    const { regions } = paintRegions(
      read({
        entities: poly([
          [0, 0],
          [40, 0],
          [20, 30],
        ]),
      }),
      1,
    );
    const ring = regions[0]!.rings[0]!;
    const highest = Math.min(...ring.filter((_, i) => i % 2 === 1));
    expect(ring[[...ring].findIndex((v, i) => i % 2 === 1 && v === highest) - 1]).toBeCloseTo(20, 3);
  });
});

describe('blocks', () => {
  const blocks: Group[] = [
    [0, 'BLOCK'],
    [2, 'DOT'],
    [10, 1],
    [20, 1],
    ...circle(1, 1, 5),
    [0, 'ENDBLK'],
    [0, 'BLOCK'],
    [2, 'PAIR'],
    [10, 0],
    [20, 0],
    [0, 'INSERT'],
    [2, 'DOT'],
    [10, 0],
    [20, 0],
    [0, 'INSERT'],
    [2, 'DOT'],
    [10, 20],
    [20, 0],
    [0, 'ENDBLK'],
    [0, 'BLOCK'],
    [2, 'LOOP'],
    [10, 0],
    [20, 0],
    [0, 'INSERT'],
    [2, 'LOOP'],
    [0, 'ENDBLK'],
  ];

  it('are drawn scaled, turned, nested and in rows', () => {
    const insert = (name: string, ...more: Group[]): Group[] => [[0, 'INSERT'], [8, '0'], [2, name], ...more];
    expect(areas({ blocks, entities: insert('DOT', [41, 2], [42, 3]) })[0]).toBeCloseTo(Math.PI * 150, 0);
    expect(areas({ blocks, entities: insert('PAIR', [50, 90]) })[0]).toBeCloseTo(Math.PI * 50, 0);
    expect(areas({ blocks, entities: insert('DOT', [70, 3], [71, 2], [44, 20], [45, 20]) })[0]).toBeCloseTo(
      Math.PI * 150,
      0,
    );
    const { regions } = paintRegions(read({ blocks, entities: insert('PAIR', [50, 90]) }), 1);
    const box = boundsOf(regions[0]!.rings)!;
    expect([box.maxX - box.minX, box.maxY - box.minY]).toEqual([expect.closeTo(10, 1), expect.closeTo(30, 1)]);
  });

  it('that contain themselves or do not exist are a finding', () => {
    expect(
      codes({ blocks, entities: [...circle(0, 0, 5), [0, 'INSERT'], [2, 'LOOP'], [0, 'INSERT'], [2, 'GHOST']] }),
    ).toEqual(['block-left', 'block-left']);
  });
});

describe('units, layers and colours', () => {
  it.each<[Group[], number, number | undefined]>([
    [
      [
        [9, '$INSUNITS'],
        [70, 1],
      ],
      25.4,
      undefined,
    ],
    [
      [
        [9, '$INSUNITS'],
        [70, 5],
      ],
      10,
      undefined,
    ],
    [
      [
        [9, '$MEASUREMENT'],
        [70, 0],
      ],
      25.4,
      25.4,
    ],
    [[], 1, 1],
  ])('%o', (header, mm, unstated) => {
    const artwork = read({ header, entities: square(0, 0, 10) });
    expect(artwork.widthMm).toBeCloseTo(10 * mm, 3);
    expect(artwork.mmPerUnit).toBe(unstated);
  });

  it('colour entities by themselves, their layer, their block or in full', () => {
    const layers: Group[] = [
      [0, 'LAYER'],
      [2, 'RED'],
      [70, 0],
      [62, 1],
      [0, 'LAYER'],
      [2, 'OFF'],
      [70, 0],
      [62, -3],
      [0, 'LAYER'],
      [2, 'ICE'],
      [70, 1],
      [62, 3],
    ];
    const on = (layer: string): Group[] => [
      [0, 'CIRCLE'],
      [8, layer],
      [10, 0],
      [20, 0],
      [40, 9],
    ];
    const blocks: Group[] = [[0, 'BLOCK'], [2, 'B'], [10, 0], [20, 0], ...circle(30, 0, 3, [62, 0]), [0, 'ENDBLK']];
    const { paints } = read({
      layers,
      blocks,
      entities: [
        ...on('RED'),
        ...on('OFF'),
        ...on('ICE'),
        ...circle(20, 0, 8, [62, 5]),
        ...circle(0, 30, 7, [420, 0x1d4e89]),
        [0, 'INSERT'],
        [8, '0'],
        [2, 'B'],
        [62, 2],
      ],
    });
    expect(paints.map((paint) => paint.colour)).toEqual(['#ff0000', '#0000ff', '#1d4e89', '#ffff00']);
  });

  it('know the palette', () => {
    expect([1, 7, 8, 10, 30, 50, 92, 250, 255].map(indexColour)).toEqual([
      '#ff0000',
      '#000000',
      '#808080',
      '#ff0000',
      '#ff8000',
      '#ffff00',
      '#00a600',
      '#333333',
      '#ffffff',
    ]);
  });
});

describe('findings', () => {
  it('say what stays open, where, and what is left out', () => {
    const { findings } = read({
      entities: [
        ...square(0, 0, 40),
        ...line(50, 0, 60, 5),
        [0, 'TEXT'],
        [8, '0'],
        [1, 'Hello'],
        [0, 'MESH'],
        [8, '0'],
      ],
    });
    expect(findings.map((f) => f.code).sort()).toEqual(['dxf-mesh-left', 'dxf-text-left', 'open-outline']);
    expect(findings.find((f) => f.code === 'open-outline')!.where).toMatchObject({ minX: 50, maxX: 60 });
  });

  it('offer to join ends that nearly meet, and do', () => {
    // A square with a gap of 0.7 mm at one corner.
    const gapped = {
      entities: [...line(0, 0, 40, 0), ...line(40, 0, 40, 40), ...line(40, 40, 0, 40), ...line(0, 40, 0, 0.7)],
    };
    const [finding] = read(gapped).findings.filter((f) => f.code === 'open-outline');
    const { joinEndsMm } = finding!.remedies![0]!.patch.repair!;
    expect(joinEndsMm).toBeGreaterThan(0.7);
    expect(joinEndsMm).toBeLessThan(0.9);
    const joined = readDxf(new TextEncoder().encode(dxf(gapped)), 'part.dxf', joinEndsMm);
    expect(joined.noticed).toEqual([]);
    expect(paintRegions(joined, 1).regions.map((region) => Math.round(areaOf(region.rings)))).toEqual([1600]);
  });

  it('say that outlines were drawn twice, and keep one', () => {
    expect(codes({ entities: [...square(0, 0, 10), ...square(0, 0, 10)] })).toEqual(['painted-twice']);
    expect(areas({ entities: [...square(0, 0, 10), ...square(0, 0, 10)] })[0]).toBeCloseTo(100, 3);
  });
});

describe('lines drawn twice', () => {
  const sides = (x: number, y: number, w: number, h: number): Group[] => [
    ...line(x, y, x + w, y),
    ...line(x + w, y, x + w, y + h),
    ...line(x + w, y + h, x, y + h),
    ...line(x, y + h, x, y),
  ];
  const frame = [...sides(0, 0, 40, 30), ...sides(10, 10, 10, 10)];
  it.each<[string, Group[], number, string[]]>([
    ['one side of a square', [...sides(0, 0, 40, 30), ...line(40, 30, 0, 30)], 1200, ['painted-twice']],
    ['one side of a hole, in the midst of others', [...line(10, 10, 20, 10), ...frame], 1100, ['painted-twice']],
    ['a part of a side', [...frame, ...line(5, 0, 25, 0)], 1100, ['painted-twice']],
    [
      'a side in two lines that overlap',
      [
        ...line(0, 0, 25, 0),
        ...line(15, 0, 40, 0),
        ...line(40, 0, 40, 30),
        ...line(40, 30, 0, 30),
        ...line(0, 30, 0, 0),
      ],
      1200,
      ['painted-twice'],
    ],
    ['two sides in a row', [...frame, ...line(0, 0, 40, 0), ...line(40, 30, 40, 0)], 1100, ['painted-twice']],
    ['all of it, in single lines', [...frame, ...frame], 1100, ['painted-twice']],
    ['a side of a closed outline', [...square(0, 0, 20), ...line(0, 0, 20, 0)], 400, ['painted-twice']],
    [
      'a side three times',
      [...sides(0, 0, 40, 30), ...line(40, 30, 0, 30), ...line(0, 30, 40, 30)],
      1200,
      ['painted-twice'],
    ],
    [
      'the seam of two squares side by side, by right',
      [...sides(0, 0, 20, 20), ...sides(20, 0, 20, 20)],
      800,
      ['painted-twice'],
    ],
    ['nothing', frame, 1100, []],
  ])('%s', (_, entities, area, noticed) => {
    expect(areas({ entities })[0]).toBeCloseTo(area, 2);
    expect(codes({ entities })).toEqual(noticed);
  });

  it.each(Array.from({ length: 30 }, (_, seed) => seed))(
    'any sides of any polygons, in any order and direction, seed %i',
    (seed) => {
      const random = seeded(700 + seed);
      const polygons = Array.from({ length: 5 }, (_, p) => {
        const corners = 3 + Math.floor(random() * 6);
        return Array.from({ length: corners }, (_, i): readonly [number, number] => {
          const r = 12 + 8 * random();
          return [p * 60 + r * Math.cos((2 * Math.PI * i) / corners), r * Math.sin((2 * Math.PI * i) / corners)];
        });
      });
      const once = polygons.flatMap((corners) =>
        corners.map((from, i) => [from, corners[(i + 1) % corners.length]!] as const),
      );
      const all = [...once, ...once.filter(() => random() < 0.3)].map(([a, b]) =>
        random() < 0.5 ? line(a[0], a[1], b[0], b[1]) : line(b[0], b[1], a[0], a[1]),
      );
      const shuffled = all
        .map((side) => ({ side, at: random() }))
        .sort((a, b) => a.at - b.at)
        .flatMap(({ side }) => side);
      expect(areas({ entities: shuffled })).toEqual(
        areas({ entities: once.flatMap(([a, b]) => line(a[0], a[1], b[0], b[1])) }).map((area) =>
          expect.closeTo(area, 1),
        ),
      );
    },
  );

  it('do not offer to join ends across nothing', () => {
    const finding = read({ entities: [...square(0, 0, 40), ...line(50, 0, 60, 5)] }).findings.find(
      (one) => one.code === 'open-outline',
    )!;
    expect(finding.remedies).toEqual([]);
  });
});

describe('splines given by the points they go through', () => {
  const through = (points: readonly (readonly number[])[], closed: boolean): Group[] => [
    [0, 'SPLINE'],
    [8, '0'],
    [70, closed ? 1 : 0],
    [71, 3],
    [74, points.length],
    ...points.flatMap(([x, y]): Group[] => [
      [11, x!],
      [21, y!],
    ]),
  ];
  it('are smooth: eight points of a circle make nearly the circle', () => {
    const points = Array.from({ length: 8 }, (_, i) => [
      20 * Math.cos((i * Math.PI) / 4),
      20 * Math.sin((i * Math.PI) / 4),
    ]);
    // As straight lines they would be 12 in 100 short.
    expect(Math.abs(areas({ entities: through(points, true) })[0]! - Math.PI * 400)).toBeLessThan(
      0.005 * Math.PI * 400,
    );
  });
  it('go through every point, open ones unbent at their ends', () => {
    const points = [
      [0, 0],
      [10, 8],
      [25, 8],
      [30, 0],
    ];
    const drawn = fittedPoints(points.flat(), false, { start: [], end: [] });
    for (const [x, y] of points)
      expect(
        Math.min(...drawn.flatMap((v, i) => (i % 2 === 0 ? [Math.hypot(v - x!, drawn[i + 1]! - y!)] : []))),
      ).toBeLessThan(1e-9);
    expect(
      fittedPoints([0, 0, 10, 5, 20, 10], false, { start: [], end: [] }).every(
        (v, i, all) => i % 2 === 0 || Math.abs(v - all[i - 1]! / 2) < 1e-9,
      ),
    ).toBe(true);
  });
  it('leave along their tangents', () => {
    const drawn = fittedPoints([0, 0, 20, 0, 40, 0], false, { start: [0, 1], end: [0, 1] });
    expect(drawn[3]! / Math.max(drawn[2]!, 1e-9)).toBeGreaterThan(3);
  });
});

describe('what cannot be read is refused with a reason', () => {
  it.each([
    ['no entities section', '0\nSECTION\n2\nHEADER\n0\nENDSEC\n0\nEOF\n', 'dxf-no-entities'],
    ['binary', 'AutoCAD Binary DXF\r\n\x1a\0', 'dxf-binary'],
    ['garbage after the head', '0\nSECTION\n2\nENTITIES\nhello\nworld\n', 'not-dxf'],
    ['nothing drawn', dxf({ entities: [] }), 'dxf-nothing-drawn'],
    ['only an open line far away', dxf({ entities: line(1e9, 0, 2e9, 1) }), 'dxf-nothing-drawn'],
    ['numbers that are none', dxf({ entities: circle(NaN, Infinity, 1e308) }), 'dxf-nothing-drawn'],
  ])('%s', (_, text, code) => {
    const attempt = () => readArtwork(new TextEncoder().encode(text), 'bad.dxf');
    expect(attempt).toThrow(Refusal);
    try {
      attempt();
    } catch (error) {
      expect((error as Refusal).code).toBe(code);
    }
  });

  it('reads files with DOS line ends', () => {
    const artwork = readArtwork(new TextEncoder().encode(dxf({ entities: square(0, 0, 10) }, '\r\n')), 'dos.dxf');
    expect(artwork.widthMm).toBeCloseTo(10, 6);
  });
});

describe('joining lines into loops', () => {
  it.each(Array.from({ length: 12 }, (_, seed) => seed))(
    'finds every polygon from its shuffled, turned sides, seed %i',
    (seed) => {
      const random = seeded(seed);
      const polygons = Array.from({ length: 8 }, (_, p) =>
        Array.from({ length: 3 + Math.floor(random() * 20) }, (_, i) => [
          p * 100 + 30 * Math.cos(i * 0.3) + random(),
          i * 4 + random(),
        ]),
      );
      const sides = polygons.flatMap((corners) =>
        corners.map((from, i) =>
          random() < 0.5
            ? [...from, ...corners[(i + 1) % corners.length]!]
            : [...corners[(i + 1) % corners.length]!, ...from],
        ),
      );
      const { loops, open } = joinLoops(
        [...sides].sort(() => random() - 0.5),
        0.01,
      );
      expect(open).toEqual([]);
      expect(loops.map((loop) => loop.length / 2 - 1).sort()).toEqual(polygons.map((corners) => corners.length).sort());
    },
  );
});

describe('what was once lost or changed without a word', () => {
  const disc = (lines: number, r: number) =>
    Array.from({ length: lines }, (_, i) => {
      const [a, b] = [i, i + 1].map((k) => (2 * Math.PI * k) / lines) as [number, number];
      return line(r * Math.cos(a), r * Math.sin(a), r * Math.cos(b), r * Math.sin(b));
    }).flat();
  const only = (parts: Parts) => areas(parts).reduce((sum, area) => sum + area, 0);

  it.each<[string, Parts, number]>([
    ['a circle of lines shorter than ends may be apart', { entities: disc(640, 5) }, Math.PI * 25],
    ['two such circles that touch', { entities: [...disc(640, 5), ...circle(10, 0, 5)] }, 2 * Math.PI * 25],
    [
      'a bulge that is all but straight',
      {
        entities: poly([
          [0, 0, 1e-13],
          [20, 0],
          [20, 20],
          [0, 20],
        ]),
      },
      400,
    ],
    [
      'two different loops of one box and area',
      {
        entities: [
          ...poly([
            [0, 0],
            [10, 0],
            [0, 10],
          ]),
          ...poly([
            [10, 10],
            [0, 10],
            [10, 0],
          ]),
        ],
      },
      100,
    ],
    [
      'a hatch with a spline edge that counts its fit points, and more edges after it',
      {
        entities: [
          [0, 'HATCH'],
          [8, '0'],
          [10, 0],
          [20, 0],
          [91, 1],
          [92, 1],
          [93, 3],
          [72, 4],
          [94, 1],
          [73, 0],
          [74, 0],
          [95, 4],
          [96, 2],
          ...[0, 0, 1, 1].map((k): Group => [40, k]),
          [10, 0],
          [20, 0],
          [10, 20],
          [20, 0],
          [97, 0],
          [72, 1],
          [10, 20],
          [20, 0],
          [11, 20],
          [21, 20],
          [72, 1],
          [10, 20],
          [20, 20],
          [11, 0],
          [21, 0],
          [97, 0],
        ],
      },
      200,
    ],
    [
      'what stands on the paper and not in the drawing',
      { entities: [...circle(0, 0, 10), ...circle(50, 0, 10, [67, 1])] },
      Math.PI * 100,
    ],
    ['what is marked as invisible', { entities: [...circle(0, 0, 10), ...circle(50, 0, 10, [60, 1])] }, Math.PI * 100],
    [
      'the other half of an ellipse seen from behind, closed by its chord above',
      {
        entities: [
          [0, 'ELLIPSE'],
          [8, '0'],
          [10, 0],
          [20, 0],
          [11, 20],
          [21, 0],
          [40, 0.5],
          [41, 0],
          [42, Math.PI],
          [230, -1],
          ...line(-20, 0, -20, 5),
          ...line(-20, 5, 20, 5),
          ...line(20, 5, 20, 0),
        ],
      },
      Math.PI * 100 + 40 * 5,
    ],
    [
      'a polyline that is drawn wide',
      {
        entities: [
          [0, 'LWPOLYLINE'],
          [8, '0'],
          [90, 2],
          [70, 0],
          [43, 4],
          [10, 0],
          [20, 0],
          [10, 50],
          [20, 0],
        ],
      },
      200,
    ],
    [
      'an old polyline that is drawn wide',
      {
        entities: [
          [0, 'POLYLINE'],
          [8, '0'],
          [66, 1],
          [70, 0],
          [40, 4],
          [41, 4],
          [0, 'VERTEX'],
          [8, '0'],
          [10, 0],
          [20, 0],
          [0, 'VERTEX'],
          [8, '0'],
          [10, 50],
          [20, 0],
          [0, 'SEQEND'],
        ],
      },
      200,
    ],
  ])('%s', (_, parts, area) => expect(Math.abs(only(parts) / area - 1)).toBeLessThan(0.002));

  it('a line that grows wider is told', () =>
    expect(
      codes({
        entities: [
          ...circle(0, 0, 10),
          [0, 'LWPOLYLINE'],
          [8, '0'],
          [90, 2],
          [70, 0],
          [10, 0],
          [20, 0],
          [40, 0],
          [41, 4],
          [10, 50],
          [20, 0],
        ],
      }),
    ).toContain('dxf-width-left'));

  it('a large spline is as true as a small one', () => {
    const large = circleSpline.map(([code, value]): Group => [
      code,
      code === 10 || code === 20 ? Number(value) * 1000 : value,
    ]);
    const { regions } = paintRegions(read({ entities: large }), 1);
    const box = boundsOf(regions[0]!.rings)!;
    const [cx, cy] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
    const [ring] = regions[0]!.rings;
    // A circle of 20 m: its corners are on it, and so nearly is the middle of every side.
    for (let i = 0; i < ring!.length; i += 2) {
      const j = (i + 2) % ring!.length;
      expect(
        Math.abs(Math.hypot((ring![i]! + ring![j]!) / 2 - cx, (ring![i + 1]! + ring![j + 1]!) / 2 - cy) - 10_000),
      ).toBeLessThan(0.6);
    }
  });

  it('a layer by another spelling, and layer 0 of a block by the layer it is inserted on', () => {
    const layers: Group[] = [
      [0, 'TABLE'],
      [2, 'LAYER'],
      [0, 'LAYER'],
      [2, 'Sails'],
      [70, 0],
      [62, 1],
      [0, 'ENDTAB'],
    ];
    const blocks: Group[] = [[0, 'BLOCK'], [8, '0'], [2, 'Sail'], [10, 0], [20, 0], ...circle(0, 0, 5), [0, 'ENDBLK']];
    const found = paintRegions(
      read({
        layers,
        blocks,
        entities: [
          [0, 'CIRCLE'],
          [8, 'SAILS'],
          [10, 40],
          [20, 0],
          [40, 5],
          [0, 'INSERT'],
          [8, 'sails'],
          [2, 'SAIL'],
          [10, 0],
          [20, 0],
        ],
      }),
      1,
    ).regions;
    expect(found.map(({ colour, rings }) => [colour, Math.round(areaOf(rings))])).toEqual([
      ['#ff0000', Math.round(2 * Math.PI * 25)],
    ]);
  });
});
