<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

use ZigLane\Core\Motion\CushionLaw;
use ZigLane\Core\Motion\Tolerances;

/**
 * One ball while a shot is simulated: its state at `since` (its own time base), the constant accelerations from then on, what will happen
 * to it next, and what it does by itself: it slides, rolls, turns on its spot and stops; it meets rails, jaws and noses; it comes into the
 * surroundings of a pocket and drops. SI units.
 *
 * Surfaces that stay pressed together would meet endlessly at ever shorter intervals: a contact slower than `slowApproach` is
 * plastic, makes no event, and is looked at again only after `pressed` seconds.
 *
 * The hottest code of the product (docs/performance.md). PHP's compiler knows where a property is only in the object's own methods, so a
 * ball does all this itself and has the numbers of the table with it. It keeps a number in a register only where it knows its type: so the
 * state is handed on as arguments of type float, computed with in local variables and written down once at the end; what is given to
 * methods of other classes is an expression and no variable (it might be taken by reference). The state has its types in words only: PHP
 * checks every write to a typed property by a call.
 *
 * @internal
 */
final class Body
{
    public const SLIDING = 0;
    public const ROLLING = 1;
    public const SPINNING = 2;
    public const AT_REST = 3;
    public const POCKETED = 4;
    public const CONTACT = 5;

    // What happens next.
    public const PHASE_ENDS = 0;
    public const SURFACE = 1;
    public const DROPS = 2;
    public const LEAVES_ZONE = 3;
    public const ENTERS_HOLE = 4;
    public const LEAVES_HOLE = 5;
    /** A contact with a surface that was none, or that made no event. */
    public const PRESSED = 6;
    /** No event: the ball is only moved to a later time. */
    private const ADVANCED = 7;

    /** Time inside the hole's circle after which a ball has dropped, seconds (docs/physics.md, section 6). */
    private const DROP_TIME = 0.040;

    /**
     * On a slope: a slip or roll slower than this, m/s, ends on a straight line; a roll of which at the end of a piece less than this
     * square is left has ended; the share of its time of a piece; and radians of turn.
     */
    private const CRAWL = 0.01;
    private const ENDED_SQUARE = 1e-10;
    private const PIECE = 0.5;
    private const TURNS = 0.1;

    // As in Surfaces, whose constants would be looked up at run time: numbers of surfaces, and where the numbers of a pocket stand.
    private const FACING = 4;
    private const NOSE_POINT = 6;
    private const NOSE = 0;
    private const FACING_ALONG = 4;
    private const NORMAL = 8;
    private const MOUTH_X = 12;
    private const MOUTH_Y = 13;
    private const AXIS_X = 14;
    private const AXIS_Y = 15;
    private const HOLE_X = 16;
    private const HOLE_Y = 17;
    private const HOLE_RADIUS = 18;
    private const DEPTH = 19;

    /** @var float */
    public $since = 0.0;
    /** @var float */
    public $vx = 0.0;
    /** @var float */
    public $vy = 0.0;
    /** @var float */
    public $ax = 0.0;
    /** @var float */
    public $ay = 0.0;
    /** @var float */
    public $wx = 0.0;
    /** @var float */
    public $wy = 0.0;
    /** @var float */
    public $wz = 0.0;
    /** @var int */
    public $phase = self::AT_REST;

    /** @var int the pocket whose surroundings the ball is in, as an index; -1 on the open table. */
    public $zone = -1;
    /** @var float when it comes or came there; it is seen ahead. */
    public $enters = 0.0;
    /** @var float when it drops unless it leaves the hole's circle before; INF outside the circle. */
    public $drops = \INF;

    /** @var float its next event with the table or with its own motion. */
    public $ownTime = \INF;
    /** @var int */
    public $ownKind = 0;
    /** @var int */
    public $ownSurface = -1;
    /** @var float its next meeting with another ball. */
    public $pairTime = \INF;
    /** @var self|null */
    public $partner;

    /** @var float the box that the centre stays in until its own next event. */
    public $left = 0.0;
    /** @var float */
    public $right = 0.0;
    /** @var float */
    public $bottom = 0.0;
    /** @var float */
    public $top = 0.0;

    /** @var bool */
    public $hasMoved = false;

    /** @var bool the cue ball, which may weigh more or less than the others */
    public $isCue = false;

    /** @var array<int, float> until when a surface that it is pressed to is left alone, keyed by surface */
    public array $pressedUntil = [];

    /**
     * @var list<array{float, int, float, float, float, float, float, float, float, float, float}> since, phase, x, y, vx, vy, ax, ay, wx,
     *                                                                                             wy, wz
     */
    public array $track = [];

