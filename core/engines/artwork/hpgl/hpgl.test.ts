import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../../../platform/artwork-resources.js';
import { areaOf, boundsOf, subtract, unite } from '../../../geometry/index.js';
import { disc, rectangle, seeded } from '../../../testing/seeded.js';
import { cutProgram, writeHpgl } from '../../cutting/index.js';
import { ArtworkReader, paintRegions, READ_AS_IT_IS, Refusal } from '../index.js';
import { isHpgl } from './is-hpgl.js';
import { readHpgl } from './read-hpgl.js';

/** As plotters are written to: a byte for each character. */
const bytes = (text: string) => Uint8Array.from(text, (letter) => letter.charCodeAt(0));
const read = (text: string, joinEndsMm = 0) => readHpgl(bytes(text), 'x.plt', joinEndsMm);
const areas = (text: string) => {
  const { regions } = paintRegions(read(text), 1);
  return regions.map(({ colour, rings }) => [colour, Number(areaOf(rings).toFixed(1))]);
};

describe('HP-GL', () => {
  it.each([
    ['a square driven round', 'IN;SP1;PU0,0;PD400,0,400,400,0,400,0,0;PU;', [['#16181a', 100]]],
    ['relative moves', 'IN;SP1;PA;PU400,400;PR;PD400,0;PD0,400,-400,0,0,-400;PU;', [['#16181a', 100]]],
    [
      'pens as colours',
      'IN;SP2;PU0,0;PD400,0,400,400,0,400,0,0;SP4;PU100,100;PD200,100,200,200,100,200,100,100;',
      [
        ['#b3262b', 100],
        ['#1d4e89', 6.3],
      ],
    ],
    [
      'a shape with its counter',
      'IN;SP1;PU0,0;PD400,0,400,400,0,400,0,0;PU100,100;PD200,100,200,200,100,200,100,100;PU;',
      [['#16181a', 93.8]],
    ],
    ['a circle', 'IN;SP1;PU400,400;CI200;', [['#16181a', 78.5]]],
    ['arcs', 'IN;SP1;PU0,0;PD400,0;AA400,200,180;PD0,400;AA0,200,180;PU;', [['#16181a', 178.5]]],
    ['the edge of a rectangle', 'IN;SP1;PU100,100;EA500,300;ER-40,-40;', [['#16181a', 51]]],
    ['user units', 'IN;SP1;IP0,0,4000,4000;SC0,100,0,100;PU0,0;PD10,0,10,10,0,10,0,0;', [['#16181a', 100]]],
    ['no semicolons, blanks for commas', 'IN SP1PU0 0PD400 0 400 400 0 400 0 0PU', [['#16181a', 100]]],
  ])('%s', (_, text, expected) => expect(areas(text)).toEqual(expected));

  it('has what it does not read told, by its name and how often', () => {
    const { noticed } = read(
      'IN;SP1;PU0,0;PD400,0,400,400,0,400,0,0;LBKl\u00f6sse\u0003;PE<=AB;XT;XT;RO90;ZZ3,4;UC1,2,3;PU;',
    );
    expect(noticed.map((one) => ('name' in one ? `${one.name} ${one.count}` : one.code)).sort()).toEqual([
      'LB 1',
      'PE 1',
      'RO 1',
      'UC 1',
      'XT 2',
      'ZZ 1',
    ]);
    expect(() => read('IN;SP1;PU0,0;PU400,400;')).toThrow(Refusal);
  });

  it('has open lines told, and closed by the remedy', () => {
    const open = 'IN;SP1;PU0,0;PD400,0,400,400,0,400,0,20;PU;';
    expect(read(open).noticed).toMatchObject([{ code: 'open-outline', reachMm: 0.6 }]);
    expect(areaOf(paintRegions(read(open, 0.7), 1).regions[0]!.rings)).toBeCloseTo(100, 0);
  });

  it('is told from other files by its beginning, or its name', () => {
    expect(
      ['IN;SP1;', ' ;;IN;', 'PU0,0;', '\u001b%-1BIN;SP1', 'DF;IN;'].map((text) => isHpgl(bytes(text), 'x.txt')),
    ).toEqual(Array(5).fill(true));
    expect(
      ['<svg', '%PDF-1.4', '0\nSECTION', 'PURPLE', 'INTRODUCTION', 'SPRING 4'].map((text) =>
        isHpgl(bytes(text), 'x.txt'),
      ),
    ).toEqual(Array(6).fill(false));
    expect(isHpgl(bytes('anything'), 'Old sign.PLT')).toBe(true);
  });

  it.each(Array.from({ length: 25 }, (_, seed) => seed))(
    'that was written for a cutter comes back as it was drawn, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const drawn = unite([
        ...Array.from({ length: 4 }, () => disc(20 + 80 * random(), 20 + 60 * random(), 4 + 12 * random(), 60)),
        rectangle(60 * random(), 40 * random(), 30, 20),
      ]);
      const contours = subtract(drawn, [disc(20 + 60 * random(), 20 + 40 * random(), 5, 40)]);
      // No blade to trail, and nothing cut beyond its beginning: as a pen draws it.
      const settings = { forceG: 80, speedMmS: 200, bladeOffsetMm: 0, overcutMm: 0 };
      const program = cutProgram({
        groups: [{ contours, borders: [] }],
        settings,
        motion: { accelerationMmS2: 2000, travelSpeedMmS: 300, liftSeconds: 0.05 },
      });
      const artwork = await new ArtworkReader(resourcesInNode).drawing(
        bytes(writeHpgl({ ...program, settings })),
        'x.plt',
        READ_AS_IT_IS,
      );
      const back = unite(paintRegions(artwork, 1).regions.flatMap(({ rings }) => [...rings]));
      expect(areaOf(back) / areaOf(contours)).toBeCloseTo(1, 2);
      const [a, b] = [boundsOf(contours)!, boundsOf(back)!];
      expect([b.maxX - b.minX, b.maxY - b.minY]).toEqual([
        expect.closeTo(a.maxX - a.minX, 1),
        expect.closeTo(a.maxY - a.minY, 1),
      ]);
    },
  );

  it.each(Array.from({ length: 60 }, (_, seed) => seed))('of any kind is read or refused, seed %i', (seed) => {
    const random = seeded(seed);
    const words = [
      'IN',
      'SP',
      'PU',
      'PD',
      'PA',
      'PR',
      'CI',
      'AA',
      'AR',
      'EA',
      'ER',
      'SC',
      'IP',
      'LB',
      'ZZ',
      ';',
      ',',
      '-',
      '1e9',
      '\n',
      '\u0003',
    ];
    const text = `IN;${Array.from({ length: 200 }, () => (random() < 0.5 ? words[Math.floor(random() * words.length)]! : String(Math.round(2000 * random() - 500)))).join(random() < 0.5 ? ' ' : '')}`;
    try {
      expect(
        paintRegions(read(text), 1).regions.every(({ rings }) => rings.every((ring) => ring.every(Number.isFinite))),
      ).toBe(true);
    } catch (error) {
      expect(error).toBeInstanceOf(Refusal);
    }
  });
});
