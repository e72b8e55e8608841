import { useMemo, useState, type ComponentType } from 'react';
import { NavLink, useParams } from 'react-router';
import styled from 'styled-components';
import { useShop } from '../plan/use-shop.js';
import { colour, radius, space, type, width } from '../tokens.js';
import { Button, WordButton } from '../ui/button.js';
import { useOffer, type Command } from '../ui/commands.js';
import { fetchedLate, Part } from '../ui/part.js';
import { TextInput } from '../ui/plain-fields.js';
import { ShopContext, useKnownShop, useShopActs } from './shop-context.js';

const FilmsScreen = fetchedLate(
  () => import('./films-screen.js'),
  (m) => m.FilmsScreen,
);
const StockScreen = fetchedLate(
  () => import('./stock-screen.js'),
  (m) => m.StockScreen,
);
const ToolsScreen = fetchedLate(
  () => import('./tools-screen.js'),
  (m) => m.ToolsScreen,
);
const MakersScreen = fetchedLate(
  () => import('./makers-screen.js'),
  (m) => m.MakersScreen,
);
const BlanksScreen = fetchedLate(
  () => import('./blanks-screen.js'),
  (m) => m.BlanksScreen,
);
const DevicesScreen = fetchedLate(
  () => import('./devices-screen.js'),
  (m) => m.DevicesScreen,
);
const FirstDay = fetchedLate(
  () => import('./first-day.js'),
  (m) => m.FirstDay,
);

/** The screens of the shop, by their address. */
const SCREENS: Readonly<Record<string, readonly [name: string, screen: ComponentType]>> = {
  films: ['Films', FilmsScreen],
  stock: ['Stock', StockScreen],
  tools: ['Tools', ToolsScreen],
  makers: ['Makers', MakersScreen],
  blanks: ['Blanks', BlanksScreen],
  devices: ['Devices', DevicesScreen],
};

/** What the shop has, a screen for each kind of thing. */
export function ShopPlace() {
  const shop = useShop();
  if (!shop) return <Wait role="status">Fetching the shop …</Wait>;
  return (
    <ShopContext value={shop}>
      <Inside />
    </ShopContext>
  );
}

function Inside() {
  const { screen = 'films' } = useParams();
  const shop = useKnownShop();
  const { undo, redo } = useShopActs();
  useOffer(
    useMemo(
      (): readonly Command[] => [
        { name: 'Undo a change of the shop', keys: 'Ctrl+Z', run: undo },
        { name: 'Make it again', keys: 'Ctrl+Shift+Z', run: redo },
      ],
      [undo, redo],
    ),
  );
  const Screen = screen === 'begin' ? FirstDay : (SCREENS[screen] ?? SCREENS['films']!)[1];
  return (
    <Place>
      <Head>
        <ShopName />
        <nav aria-label="The shop">
          {Object.entries(SCREENS).map(([path, [name]]) => (
            <Tab key={path} to={`/shop/${path}`}>
              {name}
            </Tab>
          ))}
          {shop.films.length === 0 && <Tab to="/shop/begin">First day</Tab>}
        </nav>
        <Way>
          <Button onPress={undo} isDisabled={!shop.canUndo} aria-keyshortcuts="Control+Z">
            Undo
          </Button>
          <Button onPress={redo} isDisabled={!shop.canRedo}>
            Redo
          </Button>
        </Way>
      </Head>
      <Part name="This screen" of={screen} fallback={<Wait role="status">Fetching …</Wait>}>
        <Screen />
      </Part>
    </Place>
  );
}

/** What the shop is called, and another name for it. */
function ShopName() {
  const { settings, revision } = useKnownShop();
  const { save, attempt } = useShopActs();
  const [name, setName] = useState<string | null>(null);
  if (name === null) {
    return (
      <h1>
        {settings.name} <WordButton onPress={() => setName(settings.name)}>rename</WordButton>
      </h1>
    );
  }
  const keep = () => {
    const tidy = name.trim();
    setName(null);
    if (tidy !== '' && tidy !== settings.name)
      void attempt(() =>
        save([{ kind: 'settings', value: { ...settings, name: tidy } }], revision, `The shop is called ${tidy}.`),
      );
  };
  return (
    <h1>
      <TextInput
        aria-label="Name of the shop"
        autoFocus
        value={name}
        maxLength={80}
        onChange={(event) => setName(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => {
          if (event.key === 'Enter') keep();
          if (event.key === 'Escape') setName(null);
        }}
      />
    </h1>
  );
}

const Wait = styled.p`
  padding: ${space.l};
  color: ${colour.quiet};
`;
const Place = styled.div`
  position: relative;
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
  background: ${colour.docket};
  @media (max-width: ${width.phone}) {
    overflow-y: auto;
  }
`;
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space.s} ${space.l};
  padding: ${space.m} ${space.l} ${space.s};
  border-bottom: 1px dashed ${colour.line};
  h1 {
    font-size: ${type.title};
  }
  nav {
    display: flex;
    flex-wrap: wrap;
    gap: 2px;
  }
  @media (max-width: ${width.phone}) {
    padding: ${space.s};
    h1 {
      display: none;
    }
    nav a {
      padding: 8px ${space.s};
      font-size: ${type.small};
    }
  }
`;
const Tab = styled(NavLink)`
  padding: 6px ${space.m};
  font: 600 ${type.body} / 1.2 ${type.text};
  color: ${colour.quiet};
  text-decoration: none;
  border-radius: ${radius.s};
  border-bottom: 2px solid transparent;
  &:hover {
    color: ${colour.ink};
  }
  &.active {
    color: ${colour.ink};
    border-bottom-color: ${colour.accent};
    background: ${colour.accentWash};
  }
`;
const Way = styled.span`
  margin-left: auto;
  display: flex;
  gap: ${space.s};
  @media (max-width: ${width.phone}) {
    display: none;
  }
`;
