import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { leftOfFilms } from '../../../core/shop/index.js';
import { formatLength, type LengthUnit } from '../../../core/words/index.js';
import { useJobContext } from '../../job/job-context.js';
import type { DrawnSheet, SheetView } from '../../../core/plan/page/plan-view.js';
import { colour, radius, space, type } from '../../tokens.js';
import { LinkButton, MainButton } from '../../ui/button.js';
import { FilmPicker } from '../../ui/film-picker.js';
import { Small } from '../../ui/plain-fields.js';
import { PIECE_WORDS } from '../../light-table/sheet-picture.js';

interface LoadedQuestionProps {
  readonly sheet: Pick<DrawnSheet, 'film' | 'piece' | 'mat' | 'usedLengthMm'> & Partial<Pick<SheetView, 'isMirrored' | 'panel'>>;
  /** What the button says. */
  readonly action: string;
  readonly hpglUrl?: string;
  readonly busy: boolean;
  readonly onCut: (loadedFilmId: string) => void;
}

/** Asked before every sheet, and answered by looking: nothing is filled in beforehand. */
export function LoadedQuestion({ sheet, action, hpglUrl, busy, onCut }: LoadedQuestionProps) {
  const { shop, unit } = useJobContext();
  const [loaded, setLoaded] = useState('');
  const [turned, setTurned] = useState(false);
  const left = useMemo(() => leftOfFilms(shop.stock), [shop.stock]);
  const { film } = sheet;
  const wrong = loaded !== '' && loaded !== film.id;
  const sideUp = film.mirrored ? 'carrier down, the coloured side on the mat: it is cut mirrored, from the back' : 'film side up, liner down';
  return (
    <Card>
      <h3>What is loaded?</h3>
      <Small>{wanted(sheet, unit)}</Small>
      <p>
        Film in the cutter <FilmPicker label="Film in the cutter" films={shop.films} left={left} value={loaded} placeholder="look, then choose …" onChange={setLoaded} />
      </p>
      <Check>
        <input type="checkbox" checked={turned} onChange={(event) => setTurned(event.target.checked)} /> It lies {sideUp}.
      </Check>
      {wrong && <Wrong role="alert">That is not the film of this sheet. Load {film.name}, or choose the film elsewhere in the job.</Wrong>}
      <Row>
        <MainButton isDisabled={loaded !== film.id || !turned || busy} onPress={() => onCut(loaded)}>
          {action}
        </MainButton>
        {hpglUrl && (
          <LinkButton href={hpglUrl} download>
            Download HP-GL
          </LinkButton>
        )}
      </Row>
    </Card>
  );
}

/** What to load, and where: the program counts from one corner, which is the same in the picture. */
function wanted({ isMirrored, panel, ...sheet }: LoadedQuestionProps['sheet'], unit: LengthUnit): string {
  const which = panel && panel.of > 1 ? ` It is ${panel.label ?? `panel ${panel.number} of ${panel.of}`}.` : '';
  return `${pieceWanted(sheet, unit)}${which}${isMirrored && !sheet.film.mirrored ? ' It is cut mirrored: it goes inside the glass.' : ''}`;
}

function pieceWanted({ film, piece, mat, usedLengthMm }: Pick<DrawnSheet, 'film' | 'piece' | 'mat' | 'usedLengthMm'>, unit: LengthUnit): string {
  const length = `${formatLength(usedLengthMm, unit)} ${unit}`;
  if (!piece) return `This sheet needs ${film.name}, at least ${length} long.`;
  const what = `This sheet needs ${film.name}, ${PIECE_WORDS[piece.kind]} ${formatLength(piece.widthMm, unit)} ${unit} wide and at least ${length} long.`;
  return mat
    ? `${what} Lay its lower left corner into the lower left corner of the field of the ${mat.name}. The cutter counts from there (0 in the picture).`
    : `${what} The cutter counts from its lower left corner (0 in the picture).`;
}

const Card = styled.section`
  display: grid; gap: ${space.s}; padding: ${space.m}; background: ${colour.raised}; border: 1px solid ${colour.line}; border-radius: ${radius.m};
  h3 { font-size: ${type.body}; margin: 0; }
`;
const Check = styled.label`font-size: ${type.small}; cursor: pointer;`;
const Wrong = styled.p`color: ${colour.bad}; font-size: ${type.small};`;
const Row = styled.div`display: flex; flex-wrap: wrap; gap: ${space.s};`;
