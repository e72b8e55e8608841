import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';
import styled from 'styled-components';
import { colour, radius, space, type, width } from '../tokens.js';
import { WordButton } from './button.js';

interface Notice {
  readonly id: number;
  readonly text: string;
  readonly action?: { readonly label: string; readonly run: () => void };
}

const Context = createContext<(text: string, action?: Notice['action']) => void>(() => {});

/** Says a thing at the foot of the screen until it is dismissed or the next one comes: what was done, and how to take it back. */
export function useNotify(): (text: string, action?: Notice['action']) => void {
  return useContext(Context);
}

export function NoticesProvider({ children }: { readonly children: ReactNode }) {
  const [notice, setNotice] = useState<Notice | null>(null);
  const notify = useCallback(
    (text: string, action?: Notice['action']) =>
      setNotice((before) => ({ id: (before?.id ?? 0) + 1, text, ...(action ? { action } : {}) })),
    [],
  );
  const dismiss = useMemo(() => () => setNotice(null), []);
  return (
    <Context value={notify}>
      {children}
      <Foot role="status">
        {notice && (
          <Slip key={notice.id}>
            <span>{notice.text}</span>
            {notice.action && (
              <WordButton
                onPress={() => {
                  notice.action!.run();
                  dismiss();
                }}
              >
                {notice.action.label}
              </WordButton>
            )}
            <WordButton onPress={dismiss}>Dismiss</WordButton>
          </Slip>
        )}
      </Foot>
    </Context>
  );
}

/** Where a card with its buttons stands at the right, it keeps out of their way. */
const Foot = styled.div`
  position: fixed;
  left: 0;
  right: 0;
  bottom: ${space.l};
  display: flex;
  justify-content: center;
  pointer-events: none;
  z-index: 10;
  @media (min-width: ${width.phone}) {
    body:has([data-card]) & {
      justify-content: flex-start;
      right: 50%;
      padding-left: ${space.l};
    }
  }
`;

const Slip = styled.div`
  pointer-events: auto;
  display: flex;
  gap: ${space.m};
  align-items: center;
  max-width: 92vw;
  padding: ${space.s} ${space.m};
  font-size: ${type.small};
  background: ${colour.raised};
  border: 1px solid ${colour.line};
  border-left: 4px solid ${colour.accent};
  border-radius: ${radius.m};
  box-shadow: 0 8px 30px ${colour.shadow};
`;
