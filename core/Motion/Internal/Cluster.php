<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

use ZigLane\Core\Motion\CushionLaw;
use ZigLane\Core\Motion\SimulationLimit;
use ZigLane\Core\Motion\Tolerances;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\TableProfile;

/**
 * The compliant stage: three and more balls that touch or nearly touch are struck as one. Their contacts overlap in time, so
 * each is a spring that pushes while it is pressed in, and all act together in steps of a few microseconds until the balls
 * have parted.
 *
 * Spring: Hertz, F = k d^(3/2) for two equal spheres. Damping: c d^(1/4) times the speed of approach, whose restitution does not depend on
 * the speed (Tsuji, Tanaka and Ishida, Powder Technology 71, 1992); c follows from the restitution in closed form. Friction: Coulomb's,
 * with the coefficient of the slip at first touch, as in the contact of two balls; in all no more than ends the greatest slip (a seventh of
 * it). The line of centres is that of the first touch, also as there. Rails and jaws that a ball meets meanwhile act at once by the cushion
 * law.
 *
 * All per unit of mass. Balls that touch with a slight overlap from the start (LayoutRules::TOUCHING) do not push by it.
 *
 * @internal
 */
final class Cluster
{
    /** The stage is given up, by name, when balls press on each other for longer than this: seconds. */
    private const LONGEST = 0.1;
    /** A tenth of a second takes some 400 at a break's speed. */
    private const ROUNDS = 5000;
    private const STEPS_PER_ROUND = 24;

    private readonly float $radius;
    private readonly float $reach;
    /** Force of a spring over mass and depth^(3/2). */
    private readonly float $spring;
    private readonly float $damping;
    /** The same for a cue ball of another weight with another ball; its mass over theirs turned round; what ends their slip. */
    private readonly float $dampingOfCue;
    private readonly float $lightness;
    private readonly float $gripOfCue;
    /** A contact at 1 m/s lasts this long, seconds; at v, v^(-1/5) times that. */
    private readonly float $duration;
    /** A spring pressed in by less holds less energy than a contact that is plastic. */
    private readonly float $graze;

    private readonly CushionLaw $cushion;
    private readonly float $slideRate;
    private readonly float $spinDecay;

    private bool $wasUsed = false;

    /** @var list<array{float, Body, Body|null, int, float, float}> time, ball, other ball or null, surface, spot */
    private array $contacts = [];

    public function __construct(
        TableProfile $table,
        private readonly BallSet $balls,
        private readonly Surfaces $surfaces,
        private readonly Tolerances $tolerances,
    ) {
        $this->cushion = new CushionLaw($table, $balls);
        $this->slideRate = $table->slide * $table->gravity;
        $this->spinDecay = $table->spinDecay;
        $this->radius = $balls->radius;
        $this->reach = $balls->diameter();
        // Two equal spheres: F = 4/3 E* sqrt(R/2) d^(3/2), E* half of one ball's modulus; the reduced mass is m / 2.
        $this->spring = 4 / 3 * 0.5 * $balls->stiffness * \sqrt(0.5 * $balls->radius) / $balls->mass;
        $loss = -log($balls->restitution);
        $alpha = $loss > 0.0 ? \sqrt(5.0) * $loss / \sqrt($loss ** 2 + \M_PI ** 2) : 0.0;
        $this->damping = $alpha * \sqrt(0.5 * $this->spring);
        // Of the reduced mass over half a ball's.
        $reduced = $balls->takenFromCueBall();
        $this->lightness = 1 / $balls->cueBallWeight;
        $this->dampingOfCue = $this->damping * \sqrt($reduced);
        $this->gripOfCue = 7 / $reduced;
        // Greatest depth from m v^2 / 4 = 2/5 k d^(5/2); the contact lasts 2.943 d / v (Landau and Lifshitz, Theory of Elasticity, section
        // 9).
        $this->duration = 2.943 * (0.625 / $this->spring) ** 0.4;
        $this->graze = (0.625 * $tolerances->slowApproach ** 2 / $this->spring) ** 0.4;
    }

