// A test of a table: a tap on the cloth fills in where a ball stopped.

import * as cloth from './cloth.js';

export function watchTableTest() {
    const test = document.querySelector('[data-table-test]');
    if (!test) {
        return;
    }
    const drawing = test.querySelector('[data-table]');
    const upright = test.dataset.upright === '1';
    const mm = (1000 * Number(test.dataset.length)) / 8;
    const fields = [...test.querySelectorAll('[data-spot]')];
    let last = null;
    for (const field of fields) {
        field.addEventListener('focus', () => { last = field; });
    }
    drawing.addEventListener('click', (event) => {
        const field = last ?? fields.find((one) => one.value === '') ?? fields[0];
        const [long, short] = cloth.fromPointer(event, drawing, mm, upright);
        if (!field || long < 0 || long > 8 || short < 0 || short > 4) {
            return;
        }
        field.value = `${long.toFixed(2)},${short.toFixed(2)}`;
        const [x, y] = cloth.toDrawing([long, short], mm, upright);
        let mark = drawing.querySelector(`[data-seen="${field.name}"]`);
        if (!mark) {
            mark = document.createElementNS('http://www.w3.org/2000/svg', 'circle');
            mark.setAttribute('class', 'seen');
            mark.setAttribute('r', '34');
            mark.dataset.seen = field.name;
            drawing.append(mark);
        }
        mark.setAttribute('cx', x);
        mark.setAttribute('cy', y);
        last = null;
    });
}