    /** @var float until when the last of them is */
    public $pressedLatest = -1.0;

    /** @var int its place in the list of all balls */
    public $index;
    /** @var bool whether the pieces of its path are kept */
    public $isTracked;
    /** @var float */
    public $x;
    /** @var float */
    public $y;

    private readonly CushionLaw $cushion;
    private readonly Surfaces $surfaces;
    private readonly Tolerances $tolerances;
    private readonly float $radius;
    private readonly float $perRadius;
    /** Angular acceleration of a sliding ball over the acceleration of its centre. */
    private readonly float $turn;
    private readonly float $slideRate;
    private readonly float $rollRate;
    private readonly float $spinDecay;
    /** How long a slip of 1 m/s takes to end, and a rolling ball of 1 m/s to stop. */
    private readonly float $slideTime;
    private readonly float $rollTime;
    private readonly float $slipSquare;
    private readonly float $stillSquare;
    private readonly float $leastSpin;
    private readonly float $gap;
    private readonly float $reach;
    /** The faster of the two speeds below which a contact is plastic. */
    private readonly float $pressedApproach;
    /** What pulls it downhill, and whether there is a slope. */
    private readonly float $pullX;
    private readonly float $pullY;
    private readonly bool $isSloped;
    /** What a piece of a path on a slope lacks of the velocity at its end, m/s. */
    private float $lackX = 0.0;
    private float $lackY = 0.0;
    private readonly float $headRail;
    private readonly float $footRail;
    private readonly float $rightRail;
    private readonly float $leftRail;

    public function __construct(
        Conditions $conditions,
        private readonly Meetings $meetings,
        int $index,
        float $x,
        float $y,
        bool $isTracked = true,
    ) {
        $this->index = $index;
        $this->isTracked = $isTracked;
        $this->lie($x, $y);
        $this->cushion = $conditions->cushion;
        $this->surfaces = $conditions->surfaces;
        $this->tolerances = $conditions->tolerances;
        $this->radius = $conditions->radius;
        $this->perRadius = 1 / $conditions->radius;
        $this->turn = 2.5 / $conditions->radius;
        $this->slideRate = $conditions->slideRate;
        $this->rollRate = $conditions->rollRate;
        $this->spinDecay = $conditions->spinDecay;
        $this->slideTime = 2 / (7 * $conditions->slideRate);
        $this->rollTime = 1 / $conditions->rollRate;
        $this->slipSquare = $conditions->tolerances->slip ** 2;
        $this->stillSquare = $conditions->tolerances->still ** 2;
        $this->leastSpin = $conditions->tolerances->spin;
        $this->gap = $conditions->tolerances->gap;
        $this->reach = 2 * $conditions->radius;
        $this->pressedApproach = max($conditions->tolerances->pressedApproach, $conditions->tolerances->slowApproach);
        $this->pullX = $conditions->pullX;
        $this->pullY = $conditions->pullY;
        $this->isSloped = 0.0 !== $conditions->pullX || 0.0 !== $conditions->pullY;
        $this->headRail = $conditions->headRail;
        $this->footRail = $conditions->footRail;
        $this->rightRail = $conditions->rightRail;
        $this->leftRail = $conditions->leftRail;
    }

    /** Lies at a spot, as if nothing had happened to it. */
    public function lie(float $x, float $y): void
    {
        $this->since = 0.0;
        $this->vx = $this->vy = $this->ax = $this->ay = $this->wx = $this->wy = $this->wz = 0.0;
        $this->phase = self::AT_REST;
        $this->zone = -1;
        $this->enters = 0.0;
        $this->drops = $this->ownTime = $this->pairTime = \INF;
        $this->partner = null;
        $this->hasMoved = false;
        if ($this->pressedLatest > 0.0) {
            $this->pressedUntil = [];
            $this->pressedLatest = -1.0;
        }
        $this->x = $this->left = $this->right = $x;
        $this->y = $this->bottom = $this->top = $y;
    }

    public function isMoving(): bool
    {
        return $this->phase <= self::ROLLING;
    }

    /** Writes down the piece of path that begins now. */
    public function keep(): void
    {
        $this->track[] = [
            $this->since, $this->phase, $this->x, $this->y, $this->vx, $this->vy, $this->ax, $this->ay,
            $this->wx, $this->wy, $this->wz,
        ];
    }

    /** Writes a piece of path on which contacts acted: straight, from the present spot, with the mean velocity. */
    public function trackContact(float $vx, float $vy): void
    {
        if ($this->isTracked) {
            $this->track[] = [$this->since, self::CONTACT, $this->x, $this->y, $vx, $vy, 0.0, 0.0, $this->wx, $this->wy, $this->wz];
        }
    }

