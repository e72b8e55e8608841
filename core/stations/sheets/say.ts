import type { Box } from '../../geometry/index.js';
import { fieldOf, FOIL_OVERHANG_MM, sayWhyMirrored, type Film, type FilmPiece } from '../../shop/index.js';
import { count, formatLength, listed, type Finding, type Ruling } from '../../words/index.js';
import type { Loadable, MissingFoil, SheetPlan, Shortage } from '../../laying/index.js';
import type { PreparePatch } from '../prepare/index.js';
import type { SheetsPatch } from './decisions.js';
import type { GangProposal } from './propose-gang.js';

const mm = (value: number) => formatLength(value);

/** `isInside`: it goes on the inner face of glass. */
export function sayMirrored(film: Film, isInside: boolean): Ruling<SheetsPatch> {
  return {
    id: `sheets.mirror.${film.id}`,
    stage: 'sheets',
    subject: `Mirrored: ${film.name}`,
    sentence: '{value} is cut as a mirror image.',
    value: film.name,
    unit: '',
    because: [sayWhyMirrored(film, isInside), 'Forgetting this is the most expensive mistake there is.'],
  };
}

const EACH_AS_IT_FITS = {
  label: 'Turn each layer as it fits best',
  patch: { sheets: { oneDirection: false } },
} as const;

/** How the layers of a design lie on their films against each other. */
export function sayDirection(inOne: boolean): Ruling<SheetsPatch> {
  return {
    id: 'sheets.direction',
    stage: 'sheets',
    subject: 'Direction of the layers',
    sentence: inOne ? 'All layers lie in {value} on their films.' : 'Each layer is turned {value}.',
    value: inOne ? 'one direction' : 'as it fits best',
    unit: '',
    because: [
      inOne
        ? 'Or turned by half. A cutter feeds a little too far or too short, and films draw back more along the roll. In one direction, all layers are off by the same and still fit.'
        : 'It saves film, but a layer that is turned by a quarter fits the others only if the cutter feeds as true along the roll as across it.',
    ],
    overridden: !inOne,
    alternatives: [
      inOne ? EACH_AS_IT_FITS : { label: 'All in one direction', patch: { sheets: { oneDirection: true } } },
    ],
  };
}

const FROM = { roll: 'the roll', sheet: 'a sheet', offcut: 'an offcut' } as const;

/** The pieces that a film is cut from, of those that the cutter can take. */
export function sayFromWhichPieces(
  film: Film,
  sheets: readonly SheetPlan[],
  loadable: readonly Loadable[],
): Ruling<SheetsPatch> {
  const used = [
    ...new Map(
      sheets.flatMap((sheet) =>
        sheet.pieces
          .filter(({ filmId }) => filmId === film.id)
          .map((piece) => [`${piece.id} ${sheet.key}`, { piece, sheet }] as const),
      ),
    ).values(),
  ];
  const [first] = used;
  const all = { id: `sheets.${film.id}`, stage: 'sheets', subject: `Piece of ${film.name}`, unit: '' } as const;
  if (!first)
    return {
      ...all,
      sentence: `${film.name} has {value} to be cut from.`,
      value: 'no piece',
      because: ['No piece of this film holds it.'],
    };
  const {
    piece,
    sheet: { edges },
  } = first;
  const fromRoll = used
    .filter((one) => one.piece.kind === 'roll')
    .reduce(
      (sum, { sheet, piece: { id } }) =>
        sum +
        (sheet.zones
          ? Math.max(...sheet.zones.filter((zone) => zone.piece.id === id).map(({ lengthMm }) => lengthMm))
          : sheet.usedLengthMm),
      0,
    );
  const isOne = used.every((one) => one.piece.id === piece.id);
  return {
    ...all,
    sentence: `${film.name} is cut from {value}.`,
    value: isOne ? FROM[piece.kind] : `${used.length} pieces`,
    because: [
      loadable.length === 1
        ? 'It is the only piece in stock that the cutter can take.'
        : `Of all pieces in stock, least film is spent ${isOne ? 'on this one' : 'on these'}: what is left over and worth keeping goes back to the rack.`,
      ...(fromRoll > 0 ? [`${mm(fromRoll)} mm are taken from the roll.`] : []),
      `Its edges stay free: ${mm(edges.sides)} mm at the sides, and ${mm(edges.bottom)} mm at the start, where the knife is turned.`,
      ...sayCutOff(used, loadable),
      ...(film.directional ? ['This film has a direction, so it is not turned.'] : []),
    ],
  };
}

