import { parseArgs } from 'node:util';
import { CutterService } from './service.js';

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: '9310' },
    'control-port': { type: 'string', default: '9311' },
    'time-lapse': { type: 'string', default: '1' },
  },
});

const service = new CutterService({
  port: Number(values.port),
  controlPort: Number(values['control-port']),
  timeLapse: Number(values['time-lapse']),
});
const { port, controlPort } = await service.listen();
console.log(
  `Simulated cutter: HP-GL on 127.0.0.1:${port}, control on 127.0.0.1:${controlPort}, time × ${values['time-lapse']}.`,
);