    /** Whether the stage was entered since this was last asked. */
    public function wasUsed(): bool
    {
        $used = $this->wasUsed;
        $this->wasUsed = false;

        return $used;
    }

    /** How long two balls touch that meet at a speed, seconds. */
    public function contactTime(float $approach): float
    {
        return $this->duration * $approach ** -0.2;
    }

    /** How far apart two centres are at the most, metres, for one ball to reach the other while a contact lasts. */
    public function near(float $approach): float
    {
        return $this->reach + $approach * $this->contactTime($approach);
    }

    /**
     * The balls that a contact can reach while it lasts: from ball to ball over gaps that the approach closes in that time (near).
     * Two if there are no others.
     *
     * @param array<int, Body> $bodies
     * @param Body             $a
     * @param Body             $b
     *
     * @return non-empty-list<Body>
     */
    public function around(array $bodies, $a, $b, float $near, float $now): array
    {
        $members = [$a, $b];
        for ($i = 0; $i < \count($members); ++$i) {
            $one = $members[$i];
            foreach ($bodies as $other) {
                if (Body::POCKETED === $other->phase || \in_array($other, $members, true)) {
                    continue;
                }
                $dt = $now - $other->since;
                $dx = $other->x + $dt * ($other->vx + 0.5 * $dt * $other->ax) - $one->x;
                $dy = $other->y + $dt * ($other->vy + 0.5 * $dt * $other->ay) - $one->y;
                if ($dx * $dx + $dy * $dy < $near * $near && $other->since <= $now) {
                    self::bring($other, $now);
                    $members[] = $other;
                }
            }
        }

        return $members;
    }

    /**
     * Brings a ball to the present time. One that lies keeps its own: when the stage does not touch it, it lies as it lay for the next
     * shot.
     */
    private static function bring(Body $body, float $now): void
    {
        if (Body::AT_REST !== $body->phase) {
            $body->advance($now);
        }
    }

    /**
     * Lets the members push each other until they have parted, drawing in others that come near meanwhile.
     *
     * @param array<int, Body>     $bodies  all balls
     * @param non-empty-list<Body> $members their states at $now
     *
     * @return list<Body> those that were touched, with state and time base at the end of the stage; not yet settled
     */
    public function part(array $bodies, array $members, float $now): array
    {
        $this->wasUsed = true;
        $this->contacts = [];
        $state = new GroupState($members, $now);
        $time = $now;
        $rounds = 0;
        // Ends: by time, and by rounds where a speed beyond all sense makes them last no time.
        do {
            if ($time - $now > self::LONGEST || ++$rounds > self::ROUNDS) {
                throw SimulationLimit::cluster(\count($state->members), $time);
            }
            // A round: how far a ball can come, who is drawn in, which pairs can touch, what the cloth does.
            $fastest = $this->tolerances->clusterApproach;
            foreach ($state->vx as $i => $u) {
                $fastest = max($fastest, \sqrt($u * $u + $state->vy[$i] * $state->vy[$i]));
            }
            $dt = $this->contactTime($fastest) / $this->tolerances->clusterSteps;
            $round = self::STEPS_PER_ROUND * $dt;
            foreach ($this->comers($bodies, $state, $fastest * $round, $time, $round) as $body) {
                $state->add($body, $time);
            }
            $pairs = [];
            foreach ($this->pairs($state->x, $state->y, 2 * $fastest * $round) as $key => $distance) {
                $pairs[] = $state->contact($key, min($this->reach, $distance));
            }
            $this->drag($state, $round);
            $this->push($state, $pairs, $time, $dt);
            $time += $round;
            $this->meetSurfaces($state, $time);
        } while ($this->arePressed($state, $pairs, $round));

        $moved = [];
        foreach ($state->members as $i => $body) {
            if (!$state->touched[$i]) {
                continue;
            }
            $seconds = $time - $state->start[$i];
            $body->since = $state->start[$i];
            $body->trackContact(($state->x[$i] - $body->x) / $seconds, ($state->y[$i] - $body->y) / $seconds);
            [$body->x, $body->y, $body->vx, $body->vy, $body->wx, $body->wy, $body->wz] = [
                $state->x[$i], $state->y[$i], $state->vx[$i], $state->vy[$i], $state->wx[$i], $state->wy[$i],
                $state->wz[$i],
            ];
            $body->since = $time;
            $moved[] = $body;
        }

        return $moved;
    }

