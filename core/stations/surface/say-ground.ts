import { atPlaces, formatLength, type Finding, type Ruling } from '../../words/index.js';
import type { Box } from '../../geometry/index.js';
import type { SurfaceDecisions, SurfacePatch } from './decisions.js';

type Ground = NonNullable<SurfaceDecisions['surface']['ground']>;

/** A film that hardly stands out from what it goes on. */
export function sayLowContrast(film: string, difference: number): Finding<SurfacePatch> {
  return {
    code: 'low-contrast',
    severity: 'warning',
    stage: 'surface',
    message: `${film} is nearly as light as the surface (they differ by ${Math.round(difference)} of 100). It will be hard to see. Take another film, or put an outline round it.`,
  };
}

const HOLDS_LESS: Partial<Record<Ground['matter'], string>> = {
  'matt paint': 'Matt paint holds less.',
  'powder coat': 'Powder coat holds less.',
  wood: 'Wood holds less.',
  card: 'Card holds less, and tears.',
};

/** What the matter of a surface asks for. */
export function sayMatter({ matter }: Ground): Finding<SurfacePatch>[] {
  const note = (code: string, message: string): Finding<SurfacePatch>[] => [
    { code, severity: 'note', stage: 'surface', message },
  ];
  const less = HOLDS_LESS[matter];
  if (less)
    return note(
      'holds-less',
      `${less} Rub twice, warm it, and wait a day before the tape comes off. Larger pieces hold better.`,
    );
  switch (matter) {
    case 'low-energy plastic':
      return note(
        'low-energy',
        'Most glues hardly hold on this plastic. Take a high-tack film, rub twice, and wait a day before the tape comes off.',
      );
    case 'cotton':
    case 'polyester':
    case 'nylon':
      return note('cloth', 'Film is pressed on cloth. Stuck on, it comes off in the wash.');
    case 'plastic':
      return note(
        'gases',
        'Polycarbonate gives off gas for weeks: stick a hand’s width on, wait a day, and look for bubbles.',
      );
    default:
      return [];
  }
}

/** A film whose glue hardly holds on low-energy plastic. */
export function sayGlue(film: string): Finding<SurfacePatch> {
  return {
    code: 'glue',
    severity: 'warning',
    stage: 'surface',
    message: `${film}: Its glue is not high-tack, and on this plastic others hardly hold.`,
  };
}

export function sayFreshPaint(on: 'wall' | 'vehicle'): Finding<SurfacePatch> {
  return {
    code: 'fresh-paint',
    severity: 'warning',
    stage: 'surface',
    message: `Fresh paint gives off gas and peels. ${on === 'wall' ? 'A wall waits 3 to 4 weeks' : 'A vehicle waits 1 to 4 weeks'} before film goes on.`,
  };
}

/** How large letters must be. */
export function sayLetters({
  leastMm,
  limitMm,
  glanceMm,
  readFromMm,
  words,
}: {
  readonly leastMm: number;
  readonly limitMm: number;
  readonly glanceMm: number;
  readonly readFromMm: number;
  readonly words: string;
}): Ruling<SurfacePatch> {
  return {
    id: 'surface.letters',
    stage: 'surface',
    subject: 'Read from afar',
    sentence: 'The smallest letters are {value} high.',
    value: leastMm,
    unit: 'mm',
    because: [
      `They are those of ${words}.`,
      `From ${formatLength(readFromMm / 1000)} m letters of ${formatLength(limitMm)} mm can just be read, and those of ${formatLength(glanceMm)} mm at a glance.`,
    ],
  };
}

export function sayTooSmall(
  words: string,
  leastMm: number,
  limitMm: number,
  where: Box,
  widthMm: number,
): Finding<SurfacePatch> {
  const mm = Math.ceil((widthMm * limitMm) / leastMm);
  return {
    code: 'letters-too-small',
    severity: 'warning',
    stage: 'surface',
    message: `The letters of ${words} are ${formatLength(leastMm)} mm high. From where it is read they must be at least ${formatLength(limitMm)} mm.`,
    where,
    remedies: [
      { label: `Make the design ${formatLength(mm)} mm wide`, patch: { surface: { size: { mode: 'width', mm } } } },
    ],
  };
}

/** Strokes that are not seen, or counters and gaps that close, from where the work is read. */
export function sayStrokesAfar(
  what: 'thin' | 'closed',
  words: string,
  leastMm: number,
  places: readonly Box[],
): Finding<SurfacePatch> {
  return {
    code: what === 'thin' ? 'strokes-afar' : 'counters-afar',
    severity: 'warning',
    stage: 'surface',
    message:
      what === 'thin'
        ? `${words} has strokes thinner than ${formatLength(leastMm)} mm, which are not seen from where it is read. Take a bolder font, or make it larger.`
        : `Counters or gaps of ${words} are narrower than ${formatLength(leastMm)} mm and close up from where it is read. Take a more open font, set the letters further apart, or make it larger.`,
    ...atPlaces(places),
  };
}
