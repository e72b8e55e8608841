import {
  cutProgram,
  isOutline,
  programPairs,
  type CutProgram,
  type CutSettings,
  type Motion,
} from '../../engines/cutting/index.js';
import { weedingBorders, type WeedingWork } from '../../engines/weeding/index.js';
import {
  boundsOf,
  compose,
  containsPoint,
  isBoxRing,
  reversed,
  signedArea,
  translateRings,
  translation,
  unite,
  type Matrix,
  type Rings,
} from '../../geometry/index.js';
import { contoursOfGroups, wholeParts } from './whole.js';
import { filmUse } from './film-use.js';
import { filmsOfSheet, type FrozenGroup, type FrozenSheet, type WeedPlace } from './frozen-sheet.js';
import { InputError } from '../../words/index.js';
import type { CutterProfile } from '../../shop/index.js';
import type { PreparedLayer } from '../prepare/index.js';
import { edgesOf, foilViews, type PlacedGroup, type SheetPlan } from '../../laying/index.js';
import { sayNothingOpen } from './say.js';

/** A copy on a sheet that is about to be sent: all that is kept of it but the job it is of. */
export type GroupToFreeze = Omit<FrozenGroup, 'jobId' | 'revision' | 'ticked' | 'of' | 'verdict'>;

/** What the cutter is told, and the outlines behind it, as they are kept. */
export interface ProgramToFreeze {
  readonly forceG: number;
  readonly speedMmS: number;
  readonly bladeOffsetMm: number;
  readonly overcutMm: number;
  readonly runs: readonly Int32Array[];
  readonly wholeAt: Int32Array;
  readonly partOf: Int32Array;
  readonly outlines: Rings;
}

/** A sheet that is about to be sent to the cutter. */
export type SheetToFreeze = Omit<
  FrozenSheet,
  | 'id'
  | 'createdAt'
  | 'runs'
  | 'decided'
  | 'groups'
  | 'weedTimes'
  | 'forceG'
  | 'speedMmS'
  | 'restOf'
  | 'batchId'
  | 'leftoversBookedAt'
  | 'offcutIds'
  | 'numbersWrittenAt'
  | 'backMm2'
  | 'backCost'
> & {
  readonly groups: readonly GroupToFreeze[];
  readonly program: ProgramToFreeze;
};

const ALL_OUT: WeedPlace = { kind: 'all out', xMm: 0, yMm: 0 };

/** A copy as it lies on a sheet, as it is kept. */
export function groupToFreeze(
  { copy, perStrip, filmId, fingerprint, matrix, contours, borders, marks }: PlacedGroup,
  { keptMm2, weedPlaces, asked }: Pick<GroupToFreeze, 'keptMm2' | 'weedPlaces' | 'asked'>,
): GroupToFreeze {
  return {
    copy,
    perStrip,
    filmId,
    keptMm2,
    fingerprint,
    matrix,
    contours: contours.length - marks,
    marks,
    borders: borders.length,
    weedPlaces,
    asked,
  };
}

/** A program as it is kept, with the outlines of the copies that it cuts. */
export function programToFreeze(
  { settings, runs, wholeAt }: CutProgram,
  groups: readonly PlacedGroup[],
): ProgramToFreeze {
  return {
    ...settings,
    runs,
    wholeAt,
    partOf: Int32Array.from(groups.flatMap((group) => [...group.partOf, ...group.borders.map(() => -1)])),
    outlines: groups.flatMap((group) => [...group.contours, ...group.borders]),
  };
}

