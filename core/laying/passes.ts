import { keyOf, translateRings } from '../geometry/index.js';
import { fieldOf, type LeftoverRule, type Mat, type Rectangle } from '../shop/index.js';
import { usedAtCorner } from './choose-pieces.js';
import type { Laid, ShopToLay } from './lay-film.js';
import type { LayWish } from './lay-wish.js';
import { endMarks } from './sections.js';
import type { SheetGroup, SheetPlan } from './sheet-plan.js';
import { takenOf } from './taken-of.js';
import { zonesOf, type Zone } from './zones.js';

/** Between pieces on a mat, and round them, mm. */
const PIECE_GAP_MM = 3;

/** One piece in one pass. */
export function alone({ on, film, groups, used, section }: Laid, rule: LeftoverRule): SheetPlan {
  const { piece, mat, edges } = on;
  return {
    key: on.key,
    id: keyOf(
      film.id,
      on.key,
      groups.map(({ fingerprint, copy, job, matrix }) => [fingerprint, copy, job, matrix]),
    ),
    films: [film],
    pieces: [piece],
    mat,
    zones: null,
    section,
    endMarks: section && section.number < section.of ? endMarks(on, used.lengthMm) : [],
    edges,
    forceG: film.forceG,
    speedMmS: film.speedMmS,
    groups,
    foils: [],
    ...takenOf({ on, film, used }, rule),
    usedLengthMm: used.lengthMm,
  };
}

/** What fits on a mat side by side goes in together, where films may share one: each is cut to the size of what it carries. So is what is cut off a piece that no mat holds. */
export function onMats(
  laid: readonly Laid[],
  { mats, cutter }: ShopToLay,
  { zones: mayShare, leftovers: rule }: Pick<LayWish, 'zones' | 'leftovers'>,
): SheetPlan[] {
  const usable = mats
    .filter(({ widthMm }) => widthMm <= cutter.widthMm)
    .sort((a, b) => b.widthMm * b.lengthMm - a.widthMm * a.lengthMm);
  const mat = usable[0];
  if (!mat) return laid.map((one) => alone(one, rule));
  const room = fieldOf(mat);
  const fits = (one: Laid) => {
    if (one.section || !mayShare) return false;
    const used = wholeMm(one);
    return used.widthMm <= room.widthMm + 1e-6 && used.lengthMm <= room.lengthMm + 1e-6;
  };
  // A hand cuts a piece to whole millimetres.
  const small = laid.filter(fits).map((one) => ({ ...one, used: usedAtCorner(wholeMm(one)) }));
  const passes =
    zonesOf(
      small.map(({ used, film }, i) => ({
        id: String(i),
        ...used,
        settings: keyOf(film.forceG, film.speedMmS),
        mayTurn: false,
      })),
      { room },
      PIECE_GAP_MM,
    ) ?? [];
  return [
    ...laid.filter((one) => !fits(one)).map((one) => byItself(one, rule)),
    ...passes.map((pass) =>
      pass.length === 1
        ? byItself(small[Number(pass[0]!.id)]!, rule)
        : onMat(pass, small, { mat: smallestFor(pass, usable), rule }),
    ),
  ];
}

/** The smallest of some mats, the largest first, on which a pass lies as it does on the first. */
function smallestFor(pass: readonly Zone[], mats: readonly Mat[]): Mat {
  const across = Math.max(...pass.map(({ xMm, widthMm }) => xMm + widthMm));
  const along = Math.max(...pass.map(({ yMm, lengthMm }) => yMm + lengthMm));
  return (
    mats.findLast((mat) => across <= fieldOf(mat).widthMm + 1e-6 && along <= fieldOf(mat).lengthMm + 1e-6) ?? mats[0]!
  );
}

/** One piece that nothing shares the mat with goes in as it is, where a mat holds it. */
function byItself(laid: Laid, rule: LeftoverRule): SheetPlan {
  const { mat, cutOff } = laid.on;
  if (!mat || !cutOff) return alone(laid, rule);
  const used = wholeMm(laid);
  return onMat([{ id: '0', xMm: 0, yMm: 0, ...used, isTurned: false }], [{ ...laid, used: usedAtCorner(used) }], {
    mat,
    rule,
  });
}

function wholeMm({ on: { piece }, used: { widthMm, lengthMm } }: Laid): Rectangle {
  return {
    widthMm: Math.min(piece.widthMm, Math.ceil(widthMm - 1e-6)),
    lengthMm: Math.min(piece.lengthMm, Math.ceil(lengthMm - 1e-6)),
  };
}

function onMat(
  pass: readonly Zone[],
  small: readonly Laid[],
  { mat, rule }: { readonly mat: Mat; readonly rule: LeftoverRule },
): SheetPlan {
  const parts = pass.map((zone) => ({ zone, laid: small[Number(zone.id)]! }));
  const only = parts[0]!;
  const taken = parts.map(({ laid: one }) => takenOf(one, rule));
  const groups = parts.flatMap(({ zone, laid }) =>
    laid.groups.map((group): SheetGroup => moved(group, zone.xMm + mat.edgeMm, zone.yMm + mat.edgeMm)),
  );
  const { film } = only.laid;
  return {
    key: parts.map(({ laid }) => laid.on.key).join(' '),
    id: keyOf(
      mat.id,
      groups.map(({ fingerprint, copy, job, matrix }) => [fingerprint, copy, job, matrix]),
    ),
    films: parts.map(({ laid }) => laid.film),
    pieces: parts.map(({ laid }) => laid.on.piece),
    mat,
    zones: parts.map(({ zone: { xMm, yMm, widthMm, lengthMm }, laid }) => ({
      xMm: xMm + mat.edgeMm,
      yMm: yMm + mat.edgeMm,
      widthMm,
      lengthMm,
      film: laid.film,
      piece: laid.on.piece,
    })),
    section: null,
    endMarks: [],
    edges: only.laid.on.edges,
    forceG: film.forceG,
    speedMmS: film.speedMmS,
    groups,
    foils: [],
    usedMm2: taken.reduce((sum, { usedMm2 }) => sum + usedMm2, 0),
    leftovers: taken.flatMap(({ leftovers }) => leftovers),
    value: taken.reduce((sum, { value }) => sum + value, 0),
    usedLengthMm: Math.max(...parts.map(({ zone }) => zone.yMm + zone.lengthMm + mat.edgeMm)),
  };
}

function moved<G extends SheetGroup>(group: G, dx: number, dy: number): G {
  const [a, b, c, d, e, f] = group.matrix;
  return {
    ...group,
    matrix: [a, b, c, d, e + dx, f + dy],
    contours: translateRings(group.contours, dx, dy),
    borders: translateRings(group.borders, dx, dy),
  };
}