    /** The ball has dropped: it takes part in nothing any more. */
    public function drop(float $time): void
    {
        $this->phase = self::POCKETED;
        $this->ownTime = $this->pairTime = \INF;
        $this->partner = null;
        $this->vx = $this->vy = $this->ax = $this->ay = 0.0;
        if ($this->isTracked) {
            $this->track[] = [$time, self::POCKETED, $this->x, $this->y, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0];
        }
    }

    /** Finds whether the ball lies between the noses of a pocket, where it begins to move. */
    public function findZone(): void
    {
        $outside = $this->x < $this->headRail - 1e-4
            || $this->y < $this->rightRail - 1e-4
            || $this->x > $this->footRail + 1e-4
            || $this->y > $this->leftRail + 1e-4;
        $this->zone = $outside ? $this->surfaces->nearestPocket($this->x, $this->y) : -1;
    }

    /** Moves a ball's state and its time base to a later time within its present phase. */
    public function advance(float $time): void
    {
        if ($time > $this->since) {
            $this->play(
                self::ADVANCED, $this->phase, $time, $this->since, $this->x, $this->y, $this->vx, $this->vy,
                $this->ax, $this->ay, $this->wx, $this->wy, $this->wz,
            );
        }
    }

    /** After a change of velocity or spin: finds the phase, with it the accelerations, and the ball's next own event. */
    public function settle(float $now): void
    {
        $this->begin($now, $this->x, $this->y, $this->vx, $this->vy, $this->wx, $this->wy, $this->wz);
    }

