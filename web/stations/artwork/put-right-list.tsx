import styled from 'styled-components';
import { shippedFont } from '../../../core/engines/artwork/index.js';
import {
  patchRecipe,
  type Recipe,
  type RecipePatch,
  type JobFinding,
  type JobRemedy,
} from '../../../core/recipe/index.js';
import {
  NO_REPAIR,
  sparedFor,
  sparedNoMore,
  takenBack,
  takenEverywhere,
} from '../../../core/stations/artwork/index.js';
import { type PlaceRemedy, type SparedPlace, count } from '../../../core/words/index.js';
import { useJobContext } from '../../job/job-context.js';
import { LetBe } from '../../job/let-be.js';
import { colour, space, type } from '../../tokens.js';
import { Button, WordButton } from '../../ui/button.js';
import { ColouredText } from '../../ui/coloured-text.js';
import { FigureField } from '../../ui/figure-field.js';
import { NumberField } from '../../ui/number-field.js';

/** What was put right, each to be taken back; and in one go all that cannot change the look. */
export function PutRightList({ findings }: { readonly findings: readonly JobFinding[] }) {
  const { recipe, handle, plan } = useJobContext();
  const safe = findings.flatMap((finding) => finding.remedies?.filter((remedy) => remedy.safe) ?? []);
  const done = takenRemedies(recipe.repair, plan?.colourNames ?? {});
  const letBe = [...new Map((plan?.letBe ?? []).map((finding) => [finding.code, finding])).values()];
  const letBeHere = sparedPlaces(recipe.repair);
  if (safe.length + done.length + letBe.length + letBeHere.length === 0) return null;
  return (
    <Box aria-label="Fixes">
      {safe.length > 0 && (
        <p>
          <Button onPress={() => handle.change(merged(recipe, safe))}>Fix everything that is safe</Button>
          <span>
            {' '}
            {count(new Set(safe.map((remedy) => remedy.label)).size, 'fix', 'fixes')} without a change to how it looks:{' '}
            {[...new Set(safe.map((remedy) => remedy.label.toLowerCase()))].join('; ')}.
          </span>
        </p>
      )}
      {done.length > 0 && (
        <>
          <h3>Fixes</h3>
          <ul>
            {done.map(({ said, back, figure }) => (
              <li key={figure?.label ?? said}>
                {figure ? <WithFigure said={said} figure={figure} /> : <ColouredText text={said} />}{' '}
                <WordButton onPress={() => handle.change(back)} aria-label={`Undo: ${said}`}>
                  Undo this
                </WordButton>
              </li>
            ))}
          </ul>
        </>
      )}
      {letBe.length + letBeHere.length > 0 && (
        <>
          <h3>Left as they are</h3>
          <ul>
            {letBeHere.map(({ said, kind, reasons, hasNone, back }) => (
              <li key={said}>
                {said} {reasons && <em>{reasons}</em>}{' '}
                {hasNone && (
                  <LetBe
                    label="Add a reason"
                    about={said}
                    onReason={(reason) => handle.change(sparedFor(recipe.repair, kind, reason))}
                  />
                )}{' '}
                <WordButton onPress={() => handle.change(back)} aria-label={`Show again: ${said}`}>
                  Show again
                </WordButton>
              </li>
            ))}
            {letBe.map((finding) => (
              <li key={finding.code}>
                <ColouredText text={finding.message} />{' '}
                {recipe.repair.letBe[finding.code] ? (
                  <em>{recipe.repair.letBe[finding.code]}</em>
                ) : (
                  <LetBe
                    label="Add a reason"
                    about={finding.message}
                    onReason={(reason) =>
                      handle.change({ repair: { letBe: { ...recipe.repair.letBe, [finding.code]: reason } } })
                    }
                  />
                )}{' '}
                <WordButton
                  onPress={() =>
                    handle.change({
                      repair: {
                        letBe: Object.fromEntries(
                          Object.entries(recipe.repair.letBe).filter(([code]) => code !== finding.code),
                        ),
                      },
                    })
                  }
                  aria-label={`Show again: ${finding.message}`}
                >
                  Show again
                </WordButton>
              </li>
            ))}
          </ul>
        </>
      )}
    </Box>
  );
}

