/** A phone's browser does not show ports below; this one is next to the bench computer's own. */
const SHARED_PORT = 4311;
/** What stands for an address that is left to the app. */
const AUTO = 'auto';

/** Arguments in which `--share` may stand alone, with the address left to the app. */
export function withShareValue(args: readonly string[]): string[] {
  return args.flatMap((arg, i) =>
    arg === '--share' && (args[i + 1] === undefined || args[i + 1]!.startsWith('--')) ? [arg, AUTO] : [arg],
  );
}

/**
 * The address and port to share on, out of "192.168.1.20", "192.168.1.20:8080" or "auto", which is the first address of this computer in a network.
 * @throws Error when there is none, or it is no address
 */
export function shareWishOf(wish: string, own: readonly string[]): { readonly address: string; readonly port: number } {
  if (wish === AUTO) {
    const [address] = own;
    if (address === undefined)
      throw new Error('this computer has no address in a network. Connect it, or name the address: --share ADDRESS.');
    return { address, port: SHARED_PORT };
  }
  const match = /^([0-9.]+|\[[0-9A-Fa-f:]+\])(?::(\d{1,5}))?$/.exec(wish);
  const port = Number(match?.[2] ?? SHARED_PORT);
  if (!match || port > 65_535)
    throw new Error(`“${wish}” is no address. Write it as 192.168.1.20 or 192.168.1.20:4311.`);
  return { address: match[1]!.replace(/[[\]]/g, ''), port };
}
