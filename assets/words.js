/* What scripts say, in the language of the page: the English is the key. `{name}` in it is filled in. */

const held = document.getElementById('script-words');
const said = held ? JSON.parse(held.textContent) : {};

export const word = (english, values = {}) => (said[english] ?? english).replace(/\{(\w+)\}/g, (whole, name) => values[name] ?? whole);