function merged(recipe: Recipe, remedies: readonly JobRemedy[]): RecipePatch {
  return {
    repair: remedies.reduce<Recipe>((sum, remedy) => patchRecipe(sum, takenEverywhere(sum.repair, remedy)), recipe)
      .repair,
  };
}

interface TakenRemedy {
  readonly said: string;
  readonly back: RecipePatch;
  /** The figure in it, to be changed where it stands. */
  readonly figure?: Figure;
}

interface Figure {
  readonly label: string;
  readonly value: number;
  /** A length in mm, or a whole number. */
  readonly kind: 'mm' | 'count';
  readonly min: number;
  readonly max: number;
  readonly set: (value: number) => RecipePatch;
}

function WithFigure({ said, figure }: { readonly said: string; readonly figure: Figure }) {
  const { handle, unit } = useJobContext();
  const { label, value, kind, min, max, set } = figure;
  const [before, after = ''] = said.split(kind === 'mm' ? ` ${value} mm` : ` ${value}`);
  const onChange = (next: number) => handle.change(set(next));
  return (
    <>
      {before}{' '}
      {kind === 'mm' ? (
        <FigureField label={label} mm={value} unit={unit} min={min} max={max} stepMm={0.1} onChange={onChange} />
      ) : (
        <NumberField label={label} value={value} min={min} max={max} onChange={onChange} />
      )}
      {after}
    </>
  );
}

