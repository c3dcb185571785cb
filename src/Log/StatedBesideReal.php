<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

use Doctrine\DBAL\Connection;
use ZigLane\App\Entity\Account;
use ZigLane\Core\Log\Reliability;
use ZigLane\Core\Log\ShotGroup;
use ZigLane\Core\Log\ShotKind;

/** What was stated beside what came of it, over all logged shots: the program's odds and the player's own guesses. */
final readonly class StatedBesideReal
{
    public function __construct(private Connection $connection)
    {
    }

    /**
     * Of each kind of shot the stated odds and the guesses.
     *
     * @return array{
     *     pots: Reliability, position: Reliability, guesses: Reliability, groups: list<array{ShotGroup, Reliability, Reliability}>
     * }
     */
    public function of(Account $owner): array
    {
        $pots = $position = $guesses = $groups = $guessed = [];
        $cases = ShotGroup::cases();
        /** @var iterable<array{float|null, float|null, int, int|null, int, string|null}> $rows */
        $rows = $this->connection->iterateNumeric(
            'SELECT s.make, s.guess, s.is_made, s.has_position, s.group_bits, JSON_VALUE(s.entry, ?)'
            .' FROM shot s JOIN shot_rack r ON r.id = s.rack_id'
            .' WHERE s.owner_id = ? AND r.deleted_at IS NULL AND s.is_made IS NOT NULL AND s.kind <> ?',
            ['$.meant.position', $owner->getId()->toBinary(), ShotKind::Break->value],
        );
        foreach ($rows as [$make, $guess, $isMade, $hasPosition, $bits, $stated]) {
            $isMade = (bool) $isMade;
            if (null !== $make) {
                $pots[] = [$make, $isMade];
            }
            if (null !== $guess) {
                $guesses[] = [$guess, $isMade];
            }
            if (null !== $stated && (null !== $hasPosition || !$isMade)) {
                $position[] = [(float) $stated, $isMade && (bool) $hasPosition];
            }
            foreach ($cases as $i => $group) {
                if (0 === ($bits & $group->bit())) {
                    continue;
                }
                if (null !== $make) {
                    $groups[$i][] = [$make, $isMade];
                }
                if (null !== $guess) {
                    $guessed[$i][] = [$guess, $isMade];
                }
            }
        }
        $table = [];
        foreach ($cases as $i => $group) {
            if (isset($groups[$i]) || isset($guessed[$i])) {
                $table[] = [$group, Reliability::of($groups[$i] ?? []), Reliability::of($guessed[$i] ?? [])];
            }
        }

        return [
            'pots' => Reliability::of($pots), 'position' => Reliability::of($position), 'guesses' => Reliability::of($guesses),
            'groups' => $table,
        ];
    }
}
