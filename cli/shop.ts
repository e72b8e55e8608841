import { writeFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { DEMO_SHOP_FILE } from '../demo/shop.js';
import { required } from './input.js';

/** Writes the demo shop as a file, to be changed and planned with. */
export async function shopCommand(args: string[]): Promise<void> {
  const { values } = parseArgs({ args, options: { out: { type: 'string' } } });
  await writeFile(required(values.out, 'shop', 'out'), `${JSON.stringify(DEMO_SHOP_FILE, null, 2)}\n`);
}
