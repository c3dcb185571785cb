<?php

declare(strict_types=1);

namespace ZigLane\Core\Log;

use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/** One shot of a log: what was called and meant, and what came of it. */
final readonly class LoggedShot
{
    /**
     * @param \DateTimeImmutable|null $at       when it was shot
     * @param Layout                  $before   the balls as noted, with the cue ball
     * @param Strike|null             $meant    the stroke that was meant; null for a shot without a plan
     * @param Spot|null               $landing  where the cue ball was meant to stop
     * @param float|null              $make     stated chance of the pot, 0 to 1
     * @param float|null              $position stated chance of pot and position
     * @param float|null              $runOut   stated chance to run out with it
     * @param float|null              $guess    the player's own guess of the pot
     * @param ShotResult              $result   what came of it
     */
    public function __construct(
        public string $id,
        public ?\DateTimeImmutable $at,
        public ShotKind $kind,
        public Equipment $equipment,
        public Layout $before,
        public ?Ball $ball,
        public ?Pocket $pocket,
        public ?Strike $meant,
        public ?Spot $landing,
        public ?float $make,
        public ?float $position,
        public ?float $runOut,
        public ?float $guess,
        public ShotResult $result,
    ) {
    }
}