/** What was put right, as sentences, each with the change that takes it back. */
function takenRemedies(repair: Recipe['repair'], names: Readonly<Record<string, string>>): TakenRemedy[] {
  const named = (hex: string) => (names[hex] ? `${names[hex]} (${hex})` : hex);
  const without = (key: string) => Object.fromEntries(Object.entries(repair.recolour).filter(([from]) => from !== key));
  const back = (change: RecipePatch['repair'] & object): RecipePatch => ({ repair: change });
  const at = (kind: PlaceRemedy, said: string) => ({
    said: repair.only[kind] ? `${said.replace(/\.$/, '')}, at ${count(repair.only[kind].length, 'place')}.` : said,
    back: takenBack(repair, kind),
  });
  const mm = (
    label: string,
    key: 'thickenMm' | 'closeGapsMm' | 'simplifyMm' | 'joinEndsMm',
    max: number,
  ): { figure: Figure } => ({
    figure: { label, value: repair[key], kind: 'mm', min: 0.01, max, set: (value) => back({ [key]: value }) },
  });
  return [
    ...Object.entries(repair.recolour).map(([from, to]) => ({
      said: `The ${named(from)} is cut together with the ${named(to)}.`,
      back: back({ recolour: without(from) }),
    })),
    ...repair.noFilm.map((hex) => ({
      said: `The ${named(hex)} is not film: the surface shows there.`,
      back: back({ noFilm: repair.noFilm.filter((c) => c !== hex) }),
    })),
    ...(repair.only.bare ? [at('bare', 'White is not film.')] : []),
    ...(repair.tidy ? [at('tidy', 'Hidden and doubled shapes are left out.')] : []),
    ...(repair.speckMm2 > 0
      ? [at('specks', `Specks and pinholes below ${repair.speckMm2} mm² are dropped and filled.`)]
      : []),
    ...(repair.thickenMm > 0
      ? [
          {
            ...at('thicken', `Parts thinner than ${repair.thickenMm} mm are thickened.`),
            ...mm('Least width of parts', 'thickenMm', 50),
          },
        ]
      : []),
    ...(repair.closeGapsMm > 0
      ? [
          {
            ...at('gaps', `Gaps narrower than ${repair.closeGapsMm} mm are filled.`),
            ...mm('Least width of gaps', 'closeGapsMm', 50),
          },
        ]
      : []),
    ...(repair.hairlines !== 'keep'
      ? [
          at(
            'hairlines',
            repair.hairlines === 'drop'
              ? 'Very thin strokes are left out.'
              : 'What very thin strokes enclose is filled.',
          ),
        ]
      : []),
    ...(repair.fillCrossings ? [at('crossings', 'Outlines that cross themselves are filled completely.')] : []),
    ...(repair.joinEndsMm > 0
      ? [
          {
            said: `Ends of outlines up to ${repair.joinEndsMm} mm apart are joined.`,
            back: back({ joinEndsMm: NO_REPAIR.joinEndsMm }),
            ...mm('How far apart ends are joined', 'joinEndsMm', 50),
          },
        ]
      : []),
    ...(repair.gradientBands > 1
      ? [
          {
            said: `Gradients are cut as ${repair.gradientBands} bands.`,
            back: back({ gradientBands: NO_REPAIR.gradientBands }),
            figure: {
              label: 'Bands of a gradient',
              value: repair.gradientBands,
              kind: 'count' as const,
              min: 2,
              max: 24,
              set: (gradientBands: number) => back({ gradientBands }),
            },
          },
        ]
      : []),
    ...(repair.shines === 'keep'
      ? [{ said: 'Shines and shadows are cut as solid film.', back: back({ shines: NO_REPAIR.shines }) }]
      : []),
    ...(repair.blurs === 'drop'
      ? [{ said: 'What is blurred is left out.', back: back({ blurs: NO_REPAIR.blurs }) }]
      : []),
    ...(repair.beyondArtboard === 'take'
      ? [
          {
            said: 'What reaches beyond the artboard is taken as well.',
            back: back({ beyondArtboard: NO_REPAIR.beyondArtboard }),
          },
        ]
      : []),
    ...(repair.patterns === 'flat'
      ? [{ said: 'Patterns are cut in their main colour.', back: back({ patterns: NO_REPAIR.patterns }) }]
      : []),
    ...(repair.pictures === 'trace'
      ? [{ said: 'Pictures inside drawings are traced.', back: back({ pictures: NO_REPAIR.pictures }) }]
      : []),
    ...Object.entries(repair.fonts).map(([family, id]) => ({
      said: `Text in “${family}” is set in ${shippedFont(id)?.name ?? id}.`,
      back: back({ fonts: Object.fromEntries(Object.entries(repair.fonts).filter(([other]) => other !== family)) }),
    })),
    ...(repair.simplifyMm > 0
      ? [
          {
            ...at('simplify', `Outlines are simplified within ${repair.simplifyMm} mm.`),
            ...mm('How close outlines stay to the drawing', 'simplifyMm', 1),
          },
        ]
      : []),
  ];
}

const SPARED: Readonly<Record<PlaceRemedy, string>> = {
  tidy: 'Hidden or doubled shapes are kept',
  specks: 'Specks and pinholes stay',
  thicken: 'Thin parts stay',
  gaps: 'Narrow gaps stay',
  simplify: 'Outlines keep their corners',
  hairlines: 'Very thin strokes stay',
  crossings: 'Crossing outlines stay',
  bare: 'White is film',
};

/** Places that are let be, by what was found there. */
function sparedPlaces(repair: Recipe['repair']) {
  return (Object.entries(repair.spared) as [PlaceRemedy, readonly SparedPlace[]][]).map(([kind, places]) => ({
    kind,
    said: `${SPARED[kind]}, at ${count(places.length, 'place')}.`,
    reasons: [...new Set(places.map((place) => place.reason))].join(' ').trim(),
    hasNone: places.some((place) => place.reason === ''),
    back: sparedNoMore(repair, kind),
  }));
}

const Box = styled.section`
  display: grid;
  gap: ${space.s};
  font-size: ${type.small};
  border-top: 1px dashed ${colour.line};
  padding-top: ${space.m};
  h3 {
    font-size: ${type.small};
    margin: 0;
  }
  ul {
    list-style: none;
    display: grid;
    gap: 2px;
  }
  p span {
    color: ${colour.quiet};
  }
`;
