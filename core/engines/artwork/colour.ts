import {
  differenceCiede2000,
  formatHex,
  modeHsl,
  modeHwb,
  modeLab,
  modeLab65,
  modeLch,
  modeLch65,
  modeOklab,
  modeOklch,
  modeP3,
  modeRgb,
  modeXyz65,
  parse,
  useMode,
  type Rgb,
} from 'culori/fn';

// What CSS can write, and Lab for differences. The library knows many more, and the page would load them all.
for (const mode of [modeHsl, modeHwb, modeLab, modeLab65, modeLch, modeLch65, modeOklab, modeOklch, modeP3, modeXyz65])
  useMode(mode as Parameters<typeof useMode>[0]);
const toRgb = useMode(modeRgb);

/** A CSS colour as "#rrggbb" and its own opacity (0 to 1), or null when it is none. */
export function parseColour(text: string): { hex: string; alpha: number } | null {
  const colour = parse(text.trim().toLowerCase());
  if (!colour) return null;
  return { hex: formatHex(toRgb(colour)), alpha: colour.alpha ?? 1 };
}

/** The solid colour that a translucent one shows on white. */
export function overWhite(hex: string, alpha: number): string {
  return mixColours([
    { hex, weight: alpha },
    { hex: '#ffffff', weight: 1 - alpha },
  ]);
}

/** The weighted mean of colours, channel by channel; white for nothing. */
export function mixColours(parts: readonly { readonly hex: string; readonly weight: number }[]): string {
  const total = parts.reduce((sum, p) => sum + p.weight, 0);
  if (!(total > 0)) return '#ffffff';
  const mix: Rgb = { mode: 'rgb', r: 0, g: 0, b: 0 };
  for (const { hex, weight } of parts) {
    const c = toRgb(parse(hex)!);
    mix.r += (c.r * weight) / total;
    mix.g += (c.g * weight) / total;
    mix.b += (c.b * weight) / total;
  }
  return formatHex(mix);
}

const toLab = useMode(modeLab65);

/** The colour so far (0 to 1) on the straight way from one to another in CIELAB, brought back into what screens show. */
export function mixInLab(from: string, to: string, share: number): string {
  const [a, b] = [toLab(parse(from)!), toLab(parse(to)!)];
  const between = (x: number, y: number) => x + (y - x) * share;
  return formatHex(toRgb({ mode: 'lab65', l: between(a.l, b.l), a: between(a.a, b.a), b: between(a.b, b.b) }));
}

/** CIELAB lightness of a colour, 0 to 100. */
export function colourLightness(hex: string): number {
  return toLab(parse(hex)!).l;
}

/** Colour difference by CIEDE2000: about 1 is just noticeable, over 10 is another colour. */
export const colourDifference: (hexA: string, hexB: string) => number = differenceCiede2000();

/** Finds the nearest of a list that is asked often (CIEDE2000), and how far it is. */
export function nearestIn<T extends { readonly hex: string }>(
  list: readonly T[],
): (hex: string) => { readonly nearest: T; readonly difference: number } {
  const difference = differenceCiede2000();
  const labs = list.map((one) => ({ one, lab: toLab(parse(one.hex)!) }));
  return (hex) => {
    const lab = toLab(parse(hex)!);
    return labs
      .map((other) => ({ nearest: other.one, difference: difference(lab, other.lab) }))
      .reduce((best, other) => (other.difference < best.difference ? other : best));
  };
}
