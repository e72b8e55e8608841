import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import { count } from '../../core/words/index.js';
import { ApiProblem, ask } from '../api/client.js';
import { colour, radius, space, type } from '../tokens.js';
import { LinkButton, WordButton } from '../ui/button.js';
import { FileButton } from '../ui/file-button.js';
import { useNotify } from '../ui/notices.js';
import { useKnownShop, useShopActs } from './shop-context.js';
import { newId } from '../api/new-id.js';

interface Refused {
  readonly fileName: string;
  readonly message: string;
  readonly lines: readonly { readonly line: number; readonly message: string }[];
}

/** All films as a table for another program, and back again. Of a table with a wrong line nothing is taken. */
export function FilmsFile() {
  const { revision } = useKnownShop();
  const { undo } = useShopActs();
  const client = useQueryClient();
  const notify = useNotify();
  const [refused, setRefused] = useState<Refused | null>(null);
  const take = async (chosen: File) => {
    setRefused(null);
    try {
      const { added, changed } = await ask<{ added: number; changed: number }>(
        `/api/shop/films.csv?revision=${revision}&edit=${newId()}`,
        { method: 'POST', bytes: chosen },
      );
      notify(`${count(added, 'film')} added, ${changed} changed.`, { label: 'Undo', run: undo });
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      setRefused({ fileName: chosen.name, message: error.message, lines: error.lines ?? [] });
    }
    await client.invalidateQueries({ queryKey: ['shop'] });
  };
  return (
    <>
      <LinkButton href="/api/shop/films.csv" download="films.csv">
        Export
      </LinkButton>
      <FileButton label="Table of films" accept=".csv,text/csv" onFile={(file) => void take(file)}>
        Import
      </FileButton>
      {refused && (
        <Told role="alert">
          <p>
            <strong>{refused.fileName}</strong>: {refused.message}{' '}
            <WordButton onPress={() => setRefused(null)}>Close</WordButton>
          </p>
          <ol>
            {refused.lines.map(({ line, message }, i) => (
              <li key={i}>
                Line {line}: {message}
              </li>
            ))}
          </ol>
        </Told>
      )}
    </>
  );
}

const Told = styled.div`
  flex: 1 1 100%;
  order: 9;
  max-height: 180px;
  overflow-y: auto;
  padding: ${space.s} ${space.m};
  font-size: ${type.small};
  background: ${colour.badWash};
  border-left: 4px solid ${colour.bad};
  border-radius: ${radius.s};
  ol {
    list-style: none;
    display: grid;
    gap: 2px;
    padding-top: ${space.xs};
  }
`;
