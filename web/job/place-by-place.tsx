import styled from 'styled-components';
import { spared, takenAt } from '../../core/stations/artwork/index.js';
import type { JobFinding } from '../../core/recipe/index.js';
import { colour, space } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { useJobContext } from './job-context.js';

/** The places of a finding one after the other, each with its own remedy. */
export function PlaceByPlace({ finding, index }: { readonly finding: JobFinding; readonly index: number | null }) {
  const { handle, recipe, look } = useJobContext();
  const places = finding.places!.length;
  const at = index === null ? null : finding.at?.[index];
  const kind = finding.remedies?.find((remedy) => remedy.acts)?.acts;
  const step = (by: number) =>
    look(finding, index === null ? (by > 0 ? 0 : places - 1) : (index + by + places) % places);
  return (
    <Row role="group" aria-label="Place by place">
      <span>
        <WordButton onPress={() => step(-1)} aria-label="The place before">
          ‹
        </WordButton>
        <span aria-live="polite">{index === null ? `all ${places} places` : `place ${index + 1} of ${places}`}</span>
        <WordButton onPress={() => step(1)} aria-label="The next place">
          ›
        </WordButton>
      </span>
      {at && (
        <span>
          Only here:{' '}
          {finding.remedies!.map(
            (remedy) =>
              remedy.acts && (
                <WordButton
                  key={remedy.label}
                  aria-label={`${remedy.label}, only here`}
                  onPress={() => handle.change(takenAt(recipe.repair, { ...remedy, acts: remedy.acts! }, at))}
                >
                  {remedy.label}
                </WordButton>
              ),
          )}{' '}
          {kind && (
            <WordButton
              aria-label={`Leave this one: ${finding.message}`}
              onPress={() => handle.change(spared(recipe.repair, kind, at))}
            >
              Leave this one
            </WordButton>
          )}
        </span>
      )}
    </Row>
  );
}

const Row = styled.div`
  display: grid;
  gap: 2px;
  padding-top: ${space.xs};
  margin-top: ${space.xs};
  border-top: 1px dashed ${colour.line};
`;
