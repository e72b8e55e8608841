/** Whether bytes are a PDF's: its mark stands at the beginning, or a little behind what a mail program put there. */
export function isPdf(bytes: Uint8Array): boolean {
  return new TextDecoder('latin1').decode(bytes.subarray(0, 1024)).includes('%PDF-');
}
