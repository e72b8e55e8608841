import type { DrawingPart } from '../../../core/stations/artwork/index.js';
import { Small } from '../../ui/plain-fields.js';
import { NumberField } from '../../ui/number-field.js';
import type { ArrangedPart, Arrangement } from './use-arrangement.js';

/** Which page of a file is made. */
export function PageChoice({
  arranged,
  pages,
  arrangement,
}: {
  readonly arranged: ArrangedPart;
  readonly pages: number;
  readonly arrangement: Arrangement;
}) {
  const part = arranged.part as DrawingPart;
  return (
    <Small as="div">
      Page{' '}
      <NumberField
        label="Page of the file"
        value={part.page}
        min={1}
        max={pages}
        onChange={(page) =>
          arrangement.change((all) => all.map((other) => (other.id === part.id ? { ...part, page } : other)))
        }
      />{' '}
      of {pages} is made. To have several pages, add the file once for each.
    </Small>
  );
}