    /**
     * The steps of a round.
     *
     * @param list<int> $pairs numbers of the contacts that can push
     */
    private function push(GroupState $state, array $pairs, float $time, float $dt): void
    {
        [$x, $y, $vx, $vy, $wx, $wy, $wz, $touched] = [
            $state->x, $state->y, $state->vx, $state->vy, $state->wx, $state->wy, $state->wz,
            $state->touched,
        ];
        [$first, $second, $lengths, $frictions, $nxs, $nys, $most, $rubbed] = [
            $state->first, $state->second, $state->lengths, $state->frictions, $state->nxs, $state->nys,
            $state->most, $state->rubbed,
        ];
        $members = $state->members;
        $spring = $this->spring;
        $damping = $this->damping;
        // The cue ball's mass over another's, where it is not as heavy: it is the heavier or lighter of two in a contact.
        $cue = 1.0 === $this->balls->cueBallWeight ? -1 : $state->cue;
        $radius = $this->radius;
        $slow = 0.0 + $this->tolerances->slowApproach;
        $movers = array_keys($touched, true, true);
        for ($step = 0; $step < self::STEPS_PER_ROUND; ++$step) {
            foreach ($pairs as $pair) {
                $i = $first[$pair];
                $j = $second[$pair];
                $friction = $frictions[$pair];
                if ($friction < 0.0) {
                    if (!$touched[$i] && !$touched[$j]) {
                        continue;
                    }
                    $dx = $x[$j] - $x[$i];
                    $dy = $y[$j] - $y[$i];
                    $distance = $dx * $dx + $dy * $dy;
                    if ($distance >= $lengths[$pair] * $lengths[$pair]) {
                        continue;
                    }
                    $distance = \sqrt($distance);
                    $nx = $dx / $distance;
                    $ny = $dy / $distance;
                    $nxs[$pair] = $nx;
                    $nys[$pair] = $ny;
                } else {
                    $dx = $x[$j] - $x[$i];
                    $dy = $y[$j] - $y[$i];
                    $nx = $nxs[$pair];
                    $ny = $nys[$pair];
                }
                $depth = $lengths[$pair] - $dx * $nx - $dy * $ny;
                if ($depth <= 0.0) {
                    $frictions[$pair] = -1.0;
                    continue;
                }
                $dvx = $vx[$i] - $vx[$j];
                $dvy = $vy[$i] - $vy[$j];
                $approach = $dvx * $nx + $dvy * $ny;
                $root = \sqrt($depth);
                $hasCue = $i === $cue || $j === $cue;
                $damped = $hasCue ? $this->dampingOfCue : $damping;
                $push = $dt * ($spring * $depth * $root + $damped * \sqrt($root) * $approach);
                // Slip of i's surface against j's: across the line of centres in the plane, and upwards.
                $across = -$dvx * $ny + $dvy * $nx + $radius * ($wz[$i] + $wz[$j]);
                $up = $radius * (($wx[$i] + $wx[$j]) * $ny - ($wy[$i] + $wy[$j]) * $nx);
                $slip = \sqrt($across * $across + $up * $up);
                if ($friction < 0.0) {
                    $friction = (float) $this->balls->friction($slip + 0.0);
                    $frictions[$pair] = $friction;
                    $most[$pair] = $slip;
                    $rubbed[$pair] = 0.0;
                    $touched[$i] = $touched[$j] = true;
                    $movers = array_keys($touched, true, true);
                    if ($approach > $slow) {
                        $this->contacts[] = $members[$i]->index < $members[$j]->index
                            ? [$time + $step * $dt, $members[$i], $members[$j], -1, $x[$i], $y[$i]]
                            : [$time + $step * $dt, $members[$j], $members[$i], -1, $x[$j], $y[$j]];
                    }
                }
                if ($push <= 0.0) {
                    continue;
                }
                $jx = -$push * $nx;
                $jy = -$push * $ny;
                if ($slip > $most[$pair]) {
                    $most[$pair] = $slip;
                }
                if ($slip > 1e-12) {
                    $rub = $friction * $push;
                    $grip = $hasCue ? $this->gripOfCue : 7.0;
                    $left = $slip / $grip;
                    if ($rub > $left) {
                        $rub = $left;
                    }
                    $left = $most[$pair] / $grip - $rubbed[$pair];
                    if ($rub > $left) {
                        $rub = $left;
                    }
                    $rubbed[$pair] += $rub;
                    $rub /= $slip;
                    $jx += $rub * $across * $ny;
                    $jy -= $rub * $across * $nx;
                    $turn = 2.5 / $radius * $rub;
                    $turned = $i === $cue ? $turn * $this->lightness : $turn;
                    $wx[$i] -= $turned * $up * $ny;
                    $wy[$i] += $turned * $up * $nx;
                    $wz[$i] -= $turned * $across;
                    $turned = $j === $cue ? $turn * $this->lightness : $turn;
                    $wx[$j] -= $turned * $up * $ny;
                    $wy[$j] += $turned * $up * $nx;
                    $wz[$j] -= $turned * $across;
                }
                if ($hasCue) {
                    $lightI = $i === $cue ? $this->lightness : 1.0;
                    $lightJ = $j === $cue ? $this->lightness : 1.0;
                    $vx[$i] += $lightI * $jx;
                    $vy[$i] += $lightI * $jy;
                    $vx[$j] -= $lightJ * $jx;
                    $vy[$j] -= $lightJ * $jy;
                    continue;
                }
                $vx[$i] += $jx;
                $vy[$i] += $jy;
                $vx[$j] -= $jx;
                $vy[$j] -= $jy;
            }
            foreach ($movers as $i) {
                $x[$i] += $dt * $vx[$i];
                $y[$i] += $dt * $vy[$i];
            }
        }

        [$state->x, $state->y, $state->vx, $state->vy, $state->wx, $state->wy, $state->wz, $state->touched] = [
            $x, $y, $vx, $vy, $wx, $wy, $wz, $touched,
        ];
        [$state->frictions, $state->nxs, $state->nys, $state->most, $state->rubbed] = [$frictions, $nxs, $nys, $most, $rubbed];
    }

