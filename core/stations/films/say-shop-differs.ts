import { listed, type Finding } from '../../words/index.js';
import type { BUILD_FIGURES, ShopDifference } from './built-with.js';
import type { FilmsPatch } from './decisions.js';

const FIGURES: Readonly<Record<(typeof BUILD_FIGURES)[number], string>> = {
  family: 'family',
  colour: 'colour',
  finish: 'finish',
  directional: 'direction',
  thicknessUm: 'thickness',
  thinnestMm: 'thinnest stroke',
  drawBackIndoorsMm: 'draw-back indoors',
  drawBackSunMm: 'draw-back in the sun',
  shrinkPct: 'shrink',
  takesOnTop: 'what sticks on top',
  mirrored: 'side it is cut from',
  opacityPct: 'opacity',
  adhesive: 'adhesive',
  adhesiveColour: 'colour of the adhesive',
};

/** The shop differs from what a job was cut with. The job keeps that; `renewals` is how often it was renewed. */
export function sayShopDiffers(differences: readonly ShopDifference[], renewals: number): Finding<FilmsPatch> {
  const how = differences.map(({ filmName, what, figures, nearer }) => {
    switch (what) {
      case 'gone':
        return `${filmName} is not in the shop any more`;
      case 'retired':
        return `${filmName} is retired`;
      case 'figures':
        return `${filmName} has changed (${listed(figures.map((figure) => FIGURES[figure]))})`;
      case 'nearer':
        return `${nearer} is now closer in colour than ${filmName}`;
    }
  });
  return {
    code: 'shop-differs',
    severity: 'note',
    stage: 'films',
    message: `The shop has changed since part of this job was cut: ${listed(how)}. The job keeps the films and figures that it was cut with. With those of today, what is cut may no longer fit.`,
    remedies: [
      {
        label: 'Take the shop as it is now',
        patch: { films: { renewals: renewals + 1 } },
      },
    ],
  };
}