/** What is ticked off of a copy, and on which of its parts. Where nothing is ticked off one by one, that all is out is said of the whole copy. */
export function weedPlacesOf(
  spots: readonly WeedPlace[],
  { contours, partOf, matrix }: Pick<PlacedGroup, 'contours' | 'partOf' | 'matrix'>,
): readonly WeedPlace[] {
  if (spots.length === 0) return [ALL_OUT];
  const rings = contours.flatMap((ring, i) => {
    const part = partOf[i]!;
    return part < 0 ? [] : [{ ring, part, box: boundsOf([ring])!, area: Math.abs(signedArea(ring)) }];
  });
  return spots.map(({ kind, xMm, yMm }): WeedPlace => {
    const [x, y] = mapped(matrix, xMm, yMm);
    // Of outlines that lie within one another, the innermost round the place is that of its part.
    const round = rings
      .filter(({ box }) => x >= box.minX && x <= box.maxX && y >= box.minY && y <= box.maxY)
      .filter(({ ring }) => containsPoint([ring], x, y))
      .reduce<(typeof rings)[number] | null>((best, one) => (best && best.area <= one.area ? best : one), null);
    return { kind, xMm, yMm, ...(round ? { part: round.part } : {}) };
  });
}

/** A sheet of what is not whole on another: each copy with its position there. */
export type RestToFreeze = Omit<SheetToFreeze, 'groups'> & {
  readonly groups: readonly (GroupToFreeze & { readonly of: number })[];
};

/** A sheet of a plan that is about to be kept. */
export interface PlannedSheet {
  readonly sheet: SheetPlan;
  /** The layers that its copies are of, one for each. */
  readonly layers: readonly PreparedLayer[];
  readonly program: CutProgram;
  /** All sheets of the plan, this one among them. */
  readonly all: readonly SheetPlan[];
  /** How many copies of a layer are taken already, by the index of the job and the fingerprint. */
  readonly taken: (job: number, fingerprint: string) => number;
}

/** A sheet as it is kept when it is sent. */
export function sheetToFreeze({ sheet, layers, program, all, taken }: PlannedSheet): SheetToFreeze {
  const works = layers.map(({ work }) => work);
  // Copies of a layer have the same places on the same parts.
  const places = new Map<PreparedLayer, readonly WeedPlace[]>();
  const placesOf = (layer: PreparedLayer, group: PlacedGroup) => {
    const known = places.get(layer) ?? weedPlacesOf(layer.weed.spots, group);
    places.set(layer, known);
    return known;
  };
  const toCut = new Map<string, number>();
  const keyOf = ({ job, fingerprint }: SheetPlan['groups'][number]) => `${job} ${fingerprint}`;
  for (const group of all.flatMap(({ groups }) => groups)) toCut.set(keyOf(group), (toCut.get(keyOf(group)) ?? 0) + 1);
  return {
    film: sheet.films[0]!,
    piece: sheet.zones ? null : sheet.pieces[0]!,
    mat: sheet.mat,
    zones: sheet.zones,
    foils: foilViews(sheet),
    leftovers: sheet.leftovers.map(({ piece, ...left }) => ({
      ...left,
      pieceId: piece.id,
      filmId: piece.filmId,
      edgeMm: piece.edgeMm,
    })),
    usedLengthMm: sheet.usedLengthMm,
    keptMm2: sheet.groups.reduce((sum, { keptMm2 }) => sum + keptMm2, 0),
    filmMm2: sheet.usedMm2,
    filmCost: sheet.value,
    cutMm: program.cutMm,
    estimateSeconds: program.seconds,
    pairsTotal: programPairs(program.runs),
    weedWork: works.length > 0 ? works.reduce(workTogether) : null,
    groups: sheet.groups.map((group, i) =>
      groupToFreeze(group, {
        keptMm2: group.keptMm2,
        weedPlaces: placesOf(layers[i]!, group),
        asked: taken(group.job, group.fingerprint) + toCut.get(keyOf(group))!,
      }),
    ),
    program: programToFreeze(program, sheet.groups),
  };
}

/** What is to be weeded of two layers. */
export function workTogether(a: WeedingWork, b: WeedingWork): WeedingWork {
  return Object.fromEntries(
    Object.entries(a).map(([what, much]) => [what, (much as number) + b[what as keyof WeedingWork]]),
  ) as unknown as WeedingWork;
}

/** A sheet that was cut in part, as it is kept. */
export interface CutInPart {
  readonly sheet: FrozenSheet;
  readonly program: Omit<ProgramToFreeze, 'bladeOffsetMm' | 'overcutMm'>;
  readonly pairsDone: number;
  readonly settings: CutSettings;
  readonly motion: Motion & Pick<CutterProfile, 'leaderMm'>;
}

