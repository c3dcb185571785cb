<?php

declare(strict_types=1);

namespace ZigLane\Core\Log;

use ZigLane\Core\Player\ExecutionErrors;

/** What a player has logged. */
final readonly class Log
{
    /**
     * @param ExecutionErrors $player  whose errors the stated odds came from; what a fit starts from
     * @param list<Outing>    $outings in order
     */
    public function __construct(public ExecutionErrors $player, public array $outings)
    {
    }

    /** @return list<LoggedShot> all of them, in order */
    public function shots(): array
    {
        $shots = [];
        foreach ($this->outings as $outing) {
            foreach ($outing->racks as $rack) {
                array_push($shots, ...$rack->shots);
            }
        }

        return $shots;
    }
}
