import { deflateSync } from 'node:zlib';
import { BENCH_SHOP } from './bench-shop.js';
import { pictureKind } from '../engines/artwork/index.js';
import { drawingPart, picturePart } from '../stations/artwork/index.js';
import { emptyRecipe, patchRecipe } from '../recipe/index.js';
import type { PlanInput } from '../plan/index.js';
import { seeded } from './seeded.js';

const svg = (body: string, attributes = 'viewBox="0 0 100 100"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${attributes}>${body}</svg>`;
const rect = '<rect width="50" height="50"/>';
const many = (n: number, each: (i: number) => string) => Array.from({ length: n }, (_, i) => each(i)).join('');
const dxf = (entities: string) => `0\nSECTION\n2\nENTITIES\n${entities}\n0\nENDSEC\n0\nEOF\n`;

/** Text as one byte to a character. */
const latin = (bytes: Uint8Array) => Array.from(bytes, (byte) => String.fromCharCode(byte)).join('');
const utf16 = (text: string, little: boolean) =>
  [0xfeff, ...Array.from(text, (c) => c.charCodeAt(0))]
    .map((code) =>
      (little ? [code & 255, code >> 8] : [code >> 8, code & 255]).map((b) => String.fromCharCode(b)).join(''),
    )
    .join('');

/** A PNG of one grey, whatever size is asked for: a few bytes to the megapixel. */
function png(width: number, height: number, data = new Uint8Array(height * (width + 1))): string {
  const chunk = (type: string, body: Uint8Array) => {
    const out = Buffer.alloc(12 + body.length);
    out.writeUInt32BE(body.length, 0);
    out.write(type, 4, 'latin1');
    out.set(body, 8);
    out.writeUInt32BE(crc32(out.subarray(4, 8 + body.length)), 8 + body.length);
    return out;
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 0, 0, 0, 0], 8);
  return latin(
    Buffer.concat([
      Buffer.from('\x89PNG\r\n\x1a\n', 'latin1'),
      chunk('IHDR', head),
      chunk('IDAT', deflateSync(data)),
      chunk('IEND', new Uint8Array()),
    ]),
  );
}

function crc32(bytes: Uint8Array): number {
  let crc = ~0;
  for (const byte of bytes) {
    crc ^= byte;
    for (let k = 0; k < 8; k += 1) crc = (crc >>> 1) ^ (crc & 1 ? 0xedb88320 : 0);
  }
  return ~crc >>> 0;
}

const noise = (() => {
  const random = seeded(7);
  return png(
    700,
    700,
    Uint8Array.from({ length: 700 * 701 }, (_, i) => (i % 701 === 0 ? 0 : 255 * random())),
  );
})();

