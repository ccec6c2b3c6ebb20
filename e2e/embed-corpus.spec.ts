import { expect, type Page, type Route } from '@playwright/test';
import fc from 'fast-check';
import { CORPUS, UNTRUSTED } from '#core/embed/corpus.ts';
import { EMBED_FORMS } from '#core/embed/forms.ts';
import type { Hosts } from '#core/embed/host.ts';
import { madeUpHosts } from '#core/embed/made-up-hosts.ts';
import { EMBED_SCRIPT } from '#core/embed/on-page.ts';
import { readPasted } from '#core/embed/reading.ts';
import { mutations } from '#core/embed/testing.ts';
import { grantsOf, writeEmbed } from '#core/embed/write.ts';
import { PLAIN_RULES } from '#core/page/testing.ts';
import { test } from './test.ts';

/**
 * Everything of the corpus, written in every form and loaded in a page of a target: whatever was pasted, no program of
 * it runs, nobody is asked but listed hosts, and the page stays where it is. The hosts answer with a frame that tries
 * everything a frame should not do.
 */
const HOSTS: Hosts = { entries: madeUpHosts((name) => `https://${name}.example`), decisions: [] };
const TARGET = { ...PLAIN_RULES, siteAddress: 'https://reserve.example/' };
const LISTED = new Set(HOSTS.entries.map(({ origin }) => new URL(origin).host));

const PRANK = `<!DOCTYPE html><title>A host</title><script>
const tell = (deed) => parent.postMessage({ prank: deed }, '*');
try { parent.document.title; tell('read the page'); } catch {}
try { parent.__ran = 1; } catch {}
try { top.location.href = 'https://elsewhere.example/led-away'; } catch {}
try { if (window.open('https://elsewhere.example/opened')) tell('opened a window'); } catch {}
try { alert('Hello'); } catch {}
if (navigator.mediaDevices) navigator.mediaDevices.getUserMedia({ video: true }).then(() => tell('used the camera'), () => {});
</script>`;

interface Seen {
  readonly hosts: Set<string>;
  readonly dialogs: string[];
}

async function watch(page: Page, html: () => string): Promise<Seen> {
  const seen: Seen = { hosts: new Set(), dialogs: [] };
  await page.route('**/*', async (route: Route) => {
    const url = new URL(route.request().url());
    if (url.host === 'reserve.example' && url.pathname === '/page') {
      await route.fulfill({ contentType: 'text/html', body: html() });
      return;
    }
    seen.hosts.add(url.host);
    if (url.pathname.endsWith('.js'))
      await route.fulfill({ contentType: 'text/javascript', body: 'try { top.__ran = 1 } catch {}' });
    else await route.fulfill({ contentType: 'text/html', body: PRANK });
  });
  page.on('dialog', (dialog) => {
    seen.dialogs.push(dialog.message());
    void dialog.dismiss();
  });
  return seen;
}

interface Input {
  readonly name: string;
  readonly text: string;
}

const read = (inputs: readonly Input[]) =>
  inputs.flatMap(({ name, text }) =>
    readPasted(text, HOSTS).embeds.map(({ embed, trust }) => ({ name, embed, trust })),
  );

/** Each different piece of code once, in every form that could ever stand; many inputs come to the same. */
const codesOf = (inputs: readonly Input[]) => [
  ...new Map(
    read(inputs).flatMap(({ name, embed, trust }) =>
      EMBED_FORMS.filter((form) => form === 'link' || form === 'poster' || trust !== 'none').map((form) => {
        const code = writeEmbed(form, { embed, target: TARGET, hosts: HOSTS, poster: null });
        return [code, { name: `${form}: ${name}`, code, embed }] as const;
      }),
    ),
  ).values(),
];

const inputs: readonly Input[] = [
  ...Object.values(CORPUS).flat(),
  ...UNTRUSTED.map((text) => ({ name: text, text })),
];

