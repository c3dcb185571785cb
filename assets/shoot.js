// The rack at the table: what came of a shot in two touches. An entry gets its id here, waits in the browser while the server cannot be
// reached, and is sent in order when it can; the page goes on meanwhile with what was planned before.

import { typed } from './cloth.js';
import { keep, kept, post, send } from './entries.js';
import { keepOffline } from './offline.js';
import { watchTable } from './table.js';
import { word } from './words.js';

const AGAIN = 5000;
const LOOK = 700;

export function watchShoot() {
    if (!document.querySelector('[data-shoot]') || document.querySelector('[data-practice]')) {
        return;
    }
    const board = () => document.querySelector('[data-shoot]');
    const find = (name) => board().querySelector(name);
    let state = null;
    let shot = null;
    let looking = 0;
    // After so many shots the player said that he shoots on; better plans do not ask again.
    let wentOn = -1;

    const notice = (html) => {
        const place = document.querySelector('#notice');
        place.replaceChildren();
        if (html) {
            const box = document.createElement('div');
            box.className = 'notice is-error';
            box.setAttribute('role', 'alert');
            box.append(...html);
            place.append(box);
        }
    };
    const network = (text) => {
        const line = document.querySelector('#network');
        line.hidden = !text;
        line.textContent = text ?? '';
    };
    const stage = (name) => {
        board().dataset.stage = name;
        find(`[data-on="${name}"] .answer`)?.focus({ preventScroll: true });
    };
    const leg = () => state.legs.find((one) => one.number === state.leg) ?? null;
    const text = (spot) => spot.map((number) => Number(number.toFixed(2))).join(', ');

    // ---- the table: the cue ball by a tap, others by drag

    const table = watchTable({
        board,
        mayMove: (name) => (board().dataset.stage === 'spot' ? name in shot.after : false),
        mayTap: () => board().dataset.stage === 'spot' || (board().dataset.stage === 'aim' && state.inHand),
        moved: (name, spot) => { shot.after[name] = spot; },
        tapped: (spot) => {
            if (board().dataset.stage === 'spot') {
                finish(spot);
            } else {
                state.place = spot;
                state.hasPlaced = true;
                table.put('cue', spot);
                const words = find('[data-place]');
                if (words) {
                    words.textContent = text(spot);
                }
            }
        },
        typed: (spot) => { find('[name="at"]').value = text(spot); },
    });

    // ---- one shot

    const guessed = () => {
        const typed = find('[data-guess]')?.value.trim().replace(',', '.') ?? '';
        return typed !== '' && Number.isFinite(Number(typed)) ? Number(typed) : null;
    };
    const begin = (values) => {
        const planned = leg();
        const after = { ...state.balls };
        if (state.inHand && state.place) {
            after.cue = state.place;
        }
        shot = {
            plan: state.plan, leg: state.leg, ball: planned?.ball ?? null, pocket: planned?.pocket ?? null, kind: 'pot',
            guess: guessed(), made: false, missed: null, scratch: null, foul: false, miscue: false, ...values, after,
        };
        if (shot.made && shot.ball) {
            delete shot.after[shot.ball];
            table.take(shot.ball);
        }
        board().classList.toggle('is-planned-shot', shot.plan !== null);
    };
    const spotStage = (title) => {
        const planned = shot.made && shot.plan ? leg()?.landing : null;
        find('[data-spot-title]').textContent = title ?? word('Where did the cue ball stop?');
        find('[data-spot-help]').textContent = shot.made || !shot.ball
            ? word('Tap the table. Balls that moved: drag them first.')
            : word('Drag the {ball} to where it stopped, then tap where the cue ball did.', { ball: shot.ball });
        const button = find('[data-as-planned]');
        button.hidden = !planned;
        button.textContent = planned ? word('As planned: {spot}', { spot: text(planned) }) : '';
        find('[name="at"]').value = '';
        stage('spot');
        if (!planned) {
            find('[data-table]').focus({ preventScroll: true });
        }
        seeTable();
    };
    // Where a camera hangs over the table, it says where everything came to rest: drawn on the table, and right with one press.
    const seeTable = async () => {
        const { camera, token } = board().dataset;
        if (!camera) {
            return;
        }
        const mine = shot;
        const isMine = () => shot === mine && board().dataset.stage === 'spot';
        const say = (words) => {
            find('[data-seen-say]').hidden = false;
            find('[data-seen-say]').textContent = words;
        };
        find('[data-as-seen]').hidden = true;
        say(word('The camera looks at the table…'));
        let seen;
        try {
            seen = await (await post(camera, token, {})).json();
        } catch {
            seen = { error: word('The camera is not reached.') };
        }
        if (!isMine()) {
            return;
        }
        if (!seen.balls) {
            say(`${seen.error} ${word('Tap the table instead.')}`);

            return;
        }
        const { cue, ...others } = seen.balls;
        const doubts = [];
        for (const [name, spot] of Object.entries(others)) {
            if (name in mine.after) {
                mine.after[name] = spot;
                table.put(name, spot);
            } else if (name === mine.ball) {
                doubts.push(word('It still sees the {ball} on the table.', { ball: name }));
            }
        }
        const lost = Object.keys(mine.after).filter((name) => name !== 'cue' && !(name in others));
        if (lost.length > 0) {
            doubts.push(lost.length === 1
                ? word('It does not see the {ball}: drawn where it lay before.', { ball: lost[0] })
                : word('It does not see the {balls}: drawn where they lay before.', { balls: lost.join(', ') }));
        }
        if (mine.scratch) {
            doubts.push(cue ? word('It sees the cue ball on the table.') : word('It sees no cue ball.'));
        } else if (cue) {
            table.put('cue', cue);
            find('[data-as-seen]').textContent = word('Yes, as the camera sees it: {spot}', { spot: text(cue) });
            find('[data-as-seen]').hidden = false;
            find('[data-as-seen]').focus({ preventScroll: true });
            mine.seen = cue;
        } else {
            doubts.push(word('It does not see the cue ball: tap where it stopped.'));
        }
        say(doubts.length > 0 ? doubts.join(' ') : word('The camera sees this. Right? If not, tap or drag.'));
    };
    const answers = {
        made: () => { begin({ made: true }); spotStage(); },
        missed: () => {
            begin({});
            const planned = leg();
            const cut = (side) => {
                if (!planned || planned.isStraight) {
                    return '';
                }
                return planned.cutsLeft === (side === 'left') ? word('overcut') : word('undercut');
            };
            find('[data-left]').textContent = cut('left');
            find('[data-right]').textContent = cut('right');
            stage('missed');
        },
        scratch: () => {
            begin({ scratch: true, foul: true });
            delete shot.after.cue;
            table.take('cue');
            spotStage(word('Which balls moved?'));
            offerNone();
        },
        foul: () => { begin({ foul: true }); spotStage(); },
        miscue: () => { begin({ miscue: true }); spotStage(); },
        safety: () => { begin({ kind: 'safety', made: null, ball: null, pocket: null, plan: null, leg: null }); spotStage(); },
        other: () => stage('other'),
    };
    // After a scratch there is no cue ball to tap: the other balls as they lie.
    const offerNone = () => {
        find('[data-spot-help]').textContent = word('Drag those that moved.');
        const button = find('[data-as-planned]');
        button.hidden = false;
        button.textContent = word('Save: the cue ball dropped');
    };

    const finish = (spot) => {
        if (spot && !shot.scratch) {
            shot.after.cue = spot;
        }
        const entry = {
            id: crypto.randomUUID(),
            previous: state.previous,
            at: new Date().toISOString(),
            kind: shot.kind,
            ball: shot.ball,
            pocket: shot.pocket,
            plan: shot.plan,
            leg: shot.leg,
            tip: shot.tip ?? null,
            lengths: shot.lengths ?? null,
            guess: shot.guess,
            cue: state.inHand ? state.place : null,
            made: shot.made,
            missed: shot.missed,
            scratch: shot.scratch,
            foul: shot.foul,
            miscue: shot.miscue,
            after: shot.after,
        };
        keep(state.rack, entry);
        show(entry);
        flush();
    };

    // ---- what the page shows by itself until the server answers

    const show = (entry) => {
        const isGood = entry.made === true && !entry.foul;
        state.balls = entry.after;
        state.previous = entry.id;
        state.number += 1;
        state.inHand = !('cue' in entry.after) || (entry.foul && state.givesHand);
        state.place = null;
        const next = isGood ? state.legs.find((one) => one.number > (entry.leg ?? 99) && one.ball in entry.after) : null;
        state.leg = next?.number ?? null;
        table.lay(state.balls);
        find('[data-planned]').replaceChildren();
        board().classList.add('is-waiting');
        find('[data-count]').textContent = word('{count} shots, not all sent yet', { count: state.number });
        find('[data-odds]').textContent = next ? word('planned before the last shot') : '';
        if (next) {
            find('[data-call-pocket]').textContent = next.pocket;
            table.draw(find('[data-call-ball]'), next.ball);
            find('[data-tip]').textContent = next.tip.replace(/tips?/, (unit) => word(unit));
            find('[data-tip-mark]').setAttribute('cx', 56 * next.side);
            find('[data-tip-mark]').setAttribute('cy', -56 * next.height);
            find('[data-speed]').textContent = next.speed;
            find('[data-words]').textContent = word(next.words);
            find('[data-spot]').textContent = next.landing ? text(next.landing) : '';
            table.mark(next.landing);
        } else {
            find('[data-call]').textContent = isGood ? word('Made') : word('Logged');
            table.mark(null);
        }
        stage('aim');
        for (const button of board().querySelectorAll('[data-answer="made"], [data-answer="missed"], .checklist')) {
            button.hidden = !next;
        }
    };

    const take = (html) => {
        const box = document.createElement('template');
        box.innerHTML = html;
        const fresh = box.content.querySelector('[data-shoot]');
        if (fresh) {
            board().replaceWith(fresh);
            read();
            if (fresh.dataset.stage === 'turn' && wentOn === state.number) {
                fresh.dataset.stage = 'aim';
            }
            keepOffline();
        }
    };

    // ---- sending

    let isSending = false;
    const flush = async () => {
        if (isSending) {
            return;
        }
        isSending = true;
        const answer = await send(state.rack, board().dataset.add, board().dataset.token);
        isSending = false;
        const waiting = kept(state.rack).length;
        if (answer.html) {
            take(answer.html);
        }
        if (answer.refused) {
            refused(answer);
        } else if (waiting > 0) {
            network(waiting === 1
                ? word('No connection: 1 shot waits here and will be sent. Nothing is planned again until then.')
                : word('No connection: {count} shots wait here and will be sent. Nothing is planned again until then.', {
                    count: waiting,
                }));
            window.setTimeout(flush, AGAIN);
        } else {
            network(null);
            notice(null);
        }
        if (kept(state.rack).length > 0 && answer.html) {
            flush();
        }
    };
    const refused = ({ refused: message, status }) => {
        const words = document.createElement('p');
        words.textContent = message;
        const drop = document.createElement('button');
        drop.type = 'button';
        drop.className = 'button is-small';
        drop.dataset.drop = '1';
        drop.textContent = status === 422 ? word('Enter it again') : word('Give these entries up and reload');
        notice([words, drop]);
    };

    const call = async (url, values) => {
        try {
            const response = await post(url, board().dataset.token, values);
            take(await response.text());
        } catch {
            network(word('No connection: this can be done when it is back.'));
        }
    };

    // ---- better plans, while nobody is entering anything

    const look = async () => {
        window.clearTimeout(looking);
        if (board().dataset.stage === 'aim' && state.isPlanning && kept(state.rack).length === 0) {
            try {
                const known = `number=${state.number}&drawn=${state.drawn}`;
                const response = await fetch(`${board().dataset.board}?${known}`, { headers: { 'HX-Request': 'true' } });
                if (response.status === 200 && !response.redirected && board().dataset.stage === 'aim' && !isSending) {
                    take(await response.text());

                    return;
                }
            } catch {
                // Looked for again below.
            }
        }
        looking = window.setTimeout(look, LOOK);
    };

    const read = () => {
        state = JSON.parse(find('[data-state]').textContent);
        shot = null;
        table.lay(state.balls);
        if (state.inHand && state.place) {
            table.put('cue', state.place);
        }
        look();
    };
    read();
    keepOffline();
    // What was entered before a reload and is not sent yet.
    for (const entry of kept(state.rack)) {
        if (entry.previous === state.previous) {
            show(entry);
        }
    }
    if (kept(state.rack).length > 0) {
        flush();
    }
    window.addEventListener('online', flush);

    document.addEventListener('click', (event) => {
        const button = event.target.closest('[data-shoot] button, [data-drop]');
        if (!button) {
            return;
        }
        const { dataset } = button;
        if (dataset.drop) {
            localStorage.removeItem(`lane-entries-${state.rack}`);
            window.location.reload();
        } else if (dataset.answer) {
            answers[dataset.answer]();
        } else if ('missed' in dataset) {
            shot.missed = dataset.missed || null;
            spotStage();
        } else if ('back' in dataset) {
            table.lay(state.balls);
            stage('aim');
        } else if ('asSeen' in dataset) {
            finish(shot.seen);
        } else if ('asPlanned' in dataset) {
            finish(shot.scratch ? null : leg().landing);
        } else if ('goOn' in dataset) {
            wentOn = state.number;
            stage('aim');
            look();
        } else if (dataset.endAs) {
            call(board().dataset.end, { end: dataset.endAs });
        } else if ('undoShot' in dataset) {
            const waiting = kept(state.rack);
            if (waiting.length > 0) {
                keep(state.rack, null, waiting.slice(0, -1));
                window.location.reload();
            } else {
                call(board().dataset.undo, { shot: dataset.undoShot });
            }
        }
    });
    document.addEventListener('submit', (event) => {
        if (event.target.matches('[data-typed]')) {
            event.preventDefault();
            const spot = typed(event.target.elements.at.value);
            if (spot) {
                finish(spot);
            } else {
                notice([word('Type two numbers in diamonds, along and across: 4.5, 1.25.')]);
            }
        } else if (event.target.matches('[data-other]')) {
            event.preventDefault();
            const { ball, pocket, kind, clock, tips, lengths } = event.target.elements;
            const hours = /^(\d{1,2}):(\d{2})$/.exec(clock.value.trim());
            const angle = hours ? ((Number(hours[1]) % 12) + Number(hours[2]) / 60) * (Math.PI / 6) : null;
            const offset = state.perTip * Number(tips.value.replace(',', '.') || 0);
            const values = {
                plan: null, leg: null, ball: ball.value, pocket: pocket.value, kind: kind.value,
                tip: angle === null ? null : [offset * Math.sin(angle), offset * Math.cos(angle)],
                lengths: lengths.value ? Number(lengths.value.replace(',', '.')) : null,
            };
            begin({ ...values, made: event.submitter?.value === 'made' });
            spotStage();
        }
    });
}