/** What is cut off pieces that no mat holds whole, by hand, before they are laid on one. */
function sayCutOff(
  used: readonly { readonly piece: FilmPiece; readonly sheet: SheetPlan }[],
  loadable: readonly Loadable[],
): string[] {
  return used.flatMap(({ piece, sheet: { zones } }) => {
    const { mat, cutOff } = loadable.find((on) => on.piece.id === piece.id) ?? {};
    const zone = zones?.find((one) => one.piece.id === piece.id);
    if (!mat || !cutOff || !zone) return [];
    const field = fieldOf(mat);
    return [
      `No mat holds the whole ${piece.kind}. The ${mat.name} holds ${mm(field.widthMm)} × ${mm(field.lengthMm)} mm inside its rim of ${mm(mat.edgeMm)} mm, so ${mm(zone.widthMm)} × ${mm(zone.lengthMm)} mm are cut off the ${piece.kind} first.`,
    ];
  });
}

/** A roll that is cut in several sections. */
export function saySections(film: Film, sections: number, longFeedMm: number): Ruling<SheetsPatch> {
  return {
    id: `sheets.sections.${film.id}`,
    stage: 'sheets',
    subject: `Sections of ${film.name}`,
    sentence: `The roll of ${film.name} is cut in {value}.`,
    value: count(sections, 'section'),
    unit: '',
    because: [
      `A roll that is fed more than ${mm(longFeedMm)} mm in one pass may drift. Nothing reaches from one section into the next.`,
      'Two short lines are cut where a section ends, one at either side. With both on the cutter’s zero line the roll is square again, and the next section begins there.',
    ],
  };
}

interface LongFeed {
  readonly lengthMm: number;
  readonly longFeedMm: number;
  readonly isInPanels: boolean;
}

/** A roll that is fed far in one pass, since what lies on it is longer in one piece. Panels are as short as the app could make them: of those it is a note. */
export function sayLongFeed(film: Film, { lengthMm, longFeedMm, isInPanels }: LongFeed): Finding<SheetsPatch> {
  return {
    code: 'long-feed',
    severity: isInPanels ? 'note' : 'warning',
    stage: 'sheets',
    message: `The roll of ${film.name} is fed ${mm(lengthMm)} mm in one pass, more than ${mm(longFeedMm)} mm, so it may drift. It cannot be cut in sections, because ${isInPanels ? 'a panel' : 'what lies on it'} is longer in one piece. Pull slack off the roll, and feed the full length out and back once before you cut.`,
  };
}

/** Films that share a mat, or do not. */
export function sayZones(isShared: boolean, zoned: readonly SheetPlan[]): Ruling<SheetsPatch> {
  const films = new Set(zoned.flatMap((sheet) => sheet.films.map(({ id }) => id))).size;
  return {
    id: 'sheets.zones',
    stage: 'sheets',
    subject: 'Pieces on a mat',
    sentence: isShared
      ? `${count(films, 'film')} ${films === 1 ? 'is' : 'are'} cut as {value}.`
      : 'Each film is cut {value}.',
    value: isShared ? `pieces on ${count(zoned.length, 'mat')}` : 'by itself',
    unit: '',
    because: [
      isShared
        ? 'They are cut with the same settings, so they go through the cutter side by side, in fewer passes. The card says which piece lies where.'
        : 'Films that are cut with the same settings could share a mat, which takes fewer passes.',
    ],
    overridden: !isShared,
    alternatives: [
      isShared
        ? { label: 'Cut each film by itself', patch: { sheets: { zones: false } } }
        : { label: 'Let films share a mat', patch: { sheets: { zones: true } } },
    ],
  };
}

