import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { leftOfFilms, saySideUp } from '../../../core/shop/index.js';
import { formatLength, type LengthUnit } from '../../../core/words/index.js';
import { useShop } from '../../plan/use-shop.js';
import { useSettings } from '../../ui/settings.js';
import type { BatchSheetView } from '../../../core/batch/index.js';
import type { DrawnSheet } from '../../../core/plan/page/plan-view.js';
import { colour, radius, space, type } from '../../tokens.js';
import { LinkButton, MainButton } from '../../ui/button.js';
import { FilmPicker } from '../../ui/film-picker.js';
import { Small } from '../../ui/plain-fields.js';
import { sayPanels } from '../../ui/say-panels.js';
import { Swatch } from '../../ui/swatch.js';
import { PIECE_WORDS } from '../../light-table/sheet-picture.js';

interface LoadedQuestionProps {
  readonly sheet: Pick<DrawnSheet, 'film' | 'piece' | 'mat' | 'zones' | 'usedLengthMm'> &
    Partial<Pick<BatchSheetView, 'mirroredFilmIds' | 'panels' | 'section' | 'inCounters'>>;
  /** What the button says. */
  readonly action: string;
  readonly hpglUrl?: string;
  readonly busy: boolean;
  readonly onCut: (loadedFilmIds: readonly string[]) => void;
}

/** Asked before every sheet, and answered by looking: nothing is filled in beforehand. */
export function LoadedQuestion({ sheet, action, hpglUrl, busy, onCut }: LoadedQuestionProps) {
  return sheet.zones ? (
    <PiecesQuestion
      zones={sheet.zones}
      inCounters={sheet.inCounters ?? 0}
      mirroredFilmIds={sheet.mirroredFilmIds}
      action={action}
      hpglUrl={hpglUrl}
      busy={busy}
      onCut={onCut}
      mat={sheet.mat!}
    />
  ) : (
    <PieceQuestion sheet={sheet} action={action} hpglUrl={hpglUrl} busy={busy} onCut={onCut} />
  );
}

type AskedOf<T> = Omit<LoadedQuestionProps, 'sheet' | 'hpglUrl'> & { readonly hpglUrl: string | undefined } & T;

function PieceQuestion({ sheet, action, hpglUrl, busy, onCut }: AskedOf<Pick<LoadedQuestionProps, 'sheet'>>) {
  const shop = useShop();
  const { unit } = useSettings();
  const [loaded, setLoaded] = useState('');
  const [turned, setTurned] = useState(false);
  const left = useMemo(() => leftOfFilms(shop?.stock ?? []), [shop?.stock]);
  const { film } = sheet;
  const wrong = loaded !== '' && loaded !== film.id;
  const sideUp = sayLies(film, sheet.mirroredFilmIds);
  return (
    <Card>
      <h3>What is loaded?</h3>
      <Small>{wanted(sheet, unit)}</Small>
      <InCounters copies={sheet.inCounters ?? 0} />
      {sheet.section && sheet.section.number < sheet.section.of && (
        <Small>
          Leave the roll in the cutter when this section is cut. For the next one, bring the two short lines at its end
          onto the cutter’s zero line: then the roll is square again.
        </Small>
      )}
      <p>
        Film in the cutter{' '}
        <FilmPicker
          label="Film in the cutter"
          films={shop?.films ?? []}
          left={left}
          value={loaded}
          placeholder="look, then choose …"
          onChange={setLoaded}
        />
      </p>
      <Check>
        <input type="checkbox" checked={turned} onChange={(event) => setTurned(event.target.checked)} /> It lies{' '}
        {sideUp}.
      </Check>
      {wrong && (
        <Wrong role="alert">
          That is not the film of this sheet. Load {film.name}, or choose the film elsewhere in the job.
        </Wrong>
      )}
      <Acts
        action={action}
        hpglUrl={hpglUrl}
        isReady={loaded === film.id && turned && !busy}
        onCut={() => onCut([loaded])}
      />
    </Card>
  );
}

/** Which side of a film lies up. Of what was frozen it is not known which films are mirrored: each lies as it asks for. */
function sayLies(film: DrawnSheet['film'], mirroredFilmIds: readonly string[] | undefined): string {
  return saySideUp(film, mirroredFilmIds?.includes(film.id) ?? film.mirrored);
}

/** What lies where it would be lifted with what is round it. */
function InCounters({ copies }: { readonly copies: number }) {
  if (copies === 0) return null;
  return (
    <Small>
      {copies === 1
        ? 'One small layer lies in a counter of a larger one. Cut it'
        : `${copies} small layers lie in counters of larger ones. Cut them`}{' '}
      out with a knife before you lift what is round {copies === 1 ? 'it' : 'them'}.
    </Small>
  );
}

