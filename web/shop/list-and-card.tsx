import type { ReactNode } from 'react';
import styled from 'styled-components';
import { colour, space, type, width } from '../tokens.js';
import { WordButton } from '../ui/button.js';

/** A list, and beside it the card of what was opened; on a phone the card takes the list's place. */
export function ListAndCard({ list, card }: { readonly list: ReactNode; readonly card: ReactNode | null }) {
  return (
    <Two data-card={card !== null || undefined}>
      <List>{list}</List>
      {card}
    </Two>
  );
}

/** A card's frame: what it is of, and the way back. */
export function Card({
  title,
  lead,
  mark,
  onClose,
  children,
}: {
  readonly title: string;
  readonly lead?: ReactNode;
  readonly mark?: ReactNode;
  readonly onClose: () => void;
  readonly children: ReactNode;
}) {
  return (
    <Sheet aria-label={title}>
      <Head>
        {mark}
        <div>
          <h2>{title}</h2>
          {lead && <p>{lead}</p>}
        </div>
        <WordButton onPress={onClose}>Close</WordButton>
      </Head>
      {children}
    </Sheet>
  );
}

const Two = styled.div`
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  &[data-card] {
    grid-template-columns: minmax(0, 1fr) minmax(420px, 44%);
  }
  @media (max-width: ${width.narrow}) {
    &[data-card] {
      grid-template-columns: minmax(0, 1fr) minmax(380px, 50%);
    }
  }
  @media (max-width: ${width.phone}) {
    display: block;
    &[data-card] > :first-child {
      display: none;
    }
  }
`;
const List = styled.div`
  min-width: 0;
  min-height: 0;
  display: flex;
  flex-direction: column;
  padding: ${space.m} ${space.l} ${space.l};
  @media (max-width: ${width.phone}) {
    padding: ${space.s};
    height: 72vh;
  }
`;
const Sheet = styled.section`
  min-height: 0;
  min-width: 0;
  display: flex;
  flex-direction: column;
  background: ${colour.raised};
  border-left: 1px dashed ${colour.line};
`;
const Head = styled.div`
  display: flex;
  align-items: flex-start;
  gap: ${space.m};
  padding: ${space.m} ${space.l};
  h2 {
    font-size: ${type.large};
    overflow-wrap: anywhere;
  }
  p {
    color: ${colour.quiet};
    font-size: ${type.small};
  }
  > button:last-child {
    margin-left: auto;
  }
  @media (max-width: ${width.phone}) {
    padding: ${space.s};
  }
`;
