import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { wayOf, type Film } from '../../../core/shop/index.js';
import { keyOfPlace, openPlaces, type WeedPlace } from '../../../core/stations/cut/index.js';
import { FindingPlaces } from '../../job/finding-places.js';
import { Findings } from '../../job/findings.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { Rulings } from '../../job/rulings.js';
import { StepProgress } from '../../job/step-progress.js';
import { StationLayout } from '../../job/station-layout.js';
import { LightTable } from '../../light-table/light-table.js';
import { PointHandles, type HeldPoint } from '../../light-table/point-handles.js';
import type { Box } from '../../../core/geometry/index.js';
import { space } from '../../tokens.js';
import { LinkButton, WordButton } from '../../ui/button.js';
import { Choice } from '../../ui/choice.js';
import { useJudging } from '../../batch/use-judging.js';
import { useNotify } from '../../ui/notices.js';
import { FigureField } from '../../ui/figure-field.js';
import { Picker } from '../../ui/picker.js';
import { Small } from '../../ui/plain-fields.js';
import { sayDateTime } from '../../ui/say.js';
import { count } from '../../../core/words/index.js';
import { designBox } from '../../light-table/design-box.js';
import { MarkDistance } from '../../job/mark-distance.js';
import { GangFields } from './gang-fields.js';
import { MarksByHand, useMarksByHand } from './marks-by-hand.js';
import { SpotList } from './spot-list.js';
import { linesOf, StripList, StripPicture, useReliefByHand } from './strips.js';
import { useCutCopies, useCutPicture, useTicking, useWeeded, type CutCopy } from '../../job/cut-copies.js';
import { LabelsPicture, WeedPicture } from './weed-picture.js';
import { WatchedPlaces } from './watched-places.js';
import { WeedingClock } from './weeding-clock.js';

/** A tap ticks off what lies within this share of the map: a finger is wider than a number. */
const TARGETS = 14;
/** A stroke takes in what lies within half of that. */
const STROKE = 0.4;
/** Findings about what cannot be weeded well, wherever they were made: nobody should meet them with the hook in hand. */
const TO_WATCH = ['thin-parts', 'narrow-gaps', 'specks', 'pinholes', 'not-durable'];

