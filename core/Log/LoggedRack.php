<?php

declare(strict_types=1);

namespace ZigLane\Core\Log;

use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;

/** A rack of an outing, or a number of tries of one position. */
final readonly class LoggedRack
{
    /**
     * @param Layout           $start as it was laid out
     * @param RackResult|null  $end   null while it is being shot, or where it was not noted
     * @param list<LoggedShot> $shots in order
     * @param int|null         $balls made in a row, where only that was noted, or of a run over racks
     * @param int|null         $racks run out in a row, likewise
     */
    public function __construct(
        public string $id,
        public Game $game,
        public RackKind $kind,
        public Layout $start,
        public BallInHand $ballInHand,
        public ?RackResult $end,
        public array $shots,
        public ?int $balls = null,
        public ?int $racks = null,
    ) {
    }
}
