import { formatLength, type Finding, type Ruling } from '../../words/index.js';
import { ALL_HOLES_MM, type BuildDecisions, type BuildPatch, type Outline } from './decisions.js';
import type { Framed, LaidBase } from './framing.js';
import type { MadeKnockOut } from './knock-outs.js';
import type { LaidOutline } from './outlines.js';
import type { LaidContour } from './print-contour.js';

const mm = (value: number) => formatLength(value);

/** What was decided about cut-outs, a print's cut line, a base and outlines. */
export function sayFramed({ knockOuts, contour, base, outlines }: Framed): Ruling<BuildPatch>[] {
  return [
    ...knockOuts.map(sayKnockOut),
    ...(contour ? [sayContour(contour)] : []),
    ...(base ? [sayBase(base)] : []),
    ...outlines.map(sayOutline),
  ];
}

/** What would go wrong with them. */
export function sayFramedTroubles(
  { contour, outlines }: Framed,
  { outlines: decided }: Pick<BuildDecisions['build'], 'outlines'>,
): Finding<BuildPatch>[] {
  return [
    ...(contour ? sayContourTrouble(contour) : []),
    ...outlines.flatMap((laid) => sayOutlineTrouble(laid, decided)),
  ];
}

function sayKnockOut({
  knockOut: { clearanceMm, fillBelowMm, dropBelowMm2 },
  shape,
  base,
  joined,
}: MadeKnockOut): Ruling<BuildPatch> {
  return {
    id: `build.knock-out.${shape.id}.${base.id}`,
    stage: 'build',
    subject: `Knock-out of ${shape.name}`,
    sentence: `${shape.name} is cut out of ${base.name} with {value} free all around.`,
    value: clearanceMm,
    unit: 'mm',
    because: [
      ...(joined.words > 0
        ? [
            `The letters of ${joined.words} ${joined.words === 1 ? 'word' : 'words'} stand up to ${mm(joined.mostMm)} mm closer. That is the least at which each word is one piece.`,
          ]
        : []),
      ...(fillBelowMm >= ALL_HOLES_MM
        ? [`All of ${base.name} inside and between its shapes is taken out too.`]
        : fillBelowMm > 0
          ? [
              `What of ${base.name} lies inside and between its shapes and is narrower than ${mm(fillBelowMm)} mm is taken out too.`,
            ]
          : []),
      `Pieces of ${base.name} that come off and are smaller than ${mm(dropBelowMm2 === null ? base.thinnestMm : Math.sqrt(dropBelowMm2))} mm square are dropped${dropBelowMm2 === null ? ', because they cannot be weeded' : ''}.`,
    ],
  };
}

function sayContour({
  contour: { side },
  film,
  byMm,
  ruledMm,
  bridgesMm,
  printedPieces,
}: LaidContour): Ruling<BuildPatch> {
  const because = {
    inside: [
      'This far inside, an error of the cutter leaves no unprinted edge. On larger work the cutter and the film are off by more (docs/outline.md).',
    ],
    outside: [
      'This far outside, a border of film is left around the print.',
      ...(printedPieces < 2
        ? []
        : ruledMm >= bridgesMm
          ? [`From ${mm(bridgesMm)} mm on, the ${printedPieces} parts of the print are one piece that can be weeded.`]
          : [
              `The ${printedPieces} parts of the print lie far apart. They would be one piece from ${mm(bridgesMm)} mm on.`,
            ]),
    ],
    bleed: [
      'The blade follows the edge of the design. What is printed reaches this far beyond it, so that an error of the cutter leaves no unprinted edge.',
    ],
  }[side];
  return {
    id: 'build.contour',
    stage: 'build',
    subject: 'Cut line around the print',
    sentence:
      side === 'bleed'
        ? `The print on ${film.name} is cut on its edge, and printed {value} beyond it.`
        : `The print on ${film.name} is cut {value} ${side} its edge.`,
    value: byMm,
    unit: 'mm',
    because: [...because, 'The colours are printed, so they are one layer.'],
    overridden: byMm !== ruledMm,
    proposed: ruledMm,
  };
}

function sayContourTrouble({
  contour,
  film,
  byMm,
  ruledMm,
  bridgesMm,
  pieces,
  printedPieces,
  thin,
  isNothingLeft,
}: LaidContour): Finding<BuildPatch>[] {
  const found = { severity: 'warning', stage: 'build', ...(thin ? { where: thin } : {}) } as const;
  const bleed = {
    label: 'Cut on the edge, with a bleed',
    patch: { build: { contour: { ...contour, side: 'bleed', byMm: null } } },
  } as const;
  const joined = {
    label: `Cut ${mm(bridgesMm)} mm outside, in one piece`,
    patch: { build: { contour: { ...contour, side: 'outside', byMm: bridgesMm } } },
  } as const;
  if (isNothingLeft)
    return [
      {
        ...found,
        code: 'contour-nothing',
        severity: 'blocker',
        message: `Nothing is left of the print ${mm(byMm)} mm inside its edge.`,
        remedies: [bleed, joined],
      },
    ];
  if (contour.side === 'inside' && pieces !== printedPieces) {
    return [
      {
        ...found,
        code: 'contour-pieces',
        message: `${mm(byMm)} mm inside its edge, the print is cut in ${pieces} ${pieces === 1 ? 'piece' : 'pieces'}; it is printed in ${printedPieces}. ${pieces > printedPieces ? 'It falls apart where it is narrow.' : 'Small parts are lost.'}`,
        remedies: [bleed, joined],
      },
    ];
  }
  if (contour.side === 'outside' && pieces > 1 && byMm < bridgesMm) {
    return [
      {
        ...found,
        code: 'contour-pieces',
        severity: byMm < ruledMm ? 'warning' : 'note',
        message: `With ${mm(byMm)} mm around it, the print is cut in ${pieces} separate pieces.`,
        remedies: [joined],
      },
    ];
  }
  if (thin)
    return [
      {
        ...found,
        code: 'contour-thin',
        message: `${mm(byMm)} mm ${contour.side} its edge, parts of the cut are thinner than the ${mm(film.thinnestMm)} mm that can be weeded in ${film.name}.`,
        remedies: [joined],
      },
    ];
  return [];
}