/** What every layer gets so that it can be weeded and laid true, and the map for weeding it. */
export function PrepareStation() {
  const { plan, recipe, handle, unit, job, lookAt } = useJobContext();
  const { findings, rulings } = useSaid('prepare');
  const [chosen, setChosen] = useState<string | null>(null);
  const layers = plan?.layers ?? [];
  const prepare = plan?.prepare;
  const copies = useCutCopies();
  const tick = useTicking();
  const { judge, isBusy: isJudging } = useJudging();
  const notify = useNotify();
  const [piece, setPiece] = useState<string | null>(null);
  const [panelChosen, setPanel] = useState(1);
  // Films of today's layers, then those of pieces that were cut and are not wanted any more.
  const films = [
    ...new Map(
      [...layers.map((l) => l.film), ...copies.map((copy) => copy.film)].map((film) => [film.id, film]),
    ).values(),
  ];
  const panel = prepare?.panels.find((one) => one.number === panelChosen) ?? prepare?.panels[0];
  const shown = films.filter(
    (one) =>
      copies.some((copy) => copy.film.id === one.id) ||
      (prepare?.weed.some((w) => w.filmId === one.id && w.panel === panel?.number) ?? true),
  );
  const film = shown.find((one) => one.id === chosen) ?? shown[0];
  const layer = layers.find((l) => l.film.id === film?.id);
  const weed = prepare?.weed.find((w) => w.filmId === film?.id && w.panel === panel?.number);
  const wanted = new Set(plan?.toCut?.map((one) => one.fingerprint));
  const cut = copies.filter((copy) => copy.film.id === film?.id);
  const copy =
    piece === 'plan'
      ? null
      : (cut.find((one) => one.key === piece) ??
        cut.find((one) => wanted.has(one.group.fingerprint)) ??
        cut[0] ??
        null);
  const picture = useCutPicture(copy);
  const places: readonly WeedPlace[] = copy ? copy.places : (weed?.spots ?? []);
  // Of a copy with nothing to look for it is said as a whole that all is out.
  const spots = places.filter(({ kind }) => kind !== 'all out');
  const [stroked, setStroked] = useState<ReadonlySet<string>>(NOTHING);
  const ticked = new Set([...(copy?.ticked.map(keyOfPlace) ?? []), ...stroked]);
  const hand = useReliefByHand(film?.id ?? null);
  const moveMark = useMarksByHand(panel);
  const [sought, setSought] = useState<Box | null>(null);
  // What is looked at last is in view: a finding, or what was asked for here.
  useEffect(() => {
    if (lookAt) setSought(null);
  }, [lookAt]);
  const [openArea, setOpenArea] = useState<{ readonly index: number; readonly box: Box } | null>(null);
  const [isStroking, setStroking] = useState(false);
  const left = copy ? places.filter((place) => !ticked.has(keyOfPlace(place))) : [];
  const area = (copy ? picture?.box : panel?.box) ?? designBox(plan);
  const reach = Math.max(area.maxX - area.minX, area.maxY - area.minY) / TARGETS;
  const tickPlaces = (some: readonly WeedPlace[], isTicked: boolean) =>
    copy && tick([{ copy, places: some }], isTicked);
  const tickAt = (x: number, y: number) => {
    const nearest = spots.reduce<WeedPlace | null>(
      (best, spot) =>
        best && Math.hypot(best.xMm - x, best.yMm - y) <= Math.hypot(spot.xMm - x, spot.yMm - y) ? best : spot,
      null,
    );
    if (copy && nearest && Math.hypot(nearest.xMm - x, nearest.yMm - y) <= reach)
      tickPlaces([nearest], !ticked.has(keyOfPlace(nearest)));
  };
  // What a finger goes over is shown as out at once, and kept when it is lifted.
  const stroke = {
    over: (x: number, y: number) => {
      const met = spots.filter(
        (spot) => !ticked.has(keyOfPlace(spot)) && Math.hypot(spot.xMm - x, spot.yMm - y) <= strokeReach(spots, reach),
      );
      if (met.length > 0) setStroked((before) => new Set([...before, ...met.map(keyOfPlace)]));
    },
    end: () => {
      tickPlaces(
        spots.filter((spot) => stroked.has(keyOfPlace(spot))),
        true,
      );
      setStroked(NOTHING);
    },
  };
  const showNext = () => {
    const [next] = left;
    if (next)
      setSought({ minX: next.xMm - reach, minY: next.yMm - reach, maxX: next.xMm + reach, maxY: next.yMm + reach });
  };
  const valueOf = (id: string) => Number(rulings.find((ruling) => ruling.id === id)?.value ?? 0);
  const watched = plan?.findings.filter(({ code, stage }) => stage !== 'prepare' && TO_WATCH.includes(code)) ?? [];
  const isStencil = film !== undefined && wayOf(film) === 'stencil';
  const { preparation } = recipe;
  const canMoveMarks = (prepare?.panels.length ?? 0) === 1;
  const held: readonly HeldPoint[] =
    copy || hand.isDrawing || !weed || !panel
      ? []
      : [
          ...(canMoveMarks
            ? panel.marksAt.map(({ xMm, yMm }, i) => ({ id: `mark ${i}`, label: `Mark ${i + 1}`, xMm, yMm }))
            : []),
          ...linesOf(weed).flatMap(({ line, asDrawn }, i) => endsOf(asDrawn ?? line, i)),
        ];
  const onMoved = (id: string, x: number, y: number) => {
    const [what, number, end] = id.split(' ') as [string, string, 'first' | 'last'];
    if (what === 'mark') moveMark(Number(number), x, y);
    else if (weed) hand.moveEnd(linesOf(weed)[Number(number)]!, end, x, y);
  };
  return (
    <StationLayout
      title="Prepare"
      // Who weeds stands at the bench with the map.
      pictureFirst={copy !== null}
      docket={
        <>
          <StepProgress />
          <Findings findings={findings} />
          <Rulings
            rulings={rulings}
            editors={{
              ...(preparation.border !== 'none' && {
                'prepare.border': (
                  <FigureField
                    label="Gap of the weeding border"
                    mm={preparation.borderGapMm ?? valueOf('prepare.border')}
                    unit={unit}
                    max={100}
                    stepMm={0.5}
                    onChange={(borderGapMm) => handle.change({ preparation: { borderGapMm } })}
                  />
                ),
              }),
              ...(preparation.gang && { 'prepare.gang': <GangFields gang={preparation.gang} /> }),
              ...(preparation.marks &&
                preparation.markPlaces === 'outside' &&
                preparation.marksAt.length === 0 &&
                layers.length > 1 && { 'prepare.marks': <MarkDistance mm={valueOf('prepare.marks')} /> }),
            }}
            onReturn={{
              'prepare.border': () => handle.change({ preparation: { border: 'ruled', borderGapMm: null } }),
              'prepare.marks': () =>
                handle.change({ preparation: { marks: true, markPlaces: 'ruled', markDistanceMm: null, marksAt: [] } }),
              'prepare.relief': () =>
                handle.change({
                  preparation: { relief: { ...preparation.relief, ruled: true, bulkMm: null, drawn: [], gone: [] } },
                }),
              'prepare.labels': () => handle.change({ preparation: { labels: true } }),
            }}
          />
          {preparation.marks && panel && panel.marksAt.length > 0 && !copy && (
            <MarksByHand panel={panel} sizeMm={panel.markSizeMm} canMove={canMoveMarks} />
          )}
          {film && weed && !copy && !isStencil && <StripList film={film} weed={weed} hand={hand} />}
          {watched.length > 0 && (
            <section aria-label="Places to watch">
              <h3>Places to watch</h3>
              <Small>They stand on the map as yellow triangles.</Small>
              <Findings findings={watched} />
            </section>
          )}
          {film && (
            <section aria-label="Weeding list">
              <h3>{isStencil ? `To take out of ${film.name}` : `To weed out of ${film.name}`}</h3>
              {cut.length > 0 && (
                <p>
                  Which piece{' '}
                  <Picker
                    label="Which piece"
                    value={copy?.key ?? 'plan'}
                    options={[
                      ...cut.map((one) => ({
                        id: one.key,
                        text: `${nameOf(one)}${plan?.toCut && !wanted.has(one.group.fingerprint) ? ' (the job has changed since)' : ''}`,
                      })),
                      ...(layer ? [{ id: 'plan', text: 'as the job is now, not cut' }] : []),
                    ]}
                    onChange={setPiece}
                  />
                </p>
              )}
              {spots.length === 0 ? (
                <Small>
                  {weed && !copy
                    ? `${count(weed.pieces, 'piece')}, no counters: the waste comes off in one pull.`
                    : 'No counters and no small parts: the waste comes off in one pull.'}
                </Small>
              ) : (
                <>
                  <Small>
                    {copy
                      ? `${spots.filter((spot) => ticked.has(keyOfPlace(spot))).length} of ${spots.length} done.`
                      : saySpots(spots, weed?.pieces ?? 0, isStencil)}
                  </Small>
                  <SpotList
                    spots={spots}
                    ticked={ticked}
                    onTick={copy ? tickPlaces : null}
                    open={openArea?.index ?? null}
                    onOpen={(index, box) => {
                      setOpenArea(index === null ? null : { index, box: box! });
                      if (box) setSought({ ...box });
                    }}
                  />
                </>
              )}
            </section>
          )}
        </>
      }
    >
      {prepare && prepare.panels.length > 1 && !copy && (
        <Choice
          label="Which part"
          value={String(panel?.number ?? 1)}
          options={prepare.panels.map(({ number, label }) => [String(number), label ?? `panel ${number}`] as const)}
          onChange={(to) => setPanel(Number(to))}
        />
      )}
      {copy && (
        <Tally>
          <span role="status">
            <strong>
              {left.length === 0
                ? 'All out.'
                : spots.length === 0
                  ? 'Nothing to look for: no tick is needed.'
                  : `${left.length} left`}
            </strong>
          </span>
          {spots.length > 0 && left.length > 0 && <WordButton onPress={showNext}>Show the next one</WordButton>}
          {spots.length > 0 && left.length > 0 && (
            <WordButton aria-pressed={isStroking} onPress={() => setStroking(!isStroking)}>
              {isStroking ? 'Move the map' : 'Tick by a stroke'}
            </WordButton>
          )}
          <WeededPresses copies={copies} film={copy.film} />
          <WordButton
            isDisabled={isJudging}
            onPress={() =>
              judge({ sheetId: copy.sheet.id, positions: [copy.position], verdict: 'spoiled' }, () =>
                notify('This copy is spoiled and is cut again.', {
                  label: 'Undo',
                  run: () => judge({ sheetId: copy.sheet.id, positions: [copy.position], verdict: null }),
                }),
              )
            }
          >
            This copy is spoiled
          </WordButton>
          <WeedingClock sheet={copy.sheet} isAllOut={left.length === 0} />
        </Tally>
      )}
      {film && shown.length > 1 && (
        <Choice
          label="Layer"
          value={film.id}
          options={shown.map((one) => [one.id, one.name] as const)}
          onChange={setChosen}
        />
      )}
      <LightTable
        label={film ? `Weed map of ${film.name}` : 'Weed map'}
        box={area}
        unit={unit}
        caption={
          hand.isDrawing
            ? hand.asks
            : copy && spots.length > 0 && left.length > 0
              ? isStroking
                ? 'stroke over the numbers that are out · two fingers move the map'
                : 'tap a number when it is out'
              : `hatched: what comes out · numbers: ${isStencil ? 'cut-outs (round), islands (square)' : 'counters (round), small parts (square), strips (with arrows)'}`
        }
        {...(hand.isDrawing ? { onPick: hand.pick } : copy ? { onPick: tickAt } : {})}
        {...(copy && isStroking ? { onStroke: stroke } : {})}
        {...(held.length > 0 && { handles: (view) => <PointHandles points={held} view={view} onMove={onMoved} /> })}
        lookAt={sought ?? lookAt}
      >
        {film && copy && picture && (
          <WeedPicture
            film={film}
            cut={picture.cut}
            clip={null}
            marks=""
            border={picture.border}
            box={picture.box}
            spots={spots}
            ticked={ticked}
            area={openArea?.box ?? null}
          />
        )}
        {layer && panel && !copy && (
          <WeedPicture
            film={layer.film}
            cut={weed?.cut ?? layer.cut}
            clip={panel.clip}
            marks={panel.marks}
            border={weed?.border ?? ''}
            box={panel.box}
            spots={spots}
            ticked={ticked}
            area={openArea?.box ?? null}
          />
        )}
        {weed && panel && !copy && <LabelsPicture labels={weed.labels} />}
        {weed && panel && !copy && <StripPicture weed={weed} box={panel.box} from={hand.from} />}
        <WatchedPlaces findings={watched} size={reach / 3} />
        <FindingPlaces />
      </LightTable>
      {film && layer && panel && !copy && (
        <p>
          <LinkButton href={`/api/jobs/${job.id}/print/weed-map?on=a4&film=${encodeURIComponent(film.id)}`} download>
            The weed map on A4
          </LinkButton>
        </p>
      )}
    </StationLayout>
  );
}

