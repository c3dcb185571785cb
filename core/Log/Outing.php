<?php

declare(strict_types=1);

namespace ZigLane\Core\Log;

use ZigLane\Core\Table\Equipment;

/** A day at a table: the racks that were shot there. */
final readonly class Outing
{
    /**
     * @param \DateTimeImmutable $date  the day
     * @param string             $place as the player calls it
     * @param list<LoggedRack>   $racks in order
     */
    public function __construct(
        public string $id,
        public \DateTimeImmutable $date,
        public string $place,
        public string $notes,
        public Equipment $equipment,
        public array $racks,
    ) {
    }
}
