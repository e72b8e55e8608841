import { useState } from 'react';
import { Link, NavLink, Outlet } from 'react-router';
import styled from 'styled-components';
import { colour, space, type, width } from '../tokens.js';
import { Button } from '../ui/button.js';
import { Choice } from '../ui/choice.js';
import { useFocusKeeper } from '../ui/focus-keeper.js';
import { useSettings } from '../ui/settings.js';
import { ServerAway } from './server-away.js';
import { OfferContext, OfferedContext, type Command } from '../ui/commands.js';
import { useShortcuts } from './use-shortcuts.js';
import { fetchedLate, Part } from '../ui/part.js';

const CommandSearch = fetchedLate(
  () => import('./command-search.js'),
  (m) => m.CommandSearch,
);
const AtWork = fetchedLate(
  () => import('./at-work.js'),
  (m) => m.AtWork,
);
const GlossarySheet = fetchedLate(
  () => import('./glossary-sheet.js'),
  (m) => m.GlossarySheet,
);
const ShortcutSheet = fetchedLate(
  () => import('./shortcut-sheet.js'),
  (m) => m.ShortcutSheet,
);

const UNITS = [
  ['mm', 'mm'],
  ['cm', 'cm'],
  ['in', 'inch'],
] as const;

/** The frame round every screen: the name, the command search, the sheet of shortcuts. */
export function Shell() {
  const [offered, setOffered] = useState<readonly Command[]>([]);
  const { unit, setUnit } = useSettings();
  const [open, setOpen] = useState<'search' | 'shortcuts' | 'words' | null>(null);
  useFocusKeeper();
  useShortcuts([
    { keys: 'Ctrl+K', run: () => setOpen('search') },
    { keys: 'Alt+/', run: () => setOpen('shortcuts') },
    { keys: 'Alt+W', run: () => setOpen('words') },
    ...offered.flatMap(({ keys, run }) => (keys ? [{ keys, run }] : [])),
  ]);
  return (
    <OfferContext value={setOffered}>
      <Frame>
        <Skip href="#main">Skip to the content</Skip>
        <Top className="screen-only">
          <Brand to="/">
            <img src="/lantern.svg" alt="" width="26" height="26" /> <Long>Wry Lantern</Long>
          </Brand>
          <Places aria-label="Places">
            <NavLink to="/" end>
              Jobs
            </NavLink>
            <NavLink to="/cutting-list">Cutting list</NavLink>
            <NavLink to="/shop">Shop</NavLink>
          </Places>
          <Right>
            <Part name="Who is at work" fallback={null}>
              <AtWork />
            </Part>
            <Choice label="Unit of lengths" value={unit} options={UNITS} onChange={setUnit} />
            <Button onPress={() => setOpen('search')} aria-keyshortcuts="Control+K">
              <span>
                Find<Long> an action</Long>
              </span>{' '}
              <Key aria-hidden>Ctrl K</Key>
            </Button>
            <Button onPress={() => setOpen('words')} aria-keyshortcuts="Alt+W">
              Words
            </Button>
            <ForKeyboards>
              <Button onPress={() => setOpen('shortcuts')} aria-keyshortcuts="Alt+/">
                Keys
              </Button>
            </ForKeyboards>
          </Right>
        </Top>
        <ServerAway />
        <Main id="main" tabIndex={-1}>
          <Outlet />
        </Main>
      </Frame>
      <OfferedContext value={offered}>
        <Part name="This list" fallback={null} of={String(open)}>
          {open === 'search' && (
            <CommandSearch
              onClose={() => setOpen(null)}
              onShortcuts={() => setOpen('shortcuts')}
              onWords={() => setOpen('words')}
            />
          )}
          {open === 'words' && <GlossarySheet onClose={() => setOpen(null)} />}
          {open === 'shortcuts' && <ShortcutSheet onClose={() => setOpen(null)} />}
        </Part>
      </OfferedContext>
    </OfferContext>
  );
}

const Frame = styled.div`
  height: 100dvh;
  display: flex;
  flex-direction: column;
  @media print {
    height: auto;
    display: block;
  }
`;

const Skip = styled.a`
  position: absolute;
  left: -999px;
  top: 0;
  z-index: 5;
  padding: ${space.s} ${space.m};
  background: ${colour.raised};
  &:focus {
    left: 0;
  }
`;

const Top = styled.header`
  display: flex;
  align-items: center;
  gap: ${space.m};
  padding: ${space.s} ${space.l};
  @media (max-width: ${width.phone}) {
    flex-wrap: wrap;
    gap: ${space.xs} ${space.s};
    padding: ${space.xs} ${space.s};
  }
`;

const Brand = styled(Link)`
  display: inline-flex;
  align-items: center;
  gap: ${space.s};
  color: ${colour.ink};
  white-space: nowrap;
  text-decoration: none;
  font: 750 ${type.large} / 1 ${type.display};
`;

const Places = styled.nav`
  display: flex;
  gap: 2px;
  a {
    padding: 5px ${space.s};
    color: ${colour.quiet};
    text-decoration: none;
    font: 600 ${type.small} / 1.2 ${type.text};
    border-radius: 3px;
    border-bottom: 2px solid transparent;
  }
  a:hover {
    color: ${colour.ink};
  }
  a.active {
    color: ${colour.ink};
    border-bottom-color: ${colour.accent};
  }
`;

const Right = styled.span`
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: ${space.s};
  @media (max-width: ${width.phone}) {
    flex-wrap: wrap;
    fieldset {
      display: none;
    }
  }
`;

const Key = styled.kbd`
  font: 600 0.6875rem/1 ${type.text};
  color: ${colour.quiet};
  border: 1px solid ${colour.line};
  border-radius: 3px;
  padding: 2px 4px;
  @media (max-width: ${width.phone}) {
    display: none;
  }
`;

/** Said to those who do not see it, and seen where there is room. */
const Long = styled.span`
  white-space: pre;
  @media (max-width: ${width.phone}) {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
`;

/** A phone has no keyboard. */
const ForKeyboards = styled.span`
  @media (max-width: ${width.phone}) {
    display: none;
  }
`;

const Main = styled.main`
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  &:focus {
    outline: none;
  }
  @media print {
    display: block;
  }
`;
