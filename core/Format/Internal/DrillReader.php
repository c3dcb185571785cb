<?php

declare(strict_types=1);

namespace ZigLane\Core\Format\Internal;

use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Practice\Area;
use ZigLane\Core\Practice\Drill;
use ZigLane\Core\Practice\Level;
use ZigLane\Core\Practice\Place;
use ZigLane\Core\Practice\SetUp;
use ZigLane\Core\Practice\Skill;
use ZigLane\Core\Practice\Target;
use ZigLane\Core\Practice\TargetKind;
use ZigLane\Core\Practice\Task;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * Reads the drill of a document.
 *
 * @internal
 */
final class DrillReader
{
    private const FIELDS = [
        'format', 'version', 'name', 'skill', 'text', 'minutes', 'task', 'ball', 'pocket', 'before', 'cushions', 'done', 'places',
        'targets', 'goesOn', 'untilMiss', 'tries', 'pass', 'moves', 'stroke', 'game', 'racked', 'levels',
    ];
    private const MAX_NAME = 80;
    private const MAX_TEXT = 2000;
    private const MAX_TRIES = 100;
    private const MAX_CORNERS = 24;
    private const MAX_LIST = 8;
    private const MAX_SPOTS = 60;
    /** The table in diamonds, and where the cue ball in hand may lie. */
    private const LONG = 8.0;
    private const SHORT = 4.0;
    private const KITCHEN = 2.0;

    private readonly Reader $reader;

    /** @param array<mixed> $document */
    private function __construct(private readonly array $document)
    {
        $this->reader = new Reader();
    }

    /**
     * @param array<mixed> $document
     *
     * @throws InvalidFile With every fault that was found
     */
    public static function read(array $document): Drill
    {
        return (new self($document))->drill();
    }

    private function drill(): Drill
    {
        $reader = $this->reader;
        $reader->onlyKnown($this->document, '', self::FIELDS);
        $skill = $reader->choice($this->document, '', 'skill', Skill::class, true);
        $task = $reader->choice($this->document, '', 'task', Task::class, true);
        $places = $this->places();
        $ball = $this->ball($this->document, '', 'ball');
        $targets = $this->targets($places);
        [$moves, $steps] = $this->moves($places);
        [$tip, $speed] = $this->stroke();
        $game = $reader->choice($this->document, '', 'game', Game::class, Task::Break === $task);
        $racked = $this->document['racked'] ?? null;
        if (null !== $racked && 'fourteen' !== $racked) {
            $reader->fault('racked', 'choice', ['found' => Reader::show($racked), 'allowed' => 'fourteen']);
        }
        if (null !== $ball && !isset($places[$ball->value])) {
            $reader->fault('ball', 'notPlaced', ['ball' => $ball->label()]);
        }
        if (null !== $task && Task::Break !== $task && !isset($places[0])) {
            $reader->fault('places.cue', 'notPlaced', ['ball' => Ball::Cue->label()]);
        }
        if (\in_array($task, [Task::Pot, Task::Hit, Task::Run], true) && \count($places) < 2) {
            $reader->fault('places', 'noObjectBall');
        }
        $drill = new Drill(
            $this->text('name', self::MAX_NAME, true),
            $this->text('text', self::MAX_TEXT, false),
            $skill ?? Skill::Pot,
            $task ?? Task::Pot,
            $places,
            $ball,
            $reader->choice($this->document, '', 'pocket', Pocket::class, false),
            $this->whole('before', 0, 5, 0),
            $this->whole('cushions', 0, 9, 0),
            $reader->number($this->document, '', 'done', 0.0, 100.0, [] === $targets && true !== $task?->isCounted() ? 1.0 : 0.0),
            $targets,
            $this->flag('goesOn'),
            $this->flag('untilMiss'),
            $this->whole('tries', 1, self::MAX_TRIES, 10),
            $reader->number($this->document, '', 'pass', 0.0, 10000.0, 0.0),
            $moves,
            $steps,
            $tip,
            $speed,
            $game,
            'fourteen' === $racked,
            $this->whole('minutes', 1, 120, 10),
            $this->levels(),
        );
        $most = $drill->most();
        if ($reader->isClean() && null !== $most && $drill->pass > $most) {
            $reader->fault('pass', 'passTooHigh', ['found' => $drill->pass, 'most' => $most]);
        }
        $reader->finish();

        return $drill;
    }

