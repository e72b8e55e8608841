import type { Noticed, NoticedCode, NoticedOf } from '../../engines/artwork/index.js';
import { atPlaces, type Finding, type Remedy } from '../../words/index.js';
import type { ArtworkPatch } from './decisions.js';
import type { Repair } from './repair.js';
import { sayColour } from './say-colour.js';

/** What is said of something noticed. A warning unless it says otherwise. */
interface Said {
  readonly message: string;
  readonly severity?: Finding['severity'];
  readonly remedies?: readonly Remedy<ArtworkPatch>[];
  /** When the finding goes by another code than what was noticed. */
  readonly code?: string;
}

/** A long name from a file, as much of it as is read. */
const short = (name: string) => name.slice(0, 60);

/** What a DXF entity that is not cut is told as; others are named by their type. */
const DXF_ENTITIES: ReadonlyMap<string, string> = new Map([
  ['TEXT', 'Text is not cut. Turn it into curves in the program that drew it, and save the file again.'],
  ['MTEXT', 'Text is not cut. Turn it into curves in the program that drew it, and save the file again.'],
  ['WIDTH', 'Some lines grow wider on their way. A blade cuts them as plain lines without width.'],
  ['DIMENSION', 'Dimensions are not cut. They were left out.'],
  ['IMAGE', 'An embedded picture has no outlines to cut. It was left out.'],
]);

