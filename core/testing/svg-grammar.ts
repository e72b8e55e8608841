import { seeded } from './seeded.js';

/** Colours far apart, so that a wrong one shows. */
const COLOURS = ['#b3262b', '#1d4e89', '#f2b632', '#1f6b45', '#16181a'];

/**
 * A small drawing made up by a grammar: shapes in all units, strokes with dashes, caps and joins, nested groups and viewports with transforms,
 * clips, repeats and words, 200 × 120 mm. The same seed gives the same drawing.
 *
 * Left out is what the renderer that judges them does otherwise than the specification says: the unit Q; the box of a curve or of words, which it
 * takes from control points and not from what is drawn; spans that are moved in text that is anchored at its middle or end; kerning across spans there.
 */
export function randomSvg(seed: number, fontFamily: string): string {
  const random = seeded(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const chance = (share: number) => random() < share;
  const figure = (from: number, to: number) => Number((from + (to - from) * random()).toFixed(2));
  const defs: string[] = [];
  let ids = 0;
  const define = (element: (id: string) => string): string => {
    const id = `d${(ids += 1)}`;
    defs.push(element(id));
    return id;
  };
  // A length of so many user units, written in one of the units there are.
  const length = (px: number) => {
    const unit = pick(['', '', '', 'px', 'mm', 'pt', 'in', 'pc']);
    const per = { '': 1, px: 1, mm: 96 / 25.4, pt: 96 / 72, in: 96, pc: 16 }[unit as 'px'];
    return `${Number((px / per).toFixed(4))}${unit}`;
  };
  const transform = () => {
    const steps = Array.from({ length: 1 + Math.floor(2 * random()) }, () =>
      pick([
        () => `translate(${figure(-30, 30)} ${figure(-20, 20)})`,
        () => `rotate(${figure(-180, 180)})`,
        () => `rotate(${figure(-180, 180)} ${figure(50, 150)},${figure(30, 90)})`,
        () => `scale(${figure(0.6, 1.4)})`,
        () => `scale(${figure(0.6, 1.4)},${figure(0.6, 1.4)})`,
        () => `skewX(${figure(-25, 25)})`,
        () =>
          `matrix(${figure(0.8, 1.2)} ${figure(-0.3, 0.3)} ${figure(-0.3, 0.3)} ${figure(0.8, 1.2)} ${figure(-10, 10)} ${figure(-10, 10)})`,
      ])(),
    );
    return steps.join(' ');
  };
  const clip = (hasPlainBox: boolean): string => {
    const units = hasPlainBox && chance(0.5);
    const id = define((name) =>
      units
        ? `<clipPath id="${name}" clipPathUnits="objectBoundingBox"><circle cx=".5" cy=".5" r="${figure(0.3, 0.6)}"/></clipPath>`
        : `<clipPath id="${name}"${chance(0.3) ? ` transform="${transform()}"` : ''}>${shape(false)}${chance(0.4) ? shape(false) : ''}</clipPath>`,
    );
    return ` clip-path="url(#${id})"`;
  };
  const paint = (isWord: boolean): string => {
    const [filled, stroked] = pick([
      [true, false],
      [true, true],
      [false, true],
    ] as const);
    const dashes =
      !isWord && chance(0.4)
        ? ` stroke-dasharray="${figure(3, 20)} ${length(figure(3, 15))}"${chance(0.5) ? ` stroke-dashoffset="${figure(-20, 20)}"` : ''}`
        : '';
    const stroke = `stroke="${pick(COLOURS)}" stroke-width="${length(figure(1, 8))}" stroke-linejoin="${pick(['round', 'bevel', 'miter'])}" stroke-linecap="${pick(['butt', 'round', 'square'])}"${dashes}`;
    return `fill="${filled ? pick(COLOURS) : 'none'}"${chance(0.2) ? ' fill-rule="evenodd"' : ''}${stroked ? ` ${stroke}` : ''}${chance(0.1) ? ' paint-order="stroke"' : ''}`;
  };
  const corners = (count: number) =>
    Array.from({ length: count }, () => `${figure(0, 200)},${figure(0, 120)}`).join(' ');
  /** Dashes round off what a curve's own turns would be mitred to. */
  const smooth = (text: string) => (text.includes('dasharray') ? rounded(text) : text);
  const rounded = (text: string) =>
    text
      .replace('stroke-linejoin="miter"', 'stroke-linejoin="round"')
      .replace('stroke-linejoin="bevel"', 'stroke-linejoin="round"');
  const shape = (isPainted: boolean): string => {
    const own = isPainted
      ? ` ${paint(false)}${chance(0.3) ? ` transform="${transform()}"` : ''}${chance(0.15) ? clip(false) : ''}`
      : '';
    const boxed = () => (isPainted && chance(0.1) && !own.includes('clip-path') ? clip(true) : '');
    return pick([
      () =>
        `<rect x="${length(figure(0, 150))}" y="${length(figure(0, 90))}" width="${length(figure(10, 80))}" height="${length(figure(10, 60))}"${chance(0.4) ? ` rx="${figure(1, 15)}"` : ''}${own}${boxed()}/>`,
      () => `<circle cx="${figure(20, 180)}" cy="${figure(20, 100)}" r="${length(figure(5, 35))}"${own}/>`,
      () => `<ellipse cx="50%" cy="${figure(20, 100)}" rx="${figure(10, 60)}" ry="${figure(5, 30)}"${own}/>`,
      () => `<polygon points="${corners(3 + Math.floor(3 * random()))}"${smooth(own)}/>`,
      () => `<polyline points="${corners(4)}"${smooth(own)}/>`,
      () =>
        `<path d="M${figure(20, 180)} ${figure(20, 100)}c${figure(-40, 40)} ${figure(-40, 40)} ${figure(-40, 40)} ${figure(-40, 40)} ${figure(-60, 60)} ${figure(-40, 40)}s${figure(-30, 30)} ${figure(-30, 30)} ${figure(-40, 40)} ${figure(-30, 30)}${chance(0.5) ? 'z' : ''}"${smooth(own)}/>`,
      () =>
        `<path d="M${figure(20, 180)} ${figure(20, 100)}a${figure(10, 40)} ${figure(10, 30)} ${figure(0, 90)} ${pick(['0', '1'])}${pick([' 0', ' 1'])} ${figure(-40, 40)} ${figure(5, 40)}h${figure(-40, 40)}v${figure(-40, 40)}z"${smooth(own)}/>`,
      () =>
        `<path d="M${figure(20, 180)} ${figure(20, 100)}q${figure(-40, 40)} ${figure(-40, 40)} ${figure(-60, 60)} ${figure(-30, 30)}t${figure(-40, 40)} ${figure(-30, 30)}z"${smooth(own)}/>`,
    ])();
  };
  const words = () =>
    `<text x="${length(figure(5, 100))}" y="${length(figure(30, 110))}" font-family="${fontFamily}" font-size="${length(figure(20, 50))}" ${rounded(paint(true))} ${pick([() => `text-anchor="${pick(['start', 'middle', 'end'])}">${pick(['Quay', '12', '\n   Hull\n'])}`, () => `>${pick(['A<tspan dx="4" dy="-.3em">B</tspan>C', 'I <tspan fill="#b3262b">V</tspan> X'])}`])()}</text>`;
  const element = (depth: number): string => {
    if (depth > 0 && chance(0.3))
      return `<g${chance(0.6) ? ` transform="${transform()}"` : ''}${chance(0.2) ? clip(false) : ''}>${elements(depth - 1)}</g>`;
    if (depth > 0 && chance(0.1))
      return `<svg x="${figure(0, 60)}" y="${figure(0, 40)}" width="${figure(60, 140)}" height="${figure(40, 80)}" viewBox="0 0 200 120" preserveAspectRatio="${pick(['xMidYMid meet', 'none', 'xMinYMax slice'])}">${elements(depth - 1)}</svg>`;
    if (chance(0.1))
      return `<use href="#${define((id) => shape(true).replace(/^<(\w+)/, `<$1 id="${id}"`))}" x="${figure(-40, 40)}" y="${figure(-30, 30)}"/>`;
    return chance(0.12) ? words() : shape(true);
  };
  const elements = (depth: number): string =>
    Array.from({ length: 1 + Math.floor(3 * random()) }, () => element(depth)).join('');
  const body = elements(3);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="120mm" viewBox="0 0 200 120"><defs>${defs.join('')}</defs>${body}</svg>`;
}
