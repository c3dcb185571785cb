// Coach and pupil: comments with what is drawn to them, following a leg, answers that are pointed at, links that are copied.

import { fromPointer, toDrawing } from './cloth.js';
import { word } from './words.js';

const LOOK = 1500;
const IDLE = 5000;
const NEEDED = { spot: 1, arrow: 2, zone: 3 };

function svg(name, values) {
    const part = document.createElementNS('http://www.w3.org/2000/svg', name);
    for (const [key, value] of Object.entries(values)) {
        part.setAttribute(key, value);
    }

    return part;
}

// ---- comments

function watchThreads() {
    const thread = () => document.querySelector('[data-thread]');
    const chart = () => document.querySelector('.board svg.lane-table, .chart svg.lane-table');
    let tool = null;
    let points = [];
    let marks = [];

    const overlay = (name) => {
        const drawing = chart();
        if (!drawing) {
            return null;
        }
        drawing.querySelector(`[data-overlay="${name}"]`)?.remove();
        const layer = svg('g', { 'data-overlay': name });
        drawing.append(layer);

        return layer;
    };
    const show = () => {
        const source = thread()?.querySelector('[data-thread-marks]');
        const layer = overlay('thread');
        if (source && layer) {
            layer.append(...[...source.content.querySelector('svg').childNodes].map((part) => part.cloneNode(true)));
        }
    };
    const scale = () => (1000 * Number(thread().dataset.length)) / 8;
    const isUpright = () => thread().dataset.upright === '1';
    const text = (list) => list.map((at) => toDrawing(at, scale(), isUpright()).map((value) => value.toFixed(1)).join(' ')).join('L');
    const draw = () => {
        const layer = overlay('drawn');
        if (!layer) {
            return;
        }
        for (const mark of [...marks, ...(points.length > 0 ? [{ kind: tool, points }] : [])]) {
            const [x, y] = toDrawing(mark.points[0], scale(), isUpright());
            if (mark.kind === 'spot' || mark.points.length === 1) {
                layer.append(svg('circle', { class: 'mark-spot', cx: x, cy: y, r: 26 }));
            } else if (mark.kind === 'arrow') {
                layer.append(svg('path', { class: 'mark-arrow', d: `M${text(mark.points)}` }));
            } else {
                layer.append(svg('path', { class: 'mark-zone', d: `M${text(mark.points)}${mark.points.length > 2 ? 'Z' : ''}` }));
            }
        }
        thread().querySelector('[data-marks]').value = JSON.stringify(marks);
        thread().querySelector('[data-mark-none]').hidden = marks.length === 0 && points.length === 0;
    };
    const choose = (kind) => {
        if (tool === 'zone' && points.length >= NEEDED.zone) {
            marks.push({ kind: 'zone', points });
        }
        tool = kind;
        points = [];
        for (const button of thread().querySelectorAll('[data-mark-tool]')) {
            button.setAttribute('aria-pressed', String(button.dataset.markTool === kind));
        }
        thread().querySelector('[data-mark-help]').textContent = {
            spot: word('Tap the table where the spot is.'), arrow: word('Tap where the arrow begins, then where it points.'),
            zone: word('Tap the corners of the zone, then press Zone again.'),
        }[kind] ?? '';
        document.body.classList.toggle('is-drawing', kind !== null);
        draw();
    };
    document.body.addEventListener('htmx:afterSettle', (event) => {
        if (event.target.closest?.('.thread-place') || event.target.id === 'runout') {
            [tool, points, marks] = [null, [], []];
            document.body.classList.remove('is-drawing');
            show();
            overlay('drawn');
        }
    });
    document.addEventListener('click', (event) => {
        const button = event.target.closest('[data-mark-tool]');
        if (button) {
            choose(button.dataset.markTool === tool ? null : button.dataset.markTool);
        } else if (event.target.closest('[data-mark-none]')) {
            marks = [];
            choose(null);
        } else if (tool && event.target.closest('svg.lane-table') === chart()) {
            points.push(fromPointer(event, chart(), scale(), isUpright()).map((value) => Number(value.toFixed(3))));
            if (tool !== 'zone' && points.length >= NEEDED[tool]) {
                marks.push({ kind: tool, points });
                choose(null);
            } else {
                draw();
            }
        }
    });
    // What was begun and not closed goes along.
    document.addEventListener('htmx:configRequest', (event) => {
        if (event.target.matches?.('.comment-form') && tool === 'zone' && points.length >= NEEDED.zone) {
            event.detail.parameters.marks = JSON.stringify([...marks, { kind: 'zone', points }]);
        }
    });
}