    private function text(string $field, int $most, bool $isRequired): string
    {
        $text = $this->document[$field] ?? ($isRequired ? null : '');
        if (!\is_string($text) || ($isRequired && '' === trim($text)) || mb_strlen($text) > $most) {
            $this->reader->fault($field, 'name', ['found' => Reader::show($text), 'most' => $most]);

            return '';
        }

        return trim(mb_scrub($text));
    }

    private function flag(string $field): bool
    {
        $value = $this->document[$field] ?? false;
        if (!\is_bool($value)) {
            $this->reader->fault($field, 'boolean', ['found' => Reader::show($value)]);
        }

        return true === $value;
    }

    private function whole(string $field, int $least, int $most, int $default): int
    {
        $value = $this->document[$field] ?? $default;
        if (!\is_int($value) || $value < $least || $value > $most) {
            $this->reader->fault($field, 'number', ['found' => Reader::show($value), 'least' => $least, 'most' => $most]);

            return $default;
        }

        return $value;
    }

    /** @param array<mixed> $parent */
    private function ball(array $parent, string $path, string $key): ?Ball
    {
        $name = $parent[$key] ?? null;
        if (null === $name) {
            return null;
        }
        $ball = \is_string($name) ? Ball::named($name) : null;
        if (null === $ball) {
            $this->reader->fault('' === $path ? $key : "$path.$key", 'notABall');
        }

        return $ball;
    }

    /** @return array<int, Place> by the number of the ball */
    private function places(): array
    {
        $object = $this->reader->object($this->document, '', 'places');
        $places = [];
        if (\count($object) > 16) {
            $this->reader->fault('places', 'tooManyBalls', ['found' => \count($object), 'most' => 16]);

            return [];
        }
        $fixed = Layout::empty();
        $equipment = new Equipment();
        foreach ($object as $name => $value) {
            $path = 'places.'.trim(Reader::show((string) $name), '"');
            $ball = Ball::named((string) $name);
            if (null === $ball) {
                $this->reader->fault($path, 'notABall');
                continue;
            }
            $place = $this->place($value, $path, Ball::Cue === $ball);
            if (null !== $place) {
                $places[$ball->value] = $place;
                $fixed = $place->isFixed()
                    ? $fixed->with($ball, SetUp::onCloth(Spot::diamonds(...[...$place->spots[0], $equipment->table]), $equipment))
                    : $fixed;
            }
        }
        foreach ((new LayoutRules($equipment))->faults($fixed) as $fault) {
            $this->reader->because('places.'.$fault->ball->label(), $fault->fact());
        }
        ksort($places);

        return $places;
    }

    private function place(mixed $value, string $path, bool $mayBeInHand): ?Place
    {
        if (\is_array($value) && array_is_list($value)) {
            $spot = $this->pair($value, $path);

            return null === $spot ? null : new Place([$spot]);
        }
        if (!\is_array($value)) {
            $this->reader->fault($path, 'twoNumbers', ['found' => Reader::show($value)]);

            return null;
        }
        $this->reader->onlyKnown($value, $path, $mayBeInHand ? ['from', 'in', 'hand'] : ['from', 'in']);
        if (isset($value['from'])) {
            $spots = $this->pairs($value['from'], "$path.from", 1, self::MAX_SPOTS);

            return [] === $spots ? null : new Place($spots);
        }
        $hand = $value['hand'] ?? null;
        $area = match ($hand) {
            'kitchen' => Area::box(0.0, 0.0, self::KITCHEN, self::SHORT),
            'anywhere' => Area::box(0.0, 0.0, self::LONG, self::SHORT),
            default => $this->area($hand ?? $value['in'] ?? null, null === $hand ? "$path.in" : "$path.hand"),
        };

        return null === $area ? null : new Place([], $area, null !== $hand);
    }