/** Copies that lie in counters of others, or might. */
export function sayInCounters(mayLie: boolean, copies: number): Ruling<SheetsPatch> {
  return {
    id: 'sheets.counters',
    stage: 'sheets',
    subject: 'Large counters',
    sentence: mayLie ? '{value} in large counters of others.' : 'Large counters stay {value}.',
    value: mayLie ? `${count(copies, 'layer')} ${copies === 1 ? 'lies' : 'lie'}` : 'empty',
    unit: '',
    because: [
      mayLie
        ? 'That film would be waste. It is cut first. Cut it out with a knife before you lift what is round it.'
        : 'Small layers of the same film could lie there. They would be cut out with a knife before what is round them is lifted.',
    ],
    overridden: !mayLie,
    alternatives: [
      mayLie
        ? { label: 'Leave counters empty', patch: { sheets: { inCounters: false } } }
        : { label: 'Use large counters', patch: { sheets: { inCounters: true } } },
    ],
  };
}

/** A piece that is in stock and cannot be cut as it is: a roll too wide for the cutter, or another where the cutter takes no mat. */
export function sayLeftOut(film: Film, { kind, widthMm }: FilmPiece, cutterWidthMm: number): Finding<SheetsPatch> {
  return kind === 'roll'
    ? {
        code: 'piece-too-wide',
        severity: 'note',
        stage: 'sheets',
        message: `The roll of ${film.name} is ${mm(widthMm)} mm wide, but the cutter takes ${mm(cutterWidthMm)} mm. It is not used. Cut it narrower to use it.`,
      }
    : {
        code: 'piece-without-mat',
        severity: 'note',
        stage: 'sheets',
        message: `The shop has no mat that the cutter takes, and the ${kind} of ${film.name} needs one. It is not used. Add a mat under Tools.`,
      };
}

/** There is none of a film; what is laid on it if it is heat adhesive. */
export function sayFilmMissing(film: Film, foils: readonly Film[]): Finding<SheetsPatch> {
  const names = listed(foils.map(({ name }) => name));
  return {
    code: 'film-missing',
    severity: 'blocker',
    stage: 'sheets',
    message: `There is no ${film.name} in stock.${foils.length > 0 ? ` Foil is laid on it (${names}). Buy heat adhesive, or choose another film.` : ''}`,
  };
}

/** What is not there of a foil. */
export function sayFoilMissing(missing: MissingFoil): Finding<SheetsPatch> {
  return { code: 'foil-missing', severity: 'blocker', stage: 'sheets', message: sayFoilShort(missing) };
}

/** The same as a sentence. */
export function sayFoilShort({ film, widthMm, lengthMm, quantity }: MissingFoil): string {
  const size = `${mm(widthMm)} × ${mm(lengthMm)} mm`;
  const what =
    quantity === 1
      ? `No piece of ${film.name} is left for a rectangle of ${size}`
      : `No pieces of ${film.name} are left for ${quantity} rectangles, the largest ${size}`;
  return `${what}. Book more of it into the stock, or choose another film.`;
}

/** How a foil comes to its place, and how much is taken for it. */
export function sayFoil(film: Film, sheets: readonly SheetPlan[]): Ruling<SheetsPatch> {
  const cuts = sheets.flatMap(({ foils }) => foils.filter((one) => one.film.id === film.id).flatMap((one) => one.cuts));
  return {
    id: `sheets.foil.${film.id}`,
    stage: 'sheets',
    subject: film.name,
    sentence: `${film.name} is not cut by the blade. Take {value} of it for this job.`,
    value: count(cuts.length, 'rectangle'),
    unit: '',
    because: [
      'The heat adhesive under it is cut and weeded, and the foil sticks only there.',
      `Each rectangle is ${FOIL_OVERHANG_MM} mm larger than its artwork on each side, so that it covers all of it when it is laid a little askew.`,
    ],
  };
}

