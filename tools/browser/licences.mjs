// Puts before each built file the licence of the package that it comes from: what is shipped carries it.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const built = { 'bulma.css': 'bulma', 'htmx.js': 'htmx.org', 'qr.js': 'qrcode-generator' };
// A package without a file of its licence: the words of the MIT licence are those of this project's own.
const mit = readFileSync('LICENSE', 'utf8').replace(/^[\s\S]*?(?=Permission is hereby)/, '');
for (const [file, name] of Object.entries(built)) {
    const folder = `node_modules/${name}`;
    const { version, license, author } = JSON.parse(readFileSync(`${folder}/package.json`, 'utf8'));
    const text = ['LICENSE', 'LICENSE.md', 'LICENSE.txt'].map((one) => `${folder}/${one}`).find(existsSync);
    const words = `${name} ${version}, ${license}, ${author?.name ?? author ?? ''}\n${text ? readFileSync(text, 'utf8') : mit}`;
    const path = `assets/vendor/${file}`;
    writeFileSync(path, `/*! ${words.trim().replaceAll('*/', '* /')}\n*/\n${readFileSync(path, 'utf8')}`);
}
