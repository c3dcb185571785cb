// A drill at the table: what came of a try in one touch, or in two where the cue ball's end counts. Entries get their ids here, wait in the
// browser while the server cannot be reached, and are sent in order when it can.

import { typed } from './cloth.js';
import { keep, kept, post, send } from './entries.js';
import { keepOffline } from './offline.js';
import { watchTable } from './table.js';
import { word } from './words.js';

const AGAIN = 5000;

export function watchPractice() {
    if (!document.querySelector('[data-practice]')) {
        return;
    }
    const board = () => document.querySelector('[data-practice]');
    const find = (name) => board().querySelector(name);
    let state = null;
    let entry = null;

    const network = (text) => {
        const line = document.querySelector('#network');
        line.hidden = !text;
        line.textContent = text ?? '';
    };
    const notice = (text) => {
        const place = document.querySelector('#notice');
        place.replaceChildren();
        if (text) {
            const box = document.createElement('div');
            box.className = 'notice is-error';
            box.setAttribute('role', 'alert');
            box.textContent = text;
            place.append(box);
        }
    };
    const stage = (name) => {
        board().dataset.stage = name;
        find(`[data-on="${name}"] .answer`)?.focus({ preventScroll: true });
    };
    const table = watchTable({
        board,
        mayMove: (name) => board().dataset.stage === 'spot' && name in entry.after,
        mayTap: () => board().dataset.stage === 'spot',
        moved: (name, spot) => { entry.after[name] = spot; },
        tapped: (spot) => finish(spot),
        typed: (spot) => { find('[name="at"]').value = spot.map((number) => Number(number.toFixed(2))).join(', '); },
    });

    const begin = (values) => {
        entry = {
            id: crypto.randomUUID(), previous: state.previous, done: false, made: null, opened: null, after: { ...state.balls }, ...values,
        };
        if (entry.done && state.pots) {
            delete entry.after[state.pots];
            table.take(state.pots);
        }
    };
    const finish = (spot) => {
        if (spot) {
            entry.after.cue = spot;
        } else {
            entry.after = null;
        }
        keep(state.session, entry);
        show();
        flush();
    };

    // What the page shows by itself until the server answers.
    const show = () => {
        state.number += 1;
        state.previous = entry.id;
        if (state.left !== null) {
            state.left -= 1;
        }
        state.balls = state.goesOn && entry.after ? entry.after : (state.next.shift() ?? state.balls);
        table.lay(state.balls);
        const waiting = kept(state.session).length;
        find('[data-score]').textContent = waiting === 1
            ? word('1 try waits to be counted')
            : word('{count} tries wait to be counted', { count: waiting });
        stage(state.left === 0 || (state.goesOn && !entry.done) ? 'wait' : 'aim');
        entry = null;
    };
    const take = (html) => {
        const box = document.createElement('template');
        box.innerHTML = html;
        const fresh = box.content.querySelector('[data-practice]');
        if (fresh) {
            board().replaceWith(fresh);
            read();
            keepOffline('/practice/');
        }
    };

    let isSending = false;
    const flush = async () => {
        if (isSending) {
            return;
        }
        isSending = true;
        const answer = await send(state.session, board().dataset.add, board().dataset.token);
        isSending = false;
        const waiting = kept(state.session).length;
        if (answer.html && waiting === 0 && entry === null) {
            take(answer.html);
        }
        if (answer.refused) {
            notice(answer.refused);
            if (answer.status === 409 || answer.status === 422) {
                localStorage.removeItem(`lane-entries-${state.session}`);
            }
        } else if (waiting > 0) {
            if (answer.html) {
                flush();

                return;
            }
            network(waiting === 1
                ? word('No connection: 1 try waits here and will be sent.')
                : word('No connection: {count} tries wait here and will be sent.', { count: waiting }));
            window.setTimeout(flush, AGAIN);
        } else {
            network(null);
            notice(null);
        }
    };
    const call = async (url, values) => {
        try {
            const response = await post(url, board().dataset.token, values);
            take(await response.text());
        } catch {
            network(word('No connection: this can be done when it is back.'));
        }
    };
    const read = () => {
        state = JSON.parse(find('[data-state]').textContent);
        entry = null;
        table.lay(state.balls);
    };
    read();
    keepOffline('/practice/');
    for (const waiting of kept(state.session)) {
        if (waiting.previous === state.previous) {
            entry = waiting;
            show();
        }
    }
    if (kept(state.session).length > 0) {
        flush();
    }
    window.addEventListener('online', flush);

    document.addEventListener('click', (event) => {
        const button = event.target.closest('[data-practice] button');
        if (!button) {
            return;
        }
        const { dataset } = button;
        if (dataset.result) {
            begin({
                done: dataset.result !== 'missed',
                made: dataset.made === undefined ? null : Number(dataset.made),
                opened: dataset.opened === undefined ? null : Number(dataset.opened),
            });
            if (entry.done && state.asksSpot && dataset.result === 'done') {
                find('[name="at"]').value = '';
                stage('spot');
                find('[data-table]').focus({ preventScroll: true });
            } else {
                finish(null);
            }
        } else if ('back' in dataset) {
            entry = null;
            table.lay(state.balls);
            stage('aim');
        } else if ('undoTry' in dataset) {
            const waiting = kept(state.session);
            if (waiting.length > 0) {
                keep(state.session, null, waiting.slice(0, -1));
                window.location.reload();
            } else {
                call(board().dataset.undo, { try: dataset.undoTry });
            }
        } else if ('endPractice' in dataset) {
            call(board().dataset.end, {});
        }
    });
    document.addEventListener('submit', (event) => {
        if (event.target.matches('[data-practice] [data-typed]')) {
            event.preventDefault();
            const spot = typed(event.target.elements.at.value);
            if (spot) {
                finish(spot);
            } else {
                notice(word('Type two numbers in diamonds, along and across: 4.5, 1.25.'));
            }
        }
    });
}
