import type { PlacedDesign, Placing, Size, SizeWish } from '../../engines/surface/index.js';
import type { Box } from '../../geometry/index.js';
import { formatLength, type Finding, type Ruling } from '../../words/index.js';
import { LONGEST_DESIGN_MM, type SurfaceDecisions, type SurfaceKindName, type SurfacePatch } from './decisions.js';

const FIT: SurfacePatch = { surface: { size: { mode: 'fit' } } };
const OWN: SurfacePatch = { surface: { size: { mode: 'own' } } };
const IN_THE_MIDDLE: SurfacePatch = { surface: { at: null } };
const WHOLE_ARTBOARD: SurfacePatch = { surface: { sizeOf: 'artboard' } };
const ONLY_CUT: SurfacePatch = { surface: { sizeOf: 'cut' } };

type Wish = Pick<SurfaceDecisions['surface'], 'kind' | 'size' | 'sizeOf' | 'at'>;

/** What a maker calls each kind of thing. */
export const THING: Readonly<Record<SurfaceKindName, string>> = {
  unmeasured: 'surface',
  flat: 'board',
  glass: 'pane',
  cylinder: 'round thing',
  taper: 'tapered thing',
  compound: 'curved thing',
  garment: 'garment',
};

/** Sizes that differ by less than a tape shows, mm. */
const ALIKE_MM = 0.1;

function isAlike(a: Size, b: Size): boolean {
  return Math.abs(a.widthMm - b.widthMm) < ALIKE_MM && Math.abs(a.heightMm - b.heightMm) < ALIKE_MM;
}

/** The size of the design, and what there is to say against it. */
export function sayPlacing(
  { design, room, trouble }: Placing,
  own: Size & { readonly otherwise: Size },
  { kind, size: wish, sizeOf, at }: Wish,
  reachMm: number,
): { readonly findings: Finding<SurfacePatch>[]; readonly rulings: Ruling<SurfacePatch>[] } {
  const isOwn = wish.mode === 'own' || (wish.mode === 'fit' && room === null);
  return {
    findings: trouble ? [sayTrouble(trouble, design, reachMm, { thing: THING[kind], isPut: at !== null })] : [],
    rulings: [
      {
        id: 'surface.size',
        stage: 'surface',
        subject: 'Size of the design',
        sentence: `The design is {value} wide and ${formatLength(design.heightMm)} mm high.`,
        value: design.widthMm,
        unit: 'mm',
        because: [
          ...(isOwn
            ? [
                room === null
                  ? "Nothing was measured, so the artwork's own size is kept. Nothing is enlarged."
                  : "This is the artwork's own size.",
              ]
            : becauseOf(wish, room, reachMm)),
          ...(isAlike(own, own.otherwise)
            ? []
            : [
                sizeOf === 'cut'
                  ? 'It is the size of what is cut. Empty space round it on the artboard does not count.'
                  : 'You chose that the whole artboard counts, with the empty space round what is cut.',
              ]),
        ],
        overridden: (!isOwn && wish.mode !== 'fit') || sizeOf === 'artboard',
        proposed: room && wish.mode !== 'own' ? room.fittedWidthMm : own.widthMm,
        alternatives: [
          ...(room && wish.mode !== 'fit' ? [{ label: `Fit to the ${THING[kind]}`, patch: FIT }] : []),
          ...(isAlike(own, own.otherwise)
            ? []
            : [
                sizeOf === 'cut'
                  ? { label: 'Count the whole artboard', patch: WHOLE_ARTBOARD }
                  : { label: 'Count only what is cut', patch: ONLY_CUT },
              ]),
          ...(isOwn ? [] : [{ label: `Artwork’s own size, ${formatLength(own.widthMm)} mm wide`, patch: OWN }]),
        ],
      },
      ...(at && room ? [sayPut(design)] : []),
    ],
  };
}

/** Where a design lies that was put there by hand. */
function sayPut({ xMm, yMm }: PlacedDesign): Ruling<SurfacePatch> {
  return {
    id: 'surface.place',
    stage: 'surface',
    subject: 'Where the design lies',
    sentence: `The design lies {value} from the left and ${formatLength(yMm)} mm from the top.`,
    value: xMm,
    unit: 'mm',
    because: ['You brought a part of it into line with the surface. It stays there, whatever is changed.'],
    overridden: true,
    alternatives: [{ label: 'Set it in the middle', patch: IN_THE_MIDDLE }],
  };
}

function becauseOf(wish: SizeWish, room: Placing['room'], reachMm: number): string[] {
  switch (wish.mode) {
    case 'scale':
      return [
        wish.times >= 1
          ? `The artwork is drawn at 1 : ${Number(wish.times.toFixed(3))}, so everything is made ${Number(wish.times.toFixed(3))} times as large.`
          : `Everything is made ${Number(wish.times.toFixed(4))} times as large as it is drawn.`,
      ];
    case 'width':
    case 'height':
      return [`You gave the ${wish.mode}. The other side follows from the artwork.`];
    default:
      return [
        ...(room
          ? [
              `The ${room.bound} between the margins, ${formatLength(room.bound === 'width' ? room.widthMm : room.heightMm)} mm, sets the limit.`,
            ]
          : []),
        ...(reachMm > 0 ? [`Outlines take ${formatLength(reachMm)} mm of it on each side.`] : []),
        'Traps, marks and borders are worked out at this size. They are never scaled.',
      ];
  }
}

