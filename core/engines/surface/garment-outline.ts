import { backwards } from '../../geometry/index.js';
import { GARMENT_SIZES, SPOTS, type Garments, type Spot } from './garment.js';

/** A garment laid flat, mm: its middle line at x = 0, y down from where prints on it are measured from; the wearer's left is to the right. */
export interface GarmentOutline {
  /** Pieces of cloth, each closed: x, y, x, y, … */
  readonly cloth: readonly (readonly number[])[];
  /** Seams and edges that a print keeps off. */
  readonly seams: readonly (readonly number[])[];
}

/** From collar to shoulder seam, mm, of an adult's M. */
const COLLAR = { front: 70, back: 20 } as const;
const NECK_MM = 90;
const SHOULDER = { xMm: 230, dropMm: 45 } as const;
const CUFF = { outer: [390, 190], inner: [292, 240] } as const;
const ARMPIT = { xMm: 262, downMm: 215 } as const;
const SHIRT_MM = 710;
const BIB = { halfMm: 165, waistMm: 260, hipMm: 310, lengthMm: 820 } as const;
const TROUSERS = {
  waistMm: 205,
  hipMm: 255,
  hipDownMm: 210,
  crotchMm: 290,
  hemMm: 1010,
  outerMm: 245,
  innerMm: 60,
} as const;
/** The middle of a leg, from the middle line. */
const LEG_MM = 150;
/** From the fold of a sleeve to the middle line of a print on it. */
const FOLD_MM = 52;
/** A curve is drawn in so many steps. */
const STEPS = 12;

/** An adult's M as it lies on a table, seen from the front, or from the back for what sits on the back; other sizes keep its shape. Drawn by us: only what prints are measured from is to scale. */
export function garmentOutline(piece: Garments, spot: Spot, size: string): GarmentOutline {
  const times = sizeFactor(size);
  const { cloth, seams } =
    piece === 'apron' ? apron() : piece === 'trousers' ? trousers() : shirt(spot === 'back' ? 'back' : 'front');
  const sized = (lines: readonly (readonly number[])[]) => lines.map((line) => line.map((v) => v * times));
  return { cloth: sized(cloth), seams: sized(seams) };
}

/** Where a print lies on a garment: the middle of its upper edge, mm, and how far it is turned, degrees. Its measures are the maker's, whatever the size. */
export function printOnGarment(
  {
    spot,
    downMm,
    offMiddleMm,
  }: { readonly spot: Spot; readonly downMm: number | null; readonly offMiddleMm: number | null },
  size: string,
): { readonly xMm: number; readonly yMm: number; readonly turnDeg: number } {
  const times = sizeFactor(size);
  const down = downMm ?? SPOTS[spot].downMm;
  const off = offMiddleMm ?? SPOTS[spot].offMiddleMm;
  switch (spot) {
    case 'left chest':
      // From the shoulder seam at the neck, which lies above the collar's middle.
      return { xMm: off, yMm: down - COLLAR.front * times, turnDeg: 0 };
    case 'sleeve': {
      const [x, y] = [SHOULDER.xMm, SHOULDER.dropMm - COLLAR.front];
      const along = [CUFF.outer[0] - x, CUFF.outer[1] - COLLAR.front - y];
      const length = Math.hypot(along[0]!, along[1]!);
      const [ux, uy] = [along[0]! / length, along[1]! / length];
      const inwards = FOLD_MM * times - off;
      return {
        xMm: x * times + ux * down - uy * inwards,
        yMm: y * times + uy * down + ux * inwards,
        turnDeg: (Math.atan2(uy, ux) * 180) / Math.PI - 90,
      };
    }
    case 'leg':
      return { xMm: LEG_MM * times + off, yMm: down, turnDeg: 0 };
    default:
      return { xMm: off, yMm: down, turnDeg: 0 };
  }
}

/** How large a garment of a size is by an adult's M; as large where the size is not known. */
export function sizeFactor(size: string): number {
  return Object.hasOwn(GARMENT_SIZES, size) ? GARMENT_SIZES[size]! : 1;
}

/** The same on the other side of the middle line. */
const mirrored = (line: readonly number[]) => line.map((v, i) => (i % 2 === 0 ? -v : v));

function shirt(side: keyof typeof COLLAR): GarmentOutline {
  const up = COLLAR[side];
  const at = (x: number, down: number): [number, number] => [x, down - up];
  const right = [
    ...at(NECK_MM, 0),
    ...at(SHOULDER.xMm, SHOULDER.dropMm),
    ...at(...CUFF.outer),
    ...at(...CUFF.inner),
    ...at(ARMPIT.xMm, ARMPIT.downMm),
    ...at(ARMPIT.xMm, SHIRT_MM),
  ];
  const collar = curve([-NECK_MM, -up], [0, up], [NECK_MM, -up]);
  const seam = [...at(SHOULDER.xMm, SHOULDER.dropMm), ...at(ARMPIT.xMm, ARMPIT.downMm)];
  return { cloth: [[...collar, ...right, ...backwards(mirrored(right))]], seams: [collar, seam, mirrored(seam)] };
}

function apron(): GarmentOutline {
  const { halfMm, waistMm, hipMm, lengthMm } = BIB;
  const side = curve([halfMm, 0], [halfMm, waistMm], [hipMm, waistMm + 20]);
  const right = [...side, hipMm, lengthMm];
  const strap = curve([-halfMm + 12, 0], [0, -290], [halfMm - 12, 0]);
  return {
    cloth: [[...right, ...backwards(mirrored(right))]],
    seams: [strap, [-hipMm, waistMm + 20, -hipMm - 90, waistMm + 70], [hipMm, waistMm + 20, hipMm + 90, waistMm + 70]],
  };
}

function trousers(): GarmentOutline {
  const { waistMm, hipMm, hipDownMm, crotchMm, hemMm, outerMm, innerMm } = TROUSERS;
  const right = [waistMm, 0, hipMm, hipDownMm, outerMm, hemMm, innerMm, hemMm, 0, crotchMm];
  return {
    cloth: [[...right, ...backwards(mirrored(right)).slice(2)]],
    seams: [
      [-waistMm, 38, waistMm, 38],
      [0, 38, 0, crotchMm],
    ],
  };
}

/** A bend from the first point to the last, towards the one between. */
function curve(
  [x0, y0]: readonly [number, number],
  [x1, y1]: readonly [number, number],
  [x2, y2]: readonly [number, number],
): number[] {
  return Array.from({ length: STEPS + 1 }, (_, i) => {
    const t = i / STEPS;
    const [a, b, c] = [(1 - t) ** 2, 2 * t * (1 - t), t ** 2];
    return [a * x0 + b * x1 + c * x2, a * y0 + b * y1 + c * y2];
  }).flat();
}
