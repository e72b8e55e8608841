import { useState } from 'react';
import styled from 'styled-components';
import { ApiProblem, ask } from '../api/client.js';
import { colour, space, type } from '../tokens.js';
import { MainButton } from '../ui/button.js';
import { Labelled, Small, TextInput } from '../ui/plain-fields.js';

/** What a phone calls itself, roughly. */
function guessedName(): string {
  return /iPad|Tablet/i.test(navigator.userAgent)
    ? 'Tablet'
    : /Mobi|Android|iPhone/i.test(navigator.userAgent)
      ? 'Phone'
      : 'Computer';
}

/** Where a scanned code leads: the device gives itself a name, and is let in. */
export function LetIn() {
  const [code] = useState(() => window.location.hash.slice(1));
  const [name, setName] = useState(guessedName);
  const [problem, setProblem] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const enter = async () => {
    setBusy(true);
    setProblem(null);
    try {
      await ask('/api/devices/enter', { method: 'POST', json: { code, name: name.trim() || guessedName() } });
      // With a new page, all that was refused before is asked again; the code is not left in the address.
      window.location.replace('/');
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      setProblem(
        error.status === 404 ? 'This is the bench computer itself: nobody needs to be let in here.' : error.message,
      );
      setBusy(false);
    }
  };
  return (
    <Page>
      <h1>Let this device in</h1>
      {code === '' ? (
        <p>Scan the code that the bench computer shows under Shop, Devices.</p>
      ) : (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void enter();
          }}
        >
          <Labelled>
            Name of this device
            <TextInput
              aria-label="Name of this device"
              value={name}
              maxLength={60}
              onChange={(event) => setName(event.target.value)}
            />
          </Labelled>
          <MainButton type="submit" isDisabled={isBusy}>
            Let it in
          </MainButton>
        </form>
      )}
      {problem && <Wrong role="alert">{problem}</Wrong>}
      <Small>
        On it you can weed, assemble, cut, and book film. Jobs and the shop are changed on the bench computer.
      </Small>
    </Page>
  );
}

const Page = styled.div`
  max-width: 26rem;
  width: 100%;
  margin: 8vh auto;
  padding: ${space.l};
  display: grid;
  gap: ${space.m};
  h1 {
    font-size: ${type.title};
  }
  form {
    display: grid;
    gap: ${space.m};
    justify-items: start;
  }
  button {
    min-height: 44px;
  }
`;
const Wrong = styled.p`
  color: ${colour.bad};
`;
