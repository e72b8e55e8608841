/* The two globals that a browser worker and Node share and that core needs; core's own type library has neither's. */
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean });
  decode(input: Uint8Array): string;
}
declare class TextEncoder {
  encode(input: string): Uint8Array;
}