const SAY: { readonly [Code in NoticedCode]: (noticed: NoticedOf<Code>, repair: Pick<Repair, 'fonts'>) => Said } = {
  'arc-too-tight': () => ({
    message:
      'The words are longer than their circle, so they run into themselves. Take a larger radius or a smaller height.',
  }),
  'blend-ignored': ({ element }) => ({
    message: `${element} is blended with what lies below it. Film cannot be blended, so its own colour is used.`,
  }),
  'blur-left': ({ element }) => ({
    severity: 'note',
    message: `${element} is blurred, and was left out.`,
    remedies: [{ label: 'Cut what is blurred with sharp edges', patch: { repair: { blurs: 'keep' } } }],
  }),
  blurred: ({ element }) => ({
    message: `${element} is blurred. A blade cuts sharp edges, so it is cut as if it were sharp.`,
    remedies: [{ label: 'Leave out what is blurred', patch: { repair: { blurs: 'drop' } } }],
  }),
  'block-left': ({ block, why }) => ({
    message:
      why === 'missing'
        ? `The block “${block}” is not in this file. It was left out.`
        : `The block “${block}” contains itself. The repeat was left out.`,
  }),
  'clip-ignored': ({ element, why }) => ({
    message:
      why === 'unknown'
        ? `${element} has a clip path that cannot be read. It is shown whole.`
        : `${element} is clipped by something that contains it. It is shown whole.`,
  }),
  'colour-unknown': ({ element, which }) => ({
    message: `The ${which} of ${element} has a colour that cannot be read. It was left out.`,
  }),
  'dxf-left': ({ type }) => ({
    code: `dxf-${type.toLowerCase()}-left`,
    message: DXF_ENTITIES.get(type) ?? `${type} cannot be cut. It was left out.`,
  }),
  'element-ignored': ({ element }) => ({ message: `${element} cannot be cut. It was left out.` }),
  'entity-ignored': () => ({ message: 'The file defines entities of its own. They are not used.' }),
  'filter-ignored': ({ element }) => ({
    message: `${element} has a filter, which a blade cannot cut. It is shown without the filter.`,
  }),
  'font-missing': ({ element, family, standIns }, { fonts }) => ({
    message: `${element} is text in “${short(family)}”, and this font is not here. The text was left out. Save it as outlines, or use another font for it.`,
    remedies: standIns.map(({ id, name }) => ({
      label: `Set “${short(family)}” in ${name}`,
      patch: { repair: { fonts: { ...fonts, [family]: id } } },
    })),
  }),
  'font-weight': ({ font, here, asked }) => ({
    severity: 'note',
    message: `${font} is here only in ${weightWord(here)}. Text that should be ${weightWord(asked)} is set in that.`,
  }),
  'foreign-left': ({ element }) => ({ message: `${element} holds a piece of a web page. It was left out.` }),
  'gradient-banded': ({ element }) => ({
    severity: 'note',
    message: `The fill of ${element} is a gradient. It is cut as bands of one colour each.`,
    remedies: [{ label: 'Cut gradients in one colour', patch: { repair: { gradientBands: 1 } } }],
  }),
  'gradient-flattened': ({ element, which }) => ({
    message: `The ${which} of ${element} is a gradient. Film has one colour, so the average is used.`,
    remedies: [3, 5, 8].map((bands) => ({
      label: `Cut gradients as ${bands} bands`,
      patch: { repair: { gradientBands: bands } },
    })),
  }),
  'hatch-damaged': () => ({ message: 'A hatch has edges that cannot be read. They were left out.' }),
  'hpgl-left': ({ name, count: times = 1 }) => ({
    message:
      name === 'LB'
        ? `${times} ${times === 1 ? 'letter' : 'letters'} of the labels in this file ${times === 1 ? 'is' : 'are'} not in the stroke font. ${times === 1 ? 'It was' : 'They were'} left out.`
        : `The instruction ${name} is not read. It comes ${times === 1 ? 'once' : `${times} times`}, and what it draws was left out.`,
  }),
  hairlines: ({ thinnestMm }) => ({
    message: `Strokes are thinner than ${thinnestMm} mm at this size. A blade cannot cut along both sides of them.`,
    remedies: [
      { label: 'Fill what thin strokes enclose', patch: { repair: { hairlines: 'fill' } }, acts: 'hairlines' },
      { label: 'Leave out thin strokes', patch: { repair: { hairlines: 'drop' } }, acts: 'hairlines' },
    ],
  }),
  'letters-missing': ({ letters, fonts }) => ({
    message: `This font has no ${letters.map((letter) => `“${letter}”`).join(', ')}. Missing letters are left out. ${fonts.length > 0 ? `Fonts with letters of this script: ${fonts.join(', ')}.` : 'Choose another font, or write it in another way.'}`,
  }),
  'mask-ignored': ({ element }) => ({
    message: `${element} has a mask, which a blade cannot cut. It is shown without the mask.`,
  }),
  'not-as-drawn': ({ difference }) => ({
    code: `drawn-${difference}`,
    message: {
      missing:
        'Something is drawn here that is not in the cut. Turn it into plain shapes in the program that drew it, save the file, and add it as a new version.',
      extra:
        'Something is cut here that is not drawn, as another reader sees this file. Look at this place and compare it with the drawing.',
      colour:
        'The colour here is another than in the drawing, as another reader sees this file. Something may lie above or below by mistake. Look at this place and compare it with the drawing.',
    }[difference],
  }),
  'not-compared': () => ({
    severity: 'note',
    message: 'What was read could not be checked against a picture of this file. Compare it with the drawing by eye.',
  }),
  'opacity-flattened': ({ element, which }) => ({
    message: `The ${which} of ${element} is see-through. Film is not, so the solid colour that it shows on white is used.`,
  }),
  'open-outline': ({ colour, fills, reachMm }) => ({
    message: fills
      ? `Thin lines in ${sayColour(colour)} do not close. What they enclose is filled up to a straight line between their ends.`
      : `Lines in ${sayColour(colour)} do not close, so nothing is cut from them.`,
    remedies:
      reachMm === null
        ? []
        : [{ label: `Join ends up to ${reachMm} mm apart`, patch: { repair: { joinEndsMm: reachMm } } }],
  }),
  'out-of-range': ({ what, why }) => ({
    message:
      why === 'far'
        ? `${what} is more than a kilometre away. It was left out.`
        : `${what} has coordinates that make no sense. It was left out.`,
  }),
  'outside-frame': () => ({
    message: 'Something reaches beyond the artboard. What lies outside is cut off there.',
    remedies: [{ label: 'Take all that is drawn', patch: { repair: { beyondArtboard: 'take' } } }],
  }),
  'painted-twice': () => ({ severity: 'note', message: 'Some outlines are drawn twice. Each is cut once.' }),
  'pattern-flattened': ({ element, which }) => ({
    message: `The ${which} of ${element} is a pattern. Its main colour is used.`,
    remedies: [{ label: 'Leave out patterns', patch: { repair: { patterns: 'drop' } } }],
  }),
  'pattern-left': ({ element, which }) => ({
    message: `The ${which} of ${element} is a pattern. It was left out.`,
    remedies: [{ label: 'Cut patterns in their main colour', patch: { repair: { patterns: 'flat' } } }],
  }),
  'shines-left': () => ({
    severity: 'note',
    message:
      'Shines and shadows are left out: they are mostly see-through, and film is not. What lies under them shows.',
    remedies: [
      { label: 'Keep shines as solid film', patch: { repair: { shines: 'keep' } } },
      { label: 'Keep shines as 3 bands', patch: { repair: { shines: 'keep', gradientBands: 3 } } },
    ],
  }),
  'picture-damaged': ({ element }) => ({
    message: `${element} is an embedded picture that cannot be read. It was left out.`,
  }),
  'picture-empty': () => ({
    severity: 'blocker',
    message: 'Nothing is left of this picture without its background. Keep the background, or use more colours.',
  }),
  'picture-hairs-lost': () => ({
    severity: 'note',
    message:
      'Thin lines or small spots here have a colour of their own, of which there is little. They are cut in the colours round them. Use more colours if they matter.',
  }),
  'picture-left': ({ element, why }) =>
    why === 'elsewhere'
      ? {
          message: `${element} is a picture that is not inside this file, or not a PNG, JPEG or WebP. It was left out. Add it to the job as a file of its own.`,
        }
      : {
          message: `${element} is an embedded picture, which has no outlines to cut. It was left out.`,
          remedies: [{ label: 'Trace pictures inside the drawing', patch: { repair: { pictures: 'trace' } } }],
        },
  'picture-specks': () => ({
    severity: 'note',
    message: 'Specks and pinholes of the picture were dropped: they are too small at this size.',
  }),
  'picture-too-busy': () => ({
    severity: 'blocker',
    message:
      'This picture has too many edges to cut. Use fewer colours, drop larger specks, or start with a simpler picture.',
  }),
  'picture-traced': ({ element }) => ({
    severity: 'note',
    message: `${element} is an embedded picture. Its outlines were traced.`,
    remedies: [{ label: 'Leave out pictures', patch: { repair: { pictures: 'drop' } } }],
  }),
  'script-ignored': ({ element }) => ({ message: `${element} is a program. It is never run.` }),
  'self-crossing': () => ({
    severity: 'note',
    message: 'The outline of a shape crosses itself. It is joined as it is drawn, so no cut runs across it.',
    remedies: [
      { label: 'Fill crossing outlines completely', patch: { repair: { fillCrossings: true } }, acts: 'crossings' },
    ],
  }),
  'shadow-left': ({ element }) => ({
    severity: 'note',
    message: `${element} has a soft shadow or glow, which a blade cannot cut. It is cut without it.`,
  }),
  'shape-cut-short': ({ element, error }) => ({
    message: `${element} is damaged (${error}). What comes before the damage is used.`,
  }),
  'stroke-scaled': ({ element }) => ({
    severity: 'note',
    message: `${element} has a stroke that should not scale. It is scaled with the artwork.`,
  }),
  'style-ignored': ({ rule }) => ({ message: `The style rule “${rule}” cannot be read. It was left out.` }),
  'text-left': ({ element, why }) => ({
    message:
      why === 'too-long'
        ? `${element} has thousands of letters. It was left out.`
        : `${element} names no path for its text. It was left out.`,
  }),
  'too-many-colours': ({ colours, most }) => ({
    severity: 'blocker',
    message: `This drawing has ${colours} colours. At most ${most} can be told apart as films. Make its colours fewer, or save it as a picture and trace that.`,
  }),
  'too-many-points': ({ most }) => ({
    severity: 'blocker',
    message: `The outlines of this drawing have more than ${most} points at this size, more than can be planned. Simplify it, make it smaller, or save a part of it and add that.`,
  }),
  'too-tangled': ({ element }) => ({ message: `${element} crosses itself millions of times. It was left out.` }),
  'transform-ignored': ({ element }) => ({
    message: `${element} has a transform that cannot be read. It is shown without it.`,
  }),
  'use-cycle': ({ element }) => ({
    message: `${element} repeats something that contains it. The repeat was left out.`,
  }),
  'use-ignored': ({ element, href }) => ({
    message: `${element} repeats “${href}”, which is not in this file. It was left out.`,
  }),
};

