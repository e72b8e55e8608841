import styled from 'styled-components';
import { SHIPPED_FONTS } from '../../../core/artwork/index.js';
import { NO_REPAIR, patchRecipe, type Finding, type Recipe, type RecipePatch } from '../../../core/job/index.js';
import { useJobContext } from '../../job/job-context.js';
import { colour, space, type } from '../../tokens.js';
import { Button, WordButton } from '../../ui/button.js';
import { count } from '../../ui/say.js';

/** What was put right, each to be taken back; and in one go all that cannot change the look. */
export function PutRightList({ findings }: { readonly findings: readonly Finding[] }) {
  const { recipe, handle, plan } = useJobContext();
  const safe = findings.flatMap((finding) => finding.remedies?.filter((remedy) => remedy.safe) ?? []);
  const done = takenRemedies(recipe.repair);
  const letBe = [...new Map((plan?.letBe ?? []).map((finding) => [finding.code, finding])).values()];
  if (safe.length === 0 && done.length === 0 && letBe.length === 0) return null;
  return (
    <Box aria-label="Put right">
      {safe.length > 0 && (
        <p>
          <Button onPress={() => handle.change(merged(recipe, safe.map((remedy) => remedy.patch)))}>Put right all that is safe</Button>
          <span>
            {' '}
            {count(new Set(safe.map((remedy) => remedy.label)).size, 'remedy', 'remedies')} that cannot change the look: {[...new Set(safe.map((remedy) => remedy.label.toLowerCase()))].join('; ')}.
          </span>
        </p>
      )}
      {done.length > 0 && (
        <>
          <h3>Put right</h3>
          <ul>
            {done.map(({ said, back }) => (
              <li key={said}>
                {said} <WordButton onPress={() => handle.change({ repair: back })} aria-label={`Take back: ${said}`}>Take back</WordButton>
              </li>
            ))}
          </ul>
        </>
      )}
      {letBe.length > 0 && (
        <>
          <h3>Let be</h3>
          <ul>
            {letBe.map((finding) => (
              <li key={finding.code}>
                {finding.message} {recipe.repair.letBe[finding.code] && <em>{recipe.repair.letBe[finding.code]}</em>}{' '}
                <WordButton onPress={() => handle.change({ repair: { letBe: Object.fromEntries(Object.entries(recipe.repair.letBe).filter(([code]) => code !== finding.code)) } })} aria-label={`Show again: ${finding.message}`}>
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

function merged(recipe: Recipe, patches: readonly RecipePatch[]): RecipePatch {
  return { repair: patches.reduce<Recipe>((sum, patch) => patchRecipe(sum, patch), recipe).repair };
}

function takenRemedies(repair: Recipe['repair']): { said: string; back: RecipePatch['repair'] & object }[] {
  const without = (key: string) => Object.fromEntries(Object.entries(repair.recolour).filter(([from]) => from !== key));
  return [
    ...Object.entries(repair.recolour).map(([from, to]) => ({ said: `${from} is taken for ${to}.`, back: { recolour: without(from) } })),
    ...repair.noFilm.map((hex) => ({ said: `${hex} is no film: the surface shows there.`, back: { noFilm: repair.noFilm.filter((c) => c !== hex) } })),
    ...(repair.tidy ? [{ said: 'Hidden and doubled shapes are left out.', back: { tidy: NO_REPAIR.tidy } }] : []),
    ...(repair.speckMm2 > 0 ? [{ said: `Specks and pinholes below ${repair.speckMm2} mm² are dropped and filled.`, back: { speckMm2: NO_REPAIR.speckMm2 } }] : []),
    ...(repair.thickenMm > 0 ? [{ said: `Parts thinner than ${repair.thickenMm} mm are thickened.`, back: { thickenMm: NO_REPAIR.thickenMm } }] : []),
    ...(repair.closeGapsMm > 0 ? [{ said: `Gaps narrower than ${repair.closeGapsMm} mm are filled.`, back: { closeGapsMm: NO_REPAIR.closeGapsMm } }] : []),
    ...(repair.hairlines !== 'keep' ? [{ said: repair.hairlines === 'drop' ? 'Hairline strokes are left out.' : 'What hairline strokes enclose is filled.', back: { hairlines: NO_REPAIR.hairlines } }] : []),
    ...(repair.fillCrossings ? [{ said: 'Outlines that cross themselves are filled whole.', back: { fillCrossings: NO_REPAIR.fillCrossings } }] : []),
    ...(repair.joinEndsMm > 0 ? [{ said: `Ends of outlines up to ${repair.joinEndsMm} mm apart are joined.`, back: { joinEndsMm: NO_REPAIR.joinEndsMm } }] : []),
    ...(repair.gradientBands > 1 ? [{ said: `Gradients are cut as ${repair.gradientBands} bands.`, back: { gradientBands: NO_REPAIR.gradientBands } }] : []),
    ...(repair.patterns === 'flat' ? [{ said: 'Patterns become their main colour.', back: { patterns: NO_REPAIR.patterns } }] : []),
    ...(repair.pictures === 'trace' ? [{ said: 'Pictures inside drawings are traced.', back: { pictures: NO_REPAIR.pictures } }] : []),
    ...Object.entries(repair.fonts).map(([family, id]) => ({ said: `Text in “${family}” is set in ${SHIPPED_FONTS.find((font) => font.id === id)?.name ?? id}.`, back: { fonts: Object.fromEntries(Object.entries(repair.fonts).filter(([other]) => other !== family)) } })),
    ...(repair.simplifyMm > 0 ? [{ said: `Outlines are simplified within ${repair.simplifyMm} mm.`, back: { simplifyMm: NO_REPAIR.simplifyMm } }] : []),
  ];
}

const Box = styled.section`
  display: grid; gap: ${space.s}; font-size: ${type.small}; border-top: 1px dashed ${colour.line}; padding-top: ${space.m};
  h3 { font-size: ${type.small}; margin: 0; }
  ul { list-style: none; display: grid; gap: 2px; }
  p span { color: ${colour.quiet}; }
`;
