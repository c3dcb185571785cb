/*
 * The inner loop of the product's simulation, written again in C for the benchmark: the same event-driven algorithm, the same
 * tests and tolerances (core/Motion/Internal/Engine.php, Body.php, Approach.php, Surfaces.php, core/Motion/CushionLaw.php and
 * BallContact.php), without the compliant stage. Never used by the application. It says how far the PHP is from what this
 * machine can do, and, as its results are compared with the engine's, that both compute the same.
 *
 * Input: numbers on standard input, see main(). Output: one line a result, see there.
 */
#include <math.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>

#define MAXB 16
enum { SLIDING, ROLLING, SPINNING, AT_REST, POCKETED };
enum { PHASE_ENDS, SURFACE, ENTERS_ZONE, LEAVES_ZONE, ENTERS_HOLE, LEAVES_HOLE, DROPS };

typedef struct {
    double since, x, y, vx, vy, ax, ay, wx, wy, wz, bx, by, phaseEnds, enters, drops, ownTime, pairTime, left, right, bottom, top;
    int index, phase, zone, ownKind, ownSurface, partner, awake;
    double pressed[28];
} Body;

/* Table, balls and tolerances, read from the engine's own. */
static double R, length_, width_, slideRate, rollRate, spinDecay, eb, mu0, mu1, mu2, noseSin, noseCos, noseMu, clothMu, returned, cornerCut, sideHalf;
static double pocket[6][20];
static const double GAP = 1e-11, SLIP = 1e-7, STILL = 1e-7, SPIN = 1e-7, SLOW = 1e-4, PRESSED = 1e-3, PRESSED_APPROACH = 0.02, SAME = 1e-10, DROP_TIME = 0.040;
static Body B[MAXB];
static int n, events;
static double now, pairPressed[MAXB][MAXB];

/* ---- cushion law ---------------------------------------------------------------------------------------------------- */

static void cushion(double *vx_, double *vy_, double *wx_, double *wy_, double *wz_)
{
    const double sin = noseSin, cos = noseCos, mu = noseMu, cloth = clothMu, longest = 0.10, shortest = 0.004, turns = 4.0;
    double vy = *vy_, rim = R / vy, a = *vx_ / vy, p = *wx_ * rim, q = *wy_ * rim, r = *wz_ * rim;
    double along = 2.5 * sin - 1, up = sin - 2.5, inertia = sin * sin + 2.5, drift = sin * cos, stickX = 1 / 3.5, stickT = 1 / inertia;
    double sx = a + q * sin - r * cos, st = p - sin, ux = a - q, uy = 1 + p, b = 1.0, work = 0.0, target = INFINITY, h = 0.0;
    double sFx = 0, sFt = 0, sGx = 0, sGy = 0, fx, ft, gx, gy, limit, size, share;
    int slides, step;
    size = sx * sx + st * st;
    size = size > 0.0 ? mu / sqrt(size) : 0.0;
    fx = size * sx;
    ft = size * st;
    limit = cloth * (sin + ft * cos);
    limit = limit > 0.0 ? limit : 0.0;
    size = ux * ux + uy * uy;
    slides = size > 1e-24;
    if (slides) {
        size = limit / sqrt(size);
        gx = size * ux;
        gy = size * uy;
    } else {
        ux = uy = 0.0;
        gx = along * fx / 3.5;
        gy = (up * ft - cos) / 3.5;
        size = gx * gx + gy * gy;
        if (size > limit * limit) {
            slides = 1;
            size = limit / sqrt(size);
            gx *= size;
            gy *= size;
        }
    }
    for (step = 0; step < 100000; ++step) {
        double dsx = along * gx - 3.5 * fx, dst = drift - inertia * ft + up * gy, dux = along * fx - 3.5 * gx, duy = up * ft - cos - 3.5 * gy;
        double turn, closing, pace, ex, et, ends, rate, next;
        sx += h * dsx;
        st += h * dst;
        ux += h * dux;
        uy += h * duy;
        h = longest;
        turn = sx * dst - st * dsx;
        closing = -sx * dsx - st * dst;
        pace = (turn < 0.0 ? -turns * turn : turns * turn) + (closing > 0.0 ? 2.0 * closing : 0.0);
        size = sx * sx + st * st;
        if (pace * h > size) h = size / pace;
        if (slides) {
            turn = ux * duy - uy * dux;
            closing = -ux * dux - uy * duy;
            pace = (turn < 0.0 ? -turns * turn : turns * turn) + (closing > 0.0 ? 2.0 * closing : 0.0);
            size = ux * ux + uy * uy;
            if (pace * h > size) h = size / pace;
        }
        if (h < shortest) h = shortest;
        ex = sx + h * along * gx;
        et = st + h * (drift + up * gy);
        ends = mu * h;
        fx = ex * stickX;
        ft = et * stickT;
        if (fx * fx + ft * ft > ends * ends) {
            size = sqrt(ex * ex + et * et);
            fx = (sx + ex) * size - 3.5 * ends * ex;
            ft = (st + et) * size - inertia * ends * et;
            size = sqrt(fx * fx + ft * ft);
            size = size > 1e-28 ? mu / size : 0.0;
            fx *= size;
            ft *= size;
        } else {
            size = 1 / h;
            fx *= size;
            ft *= size;
        }
        limit = cloth * (sin + ft * cos);
        slides = 1;
        if (limit <= 0.0) {
            gx = gy = 0.0;
        } else {
            ex = ux + h * along * fx;
            et = uy + h * (up * ft - cos);
            size = sqrt(ex * ex + et * et);
            ends = 3.5 * h * limit;
            if (size <= ends) {
                size = stickX / h;
                gx = ex * size;
                gy = et * size;
                slides = 0;
            } else {
                gx = (ux + ex) * size - ends * ex;
                gy = (uy + et) * size - ends * et;
                size = sqrt(gx * gx + gy * gy);
                size = size > 1e-28 ? limit / size : 0.0;
                gx *= size;
                gy *= size;
            }
        }
        rate = sin * ft - cos - gy;
        next = b + h * rate;
        if (target == INFINITY && next <= 0.0) {
            share = b / (b - next);
            target = returned * (work + 0.5 * cos * b * share * h);
            work = -0.5 * cos * next * (1 - share) * h;
        } else {
            double path = 0.5 * cos * h * (b + next);
            work += path < 0.0 ? -path : path;
        }
        if (work >= target) {
            double before = work + 0.5 * cos * (b + next) * h, missing = before > 0.0 ? target - before : target;
            double start = b < 0.0 ? b : 0.0, slope = -cos * start, part = 2 * missing / (slope + sqrt(slope * slope - 2 * cos * rate * missing)), back = 1 / rim;
            if (b > 0.0) part -= b / rate;
            b += part * rate;
            sFx += part * fx;
            sFt += part * ft;
            sGx += part * gx;
            sGy += part * gy;
            *vx_ = (a - sFx - sGx) * vy;
            *vy_ = b * vy;
            *wx_ = (p - 2.5 * (sFt + sGy)) * back;
            *wy_ = (q - 2.5 * (sFx * sin - sGx)) * back;
            *wz_ = (r + 2.5 * sFx * cos) * back;
            return;
        }
        b = next;
        sFx += h * fx;
        sFt += h * ft;
        sGx += h * gx;
        sGy += h * gy;
    }
    abort();
}

