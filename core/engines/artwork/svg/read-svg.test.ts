import { describe, expect, it } from 'vitest';
import { areaOf, boundsOf } from '../../../geometry/index.js';
import { pictureDifference } from '../../../testing/picture-difference.js';
import { paintRegions, readSvg, Refusal } from '../index.js';
import { withFindings } from '../../../testing/with-findings.js';

const bytes = (text: string) => new TextEncoder().encode(text);
const svg = (body: string, attributes = 'viewBox="0 0 100 100" width="100mm" height="100mm"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${attributes}>${body}</svg>`;
const read = (body: string, attributes?: string) => withFindings(readSvg(bytes(svg(body, attributes)), 'test.svg'));
const regions = (body: string, attributes?: string) => paintRegions(read(body, attributes), 1).regions;
const codes = (body: string) => read(body).findings.map((finding) => finding.code);

function refusal(text: string | Uint8Array): Refusal {
  try {
    readSvg(typeof text === 'string' ? bytes(text) : text, 'bad.svg');
  } catch (error) {
    if (error instanceof Refusal) return error;
    throw error;
  }
  throw new Error('It was read.');
}

describe('sizes', () => {
  it.each([
    ['width="10mm" height="20mm"', 10, 20],
    ['width="1cm" height="1in"', 10, 25.4],
    ['width="96" height="96px"', 25.4, 25.4],
    ['width="72pt" height="6pc"', 25.4, 25.4],
    ['viewBox="0 0 96 48"', 25.4, 12.7],
    ['viewBox="0 0 100 50" width="200mm"', 200, 100],
    ['viewBox="0 0 100 50" height="100mm"', 200, 100],
  ])('%s', (attributes, width, height) => {
    const { widthMm, heightMm } = read('', attributes);
    expect([widthMm, heightMm]).toEqual([expect.closeTo(width, 6), expect.closeTo(height, 6)]);
  });

  it('fit the viewBox as its aspect asks', () => {
    const box = (aspect: string) =>
      boundsOf(
        regions(
          '<rect width="10" height="10"/>',
          `viewBox="0 0 10 10" width="40mm" height="20mm" preserveAspectRatio="${aspect}"`,
        )[0]!.rings,
      )!;
    expect(box('xMidYMid')).toMatchObject({ minX: expect.closeTo(10, 6), maxX: expect.closeTo(30, 6) });
    expect(box('xMinYMid')).toMatchObject({ minX: 0, maxX: expect.closeTo(20, 6) });
    expect(box('none')).toMatchObject({ minX: 0, maxX: expect.closeTo(40, 6) });
  });
});

describe('shapes', () => {
  it.each([
    ['<rect x="10" y="10" width="30" height="20"/>', 600],
    ['<rect x="10" y="10" width="30" height="20" rx="5"/>', 600 - (4 - Math.PI) * 25],
    ['<circle cx="50" cy="50" r="20"/>', Math.PI * 400],
    ['<ellipse cx="50" cy="50" rx="20" ry="10"/>', Math.PI * 200],
    ['<polygon points="0,0 40,0 0,40"/>', 800],
    ['<polyline points="0,0 40,0 0,40"/>', 800],
    ['<path d="M0 0h40v40H0z"/>', 1600],
    ['<path d="M0 0h40v40h-40zm10 10v20h20v-20z"/>', 1200],
    ['<path d="M10 50A20 20 0 0 1 50 50z"/>', Math.PI * 200],
    ['<path fill-rule="evenodd" d="M0 0h40v40H0zM10 10h20v20H10z"/>', 1200],
    ['<path d="M0 0h40v40H0zM10 10h20v20H10z"/>', 1600],
    ['<line x1="0" y1="50" x2="100" y2="50" stroke="#000" stroke-width="4"/>', 400],
    ['<path d="M0 50H100" fill="none" stroke="#000" stroke-width="4" stroke-dasharray="10 10"/>', 200],
    [
      '<g transform="translate(10 10) scale(2)"><g transform="rotate(90)"><rect y="-10" width="10" height="10"/></g></g>',
      400,
    ],
    ['<defs><rect id="a" width="10" height="10"/></defs><use href="#a" x="20"/><use xlink:href="#a" x="50"/>', 200],
    [
      '<defs><symbol id="s" viewBox="0 0 10 10"><rect width="10" height="10"/></symbol></defs><use href="#s" width="20" height="20"/>',
      400,
    ],
    ['<svg x="10" y="10" width="20" height="20" viewBox="0 0 2 2"><rect width="9" height="9"/></svg>', 400],
    [
      '<clipPath id="c"><rect width="10" height="10"/></clipPath><rect width="50" height="50" clip-path="url(#c)"/>',
      100,
    ],
    [
      '<clipPath id="c" clipPathUnits="objectBoundingBox"><rect width=".5" height=".2"/></clipPath><rect x="10" y="10" width="50" height="50" clip-path="url(#c)"/>',
      250,
    ],
    [
      '<clipPath id="c" clipPathUnits="objectBoundingBox"><rect width=".5" height="1"/></clipPath><g clip-path="url(#c)"><rect width="20" height="10"/><rect x="5" transform="translate(25 0)" width="10" height="10"/></g>',
      200,
    ],
    [
      '<mask id="m"><rect width="10" height="10" fill="#fff"/></mask><g mask="url(#m)"><rect width="50" height="50"/></g>',
      100,
    ],
    ['<switch><rect requiredExtensions="x" width="50" height="50"/><rect width="10" height="10"/></switch>', 100],
  ])('%s', (body, area) => {
    expect(regions(body).reduce((sum, region) => sum + areaOf(region.rings), 0)).toBeCloseTo(
      area,
      -Math.log10(area * 0.002),
    );
  });

  it.each([
    [
      'an arrow at the end of a line',
      '<marker id="m" viewBox="0 0 10 10" refX="5" refY="5" markerWidth="6" markerHeight="6" orient="auto"><path d="M0 0L10 5L0 10z"/></marker><path d="M20 80L80 30" stroke="#136" stroke-width="3" fill="none" marker-end="url(#m)"/>',
    ],
    [
      'dots on every corner',
      '<marker id="m" refX="2" refY="2" markerWidth="4" markerHeight="4"><circle cx="2" cy="2" r="2" fill="#c33"/></marker><polyline points="10,20 40,70 60,20 90,80" fill="none" stroke="#136" stroke-width="2" marker-start="url(#m)" marker-mid="url(#m)" marker-end="url(#m)"/>',
    ],
    [
      'arrows on curves, at either end',
      '<marker id="m" markerWidth="8" markerHeight="8" refX="4" refY="4" orient="auto" markerUnits="userSpaceOnUse"><path d="M0 0L8 4L0 8z" fill="#c33"/></marker><path d="M20 20C60 20 60 80 85 80" fill="none" stroke="#136" stroke-width="2" marker-start="url(#m)" marker-end="url(#m)"/>',
    ],
    [
      'corners of a closed shape',
      '<marker id="m" viewBox="0 0 4 4" refX="2" refY="2" orient="auto" overflow="visible"><path d="M0 0h6v4H0z" fill="#c33"/></marker><path d="M20 20H80V80z" fill="#eee" stroke="#136" marker-mid="url(#m)"/>',
    ],
  ])('draw markers as a renderer does: %s', (_, body) => {
    const paths = regions(body).map(
      (r) =>
        `<path fill="${r.colour}" fill-rule="evenodd" d="${r.rings.map((ring) => 'M' + [...ring].join(' ') + 'Z').join('')}"/>`,
    );
    expect(paths.length).toBeGreaterThan(1);
    expect(pictureDifference(svg(body), svg(paths.join('')))).toBeLessThan(0.0005);
  });

  it('turn a marker round at the start where it asks for that, and along the closing stretch where the path is closed', () => {
    const head = (orient: string) =>
      `<marker id="m" markerWidth="9" markerHeight="9" refX="0" refY="2" orient="${orient}" markerUnits="userSpaceOnUse"><path d="M0 0L6 2L0 4z" fill="#c33"/></marker>`;
    const box = (body: string) => boundsOf(regions(body).find((r) => r.colour === '#cc3333')!.rings)!;
    expect(
      box(`${head('auto-start-reverse')}<path d="M20 20H80" stroke="#136" marker-start="url(#m)"/>`),
    ).toMatchObject({ minX: expect.closeTo(14, 6), maxX: expect.closeTo(20, 6) });
    // Out to the right, in from the right below: half-way is straight up.
    const closed = box(`${head('auto')}<path d="M20 50L50 20V80z" stroke="#136" marker-start="url(#m)"/>`);
    expect([closed.minY, closed.maxY]).toEqual([expect.closeTo(44, 6), expect.closeTo(50, 6)]);
  });

  it('turn strokes into area under any transform', () => {
    const body =
      '<g transform="rotate(20 50 50) scale(1.5 .5)"><path d="M20 40C30 80 50 80 50 60" fill="none" stroke="#136" stroke-width="8" stroke-linejoin="round" stroke-linecap="square"/></g>';
    const artwork = read(body);
    const paths = paintRegions(artwork, 1).regions.map(
      (r) => `<path fill="${r.colour}" d="${r.rings.map((ring) => 'M' + [...ring].join(' ') + 'Z').join('')}"/>`,
    );
    expect(pictureDifference(svg(body), svg(paths.join('')))).toBeLessThan(0.0005);
  });
});

describe('colours', () => {
  const colourOf = (body: string) => read(body).paints.map((paint) => paint.colour);
  it.each([
    ['<rect width="1" height="1"/>', '#000000'],
    ['<rect width="1" height="1" fill="tomato"/>', '#ff6347'],
    ['<rect width="1" height="1" fill="#abc"/>', '#aabbcc'],
    ['<rect width="1" height="1" fill="rgb(10%, 20%, 30%)"/>', '#1a334d'],
    ['<rect width="1" height="1" fill="hsl(120 100% 25%)"/>', '#008000'],
    ['<rect width="1" height="1" fill="red" style="fill: blue"/>', '#0000ff'],
    ['<style>.a{fill:lime}</style><rect class="a" width="1" height="1" fill="red"/>', '#00ff00'],
    ['<style>.a{fill:lime!important}</style><rect class="a" width="1" height="1" style="fill:red"/>', '#00ff00'],
    ['<style>rect{fill:lime}#b{fill:navy}.a{fill:red}</style><rect id="b" class="a" width="1" height="1"/>', '#000080'],
    ['<g fill="red"><g fill="inherit"><rect width="1" height="1"/></g></g>', '#ff0000'],
    ['<g color="#123456"><rect width="1" height="1" fill="currentColor"/></g>', '#123456'],
  ])('%s', (body, colour) => expect(colourOf(body)).toEqual([colour]));

  it('resolve opacity to the solid colour seen over white, and say so', () => {
    expect(colourOf('<rect width="1" height="1" fill="#000" opacity=".5"/>')).toEqual(['#808080']);
    expect(codes('<rect width="1" height="1" fill-opacity="50%"/>')).toEqual(['opacity-flattened']);
  });

  it('paint nothing for none, hidden, or fully clear', () => {
    expect(
      colourOf(
        '<rect width="1" height="1" fill="none"/><rect width="1" height="1" display="none"/><rect width="1" height="1" visibility="hidden"/><rect width="1" height="1" opacity="0"/>',
      ),
    ).toEqual([]);
  });
});

describe('findings', () => {
  it.each([
    ['<text>Hello</text>', 'font-missing'],
    ['<image href="a.png"/>', 'picture-left'],
    [
      '<rect width="9" height="9" fill="url(#g)"/><linearGradient id="g"><stop stop-color="red"/></linearGradient>',
      'gradient-flattened',
    ],
    ['<rect width="9" height="9" fill="url(#p)"/><pattern id="p"/>', 'pattern-left'],
    ['<rect width="9" height="9" mask="url(#m)"/>', 'mask-ignored'],
    [
      '<mask id="m"><rect width="9" height="9" fill="#888"/></mask><rect width="9" height="9" mask="url(#m)"/>',
      'mask-ignored',
    ],
    ['<use href="#nowhere"/>', 'use-ignored'],
    ['<g id="a"><use href="#a"/></g>', 'use-cycle'],
    ['<path d="M0 0L10 10 Q"/>', 'shape-cut-short'],
    ['<blink/>', 'element-ignored'],
    ['<script>alert(1)</script>', 'script-ignored'],
    ['<rect width="9" height="9" fill="bananas"/>', 'colour-unknown'],
  ])('%s', (body, code) => expect(codes(body)).toEqual([code]));

  it('name the element and its line', () => {
    expect(read('\n\n<text id="motto">Hello</text>').findings[0]!.message).toContain('<text id="motto"> in line 3');
  });

  it('say that what lies outside the artboard is not cut, and where', () => {
    const { findings, regions: inside } = withFindings(
      paintRegions(read('<rect x="90" y="40" width="30" height="10"/>'), 1),
    );
    expect(findings).toMatchObject([{ code: 'outside-frame', where: { minX: 90, maxX: 120 } }]);
    expect(areaOf(inside[0]!.rings)).toBeCloseTo(100, 6);
  });
});

describe('what cannot be read is refused with a reason', () => {
  it.each([
    ['', 'not-xml'],
    ['hello', 'not-xml'],
    ['<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1 1"><g></svg>', 'not-xml'],
    ['<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1 1">', 'not-xml'],
    ['<html/>', 'not-svg'],
    [svg('', 'width="0" height="10"'), 'no-size'],
    [svg('', 'viewBox="0 0 NaN 1e300"'), 'no-size'],
    [svg('<g>'.repeat(50_000) + '</g>'.repeat(50_000)), 'too-deep'],
  ])('%.60s', (text, code) => {
    const error = refusal(text);
    expect(error.code).toBe(code);
  });

  it.each([
    ['<constructor/>', ['element-ignored']],
    ['<rect width="9" height="9" constructor="x" toString="y" __proto__="z"/>', []],
    ['<text font-family="constructor">A</text>', ['font-missing']],
    [
      '<style>toString { fill: red } * { constructor: x; __proto__: y }</style><rect width="9" height="9" style="valueOf: 3"/>',
      [],
    ],
    ['<rect width="9constructor" height="toString"/>', []],
    ['<text font-size="constructor" font-weight="valueOf">A</text>', ['font-missing']],
    ['<linearGradient id="constructor"/><rect width="9" height="9" fill="url(#toString)"/>', ['colour-unknown']],
  ])('takes names that every object has for plain names: %s', (body, found) => expect(codes(body)).toEqual(found));

  it('follows no entity and runs nothing', () => {
    const bomb = `<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;"><!ENTITY x SYSTEM "file:///etc/passwd">]>${svg('<text>&b;&x;</text><rect width="9" height="9"/>')}`;
    const artwork = readSvg(bytes(bomb), 'bomb.svg');
    expect(artwork.paints).toHaveLength(1);
    expect(artwork.noticed.map((f) => f.code)).toContain('entity-ignored');
  });

  it('ends a drawing that repeats itself without end', () => {
    const levels = Array.from(
      { length: 12 },
      (_, i) => `<g id="l${i + 1}">${`<use href="#l${i}"/>`.repeat(10)}</g>`,
    ).join('');
    expect(refusal(svg(`<defs><rect id="l0" width="1" height="1"/>${levels}</defs><use href="#l12"/>`)).code).toBe(
      'too-many-shapes',
    );
  });

  it('reads UTF-16', () => {
    const text = '\ufeff' + svg('<rect width="9" height="9"/>');
    expect(
      readSvg(new Uint8Array(Uint16Array.from(text, (c) => c.charCodeAt(0)).buffer), 'utf16.svg').paints,
    ).toHaveLength(1);
  });
});
