<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Calibration\Base;
use ZigLane\Core\Calibration\Parameter;
use ZigLane\Core\Calibration\TableTest;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\Internal\Reader;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Table\Cue;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

/** What was measured of a table: shots and what was seen of them. Format "zig-lane/table-tests", version 1. */
final readonly class TableTestsFile
{
    public const FORMAT = 'zig-lane/table-tests';
    public const MAX_BYTES = 262144;
    private const MAX_TESTS = 100;
    private const MAX_BALLS = 16;
    private const MAX_CUSHIONS = 20;
    private const MAX_NAME = 80;
    /** What is measured to, unless it is said: metres and seconds. */
    private const SPOT = [0.02, 0.0005, 0.5];
    private const SECONDS = [0.1, 0.005, 5.0];

    /** @param list<TableTest> $tests */
    private function __construct(public Base $base, public array $tests)
    {
    }

    /** @throws InvalidFile With every fault that was found */
    public static function parse(string $json, int $maxBytes = self::MAX_BYTES): self
    {
        $document = Reader::document($json, $maxBytes, self::FORMAT);
        $reader = new Reader();
        $reader->onlyKnown($document, '', ['format', 'version', 'name', 'table', 'balls', 'cue', 'tests']);
        $cue = $reader->object($document, '', 'cue');
        $isCueUnknown = \array_key_exists('endMassRatio', $cue) && null === $cue['endMassRatio'];
        $equipment = new Equipment(
            $reader->table($document),
            $reader->balls($document),
            $isCueUnknown ? new Cue() : $reader->cue($cue, 'cue'),
        );
        $reader->onlyKnown($cue, 'cue', ['endMassRatio']);
        $list = $document['tests'] ?? null;
        if (!\is_array($list) || !array_is_list($list) || [] === $list || \count($list) > self::MAX_TESTS) {
            $reader->fault('tests', 'listOf', ['found' => Reader::show($list), 'least' => 1, 'most' => self::MAX_TESTS]);
            $list = [];
        }
        $tests = [];
        foreach ($list as $i => $one) {
            if (!\is_array($one) || (array_is_list($one) && [] !== $one)) {
                $reader->fault("tests.$i", 'object', ['found' => Reader::show($one)]);
                continue;
            }
            $test = self::test($reader, $one, "tests.$i", $equipment);
            $tests = null === $test ? $tests : [...$tests, $test];
        }
        $reader->finish();

        $isSlopeKnown = \is_array($document['table'] ?? null) && \array_key_exists('slope', $document['table']);

        return new self(new Base($equipment, self::unknown($document, $isCueUnknown), !$isSlopeKnown), $tests);
    }

    /**
     * What is not given is to be found.
     *
     * @param array<mixed> $document
     *
     * @return list<Parameter>
     */
    private static function unknown(array $document, bool $isCueUnknown): array
    {
        $table = \is_array($document['table'] ?? null) ? $document['table'] : [];
        $balls = \is_array($document['balls'] ?? null) ? $document['balls'] : [];
        $unknown = array_filter(Parameter::usualOnes(), static fn (Parameter $one): bool => match ($one) {
            Parameter::BallRestitution => !\array_key_exists('restitution', $balls),
            Parameter::BallFriction => !\array_key_exists('friction', $balls),
            default => !\array_key_exists($one->value, $table),
        });

        return [...$unknown, ...($isCueUnknown ? [Parameter::EndMassRatio] : [])];
    }

    /** @param array<mixed> $one */
    private static function test(Reader $reader, array $one, string $path, Equipment $equipment): ?TableTest
    {
        $reader->onlyKnown($one, $path, ['name', 'layout', 'stroke', 'speed', 'observed', 'measured']);
        $table = $equipment->table;
        $spot = static fn (float $long, float $short): Spot => Spot::diamonds($long, $short, $table);
        $object = $reader->object($one, $path, 'layout', true);
        if (\count($object) > self::MAX_BALLS) {
            $reader->fault("$path.layout", 'tooManyBalls', ['found' => \count($object), 'most' => self::MAX_BALLS]);

            return null;
        }
        $layout = $reader->spots($object, "$path.layout", $spot);
        if ($reader->isClean()) {
            $reader->layoutFaults((new LayoutRules($equipment))->faults($layout), "$path.layout");
        }
        if ($reader->isClean() && !$layout->has(Ball::Cue)) {
            $reader->fault("$path.layout.cue", 'missingCue');
        }
        $isSpeedKnown = null !== ($one['speed'] ?? null);
        $speed = $isSpeedKnown ? $reader->number($one, $path, 'speed', 0.02, Strike::MAX_SPEED) : 1.0;
        $strike = self::strike($reader, $reader->object($one, $path, 'stroke', true), "$path.stroke", $speed, $equipment->cue);
        $observed = $reader->object($one, $path, 'observed', true);
        $ends = [];
        foreach ($observed as $name => $value) {
            $name = (string) $name;
            if (\in_array($name, ['cushions', 'seconds', 'noCushion'], true)) {
                continue;
            }
            $ball = Ball::named($name);
            if (null === $ball || !$layout->has($ball)) {
                $reader->fault("$path.observed.".trim(Reader::show($name), '"'), 'notInLayout');
                continue;
            }
            $pocket = \is_string($value) ? Pocket::tryFrom($value) : null;
            $ends[$ball->value] = $pocket ?? self::end($reader, $name, $value, "$path.observed", $table);
        }
        $cushions = self::cushions($reader, $observed, "$path.observed", $layout->balls(), $table);
        foreach (\is_array($observed['noCushion'] ?? []) ? $observed['noCushion'] ?? [] : [null] as $i => $name) {
            $ball = \is_string($name) || \is_int($name) ? Ball::named((string) $name) : null;
            if (null === $ball || !$layout->has($ball) || isset($cushions[$ball->value])) {
                $reader->fault("$path.observed.noCushion.$i", 'notInLayout');
                continue;
            }
            $cushions[$ball->value] = [];
        }
        $seconds = null === ($observed['seconds'] ?? null) ? null : $reader->number($observed, "$path.observed", 'seconds', 0.01, 120.0);
        if ($reader->isClean() && [] === $ends && [] === $cushions && null === $seconds) {
            $reader->fault("$path.observed", 'nothingSeen');
        }
        $measured = $reader->object($one, $path, 'measured');
        $reader->onlyKnown($measured, "$path.measured", ['spot', 'seconds']);
        $name = $one['name'] ?? '';
        if (!\is_string($name) || mb_strlen($name) > self::MAX_NAME) {
            $reader->fault("$path.name", 'name', ['found' => Reader::show($name), 'most' => self::MAX_NAME]);
            $name = '';
        }
        [$usual, $least, $most] = self::SPOT;
        $spotDeviation = $reader->number($measured, "$path.measured", 'spot', $least, $most, $usual);
        [$usual, $least, $most] = self::SECONDS;
        $watch = $reader->number($measured, "$path.measured", 'seconds', $least, $most, $usual);

        if (!$reader->isClean() || null === $strike) {
            return null;
        }
        $ends = array_filter($ends);

        return new TableTest($layout, $strike, $isSpeedKnown, $ends, $cushions, $seconds, $spotDeviation, $watch, mb_scrub($name));
    }

    private static function end(Reader $reader, string $name, mixed $value, string $path, TableProfile $table): ?Spot
    {
        $at = static fn (float $long, float $short): Spot => Spot::diamonds($long, $short, $table);
        $spots = $reader->spots([$name => $value], $path, $at);
        $ball = Ball::named($name);
        if (null === $ball || !$spots->has($ball)) {
            return null;
        }
        [$long, $short] = $spots->spot($ball)->inDiamonds($table);
        // Noted with a tape: a little beyond a nose line at the most.
        foreach ([[$long, 8.0], [$short, 4.0]] as $i => [$at, $most]) {
            if ($at < -0.5 || $at > $most + 0.5) {
                $reader->fault("$path.$name.$i", 'number', ['found' => Reader::show($at), 'least' => 0, 'most' => $most]);
            }
        }

        return $spots->spot($ball);
    }

    /**
     * @param array<mixed> $observed
     * @param list<Ball>   $balls    that lie on the table
     *
     * @return array<int, list<array{Rail, float|null}>> by ball
     */
    private static function cushions(Reader $reader, array $observed, string $path, array $balls, TableProfile $table): array
    {
        if (!\array_key_exists('cushions', $observed)) {
            return [];
        }
        $list = $observed['cushions'];
        if (!\is_array($list) || !array_is_list($list) || \count($list) > self::MAX_CUSHIONS) {
            $reader->fault("$path.cushions", 'listOf', ['found' => Reader::show($list), 'least' => 0, 'most' => self::MAX_CUSHIONS]);

            return [];
        }
        $cushions = [];
        foreach ($list as $i => $one) {
            $at = "$path.cushions.$i";
            $one = \is_array($one) ? $one : [];
            $reader->onlyKnown($one, $at, ['ball', 'rail', 'diamond']);
            $ball = \is_string($one['ball'] ?? null) || \is_int($one['ball'] ?? null) ? Ball::named((string) $one['ball']) : null;
            if (null === $ball || !\in_array($ball, $balls, true)) {
                $reader->fault("$at.ball", 'notInLayout');
            }
            $rail = $reader->choice($one, $at, 'rail', Rail::class, true);
            $most = true === $rail?->isShort() ? 4.0 : 8.0;
            $diamond = null === ($one['diamond'] ?? null) ? null : $reader->number($one, $at, 'diamond', -0.5, $most + 0.5);
            if (null !== $ball && null !== $rail) {
                $cushions[$ball->value][] = [$rail, null === $diamond ? null : $diamond * $table->diamond()];
            }
        }

        return $cushions;
    }

    /** @param array<mixed> $stroke */
    private static function strike(Reader $reader, array $stroke, string $path, float $speed, Cue $cue): ?Strike
    {
        $reader->onlyKnown($stroke, $path, ['direction', 'side', 'height', 'elevation']);
        $direction = $reader->number($stroke, $path, 'direction', -720.0, 720.0);
        $side = $reader->number($stroke, $path, 'side', -1.0, 1.0, 0.0);
        $height = $reader->number($stroke, $path, 'height', -1.0, 1.0, 0.0);
        $elevation = $reader->number($stroke, $path, 'elevation', 0.0, Strike::MAX_ELEVATION_DEGREES, 0.0);
        if (hypot($side, $height) > Cue::MISCUE_LIMIT) {
            $limit = ['offset' => round(hypot($side, $height), 3), 'limit' => Cue::MISCUE_LIMIT];
            $reader->because("$path.side", new Fact('file.miscue', $limit));
        }
        try {
            return $reader->isClean() ? Strike::degrees($direction, $speed, $side, $height, $elevation, $cue->endMassRatio) : null;
        } catch (IllegalStroke $e) {
            $reader->because($path, $e->fact());

            return null;
        }
    }
}