/** What was noticed of one file, in words. What differs only in the element that it is said of is said once, of the first, and counted. */
export function sayNoticed(noticed: readonly Noticed[], repair: Pick<Repair, 'fonts'>): Finding<ArtworkPatch>[] {
  const alike = new Map<string, [Noticed, ...Noticed[]]>();
  for (const one of noticed) {
    const key = JSON.stringify({ ...one, element: null, count: null, where: null, places: null });
    const before = alike.get(key);
    if (before) before.push(one);
    else alike.set(key, [one]);
  }
  return [...alike.values()].map((group) => finding(group[0], group, repair));
}

function finding<Code extends NoticedCode>(
  first: NoticedOf<Code>,
  all: readonly Noticed[],
  repair: Pick<Repair, 'fonts'>,
): Finding<ArtworkPatch> {
  const { message, severity = 'warning', remedies, code = first.code } = SAY[first.code](first, repair);
  const count = all.reduce<number | null>(
    (sum, one) => (sum === null && one.count === undefined ? null : (sum ?? 0) + (one.count ?? 1)),
    null,
  );
  const places = all.flatMap(({ where, places: several }) => several ?? (where ? [where] : []));
  return {
    code,
    severity,
    stage: 'artwork',
    message,
    ...(places.length > 0 ? atPlaces(places) : {}),
    ...(count === null ? {} : { count }),
    ...(remedies ? { remedies } : {}),
  };
}

const WEIGHTS: readonly (readonly [upTo: number, word: string])[] = [
  [150, 'hair-thin'],
  [250, 'very light'],
  [350, 'light'],
  [450, 'regular'],
  [550, 'medium'],
  [650, 'half bold'],
  [750, 'bold'],
  [850, 'very bold'],
  [Infinity, 'black'],
];

/** How heavy letters are, as people say it; fonts count it from 100 to 900. */
function weightWord(weight: number): string {
  return WEIGHTS.find(([upTo]) => weight <= upTo)![1];
}
