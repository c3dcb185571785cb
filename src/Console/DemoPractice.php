<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Practice\PracticeEditor;
use ZigLane\App\Practice\TryEntry;

/** Scored drills of the demo: what tools/demo-practice.php and tools/demo-pupils.php write. */
final readonly class DemoPractice
{
    public function __construct(private DrillShelf $shelf, private PracticeEditor $practice, private ClockInterface $clock)
    {
    }

    /**
     * @param array<mixed> $sessions of {drill, daysAgo, tries}
     *
     * @return list<int> how many days ago each was
     */
    public function record(Account $player, array $sessions, int $hour, int $minute): array
    {
        $days = [];
        foreach ($sessions as $session) {
            if (!\is_array($session) || !\is_string($session['drill'] ?? null) || !\is_int($session['daysAgo'] ?? null)) {
                continue;
            }
            $tries = [];
            foreach (\is_array($session['tries'] ?? null) ? $session['tries'] : [] as $try) {
                $entry = TryEntry::parse(json_encode(['id' => (string) Uuid::v4()] + (\is_array($try) ? $try : []), \JSON_THROW_ON_ERROR));
                $tries[] = [$entry->isDone, $entry->after];
            }
            $at = $this->clock->now()->modify('-'.$session['daysAgo'].' days')->setTime($hour, $minute);
            $this->practice->record($player, $this->shelf->drill($player, $session['drill']), $at, $tries);
            $days[] = $session['daysAgo'];
        }

        return $days;
    }
}
