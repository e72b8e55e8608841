import { expect, it } from 'vitest';
import { SHIPPED_FONTS } from '../../core/engines/artwork/index.js';
import { fontUrl } from './font-files.js';

it.each(SHIPPED_FONTS.flatMap(({ files }) => files))('%s is among the pages’ files', (file) =>
  expect(fontUrl(file)).toContain(file.split('/').at(-1)),
);
