import { measureOf, type Blank, type BlankReading, type BlankTrial, type Measure } from '../../shop/index.js';
import type { SurfaceDecisions, SurfaceKindName, SurfacePatch } from './decisions.js';

const KIND_OF: Readonly<Record<Blank['kind'], SurfaceKindName>> = {
  flat: 'flat',
  cylinder: 'cylinder',
  taper: 'taper',
  compound: 'compound',
  glass: 'glass',
  garment: 'garment',
};

/**
 * The change that takes a blank of the shop for the surface: its kind, matter and colour, and of its measures the smallest that was read. What was never
 * read of it keeps the figure that stands there.
 */
export function fromBlank(blank: Blank, { surface }: SurfaceDecisions): SurfacePatch {
  const kind = KIND_OF[blank.kind];
  const read = (what: Measure, otherwise: number) => measureOf(blank, what) ?? otherwise;
  const common = { kind, blankId: blank.id, ground: { matter: blank.matter, colour: blank.colour } };
  switch (kind) {
    case 'cylinder': {
      const round = measureOf(blank, 'circumference');
      const across = measureOf(blank, 'diameter');
      const girth =
        round !== null && (across === null || round <= across * Math.PI)
          ? ({ girthBy: 'circumference', girthMm: round } as const)
          : across !== null
            ? ({ girthBy: 'diameter', girthMm: across } as const)
            : {};
      return {
        surface: {
          ...common,
          cylinder: {
            ...surface.cylinder,
            ...girth,
            straightHeightMm: read('straight height', surface.cylinder.straightHeightMm),
            gapMm: read('handle gap', 0),
          },
        },
      };
    }
    case 'taper': {
      const [top, foot] = [
        read('diameter at the top', surface.taper.d1Mm),
        read('diameter at the foot', surface.taper.d2Mm),
      ];
      const slant = measureOf(blank, 'slant');
      const side =
        slant !== null
          ? ({ sideBy: 'slant', sideMm: slant } as const)
          : ({ sideBy: 'upright', sideMm: read('straight height', surface.taper.sideMm) } as const);
      return {
        surface: {
          ...common,
          taper: {
            ...surface.taper,
            d1Mm: Math.max(top, foot),
            d2Mm: Math.min(top, foot),
            wide: top >= foot ? 'top' : 'foot',
            ...side,
            gapMm: read('handle gap', 0),
          },
        },
      };
    }
    case 'compound': {
      const [chordMm, heightMm] = [
        read('chord', surface.compound.across.chordMm),
        read('height of the chord', surface.compound.across.heightMm),
      ];
      return {
        surface: {
          ...common,
          compound: {
            ...surface.compound,
            across: { chordMm, heightMm },
            widthMm: read('width', surface.compound.widthMm),
            heightMm: read('height', surface.compound.heightMm),
          },
        },
      };
    }
    case 'garment':
      return { surface: common };
    default:
      return {
        surface: {
          ...common,
          flat: {
            ...surface.flat,
            widthMm: read('width', surface.flat.widthMm),
            heightMm: read('height', surface.flat.heightMm),
          },
        },
      };
  }
}

/** A reading that was taken for a job, to be written down with the blank: what, how much, and what it is read with. */
export type TakenReading = Pick<BlankReading, 'what' | 'mm' | 'with'>;

/** What of a surface's figures is a reading of the thing itself; none where nothing is measured. */
export function readingsOf({ surface }: SurfaceDecisions): TakenReading[] {
  const { kind, flat, cylinder, taper, compound } = surface;
  const gap = (mm: number): TakenReading[] => (mm > 0 ? [{ what: 'handle gap', mm, with: 'tape' }] : []);
  switch (kind) {
    case 'unmeasured':
    case 'garment':
      return [];
    case 'flat':
    case 'glass':
      return [
        { what: 'width', mm: flat.widthMm, with: 'tape' },
        { what: 'height', mm: flat.heightMm, with: 'tape' },
      ];
    case 'cylinder':
      return [
        cylinder.girthBy === 'circumference'
          ? { what: 'circumference', mm: cylinder.girthMm, with: 'tape' }
          : { what: 'diameter', mm: cylinder.girthMm, with: 'calliper' },
        { what: 'straight height', mm: cylinder.straightHeightMm, with: 'rule' },
        ...gap(cylinder.gapMm),
      ];
    case 'taper': {
      const [top, foot] = taper.wide === 'top' ? [taper.d1Mm, taper.d2Mm] : [taper.d2Mm, taper.d1Mm];
      return [
        { what: 'diameter at the top', mm: top, with: 'calliper' },
        { what: 'diameter at the foot', mm: foot, with: 'calliper' },
        { what: taper.sideBy === 'slant' ? 'slant' : 'straight height', mm: taper.sideMm, with: 'rule' },
        ...gap(taper.gapMm),
      ];
    }
    case 'compound':
      return [
        { what: 'width', mm: compound.widthMm, with: 'tape' },
        { what: 'height', mm: compound.heightMm, with: 'tape' },
        { what: 'chord', mm: compound.across.chordMm, with: 'template' },
        { what: 'height of the chord', mm: compound.across.heightMm, with: 'template' },
      ];
  }
}

/** Those of some readings that a blank's record does not say already. */
export function newReadings(taken: readonly TakenReading[], { readings }: Pick<Blank, 'readings'>): TakenReading[] {
  return taken.filter(
    ({ what, mm }) => mm >= 0.1 && !readings.some((known) => known.what === what && Math.abs(known.mm - mm) < 0.05),
  );
}

/** What worked on a blank before, the latest first: worth more than any formula. */
export function workedBefore({ trials }: Pick<Blank, 'trials'>): readonly BlankTrial[] {
  return trials.filter(({ held }) => held === 'well').sort((a, b) => b.on.localeCompare(a.on));
}
