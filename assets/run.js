// The run-out page: arrow keys step through the legs, and a leg is played as the simulation has it.

export function watchRun(htmx) {
    if (!document.querySelector('[data-runout]')) {
        return;
    }
    let playing = 0;
    const card = (leg) => document.querySelector(`.strip [data-leg="${leg}"]`);
    const here = () => Number(document.querySelector('.strip [aria-current]')?.dataset.leg ?? 0);
    // However fast one steps, one leg is fetched at a time, and then the one that is wanted by then.
    let wanted = null;
    let isFetching = false;
    const fetchWanted = async () => {
        while (wanted !== null && wanted !== here() && card(wanted)) {
            isFetching = true;
            const leg = wanted;
            await htmx.ajax('GET', card(leg).dataset.board, { source: card(leg), target: '#runout', swap: 'outerHTML' }).catch(() => {});
            isFetching = false;
            if (here() !== leg) {
                break;
            }
        }
        wanted = null;
    };
    const go = (leg) => {
        if (!card(leg)) {
            return;
        }
        wanted = leg;
        if (!isFetching) {
            fetchWanted();
        }
    };
    const step = (by) => go((wanted ?? here()) + by);
    document.addEventListener('click', (event) => {
        const pressed = event.target.closest('.strip [data-board]');
        if (pressed && !event.ctrlKey && !event.metaKey && !event.shiftKey) {
            event.preventDefault();
            go(Number(pressed.dataset.leg));
        }
    });

    const play = (faster) => {
        const source = document.querySelector('[data-frames]');
        const layer = document.querySelector('[data-animation]');
        if (!source || !layer) {
            return;
        }
        const { rate, balls } = JSON.parse(source.textContent);
        const run = ++playing;
        layer.closest('svg').scrollIntoView({ block: 'nearest' });
        // Who wants no motion sees where everything ends.
        const isStill = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
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
            const at = isStill ? Infinity : ((now - begin) / 1000) * rate * faster;
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
        if (event.target.closest('input, select, textarea, summary, .account') || event.ctrlKey || event.altKey || event.metaKey) {
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
