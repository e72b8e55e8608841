import { Heading, Modal } from 'react-aria-components';
import styled from 'styled-components';
import { space, type } from '../tokens.js';
import { Button } from '../ui/button.js';
import { Table } from '../ui/plain-fields.js';
import { Sheet, Veil } from './command-search.js';
import { useCommands } from '../ui/commands.js';

/** The keys of the screen in view and of the light table, on one sheet. */
export function ShortcutSheet({ onClose }: { readonly onClose: () => void }) {
  const offered = useCommands();
  const rows = [
    ['Ctrl+K', 'Find an action'],
    ['Alt+W', 'Words of the trade, explained'],
    ['Alt+/', 'This list of keys'],
    ...offered.flatMap(({ keys, name }) => (keys ? [[keys, name]] : [])),
    ['Arrows', 'On the light table: move the picture (with Shift, further)'],
    ['+  −  0', 'On the light table: closer, further away, show all'],
    ['Up, down', 'In a number: a little more, a little less'],
    ['Escape', 'In a number: keep the old one'],
  ];
  return (
    <Veil isOpen isDismissable onOpenChange={(open) => !open && onClose()}>
      <Modal>
        <Sheet>
          <Inside>
            <Heading slot="title">Keys</Heading>
            <Table>
              <tbody>
                {rows.map(([keys, what]) => (
                  <tr key={what}>
                    <th scope="row">{keys!.replaceAll('+', ' ').trim()}</th>
                    <td>{what}</td>
                  </tr>
                ))}
              </tbody>
            </Table>
            <Button autoFocus onPress={onClose}>
              Close
            </Button>
          </Inside>
        </Sheet>
      </Modal>
    </Veil>
  );
}

const Inside = styled.div`
  padding: ${space.l};
  overflow-y: auto;
  display: grid;
  gap: ${space.m};
  justify-items: start;
  h2 {
    font-size: ${type.title};
  }
  th {
    white-space: nowrap;
  }
`;
