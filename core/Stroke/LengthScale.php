<?php

declare(strict_types=1);

namespace ZigLane\Core\Stroke;

use ZigLane\Core\Motion\CushionLaw;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Motion\Tolerances;
use ZigLane\Core\Table\Equipment;

/**
 * Stroke speed as a player feels it: how many table lengths a ball hit at natural roll from the head rail straight up the
 * middle would run, cushions included. Rises steadily with the speed in m/s.
 *
 * Such a ball stays on one line, so its run needs no engine: pieces of sliding and rolling between the two rails, and the same cushion
 * law at the ends (tests hold it against the engine). Cost: some ten pieces.
 */
final readonly class LengthScale
{
    private const PIECES = 10_000;

    private CushionLaw $cushion;
    private float $length;
    private float $radius;
    /** Between the spots where the ball touches the head and the foot rail, metres. */
    private float $room;
    private float $slide;
    private float $roll;
    private float $slip;

    public function __construct(Equipment $equipment)
    {
        $this->cushion = new CushionLaw($equipment->table, $equipment->balls);
        $this->length = $equipment->table->length;
        $this->radius = $equipment->balls->radius;
        $this->room = $this->length - $equipment->balls->diameter();
        $this->slide = $equipment->table->slide * $equipment->table->gravity;
        $this->roll = $equipment->table->roll * $equipment->table->gravity;
        $this->slip = (new Tolerances())->slip;
    }

    /** @param float $speedMps speed of the cue ball just after the hit, above 0 and up to Strike::MAX_SPEED */
    public function lengths(float $speedMps): float
    {
        return $this->run($speedMps) / $this->length;
    }

    /** The most lengths that the scale reaches. */
    public function most(): float
    {
        return $this->lengths(Strike::MAX_SPEED);
    }

    /** Speed in m/s that runs so many lengths, to three millimetres of the run; lengths beyond the scale give Strike::MAX_SPEED. */
    public function speed(float $lengths): float
    {
        $slow = 0.0;
        $fast = \sqrt(2 * $this->roll * $this->length * max($lengths, 1e-4));
        // A straight run without cushions needs the least speed; each cushion takes some.
        $short = -$lengths;
        $over = $this->lengths(min($fast, Strike::MAX_SPEED)) - $lengths;
        // Ends: the speed grows to the fastest.
        while ($over < 0 && $fast < Strike::MAX_SPEED) {
            [$slow, $short] = [$fast, $over];
            $fast = min(Strike::MAX_SPEED, 1.5 * $fast);
            $over = $this->lengths($fast) - $lengths;
        }
        $kept = 0;
        $speed = $fast;
        for ($round = 0, $miss = $over; $round < 60 && abs($miss) * $this->length > 1e-4 && $over >= 0; ++$round) {
            $speed = $slow + ($fast - $slow) * -$short / ($over - $short);
            $miss = $this->lengths($speed) - $lengths;
            if ($miss < 0) {
                [$slow, $short] = [$speed, $miss];
                $over *= 1 === $kept ? 0.5 : 1.0;
                $kept = 1;
            } else {
                [$fast, $over] = [$speed, $miss];
                $short *= -1 === $kept ? 0.5 : 1.0;
                $kept = -1;
            }
        }

        return $speed;
    }

    /** How far a ball that starts rolling at the head rail runs, metres: it is followed until it lies. */
    private function run(float $v): float
    {
        [$sum, $x] = [0.0, 0.0];
        // The speed that its spin would roll, and at each piece the time to its end; a piece ends at a rail or with its phase.
        $spun = $v;
        // Ends: friction takes speed; the bound is for numbers beyond all sense.
        for ($piece = 0; $piece < self::PIECES && $v * $v > 1e-14; ++$piece) {
            $slip = $v - $spun;
            $isSliding = abs($slip) > $this->slip;
            $a = $isSliding ? ($slip > 0.0 ? -$this->slide : $this->slide) : ($v > 0.0 ? -$this->roll : $this->roll);
            $ends = $isSliding ? 2 * abs($slip) / (7 * $this->slide) : -$v / $a;
            $turns = $v * $a < 0.0 ? -$v / $a : \INF;
            $rail = $this->reaches($x, $v, $a);
            $t = min($ends, $turns, $rail);
            $path = $t * ($v + 0.5 * $t * $a);
            $sum += abs($path);
            $x += $path;
            $v += $t * $a;
            $spun = $isSliding ? $spun - 2.5 * $t * $a : $v;
            if ($rail <= $ends && $rail <= $turns) {
                $way = $v > 0.0 ? 1.0 : -1.0;
                $this->cushion->meet($way, 0.0, $v, 0.0, 0.0, $spun / $this->radius, 0.0);
                [$v, $spun] = [$this->cushion->vx, $this->cushion->wy * $this->radius];
                $x = $way > 0.0 ? $this->room : 0.0;
            } elseif ($turns <= $ends && $isSliding) {
                // Its spin turns it round on the spot: a hair of speed the other way, so that the piece goes on.
                $v = $a > 0.0 ? 1e-6 : -1e-6;
            } elseif ($isSliding) {
                $spun = $v;
            } else {
                break;
            }
        }

        return $sum;
    }

    /** Time to the rail that the ball runs towards, seconds; INF if it turns or stops before. */
    private function reaches(float $x, float $v, float $a): float
    {
        [$far, $speed, $gain] = $v > 0.0 ? [$this->room - $x, $v, $a] : [$x, -$v, -$a];
        $root = $speed * $speed + 2 * $gain * $far;

        return $root < 0.0 ? \INF : 2 * $far / ($speed + \sqrt($root));
    }
}
