import { useState } from 'react';
import styled from 'styled-components';
import type { Film } from '../../../core/shop/index.js';
import type { WeedPlace } from '../../../core/stations/cut/index.js';
import { Findings } from '../../job/findings.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { Rulings } from '../../job/rulings.js';
import { StationLayout } from '../../job/station-layout.js';
import { fillOf } from '../../light-table/film-fill.js';
import { LightTable } from '../../light-table/light-table.js';
import { Shape } from '../../light-table/shape.js';
import type { DrawnPath } from '../../../core/plan/page/drawn-path.js';
import type { Box } from '../../../core/geometry/index.js';
import { colour, space, type } from '../../tokens.js';
import { WordButton } from '../../ui/button.js';
import { Choice } from '../../ui/choice.js';
import { FigureField } from '../../ui/figure-field.js';
import { Picker } from '../../ui/picker.js';
import { Small } from '../../ui/plain-fields.js';
import { useIsPhone } from '../../ui/use-is-phone.js';
import { sayDateTime } from '../../ui/say.js';
import { count } from '../../../core/words/index.js';
import { designBox } from '../../light-table/design-box.js';
import { MarkDistance } from '../../job/mark-distance.js';
import { StripList, StripPicture, useReliefByHand } from './strips.js';
import { isSame, useCutCopies, useCutPicture, useTicking, type CutCopy } from './cut-copies.js';

/** A tap ticks off what lies within this share of the map: a finger is wider than a number. */
const TARGETS = 14;