    /**
     * @return list<array{float, Body, Body|null, int, float, float}> contacts of the last stage: time, ball, other ball or null, surface,
     *                                                                spot
     */
    public function contacts(): array
    {
        return $this->contacts;
    }

    /**
     * Balls that are not in the stage and could touch a member within a round, brought to the present time.
     *
     * @param array<int, Body> $bodies
     * @param float            $path   that a member can cover in the round, metres
     *
     * @return list<Body>
     */
    private function comers(array $bodies, GroupState $state, float $path, float $time, float $round): array
    {
        $found = [];
        foreach ($bodies as $body) {
            if (Body::POCKETED === $body->phase || $body->since > $time || \in_array($body, $state->members, true)) {
                continue;
            }
            $dt = $time - $body->since;
            $bx = $body->x + $dt * ($body->vx + 0.5 * $dt * $body->ax);
            $by = $body->y + $dt * ($body->vy + 0.5 * $dt * $body->ay);
            $near = $this->reach + $path + $round * \sqrt($body->vx * $body->vx + $body->vy * $body->vy);
            foreach ($state->x as $i => $mx) {
                if (($bx - $mx) ** 2 + ($by - $state->y[$i]) ** 2 < $near * $near) {
                    self::bring($body, $time);
                    $found[] = $body;
                    break;
                }
            }
        }

        return $found;
    }

