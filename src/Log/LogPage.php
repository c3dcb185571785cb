<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

use Doctrine\DBAL\Connection;
use Symfony\Component\HttpFoundation\InputBag;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\Core\Log\ShotGroup;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Table\TableProfile;
use ZigLane\Core\Table\TableSize;

/**
 * One page of a log's shots, the latest first, by date, game, table, kind and outcome. Pages go on from the last shot of the one before
 * (keyset), so that the thousandth is as quick as the first.
 *
 * @phpstan-type Row array{
 *     id: string, rack: string, number: int, at: string, game: string, kind: string, ball: string|null, pocket: string|null,
 *     isMade: bool|null, hasPosition: bool|null, isFoul: bool, make: float|null, guess: float|null, cut: float|null, distance: float|null,
 *     place: string
 * }
 */
final readonly class LogPage
{
    public const SIZE = 50;

    /** @param array<string, string> $asked */
    private function __construct(public array $asked)
    {
    }

    /** @param InputBag<string> $query */
    public static function of(InputBag $query): self
    {
        $asked = [];
        foreach (['from', 'to', 'game', 'kind', 'made', 'place', 'table', 'after'] as $field) {
            $value = trim(mb_scrub($query->getString($field)));
            if ('' !== $value && mb_strlen($value) <= 120) {
                $asked[$field] = $value;
            }
        }

        return new self($asked);
    }

    /** @return array{list<Row>, string|null} the rows, and where the next page goes on; null where there is none */
    public function rows(Connection $connection, Account $owner): array
    {
        $where = ['s.owner_id = ?', 'r.deleted_at IS NULL'];
        $values = [$owner->getId()->toBinary()];
        $add = static function (string $condition, mixed ...$more) use (&$where, &$values): void {
            $where[] = $condition;
            array_push($values, ...$more);
        };
        if (self::isDay($this->asked['from'] ?? '')) {
            $add('s.shot_at >= ?', $this->asked['from'].' 00:00:00');
        }
        if (self::isDay($this->asked['to'] ?? '')) {
            $add('s.shot_at <= ?', $this->asked['to'].' 23:59:59');
        }
        $index = 'shot_of_owner';
        if (null !== ($game = Game::tryFrom($this->asked['game'] ?? ''))) {
            $add('s.game = ?', $game->value);
            $index = 'shot_of_game';
        }
        $kind = $this->asked['kind'] ?? '';
        if (null !== ShotKind::tryFrom($kind)) {
            $add('s.kind = ?', $kind);
            $index = 'shot_of_kind';
        } elseif (null !== ($group = ShotGroup::tryFrom($kind))) {
            $add('(s.group_bits & ?) <> 0', $group->bit());
        }
        if (\in_array($this->asked['made'] ?? '', ['0', '1'], true)) {
            $add('s.is_made = ?', (int) $this->asked['made']);
        }
        $size = TableSize::tryFrom((int) ($this->asked['table'] ?? 0));
        if (null !== $size) {
            // Half a foot either way: tables of a size are not all of one length.
            $add(
                'JSON_VALUE(r.start_rack, ?) BETWEEN ? AND ?',
                '$.table.length',
                TableProfile::ofSize($size)->length - 0.13,
                TableProfile::ofSize($size)->length + 0.13,
            );
        }
        if (isset($this->asked['place'])) {
            $add('o.place = ?', $this->asked['place']);
        }
        if (1 === preg_match('/^(\d{4}-\d{2}-\d{2} \d{2}:\d{2}:\d{2})~([0-9a-f-]{36})$/D', $this->asked['after'] ?? '', $after)) {
            $add('(s.shot_at < ? OR (s.shot_at = ? AND s.id < ?))', $after[1], $after[1], Uuid::fromString($after[2])->toBinary());
        }
        $rows = $connection->fetchAllAssociative(
            'SELECT s.id, s.rack_id, s.number, s.shot_at, s.game, s.kind, s.ball, s.pocket, s.is_made, s.has_position, s.is_foul, s.make,'
            ." s.guess, s.cut, s.distance, o.place FROM shot s FORCE INDEX ($index)"
            .' JOIN shot_rack r ON r.id = s.rack_id JOIN outing o ON o.id = r.outing_id WHERE '
            .implode(' AND ', $where).' ORDER BY s.shot_at DESC, s.id DESC LIMIT '.(self::SIZE + 1),
            $values,
        );
        $more = \count($rows) > self::SIZE;
        $list = array_map(self::row(...), \array_slice($rows, 0, self::SIZE));
        $last = $list[\count($list) - 1] ?? null;

        return [$list, $more && null !== $last ? $last['at'].'~'.$last['id'] : null];
    }

    private static function isDay(string $day): bool
    {
        return 1 === preg_match('/^\d{4}-\d{2}-\d{2}$/D', $day)
            && checkdate((int) substr($day, 5, 2), (int) substr($day, 8, 2), (int) substr($day, 0, 4));
    }

    /**
     * @param array<string, mixed> $row
     *
     * @return Row
     */
    private static function row(array $row): array
    {
        /**
         * @var array{
         *     id: string, rack_id: string, number: int, shot_at: string, game: string, kind: string, ball: string|null,
         *     pocket: string|null, place: string
         * } $row
         */
        $float = static fn (string $field): ?float => is_numeric($row[$field] ?? null) ? (float) $row[$field] : null;
        $bool = static fn (string $field): ?bool => isset($row[$field]) ? (bool) $row[$field] : null;

        return [
            'id' => (string) Uuid::fromBinary($row['id']), 'rack' => (string) Uuid::fromBinary($row['rack_id']), 'number' => $row['number'],
            'at' => $row['shot_at'], 'game' => $row['game'], 'kind' => $row['kind'], 'ball' => $row['ball'], 'pocket' => $row['pocket'],
            'isMade' => $bool('is_made'), 'hasPosition' => $bool('has_position'), 'isFoul' => true === $bool('is_foul'),
            'make' => $float('make'), 'guess' => $float('guess'), 'cut' => $float('cut'), 'distance' => $float('distance'),
            'place' => $row['place'],
        ];
    }
}
