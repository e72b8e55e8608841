import { boundsOf, grow, unite, type Rings } from '../../geometry/index.js';
import { knockedOut, leastForBridges, leastForOnePiece, outlineArea, separate, type LayerPaint } from '../../layers/index.js';
import type { Film } from '../film.js';
import type { Finding } from '../finding.js';
import { formatLength } from '../length.js';
import type { Outline, Recipe } from '../recipe.js';
import type { Ruling } from '../ruling.js';

/** What is painted, by film, once knock-outs and outlines are reckoned in. */
export interface Framed {
  readonly paints: readonly LayerPaint[];
  readonly findings: readonly Finding[];
  readonly rulings: readonly Ruling[];
}

/**
 * Takes knock-outs out of their bases and lays outlines behind everything. Both are then like anything painted: schools, traps and films
 * treat them as they treat the artwork. `paints` are the artwork's own, by film id.
 */
export function framing(paints: readonly LayerPaint[], { outlines, knockOuts, contour }: Recipe['build'], films: ReadonlyMap<string, Film>): Framed {
  const findings: Finding[] = [];
  const rulings: Ruling[] = [];
  let framed: readonly LayerPaint[] = paints;
  for (const { shapeFilmId, baseFilmId, clearanceMm } of knockOuts) {
    const [shape, base] = [films.get(shapeFilmId), films.get(baseFilmId)];
    if (!shape || !base) continue;
    // Only what shows of the shapes counts, wherever in the order they lie.
    const visible = separate(framed).layers.find((layer) => layer.key === shapeFilmId)?.visible ?? [];
    framed = framed.map((paint) => (paint.layer === baseFilmId ? { ...paint, rings: knockedOut(paint.rings, visible, clearanceMm, base.thinnestMm) } : paint)).filter((paint) => paint.rings.length > 0);
    rulings.push({
      id: `build.knock-out.${shapeFilmId}.${baseFilmId}`,
      stage: 'build',
      subject: `Knock-out of ${shape.name}`,
      sentence: `${shape.name} is knocked out of ${base.name} with {value} clear all round.`,
      value: clearanceMm,
      unit: 'mm',
      because: [`What is left of ${base.name} inside it and is smaller than ${formatLength(base.thinnestMm)} mm square is dropped: it could not be weeded.`],
    });
  }
  const printed = contour && films.get(contour.filmId);
  if (contour && printed) {
    const { side, byMm } = contour;
    const cut = grow(unite(framed.flatMap((paint) => [...paint.rings])), side === 'inside' ? -byMm : byMm);
    framed = cut.length > 0 ? [{ layer: printed.id, rings: cut }] : [];
    rulings.push({
      id: 'build.contour',
      stage: 'build',
      subject: 'Cut line round the print',
      sentence: `The print on ${printed.name} is cut {value} ${side} its edge.`,
      value: byMm,
      unit: 'mm',
      because: [side === 'inside' ? 'So far inside, the cutter’s own error leaves no unprinted edge.' : 'So far outside, a border of film is left round the print.', 'The colours are printed, so they are one layer.'],
    });
  }
  let inner: Rings = unite(framed.flatMap((paint) => [...paint.rings]));
  for (const outline of outlines) {
    const film = films.get(outline.filmId);
    if (!film || inner.length === 0) continue;
    const { widthMm, ruling } = ruleOutline(outline, film, inner);
    inner = outlineArea(inner, widthMm, outline.join, outline.fillBelowMm);
    framed = [{ layer: film.id, rings: inner }, ...framed];
    rulings.push(ruling);
    if (widthMm < film.thinnestMm) {
      findings.push({
        code: 'outline-thin',
        severity: 'warning',
        stage: 'build',
        message: `An outline ${formatLength(widthMm)} mm wide is thinner than ${film.name} can be weeded at, ${formatLength(film.thinnestMm)} mm.`,
        where: boundsOf(inner)!,
      });
    }
  }
  return { paints: framed, findings, rulings };
}

function ruleOutline(outline: Outline, film: Film, inner: Rings): { widthMm: number; ruling: Ruling } {
  const onePiece = leastForOnePiece(inner);
  const bridges = leastForBridges(inner, Math.max(onePiece, film.thinnestMm), film.thinnestMm);
  const widthMm = outline.widthMm ?? bridges;
  const whole = grow(inner, widthMm);
  return {
    widthMm,
    ruling: {
      id: `build.outline.${outline.id}`,
      stage: 'build',
      subject: `Outline in ${film.name}`,
      sentence: `The outline in ${film.name} reaches {value} beyond the work.`,
      value: widthMm,
      unit: 'mm',
      because: [
        onePiece > 0 ? `From ${formatLength(onePiece)} mm on, all parts become one piece: half the widest clearance that must be bridged (docs/outline.md).` : 'What it goes round is one piece already.',
        `From ${formatLength(bridges)} mm on, no bridge of it is thinner than ${formatLength(film.thinnestMm)} mm, the least that ${film.name} is weeded at.`,
        `It takes up ${formatLength(Math.max(...sides(whole)))} mm at its longest.`,
      ],
      overridden: outline.widthMm !== null && outline.widthMm !== bridges,
      proposed: bridges,
    },
  };
}

function sides(rings: Rings): [number, number] {
  const box = boundsOf(rings)!;
  return [box.maxX - box.minX, box.maxY - box.minY];
}
