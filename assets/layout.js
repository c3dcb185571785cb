// Laying out: drag with mouse or finger, keys, and the form beside the table. The server keeps the layout and answers every
// change with the desk as it is; here a ball only follows the pointer and keeps clear of the others on the way.

import * as cloth from './cloth.js';
import { notice } from './answers.js';
import { word } from './words.js';

export function watchLayout(htmx) {
    if (!document.querySelector('[data-desk]')) {
        return;
    }
    const { selected } = document.querySelector('[data-desk]').dataset;
    const state = { selected, typed: '', typedAt: 0, queue: Promise.resolve(), nudge: null };

    // ---- the desk as it stands in the document, which every answer replaces

    const desk = () => document.querySelector('[data-desk]');
    const table = () => desk().querySelector('[data-table]');
    const balls = () => [...desk().querySelectorAll('[data-ball]')];
    const find = (name) => desk().querySelector(`[data-ball="${name}"]`);
    const inTray = (name) => desk().querySelector(`[data-tray-ball="${name}"]`);
    const measures = () => {
        const length = Number(desk().dataset.length);
        return { diamond: length / 8, radius: Number(desk().dataset.radius) / (length / 8), upright: desk().dataset.upright === '1' };
    };

    const toDrawing = ({ long, short }) => {
        const { diamond, upright } = measures();
        return cloth.toDrawing([long, short], 1000 * diamond, upright);
    };
    const fromPointer = (event) => {
        const { diamond, upright } = measures();
        const [long, short] = cloth.fromPointer(event, table(), 1000 * diamond, upright);
        return { long, short };
    };
    const spotOf = (ball) => ({ long: Number(ball.dataset.long), short: Number(ball.dataset.short) });

    // The nearest spot to the wished one that is on the cloth and clear of the other balls; null if there is none close by.
    const clear = (name, wished) => {
        const others = balls().filter((ball) => ball.dataset.ball !== name).map(spotOf).map(({ long, short }) => [long, short]);
        const [[long, short], isClear] = cloth.clear([wished.long, wished.short], others, measures().radius, 1e-6);
        return isClear ? { long, short } : null;
    };

    const show = (ball, spot) => {
        const [x, y] = toDrawing(spot);
        ball.setAttribute('transform', `translate(${x} ${y})`);
        ball.dataset.long = spot.long;
        ball.dataset.short = spot.short;
    };
    const written = ({ long, short }, decimals) => `${Number(long.toFixed(decimals))},${Number(short.toFixed(decimals))}`;
    const text = (spot) => written(spot, 6);
    // What a person reads; a ball's own spot stays finer than that, so that balls that touch go on touching.
    const shown = (spot) => written(spot, 3);

    // Where the server has the balls: what it does not take goes back there.
    let kept = [];
    const remember = () => { kept = balls().map((ball) => [ball.dataset.ball, spotOf(ball)]); };
    const putBack = () => {
        for (const ball of balls()) {
            const [, spot] = kept.find(([name]) => name === ball.dataset.ball) ?? [];
            if (spot) {
                show(ball, spot);
            } else {
                ball.remove();
            }
        }
    };
    remember();

    const select = (name) => {
        state.selected = name;
        for (const ball of balls()) {
            ball.classList.toggle('is-selected', ball.dataset.ball === name);
        }
        for (const ball of desk().querySelectorAll('[data-tray-ball]')) {
            ball.classList.toggle('is-selected', ball.dataset.trayBall === name);
            ball.setAttribute('aria-pressed', ball.dataset.trayBall === name);
        }
        const form = desk().querySelector('[data-place]');
        const ball = find(name);
        if (form.elements.ball.querySelector(`option[value="${name}"]`)) {
            form.elements.ball.value = name;
        }
        form.elements.at.value = ball ? shown(spotOf(ball)) : '';
        form.querySelector('[value="rail"]').disabled = !ball;
        form.querySelector('[value="off"]').disabled = !ball;
    };

    // Changes go one after another, each with the version that the answer before it brought.
    const send = (values) => {
        state.queue = state.queue.then(async () => {
            desk().querySelector('[data-saved]').classList.add('is-busy');
            const hadFocus = document.activeElement?.closest('[data-desk]') ? document.activeElement : null;
            const asked = desk();
            const role = hadFocus?.getAttribute('name') ?? (hadFocus?.matches('[data-table]') ? 'table' : null);
            await htmx.ajax('POST', desk().dataset.url, {
                source: document.body,
                target: '[data-desk]',
                swap: 'outerHTML',
                values: { _token: desk().dataset.token, version: desk().dataset.version, ...values },
            });
            desk().querySelector('[data-saved]').classList.remove('is-busy');
            if (desk() === asked) {
                // Not taken, and told so in the notice: the balls lie where they were.
                putBack();
            }
            remember();
            select(state.selected);
            if (role === 'table' || role === 'change') {
                table().focus({ preventScroll: true });
            } else if (role) {
                desk().querySelector(`[name="${role}"]`)?.focus({ preventScroll: true });
            }
        }).catch(() => {
            desk().querySelector('[data-saved]').classList.remove('is-busy');
            putBack();
            select(state.selected);
            notice(word('The change was not saved.'), word('The server cannot be reached. The balls lie where they were; try again.'));
        });
        return state.queue;
    };
    const place = (name, spot) => send({ change: 'place', ball: name, at: text(spot) });

    // ---- pointer

    let drag = null;
    document.addEventListener('pointerdown', (event) => {
        const onTable = event.target.closest('[data-ball]');
        const tray = event.target.closest('[data-tray-ball]');
        if (event.button !== 0 || (!onTable && !tray)) {
            return;
        }
        const name = onTable ? onTable.dataset.ball : tray.dataset.trayBall;
        flush();
        select(name);
        drag = { name, from: onTable ? spotOf(onTable) : null, spot: null, tray, startX: event.clientX, startY: event.clientY };
        if (onTable) {
            const grip = fromPointer(event);
            drag.offset = { long: drag.from.long - grip.long, short: drag.from.short - grip.short };
            table().focus({ preventScroll: true });
            event.preventDefault();
        }
    });
    document.addEventListener('pointermove', (event) => {
        if (!drag || (drag.spot === null && Math.hypot(event.clientX - drag.startX, event.clientY - drag.startY) < 4)) {
            return;
        }
        const pointer = fromPointer(event);
        const { radius } = measures();
        if (drag.tray && (pointer.long < -radius || pointer.long > 8 + radius || pointer.short < -radius || pointer.short > 4 + radius)) {
            return;
        }
        // With Shift a ball goes by exact eighths of a diamond.
        const exact = (value) => (event.shiftKey ? Math.round(8 * value) / 8 : value);
        const spot = clear(drag.name, {
            long: exact(pointer.long + (drag.offset?.long ?? 0)), short: exact(pointer.short + (drag.offset?.short ?? 0)),
        });
        if (!spot) {
            return;
        }
        drag.spot = spot;
        let ball = find(drag.name);
        if (!ball) {
            ball = document.createElementNS('http://www.w3.org/2000/svg', 'g');
            ball.setAttribute('class', 'ball is-selected');
            ball.dataset.ball = drag.name;
            ball.innerHTML = '<circle class="ring" r="41"/>';
            ball.append(...[...drag.tray.querySelector('svg').cloneNode(true).childNodes]);
            table().append(ball);
            drag.added = ball;
        }
        ball.classList.add('is-dragged');
        show(ball, spot);
        desk().querySelector('[data-place]').elements.at.value = shown(spot);
    });
    // A finger on a ball drags it and does not scroll the page.
    document.addEventListener('touchstart', (event) => {
        if (event.target.closest('[data-ball], [data-tray-ball]')) {
            event.preventDefault();
        }
    }, { passive: false });
    const drop = (event) => {
        if (!drag) {
            return;
        }
        const { name, spot, tray } = drag;
        find(name)?.classList.remove('is-dragged');
        if (spot && event.type === 'pointerup') {
            place(name, spot);
        } else if (drag.added) {
            drag.added.remove();
        } else if (tray && event.type === 'pointerup') {
            desk().querySelector('[data-place]').elements.at.focus();
        }
        drag = null;
    };
    document.addEventListener('pointerup', drop);
    document.addEventListener('pointercancel', drop);

    // ---- keyboard

    const flush = () => {
        if (state.nudge) {
            window.clearTimeout(state.nudge.timer);
            const { name, spot } = state.nudge;
            state.nudge = null;
            place(name, spot);
        }
    };
    const nudge = (long, short) => {
        const ball = find(state.selected);
        if (!ball) {
            return;
        }
        const was = spotOf(ball);
        const spot = clear(state.selected, { long: was.long + long, short: was.short + short });
        // A neighbour in the way may push the ball aside, but a key never moves it backwards or by more than its step and a ball.
        if (!spot || Math.hypot(spot.long - was.long, spot.short - was.short) < 1e-7) {
            return;
        }
        show(ball, spot);
        desk().querySelector('[data-place]').elements.at.value = shown(spot);
        window.clearTimeout(state.nudge?.timer);
        state.nudge = { name: state.selected, spot, timer: window.setTimeout(flush, 220) };
    };

    // The list of balls is one stop of the Tab key; arrows go through it, Enter takes a ball.
    document.addEventListener('keydown', (event) => {
        const here = event.target.closest('[data-tray-ball]');
        const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
        if (here && by) {
            event.preventDefault();
            const all = [...desk().querySelectorAll('[data-tray-ball]')];
            all[(all.indexOf(here) + by + all.length) % all.length].focus();
        }
    });
    document.addEventListener('click', (event) => {
        const ball = event.target.closest('[data-tray-ball]');
        if (ball && event.detail === 0) {
            select(ball.dataset.trayBall);
            desk().querySelector('[data-place]').elements.at.focus();
        }
    });
    document.addEventListener('keydown', (event) => {
        const typing = event.target.closest('input, select, textarea');
        if (typing || event.altKey) {
            return;
        }
        const undo = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z';
        if (undo) {
            event.preventDefault();
            flush();
            send({ change: event.shiftKey ? 'redo' : 'undo', ball: state.selected });
            return;
        }
        // Single keys act on the table only while it has the focus, so that none is pressed by mistake elsewhere.
        if (event.ctrlKey || event.metaKey || !event.target.closest('[data-table]')) {
            return;
        }
        const way = cloth.arrow(event, measures().upright);
        if (way && state.selected) {
            event.preventDefault();
            nudge(...way);
        } else if (/^[0-9]$/.test(event.key)) {
            const now = performance.now();
            const joined = state.typed === '1' && now - state.typedAt < 900 ? `1${event.key}` : event.key;
            const name = joined === '0' ? 'cue' : joined;
            state.typed = joined.length === 1 ? joined : '';
            state.typedAt = now;
            if (find(name) || inTray(name)) {
                flush();
                select(name);
            }
        } else if ((event.key === 'Delete' || event.key === 'Backspace') && find(state.selected)) {
            event.preventDefault();
            flush();
            send({ change: 'off', ball: state.selected });
        } else if (event.key.toLowerCase() === 'r' && find(state.selected)) {
            flush();
            send({ change: 'rail', ball: state.selected });
        } else if (event.key === 'Enter') {
            event.preventDefault();
            const field = desk().querySelector('[data-place]').elements.at;
            field.focus();
            field.select();
        }
    });

    // ---- the form beside the table

    document.addEventListener('submit', (event) => {
        if (!event.target.matches('[data-place]')) {
            return;
        }
        event.preventDefault();
        flush();
        const form = event.target;
        const change = event.submitter?.value ?? 'place';
        if (document.activeElement === form.elements.at) {
            // A spot that was typed is done with: the next key is for the table again.
            table().focus({ preventScroll: true });
        }
        state.selected = form.elements.ball.value;
        const ball = find(state.selected);
        const typed = form.elements.at.value;
        send({ change, ball: state.selected, at: ball && typed === shown(spotOf(ball)) ? text(spotOf(ball)) : typed });
    });
    document.addEventListener('change', (event) => {
        if (event.target.matches('[data-place] [name="ball"]')) {
            select(event.target.value);
        }
    });
    window.addEventListener('pagehide', flush);
}
