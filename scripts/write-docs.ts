import { writeFileSync } from 'node:fs';
import { SHOP_FILE_SCHEMA } from '../core/shop/index.js';
import { glossaryPage } from '../core/words/glossary.js';
import { apiPage } from '../server/api-page.js';
import { apiRoutes } from '../server/app.js';
import { enterRoutes } from '../server/routes/device-routes.js';
import type { SharedAddress, SharedDoor } from '../server/sharing/shared-door.js';
import type { Services } from '../server/services.js';

/* Writes the pages of the documentation that are made from the code. Routes are only looked at, so they need no services. */

writeFileSync('docs/glossary.md', glossaryPage());
writeFileSync('docs/shop.schema.json', `${JSON.stringify(SHOP_FILE_SCHEMA, null, 2)}\n`);
writeFileSync(
  'docs/api.md',
  apiPage([...enterRoutes({} as SharedDoor, {} as SharedAddress), ...apiRoutes({} as Services, {} as SharedDoor)]),
);
