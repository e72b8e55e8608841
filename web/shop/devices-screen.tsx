import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { ApiProblem, ask } from '../api/client.js';
import { colour, radius, space, type } from '../tokens.js';
import { Button, MainButton, WordButton } from '../ui/button.js';
import { FileButton } from '../ui/file-button.js';
import { useNotify } from '../ui/notices.js';
import { Picker } from '../ui/picker.js';
import { Labelled, Small, TextInput } from '../ui/plain-fields.js';
import { sayDateTime } from '../ui/say.js';

interface Devices {
  readonly open: { readonly url: string; readonly isSecure: boolean } | null;
  readonly wanted: { readonly address: string; readonly port: number; readonly hasCertificate: boolean } | null;
  readonly addresses: readonly string[];
  readonly devices: readonly {
    readonly id: string;
    readonly name: string;
    readonly letInAt: string;
    readonly seenAt: string;
  }[];
  readonly knocks: readonly { readonly at: string; readonly from: string; readonly what: string }[];
}

interface Code {
  readonly url: string;
  readonly size: number;
  readonly rows: readonly string[];
  readonly until: string;
}

const PORT = '4311';

/** Phones and tablets at the bench: where they come in, which are let in, and how they are sent away. */
export function DevicesScreen() {
  const client = useQueryClient();
  const notify = useNotify();
  const { data, error } = useQuery({
    queryKey: ['devices'],
    queryFn: () => ask<Devices>('/api/devices'),
    refetchInterval: 3000,
    retry: false,
  });
  const act = async (what: () => Promise<unknown>) => {
    try {
      await what();
    } catch (failure) {
      notify(failure instanceof ApiProblem ? failure.message : 'That was not done.');
    }
    await client.invalidateQueries({ queryKey: ['devices'] });
  };
  if (error instanceof ApiProblem && error.status === 403)
    return (
      <Page>
        <p>{error.message}</p>
      </Page>
    );
  if (!data) return <Page role="status">Fetching the devices …</Page>;
  return (
    <Page>
      <Two>
        <Slip aria-label="Sharing">
          <h2>Other devices at the bench</h2>
          {data.open ? (
            <>
              <p>
                Shared on <b>{data.open.url}</b>.
              </p>
              {!data.open.isSecure && (
                <Small>
                  It is plain HTTP: whoever listens in this network can read what is sent, and could take a device’s
                  place. Use it only in a network that is yours alone, or give it a certificate.
                </Small>
              )}
              <p>
                <Button
                  onPress={() =>
                    void act(() =>
                      ask('/api/devices/sharing', {
                        method: 'PUT',
                        json: { address: null, port: 0, certificate: null, privateKey: null },
                      }),
                    )
                  }
                >
                  Stop sharing
                </Button>
              </p>
              <LetInCode />
            </>
          ) : (
            <Share
              data={data}
              onShare={(wish) => void act(() => ask('/api/devices/sharing', { method: 'PUT', json: wish }))}
            />
          )}
        </Slip>
        <Slip aria-label="Devices let in">
          <h3>Let in</h3>
          {data.devices.length === 0 && (
            <Small>
              None. A phone can tick off what is weeded, follow the assembly, look after the cut, and book film.
            </Small>
          )}
          <ul>
            {data.devices.map((device) => (
              <li key={device.id}>
                <span>
                  <b>{device.name}</b>
                  <small>
                    since {sayDateTime(device.letInAt)}, last seen {sayDateTime(device.seenAt)}
                  </small>
                </span>
                <Button
                  aria-label={`Send ${device.name} away`}
                  onPress={() => void act(() => ask(`/api/devices/${device.id}`, { method: 'DELETE' }))}
                >
                  Send away
                </Button>
              </li>
            ))}
          </ul>
          {data.knocks.length > 0 && (
            <details>
              <summary>Who came to the door</summary>
              <ul>
                {data.knocks.map((knock, i) => (
                  <li key={i}>
                    <small>
                      {sayDateTime(knock.at)}, {knock.from}: {knock.what}
                    </small>
                  </li>
                ))}
              </ul>
            </details>
          )}
        </Slip>
      </Two>
    </Page>
  );
}

interface Wish {
  readonly address: string;
  readonly port: number;
  readonly certificate: string | null;
  readonly privateKey: string | null;
}

