import { useState } from 'react';
import styled from 'styled-components';
import { NO_REPAIR, sourcesOf } from '../../../core/stations/artwork/index.js';
import { StepProgress } from '../../job/step-progress.js';
import { FindingPlaces } from '../../job/finding-places.js';
import { Findings } from '../../job/findings.js';
import { useJobContext, useSaid } from '../../job/job-context.js';
import { StationLayout } from '../../job/station-layout.js';
import { useArtworkPicture } from '../../api/artwork-picture.js';
import { LightTable } from '../../light-table/light-table.js';
import { Shape } from '../../light-table/shape.js';
import { useAsked } from '../../job/use-asked.js';
import { colour, radius, space } from '../../tokens.js';
import { Choice } from '../../ui/choice.js';
import { Small } from '../../ui/plain-fields.js';
import { designBox } from '../../light-table/design-box.js';
import { usePaints } from '../../job/use-paints.js';
import { ColoursFound } from './colours-found.js';
import { GiveArtwork } from './give-artwork.js';
import { MergePicture } from './merge-picture.js';
import { PartHandles, type Shift } from './part-handles.js';
import { PartList } from './part-list.js';
import { Placing } from './placing.js';
import { PutRightList } from './put-right-list.js';
import { StraightThrough } from './straight-through.js';
import { useArrangement } from './use-arrangement.js';
import { fetchedLate, Part } from '../../ui/part.js';

// What only some parts need is fetched with the first of them.
const LetteringEditor = fetchedLate(
  () => import('./lettering-editor.js'),
  (m) => m.LetteringEditor,
);
const PageChoice = fetchedLate(
  () => import('./page-choice.js'),
  (m) => m.PageChoice,
);
const TracingEditor = fetchedLate(
  () => import('./tracing-editor.js'),
  (m) => m.TracingEditor,
);

const LOOKS = [
  ['after', 'As it will be cut'],
  ['before', 'Before the fixes'],
  ['changes', 'What changed'],
  ['drawn', 'The file itself'],
] as const;
type Look = (typeof LOOKS)[number][0];

const CAPTIONS: Readonly<Record<Look, string>> = {
  after: 'as it will be cut',
  before: 'as it was before the fixes',
  changes: 'hatched: removed · outlined: added',
  drawn: 'the file as your browser shows it',
};

const NOT_MOVED = { x: 0, y: 0 };

