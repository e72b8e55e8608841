import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { projectPath } from '../platform/project.js';
import { CannotOpen } from './db/open-database.js';
import { Problem } from './problem.js';
import { ownAddresses } from './sharing/shared-door.js';
import { shareWishOf, withShareValue } from './share-wish.js';
import { startServer, type RunningServer } from './start.js';

const { values } = parseArgs({
  args: withShareValue(process.argv.slice(2)),
  options: {
    data: { type: 'string', default: 'data' },
    port: { type: 'string', default: '4310' },
    'cutter-control-port': { type: 'string', default: '9311' },
    share: { type: 'string' },
    cert: { type: 'string' },
    key: { type: 'string' },
  },
});

const server = await started();
console.log(`Wry Lantern: ${server.url}`);
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => void server.close().then(() => process.exit(0)));
if (values.share !== undefined) await share(server, values.share);
if (server.door.address) console.log(saySharing(server.door.address.origin, server.door.address.isSecure));

/** What stops it is said in one sentence, without a stack. */
async function started(): Promise<RunningServer> {
  try {
    return await startServer({
      dataFolder: values.data,
      port: Number(values.port),
      cutterControlPort: Number(values['cutter-control-port']),
      pagesFolder: projectPath('dist', 'web'),
      warmUp: true,
    });
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (error instanceof CannotOpen) console.error(error.message);
    else if (code === 'EADDRINUSE')
      console.error(
        `Port ${values.port} is taken: Wry Lantern may be running already. Stop it, or start with --port N.`,
      );
    else throw error;
    process.exit(1);
  }
}

async function share({ door }: RunningServer, wish: string): Promise<void> {
  try {
    const { address, port } = shareWishOf(wish, ownAddresses());
    const read = (file: string | undefined) => (file === undefined ? null : readFileSync(file, 'utf8'));
    await door.open({ address, port, certificate: read(values.cert), privateKey: read(values.key) });
  } catch (error) {
    console.error(`Not shared: ${error instanceof Problem || error instanceof Error ? error.message : String(error)}`);
  }
}

function saySharing(url: string, isSecure: boolean): string {
  const warning = isSecure
    ? ''
    : ' It is plain HTTP: whoever listens in this network can read what is sent. Use it only in a network that is yours.';
  return `Shared: ${url}. Let a device in under Shop, Devices.${warning}`;
}
