<?php

declare(strict_types=1);

namespace ZigLane\App\Sharing;

use ZigLane\App\Entity\Lesson;
use ZigLane\App\Entity\Outing;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShareKind;
use ZigLane\App\Practice\ShelvedDrill;

/** What is shared, found again: exactly one of these. */
final readonly class SharedThing
{
    public function __construct(
        public ShareKind $kind,
        public string $subject,
        public string $name,
        public ?RackSheet $sheet = null,
        public ?ShelvedDrill $drill = null,
        public ?Lesson $lesson = null,
        public ?Outing $day = null,
    ) {
    }
}
