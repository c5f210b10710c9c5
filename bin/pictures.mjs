// usage: node bin/pictures.mjs [URL] — the pictures of docs/screenshots, taken from a demo that has run for two
// minutes
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from '../web/node_modules/playwright-core/index.mjs';

const url = process.argv[2] ?? 'http://127.0.0.1:8080';
const root = fileURLToPath(new URL('..', import.meta.url));
const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
  ],
});

async function screen(options = {}, login = 'rack-one', password = 'engineer-at-rack-one') {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, ...options });
  const page = await context.newPage();
  await page.goto(url);
  await page.getByLabel('Login').fill(login);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.getByRole('heading', { name: 'Bring-ups' }).waitFor();
  return page;
}

async function shoot(page, path, name, before = async () => {}) {
  await page.goto(url + path);
  await page
    .getByRole('navigation')
    .getByText(/\d+ of \d+ known/)
    .waitFor();
  await page.waitForLoadState('networkidle').catch(() => {});
  await before();
  await page.screenshot({ path: join(root, 'docs/screenshots', name + '.png') });
}

/** A recording of this hall with the keys that were typed: marks stand where they were, and the line showed them. */
function withKeys(cast) {
  const lines = cast.trim().split('\n');
  const pieces = lines.slice(1).map((line) => JSON.parse(line));
  let passwords = 0;
  let asked = '';
  const keyed = pieces.map(([at, what, text], i) => {
    if (what === 'o') {
      asked = text.split('\n').at(-1);
      return [at, what, text];
    }
    if (text === 'identified') return [at, 'o', ''];
    const until = pieces.findIndex((each, n) => n > i && each[1] !== 'o');
    const echo = pieces
      .slice(i + 1, until < 0 ? undefined : until)
      .map((each) => each[2])
      .join('');
    const hidden = /word|phrase|secret|credential/i.test(asked);
    const typed = echo.split('\r')[0] || (hidden ? (passwords++ ? 'Vb6nKw3sXd' : 'skeggle-9') : '');
    return [at, 'i', typed + '\r'];
  });
  return [lines[0], ...keyed.map((each) => JSON.stringify(each))].join('\n');
}

/** Row B gets a network and its labels, so that Allocate has something to propose. Does nothing the second time. */
async function prepareRowB(page) {
  await page.goto(url + '/b/2/prepare');
  await page.getByText('Fact sheet').waitFor();
  if (await page.getByRole('button', { name: 'Define network' }).isVisible()) {
    await page.getByRole('button', { name: 'Define network' }).click();
    const fields = {
      Name: 'Management, row B',
      Prefix: '10.40.9.0/24',
      Gateway: '10.40.9.1',
      VLAN: '409',
      Domain: 'ardal.example',
      'Name servers': '10.40.8.3 10.40.8.4',
      'Time servers': '10.40.8.6 10.40.8.7',
    };
    for (const [label, text] of Object.entries(fields)) await page.getByLabel(label, { exact: true }).fill(text);
    await page.getByLabel('Pools and reserved ranges 1').fill('.101-.180');
    await page.getByLabel('Pools and reserved ranges 2').fill('.10-.31');
    await page.getByRole('button', { name: 'Save network' }).click();
    await page.getByText('addresses free').waitFor();
  }
}

/** The unit of the block array that is under way. */
async function arrayOf(page) {
  return page.evaluate(
    async () =>
      (await (await fetch('/api/bring-ups/3/lanes')).json()).lanes.find((lane) => lane.name.startsWith('ard-blk-1'))
        .unitId,
  );
}

