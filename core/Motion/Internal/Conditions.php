<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion\Internal;

use ZigLane\Core\Motion\CushionLaw;
use ZigLane\Core\Motion\Tolerances;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\TableProfile;

/**
 * What every ball of a simulation moves under: the numbers of the cloth, the balls and the tolerances as the engine needs them. SI units.
 *
 * @internal
 */
final readonly class Conditions
{
    public CushionLaw $cushion;
    public float $radius;
    public float $slideRate;
    public float $rollRate;
    public float $spinDecay;
    /** What pulls a ball downhill, m/s^2; noughts on a level table. */
    public float $pullX;
    public float $pullY;
    /** Where a ball's centre is when it touches each rail: -INF and INF if there are none. */
    public float $headRail;
    public float $footRail;
    public float $rightRail;
    public float $leftRail;

    /** @param bool $isOpen whether the cloth goes on for ever, without rails and pockets */
    public function __construct(
        TableProfile $table,
        BallSet $balls,
        public Surfaces $surfaces,
        public Tolerances $tolerances,
        bool $isOpen = false,
    ) {
        $this->cushion = new CushionLaw($table, $balls);
        $this->radius = $balls->radius;
        $this->slideRate = $table->slide * $table->gravity;
        $this->rollRate = $table->roll * $table->gravity;
        $this->spinDecay = $table->spinDecay;
        [$this->pullX, $this->pullY] = $table->pull();
        $this->headRail = $isOpen ? -\INF : $balls->radius;
        $this->footRail = $isOpen ? \INF : $table->length - $balls->radius;
        $this->rightRail = $isOpen ? -\INF : $balls->radius;
        $this->leftRail = $isOpen ? \INF : $table->width() - $balls->radius;
    }
}