/* ---- approach -------------------------------------------------------------------------------------------------------- */

static double within(double dx, double dy, double vx, double vy, double ax, double ay, double reach, double horizon)
{
    double bend = sqrt(ax * ax + ay * ay), t = 0.0;
    int step;
    for (step = 0; step < 2000; ++step) {
        double x = dx + t * (vx + 0.5 * t * ax), y = dy + t * (vy + 0.5 * t * ay), distance = sqrt(x * x + y * y), gap = distance - reach;
        double rate = x * (vx + t * ax) + y * (vy + t * ay);
        if (gap <= GAP) {
            double ux = vx + t * ax, uy = vy + t * ay, across = (x * uy - y * ux) / distance, least = 1e-6 * (1 + step), wait;
            if (rate < 0.0 || (rate == 0.0 && (across * across + x * ax + y * ay) / distance < -1e-9)) return t;
            wait = bend > 0.0 ? 2 * rate / (bend * distance) : INFINITY;
            t += wait > least ? wait : least;
        } else if (bend > 0.0) {
            double root = sqrt(rate * rate + 2 * bend * gap * distance * distance);
            t += rate < 0.0 ? 2 * gap * distance / (root - rate) : (rate + root) / (bend * distance);
        } else if (rate < 0.0) {
            t -= gap * distance / rate;
        } else {
            return INFINITY;
        }
        if (!(t <= horizon)) return INFINITY;
    }
    abort();
}

static double leaving(double dx, double dy, double vx, double vy, double ax, double ay, double reach, double horizon)
{
    double pull = sqrt(ax * ax + ay * ay), fastest = sqrt(vx * vx + vy * vy) + pull * horizon, bend = 2 * (fastest * fastest + 1.01 * reach * pull) + 1e-30, t = 0.0;
    int step;
    for (step = 0; step < 2000; ++step) {
        double x = dx + t * (vx + 0.5 * t * ax), y = dy + t * (vy + 0.5 * t * ay), inside = x * x + y * y - reach * reach;
        double rate = 2 * (x * (vx + t * ax) + y * (vy + t * ay));
        if (inside >= -1e-13) {
            if (rate > 0.0) return t;
            inside = -1e-13;
        }
        t += (sqrt(rate * rate - 2 * bend * inside) - rate) / bend;
        if (!(t <= horizon)) return INFINITY;
    }
    abort();
}