    /**
     * A new piece of path begins: its phase and accelerations, the ball's next own event, and its meeting with one that lies where it lay.
     */
    private function begin(float $now, float $x, float $y, float $vx, float $vy, float $wx, float $wy, float $wz): void
    {
        $size = $this->radius;
        $ux = $vx - $size * $wy;
        $uy = $vy + $size * $wx;
        $square = $ux * $ux + $uy * $uy;
        $ax = $ay = 0.0;
        if ($square > $this->slipSquare) {
            $phase = self::SLIDING;
            $size = \sqrt($square);
            $ends = $now + $size * $this->slideTime;
            $size = $this->slideRate / $size;
            $ax = -$size * $ux;
            $ay = -$size * $uy;
            if ($this->isSloped) {
                // Of what is lost of the slip two sevenths are the centre's, the rest its turning's.
                [$ax, $ay, $size] = $this->onSlope($ux + 0.0, $uy + 0.0, 3.5 * $this->slideRate, 0.0 + $this->pullX, 0.0 + $this->pullY);
                $ends = $now + $size;
                $ax = 2 / 7 * $ax + 5 / 7 * $this->pullX;
                $ay = 2 / 7 * $ay + 5 / 7 * $this->pullY;
            }
        } else {
            // What little slip is left goes as sliding would have ended it, so that no energy is gained.
            $vx -= 2 / 7 * $ux;
            $vy -= 2 / 7 * $uy;
            $square = $vx * $vx + $vy * $vy;
            if ($square > $this->stillSquare) {
                $phase = self::ROLLING;
                $size = $this->perRadius;
                $wx = -$vy * $size;
                $wy = $vx * $size;
                $size = \sqrt($square);
                $ends = $now + $size * $this->rollTime;
                $size = $this->rollRate / $size;
                $ax = -$size * $vx;
                $ay = -$size * $vy;
                if ($this->isSloped) {
                    // Of the pull five sevenths act: the rest turns the ball.
                    [$ax, $ay, $size] = $this->onSlope(
                        $vx + 0.0, $vy + 0.0, 0.0 + $this->rollRate, 5 / 7 * $this->pullX, 5 / 7 * $this->pullY,
                    );
                    $ends = $now + $size;
                }
            } else {
                $vx = $vy = $wx = $wy = 0.0;
                if ($wz > $this->leastSpin || $wz < -$this->leastSpin) {
                    $phase = self::SPINNING;
                    // Where no path is kept the end of the spin is no event: a ball that is met before has as much left as it would have.
                    $ends = $this->isTracked ? $now + ($wz > 0.0 ? $wz : -$wz) / $this->spinDecay : \INF;
                } else {
                    $wz = 0.0;
                    $phase = self::AT_REST;
                    $ends = \INF;
                }
            }
        }
        if ($phase < self::AT_REST && !$this->hasMoved) {
            $this->hasMoved = true;
        }
        $this->since = $now;
        $this->phase = $phase;
        $this->x = $x;
        $this->y = $y;
        $this->vx = $vx;
        $this->vy = $vy;
        $this->ax = $ax;
        $this->ay = $ay;
        $this->wx = $wx;
        $this->wy = $wy;
        $this->wz = $wz;
        if ($this->isTracked) {
            $this->keep();
        }
        $drops = $this->drops;
        if ($phase > self::ROLLING) {
            $this->ownTime = $drops < $ends ? $drops : $ends;
            $this->ownKind = $drops < $ends ? self::DROPS : self::PHASE_ENDS;
            $this->ownSurface = -1;
            $this->left = $this->right = $x;
            $this->bottom = $this->top = $y;
            $this->pairTime = \INF;
            $this->partner = null;

            return;
        }
        // The box that the ball stays in until its phase ends; on the open table, where that is past a rail's nose line, when the ball is
        // there, and what then: it meets the nose, or comes in between the noses of a pocket.
        $zone = $this->zone;
        $isFound = $zone >= 0;
        $time = $isFound ? $this->searchZone($zone, $now, $ends, $drops, $x, $y, $vx, $vy, $ax, $ay) : $ends;
        // Ends: what the first round finds, the second takes.
        while (true) {
            // Chord and sagitta of the parabola along each axis.
            $seconds = $time - $now;
            $left = $x;
            $right = $x + $seconds * ($vx + 0.5 * $seconds * $ax);
            if ($right < $left) {
                $left = $right;
                $right = $x;
            }
            $bottom = $y;
            $top = $y + $seconds * ($vy + 0.5 * $seconds * $ay);
            if ($top < $bottom) {
                $bottom = $top;
                $top = $y;
            }
            $bend = 0.125 * $seconds * $seconds;
            $size = $ax < 0.0 ? -$bend * $ax : $bend * $ax;
            $left -= $size;
            $right += $size;
            $size = $ay < 0.0 ? -$bend * $ay : $bend * $ay;
            $bottom -= $size;
            $top += $size;
            if ($isFound) {
                break;
            }
            $surface = -1;
            if ($left <= $this->headRail) {
                $at = $this->reaches(0, $now, $x - $this->headRail, $vx, $ax);
                if ($at < $time) {
                    $time = $at;
                    $surface = 0;
                }
            }
            if ($right >= $this->footRail) {
                $at = $this->reaches(1, $now, $this->footRail - $x, -$vx, -$ax);
                if ($at < $time) {
                    $time = $at;
                    $surface = 1;
                }
            }
            if ($bottom <= $this->rightRail) {
                $at = $this->reaches(2, $now, $y - $this->rightRail, $vy, $ay);
                if ($at < $time) {
                    $time = $at;
                    $surface = 2;
                }
            }
            if ($top >= $this->leftRail) {
                $at = $this->reaches(3, $now, $this->leftRail - $y, -$vy, -$ay);
                if ($at < $time) {
                    $time = $at;
                    $surface = 3;
                }
            }
            $this->ownKind = $surface < 0 ? self::PHASE_ENDS : self::SURFACE;
            $this->ownSurface = $surface;
            if ($surface < 0) {
                break;
            }
            $seconds = $time - $now;
            $ex = $x + $seconds * ($vx + 0.5 * $seconds * $ax);
            $ey = $y + $seconds * ($vy + 0.5 * $seconds * $ay);
            $isFound = true;
            if (!$this->surfaces->isOnNose($surface + 0, $surface < 2 ? $ey + 0.0 : $ex + 0.0)) {
                $this->enters = $time;
                $zone = $this->surfaces->nearestPocket($ex + 0.0, $ey + 0.0);
                $this->zone = $zone;
                $time = $this->searchZone($zone, $time, $ends, \INF, $ex, $ey, $vx + $seconds * $ax, $vy + $seconds * $ay, $ax, $ay);
            }
        }
        $this->ownTime = $time;
        $this->left = $left;
        $this->right = $right;
        $this->bottom = $bottom;
        $this->top = $top;
        $reach = $this->reach;
        $this->meetings->searchStill(
            $this, $now, $x, $y, $vx, $vy, $ax, $ay, $left - $reach, $right + $reach, $bottom - $reach,
            $top + $reach,
        );
    }

    /**
     * Lets the ball's next own event happen, and finds the one after it.
     *
     * @return int which it was; SURFACE for a rebound, PRESSED for a contact that made none
     */
    public function happen(): int
    {
        return $this->play(
            $this->ownKind, $this->phase, $this->ownTime, $this->since, $this->x, $this->y, $this->vx,
            $this->vy, $this->ax, $this->ay, $this->wx, $this->wy, $this->wz,
        );
    }