/**
 * A sheet of what is not whole on another: its open parts, each whole with its counters, with the marks and the border of the copies they belong
 * to, moved down to where a new piece begins. @throws InputError `nothing-open` when all parts are whole
 */
export function restToFreeze({ sheet, program, pairsDone, settings, motion }: CutInPart): RestToFreeze {
  const contoursOf = contoursOfGroups(sheet.groups);
  const whole = wholeParts({ wholeAt: program.wholeAt, partOf: program.partOf, contoursOf }, pairsDone);
  let first = 0;
  const open = sheet.groups.flatMap((group, g) => {
    const numbers = Array.from({ length: contoursOf[g]! }, (_, i) => first + i);
    first += contoursOf[g]!;
    const isOpen = (i: number) => program.partOf[i]! >= 0 && !whole[g]![program.partOf[i]!];
    const parts = numbers.slice(0, group.contours).filter(isOpen);
    // A spoiled copy is planned again as a whole.
    if (parts.length === 0 || group.verdict === 'spoiled') return [];
    const around = numbers.slice(group.contours);
    const rings = (which: readonly number[]) => which.map((i) => program.outlines[i]!);
    const [layer, others] = [rings(parts), rings(around)];
    const known = [...new Set(parts.map((i) => program.partOf[i]!))];
    const placeHere = (place: WeedPlace): WeedPlace[] => {
      if (place.kind === 'all out') return [place];
      if (place.part !== undefined)
        return known.includes(place.part) ? [{ ...place, part: known.indexOf(place.part) }] : [];
      const [x, y] = mapped(group.matrix, place.xMm, place.yMm);
      return layer.some((ring) => containsPoint([ring], x, y)) ? [place] : [];
    };
    return [
      {
        g,
        group,
        open: parts,
        contours: [...layer, ...others.slice(0, group.marks)],
        borders: others.slice(group.marks),
        weedPlaces: group.weedPlaces.flatMap(placeHere),
      },
    ];
  });
  const groups = borderedAnew(open, sheet, program.outlines);
  const box = boundsOf(groups.flatMap((group) => [...group.contours, ...group.borders]));
  if (!box) throw new InputError('nothing-open', sayNothingOpen(), { source: 'rest' });
  const edges = edgesOf(sheet.piece ?? { kind: 'sheet', edgeMm: 0 }, {
    bladeOffsetMm: settings.bladeOffsetMm,
    leaderMm: motion.leaderMm,
  });
  // On a mat with several pieces, new ones are laid where the first lay.
  const [dx, dy] = sheet.zones ? [0, 0] : [edges.sides - box.minX, edges.bottom - box.minY];
  const zones = sheet.zones?.filter(({ film }) => groups.some(({ group }) => group.filmId === film.id)) ?? null;
  const moved = groups.map((group) => ({
    ...group,
    contours: translateRings(group.contours, dx, dy),
    borders: translateRings(group.borders, dx, dy),
  }));
  const made = cutProgram({ groups: moved, settings, motion });
  const usedLengthMm = zones ? sheet.usedLengthMm : box.maxY + dy + edges.top;
  const keptMm2 =
    sheet.keptMm2 *
    (groups.reduce((sum, group) => sum + group.open.length, 0) /
      Math.max(
        1,
        sheet.groups.reduce((sum, group) => sum + group.contours, 0),
      ));
  const { takenMm2, cost } = zones
    ? {
        takenMm2: zones.reduce((sum, { widthMm, lengthMm }) => sum + widthMm * lengthMm, 0),
        cost: zones.reduce(
          (sum, { film, widthMm, lengthMm }) => sum + ((widthMm * lengthMm) / 1e6) * film.costPerM2,
          0,
        ),
      }
    : filmUse(sheet.film, { widthMm: sheet.piece?.widthMm ?? box.maxX + dx, usedLengthMm, keptMm2 });
  return {
    film: zones?.[0]?.film ?? sheet.film,
    piece: sheet.piece,
    mat: sheet.mat,
    zones,
    // The foil of its sheet is not laid yet, and is laid on this.
    foils: [],
    leftovers: [],
    usedLengthMm,
    keptMm2,
    filmMm2: takenMm2,
    filmCost: cost,
    cutMm: made.cutMm,
    estimateSeconds: made.seconds,
    pairsTotal: programPairs(made.runs),
    weedWork: null,
    groups: moved.map(
      ({
        g,
        group: { copy, perStrip, filmId, keptMm2: kept, contours, fingerprint, matrix, marks, asked },
        open,
        borders,
        weedPlaces,
      }) => ({
        of: g,
        copy,
        perStrip,
        filmId,
        keptMm2: kept * (open.length / Math.max(1, contours)),
        fingerprint,
        matrix: compose(translation(dx, dy), matrix),
        contours: open.length,
        marks,
        borders: borders.length,
        weedPlaces,
        asked,
      }),
    ),
    program: {
      ...settings,
      runs: made.runs,
      wholeAt: made.wholeAt,
      partOf: Int32Array.from(
        moved.flatMap(({ open, contours, borders }) => [
          ...renumbered(open.map((i) => program.partOf[i]!)),
          ...Array.from({ length: contours.length - open.length + borders.length }, () => -1),
        ]),
      ),
      outlines: moved.flatMap((group) => [...group.contours, ...group.borders]),
    },
  };
}