static double crossing(double gap, double v, double a)
{
    double discriminant, root;
    if (gap <= GAP) {
        if (v < 0.0 || (v == 0.0 && a < 0.0)) return 0.0;
        return a < 0.0 ? -2 * v / a : INFINITY;
    }
    discriminant = v * v - 2 * a * gap;
    if (discriminant < 0.0) return INFINITY;
    root = sqrt(discriminant);
    if (v < 0.0) return 2 * gap / (root - v);
    return a < 0.0 ? (v + root) / -a : INFINITY;
}

/* ---- one ball --------------------------------------------------------------------------------------------------------- */

static void advance(Body *b, double time)
{
    double dt = time - b->since;
    if (dt <= 0.0) return;
    b->since = time;
    /* What was seen ahead has not come yet: the surroundings of a pocket, its hole. */
    if (b->zone >= 0 && time < b->enters) b->zone = -1;
    if (time < b->drops - DROP_TIME) b->drops = INFINITY;
    if (b->phase <= ROLLING) {
        b->x += dt * (b->vx + 0.5 * dt * b->ax);
        b->y += dt * (b->vy + 0.5 * dt * b->ay);
        b->vx += dt * b->ax;
        b->vy += dt * b->ay;
        if (b->phase == ROLLING) {
            b->wx = -b->vy / R;
            b->wy = b->vx / R;
        } else {
            b->wx += dt * b->bx;
            b->wy += dt * b->by;
        }
    }
    if (b->wz != 0.0) {
        double lost = spinDecay * dt;
        b->wz = fabs(b->wz) <= lost ? 0.0 : (b->wz > 0 ? b->wz - lost : b->wz + lost);
    }
}

static void settle(Body *b, double t)
{
    double ux = b->vx - R * b->wy, uy = b->vy + R * b->wx, slip = sqrt(ux * ux + uy * uy);
    b->since = t;
    b->bx = b->by = 0.0;
    if (slip > SLIP) {
        double rate = slideRate / slip, turn = 2.5 * rate / R;
        b->phase = SLIDING;
        b->ax = -rate * ux;
        b->ay = -rate * uy;
        b->bx = -turn * uy;
        b->by = turn * ux;
        b->phaseEnds = t + 2 * slip / (7 * slideRate);
    } else {
        double speed;
        b->vx -= 2.0 / 7 * ux;
        b->vy -= 2.0 / 7 * uy;
        speed = sqrt(b->vx * b->vx + b->vy * b->vy);
        if (speed > STILL) {
            b->phase = ROLLING;
            b->wx = -b->vy / R;
            b->wy = b->vx / R;
            b->ax = -rollRate * b->vx / speed;
            b->ay = -rollRate * b->vy / speed;
            b->phaseEnds = t + speed / rollRate;
        } else {
            b->vx = b->vy = b->ax = b->ay = b->wx = b->wy = 0.0;
            if (fabs(b->wz) > SPIN) {
                b->phase = SPINNING;
                b->phaseEnds = INFINITY; /* no event where no path is kept, as in the engine */
            } else {
                b->wz = 0.0;
                b->phase = AT_REST;
                b->phaseEnds = INFINITY;
            }
        }
    }
}

static void sweep(Body *b, double s)
{
    double x = b->x, y = b->y, ex, ey, bend, bx, by;
    b->left = b->right = x;
    b->bottom = b->top = y;
    if (b->phase > ROLLING) return;
    ex = x + s * (b->vx + 0.5 * s * b->ax);
    ey = y + s * (b->vy + 0.5 * s * b->ay);
    bend = 0.125 * s * s;
    bx = bend * fabs(b->ax);
    by = bend * fabs(b->ay);
    b->left = (ex < x ? ex : x) - bx;
    b->right = (ex < x ? x : ex) + bx;
    b->bottom = (ey < y ? ey : y) - by;
    b->top = (ey < y ? y : ey) + by;
}

static int nearest(double x, double y) { return (x < 0.25 * length_ ? 0 : (x < 0.75 * length_ ? 1 : 2)) + (y < 0.5 * width_ ? 0 : 3); }

static int onNose(int rail, double along)
{
    if (rail < 2) return along >= cornerCut && along <= width_ - cornerCut;
    return along >= cornerCut && along <= length_ - cornerCut && fabs(along - length_ / 2) >= sideHalf;
}