/** Files that are broken, or made to break a reader, as text of one byte to a character: each is to be refused with a sentence, or read with findings. */
export const HOSTILE: readonly (readonly [name: string, content: string])[] = [
  ['nothing', ''],
  ['spaces', '   \n\n  '],
  ['a null byte', '\0'],
  ['a picture', '\x89PNG\r\n\x1a\n\0\0\0\rIHDR'],
  ['a web page', '<!doctype html><html><body><p>Hello<br>there</body></html>'],
  ['JSON', '{"svg": true}'],
  ['half a tag', '<sv'],
  ['half a file', svg(many(500, (i) => `<path d="M${i} 0L9 9z"/>`)).slice(0, 9000)],
  [
    'a billion laughs',
    `<!DOCTYPE svg [<!ENTITY a "ha">${many(20, (i) => `<!ENTITY a${i} "${`&a${i === 0 ? '' : i - 1};`.repeat(10)}">`)}]>${svg('<text>&a19;</text>' + rect)}`,
  ],
  ['an external entity', `<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]>${svg('<text>&x;</text>' + rect)}`],
  [
    'an external style sheet',
    `<?xml-stylesheet href="http://127.0.0.1:9/x.css"?>${svg('<style>@import url(http://127.0.0.1:9/y.css);</style>' + rect)}`,
  ],
  ['a use of another file', svg('<use href="file:///etc/passwd#x"/>' + rect)],
  ['a use of itself', svg('<use id="u" href="#u"/>' + rect)],
  ['uses in a ring', svg('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>' + rect)],
  [
    'uses that double forty times',
    svg(
      `<defs><path id="d0" d="M0 0h1v1z"/>${many(40, (i) => `<g id="d${i + 1}"><use href="#d${i}"/><use href="#d${i}"/></g>`)}</defs><use href="#d40"/>`,
    ),
  ],
  [
    'clips in a ring',
    svg(
      `<clipPath id="a" clip-path="url(#b)">${rect}</clipPath><clipPath id="b" clip-path="url(#a)">${rect}</clipPath><g clip-path="url(#a)">${rect}</g>`,
    ),
  ],
  ['a mask of itself', svg(`<mask id="m" mask="url(#m)">${rect}</mask><g mask="url(#m)">${rect}</g>`)],
  ['a gradient of itself', svg('<linearGradient id="g" href="#g"/><rect width="9" height="9" fill="url(#g)"/>')],
  ['fifty thousand groups in each other', svg('<g>'.repeat(50_000) + rect + '</g>'.repeat(50_000))],
  [
    'seven hundred groups in each other, each turned',
    svg('<g transform="rotate(1)">'.repeat(700) + rect + '</g>'.repeat(700)),
  ],
  ['NaN everywhere', svg('<path d="MNaN NaNLNaN 5z"/><rect x="NaN" width="NaN" height="5"/><circle r="NaN"/>')],
  ['1e300 everywhere', svg('<path d="M1e300 1e300L-1e300 1e300L0 -1e300z"/><rect width="1e300" height="1e300"/>')],
  ['a viewBox of nothing', svg(rect, 'viewBox="0 0 0 0"')],
  ['a viewBox below nothing', svg(rect, 'viewBox="0 0 -5 -5" width="10" height="10"')],
  ['an artboard of a light year', svg(rect, 'width="1e20" height="1e20"')],
  ['an artboard of an atom', svg(rect, 'width="1e-9" height="1e-9" viewBox="0 0 1e-9 1e-9"')],
  [
    'a transform that flattens',
    svg(`<g transform="scale(0)">${rect}</g><g transform="matrix(1 1 1 1 0 0)">${rect}</g>`),
  ],
  ['a transform of 1e200', svg(`<g transform="scale(1e200)">${rect}</g>`)],
  [
    'a stroke a thousand times wider than the drawing',
    svg('<path d="M0 0L50 50L0 50" stroke="red" stroke-width="1e5"/>'),
  ],
  [
    'dashes of nothing',
    svg(
      '<path d="M0 0H90" stroke="red" stroke-dasharray="0 0 0"/><path d="M0 5H90" stroke="red" stroke-dasharray="1e-9"/>',
    ),
  ],
  [
    'an arc of no radius and one of too small',
    svg('<path d="M0 0A0 0 0 0 1 9 9z"/><path d="M0 0A.001 .001 0 0 1 90 90z"/>'),
  ],
  [
    'path data that is none',
    svg('<path d="hello"/><path d="M"/><path d="M0"/><path d="L5 5"/><path d="M0 0 5"/><path d="M0,,0"/>'),
  ],
  [
    'a path of two hundred thousand points',
    svg(
      `<path d="M0 0${many(200_000, (i) => `L${(i * 7919) % 100} ${(i * 104_729) % 100}`.slice(0, i % 50 === 0 ? 20 : 8))}z"/>`.replace(
        /L(\d+)(?=L|z)/g,
        'L$1 1',
      ),
    ),
  ],
  ['ten thousand shapes on one spot', svg(many(10_000, () => '<path d="M0 0h9v9z"/>'))],
  ['a selector that is none', svg('<style>{{{ .a >>> b {fill:red} #$% </style>' + rect)],
  [
    'five thousand style rules',
    svg(
      `<style>${many(5000, (i) => `.c${i}{fill:red}`)}</style>${many(300, (i) => `<rect class="c${i}" width="5" height="5"/>`)}`,
    ),
  ],
  ['a colour of a megabyte', svg(`<rect width="9" height="9" fill="${'#'.repeat(1_000_000)}"/>`)],
  ['an attribute twice', svg('<rect width="5" width="6" height="5"/>')],
  ['a script', svg(`<script>while(true){}</script><rect onload="alert(1)" width="9" height="9"/>`)],
  ['another name space', '<svg viewBox="0 0 9 9"><rect width="9" height="9"/></svg>'],
  [
    'a path of a million points',
    svg(`<path d="M0 50${many(1_000_000, (i) => `L${(i / 10_000).toFixed(4)} ${50 + (i % 2)}`)}z"/>`),
  ],
  ['UTF-16, little end first', utf16(svg(rect), true)],
  ['UTF-16, big end first', utf16(svg(rect), false)],
  ['bytes that are no UTF-8', svg(`<rect id="\xff\xfe\xc0" width="9" height="9"/>`)],
  [
    'text of a million letters',
    svg(`<text font-family="Zilla Slab" font-size="1">${'words '.repeat(180_000)}</text>${rect}`),
  ],
  [
    'spans a few hundred deep',
    svg(`<text font-family="Zilla Slab">${'<tspan dx="1">a'.repeat(300)}${'</tspan>'.repeat(300)}</text>${rect}`),
  ],
  [
    'letters a kilometre high, and none',
    svg(
      `<text font-family="Zilla Slab" font-size="1e9">A</text><text font-family="Zilla Slab" font-size="-4">A</text><text font-family="Zilla Slab" font-size="NaN">A</text>${rect}`,
    ),
  ],
  [
    'a gradient of fifty thousand stops',
    svg(
      `<linearGradient id="g">${many(50_000, (i) => `<stop offset="${i % 7}" stop-color="#${(i % 999).toString().padStart(3, '0')}"/>`)}</linearGradient><rect width="9" height="9" fill="url(#g)"/>`,
    ),
  ],
  [
    'a pattern of itself',
    svg(
      '<pattern id="p" width="9" height="9"><rect width="9" height="9" fill="url(#p)"/></pattern><rect width="90" height="90" fill="url(#p)"/>',
    ),
  ],
  [
    'an embedded picture that is none',
    svg(`<image width="9" height="9" href="data:image/png;base64,${'A'.repeat(100_000)}"/>${rect}`),
  ],
  [
    'an embedded picture of a gigapixel',
    svg(
      `<image width="9" height="9" href="data:image/png;base64,${Buffer.from(png(8, 8).slice(0, 16) + '\0\0\x7f\xff\0\0\x7f\xff' + png(8, 8).slice(24), 'latin1').toString('base64')}"/>${rect}`,
    ),
  ],
  ['a picture of noise', noise],
  ['a picture of one grey, 36 megapixels', png(6000, 6000)],
  ['a picture of a hundred megapixels', png(8, 8).slice(0, 16) + '\0\0\x27\x10\0\0\x27\x10' + png(8, 8).slice(24)],
  ['a picture that ends in the middle', noise.slice(0, 90_000)],
  ['a picture with a wrong sum', png(64, 64).replace('IDAT', 'IDAX')],
  ['a JPEG of its first bytes', '\xff\xd8\xff\xe0\0\x10JFIF\0'],
  ['a WebP that promises too much', 'RIFF\xff\xff\xff\xffWEBPVP8X\x0a\0\0\0\0\0\0\0\xff\xff\xff\xff\xff\xff'],
  ['DXF without sections', '0\nEOF\n'],
  ['DXF cut off', dxf('0\nCIRCLE\n8\n0\n10\n0\n20\n0\n40\n5').slice(0, 40)],
  ['DXF with text for numbers', dxf('0\nCIRCLE\n8\n0\n10\nabc\n20\n-\n40\n5')],
  [
    'DXF that inserts without end',
    `0\nSECTION\n2\nBLOCKS\n${many(8, (i) => `0\nBLOCK\n2\nB${i + 1}\n10\n0\n20\n0\n${`0\nINSERT\n2\nB${i}\n70\n100\n71\n100\n44\n1\n45\n1\n`}0\nENDBLK\n`)}0\nBLOCK\n2\nB0\n10\n0\n20\n0\n0\nCIRCLE\n10\n0\n20\n0\n40\n1\n0\nENDBLK\n0\nENDSEC\n${dxf('0\nINSERT\n2\nB8')}`,
  ],
  [
    'DXF with a spline of wrong knots',
    dxf('0\nSPLINE\n70\n1\n71\n99\n40\n5\n40\n1\n10\n0\n20\n0\n10\n9\n20\n9\n10\n0\n20\n9'),
  ],
  ['DXF with a hatch that promises too much', dxf('0\nHATCH\n91\n999999999\n92\n1\n93\n999999999\n72\n1\n10\n0')],
];

/** One of them as the only artwork of a job that takes every remedy of reading. */
export function hostileInput([name, content]: (typeof HOSTILE)[number]): PlanInput {
  const bytes = Uint8Array.from(content, (c) => c.charCodeAt(0) & 0xff);
  const source = { id: 'a', fileName: name.startsWith('DXF') ? 'a.dxf' : 'a.svg', sha256: '0'.repeat(64) };
  const recipe = patchRecipe(emptyRecipe('Hostile'), {
    artworks: [pictureKind(bytes) ? picturePart(source) : drawingPart(source)],
    repair: { pictures: 'trace', patterns: 'flat', gradientBands: 3 },
  });
  return { recipe, shop: BENCH_SHOP, sources: new Map([['a', bytes]]) };
}