    /**
     * Pairs that can touch within a round, with the distance of their centres.
     *
     * @param array<int, float> $x
     * @param array<int, float> $y
     *
     * @return array<int, float> keyed by 32 i + j
     */
    private function pairs(array $x, array $y, float $margin): array
    {
        $pairs = [];
        $near = $this->reach + $margin;
        for ($i = 0, $n = \count($x); $i < $n; ++$i) {
            $xi = $x[$i];
            $yi = $y[$i];
            for ($j = $i + 1; $j < $n; ++$j) {
                $dx = $x[$j] - $xi;
                $dy = $y[$j] - $yi;
                $square = $dx * $dx + $dy * $dy;
                if ($square < $near * $near) {
                    $pairs[$i << 5 | $j] = \sqrt($square);
                }
            }
        }

        return $pairs;
    }

    /** What the cloth does to each ball in a round: friction against its slip, and loss of its spin about the vertical. */
    private function drag(GroupState $state, float $seconds): void
    {
        [$vx, $vy, $wx, $wy, $wz] = [$state->vx, $state->vy, $state->wx, $state->wy, $state->wz];
        $kick = $this->slideRate * $seconds;
        $lost = $this->spinDecay * $seconds;
        foreach ($vx as $i => $u) {
            $ux = $u - $this->radius * $wy[$i];
            $uy = $vy[$i] + $this->radius * $wx[$i];
            $slip = \sqrt($ux * $ux + $uy * $uy);
            if ($slip > $this->tolerances->slip) {
                $share = min($kick / $slip, 2 / 7);
                $vx[$i] -= $share * $ux;
                $vy[$i] -= $share * $uy;
                $turn = 2.5 / $this->radius * $share;
                $wx[$i] -= $turn * $uy;
                $wy[$i] += $turn * $ux;
            }
            $wz[$i] = abs($wz[$i]) <= $lost ? 0.0 : ($wz[$i] > 0 ? $wz[$i] - $lost : $wz[$i] + $lost);
        }
        [$state->vx, $state->vy, $state->wx, $state->wy, $state->wz] = [$vx, $vy, $wx, $wy, $wz];
    }

    /** Rails and jaws that a ball is past act on it at once. */
    private function meetSurfaces(GroupState $state, float $time): void
    {
        $s = $this->surfaces;
        foreach ($state->members as $i => $body) {
            [$x, $y] = [$state->x[$i], $state->y[$i]];
            if (
                $body->zone < 0
                && $x >= $this->radius
                && $x <= $s->length - $this->radius
                && $y >= $this->radius
                && $y <= $s->width - $this->radius
            ) {
                continue;
            }
            foreach ($s->overlapped($x, $y, $body->zone) as [$surface, $nx, $ny]) {
                $approach = $state->vx[$i] * $nx + $state->vy[$i] * $ny;
                if ($approach <= 0.0) {
                    continue;
                }
                if ($approach < $this->tolerances->slowApproach) {
                    $state->vx[$i] -= $approach * $nx;
                    $state->vy[$i] -= $approach * $ny;
                } else {
                    [$state->vx[$i], $state->vy[$i], $state->wx[$i], $state->wy[$i], $state->wz[$i]]
                        = $this->cushion->reboundFrom(
                            $nx, $ny, $state->vx[$i], $state->vy[$i], $state->wx[$i], $state->wy[$i],
                            $state->wz[$i],
                        );
                    $this->contacts[] = [$time, $body, null, $surface, $x, $y];
                    $state->touched[$i] = true;
                }
            }
        }
    }

    /**
     * Whether a pair is pressed in by more than a graze, or will be within a round.
     *
     * @param list<int> $pairs numbers of the contacts that can push
     */
    private function arePressed(GroupState $state, array $pairs, float $round): bool
    {
        foreach ($pairs as $pair) {
            $i = $state->first[$pair];
            $j = $state->second[$pair];
            $length = $state->lengths[$pair];
            $dx = $state->x[$j] - $state->x[$i];
            $dy = $state->y[$j] - $state->y[$i];
            $distance = \sqrt($dx * $dx + $dy * $dy);
            $closing = (($state->vx[$i] - $state->vx[$j]) * $dx + ($state->vy[$i] - $state->vy[$j]) * $dy) / $distance;
            if (
                $length - $distance > $this->graze
                || ($closing > $this->tolerances->clusterApproach && $distance - $length < $closing * $round)
            ) {
                return true;
            }
        }

        return false;
    }
}
