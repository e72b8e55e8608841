import { withFamilies, type LayerTrouble, type PaintTrouble } from '../../engines/layers/index.js';
import { atPlaces, count, formatLength, type Finding, type PlaceRemedy, type Remedy } from '../../words/index.js';
import type { ArtworkPatch } from './decisions.js';
import type { Repair } from './repair.js';
import { sayColour, startWithColour } from './say-colour.js';

type Said = Pick<Finding<ArtworkPatch>, 'severity' | 'message' | 'remedies'>;

function sayPaint(trouble: PaintTrouble, repair: Pick<Repair, 'recolour' | 'noFilm'>): Said {
  switch (trouble.code) {
    case 'near-colours': {
      const { colours, families } = trouble;
      const fewer = families.reduce((sum, { others }) => sum + others.length, 0);
      const [only, ...more] = families;
      const alike =
        more.length === 0 && only!.others.length === 1
          ? `${startWithColour(only!.others[0]!)} and ${sayColour(only!.keep)} are nearly alike.`
          : `Of ${colours} colours, ${families
              .map(({ keep, others }) => `${others.length + 1} are nearly ${sayColour(keep)}`)
              .slice(0, 4)
              .join(', ')}${families.length > 4 ? ' and so on' : ''}.`;
      return {
        severity: 'note',
        message: `${alike} Taken as one, they need up to ${count(fewer, 'sheet')} and ${count(fewer, 'alignment')} fewer.`,
        remedies: [
          {
            label:
              fewer === 1 ? `Use ${sayColour(only!.keep)} for both` : `Make the ${colours} colours ${colours - fewer}`,
            patch: { repair: { recolour: withFamilies(repair.recolour, families) } },
          },
        ],
      };
    }
    case 'white-ground':
    case 'white-shapes': {
      const noFilm = [...new Set([...repair.noFilm, ...trouble.colours])];
      const remedies: Remedy<ArtworkPatch>[] = [
        {
          label: trouble.code === 'white-ground' ? 'The white ground is not film' : 'White shapes are not film',
          patch: { repair: { noFilm } },
          acts: 'bare',
        },
      ];
      return trouble.code === 'white-ground'
        ? {
            severity: 'warning',
            message: 'White fills the whole artboard. Often that is only the paper. As film it takes a whole sheet.',
            remedies,
          }
        : {
            severity: 'note',
            message:
              'White shapes are cut from white film. If the surface should show through them, they are not film.',
            remedies,
          };
    }
    case 'painted-twice':
    case 'hidden': {
      const remedies: Remedy<ArtworkPatch>[] = [
        {
          label: trouble.code === 'hidden' ? 'Leave out hidden shapes' : 'Leave out the second ones',
          safe: true,
          patch: { repair: { tidy: true } },
          acts: 'tidy',
        },
      ];
      return {
        severity: 'note',
        message:
          trouble.code === 'hidden'
            ? 'Some shapes lie completely under others. Nothing of them shows.'
            : 'Some shapes are painted twice in one colour. A blade would cut them twice.',
        remedies,
      };
    }
    case 'crowded-outline': {
      const { corners, cornersAfter, withinMm } = trouble;
      return {
        severity: 'note',
        message: `Outlines have ${corners} corners, more than a blade can follow. With ${cornersAfter} they stay within ${withinMm} mm.`,
        remedies: [
          {
            label: `Simplify within ${withinMm} mm`,
            safe: true,
            patch: { repair: { simplifyMm: withinMm } },
            acts: 'simplify',
          },
        ],
      };
    }
  }
}

/** What was found in the artwork as it is painted. */
export function sayPaintTroubles(
  troubles: readonly PaintTrouble[],
  repair: Pick<Repair, 'recolour' | 'noFilm'>,
): Finding<ArtworkPatch>[] {
  return troubles.map((trouble) => {
    const { count: times, ...places } = atPlaces(trouble.places);
    // How many colours go together is said; at how many places they lie is no matter.
    return {
      code: trouble.code,
      stage: 'artwork',
      ...sayPaint(trouble, repair),
      ...places,
      ...(trouble.code === 'near-colours' ? {} : { count: times }),
    };
  });
}

interface LayerWords {
  readonly say: (films: string) => string;
  readonly acts: PlaceRemedy;
  /** The remedy for the thickest of the least strokes, in mm. */
  readonly remedy: (mm: number) => Pick<Remedy<ArtworkPatch>, 'label' | 'patch'>;
}

const squareOf = (mm: number) => Number((mm ** 2).toFixed(2));

const LAYER_WORDS: Readonly<Record<LayerTrouble['code'], LayerWords>> = {
  'thin-parts': {
    say: (films) => `Parts are too thin to weed: ${films}.`,
    acts: 'thicken',
    remedy: (mm) => ({ label: `Thicken to ${formatLength(mm)} mm`, patch: { repair: { thickenMm: mm } } }),
  },
  'not-durable': {
    say: (films) => `Strokes can be weeded, but they are too thin to last where this work will live: ${films}.`,
    acts: 'thicken',
    remedy: (mm) => ({ label: `Thicken to ${formatLength(mm)} mm`, patch: { repair: { thickenMm: mm } } }),
  },
  'narrow-gaps': {
    say: (films) => `Gaps are too narrow: waste may tear or lift the edge: ${films}.`,
    acts: 'gaps',
    remedy: (mm) => ({ label: `Fill gaps below ${formatLength(mm)} mm`, patch: { repair: { closeGapsMm: mm } } }),
  },
  specks: {
    say: (films) => `Specks come off with the waste: ${films}.`,
    acts: 'specks',
    remedy: (mm) => ({ label: `Drop below ${squareOf(mm)} mm²`, patch: { repair: { speckMm2: squareOf(mm) } } }),
  },
  pinholes: {
    say: (films) => `Pinholes are too small to weed: ${films}.`,
    acts: 'specks',
    remedy: (mm) => ({ label: `Fill below ${squareOf(mm)} mm²`, patch: { repair: { speckMm2: squareOf(mm) } } }),
  },
};

/** What was found in the layers as they would be cut. `nameOf` gives the name of a layer's film. */
export function sayLayerTroubles(
  troubles: readonly LayerTrouble[],
  nameOf: (key: string) => string,
): Finding<ArtworkPatch>[] {
  return troubles.map(({ code, layers }) => {
    const { say, acts, remedy } = LAYER_WORDS[code];
    const films = layers.map(({ key, leastMm }) => `${nameOf(key)}, under ${formatLength(leastMm)} mm`).join('; ');
    const widestMm = Math.max(...layers.map((layer) => layer.leastMm));
    return {
      code,
      severity: code === 'not-durable' ? 'note' : 'warning',
      stage: 'artwork',
      message: say(films),
      ...atPlaces(layers.flatMap((layer) => layer.places)),
      remedies: [{ ...remedy(widestMm), acts }],
    };
  });
}
