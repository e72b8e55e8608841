import { parseArgs } from 'node:util';
import { projectPath } from '../platform/project.js';
import { startServer } from './start.js';

const { values } = parseArgs({
  options: {
    data: { type: 'string', default: 'data' },
    port: { type: 'string', default: '4310' },
    'cutter-control-port': { type: 'string', default: '9311' },
  },
});

const server = await startServer({
  dataFolder: values.data,
  port: Number(values.port),
  cutterControlPort: Number(values['cutter-control-port']),
  pagesFolder: projectPath('dist', 'web'),
});
console.log(`Wry Lantern: ${server.url}`);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => void server.close().then(() => process.exit(0)));
