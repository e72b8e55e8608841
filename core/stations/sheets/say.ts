import type { Box } from '../../geometry/index.js';
import type { Film, FilmPiece } from '../../shop/index.js';
import { count, formatLength, type Finding, type Ruling } from '../../words/index.js';
import type { PreparePatch } from '../prepare/index.js';
import type { SheetsPatch } from './decisions.js';
import type { GangProposal } from './propose-gang.js';
import type { SheetPlan } from './sheet-plan.js';

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
    because: [isInside ? 'It goes inside the glass and is read from outside.' : 'This film is cut from the back and turned over when it is put on.', 'Forgetting this is the most expensive mistake there is.'],
  };
}

const EACH_AS_IT_FITS = { label: 'Turn each layer as it fits best', patch: { sheets: { oneDirection: false } } } as const;

/** How the layers of a design lie on their films against each other. */
export function sayDirection(inOne: boolean): Ruling<SheetsPatch> {
  return {
    id: 'sheets.direction',
    stage: 'sheets',
    subject: 'Direction of the layers',
    sentence: inOne ? 'All layers lie in {value} on their films.' : 'Each layer is turned {value}.',
    value: inOne ? 'one direction' : 'as it fits best',
    unit: '',
    because: [inOne ? 'Or turned by half. A cutter feeds a little too far or too short, and films draw back more along the roll. In one direction, all layers are off by the same and still fit.' : 'It saves film, but a layer that is turned by a quarter fits the others only if the cutter feeds as true along the roll as across it.'],
    overridden: !inOne,
    alternatives: [inOne ? EACH_AS_IT_FITS : { label: 'All in one direction', patch: { sheets: { oneDirection: true } } }],
  };
}

const FROM = { roll: 'the roll', sheet: 'a sheet on a mat', offcut: 'an offcut on a mat' } as const;

/** The piece that a film is cut from. */
export function sayPiece(film: Film, sheets: readonly SheetPlan[]): Ruling<SheetsPatch> {
  const first = sheets[0];
  return {
    id: `sheets.${film.id}`,
    stage: 'sheets',
    subject: `Piece of ${film.name}`,
    sentence: first ? `${film.name} is cut from {value}${sheets.length > 1 ? `, ${sheets.length} pieces in all` : ''}.` : `${film.name} has {value} to be cut from.`,
    value: first ? FROM[first.piece.kind] : 'no piece',
    unit: '',
    because: first
      ? [
          first.piece.kind === 'roll' ? `No smaller piece in stock holds it. ${mm(first.usedLengthMm)} mm are taken from the roll.` : 'It is the smallest piece in stock that holds the layer, so no new offcut is made.',
          `Its edges stay free: ${mm(first.edges.sides)} mm at the sides, and ${mm(first.edges.bottom)} mm at the start, where the knife is turned.`,
          ...(film.directional ? ['This film has a direction, so it is not turned.'] : []),
        ]
      : ['No piece of this film holds it.'],
  };
}

/** A piece that is in stock and cannot be cut as it is. */
export function sayLeftOut(film: Film, { kind, widthMm, lengthMm }: FilmPiece, cutterWidthMm: number): Finding<SheetsPatch> {
  return kind === 'roll'
    ? { code: 'piece-too-wide', severity: 'note', stage: 'sheets', message: `The roll of ${film.name} is ${mm(widthMm)} mm wide, but the cutter takes ${mm(cutterWidthMm)} mm. It is not used. Cut it narrower to use it.` }
    : { code: 'piece-without-mat', severity: 'note', stage: 'sheets', message: `No mat is large enough for the ${kind} of ${film.name}, ${mm(widthMm)} × ${mm(lengthMm)} mm. It is not used. Cut it smaller to use it.` };
}

export function sayFilmMissing(film: Film): Finding<SheetsPatch> {
  return { code: 'film-missing', severity: 'blocker', stage: 'sheets', message: `There is no ${film.name} in stock.` };
}

/** No piece could hold even one copy. Leaving out the border, or turning it by itself, is offered only where it then fits. */
export function sayNoRoom({ film, box, hasBorder, hasMarks, fitsWithoutBorder, fitsTurned }: { readonly film: Film; readonly box: Box; readonly hasBorder: boolean; readonly hasMarks: boolean; readonly fitsWithoutBorder: boolean; readonly fitsTurned: boolean }): Finding<SheetsPatch & PreparePatch> {
  return {
    code: 'film-too-small',
    severity: 'blocker',
    stage: 'sheets',
    message: `The layer of ${film.name} is ${mm(box.maxX - box.minX)} × ${mm(box.maxY - box.minY)} mm${hasBorder ? ' with its border' : hasMarks ? ' with its marks' : ''}. No piece of that film is large enough${fitsTurned ? ' while all layers lie in one direction' : ''}.`,
    remedies: [...(fitsTurned ? [EACH_AS_IT_FITS] : []), ...(fitsWithoutBorder ? [{ label: 'Leave out the weeding border', patch: { preparation: { border: 'none' } } } as const] : [])],
  };
}

/** There is film for some of the copies. `together` is how many all films suffice for. */
export function sayFilmUsedUp({ film, have, copies, together }: { readonly film: Film; readonly have: number; readonly copies: number; readonly together: number }): Finding<SheetsPatch> {
  return {
    code: 'film-used-up',
    severity: 'blocker',
    stage: 'sheets',
    message: `There is enough ${film.name} for ${have} of ${copies} copies.`,
    remedies: together > 0 ? [{ label: `Make ${together === 1 ? 'one copy' : `${together} copies`}`, patch: { sheets: { copies: together } } }] : [],
  };
}

/** A run that would be laid strip by strip in less time. */
export function sayGangSaves({ gang, strips, aloneMin, inStripsMin }: GangProposal, { copies, films }: { readonly copies: number; readonly films: number }): Finding<SheetsPatch & PreparePatch> {
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
export function sayStrips({ copies, strips, perStrip }: { readonly copies: number; readonly strips: number; readonly perStrip: number }): Ruling<SheetsPatch> {
  const more = strips * perStrip - copies;
  return {
    id: 'sheets.gang',
    stage: 'sheets',
    subject: 'Strips',
    sentence: `${count(copies, 'copy', 'copies')} ${copies === 1 ? 'is' : 'are'} cut as {value}.`,
    value: `${count(strips, 'strip')} of ${perStrip}`,
    unit: '',
    because: [more > 0 ? `That makes ${more} more than asked for, which make up for what is spoiled.` : 'They come out even: none is left over for what is spoiled.', 'A strip is laid, cut and aligned as one: nothing of it is moved against the rest.'],
  };
}
