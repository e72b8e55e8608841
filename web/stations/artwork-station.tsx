import { useEffect, useState } from 'react';
import { DropZone, FileTrigger, Text } from 'react-aria-components';
import styled from 'styled-components';
import { formatLength } from '../../core/job/index.js';
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

const LOOKS = [['read', 'As it was understood'], ['drawn', 'As it was drawn']] as const;

/** The maker's drawing: given, looked at, given anew. */
export function ArtworkStation() {
  const { recipe, plan, handle, lookAt, unit } = useJobContext();
  const { findings } = useSaid('artwork');
  const [looks, setLooks] = useState<'read' | 'drawn'>('read');
  const artwork = recipe.artworks[0];
  const picture = useArtworkPicture(artwork?.id ?? null);
  const paints = usePaints();
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
      <Text slot="label">{artwork ? 'Drop a new version here, or choose one.' : 'Drop an SVG here, or choose one. Its colours become films.'}</Text>
      <FileTrigger acceptedFileTypes={['.svg', 'image/svg+xml']} onSelect={(files) => take(files?.[0] ?? undefined)}>
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
          <Choice label="What the light table shows" value={looks} options={LOOKS} onChange={setLooks} />
          <LightTable label="The artwork" box={box} unit={unit} lookAt={lookAt} caption={looks === 'read' ? 'as areas of film, ready to be cut' : 'as your browser draws the file'}>
            <rect width={box.maxX} height={box.maxY} fill="#ffffff" stroke="#9fb0b0" strokeWidth="1" vectorEffect="non-scaling-stroke" strokeDasharray="4 4" />
            {looks === 'drawn' && picture && <image href={picture} width={box.maxX} height={box.maxY} preserveAspectRatio="none" />}
            {looks === 'read' && paints.map((paint, i) => <path key={i} d={paint.path} fill={paint.colour} />)}
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
function usePaints(): readonly PaintView[] {
  const { plan } = useJobContext();
  const [paints, setPaints] = useState<readonly PaintView[]>([]);
  useEffect(() => {
    let current = true;
    void planWorker()
      .paints()
      .then((answer) => current && setPaints(answer));
    return () => {
      current = false;
    };
  }, [plan]);
  return paints;
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