/** One press for a layer, and one for the whole job, where there is more of it than this layer. */
function WeededPresses({ copies, film }: { readonly copies: readonly CutCopy[]; readonly film: Film }) {
  const weeded = useWeeded();
  const open = copies.filter((copy) => openPlaces(copy).length > 0);
  const ofLayer = open.filter((copy) => copy.film.id === film.id);
  return (
    <>
      {ofLayer.length > 0 && (
        <WordButton onPress={() => weeded(ofLayer, film.name)}>
          {ofLayer.length > 1 ? `All ${ofLayer.length} pieces of this layer are weeded` : 'This layer is weeded'}
        </WordButton>
      )}
      {open.length > ofLayer.length && (
        <WordButton onPress={() => weeded(open, 'The whole job')}>The whole job is weeded</WordButton>
      )}
    </>
  );
}

const NOTHING: ReadonlySet<string> = new Set();

/** Where numbers are crowded a stroke is narrower: it takes in what it goes over, not its neighbours. */
function strokeReach(spots: readonly WeedPlace[], reach: number): number {
  return (reach * STROKE) / Math.max(1, Math.sqrt(spots.length / TARGETS));
}

function endsOf(line: readonly number[], i: number): HeldPoint[] {
  const name = String.fromCharCode(65 + (i % 26));
  return [
    { id: `line ${i} first`, label: `Line ${name}, first end`, xMm: line[0]!, yMm: line[1]! },
    { id: `line ${i} last`, label: `Line ${name}, last end`, xMm: line.at(-2)!, yMm: line.at(-1)! },
  ];
}

function saySpots(spots: readonly WeedPlace[], pieces: number, isStencil: boolean): string {
  const many = (kind: WeedPlace['kind']) => spots.filter((spot) => spot.kind === kind).length;
  const what = isStencil
    ? `${count(many('cut-out'), 'cut-out')} to take out${many('island') > 0 ? `, ${count(many('island'), 'island')} that the tape has to carry` : ''}`
    : `${count(pieces, 'piece')}, ${count(many('counter'), 'counter')}`;
  return `${what}. They can be ticked off once this layer is cut: ticks are kept with the piece.`;
}

/** A piece by when it was cut and which copy it is. */
function nameOf({ sheet, group, position, isWhole }: CutCopy): string {
  const when = sayDateTime(sheet.runs.at(-1)!.startedAt);
  return `${isWhole ? '' : 'what is whole of '}${sheet.restOf ? 'the rest, ' : ''}${sheet.groups.length > 1 ? `${group.perStrip > 1 ? 'strip' : 'copy'} ${group.copy + 1}, place ${position + 1} on the sheet, ` : ''}cut ${when}`;
}

const Tally = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: ${space.xs} ${space.m};
  min-height: 44px;
  button {
    min-height: 44px;
  }
`;
