<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\ShotRack;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Log\Log;
use ZigLane\Core\Log\LoggedRack;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\Outing;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Log\RackResult;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Log\ShotResult;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\Equipment;

/**
 * A player's log as the core has it: whole, the latest shots of it, or only what counts and lists need.
 *
 * @phpstan-type OutingRow array{id: string, played_on: string, place: string, notes: string}
 * @phpstan-type RackRow array{
 *     id: string, game: string, kind: string, start_rack: string, ended_by: string|null, balls: int|null, racks: int|null,
 *     start: array<mixed>, entries: list<string>
 * }
 */
final readonly class LogReader
{
    /** What of a rack's file is its table, balls and cue. */
    private const EQUIPMENT = ['cue' => 1, 'table' => 1, 'balls' => 1];

    public function __construct(private EntityManagerInterface $manager)
    {
    }

    /** Whose errors a file of it names: those of the latest rack, as their preset. */
    public function player(Account $owner): ExecutionErrors
    {
        $racks = $this->manager->getRepository(ShotRack::class);
        $latest = $racks->findOneBy(['owner' => $owner, 'deletedAt' => null], ['startedAt' => 'DESC']);

        return null === $latest ? new ExecutionErrors() : self::preset($latest->getStart()->player);
    }

    /**
     * All of it as the outings of a file, each as JSON: the database has racks and shots as JSON of the same form, which is handed on as it
     * is. A day is in memory at a time.
     *
     * @return iterable<string>
     */
    public function written(Account $owner): iterable
    {
        $flags = \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE | \JSON_PRESERVE_ZERO_FRACTION;
        foreach ($this->days($owner) as [$outing, $tables]) {
            foreach ($tables as $racks) {
                $head = json_encode([
                    'id' => (string) Uuid::fromBinary($outing['id']), 'date' => $outing['played_on'], 'place' => $outing['place'],
                    'notes' => $outing['notes'], ...array_intersect_key($racks[0]['start'], self::EQUIPMENT),
                ], $flags);
                $written = array_map(static fn (array $rack): string => substr(json_encode([
                    'id' => (string) Uuid::fromBinary($rack['id']), 'game' => $rack['game'], 'kind' => $rack['kind'],
                    'start' => (object) ($rack['start']['layoutDiamonds'] ?? []), 'ballInHand' => $rack['start']['ballInHand'] ?? null,
                    'end' => $rack['ended_by'], ...array_filter(['balls' => $rack['balls'], 'racks' => $rack['racks']], is_int(...)),
                ], $flags), 0, -1).',"shots":['.implode(',', $rack['entries']).']}', $racks);
                yield substr($head, 0, -1).',"racks":['.implode(',', $written).']}';
            }
        }
    }

    /**
     * All shots of it, a day in memory at a time; of the racks what a table of shots needs, and not how they lay at first.
     *
     * @return iterable<Outing>
     */
    public function outings(Account $owner): iterable
    {
        $equipments = [];
        foreach ($this->days($owner) as [$outing, $tables]) {
            foreach ($tables as $key => $racks) {
                $equipment = $equipments[$key] ??= RackFile::parse($racks[0]['start_rack'])->rack->equipment;
                yield new Outing(
                    (string) Uuid::fromBinary($outing['id']),
                    new \DateTimeImmutable($outing['played_on']),
                    $outing['place'],
                    $outing['notes'],
                    $equipment,
                    array_map(static fn (array $rack): LoggedRack => new LoggedRack(
                        (string) Uuid::fromBinary($rack['id']),
                        Game::from($rack['game']),
                        RackKind::from($rack['kind']),
                        Layout::empty(),
                        BallInHand::None,
                        null === $rack['ended_by'] ? null : RackResult::from($rack['ended_by']),
                        array_map(static fn (string $entry): LoggedShot => self::shot($entry, $equipment), $rack['entries']),
                        $rack['balls'],
                        $rack['racks'],
                    ), $racks),
                );
            }
        }
    }

    private static function shot(string $entry, Equipment $equipment): LoggedShot
    {
        $document = json_decode($entry, true, 32, \JSON_THROW_ON_ERROR);

        return LogFile::readShot(\is_array($document) ? $document : [], $equipment);
    }

    /**
     * @return iterable<array{OutingRow, array<string, non-empty-list<RackRow>>}> days with their racks, by the table of these
     */
    private function days(Account $owner): iterable
    {
        $connection = $this->manager->getConnection();
        /** @var list<OutingRow> $outings */
        $outings = $connection->fetchAllAssociative(
            'SELECT id, played_on, place, notes FROM outing WHERE owner_id = ? ORDER BY played_on, id',
            [$owner->getId()->toBinary()],
        );
        foreach ($outings as $outing) {
            $entries = [];
            /** @var iterable<array{string, string}> $shots */
            $shots = $connection->iterateNumeric(
                'SELECT s.rack_id, s.entry FROM shot s JOIN shot_rack r ON r.id = s.rack_id'
                .' WHERE r.outing_id = ? AND r.deleted_at IS NULL ORDER BY s.rack_id, s.number',
                [$outing['id']],
            );
            foreach ($shots as [$rack, $entry]) {
                $entries[$rack][] = $entry;
            }
            /**
             * @var iterable<array{
             *     id: string, game: string, kind: string, start_rack: string, ended_by: string|null, balls: int|null, racks: int|null
             * }> $rows
             */
            $rows = $connection->iterateAssociative(
                'SELECT id, game, kind, start_rack, ended_by, balls, racks FROM shot_rack WHERE outing_id = ? AND deleted_at IS NULL'
                .' ORDER BY started_at, id',
                [$outing['id']],
            );
            $tables = [];
            foreach ($rows as $row) {
                $start = json_decode($row['start_rack'], true, 32, \JSON_THROW_ON_ERROR);
                $start = \is_array($start) ? $start : [];
                // One outing of a file is on one table.
                $key = hash('xxh128', serialize(array_intersect_key($start, self::EQUIPMENT)));
                $tables[$key][] = $row + ['start' => $start, 'entries' => $entries[$row['id']] ?? []];
            }
            yield [$outing, $tables];
        }
    }

    /** The latest shots, to be fitted. */
    public function latest(Account $owner, int $most): Log
    {
        $rows = $this->manager->getConnection()->fetchAllAssociative(
            'SELECT s.entry, s.rack_id, r.start_rack FROM shot s FORCE INDEX (shot_of_owner) JOIN shot_rack r ON r.id = s.rack_id'
            .' WHERE s.owner_id = ? AND r.deleted_at IS NULL ORDER BY s.shot_at DESC, s.id DESC LIMIT '.$most,
            [$owner->getId()->toBinary()],
        );
        $equipments = [];
        $shots = [];
        $player = null;
        foreach (array_reverse($rows) as $row) {
            /** @var array{entry: string, rack_id: string, start_rack: string} $row */
            if (!isset($equipments[$row['rack_id']])) {
                $rack = RackFile::parse($row['start_rack'])->rack;
                $equipments[$row['rack_id']] = $this->same($equipments, $rack->equipment);
                $player ??= self::preset($rack->player);
            }
            try {
                $shots[] = self::shot($row['entry'], $equipments[$row['rack_id']]);
            } catch (InvalidFile|\JsonException) {
                // Of an earlier version: nothing can be learned from it.
            }
        }
        $rack = new LoggedRack('', Game::NineBall, RackKind::Practice, Layout::empty(), BallInHand::None, null, $shots);

        return new Log($player ?? new ExecutionErrors(), [new Outing('', new \DateTimeImmutable(), '', '', new Equipment(), [$rack])]);
    }

    /** @return list<Rack> as they lay at first, the latest first */
    public function recentRacks(Account $owner, int $most): array
    {
        $rows = $this->manager->getConnection()->fetchFirstColumn(
            'SELECT start_rack FROM shot_rack WHERE owner_id = ? AND deleted_at IS NULL AND kind NOT IN (?, ?)'
            .' ORDER BY started_at DESC, id DESC LIMIT 60',
            [$owner->getId()->toBinary(), RackKind::Tries->value, RackKind::Drill->value],
        );
        $racks = [];
        foreach ($rows as $row) {
            $rack = \is_string($row) ? RackFile::parse($row)->rack : null;
            if (null !== $rack && \count($rack->objectBalls()) > 1 && \count($racks) < $most && !\in_array($rack->layout, array_map(
                static fn (Rack $other): Layout => $other->layout,
                $racks,
            ), false)) {
                $racks[] = $rack;
            }
        }

        return $racks;
    }

    /** All racks and shots with what records count, and no more: positions and strokes are left out, but for breaks. */
    public function counted(Account $owner): Log
    {
        $id = $owner->getId()->toBinary();
        $connection = $this->manager->getConnection();
        $shots = $alike = [];
        /** @var iterable<array{string, string, int|null, int, int|null, string|null}> $rows */
        $rows = $connection->iterateNumeric(
            'SELECT s.rack_id, s.kind, s.is_made, s.is_foul, s.has_position, IF(s.kind = ?, s.entry, NULL) FROM shot s'
            .' WHERE s.owner_id = ? ORDER BY s.rack_id, s.number',
            [ShotKind::Break->value, $id],
        );
        foreach ($rows as [$rack, $kind, $isMade, $isFoul, $position, $entry]) {
            // Shots of which nothing else is counted are one and the same.
            $shots[$rack][] = null === $entry
                ? $alike["$kind $isMade $isFoul $position"] ??= self::light($kind, $isMade, (bool) $isFoul, $position, null)
                : self::light($kind, $isMade, (bool) $isFoul, $position, $entry);
        }
        $outings = [];
        /**
         * @var iterable<array{
         *     id: string, game: string, kind: string, ended_by: string|null, balls: int|null, racks: int|null, played_on: string
         * }> $rows
         */
        $rows = $connection->iterateAssociative(
            'SELECT r.id, r.game, r.kind, r.ended_by, r.balls, r.racks, o.played_on FROM shot_rack r JOIN outing o ON o.id = r.outing_id'
            .' WHERE r.owner_id = ? AND r.deleted_at IS NULL ORDER BY o.played_on, r.started_at, r.id',
            [$id],
        );
        foreach ($rows as $row) {
            $outings[$row['played_on']][] = new LoggedRack(
                '',
                Game::from($row['game']),
                RackKind::from($row['kind']),
                Layout::empty(),
                BallInHand::None,
                null === $row['ended_by'] ? null : RackResult::from($row['ended_by']),
                $shots[$row['id']] ?? [],
                $row['balls'],
                $row['racks'],
            );
        }

        return new Log(new ExecutionErrors(), array_map(
            static fn (string $day, array $racks): Outing => new Outing('', new \DateTimeImmutable($day), '', '', new Equipment(), $racks),
            array_keys($outings),
            $outings,
        ));
    }

    private static function light(string $kind, mixed $isMade, bool $isFoul, mixed $position, mixed $entry): LoggedShot
    {
        if (\is_string($entry)) {
            $document = json_decode($entry, true, 32);
            try {
                return LogFile::readShot(\is_array($document) ? $document : [], new Equipment());
            } catch (InvalidFile) {
                // Counted without what fell.
            }
        }
        $result = new ShotResult(
            null === $isMade ? null : (bool) $isMade, null, false, null, $isFoul, false,
            null === $position ? null : (bool) $position, Layout::empty(),
        );

        return new LoggedShot(
            '', null, ShotKind::from($kind), new Equipment(), Layout::empty(), null, null, null, null, null, null, null, null, $result,
        );
    }

    /** What a fit starts from: never an earlier fit, or the same shots would count again and again. */
    private static function preset(ExecutionErrors $player): ExecutionErrors
    {
        $nearest = new ExecutionErrors();
        $least = \INF;
        foreach (ExecutionErrors::PRESETS as $numbers) {
            $preset = new ExecutionErrors(...$numbers);
            $off = abs(log($preset->aim / max(1e-4, $player->aim))) + abs(log($preset->speed / max(1e-4, $player->speed)));
            if ($off < $least) {
                [$nearest, $least] = [$preset, $off];
            }
        }

        return $nearest;
    }

    /**
     * One of those known already where it is the same: what is worked out for a table is worked out once.
     *
     * @param array<string, Equipment> $known
     */
    private function same(array $known, Equipment $equipment): Equipment
    {
        foreach ($known as $other) {
            if ($other == $equipment) {
                return $other;
            }
        }

        return $equipment;
    }
}
