import { useState } from 'react';
import { DropZone, FileTrigger, Text } from 'react-aria-components';
import styled from 'styled-components';
import { letteringPart, newLettering, type Source } from '../../../core/stations/artwork/index.js';
import { useJobContext } from '../../job/job-context.js';
import { planner } from '../../plan/planner.js';
import { colour, radius, space, type } from '../../tokens.js';
import { Button, LinkButton } from '../../ui/button.js';
import { PressableButton, PressableMainButton } from '../../ui/pressable.js';
import { useNotify } from '../../ui/notices.js';
import { TextInput } from '../../ui/plain-fields.js';
import { usePlanInput } from './use-plan-input.js';
import { newId } from '../../api/new-id.js';

const FILES = [
  '.svg',
  'image/svg+xml',
  '.dxf',
  '.pdf',
  'application/pdf',
  '.plt',
  '.hpgl',
  '.png',
  '.jpg',
  '.jpeg',
  '.webp',
  'image/png',
  'image/jpeg',
  'image/webp',
];

interface GiveArtworkProps {
  /** The part that a new version of its file may replace. */
  readonly replaced: { readonly id: string; readonly source: Source } | null;
  /** What has just been added is what is worked on next. */
  readonly onAdded: (id: string) => void;
}

/** Ways for something to come onto the design: a file dropped or chosen, words set, a new version of a file. */
export function GiveArtwork({ replaced, onAdded }: GiveArtworkProps) {
  const { recipe, handle } = useJobContext();
  const isEmpty = recipe.artworks.length === 0;
  const take = async (file: File | null | undefined, replaces?: string) => {
    const job = file ? await handle.upload(file, replaces) : null;
    if (job && replaces === undefined) onAdded(job.recipe.artworks.at(-1)!.id);
  };
  return (
    <>
      <Drop
        getDropOperation={() => 'copy'}
        onDrop={(event) => {
          for (const item of event.items) if (item.kind === 'file') void item.getFile().then((file) => take(file));
        }}
        data-bare={isEmpty || undefined}
      >
        <Text slot="label">
          {isEmpty
            ? 'Drop a drawing (SVG, PDF, DXF, HP-GL) or a picture (PNG, JPEG, WebP) here, or choose one. Its colours become films.'
            : 'Drop a file here to add it to the design.'}
        </Text>
        <FileTrigger acceptedFileTypes={FILES} onSelect={(files) => void take(files?.[0])}>
          {isEmpty ? (
            <PressableMainButton>Choose a file</PressableMainButton>
          ) : (
            <PressableButton>Add a file</PressableButton>
          )}
        </FileTrigger>
        <AddWords onAdded={onAdded} />
      </Drop>
      {replaced && (
        <Row>
          <FileTrigger acceptedFileTypes={FILES} onSelect={(files) => void take(files?.[0], replaced.id)}>
            <PressableButton>Replace with a new version</PressableButton>
          </FileTrigger>
          <LinkButton href={`/api/artworks/${replaced.source.id}`} download={replaced.source.fileName}>
            Download the original
          </LinkButton>
        </Row>
      )}
    </>
  );
}

/** Words to be set: typed here first, so that there is something to see at once. */
function AddWords({ onAdded }: Pick<GiveArtworkProps, 'onAdded'>) {
  const { handle } = useJobContext();
  const planInput = usePlanInput();
  const notify = useNotify();
  const [words, setWords] = useState('');
  const add = async () => {
    const text = words.trim();
    if (text === '') return;
    const part = letteringPart(newId(), newLettering(text));
    try {
      handle.change(await planner.adding(await planInput(), part));
      onAdded(part.id);
      setWords('');
    } catch (error) {
      notify((error as Error).message);
    }
  };
  return (
    <WordsRow
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      <TextInput
        aria-label="Words to add"
        dir="auto"
        placeholder="or type some words"
        maxLength={500}
        value={words}
        onChange={(event) => setWords(event.target.value)}
      />
      <Button type="submit">Add the words</Button>
    </WordsRow>
  );
}

const Drop = styled(DropZone)`
  display: grid;
  gap: ${space.m};
  justify-items: start;
  padding: ${space.l};
  border: 1.5px dashed ${colour.line};
  border-radius: ${radius.l};
  font-size: ${type.small};
  color: ${colour.quiet};
  &[data-drop-target] {
    border-color: ${colour.accent};
    background: ${colour.accentWash};
    color: ${colour.ink};
  }
  &[data-bare] {
    padding: ${space.xl} ${space.l};
    border-color: ${colour.accent};
    color: ${colour.ink};
    font-size: ${type.body};
  }
`;

const WordsRow = styled.form`
  display: flex;
  gap: ${space.s};
  width: 100%;
  input {
    flex: 1;
    min-width: 0;
  }
`;

const Row = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.s};
`;
