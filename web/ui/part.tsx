import { lazy, Suspense, type ComponentType, type ReactNode } from 'react';
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary';
import styled from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';
import { Button, MainButton } from './button.js';

/** A part of the page could not be fetched: the server was away, or has another version of the pages by now. */
class NotFetched extends Error {}

/**
 * A component that is fetched when it is first shown. One whose fetching failed is fetched again when it is shown again (a component that React
 * itself loads late would fail for good). A browser remembers an address that it could not import from, so it is asked for under another then.
 */
export function fetchedLate<Module, P extends object>(
  load: () => Promise<Module>,
  pick: (module: Module) => ComponentType<P>,
): ComponentType<P> {
  let lost: string | null = null;
  let tries = 0;
  const fetched = () =>
    lost === null ? load() : (import(/* @vite-ignore */ `${lost}?again=${(tries += 1)}`) as Promise<Module>);
  const make = () =>
    lazy(() =>
      fetched().then(
        (module) => ({ default: pick(module) }),
        (error: unknown) => {
          lost = addressIn(error);
          now = make();
          throw new NotFetched(String(error), { cause: error });
        },
      ),
    );
  let now = make();
  return function FetchedLate(props: P) {
    const Component = now;
    return <Component {...props} />;
  };
}

/** The address of a file that could not be imported, which browsers name in their sentence; null where they do not. */
function addressIn(error: unknown): string | null {
  return /https?:\/\/[^\s?]+\.js/.exec(String(error))?.[0] ?? null;
}

interface PartProps {
  /** What it is, at the beginning of a sentence: “This station”. */
  readonly name: string;
  /** What stands there while it is fetched. */
  readonly fallback: ReactNode;
  /** Another one begins anew, whatever became of the one before. */
  readonly of?: string;
  readonly children: ReactNode;
}

/** A part of the page that may have to be fetched, and may break: an error stays in it, with a way out. */
export function Part({ name, fallback, of, children }: PartProps) {
  return (
    <ErrorBoundary fallbackRender={(props) => <Broken name={name} {...props} />} resetKeys={[of]}>
      <Suspense fallback={fallback}>{children}</Suspense>
    </ErrorBoundary>
  );
}

function Broken({ name, error, resetErrorBoundary }: FallbackProps & { readonly name: string }) {
  const isFetching = error instanceof NotFetched;
  return (
    <Card role="alert">
      <p>
        {isFetching
          ? `${name} could not be fetched. Wry Lantern may have been updated, or was away for a moment.`
          : `${name} stopped working.`}{' '}
        Your job is safe: everything that is decided is kept.
      </p>
      <Row>
        {isFetching ? (
          <>
            <MainButton onPress={() => window.location.reload()}>Load the page again</MainButton>
            <Button onPress={resetErrorBoundary}>Try again</Button>
          </>
        ) : (
          <>
            <MainButton onPress={resetErrorBoundary}>Try again</MainButton>
            <Button onPress={() => window.location.reload()}>Load the page again</Button>
          </>
        )}
      </Row>
    </Card>
  );
}

const Card = styled.div`
  align-self: start;
  max-width: 34rem;
  margin: ${space.l};
  padding: ${space.m};
  display: grid;
  gap: ${space.m};
  font-size: ${type.body};
  background: ${colour.warnWash};
  border: 1px solid ${colour.line};
  border-left: 4px solid ${colour.warn};
  border-radius: ${radius.m};
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.s};
`;
