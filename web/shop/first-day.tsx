import { useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { FILM_FAMILIES, newCutter, newMaker, startingSet, type Film, type FilmFamily } from '../../core/shop/index.js';
import { count } from '../../core/words/index.js';
import { ApiProblem } from '../api/client.js';
import { setMakerAtWork } from '../api/maker.js';
import { colour, radius, space, type } from '../tokens.js';
import { MainButton } from '../ui/button.js';
import { FigureField } from '../ui/figure-field.js';
import { useNotify } from '../ui/notices.js';
import { Labelled, Small, TextInput } from '../ui/plain-fields.js';
import { useSettings } from '../ui/settings.js';
import { Swatch } from '../ui/swatch.js';
import { useKnownShop, useShopActs } from './shop-context.js';
import { newId } from '../api/new-id.js';

const FAMILIES = Object.keys(FILM_FAMILIES) as FilmFamily[];
const BEGUN: readonly FilmFamily[] = ['calendered', 'cast'];
/** A roll as most suppliers sell it, less what the pinch rollers need. */
const ROLL = { widthMm: 590, lengthMm: 25_000 };
const EDGE_MM = 5;

/** A shop set up in one go: films by family, sizes of rolls and mats, a cutter, who is at work. All of it can be changed later. */
export function FirstDay() {
  const shop = useKnownShop();
  const { writes } = useShopActs();
  const { unit } = useSettings();
  const notify = useNotify();
  const navigate = useNavigate();
  const [name, setName] = useState(shop.settings.name);
  const [who, setWho] = useState('');
  const [families, setFamilies] = useState<readonly FilmFamily[]>(BEGUN);
  const [offered] = useState(
    () =>
      new Map<FilmFamily, readonly Film[]>(FAMILIES.map((family) => [family, startingSet([family], () => newId())])),
  );
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [withRolls, setWithRolls] = useState(true);
  const [roll, setRoll] = useState(ROLL);
  const [mat, setMat] = useState({ widthMm: 300, lengthMm: 300 });
  const [hasMat, setHasMat] = useState(true);
  const [cutter, setCutter] = useState({ widthMm: 610, host: '', port: '9100' });
  const [doing, setDoing] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const films = families.flatMap((family) => offered.get(family)!.filter((film) => !left.has(film.id)));
  const begin = async () => {
    const port = Number(cutter.port);
    if (name.trim() === '') return setProblem('Give the shop a name.');
    if (cutter.host.trim() !== '' && (!Number.isInteger(port) || port < 1 || port > 65_535))
      return setProblem(`“${cutter.port}” is not a port. It is a whole number from 1 to 65,535.`);
    setProblem(null);
    setDoing('Writing it down …');
    const [cutterId, maker] = [
      newId(),
      who.trim() === '' ? null : { ...newMaker(newId()), name: who.trim().slice(0, 80) },
    ];
    try {
      await writes.save(
        [
          ...films.map((value) => ({ kind: 'films' as const, value })),
          {
            kind: 'cutters',
            value: {
              ...newCutter(cutterId),
              name: 'our cutter',
              widthMm: cutter.widthMm,
              host: cutter.host.trim() === '' ? null : cutter.host.trim(),
              port: Number.isInteger(port) && port > 0 && port < 65_536 ? port : 9100,
            },
          },
          { kind: 'settings', value: { ...shop.settings, name: name.trim().slice(0, 80), cutterId } },
          ...(hasMat
            ? [
                {
                  kind: 'mats' as const,
                  value: { id: newId(), name: 'mat', ...mat, edgeMm: EDGE_MM, usesBefore: 0, retired: false },
                },
              ]
            : []),
          ...(maker ? [{ kind: 'makers' as const, value: maker }] : []),
        ],
        shop.revision,
      );
      let revision = shop.revision + 1;
      for (const [i, film] of (withRolls ? films : []).entries()) {
        setDoing(`Receiving roll ${i + 1} of ${films.length} …`);
        await writes.receive(
          { id: newId(), filmId: film.id, kind: 'roll', ...roll, edgeMm: EDGE_MM, place: '', note: '', retired: false },
          { amount: roll.lengthMm, why: 'received', note: 'On the first day', sheetId: null },
          revision,
        );
        revision += 1;
      }
      if (maker) setMakerAtWork(maker.id);
      notify('The shop is set up. Change whatever is different.');
      void navigate('/shop/films');
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      setProblem(error.message);
      setDoing(null);
    }
    return undefined;
  };
  return (
    <Page>
      <h2>The first day</h2>
      <Small>Keep what fits, leave out the rest. Everything can be changed afterwards, and more can be added.</Small>
      <Cards>
        <Slip aria-label="The shop">
          <h3>The shop</h3>
          <Labelled>
            Its name
            <TextInput
              aria-label="Name of the shop"
              value={name}
              maxLength={80}
              onChange={(event) => setName(event.target.value)}
            />
          </Labelled>
          <Labelled>
            Who is at work on this device
            <TextInput
              aria-label="Who is at work"
              value={who}
              maxLength={80}
              placeholder="your name"
              onChange={(event) => setWho(event.target.value)}
            />
          </Labelled>
        </Slip>
        <Slip aria-label="The cutter">
          <h3>The cutter</h3>
          <p>
            It takes film up to{' '}
            <FigureField
              label="Widest film"
              mm={cutter.widthMm}
              unit={unit}
              min={50}
              max={3000}
              stepMm={10}
              onChange={(widthMm) => setCutter({ ...cutter, widthMm })}
            />{' '}
            wide.
          </p>
          <Labelled>
            Its address in the network
            <TextInput
              aria-label="Address of the cutter"
              value={cutter.host}
              placeholder="none: it is given files"
              onChange={(event) => setCutter({ ...cutter, host: event.target.value })}
            />
          </Labelled>
          {cutter.host.trim() !== '' && (
            <Labelled>
              Port
              <TextInput
                aria-label="Port of the cutter"
                value={cutter.port}
                size={6}
                onChange={(event) => setCutter({ ...cutter, port: event.target.value })}
              />
            </Labelled>
          )}
        </Slip>
        <Slip aria-label="Rolls and mats">
          <h3>Rolls and mats</h3>
          <label>
            <input type="checkbox" checked={withRolls} onChange={(event) => setWithRolls(event.target.checked)} /> There
            is a roll of each film
          </label>
          {withRolls && (
            <p>
              <FigureField
                label="Usable width of a roll"
                mm={roll.widthMm}
                unit={unit}
                min={50}
                max={3000}
                stepMm={10}
                onChange={(widthMm) => setRoll({ ...roll, widthMm })}
              />{' '}
              wide between the rollers,{' '}
              <FigureField
                label="Length of a roll"
                mm={roll.lengthMm}
                unit={unit}
                min={100}
                max={200_000}
                stepMm={1000}
                onChange={(lengthMm) => setRoll({ ...roll, lengthMm })}
              />{' '}
              long.
            </p>
          )}
          <label>
            <input type="checkbox" checked={hasMat} onChange={(event) => setHasMat(event.target.checked)} /> There is a
            mat for sheets and offcuts
          </label>
          {hasMat && (
            <p>
              <FigureField
                label="Width of the mat"
                mm={mat.widthMm}
                unit={unit}
                min={50}
                max={3000}
                onChange={(widthMm) => setMat({ ...mat, widthMm })}
              />{' '}
              by{' '}
              <FigureField
                label="Length of the mat"
                mm={mat.lengthMm}
                unit={unit}
                min={50}
                max={3000}
                onChange={(lengthMm) => setMat({ ...mat, lengthMm })}
              />
              .
            </p>
          )}
        </Slip>
      </Cards>
      <h3>Films, by family</h3>
      <Families>
        {FAMILIES.map((family) => {
          const isOn = families.includes(family);
          return (
            <li key={family}>
              <label>
                <input
                  type="checkbox"
                  checked={isOn}
                  onChange={(event) =>
                    setFamilies(event.target.checked ? [...families, family] : families.filter((one) => one !== family))
                  }
                />{' '}
                <b>{FILM_FAMILIES[family].name}</b>
              </label>
              {isOn && (
                <span>
                  {offered.get(family)!.map((film) => (
                    <label key={film.id}>
                      <input
                        type="checkbox"
                        aria-label={film.name}
                        checked={!left.has(film.id)}
                        onChange={(event) =>
                          setLeft(
                            new Set(
                              event.target.checked ? [...left].filter((id) => id !== film.id) : [...left, film.id],
                            ),
                          )
                        }
                      />{' '}
                      <Swatch film={film} size={16} /> {film.name.split(',')[0]}
                    </label>
                  ))}
                </span>
              )}
            </li>
          );
        })}
      </Families>
      <Foot>
        {problem && <Wrong role="alert">{problem}</Wrong>}
        <MainButton isDisabled={doing !== null} onPress={() => void begin()}>
          {doing ?? `Begin with ${count(films.length, 'film')}`}
        </MainButton>
      </Foot>
    </Page>
  );
}

const Page = styled.div`
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  padding: ${space.l};
  display: grid;
  gap: ${space.m};
  align-content: start;
  font-size: ${type.small};
  h2 {
    font-size: ${type.title};
  }
  h3 {
    font-size: ${type.body};
  }
`;
const Cards = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
  gap: ${space.m};
`;
const Slip = styled.section`
  display: grid;
  gap: ${space.s};
  align-content: start;
  padding: ${space.m};
  background: ${colour.raised};
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  label:has(input[type='checkbox']) {
    cursor: pointer;
  }
`;
const Families = styled.ul`
  list-style: none;
  display: grid;
  gap: ${space.s};
  li {
    display: grid;
    grid-template-columns: 15em minmax(0, 1fr);
    gap: ${space.s};
    padding-bottom: ${space.s};
    border-bottom: 1px solid ${colour.faint};
  }
  span {
    display: flex;
    flex-wrap: wrap;
    gap: ${space.xs} ${space.m};
  }
  label {
    cursor: pointer;
  }
  span > label {
    display: inline-flex;
    align-items: center;
    gap: 5px;
    white-space: nowrap;
  }
  @media (max-width: 640px) {
    li {
      grid-template-columns: 1fr;
    }
  }
`;
const Foot = styled.div`
  position: sticky;
  bottom: calc(-1 * ${space.l});
  display: grid;
  gap: ${space.s};
  justify-items: start;
  padding: ${space.m} 0;
  background: ${colour.docket};
  border-top: 1px solid ${colour.line};
`;
const Wrong = styled.p`
  color: ${colour.bad};
`;
