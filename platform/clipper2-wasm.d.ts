/* The package ships its types beside the folder of the module that they describe. */
declare module 'clipper2-wasm/dist/es/clipper2z.js' {
  import type { MainModule } from 'clipper2-wasm/dist/clipper2z.js';
  export default function createKernel(options: { wasmBinary: ArrayBufferLike | Uint8Array }): Promise<MainModule>;
}