function sayBase({ film, bridgedMm, shownMm2 }: LaidBase): Ruling<BuildPatch> {
  return {
    id: 'build.base',
    stage: 'build',
    subject: 'Base',
    sentence: '{value} lies in one piece under everything.',
    value: film.name,
    unit: '',
    because: [
      'Everything else is laid on it, and it is weeded and laid as one.',
      bridgedMm > 0
        ? `Parts lie apart, so it is bridged between them with the least that can be weeded. ${mm(shownMm2 / 100)} cm² of it show there.`
        : 'All parts touch, so nothing more of it shows.',
    ],
  };
}

function sayOutline({
  outline,
  film,
  widthMm,
  onePieceMm,
  bridgesMm,
  ruledMm,
  apartMm,
  longestMm,
  things,
}: LaidOutline): Ruling<BuildPatch> {
  const own = things > 1;
  return {
    id: `build.outline.${outline.id}`,
    stage: 'build',
    subject: `Outline in ${film.name}`,
    sentence: own
      ? `${things} outlines in ${film.name} reach {value} beyond what each goes around.`
      : `The outline in ${film.name} reaches {value} beyond ${outline.around === null ? 'the work' : 'what it goes around'}.`,
    value: widthMm,
    unit: 'mm',
    because: [
      onePieceMm > 0
        ? `From ${mm(onePieceMm)} mm on, ${own ? 'each of them is' : 'all parts become'} one piece. That is half the widest gap that must be bridged (docs/outline.md).`
        : `${own ? 'Each of what they go around' : 'What it goes around'} is one piece already.`,
      `From ${mm(bridgesMm)} mm on, no bridge of it is thinner than ${mm(film.thinnestMm)} mm, the least that can be weeded in ${film.name}.`,
      ...(apartMm !== null
        ? [
            ruledMm < bridgesMm
              ? `With more than ${mm(apartMm)} mm they would come too near to each other.`
              : `Up to ${mm(apartMm)} mm, a strip between them is left that can be weeded.`,
          ]
        : []),
      `${own ? 'The longest is' : 'Its longest side is'} ${mm(longestMm)} mm.`,
    ],
    overridden: outline.widthMm !== null && outline.widthMm !== ruledMm,
    proposed: ruledMm,
  };
}

function sayOutlineTrouble(
  { outline, film, widthMm, onePieceMm, bridgesMm, apartMm, things, pieces, box }: LaidOutline,
  decided: readonly Outline[],
): Finding<BuildPatch>[] {
  const found = { severity: 'warning', stage: 'build', where: box } as const;
  const to = (next: Partial<Outline>): BuildPatch => ({
    build: { outlines: decided.map((one) => (one.id === outline.id ? { ...one, ...next } : one)) },
  });
  const widen = { label: `Make it ${mm(bridgesMm)} mm wide`, patch: to({ widthMm: null }) };
  const meets = { label: 'One outline around all of them', patch: to({ each: 'all', widthMm: null }) };
  if (things > 1 && apartMm !== null && widthMm > apartMm + 1e-9) {
    return [
      {
        ...found,
        code: 'outlines-meet',
        message:
          pieces < things
            ? `The outlines in ${film.name} meet: ${things} were asked for, and there are ${pieces}.`
            : `Between the outlines in ${film.name}, strips are left that are thinner than the ${mm(film.thinnestMm)} mm that can be weeded.`,
        remedies: [
          ...(apartMm >= Math.max(0.1, onePieceMm)
            ? [{ label: `Make them ${mm(apartMm)} mm wide`, patch: to({ widthMm: apartMm }) }]
            : []),
          meets,
        ],
      },
    ];
  }
  if (widthMm < film.thinnestMm)
    return [
      {
        ...found,
        code: 'outline-thin',
        message: `An outline ${mm(widthMm)} mm wide is too thin to weed in ${film.name}, which needs ${mm(film.thinnestMm)} mm.`,
        remedies: things > 1 ? [] : [widen],
      },
    ];
  if (pieces > things && widthMm < onePieceMm - 1e-9)
    return [
      {
        ...found,
        code: 'outline-pieces',
        message: `The outline in ${film.name} is ${pieces} pieces: it is too narrow to join what it goes around.`,
        remedies: things > 1 ? [] : [widen],
      },
    ];
  return [];
}