/** Where one border went round several copies of a film (of a copy in a counter only if that has none of its own), what is left of that film gets one anew, as far off: a box if it was one, else round what lies near each other. */
function borderedAnew<G extends { readonly group: FrozenGroup; readonly contours: Rings; readonly borders: Rings }>(
  groups: readonly G[],
  sheet: FrozenSheet,
  outlines: Rings,
): readonly G[] {
  const contoursOf = contoursOfGroups(sheet.groups);
  const from = contoursOf.map((_, g) => contoursOf.slice(0, g).reduce((sum, count) => sum + count, 0));
  const around = (g: number) =>
    outlines
      .slice(from[g]! + sheet.groups[g]!.contours + sheet.groups[g]!.marks, from[g]! + contoursOf[g]!)
      .filter(isOutline);
  const cut = (g: number) => outlines.slice(from[g], from[g]! + sheet.groups[g]!.contours + sheet.groups[g]!.marks);
  return filmsOfSheet(sheet).flatMap(({ id }) => {
    const isOf = ({ filmId }: FrozenGroup) => !sheet.zones || filmId === id;
    const [own, were] = [
      groups.filter(({ group }) => isOf(group)),
      sheet.groups.flatMap((group, g) => (isOf(group) ? [g] : [])),
    ];
    const shared = were.flatMap((g) =>
      around(g).filter((border) =>
        were.some(
          (other) =>
            other !== g &&
            around(other).length === 0 &&
            cut(other).some((ring) => containsPoint([border], ring[0]!, ring[1]!)),
        ),
      ),
    );
    if (shared.length === 0) return own;
    const [box, all] = [boundsOf(were.flatMap(around))!, boundsOf(were.flatMap(cut))!];
    const offMm = Math.min(all.minX - box.minX, all.minY - box.minY, box.maxX - all.maxX, box.maxY - all.maxY);
    const kind = shared.length === 1 && isBoxRing(shared[0]!) ? 'box' : 'groups';
    const anew = weedingBorders(
      kind,
      unite(own.flatMap(({ contours }) => contours.map((ring) => (signedArea(ring) < 0 ? reversed(ring) : ring)))),
      offMm,
    );
    return own.map((group, i) => ({
      ...group,
      borders: [...group.borders.filter((ring) => !isOutline(ring)), ...(i === 0 ? anew : [])],
    }));
  });
}

function mapped([a, b, c, d, e, f]: Matrix, x: number, y: number): [number, number] {
  return [a * x + c * y + e, b * x + d * y + f];
}

/** Part numbers without gaps. */
function renumbered(parts: readonly number[]): number[] {
  const known = new Map<number, number>();
  return parts.map((part) => known.get(part) ?? (known.set(part, known.size), known.size - 1));
}
