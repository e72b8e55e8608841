import { BLADE_ANGLES } from '../blade.js';
import { HANDS } from '../maker.js';
import { PRESS_KINDS } from '../press.js';
import { TACKS, TAPE_MATTERS } from '../tape.js';
import type { FieldGroup } from './field.js';
import { words } from './words.js';

/* What there is to know of tools and makers. */

export const MAT_FIELDS: readonly FieldGroup[] = [
  {
    title: 'The mat',
    fields: [
      { path: 'name', label: 'Name', kind: 'text' },
      { path: 'widthMm', label: 'Width', kind: 'length', help: 'Across the feed.' },
      { path: 'lengthMm', label: 'Length', kind: 'length' },
      { path: 'edgeMm', label: 'Rim', kind: 'length', help: 'The rim that does not hold film.' },
      {
        path: 'usesBefore',
        label: 'Uses before',
        kind: 'count',
        help: 'How often it had been used before the app began to count.',
      },
    ],
  },
];

export const BLADE_FIELDS: readonly FieldGroup[] = [
  {
    title: 'The blade',
    fields: [
      { path: 'name', label: 'Name', kind: 'text' },
      {
        path: 'angleDeg',
        label: 'Angle',
        kind: 'choice',
        options: BLADE_ANGLES.map((angle) => [angle, `${angle}°`] as const),
        help: 'A steep one is for thick film.',
      },
      { path: 'offsetMm', label: 'Offset', kind: 'length', help: 'How far its tip trails its holder.' },
      {
        path: 'metresBefore',
        label: 'Cut before',
        kind: 'figure',
        unit: 'm',
        help: 'What it had cut before the app began to count.',
      },
      { path: 'note', label: 'Note', kind: 'note' },
    ],
  },
];

export const CUTTER_FIELDS: readonly FieldGroup[] = [
  {
    title: 'The cutter',
    fields: [
      { path: 'name', label: 'Name', kind: 'text' },
      { path: 'widthMm', label: 'Widest film', kind: 'length' },
      {
        path: 'host',
        label: 'Address',
        kind: 'text',
        orNull: true,
        help: 'Where it listens in the network. Empty: it is given files.',
      },
      { path: 'port', label: 'Port', kind: 'count' },
    ],
  },
  {
    title: 'How it moves',
    fields: [
      { path: 'travelSpeedMmS', label: 'Speed in the air', kind: 'figure', unit: 'mm/s' },
      { path: 'accelerationMmS2', label: 'Acceleration', kind: 'figure', unit: 'mm/s²' },
      { path: 'liftSeconds', label: 'Knife up or down', kind: 'figure', unit: 's' },
      { path: 'bladeOffsetMm', label: 'Blade offset', kind: 'length' },
      { path: 'overcutMm', label: 'Overcut', kind: 'length' },
      { path: 'repeatabilityMm', label: 'Comes back to a point within', kind: 'length', help: 'Part of the trap.' },
    ],
  },
  {
    title: 'How it holds a roll',
    fields: [
      {
        path: 'leaderMm',
        label: 'Leader',
        kind: 'length',
        help: 'So much film stands out in front before the first cut.',
      },
      {
        path: 'tailMm',
        label: 'Tail',
        kind: 'length',
        help: 'So much at the end of a roll stays in the rollers. It cannot be cut.',
      },
    ],
  },
];

export const TAPE_FIELDS: readonly FieldGroup[] = [
  {
    title: 'The tape',
    fields: [
      { path: 'name', label: 'Name', kind: 'text' },
      {
        path: 'tack',
        label: 'Tack',
        kind: 'choice',
        options: words(TACKS),
        help: 'High for small and matt work, low for large.',
      },
      {
        path: 'matter',
        label: 'Made of',
        kind: 'choice',
        options: words(TAPE_MATTERS),
        help: 'Paper for wet laying, clear for layering.',
      },
      { path: 'widthMm', label: 'Width', kind: 'length' },
      { path: 'uses', label: 'Uses so far', kind: 'count' },
      { path: 'lastsUses', label: 'Lasts', kind: 'count', unit: 'uses' },
      { path: 'costPerM2', label: 'Cost', kind: 'figure', unit: 'per m²' },
      { path: 'note', label: 'Note', kind: 'note' },
    ],
  },
];

export const PRESS_FIELDS: readonly FieldGroup[] = [
  {
    title: 'The press',
    fields: [
      { path: 'name', label: 'Name', kind: 'text' },
      { path: 'kind', label: 'Kind', kind: 'choice', options: words(PRESS_KINDS) },
      { path: 'widthMm', label: 'Width', kind: 'length', help: 'Of a mug press: of its heating mat, laid flat.' },
      { path: 'lengthMm', label: 'Length', kind: 'length' },
      { path: 'mostC', label: 'Hottest', kind: 'figure', unit: '°C' },
      { path: 'note', label: 'Note', kind: 'note' },
    ],
  },
];

export const MAKER_FIELDS: readonly FieldGroup[] = [
  {
    title: 'The maker',
    fields: [
      { path: 'name', label: 'Name', kind: 'text' },
      { path: 'hand', label: 'Hand', kind: 'choice', options: words(HANDS) },
      {
        path: 'placementWithMarksMm',
        label: 'Places within, with marks',
        kind: 'length',
        help: 'Three times in a thousand it is more. The trap reckons with it.',
      },
      { path: 'placementByEyeMm', label: 'Places within, by eye', kind: 'length' },
      {
        path: 'stripBulkMm',
        label: 'Likes strips of waste of',
        kind: 'length',
        orNull: true,
        help: 'No larger circle fits into them. Empty for as each film says.',
      },
    ],
  },
];

export const SETTINGS_FIELDS: readonly FieldGroup[] = [
  { title: 'The shop', fields: [{ path: 'name', label: 'Name', kind: 'text' }] },
];

export const PIECE_FIELDS: readonly FieldGroup[] = [
  {
    title: 'The piece',
    fields: [
      {
        path: 'widthMm',
        label: 'Usable width',
        kind: 'length',
        help: 'Across the feed, what the pinch rollers need taken off.',
      },
      { path: 'lengthMm', label: 'Length', kind: 'length' },
      { path: 'edgeMm', label: 'Edge kept free', kind: 'length' },
      { path: 'place', label: 'Where it lies', kind: 'text' },
      { path: 'note', label: 'Note', kind: 'note' },
    ],
  },
];