static void propose(Body *b, double after, int kind, int surface)
{
    double time = b->since + after;
    if (kind == SURFACE && b->pressed[surface] > 0.0 && time < b->pressed[surface]) time = b->pressed[surface];
    if (time < b->ownTime) {
        b->ownTime = time;
        b->ownKind = kind;
        b->ownSurface = surface;
    }
}

static void searchRail(Body *b, int rail, double gap, double v, double a)
{
    double t = crossing(gap, v, a), along;
    if (b->since + t >= b->ownTime) return;
    along = rail < 2 ? b->y + t * (b->vy + 0.5 * t * b->ay) : b->x + t * (b->vx + 0.5 * t * b->ax);
    if (onNose(rail, along)) propose(b, t, SURFACE, rail);
    else propose(b, t, ENTERS_ZONE, -1);
}

static void beside(Body *b, int rail)
{
    double gap, t, along;
    switch (rail) {
    case 0: gap = b->x - R; t = crossing(gap, b->vx, b->ax); break;
    case 1: gap = length_ - R - b->x; t = crossing(gap, -b->vx, -b->ax); break;
    case 2: gap = b->y - R; t = crossing(gap, b->vy, b->ay); break;
    default: gap = width_ - R - b->y; t = crossing(gap, -b->vy, -b->ay);
    }
    if (gap >= -1e-4 && b->since + t < b->ownTime) {
        along = rail < 2 ? b->y + t * (b->vy + 0.5 * t * b->ay) : b->x + t * (b->vx + 0.5 * t * b->ax);
        if (onNose(rail, along)) propose(b, t, SURFACE, rail);
    }
}

/* Whether a gap may close within a time: a parabola that bends downwards is lowest at one of its ends. */
static int mayClose(double gap, double v, double a, double horizon) { return a > 0.0 || gap <= GAP || gap + horizon * (v + 0.5 * horizon * a) <= GAP; }

static void jaw(Body *b, const double *nose, const double *f, const double *m, int facing)
{
    double dx = b->x - nose[0], dy = b->y - nose[1], gap = dx * m[0] + dy * m[1] - R, t, horizon, ex, ey, across, wide;
    if (gap > -1e-4) {
        double v = b->vx * m[0] + b->vy * m[1], a = b->ax * m[0] + b->ay * m[1];
        if (mayClose(gap, v, a, b->ownTime - b->since)) {
            t = crossing(gap, v, a);
            if (b->since + t < b->ownTime && (dx + t * (b->vx + 0.5 * t * b->ax)) * f[0] + (dy + t * (b->vy + 0.5 * t * b->ay)) * f[1] >= 0.0) propose(b, t, SURFACE, facing);
        }
    }
    if (dx * b->vx + dy * b->vy >= 0.0 && dx * b->ax + dy * b->ay >= 0.0) return;
    horizon = b->ownTime - b->since;
    ex = b->vx + 0.5 * horizon * b->ax;
    ey = b->vy + 0.5 * horizon * b->ay;
    across = dx * ey - dy * ex;
    wide = R + 0.125 * horizon * horizon * (fabs(b->ax) + fabs(b->ay)) + 1e-9;
    if (across * across > wide * wide * (ex * ex + ey * ey)) return;
    t = within(dx, dy, b->vx, b->vy, b->ax, b->ay, R, horizon);
    if (t < INFINITY) propose(b, t, SURFACE, facing + 2);
}

