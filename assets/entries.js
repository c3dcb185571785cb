// Entries that wait in the browser until the server has them: in the order in which they were made, each sent until it is answered.

import { word } from './words.js';

const name = (rack) => `lane-entries-${rack}`;

export function kept(rack) {
    try {
        return JSON.parse(localStorage.getItem(name(rack)) ?? '[]');
    } catch {
        return [];
    }
}

// Adds an entry, or puts a list in the place of those that wait.
export function keep(rack, entry, list = null) {
    const all = list ?? [...kept(rack), entry];
    if (all.length === 0) {
        localStorage.removeItem(name(rack));
    } else {
        localStorage.setItem(name(rack), JSON.stringify(all));
    }
}

// A form of the page's board, sent as htmx does: answered with the board's new part.
export function post(url, token, values) {
    return fetch(url, { method: 'POST', headers: { 'HX-Request': 'true' }, body: new URLSearchParams({ _token: token, ...values }) });
}

// Sends the first that waits. Answers with the page's new part; or with why it was refused; or with nothing where there is no connection.
export async function send(rack, url, token) {
    const [first] = kept(rack);
    if (!first) {
        return {};
    }
    let response;
    try {
        response = await post(url, token, { entry: JSON.stringify(first) });
    } catch {
        return {};
    }
    if (response.status >= 500 || response.status === 429) {
        return {};
    }
    const html = await response.text();
    if (response.ok && !response.redirected) {
        keep(rack, null, kept(rack).filter((entry) => entry.id !== first.id));

        return { html };
    }
    const words = new DOMParser().parseFromString(html, 'text/html').body.textContent.trim().replace(/\s+/g, ' ');

    const isOut = response.redirected || response.status === 401;

    return {
        refused: isOut ? word('You are signed out. Sign in again in another window: what you entered waits here.') : words,
        status: response.status,
    };
}
