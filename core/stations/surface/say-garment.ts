import { measuredFrom, SPOTS, type PlacedDesign } from '../../engines/surface/index.js';
import { count, formatLength, type Finding, type Ruling } from '../../words/index.js';
import type { GarmentMeasures, SurfacePatch, Team } from './decisions.js';
import { digitsOf, type Instance } from './instances.js';

/** Where a print sits. */
export function saySpot({ piece, spot, downMm, offMiddleMm }: GarmentMeasures): Ruling<SurfacePatch> {
  const usual = SPOTS[spot];
  const off = offMiddleMm ?? usual.offMiddleMm;
  return {
    id: 'surface.spot',
    stage: 'surface',
    subject: 'Where it sits',
    sentence: `Its top lies {value} below ${measuredFrom(piece, spot)}.`,
    value: downMm ?? usual.downMm,
    unit: 'mm',
    because: [
      off === 0
        ? 'Its middle lies on the middle line.'
        : `Its middle lies ${formatLength(off)} mm off the middle line.`,
      'That is usual on an adult’s M. Smaller sizes take less. Keep it off seams, buttons and zips.',
    ],
    overridden: downMm !== null || offMiddleMm !== null,
    proposed: usual.downMm,
  };
}

/** The sizes of an order. */
export function saySizes(instances: readonly Instance[], { widthMm, heightMm }: PlacedDesign): Ruling<SurfacePatch> {
  const pieces = instances.reduce((sum, { copies }) => sum + copies, 0);
  return {
    id: 'surface.sizes',
    stage: 'surface',
    subject: 'Sizes of the order',
    sentence: `It is made in {value}, for ${count(pieces, 'garment')} in all.`,
    value: count(instances.length, 'size'),
    unit: '',
    because: instances.map(
      ({ label, copies, factor }) =>
        `${label}: ${formatLength(widthMm * factor)} × ${formatLength(heightMm * factor)} mm, ${count(copies, 'garment')}.`,
    ),
  };
}

/** What is made for a team. */
export function sayTeam({ members, numberPart }: Team): Ruling<SurfacePatch> {
  const sizes = new Map<string, number>();
  for (const { size } of members) if (size !== '') sizes.set(size, (sizes.get(size) ?? 0) + 1);
  const digits = digitsOf(members).flatMap((many, digit) => (many > 0 ? [`${digit}: ${many}`] : []));
  return {
    id: 'surface.team',
    stage: 'surface',
    subject: 'The team',
    sentence: 'It is made for {value}, each a design of its own.',
    value: count(members.length, 'member'),
    unit: '',
    because: [
      ...(numberPart === null
        ? ['Numbers are not part of it.']
        : [`Digits over the whole order: ${digits.join(', ') || 'none'}.`]),
      ...(sizes.size > 0
        ? [
            `Sizes: ${[...sizes].map(([size, many]) => `${size}: ${many}`).join(', ')}. Each print is sized with its garment.`,
          ]
        : []),
    ],
  };
}

/** Names that were too wide. */
export function sayCondensed(
  names: readonly { readonly label: string; readonly across: number; readonly down: number }[],
  { widestMm, condense }: Team,
): Ruling<SurfacePatch> {
  const percent = (share: number) => `${Math.round(share * 100)} %`;
  return {
    id: 'surface.condensed',
    stage: 'surface',
    subject: 'Long names',
    sentence: `Names wider than ${formatLength(widestMm)} mm are condensed: {value}.`,
    value: condense === 'all' ? 'all alike' : count(names.length, 'name'),
    unit: '',
    because: names.map(
      ({ label, across, down }) =>
        `${label}: ${percent(across)} as wide${down < 1 ? `, and ${percent(down)} as high` : ''}.`,
    ),
  };
}

/** A list whose letterings were not named. */
export function sayNoLetters(): Finding<SurfacePatch> {
  return {
    code: 'team-without-letters',
    severity: 'warning',
    stage: 'surface',
    message: 'All designs of the team are alike. Say which lettering is the name, and which the number.',
  };
}

/** Why a line of a list cannot be taken. */
export function sayMoreCells(line: number, text: string): string {
  return `Line ${line} has more than a name, a number and a size: “${text.trim().slice(0, 40)}”.`;
}

export function sayLongName(line: number, most: number): string {
  return `The name in line ${line} is longer than ${most} letters.`;
}

export function sayManyMembers(count: number, most: number): string {
  return `That is ${count} lines; one job takes ${most}. Make a second job for the others.`;
}
