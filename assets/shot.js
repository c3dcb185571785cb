// The shot desk: clicks on the table and on the cue ball's face fill in the form; every change asks the server to draw again.

const MISCUE = 0.5;

export function watchShot(htmx) {
    const form = document.querySelector('[data-shot]');
    if (!form) {
        return;
    }
    const redraw = () => htmx.trigger(form, 'redraw');

    let waiting = null;
    const soon = () => {
        window.clearTimeout(waiting);
        waiting = window.setTimeout(redraw, 60);
    };

    // A direction that was aimed by hand belongs to the ball and pocket that it was aimed for.
    const forget = () => { form.elements.direction.value = ''; };
    form.addEventListener('input', (event) => {
        if (['ball', 'pocket', 'aside'].includes(event.target.name)) {
            forget();
        }
        if (event.target.matches('[data-lengths]')) {
            form.elements.lengths.value = event.target.value;
        } else if (event.target.name === 'lengths' && event.target.value) {
            form.querySelector('[data-lengths]').value = event.target.value;
        } else if (event.target.name === 'odds') {
            form.querySelector('[data-odds]').value = `${event.target.value} %`;
        }
        soon();
    });
    // Enter in a field draws; only the button saves.
    form.addEventListener('keydown', (event) => {
        if (event.key === 'Enter' && event.target.matches('input')) {
            event.preventDefault();
            redraw();
        }
    });

    // The field's own unit: tips, percent of the radius or millimetres, as the player prefers.
    const perRadius = () => Number(form.elements.tips.dataset.perRadius);
    const setTip = (side, height) => {
        const offset = Math.hypot(side, height);
        const shrink = offset > MISCUE ? MISCUE / offset : 1;
        // Rounded, so that steps there and back cancel; but never past the miscue limit.
        const unit = perRadius();
        const grain = unit < 10 ? 100 : 10;
        const tips = Math.min(Math.round(offset * shrink * unit * grain), Math.floor(MISCUE * unit * grain)) / grain;
        const minutes = Math.round(((Math.atan2(side, height) / (2 * Math.PI) + 1) % 1) * 720) % 720;
        const hour = Math.floor(minutes / 60) || 12;
        form.elements.tips.value = tips;
        form.elements.clock.value = tips === 0 ? '12:00' : `${hour}:${String(minutes % 60).padStart(2, '0')}`;
        const mark = form.querySelector('[data-face] .tip-mark');
        mark?.setAttribute('cx', side * shrink * 100);
        mark?.setAttribute('cy', -height * shrink * 100);
        soon();
    };
    const tipOf = () => {
        const [hour, minute] = form.elements.clock.value.split(':').map(Number);
        const angle = ((hour + (minute || 0) / 60) * Math.PI) / 6;
        const typed = form.elements.tips.value;
        const number = parseFloat(typed) || 0;
        const { tips, percent, mm } = JSON.parse(form.elements.tips.dataset.units);
        const offset = number / ({ '%': percent, m: mm, t: tips }[typed.match(/[%mt]/)?.[0]] ?? perRadius());
        return [offset * Math.sin(angle), offset * Math.cos(angle)];
    };
    const pointAt = (event) => {
        const face = form.querySelector('[data-face]');
        const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(face.getScreenCTM().inverse());
        setTip(point.x / 100, -point.y / 100);
    };

    let aiming = false;
    form.addEventListener('pointerdown', (event) => {
        if (event.target.closest('[data-face]')) {
            aiming = true;
            pointAt(event);
            event.preventDefault();
        }
    });
    document.addEventListener('pointermove', (event) => aiming && pointAt(event));
    document.addEventListener('pointerup', () => { aiming = false; });
    form.addEventListener('keydown', (event) => {
        const steps = { ArrowRight: [0.02, 0], ArrowLeft: [-0.02, 0], ArrowUp: [0, 0.02], ArrowDown: [0, -0.02] };
        if (event.target.closest('[data-face]') && steps[event.key]) {
            event.preventDefault();
            const [side, height] = tipOf();
            setTip(side + steps[event.key][0], height + steps[event.key][1]);
        }
    });

    const take = (button) => {
        for (const [name, value] of Object.entries(JSON.parse(button.dataset.take))) {
            form.elements[name].value = value;
        }
        form.querySelector('[data-lengths]').value = form.elements.lengths.value;
        redraw();
    };
    // A stroke or a ball in the strip below the table shows its own routes strong.
    const point = (event) => {
        const over = event.target.closest('[data-take], [data-row]');
        const at = over?.dataset.for ?? over?.dataset.row;
        form.querySelectorAll('.overlay [data-for]').forEach((line) => {
            line.classList.toggle('is-pointed', at !== undefined && line.dataset.for === at);
        });
    };
    // Arrow keys go from one stroke to the next; Enter takes it.
    form.addEventListener('keydown', (event) => {
        const here = event.target.closest('.choices [data-take]');
        const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
        if (here && by) {
            event.preventDefault();
            const all = [...form.querySelectorAll('.choices [data-take]')];
            all[(all.indexOf(here) + by + all.length) % all.length]?.focus();
        }
    });
    form.addEventListener('pointerover', point);
    form.addEventListener('focusin', point);

    form.addEventListener('click', (event) => {
        const stroke = event.target.closest('[data-take]');
        if (stroke) {
            take(stroke);
            return;
        }
        const chart = event.target.closest('[data-shot-table]');
        if (chart && form.elements.look.value === 'land' && !event.target.closest('[data-call], [data-pocket]')) {
            const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(chart.getScreenCTM().inverse());
            form.elements.target.value = `${at.x.toFixed(1)},${at.y.toFixed(1)}`;
            redraw();
            return;
        }
        const ball = event.target.closest('[data-call]');
        const pocket = event.target.closest('[data-pocket]');
        if (ball) {
            form.elements.ball.value = ball.dataset.call;
            forget();
            redraw();
        } else if (pocket) {
            form.elements.pocket.value = pocket.dataset.pocket;
            forget();
            redraw();
        } else if (event.target.closest('[data-centre]')) {
            setTip(0, 0);
        }
    });
}
