/* The few globals that a browser worker and Node share and that core needs; core's own type library has none of them. */
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean });
  decode(input: Uint8Array): string;
}
declare class TextEncoder {
  encode(input: string): Uint8Array;
}
/** @throws when the text is not base64 */
declare function atob(base64: string): string;
declare function btoa(binary: string): string;