    private function play(
        int $kind, int $phase, float $now, float $since, float $x, float $y, float $vx, float $vy, float $ax,
        float $ay, float $wx, float $wy, float $wz,
    ): int {
        if ($now > $since) {
            $dt = $now - $since;
            if ($phase <= self::ROLLING) {
                $x += $dt * ($vx + 0.5 * $dt * $ax);
                $y += $dt * ($vy + 0.5 * $dt * $ay);
                $vx += $dt * $ax;
                $vy += $dt * $ay;
                if (self::ROLLING === $phase) {
                    $wx = -$vy * $this->perRadius;
                    $wy = $vx * $this->perRadius;
                } else {
                    // Friction alone turns it.
                    $wx += $this->turn * $dt * ($ay - $this->pullY);
                    $wy -= $this->turn * $dt * ($ax - $this->pullX);
                }
            }
            $lost = $this->spinDecay * $dt;
            $wz = $wz > $lost ? $wz - $lost : ($wz < -$lost ? $wz + $lost : 0.0);
        } else {
            $now = $since;
        }
        if (self::PHASE_ENDS === $kind) {
            if ($this->isSloped && $phase <= self::ROLLING && (self::SLIDING === $phase || $vx * $vx + $vy * $vy > self::ENDED_SQUARE)) {
                // Of slip two sevenths are the centre's and the rest its turning's; a rolling ball turns with its centre.
                $share = self::SLIDING === $phase ? 2 / 7 : 1.0;
                $turn = self::SLIDING === $phase ? $this->turn : -$this->perRadius;
                $lackX = $share * $this->lackX;
                $lackY = $share * $this->lackY;
                $this->begin($now, $x, $y, $vx + $lackX, $vy + $lackY, $wx + $turn * $lackY, $wy - $turn * $lackX, $wz);

                // A piece of the same motion follows.
                return $phase === $this->phase ? self::PRESSED : $kind;
            }
            if (self::SLIDING === $phase) {
                $wx = -$vy * $this->perRadius;
                $wy = $vx * $this->perRadius;
            } elseif (self::ROLLING === $phase) {
                $vx = $vy = $wx = $wy = 0.0;
            } else {
                $wz = 0.0;
            }
            $this->begin($now, $x, $y, $vx, $vy, $wx, $wy, $wz);

            return $kind;
        }
        if (self::SURFACE === $kind) {
            return $this->rebound($this->ownSurface, $now, $x, $y, $vx, $vy, $wx, $wy, $wz);
        }
        if (self::DROPS === $kind) {
            $this->since = $now;
            $this->x = $x;
            $this->y = $y;
            $this->wx = $wx;
            $this->wy = $wy;
            $this->wz = $wz;
            $this->drop($now + 0.0);

            return $kind;
        }
        if (self::ADVANCED !== $kind) {
            if (self::LEAVES_ZONE === $kind) {
                $this->zone = -1;
            }
            $this->drops = self::ENTERS_HOLE === $kind ? $now + self::DROP_TIME : \INF;
            $this->begin($now, $x, $y, $vx, $vy, $wx, $wy, $wz);

            return $kind;
        }
        // What was seen ahead has not come yet: the surroundings of a pocket, its hole.
        if ($this->zone >= 0 && $now < $this->enters) {
            $this->zone = -1;
        }
        if ($now < $this->drops - self::DROP_TIME) {
            $this->drops = \INF;
        }
        $this->since = $now;
        $this->x = $x;
        $this->y = $y;
        $this->vx = $vx;
        $this->vy = $vy;
        $this->wx = $wx;
        $this->wy = $wy;
        $this->wz = $wz;

        return $kind;
    }

    /**
     * A piece of a path on a slope. What friction takes of a vector (the slip of a sliding ball, the velocity of a rolling one) points
     * against it, and the slope turns it: a step of Runge and Kutta's rule finds where a piece ends and with which velocity. The constant
     * acceleration is the one that comes to that spot; what the velocity then lacks of the curve's is added at the end. A piece ends where
     * the vector has turned by some degrees, or has lost a share of itself; a short one is ended on a straight line.
     *
     * @param float $loss by friction, m/s^2
     *
     * @return array{float, float, float} the vector's rate, m/s^2, and seconds
     */
    private function onSlope(float $ux, float $uy, float $loss, float $pullX, float $pullY): array
    {
        $size = \sqrt($ux * $ux + $uy * $uy);
        $slows = $loss - ($pullX * $ux + $pullY * $uy) / $size;
        $ends = $size / $slows;
        $this->lackX = $this->lackY = 0.0;
        if ($size < self::CRAWL) {
            return [-$slows * $ux / $size, -$slows * $uy / $size, $ends];
        }
        $across = abs($pullX * $uy - $pullY * $ux) / $size;
        $seconds = min(self::PIECE * $ends, self::TURNS * $size / max($across, 1e-12));
        $rates = [];
        $rx = $ry = 0.0;
        foreach ([0.0, 0.5, 0.5, 1.0] as $share) {
            $x = $ux + $share * $seconds * $rx;
            $y = $uy + $share * $seconds * $ry;
            $friction = $loss / \sqrt($x * $x + $y * $y);
            $rates[] = [$rx = $pullX - $friction * $x, $ry = $pullY - $friction * $y];
        }
        [[$x1, $y1], [$x2, $y2], [$x3, $y3], [$x4, $y4]] = $rates;
        $ax = ($x1 + $x2 + $x3) / 3;
        $ay = ($y1 + $y2 + $y3) / 3;
        $this->lackX = $seconds * (($x1 + 2 * $x2 + 2 * $x3 + $x4) / 6 - $ax);
        $this->lackY = $seconds * (($y1 + 2 * $y2 + 2 * $y3 + $y4) / 6 - $ay);

        return [$ax, $ay, $seconds];
    }

