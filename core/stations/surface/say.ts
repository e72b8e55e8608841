import type { Placing, Size, SizeWish } from '../../engines/surface/index.js';
import type { Box } from '../../geometry/index.js';
import { formatLength, type Finding, type Ruling } from '../../words/index.js';
import type { SurfacePatch } from './decisions.js';

const FIT: SurfacePatch = { surface: { size: { mode: 'fit' } } };

/** The size of the design, and what there is to say against it. */
export function sayPlacing({ design, room, bound, fittedWidthMm, trouble }: Placing, own: Size, wish: SizeWish, reachMm: number): { readonly findings: Finding<SurfacePatch>[]; readonly rulings: Ruling<SurfacePatch>[] } {
  return {
    findings: trouble ? [sayTrouble(trouble, design, reachMm)] : [],
    rulings: [
      {
        id: 'surface.size',
        stage: 'surface',
        subject: 'Size of the design',
        sentence: `The design is {value} wide and ${formatLength(design.heightMm)} mm high.`,
        value: design.widthMm,
        unit: 'mm',
        because:
          wish.mode === 'fit'
            ? [
                `The ${bound} between the margins, ${formatLength(bound === 'width' ? room.widthMm : room.heightMm)} mm, sets the limit.`,
                ...(reachMm > 0 ? [`Outlines take ${formatLength(reachMm)} mm of it on each side.`] : []),
                'Traps, marks and borders are worked out at this size. They are never scaled.',
              ]
            : [wish.mode === 'own' ? "This is the artwork's own size." : `You gave the ${wish.mode}. The other side follows from the artwork.`],
        overridden: wish.mode !== 'fit',
        proposed: fittedWidthMm,
        alternatives: [
          { label: 'Fit to the panel', patch: FIT },
          { label: `Artwork’s own size, ${formatLength(own.widthMm)} mm wide`, patch: { surface: { size: { mode: 'own' } } } },
        ],
      },
    ],
  };
}

function sayTrouble(trouble: NonNullable<Placing['trouble']>, { widthMm, heightMm }: Size, reachMm: number): Finding<SurfacePatch> {
  const remedies = [{ label: 'Fit it to the panel', patch: FIT }];
  switch (trouble) {
    case 'no-room':
      return { code: 'margins-too-wide', severity: 'blocker', stage: 'surface', message: 'The margins leave no room on the panel. Make them narrower, or the panel larger.' };
    case 'too-large':
      return {
        code: 'larger-than-panel',
        severity: 'warning',
        stage: 'surface',
        message: `The design${reachMm > 0 ? ' with its outline' : ''} is ${formatLength(widthMm + 2 * reachMm)} × ${formatLength(heightMm + 2 * reachMm)} mm: larger than the panel.`,
        remedies,
      };
    case 'into-margins':
      return { code: 'into-margins', severity: 'warning', stage: 'surface', message: `The ${reachMm > 0 ? 'outline' : 'design'} reaches into the margins.`, remedies };
  }
}

/** The outline reaches into the margins though the design does not; `widestMm` is how wide the design may be. */
export function sayOverhang(box: Box, widestMm: number): Finding<SurfacePatch> {
  const mm = Math.floor(widestMm * 10) / 10;
  return {
    code: 'outline-into-margins',
    severity: 'warning',
    stage: 'surface',
    message: `With its outline the work is ${formatLength(box.maxX - box.minX)} × ${formatLength(box.maxY - box.minY)} mm and reaches into the margins.`,
    where: box,
    remedies: mm >= 1 ? [{ label: `Make the design ${formatLength(mm)} mm wide`, patch: { surface: { size: { mode: 'width', mm } } } }] : [],
  };
}