    /** @return array{float, float}|null */
    private function pair(mixed $value, string $path): ?array
    {
        if (!\is_array($value) || !array_is_list($value) || 2 !== \count($value)) {
            $this->reader->fault($path, 'twoNumbers', ['found' => Reader::show($value)]);

            return null;
        }

        return [
            $this->reader->number(['0' => $value[0]], $path, '0', -1.0, self::LONG + 1.0),
            $this->reader->number(['1' => $value[1]], $path, '1', -1.0, self::SHORT + 1.0),
        ];
    }

    /** @return list<array{float, float}> */
    private function pairs(mixed $value, string $path, int $least, int $most): array
    {
        if (!\is_array($value) || !array_is_list($value) || \count($value) < $least || \count($value) > $most) {
            $this->reader->fault($path, 'listOf', ['found' => Reader::show($value), 'least' => $least, 'most' => $most]);

            return [];
        }
        $pairs = [];
        foreach ($value as $i => $one) {
            $pair = $this->pair($one, "$path.$i");
            if (null === $pair) {
                return [];
            }
            $pairs[] = $pair;
        }

        return $pairs;
    }

    private function area(mixed $value, string $path): ?Area
    {
        if (!\is_array($value) || 1 !== \count(array_diff(array_keys($value), ['within']))) {
            $this->reader->fault($path, 'area', ['found' => Reader::show($value)]);

            return null;
        }
        $area = match (array_key_first(array_diff_key($value, ['within' => 1]))) {
            'polygon' => $this->polygon($value['polygon'], "$path.polygon"),
            'box' => $this->box($value['box'], "$path.box"),
            'rings' => $this->rings($value['rings'], "$path.rings"),
            'half' => $this->half($value['half'], "$path.half"),
            'band' => $this->band($value['band'], "$path.band"),
            'rail' => $this->alongRail($value, $path),
            default => null,
        };
        if (null === $area) {
            if ($this->reader->isClean()) {
                $this->reader->fault($path, 'area', ['found' => Reader::show($value)]);
            }

            return null;
        }
        if (!$area->isOnTable()) {
            $this->reader->fault($path, 'areaOffTable');
        }

        return $area;
    }

    private function polygon(mixed $value, string $path): ?Area
    {
        $corners = $this->pairs($value, $path, 3, self::MAX_CORNERS);

        return [] === $corners ? null : Area::polygon($corners);
    }

    private function box(mixed $value, string $path): ?Area
    {
        if (!\is_array($value) || !array_is_list($value) || 4 !== \count($value)) {
            $this->reader->fault($path, 'fourNumbers', ['found' => Reader::show($value)]);

            return null;
        }
        $corners = $this->pairs([[$value[0], $value[1]], [$value[2], $value[3]]], $path, 2, 2);

        return 2 === \count($corners) ? Area::box(...[...$corners[0], ...$corners[1]]) : null;
    }

