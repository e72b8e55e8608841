import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, By, error, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome.js';

const PATIENCE_MS = 60_000;

/** A headless Chromium with a new profile, and what a maker does with it. */
export interface Browser {
  readonly driver: WebDriver;
  /** Waits until the page has it. */
  readonly find: (css: string) => Promise<WebElement>;
  /** A button, link or summary by what it is called. */
  readonly press: (name: string) => Promise<void>;
  /** What stands behind a selector, also while the page still moves. */
  readonly tap: (css: string) => Promise<void>;
  /** Waits until the page's text holds this. */
  readonly sees: (text: string | RegExp) => Promise<void>;
  /** Replaces what stands in a field and leaves it. */
  readonly write: (label: string, text: string) => Promise<void>;
  readonly choose: (label: string, option: string) => Promise<void>;
  readonly text: () => Promise<string>;
  readonly resize: (width: number, height: number) => Promise<void>;
  readonly devTools: (name: string, options: object) => Promise<void>;
  /** Pages that are opened from now on hear nothing of what is changed elsewhere, as on a line that just broke; or hear it again. */
  readonly deafen: (deaf: boolean) => Promise<void>;
  /** Errors that the page's console has shown since last asked. */
  readonly complaints: () => Promise<string[]>;
  readonly close: () => Promise<void>;
}

/** Whether a click that follows comes to an element: pressed on it and, where nothing opens at once, let go on it. */
const WATCH_CLICK = `
  const [element, seen] = [arguments[0], []];
  const opensAtOnce = element.closest('[aria-haspopup]') !== null;
  for (const name of opensAtOnce ? ['pointerdown'] : ['pointerdown', 'click']) document.addEventListener(name, ({ target }) => seen.push(element.contains(target)), { capture: true, once: true });
  window.clickArrived = () => seen.length === (opensAtOnce ? 1 : 2) && seen.every(Boolean);
`;

