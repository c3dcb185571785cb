// The run-out page: arrow keys step through the legs, and a leg is played as the simulation has it.

export function watchRun() {
    if (!document.querySelector('[data-runout]')) {
        return;
    }
    let playing = 0;
    const step = (by) => {
        const here = document.querySelector('.strip [aria-current]');
        const next = document.querySelector(`.strip [data-leg="${Number(here?.dataset.leg ?? 0) + by}"]`);
        // Pressed, not only told of it: a card that has just come and is not bound yet is followed as the link that it is.
        next?.click();
    };

    const play = (faster) => {
        const source = document.querySelector('[data-frames]');
        const layer = document.querySelector('[data-animation]');
        if (!source || !layer) {
            return;
        }
        const { rate, balls } = JSON.parse(source.textContent);
        const run = ++playing;
        layer.replaceChildren();
        const moving = Object.entries(balls).map(([label, { frames, drops }]) => {
            const drawn = document.querySelector(`[data-at="${label}"]`);
            const copy = drawn.cloneNode(true);
            copy.removeAttribute('data-at');
            layer.append(copy);
            drawn.classList.add('is-away');
            return { copy, drawn, frames, drops };
        });
        const begin = performance.now();
        const draw = (now) => {
            if (run !== playing) {
                moving.forEach(({ drawn, copy }) => { drawn.classList.remove('is-away'); copy.remove(); });
                return;
            }
            const at = ((now - begin) / 1000) * rate * faster;
            let goesOn = false;
            for (const { copy, frames, drops } of moving) {
                const i = Math.max(0, Math.min(Math.floor(at), frames.length - 1));
                const [x, y] = frames[i];
                copy.setAttribute('transform', `translate(${x} ${y})`);
                copy.classList.toggle('has-dropped', drops !== null && at >= drops);
                goesOn = goesOn || at < frames.length - 1;
            }
            if (goesOn) {
                window.requestAnimationFrame(draw);
            } else {
                document.querySelector('[data-runout]').dataset.played = String(run);
            }
        };
        window.requestAnimationFrame(draw);
    };

    // Whether every leg's route is drawn: kept while the page stands, also through better plans.
    let isAll = false;
    const showAll = () => {
        document.querySelector('[data-runout]').classList.toggle('has-all-routes', isAll);
        const box = document.querySelector('[data-all-routes]');
        if (box) {
            box.checked = isAll;
        }
    };
    document.addEventListener('change', (event) => {
        if (event.target.matches('[data-all-routes]')) {
            isAll = event.target.checked;
            showAll();
        }
    });
    document.body.addEventListener('htmx:afterSwap', showAll);

    document.addEventListener('click', (event) => {
        const button = event.target.closest('[data-play], [data-step]');
        if (button?.dataset.step) {
            step(Number(button.dataset.step));
        } else if (button) {
            play(Number(button.dataset.play || 1));
        }
    });
    document.addEventListener('keydown', (event) => {
        if (event.target.matches('input, select, textarea') || event.ctrlKey || event.altKey || event.metaKey) {
            return;
        }
        if (event.key === 'ArrowRight' || event.key === 'ArrowLeft') {
            event.preventDefault();
            step(event.key === 'ArrowRight' ? 1 : -1);
        } else if (event.key === ' ' && !event.target.matches('button, summary, a')) {
            event.preventDefault();
            play(event.shiftKey ? 4 : 1);
        }
    });
}