function Acts({
  action,
  hpglUrl,
  isReady,
  onCut,
}: {
  readonly action: string;
  readonly hpglUrl: string | undefined;
  readonly isReady: boolean;
  readonly onCut: () => void;
}) {
  return (
    <Row>
      <MainButton isDisabled={!isReady} onPress={onCut}>
        {action}
      </MainButton>
      {hpglUrl && (
        <LinkButton href={hpglUrl} download>
          Download HP-GL
        </LinkButton>
      )}
    </Row>
  );
}

/** A mat with several pieces: each is ticked when it lies where the card says. */
function PiecesQuestion({
  zones,
  mat,
  mirroredFilmIds,
  inCounters,
  action,
  hpglUrl,
  busy,
  onCut,
}: AskedOf<{
  readonly zones: NonNullable<DrawnSheet['zones']>;
  readonly mat: NonNullable<DrawnSheet['mat']>;
  readonly mirroredFilmIds: readonly string[] | undefined;
  readonly inCounters: number;
}>) {
  const { unit } = useSettings();
  const [laid, setLaid] = useState<ReadonlySet<number>>(new Set());
  const mm = (value: number) => formatLength(value, unit);
  const turn = (i: number) =>
    setLaid((before) => new Set(before.has(i) ? [...before].filter((one) => one !== i) : [...before, i]));
  return (
    <Card>
      <h3>Does each piece lie in its place?</h3>
      <Small>
        Cut each piece to its size, then lay it on the {mat.name}. Places are measured from the mat’s lower left corner
        (0 in the picture), in {unit}.
      </Small>
      <InCounters copies={inCounters} />
      <Pieces>
        {zones.map(({ film, xMm, yMm, widthMm, lengthMm }, i) => (
          <li key={i}>
            <Check>
              <input type="checkbox" checked={laid.has(i)} onChange={() => turn(i)} />
              <b>{i + 1}</b>
              <Swatch film={film} size={16} />
              <span>
                {film.name}, {mm(widthMm)} × {mm(lengthMm)}
                <Small as="span">
                  {mm(xMm)} from the left, {mm(yMm)} from below; {sayLies(film, mirroredFilmIds)}
                </Small>
              </span>
            </Check>
          </li>
        ))}
      </Pieces>
      <Acts
        action={action}
        hpglUrl={hpglUrl}
        isReady={laid.size === zones.length && !busy}
        onCut={() => onCut(zones.map(({ film }) => film.id))}
      />
    </Card>
  );
}

/** What to load, and where: the program counts from one corner, which is the same in the picture. */
function wanted({ panels = [], ...sheet }: LoadedQuestionProps['sheet'], unit: LengthUnit): string {
  const said = sayPanels(panels);
  const which = said && ` It ${panels.length > 1 ? 'carries' : 'is'} ${said}.`;
  return `${pieceWanted(sheet, unit)}${which}`;
}

function pieceWanted(
  { film, piece, mat, usedLengthMm }: Pick<DrawnSheet, 'film' | 'piece' | 'mat' | 'usedLengthMm'>,
  unit: LengthUnit,
): string {
  const length = `${formatLength(usedLengthMm, unit)} ${unit}`;
  if (!piece) return `This sheet needs ${film.name}, at least ${length} long.`;
  const what = `This sheet needs ${film.name}, ${PIECE_WORDS[piece.kind]} ${formatLength(piece.widthMm, unit)} ${unit} wide and at least ${length} long.`;
  return mat
    ? `${what} Lay its lower left corner into the lower left corner of the field of the ${mat.name}. The cutter counts from there (0 in the picture).`
    : `${what} The cutter counts from its lower left corner (0 in the picture).`;
}

const Card = styled.section`
  display: grid;
  gap: ${space.s};
  padding: ${space.m};
  background: ${colour.raised};
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  h3 {
    font-size: ${type.body};
    margin: 0;
  }
`;
const Check = styled.label`
  font-size: ${type.small};
  cursor: pointer;
`;
const Pieces = styled.ol`
  list-style: none;
  display: grid;
  gap: ${space.s};
  ${Check} {
    display: flex;
    gap: ${space.s};
    align-items: flex-start;
  }
  ${Small} {
    display: block;
  }
`;
const Wrong = styled.p`
  color: ${colour.bad};
  font-size: ${type.small};
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.s};
`;