const page = await screen();
await shoot(page, '/b/1', 'board');
await shoot(page, '/b/1/configure', 'configure');
await shoot(page, '/b/3/configure', 'bench', async () => page.getByText('recording', { exact: true }).waitFor());
await shoot(page, '/b/3/configure?unit=' + (await arrayOf(page)), 'pages', async () =>
  page.getByText('Pages of ard-blk-1').waitFor(),
);
await shoot(page, '/b/3/prepare', 'images', async () => {
  await page.keyboard.press('e');
  await page.getByRole('button', { name: 'Images' }).click();
  await page.getByText('agrees with the SHA-256').first().waitFor();
});
await shoot(page, '/b/1/prove', 'prove', async () => page.getByText('Planned and read back').waitFor());
const lead = await screen({}, 'hall-lead', 'lead-of-the-hall');
await lead.goto(url + '/kinds');
await lead.getByText('Wireless controller').waitFor();
await lead.screenshot({ path: join(root, 'docs/screenshots/kinds.png') });
await lead.goto(url + '/kinds/console-manager?tab=text');
await lead.getByRole('button', { name: 'Edit as draft' }).click();
await lead.getByText('No faults found.').waitFor();
await lead.screenshot({ path: join(root, 'docs/screenshots/kind-text.png') });
await lead.goto(url + '/kinds/interconnect-pair?tab=try');
await lead.getByText('no differences').waitFor();
await lead.getByRole('listitem').filter({ hasText: 'out-of-band address' }).getByRole('button').click();
await lead.screenshot({ path: join(root, 'docs/screenshots/dry-run.png') });
await lead.goto(url + '/people');
await lead.getByText('Night watch').waitFor();
await lead.screenshot({ path: join(root, 'docs/screenshots/people.png') });
await shoot(lead, '/b/1/handover', 'handover', async () => {
  await lead.getByText('Signed records', { exact: true }).waitFor();
  await lead.keyboard.press('v');
  await lead.getByText('The record is intact').waitFor();
});
await prepareRowB(page);
await page.goto(url + '/b/2/prepare');
await page.getByRole('button', { name: 'Import labels' }).click();
await page.getByLabel('Choose file').setInputFiles(join(root, 'lab/labels/hall-2-row-b.csv'));
const take = page.getByRole('button', { name: /^Import \d+ valid/ });
if (await take.isVisible({ timeout: 3000 }).catch(() => false)) await take.click();
else await take.click({ timeout: 5000 }).catch(() => {});
await shoot(page, '/b/2/prepare', 'prepare');
await page.goto(url + '/kinds/file-array?tab=learn');
const recorded = await page.evaluate(async () => {
  const of = await (await fetch('/api/catalogue/file-array/recordings')).json();
  const setup = of.find((each) => each.dialogue);
  return { unit: setup.unit, cast: await (await fetch('/api' + setup.path)).text() };
});
await page
  .getByLabel('Recording (asciicast 2 with keys)')
  .setInputFiles({ name: 'first-setup.cast', mimeType: 'text/plain', buffer: Buffer.from(withKeys(recorded.cast)) });
const machine = page.getByLabel('The machine was');
const offered = await machine.locator('option').allTextContents();
await machine.selectOption({ label: offered.find((each) => each.startsWith(recorded.unit)) });
await page.getByRole('button', { name: 'Learn from it' }).click();
await page.getByText('Only you know this').waitFor();
await page.screenshot({ path: join(root, 'docs/screenshots/learn.png') });
await shoot(page, '/b/2/allocate', 'allocate', async () => page.getByText('lowest run').waitFor());
await shoot(page, '/b/3/prepare', 'facts', async () => page.getByText('stratum 3').first().waitFor());
await shoot(page, '/b/3/allocate', 'placing', async () => {
  await page.getByRole('button', { name: 'ard-obj-2' }).click();
  await page.getByText('starts on a ten').first().waitFor();
  await page.keyboard.press('l');
  await page.getByText('silent to ping').waitFor();
});
await shoot(page, '/b/3/prepare', 'networks', async () => {
  await page.keyboard.press('e');
  await page.getByRole('dialog').getByRole('button').filter({ hasText: 'Domain' }).click();
  await page.getByRole('button', { name: 'Edit', exact: true }).click();
});
const dark = await screen({ colorScheme: 'dark' });
await shoot(dark, '/b/1', 'board-dark');
const phone = await screen({ viewport: { width: 390, height: 780 } });
await shoot(phone, '/b/1/prove', 'phone', async () => {
  await phone.getByText('Planned and read back').waitFor();
  await phone.getByRole('complementary').scrollIntoViewIfNeeded();
  await phone.evaluate(() => document.querySelector('aside').scrollIntoView());
});
await browser.close();