static void searchZone(Body *b)
{
    const double *p = pocket[b->zone];
    int zone = b->zone, side = zone % 3 == 1;
    double middle, horizon, depth, reach, inwards, pull;
    if (b->drops < INFINITY) propose(b, b->drops - b->since, DROPS, -1);
    if (b->phase > ROLLING) return;
    beside(b, zone < 3 ? 2 : 3);
    if (!side) beside(b, zone % 3 == 0 ? 0 : 1);
    jaw(b, p, p + 4, p + 8, 4 + 4 * zone);
    jaw(b, p + 2, p + 6, p + 10, 5 + 4 * zone);
    middle = (p[16] - b->x) * p[14] + (p[17] - b->y) * p[15];
    propose(b, crossing(middle, -b->vx * p[14] - b->vy * p[15], -b->ax * p[14] - b->ay * p[15]), DROPS, -1);
    horizon = b->ownTime - b->since;
    if (b->drops < INFINITY) propose(b, leaving(b->x - p[16], b->y - p[17], b->vx, b->vy, b->ax, b->ay, p[18] + 1e-9, horizon), LEAVES_HOLE, -1);
    else if ((b->x - p[16]) * b->vx + (b->y - p[17]) * b->vy < 0.0 || (b->x - p[16]) * b->ax + (b->y - p[17]) * b->ay < 0.0) {
        double t = within(b->x - p[16], b->y - p[17], b->vx, b->vy, b->ax, b->ay, p[18], horizon), fall = t + DROP_TIME, hx, hy;
        if (t < horizon) {
            b->drops = b->since + fall;
            if (b->ownKind != DROPS || fall < horizon) {
                hx = b->x + fall * (b->vx + 0.5 * fall * b->ax) - p[16];
                hy = b->y + fall * (b->vy + 0.5 * fall * b->ay) - p[17];
                if (fall < horizon && hx * hx + hy * hy < p[18] * p[18]) {
                    propose(b, fall, DROPS, -1);
                } else {
                    b->drops = INFINITY;
                    propose(b, t, ENTERS_HOLE, -1);
                }
            }
        }
    }
    depth = (b->x - p[12]) * p[14] + (b->y - p[13]) * p[15] + p[19];
    horizon = b->ownTime - b->since;
    inwards = b->vx * p[14] + b->vy * p[15];
    pull = b->ax * p[14] + b->ay * p[15];
    if (mayClose(depth, inwards, pull, horizon)) propose(b, crossing(depth, inwards, pull), LEAVES_ZONE, -1);
    if (side) {
        double mx = b->x - p[12], end = mx + horizon * (b->vx + 0.5 * horizon * b->ax);
        reach = sideHalf + p[19];
        if (b->ax < 0.0 ? b->vx > 0.0 : end >= reach - GAP) propose(b, crossing(reach - mx, -b->vx, -b->ax), LEAVES_ZONE, -1);
        if (b->ax > 0.0 ? b->vx < 0.0 : end <= GAP - reach) propose(b, crossing(reach + mx, b->vx, b->ax), LEAVES_ZONE, -1);
    }
}

static void searchOwn(Body *b)
{
    b->ownTime = b->phaseEnds;
    b->ownKind = PHASE_ENDS;
    b->ownSurface = -1;
    if (b->phase == POCKETED) return;
    sweep(b, b->phaseEnds - b->since);
    if (b->zone >= 0) {
        searchZone(b);
    } else if (b->phase <= ROLLING) {
        if (b->left <= R) searchRail(b, 0, b->x - R, b->vx, b->ax);
        if (b->right >= length_ - R) searchRail(b, 1, length_ - R - b->x, -b->vx, -b->ax);
        if (b->bottom <= R) searchRail(b, 2, b->y - R, b->vy, b->ay);
        if (b->top >= width_ - R) searchRail(b, 3, width_ - R - b->y, -b->vy, -b->ay);
        if (b->ownKind == ENTERS_ZONE) {
            /* Seen ahead: from the state that it will come there with. */
            double since = b->since, x = b->x, y = b->y, vx = b->vx, vy = b->vy, dt = b->ownTime - since;
            b->enters = b->since = b->ownTime;
            b->x += dt * (vx + 0.5 * dt * b->ax);
            b->y += dt * (vy + 0.5 * dt * b->ay);
            b->vx += dt * b->ax;
            b->vy += dt * b->ay;
            b->zone = nearest(b->x, b->y);
            b->ownTime = b->phaseEnds;
            b->ownKind = PHASE_ENDS;
            searchZone(b);
            b->since = since;
            b->x = x;
            b->y = y;
            b->vx = vx;
            b->vy = vy;
        }
    }
    if (b->ownTime < b->phaseEnds) sweep(b, b->ownTime - b->since);
}

/* ---- pairs ------------------------------------------------------------------------------------------------------------ */

static double meeting(Body *a, Body *b)
{
    double t0 = now, until, horizon, ta, tb, dx, dy, vx, vy, ax, ay, rate, pull, square, t, rest, ex, ey, chord, share, wide, reach = 2 * R, time;
    if (a->phase == POCKETED || b->phase == POCKETED) return INFINITY;
    if (b->index < a->index) { Body *o = a; a = b; b = o; }
    if (a->since > t0) t0 = a->since;
    if (b->since > t0) t0 = b->since;
    until = a->ownTime < b->ownTime ? a->ownTime : b->ownTime;
    horizon = until - t0;
    if (horizon < 0.0) return INFINITY;
    ta = t0 - a->since;
    tb = t0 - b->since;
    dx = b->x + tb * (b->vx + 0.5 * tb * b->ax) - a->x - ta * (a->vx + 0.5 * ta * a->ax);
    dy = b->y + tb * (b->vy + 0.5 * tb * b->ay) - a->y - ta * (a->vy + 0.5 * ta * a->ay);
    vx = b->vx + tb * b->ax - a->vx - ta * a->ax;
    vy = b->vy + tb * b->ay - a->vy - ta * a->ay;
    ax = b->ax - a->ax;
    ay = b->ay - a->ay;
    rate = dx * vx + dy * vy;
    pull = dx * ax + dy * ay;
    if (rate >= 0.0 && pull >= 0.0) return INFINITY;
    square = dx * dx + dy * dy;
    t = pull > 0.0 && -rate < horizon * pull ? -rate / pull : horizon;
    rest = square + t * (rate + 0.5 * t * pull);
    if (rest > 0.0 && rest * rest > square * reach * reach * 1.000001) return INFINITY;
    ex = horizon * (vx + 0.5 * horizon * ax);
    ey = horizon * (vy + 0.5 * horizon * ay);
    chord = ex * ex + ey * ey;
    share = -(dx * ex + dy * ey);
    if (share > 0.0) {
        share = share < chord ? share / chord : 1.0;
        ex = dx + share * ex;
        ey = dy + share * ey;
        wide = reach + 0.125 * horizon * horizon * sqrt(ax * ax + ay * ay) + 1e-9;
        if (ex * ex + ey * ey > wide * wide) return INFINITY;
    }
    time = t0 + within(dx, dy, vx, vy, ax, ay, reach, horizon);
    if (time < INFINITY && time < pairPressed[a->index][b->index]) return pairPressed[a->index][b->index];
    return time;
}

