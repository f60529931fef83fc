import { test as base } from '@playwright/test';
import { freshDatabase } from '../support/database';
import { kill, startServer, type Server } from '../support/server';
import { expect, expectAccessible, open } from './bench';

/** An application whose doors are open, and that nobody owns yet. */
const test = base.extend<{ house: Server }>({
  // Playwright reads which fixtures are wanted off this pattern; here it is none.
  // eslint-disable-next-line no-empty-pattern
  house: async ({}, use) => {
    const fresh = await freshDatabase();
    const server = await startServer(fresh.url, {
      studies: ['demo/winter-stock'],
      env: { OPEN_DOORS: '1', PLAIN_HTTP: '1', HOST: '127.0.0.1' },
    });
    await use(server);
    await kill(server.child);
    await fresh.drop();
  },
});

test('from open doors to a phone that is signed in by a code, as what it was handed', async ({
  page,
  browser,
  house,
}) => {
  await open(page, `${house.url}/machines`);
  await expect(page).toHaveURL(/\/sign-in\?to=%2Fmachines$/);
  await expectAccessible(page);
  await open(page, house.url + String(house.enter));
  await expectAccessible(page);
  await page.keyboard.type('Kim');
  await page.keyboard.press('Tab');
  await page.keyboard.type('KM');
  await page.keyboard.press('Tab');
  await page.keyboard.type('password1234');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('one of the first that attackers try');
  await page.getByLabel(/^password/).fill('caliper on a cold bench');
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/people$/);
  await open(page, page.url());
  await expectAccessible(page);
  await expect(page.getByLabel('at the bench')).toHaveValue('KM');
  // The study's station, and from there the code that leads a phone to the same place.
  const studies = (await (await page.request.get(`${house.url}/api/v1/studies`)).json()) as {
    study_id: string;
  }[];
  const study = `${house.url}/studies/${studies[0]?.study_id}`;
  await open(page, `${study}/line-up`);
  await page.getByRole('link', { name: 'Kim owner' }).click();
  await open(page, page.url());
  await page.getByRole('button', { name: 'Show the code' }).press('Enter');
  await expect(page.getByRole('img', { name: 'Code that signs a device in' })).toBeVisible();
  await expectAccessible(page);
  const path = /\/enter\/[\w-]{43}/.exec(
    (await page.getByRole('link', { name: /\/enter\// }).getAttribute('href')) ?? '',
  )?.[0];
  const device = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const phone = await device.newPage();
  await open(phone, house.url + String(path));
  await expectAccessible(phone);
  await phone.getByRole('button', { name: 'Come in' }).press('Enter');
  await phone.waitForURL(/\/line-up$/);
  await open(phone, phone.url());
  // An operator reads the line-up, and is offered nothing there; the bench is open.
  await expect(
    phone.getByText('You are here as operator: this page is for reading.'),
  ).toBeVisible();
  await expect(phone.getByRole('combobox', { name: 'Add a machine' })).toHaveCount(0);
  await expect(phone.getByRole('button', { name: /Drop sliced files/ })).toHaveCount(0);
  await open(phone, `${study}/runs`);
  await expect(phone.getByRole('heading', { name: 'Runs' })).toBeVisible();
  await expect(phone.getByText('this page is for reading')).toHaveCount(0);
  await expect(phone.locator('main fieldset:disabled')).toHaveCount(0);
  // At the machine there are the books of the bench, and nothing is taken out.
  await open(phone, `${study}/machines/gannet`);
  await expect(phone.getByRole('button', { name: /Set-up log/ })).toBeEnabled();
  await expect(phone.getByRole('button', { name: /Claims/ })).toHaveCount(0);
  await open(phone, `${house.url}/devices`);
  expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  await open(phone, `${house.url}/people`);
  await expect(
    phone.getByRole('heading', { name: 'This page is not yours to open' }),
  ).toBeVisible();
  await expectAccessible(phone);
  await open(phone, `${house.url}/studies`);
  await expect(phone.getByRole('heading', { name: 'Studies' })).toBeVisible();
  await expect(phone.getByRole('button', { name: 'New study' })).toHaveCount(0);
  await expect(phone.getByRole('button', { name: /^Actions for/ })).toHaveCount(0);
  // Signed out from the owner's list, it is at the door again.
  await open(page, `${house.url}/devices`);
  await page
    .getByRole('button', { name: /^Sign out phone|^Sign out computer/ })
    .first()
    .press('Enter');
  await expect(page.getByRole('button', { name: /^Sign out/ })).toHaveCount(1);
  await open(phone, `${study}/runs`);
  await expect(phone).toHaveURL(/\/sign-in/);
  await device.close();
});

test('a passkey lets in without the password, until it is taken away', async ({ page, house }) => {
  // Browsers bind passkeys to names: the same application, by one.
  const url = house.url.replace('127.0.0.1', 'localhost');
  const client = await page.context().newCDPSession(page);
  await client.send('WebAuthn.enable');
  const { authenticatorId } = await client.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      protocol: 'ctap2',
      transport: 'internal',
      hasResidentKey: true,
      hasUserVerification: true,
      isUserVerified: true,
      automaticPresenceSimulation: true,
    },
  });
  await open(page, url + String(house.enter));
  await page.getByLabel('name', { exact: true }).fill('Kim');
  await page.getByLabel(/^password/).fill('caliper on a cold bench');
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/people$/);
  await open(page, `${url}/devices`);
  const own = page.getByRole('region', { name: 'Passkeys' });
  await own.getByLabel(/what it is/).fill('bench tablet');
  await own.getByLabel('present password').fill('not this one at all');
  await own.getByRole('button', { name: 'Add a passkey' }).click();
  await expect(own.getByRole('alert')).toContainText('not the present password');
  await own.getByLabel('present password').fill('caliper on a cold bench');
  await own.getByRole('button', { name: 'Add a passkey' }).click();
  await expect(own.getByRole('list')).toContainText('bench tablet');
  await expect(own.getByRole('list')).toContainText('never used');
  await expectAccessible(page);
  // At a mere address there are none, and that is said.
  await open(page, `${house.url}/sign-in`);
  await expect(page.getByRole('button', { name: 'Use a passkey' })).toHaveCount(0);

  const signOut = async () => {
    await open(page, `${url}/devices`);
    await page.getByRole('button', { name: 'Sign out this device' }).click();
    await page.waitForURL(/\/sign-in/);
    await open(page, `${url}/sign-in?to=%2Fmachines`);
  };
  await signOut();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Use a passkey' }).click();
  await page.waitForURL(/\/machines$/);
  await open(page, `${url}/devices`);
  await expect(own.getByRole('list')).toContainText('last used');
  // An answer that was used once opens nothing a second time, nor does one for another name.
  const answers = await page.evaluate(async () => {
    const ask = (method: string, content?: object) =>
      fetch('/api/v1/sign-in/passkey', {
        method,
        ...(content && {
          body: JSON.stringify(content),
          headers: { 'content-type': 'application/json' },
        }),
      });
    const options = (await (await ask('POST')).json()) as { challenge: string };
    const bytes = (text: string) =>
      Uint8Array.from(atob(text.replaceAll('-', '+').replaceAll('_', '/')), (one) =>
        one.charCodeAt(0),
      );
    const credential = (await navigator.credentials.get({
      publicKey: { challenge: bytes(options.challenge), userVerification: 'required' },
    })) as PublicKeyCredential;
    const { response } = credential.toJSON() as { response: object };
    const said = {
      response: {
        id: credential.id,
        rawId: credential.id,
        type: 'public-key',
        clientExtensionResults: {},
        response,
      },
    };
    const once = await ask('PUT', said);
    const twice = await ask('PUT', said);
    const unknown = await ask('PUT', { response: { ...said.response, id: 'AAAA', rawId: 'AAAA' } });
    return [once.status, twice.status, unknown.status];
  });
  expect(answers).toEqual([204, 401, 401]);
  await open(page, `${url}/devices`);
  await own.getByRole('button', { name: 'Remove the passkey bench tablet' }).click();
  await expect(own.getByRole('list')).not.toContainText('bench tablet');
  await signOut();
  await page.getByRole('button', { name: 'Use a passkey' }).click();
  await expect(page.getByRole('alert')).toContainText('not known here');
  await client.send('WebAuthn.removeVirtualAuthenticator', { authenticatorId });
});