/** Loads codes in a page of a target, some at once, and looks whether anything came out of its frame. */
async function expectHarmless(page: Page, codes: ReturnType<typeof codesOf>, atOnce: number): Promise<void> {
  let body = '';
  const seen = await watch(
    page,
    () =>
      `<!DOCTYPE html><html lang="en"><head><title>Ours</title></head><body>${body}<script>window.__pranks = []; addEventListener('message', (event) => { if (event.data && event.data.prank) window.__pranks.push(event.data.prank); });</script></body></html>`,
  );
  for (let at = 0; at < codes.length; at += atOnce) {
    const some = codes.slice(at, at + atOnce);
    body = some
      .map(({ code }) => code)
      .join('\n')
      .replaceAll('loading="lazy"', '');
    await page.goto('https://reserve.example/page');
    await page.waitForTimeout(150);
    const names = some.map(({ name }) => name).join('; ');
    expect(page.url(), names).toBe('https://reserve.example/page');
    const found = await page.evaluate(() => ({
      ran: Reflect.get(window, '__ran'),
      pranks: Reflect.get(window, '__pranks'),
      title: document.title,
    }));
    expect(found, names).toEqual({ ran: undefined, pranks: [], title: 'Ours' });
  }
  expect([...seen.hosts].filter((host) => !LISTED.has(host))).toEqual([]);
  expect(seen.dialogs).toEqual([]);
  expect(page.context().pages()).toHaveLength(1);
}

test('whatever was pasted, nothing of it runs in the page, asks elsewhere or leads away', async ({
  page,
}) => {
  expect(inputs.length).toBeGreaterThanOrEqual(200);
  await expectHarmless(page, codesOf(inputs), 12);
});

test('however it was cut and mixed before, neither', async ({ page }) => {
  const mixed = fc.sample(mutations(), { numRuns: 1500, seed: 17 }).map((text) => ({ name: text, text }));
  const known = new Set(codesOf(inputs).map(({ code }) => code));
  const codes = codesOf(mixed).filter(({ code }) => !known.has(code));
  expect(codes.length).toBeGreaterThan(100);
  await expectHarmless(page, codes, 40);
});

test('a frame gets no permission that the model does not list', async ({ page }) => {
  let body = '';
  await watch(
    page,
    () => `<!DOCTYPE html><html lang="en"><head><title>Ours</title></head><body>${body}</body></html>`,
  );
  for (const { code, embed } of codesOf(inputs)
    .filter(({ code: one }) => one.startsWith('<iframe') && !one.includes(' srcdoc='))
    .slice(0, 12)) {
    body = code.replaceAll('loading="lazy"', '');
    await page.goto('https://reserve.example/page');
    const { allow, sandbox } = grantsOf({ embed, target: TARGET, hosts: HOSTS });
    const given = await page.locator('iframe').evaluate((frame: HTMLIFrameElement) => ({
      allow: frame.allow.split('; ').filter(Boolean),
      sandbox: [...frame.sandbox],
    }));
    expect(given).toEqual({ allow: [...allow], sandbox: [...sandbox] });
    const policy = await page.frames()[1]?.evaluate(() => {
      const known: unknown = Reflect.get(document, 'featurePolicy');
      if (!(known instanceof Object)) return null;
      const allows: unknown = Reflect.get(known, 'allowsFeature');
      return allows instanceof Function
        ? ['camera', 'microphone', 'geolocation'].filter((name) => allows.call(known, name))
        : null;
    });
    expect(policy ?? []).toEqual([]);
  }
});

test('a poster becomes its frame when it is clicked, and is a link without the script', async ({ page }) => {
  const film = read(inputs).find(({ embed }) => embed.host === 'lanternreel' && embed.loadOnClick);
  if (!film) throw new Error('The corpus has no film.');
  const code = writeEmbed('click', { embed: film.embed, target: TARGET, hosts: HOSTS, poster: null });
  let script = '';
  const seen = await watch(
    page,
    () =>
      `<!DOCTYPE html><html lang="en"><head><title>Ours</title></head><body>${code}${script}</body></html>`,
  );
  await page.goto('https://reserve.example/page');
  await expect(page.getByRole('link', { name: /^Watch/ })).toHaveAttribute('href', film.embed.page);
  expect(seen.hosts.size).toBe(0);
  script = `<script>${EMBED_SCRIPT}</script>`;
  await page.goto('https://reserve.example/page');
  await page.getByRole('button', { name: /^Watch/ }).press('Enter');
  await expect(page.locator('iframe')).toBeFocused();
  // The frame has the focus as soon as it is there; what it asks for is asked right after.
  await expect.poll(() => [...seen.hosts]).toEqual(['lanternreel.example']);
});
