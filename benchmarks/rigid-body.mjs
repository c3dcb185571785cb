/*
 * The straight shot of run.php in a general two-dimensional rigid-body library, with the friction of the cloth written by hand
 * after each step. Arguments: where the cue ball and the object ball end in our simulation. Prints a table of time steps, how
 * far off the balls end, and the time one shot takes; fails when no step comes within 10 mm.
 */
import RAPIER from '@dimforge/rapier2d-compat';

const [cueEnds, objectEnds] = process.argv.slice(2).map(Number);
// The library's tolerances are made for things about a metre across: everything is a hundred times as long.
const SCALE = 100, R = 0.028575 * SCALE, MASS = 0.1701, SLIDE = 0.2 * 9.81 * SCALE, ROLL = 0.01 * 9.81 * SCALE;
await RAPIER.init({});

function play(dt) {
    const world = new RAPIER.World({x: 0, y: 0});
    world.timestep = dt;
    const balls = [[0.6, 0.6], [1.2, 0.6]].map(([x, y]) => {
        const body = world.createRigidBody(RAPIER.RigidBodyDesc.dynamic().setTranslation(x * SCALE, y * SCALE).setCcdEnabled(true).lockRotations());
        world.createCollider(RAPIER.ColliderDesc.ball(R).setRestitution(0.97).setFriction(0).setMass(MASS), body);
        return {body, wx: 0, wy: 0};
    });
    balls[0].body.setLinvel({x: 0.6 * SCALE, y: 0}, true);
    balls[0].wy = 0.6 * SCALE / R;
    let steps = 0;
    for (; steps < 1e6; ++steps) {
        world.step();
        let moving = false;
        for (const ball of balls) {
            const v = ball.body.linvel();
            const ux = v.x - R * ball.wy, uy = v.y + R * ball.wx, slip = Math.hypot(ux, uy), speed = Math.hypot(v.x, v.y);
            let vx = v.x, vy = v.y;
            if (slip > 3.5 * SLIDE * dt) {
                const kick = SLIDE * dt / slip;
                vx -= kick * ux;
                vy -= kick * uy;
                ball.wx -= 2.5 / R * kick * uy;
                ball.wy += 2.5 / R * kick * ux;
            } else {
                vx -= 2 / 7 * ux;
                vy -= 2 / 7 * uy;
                const now = Math.hypot(vx, vy), left = Math.max(0, now - ROLL * dt);
                if (now > 0) {
                    vx *= left / now;
                    vy *= left / now;
                }
                ball.wx = -vy / R;
                ball.wy = vx / R;
            }
            ball.body.setLinvel({x: vx, y: vy}, true);
            moving ||= speed > 1e-6 || Math.hypot(vx, vy) > 0;
        }
        if (!moving) break;
    }
    const ends = balls.map((ball) => ball.body.translation().x / SCALE);
    world.free();
    return {ends, steps};
}

console.log('| time step | steps | cue ball off | object ball off | one shot |');
console.log('| ---: | ---: | ---: | ---: | ---: |');
let close = false;
for (const dt of [1 / 120, 1 / 500, 1 / 2000, 1 / 8000, 1 / 32000]) {
    play(dt);
    let least = Infinity, result;
    for (let i = 0; i < 5; ++i) {
        const start = performance.now();
        result = play(dt);
        least = Math.min(least, performance.now() - start);
    }
    const off = [cueEnds - result.ends[0], objectEnds - result.ends[1]].map((x) => 1000 * Math.abs(x));
    console.log(`| 1/${Math.round(1 / dt)} s | ${result.steps} | ${off[0].toFixed(1)} mm | ${off[1].toFixed(1)} mm | ${least.toFixed(1)} ms |`);
    if (Math.max(...off) <= 10) {
        close = true;
        break;
    }
}
process.exit(close ? 0 : 1);