static int apart(const Body *a, const Body *b)
{
    double reach = 2 * R;
    return a->left > b->right + reach || a->right < b->left - reach || a->bottom > b->top + reach || a->top < b->bottom - reach;
}

static void searchPairs(Body *b)
{
    int i, k, moves = b->phase <= ROLLING;
    b->pairTime = INFINITY;
    b->partner = -1;
    for (i = 0; i < n; ++i) {
        Body *o = B + i;
        double time;
        if (o == b) continue;
        if (o->partner == b->index) {
            int oMoves = o->phase <= ROLLING;
            o->pairTime = INFINITY;
            o->partner = -1;
            for (k = 0; k < n; ++k) {
                Body *q = B + k;
                if (q == o || q == b || (!oMoves && q->phase > ROLLING) || apart(q, o)) continue;
                time = meeting(o, q);
                if (time < o->pairTime) {
                    o->pairTime = time;
                    o->partner = k;
                }
            }
        }
        if ((moves || o->phase <= ROLLING) && !apart(o, b)) {
            time = meeting(b, o);
            if (time < b->pairTime) {
                b->pairTime = time;
                b->partner = i;
            }
            if (o->awake && time < o->pairTime) {
                o->pairTime = time;
                o->partner = b->index;
            }
        }
    }
}

static double closing(const Body *a, const Body *b)
{
    double ta = now - a->since, tb = now - b->since;
    double dx = b->x + tb * (b->vx + 0.5 * tb * b->ax) - a->x - ta * (a->vx + 0.5 * ta * a->ax), dy = b->y + tb * (b->vy + 0.5 * tb * b->ay) - a->y - ta * (a->vy + 0.5 * ta * a->ay);
    return (dx * (a->vx + ta * a->ax - b->vx - tb * b->ax) + dy * (a->vy + ta * a->ay - b->vy - tb * b->ay)) / sqrt(dx * dx + dy * dy);
}

static void meet(Body *one)
{
    Body *a = one, *b = B + one->partner;
    double dx, dy, distance, nx, ny, dvx, dvy, approach;
    int pressed;
    if (b->index < a->index) { Body *o = a; a = b; b = o; }
    a->awake = b->awake = 1;
    now = one->pairTime;
    if (a->since > now) now = a->since;
    if (b->since > now) now = b->since;
    advance(a, now);
    advance(b, now);
    dx = b->x - a->x;
    dy = b->y - a->y;
    distance = sqrt(dx * dx + dy * dy);
    nx = dx / distance;
    ny = dy / distance;
    dvx = a->vx - b->vx;
    dvy = a->vy - b->vy;
    approach = dvx * nx + dvy * ny;
    pressed = pairPressed[a->index][b->index] > 0.0 && pairPressed[a->index][b->index] >= now - GAP;
    if (approach <= 0.0) {
        pairPressed[a->index][b->index] = 0.0;
    } else if (approach < (pressed ? PRESSED_APPROACH : SLOW)) {
        double half = 0.5 * approach, overlap = 2 * R - distance;
        a->vx -= half * nx;
        a->vy -= half * ny;
        b->vx += half * nx;
        b->vy += half * ny;
        if (overlap > 0.0 && overlap < 1e-4) {
            a->x -= 0.5 * overlap * nx;
            a->y -= 0.5 * overlap * ny;
            b->x += 0.5 * overlap * nx;
            b->y += 0.5 * overlap * ny;
        }
        pairPressed[a->index][b->index] = now + PRESSED;
    } else {
        double normal = 0.5 * (1 + eb) * (dvx * nx + dvy * ny), across = -dvx * ny + dvy * nx + R * (a->wz + b->wz);
        double up = R * ((a->wx + b->wx) * ny - (a->wy + b->wy) * nx), slip = hypot(across, up), jx = -normal * nx, jy = -normal * ny;
        pairPressed[a->index][b->index] = 0.0;
        ++events;
        if (slip >= 1e-15) {
            double friction = (mu0 + mu1 * exp(-mu2 * slip)) * normal, fa, fu, turn = 2.5 / R;
            if (friction > slip / 7) friction = slip / 7;
            fa = friction * across / slip;
            fu = friction * up / slip;
            jx += fa * ny;
            jy -= fa * nx;
            a->wx -= turn * fu * ny;
            b->wx -= turn * fu * ny;
            a->wy += turn * fu * nx;
            b->wy += turn * fu * nx;
            a->wz -= turn * fa;
            b->wz -= turn * fa;
        }
        a->vx += jx;
        a->vy += jy;
        b->vx -= jx;
        b->vy -= jy;
    }
    settle(a, now);
    settle(b, now);
    searchOwn(a);
    searchOwn(b);
    searchPairs(a);
    searchPairs(b);
}