/** No piece could hold even one copy. Leaving out the border, or turning it by itself, is offered only where it then fits. */
export function sayNoRoom({
  film,
  box,
  hasBorder,
  hasMarks,
  fitsWithoutBorder,
  fitsTurned,
}: {
  readonly film: Film;
  readonly box: Box;
  readonly hasBorder: boolean;
  readonly hasMarks: boolean;
  readonly fitsWithoutBorder: boolean;
  readonly fitsTurned: boolean;
}): Finding<SheetsPatch & PreparePatch> {
  return {
    code: 'film-too-small',
    severity: 'blocker',
    stage: 'sheets',
    message: `The layer of ${film.name} is ${mm(box.maxX - box.minX)} × ${mm(box.maxY - box.minY)} mm${hasBorder ? ' with its border' : hasMarks ? ' with its marks' : ''}. No piece of that film is large enough${fitsTurned ? ' while all layers lie in one direction' : ''}.`,
    remedies: [
      ...(fitsTurned ? [EACH_AS_IT_FITS] : []),
      ...(fitsWithoutBorder
        ? [{ label: 'Leave out the weeding border', patch: { preparation: { border: 'none' } } } as const]
        : []),
    ],
  };
}

interface UsedUp {
  readonly film: Film;
  /** There is enough for so many copies. */
  readonly have: number;
  readonly copies: number;
  /** For how many all films suffice. */
  readonly together: number;
}

/** There is film for some of the copies: how many, and what would help. */
export function sayFilmUsedUp({
  film,
  have,
  copies,
  together,
  ...help
}: UsedUp & Pick<Shortage, 'spacingMm' | 'roll'>): Finding<SheetsPatch> {
  return {
    code: 'film-used-up',
    severity: 'blocker',
    stage: 'sheets',
    message: `There is enough ${film.name} for ${have} of ${copies} copies. ${sayHelp(help)}`.trim(),
    remedies: [
      ...(help.spacingMm !== null
        ? [{ label: `Lay them ${mm(help.spacingMm)} mm apart`, patch: { sheets: { spacingMm: help.spacingMm } } }]
        : []),
      ...(together > 0
        ? [
            {
              label: `Make ${together === 1 ? 'one copy' : `${together} copies`}`,
              patch: { sheets: { copies: together } },
            },
          ]
        : []),
    ],
  };
}

/** What would help where film is short. */
export function sayHelp({ spacingMm, roll }: Pick<Shortage, 'spacingMm' | 'roll'>): string {
  return [
    ...(spacingMm !== null ? [`With ${mm(spacingMm)} mm between pieces there is room for all.`] : []),
    ...(roll
      ? [
          `A roll that is ${mm(roll.widthMm)} mm wide must be at least ${(Math.ceil(roll.lengthMm / 100) / 10).toFixed(1)} m long for it.`,
        ]
      : []),
  ].join(' ');
}

/** A run that would be laid strip by strip in less time. */
export function sayGangSaves(
  { gang, strips, aloneMin, inStripsMin }: GangProposal,
  { copies, films }: { readonly copies: number; readonly films: number },
): Finding<SheetsPatch & PreparePatch> {
  const { across, down } = gang;
  return {
    code: 'gang-saves',
    severity: 'note',
    stage: 'sheets',
    message: `${copies} copies in ${count(films, 'film')} are aligned one by one, which takes about ${Math.round(aloneMin)} minutes. In ${count(strips, 'strip')} of ${across * down} with one set of marks each it is about ${Math.round(inStripsMin)}.`,
    remedies: [{ label: `Make strips of ${across} × ${down}`, patch: { preparation: { gang } } }],
  };
}

/** Copies that are cut in strips. */
export function sayStrips({
  copies,
  strips,
  perStrip,
}: {
  readonly copies: number;
  readonly strips: number;
  readonly perStrip: number;
}): Ruling<SheetsPatch> {
  const more = strips * perStrip - copies;
  return {
    id: 'sheets.gang',
    stage: 'sheets',
    subject: 'Strips',
    sentence: `${count(copies, 'copy', 'copies')} ${copies === 1 ? 'is' : 'are'} cut as {value}.`,
    value: `${count(strips, 'strip')} of ${perStrip}`,
    unit: '',
    because: [
      more > 0
        ? `That makes ${more} more than asked for, which make up for what is spoiled.`
        : 'They come out even: none is left over for what is spoiled.',
      'A strip is laid, cut and aligned as one: nothing of it is moved against the rest.',
    ],
  };
}