/** What the job is made of: drawings, pictures and words given, arranged, checked and put right. */
export function ArtworkStation() {
  const { recipe, plan, lookAt, unit } = useJobContext();
  const { findings } = useSaid('artwork');
  const arrangement = useArrangement();
  const { parts, chosen, choose } = arrangement;
  const [look, setLook] = useState<Look>('after');
  const [shift, setShift] = useState<Shift | null>(null);
  const paints = usePaints(look === 'before' ? 'before' : 'after');
  const changes = useChanges(look === 'changes');
  const isEmpty = recipe.artworks.length === 0;
  // A part alone is what is worked on.
  const only = parts.length === 1 ? parts[0]! : chosen.length === 1 ? chosen[0]! : null;
  const source = only && only.part.kind !== 'lettering' ? sourcesOf(only.part)[0]! : null;
  // A browser draws SVG and pictures, and nothing else.
  const isDrawn =
    source !== null && (only!.part.kind === 'picture' || /\.svg$/i.test(source.fileName)) && parts.length === 1;
  const view = plan?.artwork?.parts.find((part) => part.id === only?.id);
  const { artboard, pages = 1 } = view ?? {};
  const picture = useArtworkPicture(isDrawn ? source.id : null);
  const isPutRight = JSON.stringify({ ...recipe.repair, letBe: {} }) !== JSON.stringify(NO_REPAIR);
  const box = designBox(plan);
  // The picture is the plan's; what was moved since, and what is being moved, is drawn where it is to be.
  const moved = new Map(
    parts.map(({ id, lag }) => [id, shift?.ids.includes(id) ? { x: lag.x + shift.x, y: lag.y + shift.y } : lag]),
  );
  const looks = LOOKS.filter(([value]) => (value === 'drawn' ? isDrawn : isPutRight || value === 'after'));
  const shown = looks.some(([value]) => value === look) ? look : 'after';
  return (
    <StationLayout
      title="Artwork"
      lead={isEmpty ? 'Start with a drawing, a picture, or some words.' : 'Your files are kept as they are.'}
      docket={
        <>
          <StraightThrough />
          {parts.length > 0 && <PartList arrangement={arrangement} />}
          <Part name="This editor" of={only?.id ?? ''} fallback={<Small role="status">Fetching …</Small>}>
            {only?.part.kind === 'lettering' && (
              <LetteringEditor key={only.id} arranged={only} arrangement={arrangement} />
            )}
            {only?.part.kind === 'drawing' && pages > 1 && (
              <PageChoice key={only.id} arranged={only} pages={pages} arrangement={arrangement} />
            )}
            {only?.part.kind === 'picture' && <TracingEditor key={only.id} arranged={only} arrangement={arrangement} />}
          </Part>
          <StepProgress />
          <Findings
            findings={isEmpty ? [] : findings}
            picture={(finding) => finding.code === 'near-colours' && <MergePicture finding={finding} paints={paints} />}
          />
          {(chosen.length > 0 || only) && (
            <Placing arrangement={chosen.length > 0 || !only ? arrangement : { ...arrangement, chosen: [only] }} />
          )}
          <PutRightList findings={findings} />
          <ColoursFound />
          <GiveArtwork replaced={source && only ? { id: only.id, source } : null} onAdded={(id) => choose([id])} />
        </>
      }
    >
      {isEmpty ? (
        <Nothing>
          <Lamp aria-hidden viewBox="0 0 32 32">
            <path d="M12 3h8v3h-3v2l6 3v13l-3 5H12l-3-5V11l6-3V6h-3z" />
          </Lamp>
          <Small>What you add will appear here.</Small>
        </Nothing>
      ) : (
        <>
          {looks.length > 1 && (
            <Choice label="What the light table shows" value={shown} options={looks} onChange={setLook} />
          )}
          <LightTable
            label="The artwork"
            box={box}
            unit={unit}
            lookAt={lookAt}
            caption={shift ? `moved ${shift.x.toFixed(1)} across, ${shift.y.toFixed(1)} down, mm` : CAPTIONS[shown]}
            {...(parts.length > 1 && shown !== 'drawn'
              ? {
                  handles: (view) => (
                    <PartHandles arrangement={arrangement} view={view} shift={shift} onShift={setShift} />
                  ),
                }
              : {})}
          >
            <rect
              width={box.maxX}
              height={box.maxY}
              fill="#ffffff"
              stroke="#9fb0b0"
              strokeWidth="1"
              vectorEffect="non-scaling-stroke"
              strokeDasharray="4 4"
            />
            {shown === 'drawn' && picture && artboard?.matrix && (
              <image
                href={picture}
                width={artboard.widthMm}
                height={artboard.heightMm}
                transform={`matrix(${artboard.matrix.join(' ')})`}
                preserveAspectRatio="none"
              />
            )}
            {shown !== 'drawn' && (
              <g opacity={shown === 'changes' ? 0.35 : 1}>
                {paints.map((paint, i) => {
                  const { x, y } = moved.get(paint.part) ?? NOT_MOVED;
                  return (
                    <Shape
                      key={i}
                      path={paint.path}
                      fill={paint.colour}
                      {...(x !== 0 || y !== 0 ? { transform: `translate(${x} ${y})` } : {})}
                    />
                  );
                })}
              </g>
            )}
            {shown === 'changes' && (
              <path
                d={changes.removed}
                fill="url(#hatch-lap)"
                fillRule="evenodd"
                stroke="#8a1f4b"
                strokeWidth="2"
                vectorEffect="non-scaling-stroke"
              />
            )}
            {shown === 'changes' && (
              <path
                d={changes.added}
                fill="#1f6145"
                fillRule="evenodd"
                stroke="#1f6145"
                strokeWidth="3"
                vectorEffect="non-scaling-stroke"
              />
            )}
            <FindingPlaces />
          </LightTable>
        </>
      )}
    </StationLayout>
  );
}

const NO_CHANGES = { added: '', removed: '' };

function useChanges(wanted: boolean): { readonly added: string; readonly removed: string } {
  return useAsked(wanted ? (api, plan) => api.changes(plan) : null, NO_CHANGES, String(wanted));
}

const Nothing = styled.div`
  flex: 1;
  display: grid;
  place-content: center;
  justify-items: center;
  gap: ${space.m};
  border: 1px dashed ${colour.line};
  border-radius: ${radius.l};
`;

const Lamp = styled.svg`
  width: 92px;
  fill: none;
  stroke: ${colour.line};
  stroke-width: 1;
`;
