import { colourLightness } from '../../engines/artwork/index.js';
import {
  boxOfFree,
  facesBothSides,
  placeSeveral,
  ringOfFree,
  safeScale,
  strainPct,
  takesSeveral,
  unwarpPoint,
  widestOn,
  type PlacedDesign,
  type Surface,
  type TaperMap,
} from '../../engines/surface/index.js';
import { narrowGaps, thinParts } from '../../engines/layers/index.js';
import {
  areaOf,
  boundsOf,
  boxRing,
  grow,
  intersect,
  joinBoxes,
  perimeter,
  subtract,
  translateRings,
  unite,
  widenBox,
  type Box,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import { wayOf, type Film, type FilmFamily } from '../../shop/index.js';
import type { Finding, Ruling } from '../../words/index.js';
import type { Stage } from '../stage.js';
import type { SurfaceDecisions, SurfacePatch } from './decisions.js';
import { sayOverhang } from './say.js';
import { sayGlue, sayLetters, sayLowContrast, sayStrokesAfar, sayTooSmall } from './say-ground.js';
import type { Among } from './instances.js';
import { sayDesignBeyond, sayDesignsMeet } from './say-several.js';
import { sayBehindGlass, sayBothSides, sayDarkOnGlass, sayOnFree, sayTooStiff } from './say-kinds.js';
import type { SurfaceOut } from './stage.js';

/** What is laid on the surface of one film. */
interface LaidFilm {
  readonly film: Film;
  readonly cut: Rings;
  readonly visible: Rings;
}

/** Letters of the design: what they say, how high their capitals are, and where. */
export interface LettersOnDesign {
  readonly words: string;
  readonly capHeightMm: number;
  readonly box: Box;
}

interface CheckContext {
  readonly sized: SurfaceOut;
  /** The layers as they are built, handed on whole. */
  readonly build: { readonly layers: readonly LaidFilm[] };
  readonly letters: readonly LettersOnDesign[];
  readonly recipe: SurfaceDecisions & { readonly sheets: { readonly copies: number } };
}

interface CheckRead {
  readonly surface: Surface;
  readonly design: PlacedDesign;
  readonly map: TaperMap | null;
  /** Several designs on one thing; null for one. */
  readonly among: readonly (Among & { readonly label: string })[] | null;
  readonly wish: Pick<SurfaceDecisions['surface'], 'size' | 'several'>;
  /** It was said already that the design does not fit. */
  readonly isSaid: boolean;
  readonly build: { readonly layers: readonly LaidFilm[] };
  readonly letters: readonly LettersOnDesign[];
  readonly ground: SurfaceDecisions['surface']['ground'];
  readonly readFromMm: number | null;
  readonly copies: number;
}

/** What is found of a surface once it is known what lies on it. */
export interface SurfaceChecks {
  readonly findings: readonly Finding<SurfacePatch>[];
  readonly rulings: readonly Ruling<SurfacePatch>[];
}

/** Films and grounds nearer in lightness than this can hardly be told apart from afar (L*, 0 to 100). Source: trade practice. */
const LEAST_CONTRAST = 25;
/** Film covers much of a pane above this share of it. */
const MUCH_OF_A_PANE = 0.4;
/** A film this dark takes up the sun (L*). */
const DARK = 35;
/** How far film stretches by hand, in percent, and keeps lying. Source: trade practice. */
const STRETCHES_PCT: Readonly<Partial<Record<FilmFamily, number>>> = { cast: 5 };
const STIFF_PCT = 1;
/** Strokes are about so much of a letter’s height, and what is less is not seen where the letter is. Source: trade practice. */
const STROKE_SHARE = 1 / 5;
/** A letter is read at the limit at so many times its height, and at a glance at so many. */
const LIMIT_TIMES = 360;
const GLANCE_TIMES = 120;

/** Looks at the layers where they lie: what reaches too far, covers what must stay free, does not suit the surface, or cannot be read. */
export const surfaceCheckStage: Stage<CheckContext, CheckRead, SurfaceChecks> = {
  name: 'surface checked',
  read: ({ sized: { surface, design, map, instances, findings }, build, letters, recipe }) => ({
    surface,
    design,
    map,
    among: amongOf(instances),
    wish: { size: recipe.surface.size, several: recipe.surface.several },
    isSaid: findings.some(({ code }) => OF_SIZE.has(code)),
    build,
    letters,
    ground: recipe.surface.ground,
    readFromMm: recipe.surface.readFromMm,
    copies: recipe.sheets.copies,
  }),
  run(read) {
    const { surface, letters, readFromMm, design } = read;
    const measured =
      surface.kind === 'unmeasured'
        ? []
        : [
            ...(read.among ? severalReach(read, read.among) : overhang(read)),
            ...coveredPlaces(read),
            ...stiffFilms(read),
            ...filmsForGlass(read),
            ...filmsForGround(read),
          ];
    const both = !read.among && facesBothSides(surface) && read.copies % 2 === 1 ? [sayBothSides(read.copies)] : [];
    const worst = letters.reduce<LettersOnDesign | null>(
      (least, one) => (least && least.capHeightMm <= one.capHeightMm ? least : one),
      null,
    );
    if (readFromMm === null || !worst) return { findings: [...measured, ...both], rulings: [] };
    const { words, capHeightMm, box } = worst;
    const limitMm = readFromMm / LIMIT_TIMES;
    return {
      findings: [
        ...measured,
        ...both,
        ...strokesAfar(read, limitMm * STROKE_SHARE),
        ...(capHeightMm < limitMm ? [sayTooSmall(words, capHeightMm, limitMm, box, design.widthMm)] : []),
      ],
      rulings: [sayLetters({ leastMm: capHeightMm, limitMm, glanceMm: readFromMm / GLANCE_TIMES, readFromMm, words })],
    };
  },
};

/** Findings that say already that the design does not lie as it should. */
const OF_SIZE = new Set([
  'margins-too-wide',
  'measures-wrong',
  'larger-than-board',
  'designs-too-large',
  'put-beyond',
  'into-margins',
]);

/** Strokes of letters, and the room between and within them, that are too narrow to be seen from where the work is read. */
function strokesAfar({ map, letters, build: { layers } }: CheckRead, leastMm: number): Finding<SurfacePatch>[] {
  // On a bent design letters lie elsewhere; tapers are read from near.
  if (map) return [];
  const all = unite(layers.flatMap(({ visible }) => visible));
  const set = letters.map(({ words, box }) => {
    const shown = intersect(all, [boxRing(box)]);
    return { words, thin: thinParts(shown, leastMm), closed: narrowGaps(shown, leastMm) };
  });
  const told = (what: 'thin' | 'closed') =>
    set
      .filter((one) => one[what].length > 0)
      .map((one) =>
        sayStrokesAfar(
          what,
          one.words,
          leastMm,
          one[what].map(({ outer }) => boundsOf([outer])!),
        ),
      );
  return [...told('thin'), ...told('closed')];
}

function unwarped(map: TaperMap, ring: Ring): Ring {
  const out = new Float64Array(ring.length);
  for (let i = 0; i < ring.length; i += 2) [out[i], out[i + 1]] = unwarpPoint(map, ring[i]!, ring[i + 1]!);
  return out;
}

/** An outline may be wider than was known when the design was sized. */
function overhang({ surface, design, map, isSaid, build: { layers } }: CheckRead): Finding<SurfacePatch>[] {
  const box = layers.reduce<Box | null>(
    (sum, { cut }) => joinBoxes(sum, boundsOf(map ? cut.map((ring) => unwarped(map, ring)) : cut)),
    null,
  );
  const widestMm = box && !isSaid ? widestOn(surface, design, box) : null;
  return box && widestMm !== null ? [sayOverhang(box, widestMm)] : [];
}

/** What rounding may take a design beyond where it may lie, mm. */
const SLACK_MM = 0.01;
/** What comes nearer to the part of another design touches it, mm. */
const MEET_MM = 0.05;

/** What of several designs reaches into the part of another, or beyond where it may lie. */
function severalReach(
  { surface, wish, isSaid, build: { layers } }: CheckRead,
  among: readonly (Among & { readonly label: string })[],
): Finding<SurfacePatch>[] {
  if (!takesSeveral(surface)) return [];
  const boxes = among.map(({ cell }) => boundsOf(layers.flatMap(({ cut }) => intersect(cut, [boxRing(cell)]))));
  const meeting = among.find(({ cell }) => {
    const edge = subtract([boxRing(widenBox(cell, MEET_MM))], [boxRing(widenBox(cell, -MEET_MM))]);
    return layers.some(({ cut }) => intersect(cut, edge).length > 0);
  });
  // How far what is built reaches beyond each design.
  const reachMm = Math.max(
    0,
    ...among.map(({ xMm, yMm, widthMm, heightMm }, i) =>
      boxes[i] ? beyond(boxes[i], { minX: xMm, minY: yMm, maxX: xMm + widthMm, maxY: yMm + heightMm }) : 0,
    ),
  );
  const fitted = placeSeveral(
    surface,
    among.map(({ own }) => own),
    { size: { mode: 'fit' }, widthsMm: among.map(() => null), betweenMm: null },
    reachMm,
  );
  const mm = Math.floor(fitted.designs[0]!.widthMm * 10) / 10;
  const smaller =
    fitted.trouble === null && mm >= 1
      ? {
          name: among[0]!.label,
          widthMm: mm,
          patch: {
            surface: {
              size: { mode: 'width' as const, mm },
              several: {
                ...wish.several,
                betweenMm: null,
                others: wish.several.others.map((other) => ({ ...other, widthMm: null })),
              },
            },
          },
        }
      : null;
  if (meeting) return [sayDesignsMeet(meeting.label, smaller)];
  if (isSaid) return [];
  return among.flatMap(({ label, room }, i) => {
    const byMm = boxes[i] ? beyond(boxes[i], room) : 0;
    return byMm > SLACK_MM ? [sayDesignBeyond(label, byMm, boxes[i]!, smaller)] : [];
  });
}

/** How far a box reaches beyond another. */
function beyond(box: Box, room: Box): number {
  return Math.max(room.minX - box.minX, room.minY - box.minY, box.maxX - room.maxX, box.maxY - room.maxY);
}

function amongOf(instances: SurfaceOut['instances']): CheckRead['among'] {
  const among = (instances ?? []).flatMap(({ label, among }) => (among ? [{ ...among, label }] : []));
  return among.length > 0 ? among : null;
}

function coveredPlaces({ surface, design, among, wish, build: { layers } }: CheckRead): Finding<SurfacePatch>[] {
  if (surface.kind !== 'flat' && surface.kind !== 'glass') return [];
  return surface.free.flatMap((place) => {
    const ring = translateRings([ringOfFree(place)], -design.xMm, -design.yMm);
    if (!layers.some(({ cut }) => intersect(cut, ring).length > 0)) return [];
    const { minX, minY, maxX, maxY } = boxOfFree(place);
    return [
      sayOnFree(
        place.what,
        { minX: minX - design.xMm, minY: minY - design.yMm, maxX: maxX - design.xMm, maxY: maxY - design.yMm },
        { couldMove: surface.at !== null && !among, isFitted: among !== null && wish.size.mode === 'fit' },
      ),
    ];
  });
}

function stiffFilms({ surface, design, build: { layers } }: CheckRead): Finding<SurfacePatch>[] {
  if (surface.kind !== 'compound') return [];
  const strain = strainPct(surface.bend, design.widthMm, design.heightMm);
  return layers.flatMap(({ film }) => {
    const most = STRETCHES_PCT[film.family] ?? STIFF_PCT;
    return strain <= most
      ? []
      : [
          sayTooStiff(
            film.name,
            strain,
            most,
            design.widthMm * (safeScale(surface.bend, design.widthMm, design.heightMm, most) ?? 1),
            film.family !== 'cast',
          ),
        ];
  });
}

function filmsForGlass({ surface, build: { layers } }: CheckRead): Finding<SurfacePatch>[] {
  if (surface.kind !== 'glass') return [];
  const paneMm2 = surface.widthMm * surface.heightMm;
  return layers.flatMap(({ film, cut }) => {
    const why =
      wayOf(film) === 'press'
        ? 'press'
        : film.family === 'reflective'
          ? 'reflective'
          : film.family === 'textured' || film.finish === 'textured'
            ? 'textured'
            : film.adhesiveColour === 'grey'
              ? 'grey'
              : null;
    if (why) return [sayBehindGlass(film.name, why)];
    return colourLightness(film.colour) < DARK && areaOf(cut) > MUCH_OF_A_PANE * paneMm2
      ? [sayDarkOnGlass(film.name)]
      : [];
  });
}

/** What lies against the surface with less than this share of its outline is framed by other films. */
const BARE_SHARE = 0.2;
/** How far beyond an outline it is looked, mm: beyond any lap's rounding, within any stroke. */
const LOOK_MM = 0.3;

/** Whether what shows of a film meets the bare surface along a good part of its outline. */
function bordersOnGround({ visible }: LaidFilm, all: Rings): boolean {
  const outside = subtract(grow(visible, LOOK_MM), all);
  const around = visible.reduce((sum, ring) => sum + perimeter(ring), 0) * LOOK_MM;
  return areaOf(outside) > BARE_SHARE * around;
}

function filmsForGround({ ground, build: { layers } }: CheckRead): Finding<SurfacePatch>[] {
  if (!ground) return [];
  const all = unite(layers.flatMap(({ visible }) => visible));
  return layers.flatMap((layer) => {
    const { film } = layer;
    const apart = Math.abs(colourLightness(film.colour) - colourLightness(ground.colour));
    const way = wayOf(film);
    const glue = ground.matter === 'low-energy plastic' && way === 'adhesive' && film.adhesive !== 'high-tack';
    return [
      ...(apart < LEAST_CONTRAST && way !== 'stencil' && bordersOnGround(layer, all)
        ? [sayLowContrast(film.name, apart)]
        : []),
      ...(glue ? [sayGlue(film.name)] : []),
    ];
  });
}
