import { useQuery } from '@tanstack/react-query';
import type { MouseEvent } from 'react';
import { useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';
import { Missing } from './missing.js';

/** A page of the documentation, as it was made when the application was built. */
export function DocsPage() {
  const { name = '' } = useParams();
  const navigate = useNavigate();
  const { data, isPending } = useQuery({
    queryKey: ['docs', name],
    queryFn: () => fetchPage(name),
    staleTime: Infinity,
  });
  if (isPending) return <Article role="status">Fetching the page …</Article>;
  if (!data) return <Missing />;
  const follow = (event: MouseEvent) => {
    const path = (event.target as Element).closest('a')?.getAttribute('href');
    if (!path?.startsWith('/docs/') || event.ctrlKey || event.metaKey || event.shiftKey) return;
    event.preventDefault();
    void navigate(path);
  };
  // Our own documentation, made into a page at build: nothing that a maker or a file wrote.
  return <Article onClick={follow} dangerouslySetInnerHTML={{ __html: data }} />;
}

/** Null when there is no such page. */
async function fetchPage(name: string): Promise<string | null> {
  const response = await fetch(`/docs/${encodeURIComponent(name)}.html`);
  return response.ok ? response.text() : null;
}

const Article = styled.article`
  flex: 1;
  overflow-y: auto;
  padding: ${space.l} max(${space.l}, calc(50% - 24rem)) ${space.xl};
  background: ${colour.docket};
  line-height: 1.6;
  h1 {
    font-size: ${type.title};
    margin: ${space.m} 0;
  }
  h2 {
    font-size: ${type.large};
    margin: ${space.l} 0 ${space.s};
  }
  p,
  ul,
  ol,
  pre,
  table {
    margin: 0 0 ${space.m};
  }
  ul,
  ol {
    padding-left: 1.4em;
  }
  table {
    border-collapse: collapse;
    font-size: ${type.small};
    display: block;
    overflow-x: auto;
  }
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: ${space.xs} ${space.m} ${space.xs} 0;
    border-bottom: 1px solid ${colour.line};
  }
  code,
  pre {
    font-size: 0.9em;
    background: ${colour.faint};
    border-radius: ${radius.s};
  }
  code {
    padding: 0 0.25em;
  }
  pre {
    padding: ${space.m};
    overflow-x: auto;
    code {
      padding: 0;
    }
  }
`;
