import { BLANK_KINDS, MATTERS } from '../blank.js';
import type { FieldGroup } from './field.js';
import { words } from './words.js';

export const BLANK_FIELDS: readonly FieldGroup[] = [
  {
    title: 'The blank',
    fields: [
      { path: 'name', label: 'Name', kind: 'text' },
      { path: 'kind', label: 'Kind', kind: 'choice', options: words(BLANK_KINDS) },
      { path: 'matter', label: 'Made of', kind: 'choice', options: words(MATTERS) },
      { path: 'colour', label: 'Colour', kind: 'colour' },
      { path: 'note', label: 'Note', kind: 'note' },
    ],
  },
];