/** Why no design is longer than LONGEST_DESIGN_MM. */
export const LARGER_WORK = 'Larger work is cut and laid as several jobs.';

/** A design that is longer than any may be. */
export function sayTooLong({ widthMm, heightMm }: Size): Finding<SurfacePatch> {
  const most = `${formatLength(LONGEST_DESIGN_MM)} mm`;
  return {
    code: 'design-too-long',
    severity: 'blocker',
    stage: 'surface',
    message: `The design is ${formatLength(widthMm)} × ${formatLength(heightMm)} mm. A job is planned up to ${most}. ${LARGER_WORK} Nothing more is made of it at this size.`,
    remedies: [
      {
        label: `Make it ${most} ${widthMm >= heightMm ? 'wide' : 'high'}`,
        patch: { surface: { size: { mode: widthMm >= heightMm ? 'width' : 'height', mm: LONGEST_DESIGN_MM } } },
      },
    ],
  };
}

const UNITS = [
  ['A millimetre', 1],
  ['A centimetre', 10],
  ['An inch', 25.4],
] as const;

/** A drawing that does not say its unit: it is asked how large it is meant to be. */
export function sayUnit(own: Size, mmPerUnit: number): Finding<SurfacePatch> {
  const at = (times: number) => `${formatLength(own.widthMm * times)} × ${formatLength(own.heightMm * times)} mm`;
  return {
    code: 'unit-unstated',
    severity: 'warning',
    stage: 'surface',
    message: `This file does not say how large it is. It is taken as ${at(1)}. What is one unit of it?`,
    remedies: [
      { label: `Keep ${at(1)}`, patch: { surface: { size: { mode: 'scale', times: 1 } } } },
      ...UNITS.filter(([, mm]) => Math.abs(mm / mmPerUnit - 1) > 1e-6).map(([label, mm]) => ({
        label: `${label}: ${at(mm / mmPerUnit)}`,
        patch: { surface: { size: { mode: 'scale' as const, times: Number((mm / mmPerUnit).toPrecision(9)) } } },
      })),
    ],
  };
}

function sayTrouble(
  trouble: NonNullable<Placing['trouble']>,
  { widthMm, heightMm }: Size,
  reachMm: number,
  { thing, isPut }: { readonly thing: string; readonly isPut: boolean },
): Finding<SurfacePatch> {
  const fit = { label: `Fit it to the ${thing}`, patch: FIT };
  switch (trouble) {
    case 'no-room':
      return {
        code: 'margins-too-wide',
        severity: 'blocker',
        stage: 'surface',
        message: `What must stay free leaves no room on the ${thing}. Make the margins narrower, or measure again.`,
      };
    case 'too-large':
      return {
        code: 'larger-than-board',
        severity: 'warning',
        stage: 'surface',
        message: `The design${reachMm > 0 ? ' with its outline' : ''} is ${formatLength(widthMm + 2 * reachMm)} × ${formatLength(heightMm + 2 * reachMm)} mm: larger than the ${thing}.`,
        remedies: [fit],
      };
    case 'put-beyond':
      return {
        code: 'put-beyond',
        severity: 'warning',
        stage: 'surface',
        message: `Where it ${isPut ? 'was put' : 'lies'}, the ${reachMm > 0 ? 'outline' : 'design'} reaches into the margins.`,
        remedies: [isPut ? { label: 'Set it in the middle', patch: IN_THE_MIDDLE } : fit],
      };
    case 'into-margins':
      return {
        code: 'into-margins',
        severity: 'warning',
        stage: 'surface',
        message: `The ${reachMm > 0 ? 'outline' : 'design'} reaches into the margins.`,
        remedies: [fit],
      };
  }
}

/** The outline reaches into the margins though the design does not; `widestMm` is how wide the design may be, 0 where it was put where no size helps. */
export function sayOverhang(box: Box, widestMm: number): Finding<SurfacePatch> {
  const mm = Math.floor(widestMm * 10) / 10;
  return {
    code: 'outline-into-margins',
    severity: 'warning',
    stage: 'surface',
    message: `With its outline the work is ${formatLength(box.maxX - box.minX)} × ${formatLength(box.maxY - box.minY)} mm and reaches into the margins.`,
    where: box,
    remedies:
      widestMm === 0
        ? [{ label: 'Set it in the middle', patch: IN_THE_MIDDLE }]
        : mm >= 1
          ? [
              {
                label: `Make the design ${formatLength(mm)} mm wide`,
                patch: { surface: { size: { mode: 'width', mm } } },
              },
            ]
          : [],
  };
}
