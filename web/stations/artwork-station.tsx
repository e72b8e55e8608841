import { useEffect, useState } from 'react';
import { DropZone, FileTrigger, Text } from 'react-aria-components';
import styled from 'styled-components';
import { formatLength, NO_REPAIR } from '../../core/job/index.js';
import { FindingPlaces } from '../job/finding-places.js';
import { Findings } from '../job/findings.js';
import { useJobContext, useSaid } from '../job/job-context.js';
import { StationLayout } from '../job/station-layout.js';
import { useArtworkPicture } from '../jobs/artwork-picture.js';
import { LightTable } from '../light-table/light-table.js';
import type { PaintView } from '../plan/plan-view.js';
import { planWorker } from '../plan/use-plan.js';
import { colour, radius, space, type } from '../tokens.js';
import { LinkButton, MainButton } from '../ui/button.js';
import { Choice } from '../ui/choice.js';
import { Small } from '../ui/plain-fields.js';
import { count } from '../ui/say.js';
import { Swatch } from '../ui/swatch.js';
import { designBox } from './design-box.js';
import { PutRightList } from './put-right-list.js';

const LOOKS = [['after', 'As it will be cut'], ['before', 'Before putting right'], ['changes', 'What changed'], ['drawn', 'As it was drawn']] as const;
type Look = (typeof LOOKS)[number][0];

const CAPTIONS: Readonly<Record<Look, string>> = {
  after: 'as areas of film, ready to be cut',
  before: 'as areas of film, as they came',
  changes: 'hatched: taken away · ringed: added',
  drawn: 'as your browser draws the file',
};

/** The maker's drawing: given, looked at, given anew. */
export function ArtworkStation() {
  const { recipe, plan, handle, lookAt, unit } = useJobContext();
  const { findings } = useSaid('artwork');
  const [look, setLook] = useState<Look>('after');
  const artwork = recipe.artworks[0];
  const picture = useArtworkPicture(artwork?.id ?? null);
  const paints = usePaints(look === 'before' ? 'before' : 'after');
  const changes = useChanges(look === 'changes');
  // A browser draws no other kind of drawing.
  const isSvg = /\.svg$/i.test(artwork?.fileName ?? '');
  const isPutRight = JSON.stringify({ ...recipe.repair, letBe: [] }) !== JSON.stringify(NO_REPAIR);
  const box = designBox(plan);
  const take = (file: File | undefined) => {
    if (file) void handle.upload(file);
  };
  const drop = (
    <Drop
      getDropOperation={() => 'copy'}
      onDrop={(event) => {
        const item = event.items.find((i) => i.kind === 'file');
        if (item?.kind === 'file') void item.getFile().then(take);
      }}
      data-bare={artwork ? undefined : true}
    >
      <Text slot="label">{artwork ? 'Drop a new version here, or choose one.' : 'Drop an SVG or a DXF here, or choose one. Its colours become films.'}</Text>
      <FileTrigger acceptedFileTypes={['.svg', 'image/svg+xml', '.dxf']} onSelect={(files) => take(files?.[0] ?? undefined)}>
        <MainButton>{artwork ? 'Replace the artwork' : 'Choose a file'}</MainButton>
      </FileTrigger>
    </Drop>
  );
  return (
    <StationLayout
      title="Artwork"
      lead={artwork ? 'The file is kept as it came; nothing here changes it.' : 'A job begins with a drawing.'}
      docket={
        <>
          {artwork && plan?.artwork && (
            <Facts>
              <dt>File</dt>
              <dd>{artwork.fileName}</dd>
              <dt>Own size</dt>
              <dd>
                {formatLength(plan.artwork.widthMm, unit)} × {formatLength(plan.artwork.heightMm, unit)} {unit}
              </dd>
              <dt>Drawn with</dt>
              <dd>{count(plan.artwork.paints, 'painted shape')}</dd>
            </Facts>
          )}
          {plan?.colours && (
            <Chips aria-label="Colours found">
              {plan.colours.map((use) => (
                <li key={use.colour}>
                  <Swatch film={{ colour: use.colour, finish: 'matt' }} size={18} /> {use.colour}
                </li>
              ))}
            </Chips>
          )}
          <Findings findings={findings} />
          <PutRightList findings={findings} />
          {drop}
          {artwork && (
            <p>
              <LinkButton href={`/api/artworks/${artwork.id}`} download={artwork.fileName}>
                Download the original
              </LinkButton>
            </p>
          )}
        </>
      }
    >
      {artwork ? (
        <>
          <Choice label="What the light table shows" value={look} options={LOOKS.filter(([value]) => (value === 'drawn' ? isSvg : isPutRight || value === 'after'))} onChange={setLook} />
          <LightTable label="The artwork" box={box} unit={unit} lookAt={lookAt} caption={CAPTIONS[look]}>
            <rect width={box.maxX} height={box.maxY} fill="#ffffff" stroke="#9fb0b0" strokeWidth="1" vectorEffect="non-scaling-stroke" strokeDasharray="4 4" />
            {look === 'drawn' && picture && <image href={picture} width={box.maxX} height={box.maxY} preserveAspectRatio="none" />}
            {look !== 'drawn' && (
              <g opacity={look === 'changes' ? 0.35 : 1}>
                {paints.map((paint, i) => (
                  <path key={i} d={paint.path} fill={paint.colour} />
                ))}
              </g>
            )}
            {look === 'changes' && <path d={changes.removed} fill="url(#hatch-lap)" fillRule="evenodd" stroke="#8a1f4b" strokeWidth="2" vectorEffect="non-scaling-stroke" />}
            {look === 'changes' && <path d={changes.added} fill="#1f6145" fillRule="evenodd" stroke="#1f6145" strokeWidth="3" vectorEffect="non-scaling-stroke" />}
            <FindingPlaces />
          </LightTable>
        </>
      ) : (
        <Nothing>
          <Lamp aria-hidden viewBox="0 0 32 32">
            <path d="M12 3h8v3h-3v2l6 3v13l-3 5H12l-3-5V11l6-3V6h-3z" />
          </Lamp>
          <Small>The light table is dark until there is a drawing to lay on it.</Small>
        </Nothing>
      )}
    </StationLayout>
  );
}

