/** How light a colour looks, 0 to 1, well enough to set colours in order: the exact measure is core's, and weighs more than a page needs. */
export function lightOf(colour: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));
  return (0.299 * r! + 0.587 * g! + 0.114 * b!) / 255;
}
