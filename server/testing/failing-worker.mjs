import { register } from 'tsx/esm/api';

register();
const { KernelError } = await import('../../core/geometry/index.ts');
const { endingWithKernel } = await import('../compute/kernel-guard.ts');

/** A worker whose kernel fails at fonts called "fails", and never again: a thread that was ended counts from 1 anew. */
let asked = 0;
export default endingWithKernel(
  async ({ fileName }) => {
    asked += 1;
    if (fileName === 'fails') throw new KernelError('kernel-failed', 'It gave up.');
    return { ok: 'font', name: `${asked}` };
  },
  () => process.exit(1),
);
