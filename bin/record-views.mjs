// usage: node bin/record-views.mjs [URL] — what a demo answers, as the tests of the stages show it (tests/views)
import { mkdirSync, writeFileSync } from 'node:fs';

const url = process.argv[2] ?? 'http://127.0.0.1:8080';
const headers = { 'Content-Type': 'application/json', Origin: url };
const signedIn = await fetch(url + '/api/session', {
  method: 'POST',
  headers,
  body: JSON.stringify({ login: 'rack-one', password: 'engineer-at-rack-one' }),
});
const cookie = signedIn.headers
  .getSetCookie()
  .map((each) => each.split(';')[0])
  .join('; ');
const get = async (path) => {
  const answer = await fetch(`${url}/api${path}`, { headers: { Cookie: cookie } });
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
  return answer.json();
};

const bringUps = await get('/bring-ups');
const core = bringUps.find((each) => each.name.includes('core')).id;
const at = (path) => get(`/bring-ups/${core}/${path}`);
const prepare = await at('prepare');
const unit = (name) => prepare.units.find((each) => each.name === name).id;

/** The MAC address of an unplanned stand-in differs each time. */
const ribbon = await at('ribbon');
ribbon.unknownDevices.forEach((each, i) => each.mac && (each.mac = `02:4c:59:ff:00:0${i + 1}`));

const views = {
  prepare,
  ribbon,
  proposal: await at('proposal'),
  fits: await at(`fits?unit=${unit('ard-obj-2')}`),
  names: await at('names'),
  lanes: await at('lanes'),
  bench: await get(`/units/${unit('ard-fic-1')}/bench`),
};
mkdirSync(new URL('../web/tests/views/', import.meta.url), { recursive: true });
for (const [name, view] of Object.entries(views))
  writeFileSync(new URL(`../web/tests/views/${name}.json`, import.meta.url), JSON.stringify(view, null, 1) + '\n');
