// The shot desk: clicks on the table and on the cue ball's face fill in the form; every change asks the server to draw again.

import { word } from './words.js';

const MISCUE = 0.5;

export function watchShot(htmx) {
    const form = document.querySelector('[data-shot]');
    if (!form) {
        return;
    }
    // One question at a time, asked at once: while it is under way the newest waits, and what lies between is never asked.
    let isAsking = false;
    let isDue = false;
    const redraw = () => {
        if (isAsking) {
            isDue = true;
            return;
        }
        isAsking = true;
        htmx.trigger(form, 'redraw');
    };
    form.addEventListener('htmx:afterRequest', (event) => {
        if (event.detail.elt !== form) {
            return;
        }
        isAsking = false;
        if (!event.detail.successful) {
            stale();
        }
        if (isDue) {
            isDue = false;
            redraw();
        } else if (event.detail.successful) {
            keepAddress();
        }
    });
    // What stands there belongs to the stroke before; it says so.
    const stale = () => {
        const pane = form.querySelector('#numbers');
        if (pane && !pane.classList.contains('is-stale')) {
            pane.classList.add('is-stale');
            pane.prepend(Object.assign(document.createElement('p'), {
                className: 'notice is-error', role: 'alert',
                textContent: word('The server does not answer: drawing and numbers are those of the stroke before.'),
            }));
        }
    };
    // A reload, and the way back, find the leg and the stroke as they are.
    const keepAddress = () => {
        const fields = new URLSearchParams(new FormData(form));
        ['_token', 'version'].forEach((name) => fields.delete(name));
        window.history.replaceState(null, '', `?${fields}`);
    };

    // A direction that was aimed by hand belongs to the ball and pocket that it was aimed for.
    const forget = () => { form.elements.direction.value = ''; };
    form.addEventListener('input', (event) => {
        if (['ball', 'pocket', 'aside'].includes(event.target.name)) {
            forget();
        }
        if (event.target.matches('[data-side], [data-height]')) {
            const [side, height] = sliders().map((slider) => Number(slider.value) / 100);
            setTip(side, height);
            return;
        }
        if (['clock', 'tips'].includes(event.target.name)) {
            sync();
        }
        if (event.target.name === 'spot') {
            form.elements.target.value = '';
        }
        if (event.target.matches('[data-lengths]')) {
            form.elements.lengths.value = event.target.value;
        } else if (event.target.name === 'lengths' && event.target.value) {
            form.querySelector('[data-lengths]').value = event.target.value;
        } else if (event.target.name === 'odds') {
            form.querySelector('[data-odds]').value = `${event.target.value} %`;
        }
        redraw();
    });
    document.addEventListener('keydown', (event) => {
        const save = form.querySelector('.keep .button');
        if (event.key === 'Enter' && (event.ctrlKey || event.metaKey) && save && !save.disabled) {
            event.preventDefault();
            save.click();
        }
    });
    // Enter in a field draws; only the button and Ctrl Enter save.
    form.addEventListener('keydown', (event) => {
        if (event.ctrlKey || event.metaKey) {
            return;
        }
        if (event.key === 'Enter' && event.target.matches('input')) {
            event.preventDefault();
            redraw();
        }
    });

    // The field's own unit: tips, percent of the radius or millimetres, as the player prefers.
    const perRadius = () => Number(form.elements.tips.dataset.perRadius);
    const sliders = () => ['side', 'height'].map((name) => form.querySelector(`[data-${name}]`));
    const sync = () => {
        const words = [['right', 'left'], ['high', 'low']];
        const [side, height] = tipOf();
        sliders().forEach((slider, i) => {
            if (slider) {
                const value = [side, height][i];
                slider.value = Math.round(100 * value);
                const percent = Math.abs(Math.round(100 * value));
                const way = words[i][value > 0 ? 0 : 1];
                slider.setAttribute('aria-valuetext', percent === 0 ? 'centre' : `${percent} % of the radius ${way}`);
            }
        });
    };
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
        sync();
        redraw();
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

    // A mouse drags the tip; a finger taps it, since a swipe over the face scrolls the page.
    let aiming = null;
    form.addEventListener('pointerdown', (event) => {
        if (event.target.closest('[data-face]')) {
            aiming = { x: event.clientX, y: event.clientY, isFinger: event.pointerType === 'touch' };
            if (!aiming.isFinger) {
                pointAt(event);
                event.preventDefault();
            }
        }
    });
    document.addEventListener('pointermove', (event) => aiming && !aiming.isFinger && pointAt(event));
    document.addEventListener('pointerup', (event) => {
        if (aiming?.isFinger && Math.hypot(event.clientX - aiming.x, event.clientY - aiming.y) < 12) {
            pointAt(event);
        }
        aiming = null;
    });
    document.addEventListener('pointercancel', () => { aiming = null; });

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
            form.elements.spot.value = '';
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
    // Told to those who do not see it, once it stands still: made or missed, the odds, where the cue ball stops.
    let telling = null;
    const tell = () => {
        window.clearTimeout(telling);
        telling = window.setTimeout(() => {
            const verdict = form.querySelector('.verdict');
            const odds = form.querySelector('[data-chance]');
            const said = document.querySelector('#said');
            if (said && verdict) {
                const parts = [verdict.textContent.trim(), odds && `${word('Odds')} ${odds.textContent.trim()}`, verdict.dataset.stops];
                said.textContent = parts.filter(Boolean).join('. ');
            }
        }, 500);
    };
    // What is refused is said at the field that holds it.
    const markField = () => {
        const invalid = form.querySelector('#shot-error')?.dataset.invalid ?? '';
        for (const field of form.querySelectorAll('.input')) {
            if (field.name === invalid) {
                field.setAttribute('aria-invalid', 'true');
                field.setAttribute('aria-describedby', 'shot-error');
            } else {
                field.removeAttribute('aria-invalid');
                field.removeAttribute('aria-describedby');
            }
        }
    };
    document.body.addEventListener('htmx:afterSettle', markField);
    document.body.addEventListener('htmx:afterSettle', tell);
    markField();
    sync();
    // A page that the browser brings back has the fields of one shot and the drawing of another: drawn anew.
    window.addEventListener('pageshow', (event) => event.persisted && redraw());
}