function Share({ data, onShare }: { readonly data: Devices; readonly onShare: (wish: Wish) => void }) {
  const [address, setAddress] = useState(data.wanted?.address ?? data.addresses[0] ?? '');
  const [port, setPort] = useState(String(data.wanted?.port ?? PORT));
  const [certificate, setCertificate] = useState<string | null>(null);
  const [privateKey, setPrivateKey] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const share = () => {
    const number = Number(port);
    if (!Number.isInteger(number) || number < 1 || number > 65_535)
      return setWrong(`“${port}” is not a port. It is a whole number from 1 to 65,535.`);
    if ((certificate === null) !== (privateKey === null))
      return setWrong('A certificate needs its key, and a key its certificate.');
    setWrong(null);
    return onShare({ address, port: number, certificate, privateKey });
  };
  return (
    <>
      <p>
        Off. Only this computer is answered. Switched on, phones and tablets that you let in are answered too, on one
        address of this computer.
      </p>
      {data.wanted && (
        <Wrong role="alert">
          It was shared on {data.wanted.address}, but this computer cannot be reached there now.
        </Wrong>
      )}
      {data.addresses.length === 0 ? (
        <Labelled>
          Address of this computer
          <TextInput
            aria-label="Address of this computer"
            value={address}
            placeholder="192.168.1.20"
            onChange={(event) => setAddress(event.target.value.trim())}
          />
        </Labelled>
      ) : (
        <Picker
          label="Address of this computer"
          value={address}
          options={[...new Set([...data.addresses, ...(address ? [address] : [])])].map((id) => ({ id, text: id }))}
          onChange={setAddress}
        />
      )}
      <Labelled>
        Port
        <TextInput aria-label="Port" size={6} value={port} onChange={(event) => setPort(event.target.value)} />
      </Labelled>
      <details>
        <summary>With a certificate (HTTPS)</summary>
        <PemFile label="Certificate" isGiven={certificate !== null} onText={setCertificate} />
        <PemFile label="Its key" isGiven={privateKey !== null} onText={setPrivateKey} />
        <Small>
          Both as PEM files, made by you or for you. Without them it is plain HTTP: whoever listens in this network can
          read what is sent.
        </Small>
      </details>
      {wrong && <Wrong role="alert">{wrong}</Wrong>}
      <p>
        <MainButton onPress={share} isDisabled={address === ''}>
          Share the shop
        </MainButton>
      </p>
    </>
  );
}

function PemFile({
  label,
  isGiven,
  onText,
}: {
  readonly label: string;
  readonly isGiven: boolean;
  readonly onText: (text: string | null) => void;
}) {
  return (
    <p>
      <FileButton label={label} accept=".pem,.crt,.key" onFile={(file) => void file.text().then(onText)}>
        {label}
      </FileButton>{' '}
      {isGiven ? 'chosen' : 'none'}
    </p>
  );
}

/** A code to scan, which lets one device in within two minutes. */
function LetInCode() {
  const notify = useNotify();
  const [code, setCode] = useState<Code | null>(null);
  const [left, setLeft] = useState(0);
  useEffect(() => {
    if (!code) return undefined;
    const tell = () => {
      const seconds = Math.ceil((Date.parse(code.until) - Date.now()) / 1000);
      setLeft(Math.max(0, seconds));
      if (seconds <= 0) setCode(null);
    };
    tell();
    const every = setInterval(tell, 1000);
    return () => clearInterval(every);
  }, [code]);
  const make = () =>
    ask<Code>('/api/devices/code', { method: 'POST', json: {} }).then(setCode, (error: unknown) =>
      notify(error instanceof ApiProblem ? error.message : 'No code could be made.'),
    );
  if (!code) {
    return (
      <p>
        <MainButton onPress={() => void make()}>Let a device in</MainButton>
      </p>
    );
  }
  const path = code.rows
    .flatMap((row, y) => [...row].map((dot, x) => (dot === '1' ? `M${x} ${y}h1v1h-1z` : '')))
    .join('');
  return (
    <Shown>
      <svg
        role="img"
        aria-label="Code to scan with the phone’s camera"
        viewBox={`0 0 ${code.size} ${code.size}`}
        width="240"
        height="240"
      >
        <rect width={code.size} height={code.size} fill="#ffffff" />
        <path d={path} fill="#000000" />
      </svg>
      <p>
        Scan it with the phone’s camera. It lets in one device, and is good for <b>{left} s</b> more.{' '}
        <WordButton onPress={() => setCode(null)}>Done</WordButton>
      </p>
      <details>
        <summary>The address, to type it in</summary>
        <code>{code.url}</code>
      </details>
    </Shown>
  );
}

const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  padding: ${space.l};
  font-size: ${type.small};
`;
const Two = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
  gap: ${space.m};
  align-items: start;
  max-width: 1000px;
`;
const Slip = styled.section`
  display: grid;
  gap: ${space.m};
  justify-items: start;
  padding: ${space.l};
  background: ${colour.raised};
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  h2 {
    font-size: ${type.large};
  }
  h3 {
    font-size: ${type.body};
  }
  ul {
    list-style: none;
    display: grid;
    gap: ${space.s};
    width: 100%;
  }
  li {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: ${space.m};
  }
  small {
    display: block;
    color: ${colour.quiet};
  }
  code {
    overflow-wrap: anywhere;
  }
`;
const Shown = styled.div`
  display: grid;
  gap: ${space.s};
  justify-items: start;
  svg {
    forced-color-adjust: none;
    border: 1px solid ${colour.line};
  }
`;
const Wrong = styled.p`
  color: ${colour.bad};
`;
