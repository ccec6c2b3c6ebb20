import { type Page, test as plain } from '@playwright/test';

/** What is asked right after an answer belongs to what was done. */
const QUIET_MS = 150;
/** A write that is still on its way after this is the test's own, as one that is held back. */
const LONGEST_MS = 20_000;

/** How many times slower than this machine the browser computes, to find what hurries ahead of the screen. */
const SLOWER = Number(process.env.PLACARD_SLOWER ?? 1);

async function slowDown(page: Page): Promise<void> {
  const session = await page.context().newCDPSession(page);
  await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
}

/**
 * A test whose page is closed when all that was done on it is kept, as a person closes it: what a browser still sends behind
 * a page that is gone is lost with the whole context here, and the next test would find the pieces half undone.
 */
export const test = plain.extend({
  page: async ({ page }, use) => {
    if (SLOWER > 1) {
      await slowDown(page);
      // One that is closed again already needs no slowing.
      page.context().on('page', (opened) => void slowDown(opened).catch(() => {}));
    }
    const underWay = new Set<object>();
    let last = Date.now();
    const ended = (request: object) => {
      if (underWay.delete(request)) last = Date.now();
    };
    page.on('request', (request) => {
      if (request.method() !== 'GET') underWay.add(request);
    });
    page.on('requestfinished', ended);
    page.on('requestfailed', ended);
    await use(page);
    const until = Date.now() + LONGEST_MS;
    const isQuiet = () => underWay.size === 0 && Date.now() - last > QUIET_MS;
    while (!page.isClosed() && !isQuiet() && Date.now() < until)
      await new Promise((resolve) => setTimeout(resolve, QUIET_MS / 3));
  },
});
