<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

use Doctrine\DBAL\LockMode;
use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\Shot;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Repository\ShotLog;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Log\ShotResult;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;

/**
 * Tries of one shot. What is tried is kept with the rack (in the place of its plan): the choice, the guess, and the simulated odds of that
 * day.
 *
 * @phpstan-type Tries array{
 *     rack: ShotRack, shot: SolvedShot|null, choice: ShotChoice|null, guess: float|null, make: float|null,
 *     counts: array<string, int>, count: int, made: array{float, array{float, float}}|null, position: array{float, array{float,
 * float}}|null
 * }
 */
final readonly class TriesEditor
{
    /** Simulated tries behind the odds. */
    private const SIMULATED = 400;

    public function __construct(
        private EntityManagerInterface $manager,
        private ShotLog $log,
        private LogEditor $editor,
        private ClockInterface $clock,
    ) {
    }

    /** Tries of the shot that the sheet keeps. */
    public function begin(RackSheet $sheet, Uuid $id, ?float $guess): ShotRack
    {
        $choice = $sheet->getLegs()[0] ?? throw Refused::because('noShotKept');
        $rack = $sheet->getRack();
        $shot = (new ShotSolver($rack->equipment))->solve($rack->layout, $choice);
        $odds = Trials::of($shot, new ShotSolver($rack->equipment), $rack->player, self::SIMULATED);
        $kept = json_encode([
            'choice' => RackFile::shotToArray($choice), 'guess' => $guess, 'make' => round($odds->chance(), 4),
        ], \JSON_THROW_ON_ERROR);

        return $this->editor->begin($sheet->getOwner(), $id, $rack, RackKind::Tries, $sheet, $kept);
    }

    public function add(ShotRack $rack, Uuid $id, TryResult $result): void
    {
        if (RackKind::Tries !== $rack->getKind()) {
            throw Refused::because('entry');
        }
        [$choice, $guess, $make] = self::kept($rack);
        $this->manager->wrapInTransaction(function () use ($rack, $id, $result, $choice, $guess, $make): void {
            $this->manager->lock($rack, LockMode::PESSIMISTIC_WRITE);
            if (null !== $this->log->shot($id)) {
                return;
            }
            $start = $rack->getStart();
            $strike = null;
            try {
                $strike = null === $choice ? null : (new ShotSolver($start->equipment))->aimed($start->layout, $choice)->strike;
            } catch (CoreError) {
                // It can no longer be aimed on this table.
            }
            $now = $this->clock->now();
            $shot = new LoggedShot(
                (string) $id, $now, self::kind($choice), $start->equipment, $start->layout,
                $choice?->ball, $choice?->pocket, $strike, null, true === $choice?->isSafety ? null : $make, null, null, $guess,
                self::result($result, true === $choice?->isSafety),
            );
            $this->manager->persist(new Shot($id, $rack, $this->log->shotsOf($rack) + 1, $shot, $now));
            $this->count($rack, $result, 1);
        });
    }

    /** Of a safety nothing was called: what counts is how it ended, with the other player well placed or not. */
    private static function result(TryResult $result, bool $isSafety): ShotResult
    {
        $isMade = TryResult::Made === $result || TryResult::MadeWithPosition === $result;
        $position = match (true) {
            $isSafety => TryResult::SoldOut !== $result && TryResult::Made !== $result,
            $isMade => TryResult::MadeWithPosition === $result,
            default => null,
        };

        return new ShotResult($isSafety ? null : $isMade, null, false, null, false, false, $position, Layout::empty());
    }

    public function undo(ShotRack $rack): void
    {
        $shots = $this->log->shots($rack);
        $last = array_pop($shots);
        if (null !== $last) {
            $result = self::results($rack)[\count($shots)] ?? null;
            $this->manager->remove($last);
            $this->manager->flush();
            if (null !== $result) {
                $this->count($rack, $result, -1);
            }
        }
    }

    /** @return list<Tries> of a sheet, the first first */
    public function all(RackSheet $sheet): array
    {
        return array_map($this->of(...), $this->log->tries($sheet));
    }

    /** @return Tries */
    private function of(ShotRack $rack): array
    {
        [$choice, $guess, $make] = self::kept($rack);
        $shot = null;
        try {
            $start = $rack->getStart();
            $shot = null === $choice || !$start->layout->has(Ball::Cue)
                ? null
                : (new ShotSolver($start->equipment))->solve($start->layout, $choice);
        } catch (CoreError) {
            // Drawn without its route.
        }
        $counts = array_fill_keys(array_map(static fn (TryResult $result): string => $result->value, TryResult::cases()), 0);
        foreach (self::results($rack) as $result) {
            ++$counts[$result->value];
        }
        $count = array_sum($counts);
        $share = static fn (int $hits): ?array => 0 === $count ? null : [$hits / $count, Trials::interval($hits, $count)];

        return [
            'rack' => $rack,
            'shot' => $shot,
            'choice' => $choice,
            'guess' => $guess,
            'make' => $make,
            'counts' => $counts,
            'count' => $count,
            'made' => $share($counts['position'] + $counts['made']), 'position' => $share($counts['position']),
        ];
    }

    private static function kind(?ShotChoice $choice): ShotKind
    {
        return match (true) {
            true === $choice?->isSafety => ShotKind::Safety,
            null === $choice?->direction => ShotKind::Pot,
            default => ShotKind::Bank,
        };
    }

    /** @return array{ShotChoice|null, float|null, float|null} what is tried, the guess, the simulated odds */
    private static function kept(ShotRack $rack): array
    {
        $kept = self::document($rack);
        try {
            $choice = \is_array($kept['choice'] ?? null) ? RackFile::shotFromArray($kept['choice']) : null;
        } catch (InvalidFile) {
            $choice = null;
        }

        return [
            $choice,
            is_numeric($kept['guess'] ?? null) ? (float) $kept['guess'] : null,
            is_numeric($kept['make'] ?? null) ? (float) $kept['make'] : null,
        ];
    }

    /** @return array<mixed> */
    private static function document(ShotRack $rack): array
    {
        $kept = json_decode($rack->getPlan() ?? '[]', true);

        return \is_array($kept) ? $kept : [];
    }

    /** @return list<TryResult> in order */
    private static function results(ShotRack $rack): array
    {
        $kept = self::document($rack);

        return array_values(array_filter(array_map(
            static fn (mixed $word): ?TryResult => \is_string($word) ? TryResult::tryFrom($word) : null,
            \is_array($kept['results'] ?? null) ? $kept['results'] : [],
        )));
    }

    private function count(ShotRack $rack, TryResult $result, int $change): void
    {
        $kept = self::document($rack);
        $results = array_map(static fn (TryResult $one): string => $one->value, self::results($rack));
        $results = $change > 0 ? [...$results, $result->value] : \array_slice($results, 0, -1);
        $rack->follow(json_encode(['results' => $results] + $kept, \JSON_THROW_ON_ERROR));
        $this->manager->flush();
    }
}
