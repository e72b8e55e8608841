import { useId, type ReactNode } from 'react';
import type { DrawnSheet } from '../../core/plan/page/plan-view.js';
import { fillOf } from './film-fill.js';

/**
 * One sheet as it lies before the cutter: the piece of film, on its mat if it needs one, with what is cut of it. The corner that the program
 * counts from is marked.
 */
export function SheetPicture({
  sheet,
  isBack,
  heldBy,
  children,
}: {
  readonly sheet: DrawnSheet;
  /** Whether a copy steps back, by its number among the places of all shapes. */ readonly isBack?: (
    copy: number,
  ) => boolean;
  /** How far a copy is held from where it lies, mm. */ readonly heldBy?: (
    copy: number,
  ) => { readonly x: number; readonly y: number } | null;
  readonly children?: ReactNode;
}) {
  const { piece, mat, zones, usedLengthMm, edges, shapes } = sheet;
  const id = useId();
  const length = shownLength(sheet);
  const top = usedLengthMm - length;
  const width = piece?.widthMm ?? 0;
  const before = shapes.map((_, s) => shapes.slice(0, s).reduce((sum, { places }) => sum + places.length, 0));
  const arm = Math.max(6, Math.max(width, length) / 40);
  return (
    <>
      {mat && zones && (
        <rect
          x="0"
          y={usedLengthMm - mat.lengthMm}
          width={mat.widthMm}
          height={mat.lengthMm}
          rx="4"
          fill="#dbe2e1"
          stroke="#9fb0b0"
          strokeWidth="1"
          vectorEffect="non-scaling-stroke"
        />
      )}
      {zones?.map((zone, i) => (
        <Blank key={i} zone={zone} usedLengthMm={usedLengthMm} />
      ))}
      {mat && !zones && (
        <rect
          x={-mat.edgeMm}
          y={usedLengthMm + mat.edgeMm - mat.lengthMm}
          width={mat.widthMm}
          height={mat.lengthMm}
          rx="4"
          fill="#dbe2e1"
          stroke="#9fb0b0"
          strokeWidth="1"
          vectorEffect="non-scaling-stroke"
        />
      )}
      {piece && <rect x="0" y={top} width={width} height={length} fill="#ffffff" />}
      {piece && (
        <rect
          x="0"
          y={top}
          width={width}
          height={length}
          fill="url(#hatch-waste)"
          stroke="#182325"
          strokeWidth="1.25"
          vectorEffect="non-scaling-stroke"
        />
      )}
      {piece && edges && (
        <rect
          x={edges.sides}
          y={top + edges.top}
          width={width - 2 * edges.sides}
          height={length - edges.top - edges.bottom}
          fill="none"
          stroke="#4c5a5c"
          strokeWidth="1"
          strokeDasharray="1 4"
          vectorEffect="non-scaling-stroke"
        />
      )}
      {shapes.map((shape, s) => (
        <g key={s}>
          <defs>
            <g id={`${id}-${s}`}>
              <path
                d={shape.borders}
                fill="#ffffff"
                fillOpacity="0.7"
                stroke="#182325"
                strokeWidth="1"
                strokeDasharray="6 3"
                vectorEffect="non-scaling-stroke"
              />
              <path
                d={shape.contours}
                fill={fillOf(shape.film)}
                fillRule="evenodd"
                stroke="#182325"
                strokeWidth="0.8"
                vectorEffect="non-scaling-stroke"
              />
            </g>
          </defs>
          {shape.places.map((place, i) => (
            <use
              key={i}
              href={`#${id}-${s}`}
              opacity={isBack?.(before[s]! + i) ? 0.25 : undefined}
              transform={`${shiftOf(heldBy?.(before[s]! + i))}matrix(${place.join(' ')})`}
            />
          ))}
        </g>
      ))}
      {zones?.map((zone, i) => (
        <BlankNumber key={i} zone={zone} number={i + 1} usedLengthMm={usedLengthMm} />
      ))}
      {children}
      <g stroke="#9c3d0c" strokeWidth="2.5" fill="none" data-testid="origin">
        <path d={`M0 ${usedLengthMm - arm}V${usedLengthMm}H${arm}`} vectorEffect="non-scaling-stroke" />
        <text
          x={arm * 0.25}
          y={usedLengthMm - arm * 0.25}
          fontSize={arm * 0.7}
          fontWeight="700"
          fill="#9c3d0c"
          stroke="none"
        >
          0
        </text>
      </g>
    </>
  );
}

function shiftOf(held: { readonly x: number; readonly y: number } | null | undefined): string {
  return held ? `translate(${held.x} ${held.y}) ` : '';
}

type Zone = NonNullable<DrawnSheet['zones']>[number];

/** A blank on a mat. */
function Blank({
  zone: { xMm, yMm, widthMm, lengthMm },
  usedLengthMm,
}: {
  readonly zone: Zone;
  readonly usedLengthMm: number;
}) {
  const place = { x: xMm, y: usedLengthMm - yMm - lengthMm, width: widthMm, height: lengthMm };
  return (
    <>
      <rect {...place} fill="#ffffff" />
      <rect {...place} fill="url(#hatch-waste)" stroke="#182325" strokeWidth="1.25" vectorEffect="non-scaling-stroke" />
    </>
  );
}

/** The number that the card has of a blank, in its upper left corner, over all that lies there. */
function BlankNumber({
  zone: { xMm, yMm, widthMm, lengthMm },
  number,
  usedLengthMm,
}: {
  readonly zone: Zone;
  readonly number: number;
  readonly usedLengthMm: number;
}) {
  const r = Math.min(8, Math.max(4, Math.min(widthMm, lengthMm) / 10));
  const [x, y] = [xMm + r, usedLengthMm - yMm - lengthMm + r];
  return (
    <g>
      <circle
        cx={x}
        cy={y}
        r={r}
        fill="#ffffff"
        stroke="#182325"
        strokeWidth="1.25"
        vectorEffect="non-scaling-stroke"
      />
      <text x={x} y={y + r * 0.4} fontSize={r * 1.15} fontWeight="700" textAnchor="middle" fill="#182325">
        {number}
      </text>
    </g>
  );
}

/** A roll is shown a little further than it is used; a sheet whole; what nothing is known of, as far as it was used. */
function shownLength({ piece, mat, zones, usedLengthMm }: DrawnSheet): number {
  if (zones && mat) return mat.lengthMm;
  if (!piece) return usedLengthMm;
  return piece.kind === 'roll' ? Math.min(piece.lengthMm, usedLengthMm * 1.08 + 20) : piece.lengthMm;
}

/** What must be in view for the whole sheet to be seen. */
export function sheetBox(sheet: DrawnSheet): { minX: number; minY: number; maxX: number; maxY: number } {
  return {
    minX: 0,
    minY: sheet.usedLengthMm - shownLength(sheet),
    maxX: sheet.piece?.widthMm ?? (sheet.zones ? sheet.mat?.widthMm : null) ?? Math.max(100, sheet.usedLengthMm),
    maxY: sheet.usedLengthMm,
  };
}

export const PIECE_WORDS = { roll: 'off the roll', sheet: 'a sheet', offcut: 'an offcut' } as const;
