import { useState } from 'react';
import { Heading, Modal } from 'react-aria-components';
import styled from 'styled-components';
import { GLOSSARY } from '../../core/words/glossary.js';
import { colour, space, type } from '../tokens.js';
import { Button } from '../ui/button.js';
import { TextInput } from '../ui/plain-fields.js';
import { Sheet, Veil } from './command-search.js';

/** The words of the trade, explained, with a way to find one. */
export function GlossarySheet({ onClose }: { readonly onClose: () => void }) {
  const [search, setSearch] = useState('');
  const wanted = search.trim().toLowerCase();
  // Words that begin so come first, then those that are explained with it.
  const found = GLOSSARY.filter(
    ({ word, means }) => word.includes(wanted) || means.toLowerCase().includes(wanted),
  ).sort((a, b) => Number(b.word.startsWith(wanted)) - Number(a.word.startsWith(wanted)));
  return (
    <Veil isOpen isDismissable onOpenChange={(open) => !open && onClose()}>
      <Modal>
        <Sheet>
          <Inside>
            <Head>
              <Heading slot="title">Words of the trade</Heading>
              <Button onPress={onClose}>Close</Button>
            </Head>
            <TextInput
              autoFocus
              type="search"
              aria-label="Find a word"
              placeholder="find a word"
              value={search}
              onChange={(event) => setSearch(event.target.value)}
            />
            <p className="unseen" role="status">
              {found.length} of {GLOSSARY.length} words
            </p>
            {found.length === 0 && <p>This word is not in the list.</p>}
            <dl>
              {found.map(({ word, means }) => (
                <div key={word}>
                  <dt>{word}</dt>
                  <dd>{means}</dd>
                </div>
              ))}
            </dl>
          </Inside>
        </Sheet>
      </Modal>
    </Veil>
  );
}

const Head = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: ${space.m};
`;

const Inside = styled.div`
  padding: ${space.l};
  overflow-y: auto;
  display: flex;
  flex-direction: column;
  gap: ${space.m};
  h2 {
    font-size: ${type.title};
  }
  input {
    flex: none;
  }
  dl {
    display: grid;
    gap: ${space.s};
  }
  dt {
    font-weight: 700;
  }
  dd {
    color: ${colour.quiet};
    font-size: ${type.small};
  }
`;