/** What every layer gets so that it can be weeded and laid true, and the map for weeding it. */
export function PrepareStation() {
  const { plan, recipe, handle, unit } = useJobContext();
  const { findings, rulings } = useSaid('prepare');
  const [chosen, setChosen] = useState<string | null>(null);
  const layers = plan?.layers ?? [];
  const prepare = plan?.prepare;
  const copies = useCutCopies();
  const tick = useTicking();
  const [piece, setPiece] = useState<string | null>(null);
  const [panelChosen, setPanel] = useState(1);
  // Films of today's layers, then those of pieces that were cut and are not wanted any more.
  const films = [...new Map([...layers.map((l) => l.film), ...copies.map((copy) => copy.sheet.film)].map((film) => [film.id, film])).values()];
  const panel = prepare?.panels.find((one) => one.number === panelChosen) ?? prepare?.panels[0];
  const shown = films.filter((one) => copies.some((copy) => copy.sheet.film.id === one.id) || (prepare?.weed.some((w) => w.filmId === one.id && w.panel === panel?.number) ?? true));
  const film = shown.find((one) => one.id === chosen) ?? shown[0];
  const layer = layers.find((l) => l.film.id === film?.id);
  const weed = prepare?.weed.find((w) => w.filmId === film?.id && w.panel === panel?.number);
  const wanted = new Set(plan?.toCut?.map((one) => one.fingerprint));
  const cut = copies.filter((copy) => copy.sheet.film.id === film?.id);
  const copy = piece === 'plan' ? null : (cut.find((one) => one.key === piece) ?? cut.find((one) => wanted.has(one.group.fingerprint)) ?? cut[0] ?? null);
  const picture = useCutPicture(copy);
  const spots: readonly WeedPlace[] = copy ? copy.group.weedPlaces : (weed?.spots ?? []);
  const isTicked = (spot: WeedPlace) => copy !== null && copy.group.ticked.some((other) => isSame(other, spot));
  const hand = useReliefByHand(film?.id ?? null);
  const [sought, setSought] = useState<Box | null>(null);
  const left = copy ? spots.filter((spot) => !isTicked(spot)) : [];
  const area = (copy ? picture?.box : panel?.box) ?? designBox(plan);
  const reach = Math.max(area.maxX - area.minX, area.maxY - area.minY) / TARGETS;
  const tickAt = (x: number, y: number) => {
    const nearest = spots.reduce<WeedPlace | null>((best, spot) => (best && Math.hypot(best.xMm - x, best.yMm - y) <= Math.hypot(spot.xMm - x, spot.yMm - y) ? best : spot), null);
    if (copy && nearest && Math.hypot(nearest.xMm - x, nearest.yMm - y) <= reach) tick(copy, nearest, !isTicked(nearest));
  };
  const showNext = () => {
    const [next] = left;
    if (next) setSought({ minX: next.xMm - reach, minY: next.yMm - reach, maxX: next.xMm + reach, maxY: next.yMm + reach });
  };
  const valueOf = (id: string) => Number(rulings.find((ruling) => ruling.id === id)?.value ?? 0);
  return (
    <StationLayout
      title="Prepare"
      // Who weeds stands at the bench with the map.
      pictureFirst={copy !== null}
      docket={
        <>
          <Findings findings={findings} />
          <Rulings
            rulings={rulings}
            editors={{
              ...(recipe.preparation.border !== 'none' && {
                'prepare.border': <FigureField label="Gap of the weeding border" mm={recipe.preparation.borderGapMm ?? valueOf('prepare.border')} unit={unit} max={100} stepMm={0.5} onChange={(borderGapMm) => handle.change({ preparation: { borderGapMm } })} />,
              }),
              ...(recipe.preparation.marks && recipe.preparation.markPlaces === 'outside' && layers.length > 1 && { 'prepare.marks': <MarkDistance mm={valueOf('prepare.marks')} /> }),
            }}
            onReturn={{
              'prepare.border': () => handle.change({ preparation: { border: 'box', borderGapMm: null } }),
              'prepare.marks': () => handle.change({ preparation: { marks: true, markPlaces: 'outside', markDistanceMm: null } }),
              'prepare.relief': () => handle.change({ preparation: { relief: { ...recipe.preparation.relief, ruled: true, drawn: [], gone: [] } } }),
            }}
          />
          {recipe.preparation.marks && (
            <Small>
              Marks are <FigureField label="Size of the marks" mm={recipe.preparation.markSizeMm} unit={unit} min={2} max={50} stepMm={0.5} onChange={(markSizeMm) => handle.change({ preparation: { markSizeMm } })} /> across.
            </Small>
          )}
          {film && weed && !copy && <StripList film={film} weed={weed} hand={hand} />}
          {film && (
            <section aria-label="Weeding list">
              <h3>To weed out of {film.name}</h3>
              {cut.length > 0 && (
                <p>
                  Which piece{' '}
                  <Picker
                    label="Which piece"
                    value={copy?.key ?? 'plan'}
                    options={[
                      ...cut.map((one) => ({ id: one.key, text: `${nameOf(one)}${wanted.has(one.group.fingerprint) ? '' : ' (the job has changed since)'}` })),
                      ...(layer ? [{ id: 'plan', text: 'as the job is now, not cut' }] : []),
                    ]}
                    onChange={setPiece}
                  />
                </p>
              )}
              {spots.length === 0 ? (
                <Small>{weed && !copy ? `${count(weed.pieces, 'piece')}, no counters: the waste comes off in one pull.` : 'No counters and no small parts: the waste comes off in one pull.'}</Small>
              ) : (
                <>
                  <Small>
                    {copy
                      ? `${spots.filter(isTicked).length} of ${spots.length} done.`
                      : `${weed ? `${count(weed.pieces, 'piece')}, ` : ''}${count(spots.filter((spot) => spot.kind === 'counter').length, 'counter')}. They can be ticked off once this layer is cut: ticks are kept with the piece.`}
                  </Small>
                  <Spots>
                    {spots.map((spot, i) => (
                      <li key={`${spot.kind}${spot.xMm} ${spot.yMm}`}>
                        <label>
                          {copy && <input type="checkbox" checked={isTicked(spot)} onChange={(event) => tick(copy, spot, event.target.checked)} />} {i + 1}. {spot.kind === 'counter' ? 'counter' : 'small part that stays'}
                        </label>
                      </li>
                    ))}
                  </Spots>
                </>
              )}
            </section>
          )}
        </>
      }
    >
      {prepare && prepare.panels.length > 1 && !copy && <Choice label="Which part" value={String(panel?.number ?? 1)} options={prepare.panels.map(({ number, label }) => [String(number), label ?? `panel ${number}`] as const)} onChange={(to) => setPanel(Number(to))} />}
      {copy && spots.length > 0 && (
        <Tally role="status">
          <strong>{left.length === 0 ? 'All out.' : `${left.length} left`}</strong> {left.length > 0 && <WordButton onPress={showNext}>Show the next one</WordButton>} {left.length > 0 && <Small>Tap a number on the map when it is out.</Small>}
        </Tally>
      )}
      {film && shown.length > 1 && <Choice label="Layer" value={film.id} options={shown.map((one) => [one.id, one.name] as const)} onChange={setChosen} />}
      <LightTable label={film ? `Weed map of ${film.name}` : 'Weed map'} box={area} unit={unit} caption={hand.isDrawing ? hand.asks : 'hatched: waste · numbers: counters (round), small parts (square), strips (with arrows)'} {...(hand.isDrawing ? { onPick: hand.pick } : copy ? { onPick: tickAt } : {})} lookAt={sought}>
        {film && copy && picture && <WeedPicture film={film} cut={picture.cut} clip={null} marks="" border={picture.border} box={picture.box} spots={spots} isTicked={isTicked} />}
        {layer && panel && !copy && <WeedPicture film={layer.film} cut={layer.cut} clip={panel.clip} marks={panel.marks} border={weed?.border ?? ''} box={panel.box} spots={spots} isTicked={isTicked} />}
        {weed && panel && !copy && <StripPicture weed={weed} box={panel.box} from={hand.from} />}
      </LightTable>
    </StationLayout>
  );
}