static void rebound(Body *b, int surface)
{
    double nx, ny, gap, approach, vx, vy, wx, wy;
    if (surface < 4) {
        nx = surface == 0 ? -1.0 : surface == 1 ? 1.0 : 0.0;
        ny = surface == 2 ? -1.0 : surface == 3 ? 1.0 : 0.0;
        gap = surface == 0 ? b->x - R : surface == 1 ? length_ - R - b->x : surface == 2 ? b->y - R : width_ - R - b->y;
    } else {
        const double *p = pocket[surface / 4 - 1];
        int k = surface % 4;
        double dx = b->x - p[2 * (k % 2)], dy = b->y - p[2 * (k % 2) + 1];
        if (k < 2) {
            nx = -p[8 + 2 * k];
            ny = -p[9 + 2 * k];
            gap = -dx * nx - dy * ny - R;
        } else {
            double d = sqrt(dx * dx + dy * dy);
            nx = -dx / d;
            ny = -dy / d;
            gap = d - R;
        }
    }
    approach = b->vx * nx + b->vy * ny;
    if (approach <= 0.0) {
        b->pressed[surface] = 0.0;
    } else if (approach < (b->pressed[surface] > 0.0 && b->pressed[surface] >= now - GAP ? PRESSED_APPROACH : SLOW)) {
        b->vx -= approach * nx;
        b->vy -= approach * ny;
        if (gap < 0.0 && gap > -1e-4) {
            b->x += gap * nx;
            b->y += gap * ny;
        }
        b->pressed[surface] = now + PRESSED;
    } else {
        b->pressed[surface] = 0.0;
        vx = b->vx * ny - b->vy * nx;
        vy = approach;
        wx = b->wx * ny - b->wy * nx;
        wy = b->wx * nx + b->wy * ny;
        cushion(&vx, &vy, &wx, &wy, &b->wz);
        b->vx = vx * ny + vy * nx;
        b->vy = vy * ny - vx * nx;
        b->wx = wx * ny + wy * nx;
        b->wy = wy * ny - wx * nx;
        ++events;
    }
    settle(b, now);
}

static void happen(Body *b)
{
    now = b->ownTime > b->since ? b->ownTime : b->since;
    advance(b, now);
    switch (b->ownKind) {
    case PHASE_ENDS:
        if (b->phase == SLIDING) {
            b->wx = -b->vy / R;
            b->wy = b->vx / R;
        } else if (b->phase == ROLLING) {
            b->vx = b->vy = b->wx = b->wy = 0.0;
        } else {
            b->wz = 0.0;
        }
        settle(b, now);
        ++events;
        break;
    case SURFACE: rebound(b, b->ownSurface); break;
    case LEAVES_ZONE: b->zone = -1; b->drops = INFINITY; break;
    case ENTERS_HOLE: b->drops = now + DROP_TIME; break;
    case LEAVES_HOLE: b->drops = INFINITY; break;
    case DROPS:
        b->phase = POCKETED;
        b->phaseEnds = b->ownTime = b->pairTime = INFINITY;
        b->vx = b->vy = b->ax = b->ay = 0.0;
        b->partner = -1;
        ++events;
        break;
    }
    searchOwn(b);
    searchPairs(b);
}