export async function openBrowser(): Promise<Browser> {
  const profile = mkdtempSync(join(tmpdir(), 'lantern-browser-'));
  const options = new Options();
  options.setChromeBinaryPath('/usr/bin/chromium');
  options.addArguments(
    '--headless=new',
    '--no-sandbox',
    '--disable-gpu',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-dev-shm-usage',
    '--force-prefers-reduced-motion',
    `--user-data-dir=${profile}`,
  );
  const driver = await new Builder()
    .forBrowser('chrome')
    .setChromeOptions(options)
    .setChromeService(new ServiceBuilder('/usr/bin/chromedriver'))
    .build();
  const visit = driver.get.bind(driver);
  // Now and then Chromium loses a tab. The test that it happened in is run again (see the test configuration), in a new one, opened from
  // the first, which nothing is ever shown in.
  const spare = await driver.getWindowHandle();
  const openTab = async () => {
    await driver.switchTo().newWindow('tab');
    await resize(1280, 800);
  };
  driver.get = (url) =>
    visit(url).catch(async (reason: unknown) => {
      if (!(reason instanceof Error) || !reason.message.includes('tab crashed')) throw reason;
      await driver.switchTo().window(spare);
      await openTab();
      await visit(url);
    });
  const named = (name: string) => `normalize-space(.)="${name}" or @aria-label="${name}"`;
  const within = (locator: By) => driver.wait(until.elementLocated(locator), PATIENCE_MS);
  const field = (label: string) => within(By.css(`[aria-label="${label}"]`));
  /** A page may draw itself anew between finding a thing and touching it; then it is done again. */
  const steadily = (act: () => Promise<void>) =>
    driver.wait(
      () =>
        act().then(
          () => true,
          (reason: unknown) => {
            if (
              reason instanceof error.StaleElementReferenceError ||
              reason instanceof error.ElementNotInteractableError ||
              reason instanceof error.ElementClickInterceptedError
            )
              return false;
            throw reason;
          },
        ),
      PATIENCE_MS,
    );
  /** A click goes to where a thing was when it was asked for: while it still moves, as findings come in above it, it would go beside it. */
  const clickAtRest = async (element: WebElement) => {
    const [was, is] = [await element.getRect(), await element.getRect()];
    if (was.x !== is.x || was.y !== is.y) throw new error.ElementClickInterceptedError('It still moves.');
    await driver.executeScript(WATCH_CLICK, element);
    await element.click();
    // A page that the click has led away from knows nothing of it any more.
    if ((await driver.executeScript<boolean | null>('return window.clickArrived?.() ?? null')) === false)
      throw new error.ElementClickInterceptedError('It went beside, or what was pressed was drawn anew meanwhile.');
  };
  const text = () => driver.findElement(By.css('body')).then((body) => body.getText());
  const devTools = (name: string, options: object) =>
    (driver as unknown as { sendDevToolsCommand(name: string, options: object): Promise<void> }).sendDevToolsCommand(
      name,
      options,
    );
  const resize = (width: number, height: number) =>
    devTools('Emulation.setDeviceMetricsOverride', { width, height, deviceScaleFactor: 1, mobile: false });
  await openTab();
  return {
    driver,
    text,
    resize,
    devTools,
    deafen: async (deaf) => {
      await devTools('Network.enable', {});
      await devTools('Network.setBlockedURLs', { urls: deaf ? ['*/api/changes*'] : [] });
    },
    find: (css) => within(By.css(css)),
    press: (name) =>
      steadily(async () => {
        const element = await within(
          By.xpath(`//*[self::button or self::a or self::summary or self::label][${named(name)}]`),
        );
        await driver.wait(until.elementIsEnabled(element), PATIENCE_MS);
        await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', element);
        await clickAtRest(element);
      }).then(() => undefined),
    tap: (css) =>
      steadily(async () => {
        const element = await within(By.css(css));
        await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', element);
        await clickAtRest(element);
      }).then(() => undefined),
    sees: async (wanted) => {
      const has = async () => {
        // A page that goes on to another one is gone in the middle of being read, which is told in many ways; a tab that is gone is not waited for.
        const shown = await text().catch((reason: unknown) => {
          if (reason instanceof error.WebDriverError && !reason.message.includes('tab crashed')) return '';
          throw reason;
        });
        return typeof wanted === 'string' ? shown.includes(wanted) : wanted.test(shown);
      };
      await driver.wait(has, PATIENCE_MS).catch(async (reason: unknown) => {
        if (!(reason instanceof error.TimeoutError)) throw reason;
        throw new Error(`Never saw ${String(wanted)}; the page said:\n${await text()}`);
      });
    },
    write: async (label, value) => {
      const element = await field(label);
      await element.click();
      // Selecting all by key would be a shortcut of the system's; this is what a hand does with a mouse.
      await driver.executeScript('arguments[0].select?.()', element);
      await element.sendKeys(value, '\uE004');
    },
    choose: (label, option) =>
      steadily(async () => {
        const button = await within(
          By.xpath(`//button[@aria-haspopup="listbox"][starts-with(@aria-label, "${label}: ")]`),
        );
        await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', button);
        if ((await button.getAttribute('aria-expanded')) !== 'true') await button.click();
        const search = await driver.wait(
          async () =>
            (
              await driver.findElements(By.css('[role="dialog"] input[type="search"], [role="dialog"] [role="option"]'))
            )[0],
          PATIENCE_MS,
        );
        // A long list is searched: what is not in view is not drawn.
        if ((await search!.getTagName()) === 'input') {
          await driver.executeScript('arguments[0].select()', search);
          await search!.sendKeys(option);
        }
        await (await within(By.xpath(`//*[@role="option"][starts-with(normalize-space(.), "${option}")]`))).click();
      }).then(() => undefined),
    complaints: async () => {
      // A page hears of changes for as long as the server is there: that it hears no more when a test ends it is no complaint.
      const entries = await driver.manage().logs().get('browser');
      return entries
        .filter((entry) => entry.level.name === 'SEVERE' && !entry.message.includes('/api/changes'))
        .map((entry) => entry.message);
    },
    close: async () => {
      await driver.quit();
      rmSync(profile, { recursive: true, force: true });
    },
  };
}