    private function rings(mixed $value, string $path): ?Area
    {
        if (!\is_array($value)) {
            $this->reader->fault($path, 'object', ['found' => Reader::show($value)]);

            return null;
        }
        $this->reader->onlyKnown($value, $path, ['at', 'of']);
        $centre = $this->pair($value['at'] ?? null, "$path.at");
        $rings = [];
        foreach (\is_array($value['of'] ?? null) ? \array_slice($value['of'], 0, self::MAX_LIST) : [] as $i => $ring) {
            if (!\is_array($ring) || !array_is_list($ring) || 2 !== \count($ring)) {
                $this->reader->fault("$path.of.$i", 'twoNumbers', ['found' => Reader::show($ring)]);
                continue;
            }
            $rings[] = [
                $this->reader->number(['0' => $ring[0]], "$path.of.$i", '0', 0.01, self::LONG),
                $this->reader->number(['1' => $ring[1]], "$path.of.$i", '1', 0.0, 100.0),
            ];
        }
        if ([] === $rings) {
            $found = Reader::show($value['of'] ?? null);
            $this->reader->fault("$path.of", 'listOf', ['found' => $found, 'least' => 1, 'most' => self::MAX_LIST]);
        }

        return null === $centre || [] === $rings ? null : Area::rings($centre, $rings);
    }

    private function half(mixed $value, string $path): ?Area
    {
        $area = match ($value) {
            'head' => Area::box(0.0, 0.0, 4.0, self::SHORT),
            'foot' => Area::box(4.0, 0.0, self::LONG, self::SHORT),
            'right' => Area::box(0.0, 0.0, self::LONG, 2.0),
            'left' => Area::box(0.0, 2.0, self::LONG, self::SHORT),
            default => null,
        };
        if (null === $area) {
            $this->reader->fault($path, 'choice', ['found' => Reader::show($value), 'allowed' => 'head, foot, right, left']);
        }

        return $area;
    }

    private function band(mixed $value, string $path): ?Area
    {
        if (!\is_array($value) || !array_is_list($value) || 2 !== \count($value)) {
            $this->reader->fault($path, 'twoNumbers', ['found' => Reader::show($value)]);

            return null;
        }
        $from = $this->reader->number(['0' => $value[0]], $path, '0', 0.0, self::LONG);

        return Area::box($from, 0.0, $this->reader->number(['1' => $value[1]], $path, '1', $from, self::LONG), self::SHORT);
    }

    /** @param array<mixed> $value */
    private function alongRail(array $value, string $path): ?Area
    {
        $within = $this->reader->number($value, $path, 'within', 0.05, self::SHORT);
        $area = match ($value['rail']) {
            'head' => Area::box(0.0, 0.0, $within, self::SHORT),
            'foot' => Area::box(self::LONG - $within, 0.0, self::LONG, self::SHORT),
            'right' => Area::box(0.0, 0.0, self::LONG, $within),
            'left' => Area::box(0.0, self::SHORT - $within, self::LONG, self::SHORT),
            default => null,
        };
        if (null === $area) {
            $found = Reader::show($value['rail']);
            $this->reader->fault("$path.rail", 'choice', ['found' => $found, 'allowed' => 'head, foot, right, left']);
        }

        return $area;
    }

    /**
     * @param array<int, Place> $places
     *
     * @return list<Target>
     */
    private function targets(array $places): array
    {
        $list = $this->document['targets'] ?? [];
        if (!\is_array($list) || !array_is_list($list) || \count($list) > self::MAX_LIST) {
            $this->reader->fault('targets', 'listOf', ['found' => Reader::show($list), 'least' => 0, 'most' => self::MAX_LIST]);

            return [];
        }
        $targets = [];
        foreach ($list as $i => $one) {
            $path = "targets.$i";
            if (!\is_array($one) || ([] !== $one && array_is_list($one))) {
                $this->reader->fault($path, 'object', ['found' => Reader::show($one)]);
                continue;
            }
            $this->reader->onlyKnown($one, $path, ['kind', 'points', 'ball', 'area', 'pocket', 'odds', 'least']);
            $kind = $this->reader->choice($one, $path, 'kind', TargetKind::class, true);
            $ball = $this->ball($one, $path, 'ball');
            if (null !== $ball && !isset($places[$ball->value])) {
                $this->reader->fault("$path.ball", 'notPlaced', ['ball' => $ball->label()]);
            }
            if (TargetKind::Zone === $kind && (null === $ball || Ball::Cue === $ball)) {
                $this->reader->fault("$path.ball", 'objectBall', ['found' => Reader::show($one['ball'] ?? null)]);
            }
            $targets[] = new Target(
                $kind ?? TargetKind::Area,
                $this->reader->number($one, $path, 'points', 0.0, 100.0, 1.0),
                $ball,
                TargetKind::Area === $kind ? $this->area($one['area'] ?? null, "$path.area") : null,
                $this->reader->choice($one, $path, 'pocket', Pocket::class, false),
                $this->reader->number($one, $path, 'odds', 0.05, 0.99, 0.6),
                (int) $this->reader->number($one, $path, 'least', 1.0, 15.0, 1.0),
            );
        }

        return $targets;
    }

