import { describe, expect, it } from 'vitest';
import { areaOf, boundsOf, rotation, scaling } from '../../geometry/index.js';
import { EVERYWHERE } from '../../words/index.js';
import type { Recipe } from '../../recipe/index.js';
import { NO_REPAIR } from '../../stations/artwork/index.js';
import { paintPlaced, readSvg } from './index.js';
import { withFindings } from '../../testing/with-findings.js';

const artwork = (body: string) =>
  readSvg(
    new TextEncoder().encode(
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 100" width="100mm" height="100mm">${body}</svg>`,
    ),
    'test.svg',
  );
const paint = (body: string, repair: Partial<Recipe['repair']> = {}, matrix = scaling(1)) =>
  withFindings(
    paintPlaced(artwork(body), { matrix, toleranceMm: 0.01, repair: { ...NO_REPAIR, ...repair }, rules: EVERYWHERE }),
  );
const found = (body: string, repair: Partial<Recipe['repair']> = {}) => paint(body, repair).findings.map((f) => f.code);
const remedied = (body: string, which: number) => {
  const { patch } = paint(body).findings[0]!.remedies![which]!;
  return paint(body, patch.repair as Partial<Recipe['repair']>);
};

describe('hairline strokes', () => {
  const line = '<rect x="20" y="20" width="40" height="30" fill="none" stroke="#000" stroke-width="0.1"/>';
  it('are found at the size they are made, with their places', () => {
    const [finding] = paint(line).findings;
    expect(finding).toMatchObject({
      code: 'hairlines',
      count: 1,
      where: expect.objectContaining({ minX: expect.closeTo(20, 6), maxY: expect.closeTo(50, 6) }),
    });
    expect(paint(line, {}, scaling(4)).findings).toEqual([]);
  });
  it('are filled, or left out', () => {
    const [filled, left] = [remedied(line, 0), remedied(line, 1)];
    expect(filled.regions.map((r) => areaOf(r.rings))).toEqual([expect.closeTo(1200, 6)]);
    expect([filled.findings, left.regions, left.findings]).toEqual([[], [], []]);
  });
  it('of several strokes close together, whichever way each runs, and a hole in them stays', () => {
    const stroke = (d: string) => `<path d="${d}" fill="none" stroke="#000" stroke-width="0.1"/>`;
    const { regions, findings } = paint(
      [
        stroke('M10 10H50'),
        stroke('M50 40V10'),
        stroke('M10 10V40'),
        stroke('M10 40H50.05'),
        stroke('M20 20h10v10'),
        stroke('M20 20v10h10'),
      ].join(''),
      { hairlines: 'fill' },
    );
    expect(findings).toEqual([]);
    expect(regions.map((r) => areaOf(r.rings))).toEqual([expect.closeTo(1100, 0)]);
  });
  it('that do not close are filled up to a straight line, and said to be open with what would join them', () => {
    const gapped =
      '<path d="M10 10H50V40H11" fill="none" stroke="#000" stroke-width="0.1"/><path d="M10 10V39" fill="none" stroke="#000" stroke-width="0.1"/>';
    const [open] = paint(gapped, { hairlines: 'fill' }).findings;
    expect(open).toMatchObject({ code: 'open-outline', count: 1 });
    const { joinEndsMm } = open!.remedies![0]!.patch.repair!;
    expect(joinEndsMm).toBeCloseTo(1.5, 6);
    expect(paint(gapped, { hairlines: 'fill', joinEndsMm: joinEndsMm! }).findings).toEqual([]);
  });
  it('round a fill only go', () =>
    expect(remedied(line.replace('none', '#b3262b'), 0).regions.map((r) => r.colour)).toEqual(['#b3262b']));
});

describe('outlines that cross themselves', () => {
  const star = '<path fill-rule="evenodd" d="M50 5L79 95 3 39H97L21 95z"/>';
  it('are found where they cross', () =>
    expect(paint(star).findings[0]).toMatchObject({ code: 'self-crossing', count: expect.any(Number) }));
  it('are filled whole when that is wanted', () => {
    const { regions, findings } = remedied(star, 0);
    expect(findings).toEqual([]);
    expect(areaOf(regions[0]!.rings)).toBeGreaterThan(areaOf(paint(star).regions[0]!.rings) * 1.2);
  });
  it.each([
    ['a plain shape', '<path d="M10 10h50v50H10z"/>'],
    ['a hole', '<path fill-rule="evenodd" d="M10 10h50v50H10zM20 20h10v10H20z"/>'],
    ['curves', '<circle cx="50" cy="50" r="37.3"/><path d="M10 50C10 10 90 10 90 50S10 90 10 50z"/>'],
    ['two shapes that overlap', '<rect width="30" height="30"/><rect x="20" y="20" width="30" height="30"/>'],
  ])('are not seen in %s', (_, body) => expect(found(body)).toEqual([]));
});

describe('a part that is turned', () => {
  it('is cut off at its own frame, turned with it', () => {
    const { regions, findings } = paint('<rect x="-50" y="40" width="200" height="20"/>', {}, rotation(30));
    expect(areaOf(regions[0]!.rings)).toBeCloseTo(2000, 4);
    expect(findings.map((f) => f.code)).toEqual(['outside-frame']);
  });
  it('is taken whole when that is wanted, and the remedy ends the warning', () => {
    const body = '<rect x="-50" y="40" width="200" height="20"/>';
    const [finding] = paint(body, {}, rotation(30)).findings;
    expect(finding!.severity).toBe('warning');
    const { regions, findings } = paint(body, finding!.remedies![0]!.patch.repair as object, rotation(30));
    expect(areaOf(regions[0]!.rings)).toBeCloseTo(4000, 4);
    expect(findings).toEqual([]);
  });
  it('keeps outer outlines outer when it is mirrored', () => {
    const { regions } = paint('<path fill-rule="evenodd" d="M0 0h90v40H0zM10 10h20v20H10z"/>', {}, scaling(-1, 1));
    expect(areaOf(regions[0]!.rings)).toBeCloseTo(3200, 6);
    expect(boundsOf(regions[0]!.rings)).toMatchObject({ minX: expect.closeTo(-90, 6), maxX: expect.closeTo(0, 6) });
  });
});
