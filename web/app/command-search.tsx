import {
  Autocomplete,
  Dialog,
  Input,
  Label,
  Menu,
  MenuItem,
  Modal,
  ModalOverlay,
  SearchField,
  useFilter,
} from 'react-aria-components';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';
import { useSettings } from '../ui/settings.js';
import { useCommands, type Command } from '../ui/commands.js';

/** Finds an action by typing part of its name. */
export function CommandSearch({
  onClose,
  onShortcuts,
  onWords,
}: {
  readonly onClose: () => void;
  readonly onShortcuts: () => void;
  readonly onWords: () => void;
}) {
  const offered = useCommands();
  const navigate = useNavigate();
  const { setUnit, setTheme } = useSettings();
  const { contains } = useFilter({ sensitivity: 'base' });
  const everywhere: readonly Command[] = [
    { name: 'Go to the jobs', run: () => void navigate('/') },
    { name: 'Go to the cutting list', run: () => void navigate('/cutting-list') },
    ...['films', 'stock', 'tools', 'makers', 'blanks', 'devices'].map((place) => ({
      name: `Go to the shop: ${place}`,
      run: () => void navigate(`/shop/${place}`),
    })),
    { name: 'Words of the trade, explained', keys: 'Alt+W', run: onWords },
    { name: 'Show all keys', keys: 'Alt+/', run: onShortcuts },
    { name: 'Lengths in millimetres', run: () => setUnit('mm') },
    { name: 'Lengths in centimetres', run: () => setUnit('cm') },
    { name: 'Lengths in inches', run: () => setUnit('in') },
    { name: 'Light screen', run: () => setTheme('light') },
    { name: 'Dark screen', run: () => setTheme('dark') },
    { name: 'Light or dark like the system', run: () => setTheme('system') },
  ];
  const all = [...offered, ...everywhere];
  return (
    <Veil isOpen isDismissable onOpenChange={(open) => !open && onClose()}>
      <Modal>
        <Sheet aria-label="Find an action">
          <Autocomplete filter={contains}>
            <SearchField autoFocus aria-label="Action">
              <Label className="unseen">Action</Label>
              <Field placeholder="What do you want to do?" />
            </SearchField>
            <Scroller tabIndex={0} role="group" aria-label="Actions found">
              <List
                aria-label="Actions"
                onAction={(name) => {
                  onClose();
                  all.find((command) => command.name === name)?.run();
                }}
                renderEmptyState={() => <Empty>No action has these words. Try only one word.</Empty>}
              >
                {all.map(({ name, keys }) => (
                  <Row key={name} id={name} textValue={name}>
                    <span>{name}</span>
                    {keys && <kbd>{keys.replaceAll('+', ' ')}</kbd>}
                  </Row>
                ))}
              </List>
            </Scroller>
          </Autocomplete>
        </Sheet>
      </Modal>
    </Veil>
  );
}

export const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 20;
  display: flex;
  justify-content: center;
  align-items: flex-start;
  padding: 10vh ${space.l} ${space.l};
  background: color-mix(in srgb, ${colour.ink} 42%, transparent);
`;

export const Sheet = styled(Dialog)`
  width: min(560px, 92vw);
  max-height: 74vh;
  display: flex;
  flex-direction: column;
  overflow: hidden;
  outline: none;
  background: ${colour.docket};
  border-radius: ${radius.l};
  border-top: 4px solid ${colour.accent};
  box-shadow: 0 18px 60px ${colour.shadow};
`;

const Field = styled(Input)`
  width: 100%;
  border: 0;
  border-bottom: 1px dashed ${colour.line};
  background: transparent;
  padding: ${space.l};
  font: 500 ${type.large} / 1.2 ${type.text};
  &:focus-visible {
    outline: none;
    border-bottom: 2px solid ${colour.accent};
  }
  &::placeholder {
    color: ${colour.quiet};
    opacity: 1;
  }
  &::-webkit-search-cancel-button {
    display: none;
  }
`;

const Scroller = styled.div`
  overflow-y: auto;
  &:focus-visible {
    outline-offset: -3px;
  }
`;

const List = styled(Menu)`
  padding: ${space.s};
  outline: none;
`;

const Row = styled(MenuItem)`
  display: flex;
  justify-content: space-between;
  gap: ${space.m};
  padding: ${space.s} ${space.m};
  border-radius: ${radius.m};
  cursor: pointer;
  font-size: ${type.body};
  &[data-focused] {
    background: ${colour.accentWash};
    outline: none;
    box-shadow: inset 3px 0 ${colour.accent};
  }
  kbd {
    font: 550 ${type.small} / 1.4 ${type.text};
    color: ${colour.quiet};
    white-space: nowrap;
  }
`;

const Empty = styled.p`
  padding: ${space.m};
  color: ${colour.quiet};
`;
