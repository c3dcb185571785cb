// A drill on its table: balls are dragged and targets drawn, and the file beside it follows.

import * as cloth from './cloth.js';

const round = (number) => Math.round(8 * number) / 8;

export function watchDrillEditor() {
    const editor = document.querySelector('[data-drill-editor]');
    if (!editor) {
        return;
    }
    const text = editor.querySelector('[data-drill-text]');
    const drawing = editor.querySelector('[data-table]');
    const mm = (1000 * Number(editor.dataset.length)) / 8;
    let drag = null;
    let shape = null;
    let from = null;
    // Corners of a polygon, until the first is pressed again.
    let corners = [];

    const change = (edit) => {
        let document_;
        try {
            document_ = JSON.parse(text.value);
        } catch {
            return;
        }
        edit(document_);
        text.value = JSON.stringify(document_, null, 4);
    };
    const at = (event) => {
        const [long, short] = cloth.fromPointer(event, drawing, mm, false);
        return [Math.min(8, Math.max(0, round(long))), Math.min(4, Math.max(0, round(short)))];
    };
    const show = (kind, one, two) => {
        drawing.querySelector('[data-new-target]')?.remove();
        const [x1, y1] = cloth.toDrawing(one, mm, false);
        const [x2, y2] = cloth.toDrawing(two, mm, false);
        const part = document.createElementNS('http://www.w3.org/2000/svg', kind === 'box' ? 'rect' : 'circle');
        const values = kind === 'box'
            ? { x: Math.min(x1, x2), y: Math.min(y1, y2), width: Math.abs(x2 - x1), height: Math.abs(y2 - y1) }
            : { cx: x1, cy: y1, r: Math.hypot(x2 - x1, y2 - y1) };
        for (const [name, value] of Object.entries(values)) {
            part.setAttribute(name, value);
        }
        part.setAttribute('class', 'drill-target');
        part.dataset.newTarget = '1';
        drawing.append(part);
    };

    const keep = (area) => change((drill) => {
        drill.targets = [...(drill.targets ?? []), { kind: 'area', ball: 'cue', area, points: 1 }];
    });
    const corner = (spot) => {
        const isClosed = corners.length > 2 && Math.hypot(spot[0] - corners[0][0], spot[1] - corners[0][1]) < 0.3;
        drawing.querySelector('[data-new-target]')?.remove();
        corners = isClosed ? corners : [...corners, spot];
        const part = document.createElementNS('http://www.w3.org/2000/svg', isClosed ? 'polygon' : 'polyline');
        part.setAttribute('points', corners.map((one) => cloth.toDrawing(one, mm, false).join(',')).join(' '));
        part.setAttribute('class', 'drill-target');
        drawing.append(part);
        if (isClosed) {
            keep({ polygon: corners });
            corners = [];
            shape = null;
        } else {
            part.dataset.newTarget = '1';
        }
    };

    drawing.addEventListener('pointerdown', (event) => {
        if (shape === 'polygon') {
            corner(at(event));
            event.preventDefault();
        } else if (shape) {
            from = at(event);
            event.preventDefault();
        }
        if (shape) {
            return;
        }
        const ball = event.target.closest('[data-ball-of]');
        if (ball) {
            drag = ball;
            drawing.setPointerCapture(event.pointerId);
            event.preventDefault();
        }
    });
    drawing.addEventListener('pointermove', (event) => {
        if (from) {
            show(shape, from, at(event));
        } else if (drag) {
            drag.setAttribute('transform', `translate(${cloth.toDrawing(at(event), mm, false).join(' ')})`);
        }
    });
    drawing.addEventListener('pointerup', (event) => {
        const spot = at(event);
        if (from) {
            const start = from;
            const area = shape === 'box'
                ? { box: [...start, ...spot] }
                : { rings: { at: start, of: [[Math.max(0.25, Math.hypot(spot[0] - start[0], spot[1] - start[1])), 1]] } };
            keep(area);
            drawing.querySelector('[data-new-target]')?.removeAttribute('data-new-target');
            from = null;
            shape = null;
        } else if (drag) {
            const name = drag.dataset.ballOf;
            drag = null;
            change((drill) => { drill.places = { ...drill.places, [name]: spot }; });
        }
    });
    editor.addEventListener('click', (event) => {
        const { draw, clearTargets } = event.target.closest('button')?.dataset ?? {};
        if (draw) {
            shape = draw;
            corners = [];
        } else if (clearTargets !== undefined) {
            change((drill) => { drill.targets = []; });
            for (const part of drawing.querySelectorAll('.drill-target, .drill-word')) {
                part.remove();
            }
        }
    });
}