// ---- follow me

function watchFollowing() {
    const board = () => document.querySelector('#runout[data-follow]');
    let isFollowing = false;
    let shown = null;
    const look = async () => {
        const place = board();
        if (!place) {
            return;
        }
        if (document.visibilityState === 'visible') {
            try {
                const response = await fetch(place.dataset.follow, { headers: { Accept: 'application/json' } });
                const { leg } = response.ok ? await response.json() : { leg: null };
                const row = document.querySelector('[data-follow-row]');
                row.hidden = leg === null;
                const here = Number(document.querySelector('.strip [aria-current]')?.dataset.leg ?? 0);
                if (isFollowing && leg !== null && leg !== here && leg !== shown) {
                    shown = leg;
                    document.querySelector(`.strip [data-leg="${leg}"]`)?.click();
                }
            } catch {
                // Asked again below.
            }
        }
        window.setTimeout(look, isFollowing ? LOOK : IDLE);
    };
    const mark = () => {
        const box = document.querySelector('[data-follow-me]');
        if (box) {
            box.checked = isFollowing;
            box.closest('[data-follow-row]').hidden = box.closest('[data-follow-row]').hidden && !isFollowing;
        }
    };
    document.addEventListener('change', (event) => {
        if (event.target.matches('[data-follow-me]')) {
            isFollowing = event.target.checked;
            shown = null;
            look();
        }
    });
    document.body.addEventListener('htmx:afterSettle', (event) => {
        if (event.target.id === 'runout') {
            shown = null;
            mark();
        }
    });
    if (board()) {
        look();
    }

    // The other side: whoever shows says at every step where he is.
    let isShowing = false;
    const tell = () => {
        const box = document.querySelector('[data-show-leg]');
        if (!box) {
            return;
        }
        box.checked = isShowing;
        const leg = isShowing ? document.querySelector('.strip [aria-current]')?.dataset.leg ?? 0 : 0;
        fetch(box.dataset.showLeg, { method: 'POST', body: new URLSearchParams({ _token: box.dataset.token, leg }) }).catch(() => {});
    };
    document.addEventListener('change', (event) => {
        if (event.target.matches('[data-show-leg]')) {
            isShowing = event.target.checked;
            tell();
        }
    });
    document.body.addEventListener('htmx:afterSettle', (event) => {
        if (event.target.id === 'runout' && isShowing) {
            tell();
        }
    });
}

// ---- small things

function watchForms() {
    document.addEventListener('click', (event) => {
        if (event.target.matches('[data-select-all]')) {
            event.target.select();
        }
        // A spot of an answer is pointed at on the position above it.
        const drawing = event.target.closest('.lesson-item svg.lane-table');
        const form = drawing?.closest('.lesson-item').nextElementSibling?.querySelector('[data-predict]');
        if (form) {
            const { length, upright } = form.dataset;
            const at = fromPointer(event, drawing, (1000 * Number(length)) / 8, upright === '1');
            if (at[0] >= 0 && at[0] <= 8 && at[1] >= 0 && at[1] <= 4) {
                form.elements.spot.value = at.map((value) => value.toFixed(2)).join(', ');
                drawing.querySelector('[data-pointed]')?.remove();
                const [x, y] = toDrawing(at, (1000 * Number(length)) / 8, upright === '1');
                const group = svg('g', { 'data-pointed': '' });
                group.append(svg('circle', { class: 'mark-spot', cx: x, cy: y, r: 26 }));
                drawing.append(group);
            }
        }
    });
    const kind = document.querySelector('[data-kind]');
    const fit = () => {
        for (const part of document.querySelectorAll('[data-for]')) {
            part.hidden = !part.dataset.for.split(' ').includes(kind.value);
        }
    };
    if (kind) {
        fit();
        kind.addEventListener('change', fit);
    }
}

export function watchTeaching() {
    watchThreads();
    watchFollowing();
    watchForms();
}