    private function rebound(int $surface, float $now, float $x, float $y, float $vx, float $vy, float $wx, float $wy, float $wz): int
    {
        if ($surface >= self::FACING) {
            [$nx, $ny, $gap] = $this->surfaces->towards($x + 0.0, $y + 0.0, $surface + 0);
        } elseif ($surface < 2) {
            $nx = 0 === $surface ? -1.0 : 1.0;
            $ny = 0.0;
            $gap = 0 === $surface ? $x - $this->headRail : $this->footRail - $x;
        } else {
            $nx = 0.0;
            $ny = 2 === $surface ? -1.0 : 1.0;
            $gap = 2 === $surface ? $y - $this->rightRail : $this->leftRail - $y;
        }
        $approach = $vx * $nx + $vy * $ny;
        // An approach of nought is one that friction is just turning towards the surface: pressed, or it would be met for ever at once.
        if ($approach < 0.0) {
            // Left by itself while it was let alone; the pressure is over.
            unset($this->pressedUntil[$surface]);
            $this->begin($now, $x, $y, $vx, $vy, $wx, $wy, $wz);

            return self::PRESSED;
        }
        if ($approach < $this->pressedApproach) {
            $t = $this->tolerances;
            $pressed = ($this->pressedUntil[$surface] ?? -1.0) >= $now - $this->gap;
            if ($pressed || $approach < $t->slowApproach) {
                if ($gap < 0.0 && $gap > -1e-4) {
                    $x += $gap * $nx;
                    $y += $gap * $ny;
                }
                $this->pressedLatest = $now + $t->pressed;
                $this->pressedUntil[$surface] = $this->pressedLatest;
                $this->begin($now, $x, $y, $vx - $approach * $nx, $vy - $approach * $ny, $wx, $wy, $wz);

                return self::PRESSED;
            }
        }
        if ($this->pressedLatest > 0.0) {
            unset($this->pressedUntil[$surface]);
        }
        $law = $this->cushion;
        $law->meet($nx + 0.0, $ny + 0.0, $vx + 0.0, $vy + 0.0, $wx + 0.0, $wy + 0.0, $wz + 0.0);
        $this->begin($now, $x, $y, $law->vx, $law->vy, $law->wx, $law->wy, $law->wz);

        return self::SURFACE;
    }

    /**
     * First time >= 0 at which a gap g + v t + a t^2 / 2 has closed and goes on closing; INF if never. A gap within the tolerance (or
     * already negative) counts as closed.
     */
    public function crossing(float $gap, float $v, float $a): float
    {
        if ($gap <= $this->gap) {
            if ($v < 0.0 || (0.0 === $v && $a < 0.0)) {
                return 0.0;
            }

            return $a < 0.0 ? -2 * $v / $a : \INF;
        }
        $discriminant = $v * $v - 2 * $a * $gap;
        if ($discriminant < 0.0) {
            return \INF;
        }
        $root = \sqrt($discriminant);
        if ($v < 0.0) {
            return 2 * $gap / ($root - $v);
        }

        return $a < 0.0 ? ($v + $root) / -$a : \INF;
    }

    /** When a gap has closed to a surface, or until when that is let alone. */
    private function reaches(int $surface, float $since, float $gap, float $v, float $a): float
    {
        return $this->notPressed($surface, $since + $this->crossing($gap, $v, $a));
    }

