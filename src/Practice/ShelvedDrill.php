<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use ZigLane\App\Entity\OwnDrill;
use ZigLane\Core\Format\DrillFile;

/** A drill that an account can play: of the library, or one of its own. */
final readonly class ShelvedDrill
{
    public function __construct(public string $key, public DrillFile $file, public ?OwnDrill $own = null)
    {
    }
}
