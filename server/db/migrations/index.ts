import type { Knex } from 'knex';
import { bench } from './001-bench.js';
import { fonts } from './002-fonts.js';
import { frozenSheets } from './003-frozen-sheets.js';
import { jobList } from './004-job-list.js';
import { films } from './005-films.js';
import { designPictures } from './006-design-pictures.js';
import { shop } from './007-shop.js';
import { devices } from './008-devices.js';
import { weeding } from './009-weeding.js';
import { batches } from './010-batches.js';
import { gangs } from './011-gangs.js';
import { rolls } from './012-rolls.js';
import { spoils } from './013-spoils.js';
import { copies } from './014-copies.js';
import { foil } from './015-foil.js';
import { offcutNumbers } from './016-offcut-numbers.js';
import { loneBatches } from './017-lone-batches.js';

/** Database versions in order, by name. A migration that has shipped is never edited. */
export const MIGRATIONS: Readonly<Record<string, Knex.Migration>> = {
  '001-bench': bench,
  '002-fonts': fonts,
  '003-frozen-sheets': frozenSheets,
  '004-job-list': jobList,
  '005-films': films,
  '006-design-pictures': designPictures,
  '007-shop': shop,
  '008-devices': devices,
  '009-weeding': weeding,
  '010-batches': batches,
  '011-gangs': gangs,
  '012-rolls': rolls,
  '013-spoils': spoils,
  '014-copies': copies,
  '015-foil': foil,
  '016-offcut-numbers': offcutNumbers,
  '017-lone-batches': loneBatches,
};