static void run(void)
{
    int i, step;
    now = 0.0;
    events = 0;
    memset(pairPressed, 0, sizeof pairPressed);
    for (i = 0; i < n; ++i) {
        B[i].left = B[i].right = B[i].x;
        B[i].bottom = B[i].top = B[i].y;
    }
    B[0].awake = 1;
    settle(B, 0.0);
    searchOwn(B);
    searchPairs(B);
    for (step = 0; step < 100000; ++step) {
        Body *next = NULL;
        double time = INFINITY;
        int pair = 0;
        for (i = 0; i < n; ++i) {
            if (!B[i].awake) continue;
            if (B[i].ownTime < time) { time = B[i].ownTime; next = B + i; pair = 0; }
            if (B[i].pairTime < time) { time = B[i].pairTime; next = B + i; pair = 1; }
        }
        if (!next) return;
        if (pair) {
            Body *fastest = next;
            double most = -INFINITY;
            now = next->pairTime;
            for (i = 0; i < n; ++i) {
                Body *b = B + i;
                if (b->pairTime <= next->pairTime + SAME && b->partner >= 0 && b != next && (i != next->partner || b->partner != next->index)) {
                    double c;
                    if (most == -INFINITY) most = closing(next, B + next->partner);
                    c = closing(b, B + b->partner);
                    if (c > most) { most = c; fastest = b; }
                }
            }
            meet(fastest);
        } else {
            happen(next);
        }
    }
    abort();
}

static double seconds(void)
{
    struct timespec t;
    clock_gettime(CLOCK_MONOTONIC, &t);
    return t.tv_sec + 1e-9 * t.tv_nsec;
}

static double number(void)
{
    double v;
    if (scanf("%lf", &v) != 1) exit(2);
    return v;
}

static void lay(const double *shot)
{
    int i;
    memset(B, 0, sizeof B);
    for (i = 0; i < n; ++i) {
        B[i].index = i;
        B[i].x = shot[2 * i];
        B[i].y = shot[2 * i + 1];
        B[i].phase = AT_REST;
        B[i].zone = B[i].partner = -1;
        B[i].phaseEnds = B[i].drops = B[i].ownTime = B[i].pairTime = INFINITY;
    }
    B[0].vx = shot[2 * n];
    B[0].vy = shot[2 * n + 1];
    B[0].wx = shot[2 * n + 2];
    B[0].wy = shot[2 * n + 3];
    B[0].wz = shot[2 * n + 4];
}

/*
 * Standard input: the 17 constants in the order of their declaration, 6 x 20 numbers of the pockets, number of shots, then for each its
 * number of balls, their x and y, and vx vy wx wy wz of the first. After that, as long as a 1 comes: all shots are played in turn, twice, and a
 * line says how many microseconds each took the second time, when the processor is awake again. So the caller's rounds and these can
 * alternate, and both meet the same noise and the same unpractised branch predictor. At the end a line a shot: events, and x, y and phase of each ball; at last the time of one cushion contact.
 */
int main(void)
{
    double *all[256], t, sum = 0.0;
    int counts[256], shots, i, j;
    double *constants[] = {&R, &length_, &width_, &slideRate, &rollRate, &spinDecay, &eb, &mu0, &mu1, &mu2, &noseSin, &noseCos, &noseMu, &clothMu, &returned, &cornerCut, &sideHalf};
    for (i = 0; i < 17; ++i) *constants[i] = number();
    for (i = 0; i < 6; ++i) for (j = 0; j < 20; ++j) pocket[i][j] = number();
    shots = (int) number();
    if (shots > 256) return 2;
    for (i = 0; i < shots; ++i) {
        counts[i] = (int) number();
        all[i] = malloc(sizeof(double) * (2 * counts[i] + 5));
        for (j = 0; j < 2 * counts[i] + 5; ++j) all[i][j] = number();
    }
    while (number() == 1.0) {
        double times[256];
        for (j = 0; j < 2; ++j) {
            for (i = 0; i < shots; ++i) {
                n = counts[i];
                t = seconds();
                lay(all[i]);
                run();
                times[i] = seconds() - t;
            }
        }
        for (i = 0; i < shots; ++i) printf("%.3f ", 1e6 * times[i]);
        printf("\n");
        fflush(stdout);
    }
    for (i = 0; i < shots; ++i) {
        n = counts[i];
        lay(all[i]);
        run();
        printf("%d", events);
        for (j = 0; j < n; ++j) printf(" %.12g %.12g %d", B[j].x, B[j].y, B[j].phase);
        printf("\n");
    }
    t = seconds();
    for (i = 0; i < 20000; ++i) {
        double vx = 0.5 + 0.00005 * i, vy = 1.0, wx = -30, wy = 10, wz = 5;
        cushion(&vx, &vy, &wx, &wy, &wz);
        sum += vx;
    }
    printf("cushion %.4f %.3g\n", 1e6 * (seconds() - t) / 20000, sum);
    return 0;
}