    /**
     * When a gap has closed to a rail beside a pocket, on its nose and before a time; INF if it does not. $along is the place along the
     * rail, with its velocity and acceleration.
     */
    private function reachesNose(
        int $rail, float $since, float $before, float $gap, float $v, float $a, float $along, float $vAlong,
        float $aAlong,
    ): float {
        if ($gap < -1e-4) {
            return \INF;
        }
        $t = $this->crossing($gap, $v, $a);

        return $since + $t < $before && $this->surfaces->isOnNose($rail + 0, $along + $t * ($vAlong + 0.5 * $t * $aAlong))
            ? $this->notPressed($rail, $since + $t)
            : \INF;
    }

    /** The time of a contact, or that until which the surface is let alone. */
    private function notPressed(int $surface, float $time): float
    {
        if ($time < $this->pressedLatest) {
            $until = (float) ($this->pressedUntil[$surface] ?? -1.0);
            if ($until > $time) {
                return $until;
            }
        }

        return $time;
    }

    /**
     * In the surroundings of a pocket: the rails beside it, its noses, facings and hole, and the way back to the open table. Of a moving
     * ball that is there since then, or will be: its fall is seen ahead too, so neither coming there nor coming to the hole is an event.
     * Writes down what comes first.
     *
     * @return float when
     */
    private function searchZone(
        int $zone, float $since, float $phaseEnds, float $drops, float $x, float $y, float $vx, float $vy,
        float $ax, float $ay,
    ): float {
        $time = $phaseEnds;
        $kind = self::PHASE_ENDS;
        $surface = -1;
        if ($drops < $time) {
            $time = $drops;
            $kind = self::DROPS;
        }
        $pocket = $this->surfaces->pockets[$zone];
        $isSide = 1 === $zone % 3;
        // The rails beside it. A ball that is already between the noses meets these at their points.
        $side = $zone < 3 ? 1.0 : -1.0;
        $rail = $zone < 3 ? 2 : 3;
        $at = $this->reachesNose(
            $rail,
            $since,
            $time,
            $zone < 3 ? $y - $this->rightRail : $this->leftRail - $y,
            $side * $vy,
            $side * $ay,
            $x,
            $vx,
            $ax,
        );
        if ($at < $time) {
            $time = $at;
            $kind = self::SURFACE;
            $surface = $rail;
        }
        if (!$isSide) {
            $side = 0 === $zone % 3 ? 1.0 : -1.0;
            $rail = 0 === $zone % 3 ? 0 : 1;
            $at = $this->reachesNose(
                $rail,
                $since,
                $time,
                0 === $zone % 3 ? $x - $this->headRail : $this->footRail - $x,
                $side * $vx,
                $side * $ax,
                $y,
                $vy,
                $ay,
            );
            if ($at < $time) {
                $time = $at;
                $kind = self::SURFACE;
                $surface = $rail;
            }
        }
        // Its two sides: a nose point, and the facing that runs from it into the pocket, with the direction square to that.
        $radius = $this->radius;
        $closed = $this->gap;
        for ($jaw = 0; $jaw < 2; ++$jaw) {
            $dx = $x - $pocket[self::NOSE + 2 * $jaw];
            $dy = $y - $pocket[self::NOSE + 2 * $jaw + 1];
            $px = $pocket[self::NORMAL + 2 * $jaw];
            $py = $pocket[self::NORMAL + 2 * $jaw + 1];
            $gap = $dx * $px + $dy * $py - $radius;
            if ($gap > -1e-4) {
                $v = $vx * $px + $vy * $py;
                $a = $ax * $px + $ay * $py;
                $horizon = $time - $since;
                // A parabola that bends downwards is lowest at one of its ends.
                if ($a > 0.0 || $gap <= $closed || $gap + $horizon * ($v + 0.5 * $horizon * $a) <= $closed) {
                    $t = $this->crossing($gap, $v, $a);
                    $at = $since + $t;
                    if (
                        $at < $time
                        && ($dx + $t * ($vx + 0.5 * $t * $ax)) * $pocket[self::FACING_ALONG + 2 * $jaw]
                            + ($dy + $t * ($vy + 0.5 * $t * $ay)) * $pocket[self::FACING_ALONG + 2 * $jaw + 1] >= 0.0
                    ) {
                        $at = $this->notPressed(self::FACING + 4 * $zone + $jaw, $at);
                        if ($at < $time) {
                            $time = $at;
                            $kind = self::SURFACE;
                            $surface = self::FACING + 4 * $zone + $jaw;
                        }
                    }
                }
            }
            if ($dx * $vx + $dy * $vy < 0.0 || $dx * $ax + $dy * $ay < 0.0) {
                // The line of the chord, widened by the sagitta, passes most noses by.
                $horizon = $time - $since;
                $ex = $vx + 0.5 * $horizon * $ax;
                $ey = $vy + 0.5 * $horizon * $ay;
                $across = $dx * $ey - $dy * $ex;
                $wide = $radius + 0.125 * $horizon * $horizon * (($ax < 0.0 ? -$ax : $ax) + ($ay < 0.0 ? -$ay : $ay)) + 1e-9;
                if ($across * $across <= $wide * $wide * ($ex * $ex + $ey * $ey)) {
                    $t = Approach::within(
                        $dx + 0.0, $dy + 0.0, $vx + 0.0, $vy + 0.0, $ax + 0.0, $ay + 0.0, $radius + 0.0,
                        $closed + 0.0, $horizon + 0.0,
                    );
                    if ($t < \INF) {
                        $at = $this->notPressed(self::NOSE_POINT + 4 * $zone + $jaw, $since + $t);
                        if ($at < $time) {
                            $time = $at;
                            $kind = self::SURFACE;
                            $surface = self::NOSE_POINT + 4 * $zone + $jaw;
                        }
                    }
                }
            }
        }
        // The hole: past its middle, out of its circle, or into it.
        $axisX = $pocket[self::AXIS_X];
        $axisY = $pocket[self::AXIS_Y];
        $hx = $x - $pocket[self::HOLE_X];
        $hy = $y - $pocket[self::HOLE_Y];
        $inwards = $vx * $axisX + $vy * $axisY;
        $pull = $ax * $axisX + $ay * $axisY;
        $at = $since + $this->crossing(-$hx * $axisX - $hy * $axisY, -$inwards, -$pull);
        if ($at < $time) {
            $time = $at;
            $kind = self::DROPS;
        }
        if ($drops < \INF) {
            $at = $since + Approach::leaving(
                $hx + 0.0, $hy + 0.0, $vx + 0.0, $vy + 0.0, $ax + 0.0, $ay + 0.0,
                $pocket[self::HOLE_RADIUS] + 1e-9, $time - $since,
            );
            if ($at < $time) {
                $time = $at;
                $kind = self::LEAVES_HOLE;
            }
        } elseif ($hx * $vx + $hy * $vy < 0.0 || $hx * $ax + $hy * $ay < 0.0) {
            $at = $since + Approach::within(
                $hx + 0.0, $hy + 0.0, $vx + 0.0, $vy + 0.0, $ax + 0.0, $ay + 0.0,
                $pocket[self::HOLE_RADIUS] + 0.0, 0.0 + $this->gap, $time - $since,
            );
            if ($at < $time) {
                // In the hole until it drops, if nothing comes before that: seen ahead, or looked at again when it comes to the hole.
                $fall = $at + self::DROP_TIME;
                $this->drops = $fall;
                if (self::DROPS !== $kind || $fall < $time) {
                    if ($fall < $time) {
                        $t = $fall - $since;
                        $hx += $t * ($vx + 0.5 * $t * $ax);
                        $hy += $t * ($vy + 0.5 * $t * $ay);
                    }
                    if ($fall < $time && $hx * $hx + $hy * $hy < $pocket[self::HOLE_RADIUS] * $pocket[self::HOLE_RADIUS]) {
                        $time = $fall;
                        $kind = self::DROPS;
                    } else {
                        $this->drops = \INF;
                        $time = $at;
                        $kind = self::ENTERS_HOLE;
                    }
                }
            }
        }
        // Back to the open table.
        $mx = $x - $pocket[self::MOUTH_X];
        $depth = $mx * $axisX + ($y - $pocket[self::MOUTH_Y]) * $axisY + $pocket[self::DEPTH];
        $horizon = $time - $since;
        if ($pull > 0.0 || $depth <= $closed || $depth + $horizon * ($inwards + 0.5 * $horizon * $pull) <= $closed) {
            $at = $since + $this->crossing($depth, $inwards, $pull);
            if ($at < $time) {
                $time = $at;
                $kind = self::LEAVES_ZONE;
            }
        }
        if ($isSide) {
            $reach = $this->surfaces->sideHalf + $pocket[self::DEPTH];
            $end = $mx + $horizon * ($vx + 0.5 * $horizon * $ax);
            if ($ax < 0.0 ? $vx > 0.0 : $end >= $reach - $closed) {
                $at = $since + $this->crossing($reach - $mx, -$vx, -$ax);
                if ($at < $time) {
                    $time = $at;
                    $kind = self::LEAVES_ZONE;
                }
            }
            if ($ax > 0.0 ? $vx < 0.0 : $end <= $closed - $reach) {
                $at = $since + $this->crossing($reach + $mx, $vx, $ax);
                if ($at < $time) {
                    $time = $at;
                    $kind = self::LEAVES_ZONE;
                }
            }
        }
        $this->ownKind = $kind;
        $this->ownSurface = $surface;

        return $time;
    }
}