/** A piece by when it was cut and which copy it is. */
function nameOf({ sheet, group, position }: CutCopy): string {
  const when = sayDateTime(sheet.runs.at(-1)!.startedAt);
  return `${sheet.restOf ? 'the rest, ' : ''}${sheet.groups.length > 1 ? `copy ${group.copy + 1}, place ${position + 1} on the sheet, ` : ''}cut ${when}`;
}

interface WeedPictureProps {
  readonly film: Film;
  readonly cut: DrawnPath;
  readonly marks: string;
  readonly border: string;
  readonly box: Box;
  /** What of the layer is on this panel. */
  readonly clip: string | null;
  readonly spots: readonly WeedPlace[];
  readonly isTicked: (spot: WeedPlace) => boolean;
}

function WeedPicture({ film, cut, clip, marks, border, box, spots, isTicked }: WeedPictureProps) {
  // On a phone a number is as large as a finger hits.
  const size = Math.max(box.maxX - box.minX, box.maxY - box.minY) / (useIsPhone() ? 26 : 60);
  return (
    <>
      {border && <path d={border} fill="#ffffff" stroke="#182325" strokeWidth="1.5" vectorEffect="non-scaling-stroke" />}
      {border && <path d={border} fill="url(#hatch-waste)" />}
      {clip && (
        <clipPath id="on-this-panel">
          <path d={clip} />
        </clipPath>
      )}
      <g {...(clip ? { clipPath: 'url(#on-this-panel)' } : {})}>
        <Shape path={cut} fill={fillOf(film)} stroke="#182325" strokeWidth="1" vectorEffect="non-scaling-stroke" />
      </g>
      <path d={marks} fill="#ffffff" stroke="#8a1f4b" strokeWidth="2.5" vectorEffect="non-scaling-stroke" />
      <path d={marks} fill="url(#hatch-lap)" />
      {spots.map((spot, i) => (
        <g key={i} transform={`translate(${spot.xMm} ${spot.yMm})`} fontSize={size * 1.1} fontWeight="700" textAnchor="middle">
          {spot.kind === 'counter' ? (
            <circle r={size} fill={isTicked(spot) ? '#1f6145' : '#ffffff'} stroke="#182325" strokeWidth="1.25" vectorEffect="non-scaling-stroke" />
          ) : (
            <rect x={-size} y={-size} width={2 * size} height={2 * size} fill={isTicked(spot) ? '#1f6145' : '#ffffff'} stroke="#182325" strokeWidth="1.25" vectorEffect="non-scaling-stroke" />
          )}
          <text dy="0.36em" fill={isTicked(spot) ? '#ffffff' : '#182325'}>
            {isTicked(spot) ? '✓' : i + 1}
          </text>
        </g>
      ))}
    </>
  );
}

const Tally = styled.div`display: flex; flex-wrap: wrap; align-items: baseline; gap: ${space.xs} ${space.m}; min-height: 44px; button { min-height: 44px; }`;

const Spots = styled.ul`
  list-style: none; margin-top: ${space.s}; columns: 2; column-gap: ${space.m}; font-size: ${type.small};
  li { break-inside: avoid; padding: 3px 0; border-bottom: 1px solid ${colour.faint}; }
  label { cursor: pointer; }
`;
