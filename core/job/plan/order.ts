import { colourLightness } from '../../artwork/index.js';
import { areaOf } from '../../geometry/index.js';
import type { Neighbours, Separation } from '../../layers/index.js';
import type { Film } from '../film.js';
import type { Finding } from '../finding.js';
import type { Ruling } from '../ruling.js';

/** Areas that differ by less than this factor are alike: the stronger colour then decides. */
const ALIKE = 1.1;

interface Order {
  /** Film ids from the surface upwards. */
  readonly keys: readonly string[];
  readonly rulings: readonly Ruling[];
  readonly findings: readonly Finding[];
}

/**
 * The order of the layers from the surface upwards: the maker's wish as far as it can be laid, else the artwork's where layers overlap and
 * the app's where they only abut (docs/order.md).
 */
export function stackingOrder(separation: Separation, neighbours: Neighbours, wished: readonly string[], filmOf: (key: string) => Film): Order {
  const proposed = proposedOrder(separation, neighbours, filmOf);
  const rank = new Map(wished.map((key, i) => [key, i]));
  const place = (key: string) => rank.get(key) ?? wished.length;
  const asWished = [...proposed.keys].sort((a, b) => place(a) - place(b) || proposed.keys.indexOf(a) - proposed.keys.indexOf(b));
  const bare = asWished.filter((key) => !filmOf(key).takesOnTop);
  const keys = [...asWished.filter((key) => filmOf(key).takesOnTop), ...bare];
  const rulings: Ruling[] = [...proposed.rulings];
  const findings: Finding[] = [];
  const moved = bare.length > 0 && keys.join() !== asWished.join();
  if (moved) {
    rulings.push({
      id: 'build.top',
      stage: 'build',
      subject: 'What lies on top',
      sentence: '{value} is moved to the top of the build.',
      value: bare.map((key) => filmOf(key).name).join(' and '),
      unit: '',
      because: ['Nothing sticks on it, so nothing may lie over it. All others keep the order you gave, which is the nearest that can be laid.'],
    });
  }
  if (bare.length > 1) {
    findings.push({
      code: 'two-textured',
      severity: 'warning',
      stage: 'build',
      message: 'Two films here take nothing on top; where they meet they are butted without a trap.',
    });
  }
  return { keys, rulings, findings };
}

/** The order that the artwork asks for where layers overlap; where they only abut, as belowOf says. */
function proposedOrder({ layers }: Separation, { overlaps }: Neighbours, filmOf: (key: string) => Film): { keys: string[]; rulings: Ruling[] } {
  const area = new Map(layers.map((layer) => [layer.key, areaOf(layer.visible)]));
  const asArtwork = layers.map((layer) => layer.key);
  const under = new Map(asArtwork.map((key) => [key, new Set<string>()]));
  for (const [lower, upper] of overlaps) under.get(upper)?.add(lower);
  const keys: string[] = [];
  const left = new Set(asArtwork);
  const byTurns: string[] = [];
  while (left.size > 0) {
    const free = [...left].filter((key) => [...under.get(key)!].every((below) => !left.has(below) || below === key));
    // Layers that lie over and under each other: as whole films either can lie lower, and the artwork's own order is as good as any.
    if (free.length === 0) byTurns.push(...[...left].filter((key) => [...under.get(key)!].some((below) => left.has(below) && under.get(below)!.has(key))));
    const next = free.length > 0 ? free.reduce((best, key) => (belongsBelow(key, best, area, filmOf) ? key : best)) : [...left][0]!;
    keys.push(next);
    left.delete(next);
  }
  const names = (list: readonly string[]) => list.map((key) => filmOf(key).name);
  if (keys.join() === asArtwork.join() && byTurns.length === 0) return { keys, rulings: [] };
  return {
    keys,
    rulings: [
      {
        id: 'build.order',
        stage: 'build',
        subject: 'Order of the layers',
        sentence: 'From the surface up: {value}.',
        value: names(keys).join(', '),
        unit: '',
        because: [
          'Where shapes overlap, as the artwork has it.',
          'Where they only abut, a translucent film lies lower, then the film with the more area, and of two alike the darker: the others have more to lie on, and fewer laps run across and show (docs/order.md).',
          ...(byTurns.length > 0 ? [`${[...new Set(names(byTurns))].join(' and ')} lie over each other by turns, which no two whole films can do; each keeps what shows of it, and only the laps lie one way round.`] : []),
        ],
      },
    ],
  };
}

/** Whether of two layers that only abut the first belongs nearer the surface. */
function belongsBelow(one: string, other: string, area: ReadonlyMap<string, number>, filmOf: (key: string) => Film): boolean {
  const isTranslucent = (key: string) => filmOf(key).finish === 'translucent';
  // What runs under a translucent film shows; what it runs under hides its lap.
  if (isTranslucent(one) !== isTranslucent(other)) return isTranslucent(one);
  const [a, b] = [area.get(one)!, area.get(other)!];
  if (a > b * ALIKE || b > a * ALIKE) return a > b;
  const [light, lightOther] = [colourLightness(filmOf(one).colour), colourLightness(filmOf(other).colour)];
  return light === lightOther ? a > b : light < lightOther;
}