/** Asked of the worker anew whenever it has made another plan. */
function useAsked<T>(ask: () => Promise<T>, nothing: T, key: string): T {
  const { plan } = useJobContext();
  const [answer, setAnswer] = useState(nothing);
  useEffect(() => {
    let current = true;
    void ask().then((value) => current && setAnswer(() => value));
    return () => {
      current = false;
    };
    // What is asked is named by the key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [plan, key]);
  return answer;
}

function usePaints(when: 'before' | 'after'): readonly PaintView[] {
  return useAsked<readonly PaintView[]>(() => planWorker().paints(when), [], when);
}

const NO_CHANGES = { added: '', removed: '' };

function useChanges(wanted: boolean): { readonly added: string; readonly removed: string } {
  return useAsked(() => (wanted ? planWorker().changes() : Promise.resolve(NO_CHANGES)), NO_CHANGES, String(wanted));
}

const Facts = styled.dl`
  display: grid; grid-template-columns: auto 1fr; gap: ${space.xs} ${space.m}; font-size: ${type.small};
  dt { color: ${colour.quiet}; }
  dd { overflow-wrap: anywhere; font-variant-numeric: tabular-nums; }
`;

const Chips = styled.ul`list-style: none; display: flex; flex-wrap: wrap; gap: ${space.s} ${space.m}; font-size: ${type.small}; font-variant-numeric: tabular-nums;`;

const Drop = styled(DropZone)`
  display: grid; gap: ${space.m}; justify-items: start; padding: ${space.l}; border: 1.5px dashed ${colour.line}; border-radius: ${radius.l}; font-size: ${type.small}; color: ${colour.quiet};
  &[data-drop-target] { border-color: ${colour.accent}; background: ${colour.accentWash}; color: ${colour.ink}; }
  &[data-bare] { padding: ${space.xl} ${space.l}; border-color: ${colour.accent}; color: ${colour.ink}; font-size: ${type.body}; }
`;

const Nothing = styled.div`flex: 1; display: grid; place-content: center; justify-items: center; gap: ${space.m}; border: 1px dashed ${colour.line}; border-radius: ${radius.l};`;

const Lamp = styled.svg`width: 92px; fill: none; stroke: ${colour.line}; stroke-width: 1;`;
