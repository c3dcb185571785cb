// A table whose balls a person puts where they lie: by tap, by drag, and by keys.

import * as cloth from './cloth.js';

export function watchTable({ board, mayMove, mayTap, moved, tapped, typed }) {
    const drawing = () => board().querySelector('[data-table]');
    const find = (name) => board().querySelector(`[data-ball-of="${name}"]`);
    const upright = () => board().dataset.upright === '1';
    const numbers = () => JSON.parse(board().querySelector('[data-state]').textContent);
    const scale = () => (1000 * numbers().length) / 8;
    const toDrawing = (spot) => cloth.toDrawing(spot, scale(), upright());
    const fromPointer = (event) => cloth.fromPointer(event, drawing(), scale(), upright());
    const spots = {};

    // Where the ball may lie; with no room close by, as near as it gets.
    const clear = (name, wished) => {
        const { radius, length } = numbers();
        const others = Object.entries(spots).filter(([other]) => other !== name).map(([, at]) => at);
        return cloth.clear(wished, others, radius / (length / 8), 1e-5)[0];
    };
    const put = (name, spot) => {
        spots[name] = spot;
        let ball = find(name);
        if (!ball) {
            ball = document.createElementNS('http://www.w3.org/2000/svg', 'g');
            ball.setAttribute('class', 'ball');
            ball.dataset.ballOf = name;
            ball.innerHTML = `<circle class="ring" r="41"/><circle class="skin cue" r="${1000 * numbers().radius}"/>`;
            board().querySelector('[data-balls]').append(ball);
        }
        ball.setAttribute('transform', `translate(${toDrawing(spot).join(' ')})`);
    };
    const take = (name) => {
        delete spots[name];
        find(name)?.setAttribute('visibility', 'hidden');
    };
    const lay = (balls) => {
        for (const name of Object.keys(spots)) {
            delete spots[name];
        }
        for (const ball of board().querySelectorAll('[data-ball-of]')) {
            if (!(ball.dataset.ballOf in balls)) {
                ball.setAttribute('visibility', 'hidden');
            }
        }
        for (const [name, spot] of Object.entries(balls)) {
            put(name, spot);
            find(name).removeAttribute('visibility');
        }
    };
    // A drawn ball in another picture of the page.
    const draw = (picture, name) => {
        const ball = find(name);
        if (picture && ball) {
            picture.replaceChildren(...[...ball.cloneNode(true).childNodes].filter((part) => !part.matches?.('.ring')));
        }
    };
    const mark = (spot) => {
        const stop = board().querySelector('[data-landing]');
        if (stop) {
            stop.setAttribute('visibility', spot ? 'visible' : 'hidden');
            if (spot) {
                stop.setAttribute('transform', `translate(${toDrawing(spot).join(' ')})`);
            }
        }
    };

    let drag = null;
    document.addEventListener('pointerdown', (event) => {
        if (!event.target.closest('[data-shoot] [data-table]') || event.button !== 0) {
            return;
        }
        const name = event.target.closest('[data-ball-of]')?.dataset.ballOf ?? null;
        const grip = fromPointer(event);
        const isHeld = name !== null && mayMove(name);
        drag = {
            name: isHeld ? name : null, startX: event.clientX, startY: event.clientY, isMoved: false,
            offset: isHeld ? [spots[name][0] - grip[0], spots[name][1] - grip[1]] : [0, 0],
        };
        if (isHeld) {
            event.preventDefault();
        }
    });
    document.addEventListener('pointermove', (event) => {
        if (!drag?.name || (!drag.isMoved && Math.hypot(event.clientX - drag.startX, event.clientY - drag.startY) < 5)) {
            return;
        }
        drag.isMoved = true;
        const at = fromPointer(event);
        put(drag.name, clear(drag.name, [at[0] + drag.offset[0], at[1] + drag.offset[1]]));
    });
    document.addEventListener('pointerup', (event) => {
        const was = drag;
        drag = null;
        if (!was) {
            return;
        }
        if (was.isMoved) {
            moved(was.name, spots[was.name]);
        } else if (mayTap() && Math.hypot(event.clientX - was.startX, event.clientY - was.startY) < 12) {
            const at = fromPointer(event);
            if (at[0] > -0.4 && at[0] < 8.4 && at[1] > -0.4 && at[1] < 4.4) {
                tapped(clear('cue', at));
            }
        }
    });
    document.addEventListener('pointercancel', () => { drag = null; });
    // A finger on a ball drags it and does not scroll the page.
    document.addEventListener('touchstart', (event) => {
        const name = event.target.closest('[data-shoot] [data-ball-of]')?.dataset.ballOf;
        if (name && mayMove(name)) {
            event.preventDefault();
        }
    }, { passive: false });
    document.addEventListener('keydown', (event) => {
        if (!event.target.matches('[data-shoot] [data-table]') || !mayTap()) {
            return;
        }
        const way = cloth.arrow(event, upright());
        const from = spots.cue ?? [2, 2];
        if (way) {
            event.preventDefault();
            put('cue', clear('cue', [from[0] + way[0], from[1] + way[1]]));
            typed(spots.cue);
        } else if (event.key === 'Enter' && spots.cue) {
            event.preventDefault();
            tapped(spots.cue);
        }
    });

    return { lay, put, take, draw, mark };
}
