<?php

declare(strict_types=1);

namespace ZigLane\Core\Stroke;

use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\TableProfile;

/**
 * Stroke speed as a player feels it: how many table lengths a ball hit at natural roll from the head rail straight up the
 * middle would run, cushions included. Rises steadily with the speed in m/s.
 */
final readonly class LengthScale
{
    private TableProfile $table;
    private EventSimulator $simulator;
    private Layout $start;

    public function __construct(Equipment $equipment)
    {
        $this->table = $equipment->table;
        $this->simulator = new EventSimulator($equipment);
        $this->start = Layout::empty()->with(Ball::Cue, Spot::metres($equipment->balls->radius, $this->table->width() / 2));
    }

    /** @param float $speedMps speed of the cue ball just after the hit, above 0 and up to Strike::MAX_SPEED */
    public function lengths(float $speedMps): float
    {
        $naturalRoll = 0.4;

        return $this->simulator->play($this->start, Strike::degrees(0.0, $speedMps, 0.0, $naturalRoll))->trajectory(Ball::Cue)->length() / $this->table->length;
    }

    /** The most lengths that the scale reaches. */
    public function most(): float
    {
        return $this->lengths(Strike::MAX_SPEED);
    }

    /**
     * Speed in m/s that runs so many lengths, to a millimetre of the run; lengths beyond the scale give Strike::MAX_SPEED.
     */
    public function speed(float $lengths): float
    {
        $slow = 0.0;
        $fast = \sqrt(2 * $this->table->roll * $this->table->gravity * $this->table->length * max($lengths, 1e-4));
        // A straight run without cushions needs the least speed; each cushion takes some.
        $short = -$lengths;
        $over = $this->lengths(min($fast, Strike::MAX_SPEED)) - $lengths;
        while ($over < 0 && $fast < Strike::MAX_SPEED) {
            [$slow, $short] = [$fast, $over];
            $fast = min(Strike::MAX_SPEED, 1.5 * $fast);
            $over = $this->lengths($fast) - $lengths;
        }
        $kept = 0;
        $speed = $fast;
        for ($round = 0, $miss = $over; $round < 60 && abs($miss) * $this->table->length > 1e-4 && $over >= 0; ++$round) {
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
}
