<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\Internal\LogWriter;
use ZigLane\Core\Format\Internal\Players;
use ZigLane\Core\Format\Internal\Reader;
use ZigLane\Core\Log\Log;
use ZigLane\Core\Log\LoggedRack;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\Outing;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Log\RackResult;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Log\ShotResult;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\Side;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * A log: outings, their racks, and every shot with what was meant and what came of it. Format "zig-lane/log", version 1. Spots are diamonds
 * of the outing's table. Balls of `before` and `after` lie as they were noted, and may overlap by the error of measurement.
 */
final class LogFile
{
    public const FORMAT = 'zig-lane/log';
    public const MAX_BYTES = 67_108_864;
    private const MOST_BALLS = 16;
    /** Balls or racks in a row at the most: a slip of the finger is more. */
    private const MOST_RUN = 9999;

    private function __construct(private readonly Reader $reader)
    {
    }

    /** @throws InvalidFile With every fault that was found */
    public static function parse(string $json, int $maxBytes = self::MAX_BYTES): Log
    {
        $document = Reader::document($json, $maxBytes, self::FORMAT);
        $reader = new Reader();
        $file = new self($reader);
        $player = Players::read($reader, $reader->object($document, '', 'player'), 'player');
        $outings = [];
        foreach ($file->items($document, '', 'outings') as $path => $outing) {
            $outings[] = $file->outing($outing, $path);
        }
        $reader->finish();

        return new Log($player, $outings);
    }

    /**
     * One shot of a log, as it stands in its list.
     *
     * @param array<mixed> $shot
     *
     * @throws InvalidFile With every fault that was found
     */
    public static function readShot(array $shot, Equipment $equipment): LoggedShot
    {
        $reader = new Reader();
        $read = (new self($reader))->shot($shot, 'shot', $equipment);
        $reader->finish();

        return $read;
    }

    public static function write(Log $log): string
    {
        return json_encode(LogWriter::log($log), \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE);
    }

    /**
     * The same file piece by piece, so that a log of any length is written in little memory.
     *
     * @param iterable<string> $outings each as JSON
     *
     * @return iterable<string>
     */
    public static function stream(ExecutionErrors $player, iterable $outings): iterable
    {
        $flags = \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE;
        yield substr(json_encode(LogWriter::log(new Log($player, [])), $flags), 0, -2);
        $between = '';
        foreach ($outings as $outing) {
            yield $between.$outing;
            $between = ',';
        }
        yield "]}\n";
    }

    /** @return array<string, mixed> a shot as it stands in its list, its spots in diamonds of its table */
    public static function shotArray(LoggedShot $shot): array
    {
        return LogWriter::shot($shot);
    }

    /** @param array<mixed> $object */
    private function outing(array $object, string $path): Outing
    {
        $table = $this->reader->table(['table' => $object['table'] ?? []]);
        $cue = $this->reader->object($object, $path, 'cue');
        $equipment = new Equipment(
            $table,
            $this->reader->balls(['balls' => $object['balls'] ?? []]),
            $this->reader->cue($cue, "$path.cue"),
        );
        $racks = [];
        foreach ($this->items($object, $path, 'racks') as $at => $rack) {
            $racks[] = $this->rack($rack, $at, $equipment);
        }

        return new Outing(
            self::text($object['id'] ?? null),
            $this->time($object, $path, 'date') ?? new \DateTimeImmutable('1970-01-01'),
            self::text($object['place'] ?? null),
            self::text($object['notes'] ?? null),
            $equipment,
            $racks,
        );
    }

    /** @param array<mixed> $object */
    private function rack(array $object, string $path, Equipment $equipment): LoggedRack
    {
        $game = $this->reader->choice($object, $path, 'game', Game::class, true) ?? Game::NineBall;
        $shots = [];
        foreach ($this->items($object, $path, 'shots') as $at => $shot) {
            $shots[] = $this->shot($shot, $at, $equipment);
        }

        return new LoggedRack(
            self::text($object['id'] ?? null),
            $game,
            $this->reader->choice($object, $path, 'kind', RackKind::class, false) ?? RackKind::Practice,
            $this->spots($object, $path, 'start', $equipment),
            $this->reader->choice($object, $path, 'ballInHand', BallInHand::class, false) ?? BallInHand::None,
            $this->reader->choice($object, $path, 'end', RackResult::class, false),
            $shots,
            isset($object['balls']) ? (int) $this->reader->number($object, $path, 'balls', 0, self::MOST_RUN) : null,
            isset($object['racks']) ? (int) $this->reader->number($object, $path, 'racks', 0, self::MOST_RUN) : null,
        );
    }

    /** @param array<mixed> $object */
    private function shot(array $object, string $path, Equipment $equipment): LoggedShot
    {
        $called = $this->reader->object($object, $path, 'called');
        $ball = null;
        if (isset($called['ball'])) {
            $ball = \is_string($called['ball']) || \is_int($called['ball']) ? Ball::named((string) $called['ball']) : null;
            if (null === $ball || Ball::Cue === $ball) {
                $this->reader->fault("$path.called.ball", 'notABall');
            }
        }
        $meant = $this->reader->object($object, $path, 'meant');
        $share = fn (string $field): ?float => isset($meant[$field])
            ? $this->reader->number($meant, "$path.meant", $field, 0.0, 1.0)
            : null;
        $landing = $meant['landing'] ?? null;

        return new LoggedShot(
            self::text($object['id'] ?? null),
            $this->time($object, $path, 'at'),
            $this->reader->choice($object, $path, 'kind', ShotKind::class, false) ?? ShotKind::Pot,
            $equipment,
            $this->spots($object, $path, 'before', $equipment),
            $ball,
            [] === $called ? null : $this->reader->choice($called, "$path.called", 'pocket', Pocket::class, false),
            [] === $meant ? null : $this->strike($meant, "$path.meant", $equipment),
            null === $landing ? null : $this->landing($landing, "$path.meant", $equipment),
            $share('make'),
            $share('position'),
            $share('runOut'),
            $share('guess') ?? (isset($object['guess']) ? $this->reader->number($object, $path, 'guess', 0.0, 1.0) : null),
            $this->result($this->reader->object($object, $path, 'result', true), "$path.result", $equipment),
        );
    }