    /**
     * @param array<int, Place> $places
     *
     * @return array{array{float, float}|null, int}
     */
    private function moves(array $places): array
    {
        $moves = $this->reader->object($this->document, '', 'moves');
        if ([] === $moves) {
            return [null, 0];
        }
        $this->reader->onlyKnown($moves, 'moves', ['by', 'steps']);
        $by = $this->pair($moves['by'] ?? null, 'moves.by');
        $steps = (int) $this->reader->number($moves, 'moves', 'steps', 1.0, 30.0, 6.0);
        $cue = $places[0] ?? null;
        if (null === $cue || !$cue->isFixed()) {
            $this->reader->fault('moves', 'movesFixed');
        } elseif (null !== $by) {
            [$long, $short] = [$cue->spots[0][0] + $steps * $by[0], $cue->spots[0][1] + $steps * $by[1]];
            if ($long < 0.0 || $long > self::LONG || $short < 0.0 || $short > self::SHORT) {
                $this->reader->fault('moves.steps', 'movesOff', ['long' => $long, 'short' => $short]);
            }
        }

        return [$by, $steps];
    }

    /** @return array{Tip|null, float|null} */
    private function stroke(): array
    {
        $stroke = $this->reader->object($this->document, '', 'stroke');
        $this->reader->onlyKnown($stroke, 'stroke', ['side', 'height', 'speed']);
        $speed = isset($stroke['speed']) ? $this->reader->number($stroke, 'stroke', 'speed', 0.1, Strike::MAX_SPEED) : null;
        if (!isset($stroke['side']) && !isset($stroke['height'])) {
            return [null, $speed];
        }
        try {
            return [
                Tip::fractions(
                    $this->reader->number($stroke, 'stroke', 'side', -0.5, 0.5, 0.0),
                    $this->reader->number($stroke, 'stroke', 'height', -0.5, 0.5, 0.0),
                ),
                $speed,
            ];
        } catch (IllegalStroke $e) {
            $this->reader->because('stroke.side', $e->fact());

            return [null, $speed];
        }
    }

    /** @return list<Level> */
    private function levels(): array
    {
        $list = $this->document['levels'] ?? [];
        if (!\is_array($list) || !array_is_list($list) || \count($list) > self::MAX_LIST) {
            $this->reader->fault('levels', 'listOf', ['found' => Reader::show($list), 'least' => 0, 'most' => self::MAX_LIST]);

            return [];
        }
        $levels = [];
        foreach ($list as $i => $one) {
            $one = \is_array($one) ? $one : [];
            $this->reader->onlyKnown($one, "levels.$i", ['name', 'edits']);
            $name = $one['name'] ?? null;
            if (!\is_string($name) || '' === trim($name) || mb_strlen($name) > self::MAX_NAME) {
                $this->reader->fault("levels.$i.name", 'name', ['found' => Reader::show($name), 'most' => self::MAX_NAME]);
                continue;
            }
            $edits = $this->reader->object($one, "levels.$i", 'edits', true);
            unset($edits['levels'], $edits['format'], $edits['version']);
            $levels[] = new Level(trim(mb_scrub($name)), $edits);
        }

        return $levels;
    }
}
