import { LAYINGS, type Laying } from '../../engines/layers/index.js';
import type { PressFigures } from '../../shop/index.js';
import { formatLength, type Ruling } from '../../words/index.js';
import type { AssembleDecisions, AssemblePatch } from './decisions.js';
import type { StepFigures } from './steps.js';

/** One step in words: what to do, and which layers lie there once it is done (film ids, lowest first as they lie). */
export interface AssemblyStep {
  readonly title: string;
  readonly text: string;
  readonly done: readonly string[];
  readonly laying: string | null;
  /** The registration marks still lie there. */
  readonly hasMarks: boolean;
}

/** What all steps look at. */
export interface AssemblyFigures {
  readonly way: AssembleDecisions['assembly']['way'];
  readonly isInside: boolean;
  readonly hasMarks: boolean;
  /** The panels in the order in which they are laid. */
  readonly panelsLaid: readonly number[];
  readonly longestSideMm: number;
  /** How many copies are laid together; 1 where each is by itself. */
  readonly perStrip: number;
  /** A knife can follow the gutters between them. */
  readonly isStraight: boolean;
  readonly counters: number;
  /** Of all layers. */
  readonly marks: number;
}

/** Longer work is laid from the middle, mm. */
const LONG_MM = 400;
/** Tape reaches beyond the work by this in all, mm. */
const TAPE_MORE_MM = 40;

/** A step in words. */
export function sayAssemblyStep({ act, layer, done }: StepFigures, figures: AssemblyFigures): AssemblyStep {
  const name = layer?.filmName ?? '';
  const hinge =
    figures.longestSideMm > LONG_MM
      ? 'a centre hinge: tape across the middle, then lay one half at a time'
      : 'a top hinge: tape along the upper edge';
  const together = figures.perStrip > 1 ? ` That lays all ${figures.perStrip} of a strip at once.` : '';
  const align = `${figures.hasMarks ? 'Cover everything except the marks with a strip of liner. Put mark on mark. Then pull out the liner and let the layer down, from the middle outwards.' : 'Lay it by eye, from the middle outwards.'}${together}`;
  const clean = 'Clean the surface and dry it. It should be between 10 and 25 °C.';
  const say = (title: string, text: string): AssemblyStep => ({
    title,
    text: layer?.foil ? `${sayFoil(layer.foil)} Its adhesive is put on as the other layers are: ${text}` : text,
    done,
    laying: layer?.filmId ?? null,
    hasMarks: figures.hasMarks && act !== 'lift-marks' && act !== 'finish' && act !== 'part',
  });
  switch (act) {
    case 'weed':
      return say(
        'Weed every layer',
        `Pull off the waste from the border inwards. Then take out the counters (${figures.counters} in all), and check the weed map for loose parts. Leave the marks.`,
      );
    case 'panels':
      return say(
        `Lay the panels in this order: ${figures.panelsLaid.join(', ')}`,
        'Tape the pattern or a line to the surface first. Take all the steps that follow for one panel, then for the next. Each laps over the one before it, edge to line.',
      );
    case 'lay-first':
      return say(
        figures.isInside ? `Lay ${name} on the inner face of the glass` : `Lay ${name} on the surface`,
        `${figures.isInside ? 'It is the front, and reads mirrored from inside. ' : ''}${clean} Put tape over the layer and make ${hinge}. Peel off the liner${figures.way === 'wet' ? ', wet the surface and the glue with water and a drop of soap,' : ''} and lay the layer down, from the middle outwards.${figures.way === 'wet' ? ' Press out the water, and let it rest before the next layer.' : ''}`,
      );
    case 'lay-over':
      return say(`Lay ${name} over it`, align);
    case 'lay-behind':
      return say(`Lay ${name} over it`, `It is seen behind what lies there already. ${align}`);
    case 'pick-up':
      return say(
        figures.isInside
          ? `Pick up ${name} first: it is what lies furthest from the glass`
          : `Pick up ${name} first: it is the front`,
        'Put tape over the weeded layer, rub it down, and lift it off its liner. It stays on the tape until the end.',
      );
    case 'add-behind':
      return say(
        `Add ${name} behind it`,
        `Turn the tape face up. ${align} On tape the order is reversed: what lies nearest the surface comes last.`,
      );
    case 'add-over':
      return say(
        `Add ${name} over it`,
        `Turn the tape face up. ${align} Behind glass the order on tape turns over twice: the front comes last, and its glue is what touches the glass.`,
      );
    case 'apply':
      return say(
        'Apply it in one go',
        `${clean} Make ${hinge}. Peel off the liner, lay the work down from the middle outwards, and rub it. Peel off the tape at a sharp angle.`,
      );
    case 'finish':
      return say(
        'Take off the tape',
        `Rub everything once more, from the middle outwards. Peel off the tape (a piece about ${formatLength(figures.longestSideMm + TAPE_MORE_MM)} mm long) at a sharp angle.${figures.hasMarks ? ` Lift the ${figures.marks} registration marks last.` : ''}`,
      );
    case 'part':
      return say(
        'Part the strips',
        figures.isStraight
          ? `Cut along the gutters with a knife and a ruler: ${figures.perStrip} a strip. Look over each before it is packed.`
          : `Cut them apart one by one: ${figures.perStrip} a strip. Look over each before it is packed.`,
      );
    case 'lift-marks':
      return say(
        'Lift the marks',
        `Lift the registration marks when everything holds: ${figures.marks}, counted over all layers.`,
      );
  }
}

/** What is done with foil that no film needs. */
function sayFoil({ tempC, seconds, pressure, peel }: PressFigures): string {
  const wait = peel === 'cold' ? 'Let it get cold before you peel it off.' : `Peel it off ${peel}.`;
  return `First put on the heat adhesive, press it, and peel off its carrier. Then lay the foil on it with the coloured face up, and press it at ${tempC} °C for ${seconds} s with ${pressure} pressure. ${wait}`;
}

const WAYS: Readonly<Record<Laying, { readonly value: string; readonly label: string; readonly because: string }>> = {
  dry: {
    value: 'on the surface, dry',
    label: 'On the surface, dry',
    because: 'The layer nearest the surface goes down first.',
  },
  wet: {
    value: 'on the surface, wet',
    label: 'On the surface, wet',
    because:
      'The first layer goes down on water with a drop of soap. Lay the others dry, or let the first rest for a day. Wet film stretches, so large work gets a wider trap.',
  },
  tape: {
    value: 'on tape',
    label: 'On tape, to apply in one go',
    because:
      'The front layer is picked up first, and the order is reversed. Tape stretches, so large work gets a wider trap.',
  },
};

/** How the layers are put together, and the other ways. */
export function sayWay(way: Laying, isInside: boolean): Ruling<AssemblePatch> {
  return {
    id: 'assemble.way',
    stage: 'assemble',
    subject: 'Where it is put together',
    sentence: 'The layers are put together {value}.',
    value: WAYS[way].value,
    unit: '',
    because: isInside
      ? [
          way === 'tape'
            ? 'Behind glass the order turns over twice: what lies lowest is picked up first. Tape stretches, so large work gets a wider trap.'
            : 'Behind glass the order is reversed: the front goes down first.',
        ]
      : [WAYS[way].because],
    alternatives: LAYINGS.filter((other) => other !== way).map((other) => ({
      label: WAYS[other].label,
      patch: { assembly: { way: other } },
    })),
  };
}
