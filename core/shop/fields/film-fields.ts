import { ADHESIVE_COLOURS, ADHESIVES, FILM_FAMILIES, FINISHES, PEELS, PRESSURES, type FilmFamily } from '../film.js';
import type { FieldGroup } from './field.js';
import { words } from './words.js';

const FAMILIES = Object.entries(FILM_FAMILIES).map(([id, { name }]) => [id, name] as const);

export const isPressed = (record: Readonly<Record<string, unknown>>): boolean =>
  FILM_FAMILIES[record['family'] as FilmFamily]?.way === 'press';

/** What there is to know of a film, in the order in which a maker thinks of it. */
export const FILM_FIELDS: readonly FieldGroup[] = [
  {
    title: 'What it is',
    fields: [
      { path: 'name', label: 'Name', kind: 'text' },
      { path: 'family', label: 'Family', kind: 'choice', options: FAMILIES },
      { path: 'colour', label: 'Colour', kind: 'colour' },
      { path: 'finish', label: 'Finish', kind: 'choice', options: words(FINISHES) },
      {
        path: 'directional',
        label: 'Has a direction',
        kind: 'yes',
        help: 'A brushed or patterned film is never turned on its sheet.',
      },
      {
        path: 'opacityPct',
        label: 'Hides what is below',
        kind: 'figure',
        unit: '%',
        help: '100 times its lightness over black, by that over white.',
      },
    ],
  },
  {
    title: 'What it bears',
    fields: [
      { path: 'thicknessUm', label: 'Thickness', kind: 'figure', unit: 'µm' },
      { path: 'thinnestMm', label: 'Thinnest stroke', kind: 'length', help: 'The thinnest that can be weeded.' },
      {
        path: 'stripBulkMm',
        label: 'Waste pulled in strips of',
        kind: 'length',
        help: 'No larger circle fits into a strip of waste, where a relief line can reach.',
      },
      {
        path: 'drawBackIndoorsMm',
        label: 'Draws back indoors',
        kind: 'length',
        help: 'How far a laid edge draws back, whatever the size.',
      },
      { path: 'drawBackSunMm', label: 'Draws back in sun', kind: 'length' },
      { path: 'shrinkPct', label: 'Shrinks under the press', kind: 'figure', unit: '%' },
      { path: 'takesOnTop', label: 'Takes film on top', kind: 'yes' },
      { path: 'mirrored', label: 'Cut mirrored', kind: 'yes', help: 'Cut from its back.' },
      { path: 'lightfastYears', label: 'Keeps its colour', kind: 'figure', unit: 'years', orNull: true },
    ],
  },
  {
    title: 'How it sticks',
    isAsked: (record) => !isPressed(record),
    fields: [
      { path: 'adhesive', label: 'Adhesive', kind: 'choice', options: words(ADHESIVES), orNull: true },
      {
        path: 'adhesiveColour',
        label: 'Colour of the adhesive',
        kind: 'choice',
        options: words(ADHESIVE_COLOURS),
        orNull: true,
        help: 'Grey hides what is below, and is of no use behind glass.',
      },
      { path: 'layingMinC', label: 'Lay it above', kind: 'figure', unit: '°C', orNull: true },
    ],
  },
  {
    title: 'Under the press',
    isAsked: isPressed,
    fields: [
      { path: 'press.tempC', label: 'Temperature', kind: 'figure', unit: '°C' },
      { path: 'press.seconds', label: 'Time', kind: 'figure', unit: 's' },
      { path: 'press.pressure', label: 'Pressure', kind: 'choice', options: words(PRESSURES) },
      { path: 'press.peel', label: 'Peel it', kind: 'choice', options: words(PEELS) },
      {
        path: 'press.tackSeconds',
        label: 'Tack press',
        kind: 'figure',
        unit: 's',
        orNull: true,
        help: 'A short press that only holds it.',
      },
      { path: 'press.bearsSeconds', label: 'Bears in all', kind: 'figure', unit: 's', orNull: true },
      { path: 'press.leastC', label: 'Sticks from', kind: 'figure', unit: '°C' },
    ],
  },
  {
    title: 'At the cutter',
    fields: [
      { path: 'forceG', label: 'Force', kind: 'figure', unit: 'g' },
      { path: 'speedMmS', label: 'Speed', kind: 'figure', unit: 'mm/s' },
    ],
  },
  {
    title: 'Buying it',
    fields: [
      { path: 'costPerM2', label: 'Cost', kind: 'figure', unit: 'per m²' },
      { path: 'supplier', label: 'Supplier', kind: 'text' },
      { path: 'article', label: 'Article', kind: 'text' },
      { path: 'reorderM2', label: 'Reorder below', kind: 'figure', unit: 'm²', help: '0 when nobody minds.' },
      { path: 'note', label: 'Note', kind: 'note' },
    ],
  },
];
