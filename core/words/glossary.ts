/** A word of the trade and what it means, in one or two plain sentences. */
export interface TradeWord {
  readonly word: string;
  readonly means: string;
}

/** The words of the trade that the pages and the documentation use, by the alphabet. */
export const GLOSSARY: readonly TradeWord[] = [
  { word: 'alignment', means: 'Putting one layer exactly in its place over another.' },
  {
    word: 'backing',
    means:
      'A film laid completely under another one, so that a dark surface does not show through. Also called a block-out.',
  },
  { word: 'batch', means: 'Jobs that are cut together, on the same sheets.' },
  {
    word: 'blank',
    means: 'The thing that gets decorated, before there is anything on it.',
  },
  { word: 'blocker', means: 'Something that stops a job. It must be put right before anything is cut.' },
  { word: 'copy', means: 'The whole design once. A job can be cut in many copies.' },
  {
    word: 'counter',
    means: 'The closed inside of a letter or shape, as in o, a or R. It is waste and has to be taken out.',
  },
  { word: 'cross-section', means: 'A picture of the layers as if they were cut through and seen from the side.' },
  {
    word: 'cut-out',
    means: 'A shape of a stencil that is taken out, so that paint or etching reaches the surface there.',
  },
  { word: 'design', means: 'All of the artwork as it is arranged, at its final size.' },
  { word: 'draw-back', means: 'How far the edge of a film that is stuck down moves back after some time.' },
  {
    word: 'film',
    means:
      'Coloured plastic on a roll or sheet, with glue on its back or made to be pressed on with heat. Each colour of a design is cut from a film.',
  },
  { word: 'finding', means: 'Something the app noticed about a job: a note, a warning, or a blocker.' },
  {
    word: 'gang',
    means:
      'Copies of a layered design that lie in strips. All films share the places, and each strip has one set of marks.',
  },
  {
    word: 'gap trial',
    means:
      'The app puts the layers together many times with small random errors and counts how often bare surface shows.',
  },
  {
    word: 'inlay',
    means:
      'A way of building: upper shapes are cut out of the lower films exactly, so the edges only touch and the work is flat.',
  },
  {
    word: 'island',
    means:
      'A piece of a stencil that lies inside a cut-out, like the inside of an o. Nothing but the tape holds it in its place.',
  },
  { word: 'kiss cut', means: 'A cut through the film but not through the liner.' },
  { word: 'knock-out', means: 'A shape cut out of a film with some free space around it.' },
  { word: 'lap', means: 'The part of a lower film that lies under an upper one.' },
  { word: 'layer', means: 'Everything of a job that is cut from one film.' },
  { word: 'liner', means: 'The paper that carries the film and protects its glue.' },
  {
    word: 'loose part',
    means: 'A small piece of the design that is easily lost with the waste, like the dot of an i.',
  },
  {
    word: 'mark',
    means:
      'A small shape cut into every layer at the same place. Marks are laid on top of each other to align the layers, and are removed at the end.',
  },
  { word: 'mat', means: 'A sticky board that carries a sheet of film through the cutter.' },
  {
    word: 'mirrored',
    means: 'Cut as a mirror image, from the back of the film, because the film is turned over when it is put on.',
  },
  { word: 'offcut', means: 'A piece of film that is left over and can be used again. A number is written on it.' },
  { word: 'outline', means: 'A border of film around the artwork, behind everything else.' },
  {
    word: 'overcut',
    means: 'How far the knife goes on past the start of a closed line, so that the line really closes.',
  },
  { word: 'overlay', means: 'A way of building: lower films run completely under the upper ones.' },
  {
    word: 'panel',
    means: 'One of several strips that a sign is made in when it is bigger than the roll. Each laps the next a little.',
  },
  { word: 'pass', means: 'One time through the cutter, with one set of settings.' },
  {
    word: 'pattern',
    means: 'The outline of a design on paper at full size, to be taped to the surface before film is spent.',
  },
  { word: 'pattern film', means: 'Film that is printed or woven with a picture that repeats.' },
  { word: 'pick list', means: 'What to fetch from the rack before cutting.' },
  { word: 'pinhole', means: 'A hole too small to weed.' },
  { word: 'placement error', means: 'How far from its place a layer may land when it is laid with care.' },
  { word: 'plan', means: 'Everything the app works out from your decisions: layers, sheets, cuts, steps.' },
  { word: 'relief line', means: 'A cut through the waste only. It parts the waste into strips that come off easily.' },
  { word: 'reorder level', means: 'With less than this in stock, a film is short.' },
  {
    word: 'ruling',
    means: 'Something the app decided for you, with its reasons. You can change it where the page offers another way.',
  },
  { word: 'sheet', means: 'What is cut in one pass from one piece of film.' },
  { word: 'slant', means: 'How long the side of a tapered thing is, measured along it.' },
  { word: 'speck', means: 'A piece too small to stay on the film when the waste is pulled off.' },
  {
    word: 'stock book',
    means: 'The list of everything that came, went or was counted of a piece of film. What is left is its sum.',
  },
  { word: 'strain', means: 'How far a film must stretch to lie on a surface that bends in two directions.' },
  { word: 'strip', means: 'A piece of waste that comes off in one pull.' },
  { word: 'tack press', means: 'A short press that only holds a film until the full press at the end.' },
  {
    word: 'tape',
    means: 'Transfer tape: sticky paper or plastic that picks up the cut film and carries it to the surface.',
  },
  { word: 'taper', means: 'A round thing that is wider at one end, like a tumbler or a lampshade.' },
  { word: 'trap', means: 'How far a lower film runs under an upper one, so that small errors do not show as gaps.' },
  {
    word: 'trapped inlay',
    means: 'A way of building: like an inlay, but lower films run a little under the upper ones, by the trap.',
  },
  { word: 'waste', means: 'The film that does not belong to the design and is pulled off.' },
  {
    word: 'weed map',
    means: 'A picture that shows what stays, what is waste, and which counters and loose parts to look for.',
  },
  { word: 'weeding', means: 'Pulling the waste off after cutting.' },
  {
    word: 'weeding border',
    means: 'A line cut around the design, so that the waste inside it comes off in one piece.',
  },
];

/** The glossary as a page of the documentation. */
export function glossaryPage(): string {
  return `# Words of the trade\n\nThe same list is on every page under “Words” (Alt+W).\n\n| word | what it means |\n|---|---|\n${GLOSSARY.map(({ word, means }) => `| ${word} | ${means} |`).join('\n')}\n`;
}