    private function landing(mixed $spot, string $path, Equipment $equipment): ?Spot
    {
        $layout = $this->spots(['landing' => ['cue' => $spot]], $path, 'landing', $equipment);

        return $layout->has(Ball::Cue) ? $layout->spot(Ball::Cue) : null;
    }

    /** @param array<mixed> $meant */
    private function strike(array $meant, string $path, Equipment $equipment): ?Strike
    {
        $stroke = $this->reader->object($meant, $path, 'stroke', true);
        $numbers = [];
        foreach ([
            'direction' => [-720.0, 720.0, null], 'speed' => [0.01, Strike::MAX_SPEED, null], 'side' => [-1.0, 1.0, 0.0],
            'height' => [-1.0, 1.0, 0.0], 'elevation' => [0.0, Strike::MAX_ELEVATION_DEGREES, 0.0],
        ] as $field => [$least, $most, $default]) {
            $numbers[] = $this->reader->number($stroke, "$path.stroke", $field, $least, $most, $default);
        }
        if (!$this->reader->isClean()) {
            return null;
        }
        try {
            return Strike::degrees($numbers[0], $numbers[1], $numbers[2], $numbers[3], $numbers[4], $equipment->cue->endMassRatio);
        } catch (CoreError $e) {
            $this->reader->because("$path.stroke", $e->fact());

            return null;
        }
    }

    /** @param array<mixed> $result */
    private function result(array $result, string $path, Equipment $equipment): ShotResult
    {
        $made = $result['made'] ?? null;
        if (null !== $made && !\is_bool($made)) {
            $this->reader->fault("$path.made", 'boolean', ['found' => Reader::show($made)]);
        }
        $scratch = $result['scratch'] ?? null;
        $in = \is_string($scratch) ? $this->reader->choice($result, $path, 'scratch', Pocket::class, false) : null;
        $position = $result['position'] ?? null;

        return new ShotResult(
            \is_bool($made) ? $made : null,
            $this->reader->choice($result, $path, 'missed', Side::class, false),
            null !== $scratch && false !== $scratch,
            $in,
            true === ($result['foul'] ?? false),
            true === ($result['miscue'] ?? false),
            \is_bool($position) ? $position : null,
            $this->spots($result, $path, 'after', $equipment),
            isset($result['measured']) ? $this->reader->number($result, $path, 'measured', 0.0005, 1.0) : ShotResult::MEASURED,
            $this->fell($result['fell'] ?? [], "$path.fell"),
        );
    }

    /** @return list<Ball> */
    private function fell(mixed $names, string $path): array
    {
        $balls = [];
        foreach (\is_array($names) ? \array_slice($names, 0, self::MOST_BALLS) : [$names] as $name) {
            $ball = \is_string($name) || \is_int($name) ? Ball::named((string) $name) : null;
            if (null === $ball || \in_array($ball, $balls, true)) {
                $this->reader->fault($path, 'notABall');
                continue;
            }
            $balls[] = $ball;
        }

        return $balls;
    }

    /** @param array<mixed> $object */
    private function spots(array $object, string $path, string $field, Equipment $equipment): Layout
    {
        $spots = $this->reader->object($object, $path, $field);
        if (\count($spots) > self::MOST_BALLS) {
            $this->reader->fault("$path.$field", 'tooManyBalls', ['found' => \count($spots), 'most' => self::MOST_BALLS]);

            return Layout::empty();
        }

        return $this->reader->spots(
            $spots,
            "$path.$field",
            static fn (float $x, float $y): Spot => Spot::diamonds($x, $y, $equipment->table),
        );
    }

    /**
     * @param array<mixed> $parent
     *
     * @return array<string, array<mixed>> the objects of a list, by their path
     */
    private function items(array $parent, string $path, string $field): array
    {
        $list = $parent[$field] ?? [];
        $at = '' === $path ? $field : "$path.$field";
        if (!\is_array($list) || !array_is_list($list)) {
            $this->reader->fault($at, 'list', ['found' => Reader::show($list)]);

            return [];
        }
        $items = [];
        foreach ($list as $i => $item) {
            if (!\is_array($item) || (array_is_list($item) && [] !== $item)) {
                $this->reader->fault("$at.$i", 'object', ['found' => Reader::show($item)]);
                continue;
            }
            $items["$at.$i"] = $item;
        }

        return $items;
    }

    /** @param array<mixed> $object */
    private function time(array $object, string $path, string $field): ?\DateTimeImmutable
    {
        $value = $object[$field] ?? null;
        if (null === $value) {
            return null;
        }
        try {
            $isTime = \is_string($value) && 1 === preg_match('/^\d{4}-\d{2}-\d{2}(T[\d:.]+(Z|[+-]\d{2}:\d{2})?)?$/D', $value);

            return $isTime ? new \DateTimeImmutable($value, new \DateTimeZone('UTC')) : throw new \Exception('no time');
        } catch (\Exception) {
            $this->reader->fault("$path.$field", 'time', ['found' => Reader::show($value)]);

            return null;
        }
    }

    private static function text(mixed $value): string
    {
        return \is_string($value) ? mb_substr(mb_scrub($value), 0, 2000) : '';
    }
}
