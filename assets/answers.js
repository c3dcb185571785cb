// What every page does with the answers of the server: the focus stays on the same thing, what was typed stays, parts that come late are
// asked for again, and an answer that is none leaves the page as it is.

import { word } from './words.js';

const said = (element) => {
    const named = element.matches('details') ? element.querySelector('summary') : element;
    return named?.matches('button, summary, a') ? named.textContent.trim() : '';
};
const signature = (element) => [
    element.tagName, element.id, element.getAttribute('name') ?? '', element.getAttribute('href') ?? '', JSON.stringify(element.dataset),
    said(element),
].join('|');
const formOf = (field) => {
    const { form } = field;
    return [form?.getAttribute('action') ?? '', form?.elements.leg?.value ?? '', field.name].join('|');
};
const wait = (seconds) => new Promise((resolve) => { window.setTimeout(resolve, 1000 * seconds); });

export function notice(title, text) {
    const box = document.createElement('div');
    box.className = 'notice is-error';
    box.setAttribute('role', 'alert');
    box.append(Object.assign(document.createElement('strong'), { textContent: `${title} ` }), text);
    document.querySelector('#notice').replaceChildren(box);
}

export function watchAnswers(htmx) {
    let held = null;
    let typed = [];
    let isOpen = [];

    document.body.addEventListener('htmx:beforeSwap', (event) => {
        const { xhr, target, requestConfig } = event.detail;
        const late = requestConfig?.elt?.closest('[data-late]');
        if (xhr.status >= 400 && late) {
            // A part that comes later than its page: told in its own place, and asked for again where that was all.
            event.detail.shouldSwap = false;
            return;
        }
        if (xhr.status >= 500 && !xhr.getResponseHeader('HX-Retarget')) {
            event.detail.shouldSwap = false;
            notice(word('The server does not answer as it should.'), word('Nothing was saved. Wait a moment and try again.'));
            return;
        }
        const active = document.activeElement;
        if (active && active !== document.body) {
            held = signature(active);
        }
        typed = [...target.querySelectorAll('input:not([type="hidden"]), textarea, select')]
            .filter((field) => field.form && (field.type === 'checkbox' || field.type === 'radio'
                ? field.checked !== field.defaultChecked
                : 'defaultValue' in field && field.value !== field.defaultValue) && !field.closest('[data-desk], [data-shot]'))
            .map((field) => [formOf(field), field.value, field.checked]);
        isOpen = [...target.querySelectorAll('details[open]')].map(signature);
    });
    document.body.addEventListener('htmx:afterSettle', () => {
        for (const [key, value, checked] of typed) {
            const field = [...document.querySelectorAll('input, textarea, select')]
                .find((other) => formOf(other) === key && (!['radio', 'checkbox'].includes(other.type) || other.value === value));
            if (field) {
                field.checked = checked;
                field.value = value;
            }
        }
        document.querySelectorAll('details:not([open])').forEach((details) => { details.open = isOpen.includes(signature(details)); });
        typed = [];
        isOpen = [];
        if (held && document.activeElement === document.body) {
            const [tag] = held.split('|');
            [...document.querySelectorAll(tag)].find((element) => signature(element) === held)?.focus({ preventScroll: true });
        }
        held = null;
    });

    // ---- parts that come late

    const failed = async (event) => {
        const { xhr, elt } = event.detail;
        const late = elt?.closest?.('[data-late]');
        if (!late) {
            return;
        }
        const seconds = Number(xhr?.getResponseHeader?.('Retry-After') ?? 0);
        if (xhr?.status === 429 && seconds > 0 && seconds <= 3) {
            await wait(seconds);
            if (late.isConnected) {
                htmx.trigger(late, 'again');
            }
            return;
        }
        const button = document.createElement('button');
        Object.assign(button, { type: 'button', className: 'link', textContent: word('Try again') });
        button.addEventListener('click', () => htmx.trigger(late, 'again'));
        // What lies over the table cannot be pressed: it is said below.
        const box = late.id === 'overlay' ? document.querySelector('#look') ?? late : late;
        const text = document.createElement('p');
        Object.assign(text, { className: 'help', textContent: `${word('This could not be worked out now.')} ` });
        text.append(button);
        box.replaceChildren(text);
    };
    document.body.addEventListener('htmx:responseError', failed);
    document.body.addEventListener('htmx:sendError', failed);
    document.body.addEventListener('htmx:timeout', failed);
    document.body.addEventListener('htmx:sendError', (event) => {
        if (!event.detail.elt?.closest?.('[data-late], [data-shot], #progress')) {
            notice(word('The server cannot be reached.'), word('Nothing was saved. It is tried again when you do.'));
        }
    });
    document.addEventListener('click', (event) => {
        if (event.target.closest('[data-reload]')) {
            window.location.reload();
        }
    });

    // ---- a sign of waiting, where it takes long enough to wonder

    const slow = new Map();
    const settle = () => document.body.classList.toggle('is-slow', [...slow.values()].some((isLong) => isLong === true));
    document.body.addEventListener('htmx:beforeRequest', (event) => {
        const { xhr, elt } = event.detail;
        if (!elt?.closest?.('#progress')) {
            slow.set(xhr, window.setTimeout(() => { slow.set(xhr, true); settle(); }, 400));
        }
    });
    document.body.addEventListener('htmx:afterRequest', (event) => {
        window.clearTimeout(slow.get(event.detail.xhr));
        slow.delete(event.detail.xhr);
        settle();
    });
}
