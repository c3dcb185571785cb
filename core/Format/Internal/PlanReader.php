<?php

declare(strict_types=1);

namespace ZigLane\Core\Format\Internal;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Plan\MissLeave;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Plan\Risks;
use ZigLane\Core\Plan\RunEnd;
use ZigLane\Core\Plan\Tally;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\PositionPlay\Lane;
use ZigLane\Core\PositionPlay\ZoneLevel;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\CushionPoint;
use ZigLane\Core\Shot\LegChain;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Spot;

/**
 * One plan of a plan file, of either version.
 *
 * @internal
 */
final readonly class PlanReader
{
    private const MOST_POLYGONS = 4000;
    private const MOST_REASONS = 20;

    /** @param string $path of the plan, with a point at its end; empty for the best */
    public function __construct(private Reader $reader, private Rack $rack, private string $path)
    {
    }

    /**
     * @param array<mixed> $document
     *
     * @return Plan|null null where the reader has found faults
     *
     * @throws CoreError If a leg of version 1 cannot be played from where the one before leaves the balls
     */
    public function plan(array $document): ?Plan
    {
        $group = $this->reader->choice($document, rtrim($this->path, '.'), 'group', Group::class, false);
        $place = $this->place($document);
        $list = $document['legs'] ?? null;
        if (!\is_array($list) || !array_is_list($list) || [] === $list || \count($list) > PlanFile::MOST_LEGS) {
            $this->reader->fault($this->path.'legs', 'legs', ['found' => Reader::show($list), 'most' => PlanFile::MOST_LEGS]);

            return null;
        }
        $choices = [];
        foreach ($list as $i => $leg) {
            if (!\is_array($leg)) {
                $this->reader->fault($this->path."legs.$i", 'leg', ['found' => Reader::show($leg)]);
                continue;
            }
            $choices[] = $this->choice($leg, $this->path."legs.$i");
        }
        $befores = $this->befores($list);
        if (!$this->reader->isClean()) {
            return null;
        }
        $plan = new Plan(
            $this->rack,
            $place,
            $group,
            [],
            self::fact($document['end'] ?? null),
            self::tally($document),
            self::fact($document['differs'] ?? null),
        );
        $choices = array_values(array_filter($choices));
        $befores = $befores ?? $this->chained($plan->placed(), $choices);
        $legs = [];
        foreach ($choices as $i => $choice) {
            /** @var array<mixed> $leg */
            $leg = $list[$i];
            if (isset($befores[$i])) {
                $legs[] = $this->leg($i + 1, $choice, $befores[$i], $leg);
            }
        }
        if ([] === $legs) {
            $this->reader->fault($this->path.'legs.0', 'leg', ['found' => 'a leg that cannot be played']);

            return null;
        }

        return new Plan($this->rack, $place, $group, $legs, $plan->end, $plan->replays, $plan->differs);
    }

    /**
     * The layouts before the legs.
     *
     * @param list<mixed> $list
     *
     * @return list<Layout>|null null in a file of version 1, which has none
     */
    private function befores(array $list): ?array
    {
        if ([] === array_filter($list, static fn (mixed $leg): bool => \is_array($leg) && isset($leg['before']))) {
            return null;
        }
        $layouts = [];
        foreach ($list as $i => $leg) {
            $object = \is_array($leg) ? $this->reader->object($leg, $this->path."legs.$i", 'before', true) : [];
            $layout = $this->reader->spots(
                $object,
                $this->path."legs.$i.before",
                static fn (float $x, float $y): Spot => Spot::metres($x, $y),
            );
            if ($this->reader->isClean()) {
                $this->reader->layoutFaults(Rack::faults($this->rack->game, $layout, $this->rack->equipment), $this->path."legs.$i.before");
            }
            $layouts[] = $layout;
        }

        return $layouts;
    }

    /**
     * The legs of a file without layouts (version 1): each leg begins where the one before ends when nothing goes wrong.
     *
     * @param list<ShotChoice> $choices
     *
     * @return list<Layout>
     */
    private function chained(Rack $rack, array $choices): array
    {
        $chain = LegChain::play($rack, $choices);
        $layouts = [];
        for ($leg = 1; $leg <= min(\count($choices), $chain->done() + 1); ++$leg) {
            $layouts[] = $chain->before($leg)->layout;
        }

        return $layouts;
    }

    /** @param array<mixed> $leg */
    private function leg(int $number, ShotChoice $choice, Layout $before, array $leg): Leg
    {
        $stroke = \is_array($leg['stroke'] ?? null) ? $leg['stroke'] : [];
        $cut = self::number($leg['cut'] ?? null);
        $ghost = self::spot($leg['ghost'] ?? null);
        $direction = self::number($stroke['direction'] ?? null);
        if (null === $direction || (null === $choice->direction && (null === $cut || null === $ghost))) {
            // A file that holds only what is needed to play it.
            $aim = (new ShotSolver($this->rack->equipment))->aimed($before, $choice)->aim;
            [$cut, $ghost, $direction] = [$aim->ghost->cutDegrees, $aim->ghost->at, rad2deg($aim->direction)];
        }
        $isAimed = null === $choice->direction;
        $risks = \is_array($leg['risks'] ?? null) ? $leg['risks'] : [];
        $misses = \is_array($leg['misses'] ?? null) ? $leg['misses'] : null;

        return new Leg(
            $number,
            $choice,
            $before,
            deg2rad($direction),
            $isAimed ? $cut : null,
            $isAimed ? $ghost : null,
            self::cushions($leg['cushions'] ?? null),
            self::spot($leg['landing'] ?? null),
            self::share($leg['make'] ?? null),
            self::share($leg['position'] ?? null),
            self::share($leg['goOn'] ?? null),
            self::share($leg['runOut'] ?? null),
            (int) self::number($leg['replays'] ?? null),
            new Risks(
                ...array_map(
                    static fn (string $field): float => self::share($risks[$field] ?? null) ?? 0.0,
                    ['scratch', 'hook', 'contact', 'miscue'],
                ),
            ),
            null === $misses
                ? null
                : new MissLeave(
                    (int) self::number($misses['count'] ?? null),
                    (int) self::number($misses['fouls'] ?? null),
                    self::share($misses['leave'] ?? null),
                ),
            self::zones($leg),
            self::lane($leg['lane'] ?? null),
            self::reasons($leg['reasons'] ?? null),
        );
    }

    /** @return list<CushionPoint> */
    private static function cushions(mixed $list): array
    {
        $points = [];
        foreach (\is_array($list) ? \array_slice($list, 0, 40) : [] as $point) {
            $rail = \is_array($point) && \is_string($point['rail'] ?? null) ? Rail::tryFrom($point['rail']) : null;
            $at = \is_array($point) ? self::spot($point['at'] ?? null) : null;
            if (null !== $rail && null !== $at) {
                $points[] = new CushionPoint($rail, $at);
            }
        }

        return $points;
    }

    /**
     * @param array<mixed> $leg
     *
     * @return list<ZoneLevel>
     */
    private static function zones(array $leg): array
    {
        $levels = [new ZoneLevel(Plan::ZONE, self::rings($leg['zone'] ?? null))];
        foreach (\is_array($leg['darker'] ?? null) ? \array_slice($leg['darker'], 0, 4) : [] as $level) {
            if (\is_array($level)) {
                $levels[] = new ZoneLevel(self::share($level['least'] ?? null) ?? Plan::ZONE, self::rings($level['zone'] ?? null));
            }
        }

        return array_values(array_filter($levels, static fn (ZoneLevel $level): bool => [] !== $level->rings));
    }

    /** @return list<list<Spot>> */
    private static function rings(mixed $list): array
    {
        return array_values(array_filter(array_map(
            self::polyline(...),
            \is_array($list) ? \array_slice(array_values($list), 0, self::MOST_POLYGONS) : [],
        )));
    }

    /** @return list<Spot> */
    private static function polyline(mixed $list): array
    {
        return array_values(array_filter(array_map(self::spot(...), \is_array($list) ? \array_slice(array_values($list), 0, 400) : [])));
    }

    /** Of a file of version 2; one of version 1 does not hold where it runs. */
    private static function lane(mixed $lane): ?Lane
    {
        $stops = \is_array($lane) ? self::polyline($lane['stops'] ?? null) : [];
        if ([] === $stops) {
            return null;
        }

        return new Lane(
            self::share($lane['slower'] ?? null) ?? 0.0,
            self::number($lane['harder'] ?? null) ?? 0.0,
            $stops,
            self::fact($lane['short'] ?? null),
            self::fact($lane['long'] ?? null),
            self::number($lane['angle'] ?? null),
        );
    }

    /** @return list<Fact> */
    private static function reasons(mixed $list): array
    {
        $reasons = [];
        foreach (\is_array($list) ? \array_slice($list, 0, self::MOST_REASONS) : [] as $reason) {
            // A sentence of version 1 is told as it stands.
            $reasons[] = \is_string($reason) ? new Fact('reason.told', ['text' => mb_substr($reason, 0, 200)]) : self::fact($reason);
        }

        return array_values(array_filter($reasons));
    }

    private static function fact(mixed $value): ?Fact
    {
        return match (true) {
            // A plan that was written before lanes said where nothing was found to end them.
            \is_array($value) => Fact::fromArray(
                isset($value['slowerShare']) ? $value + ['slowerIs' => 'edge', 'harderIs' => 'edge'] : $value,
            ),
            \is_string($value) => new Fact('reason.told', ['text' => mb_substr($value, 0, 200)]),
            default => null,
        };
    }

    /** @param array<mixed> $document */
    private static function tally(array $document): Tally
    {
        $kept = \is_array($document['tally'] ?? null) ? $document['tally'] : [];
        $count = static fn (mixed $value): int => max(0, (int) self::number($value));
        $tally = new Tally();
        $tally->tries = $count($kept['tries'] ?? $document['replays'] ?? null);
        $tally->finished = min(
            $tally->tries,
            [] === $kept
                ? (int) round($tally->tries * (self::share($document['runOut'] ?? null) ?? 0.0))
                : $count($kept['finished'] ?? null),
        );
        $ended = $kept['ended'] ?? $document['ended'] ?? null;
        foreach (RunEnd::cases() as $end) {
            $tally->ended[$end->value] = $count(\is_array($ended) ? $ended[$end->value] ?? null : null);
        }
        $tally->endedOn = self::counts($kept['endedOn'] ?? null);
        $tally->reached = self::counts($kept['reached'] ?? null);
        $tally->finishedIn = self::counts($kept['finishedIn'] ?? null);
        [$tally->made, $tally->opened, $tally->thenOn] = [
            $count($kept['made'] ?? null),
            $count($kept['opened'] ?? null),
            max(0.0, self::number($kept['thenOn'] ?? null) ?? 0.0),
        ];
        $tally->squares = $count($kept['squares'] ?? null);
        $tally->isOverRacks = true === ($kept['overRacks'] ?? false);

        return $tally;
    }

    /** @return array<int, int> */
    private static function counts(mixed $value): array
    {
        $counts = [];
        foreach (\is_array($value) ? \array_slice($value, 0, 64, true) : [] as $key => $count) {
            $counts[(int) $key] = max(0, (int) self::number($count));
        }

        return $counts;
    }

    /** @param array<mixed> $document */
    private function place(array $document): ?Spot
    {
        $place = self::spot($document['place'] ?? null);
        if ($this->rack->layout->has(Ball::Cue)) {
            return $place;
        }
        if (null === $place) {
            $this->reader->fault($this->path.'place', 'missingPlace');

            return null;
        }
        try {
            $this->rack->inHand(BallInHand::None)->withBall(Ball::Cue, $place);
        } catch (CoreError $e) {
            $this->reader->because($this->path.'place', $e->fact());
        }

        return $place;
    }

    /** @param array<mixed> $leg */
    private function choice(array $leg, string $path): ?ShotChoice
    {
        $reader = $this->reader;
        $name = $leg['ball'] ?? null;
        $ball = \is_string($name) ? Ball::named($name) : null;
        if (null === $ball || Ball::Cue === $ball) {
            $reader->fault("$path.ball", 'objectBall', ['found' => Reader::show($name)]);
        }
        $pocket = $reader->choice($leg, $path, 'pocket', Pocket::class, true);
        $stroke = $reader->object($leg, $path, 'stroke', true);
        $speed = $reader->number($stroke, "$path.stroke", 'speed', 0.001, Strike::MAX_SPEED);
        $side = $reader->number($stroke, "$path.stroke", 'side', -1.0, 1.0, 0.0);
        $height = $reader->number($stroke, "$path.stroke", 'height', -1.0, 1.0, 0.0);
        $elevation = $reader->number($stroke, "$path.stroke", 'elevation', 0.0, Strike::MAX_ELEVATION_DEGREES, 0.0);
        $direction = $reader->number($stroke, "$path.stroke", 'direction', -360.0, 360.0, 0.0);
        $aside = $reader->number($leg, $path, 'aside', -ShotChoice::MOST_ASIDE, ShotChoice::MOST_ASIDE, 0.0);
        if (!$reader->isClean() || null === $ball || null === $pocket) {
            return null;
        }
        try {
            return new ShotChoice(
                $ball,
                $pocket,
                new Stroke(Tip::fractions($side, $height), $speed, $elevation),
                $aside,
                true === ($leg['byHand'] ?? false) ? deg2rad($direction) : null,
                true === ($leg['safety'] ?? false),
            );
        } catch (IllegalStroke $e) {
            $reader->because("$path.stroke", $e->fact());

            return null;
        }
    }

    private static function spot(mixed $spot): ?Spot
    {
        if (!\is_array($spot) || 2 !== \count($spot)) {
            return null;
        }
        [$x, $y] = [self::number($spot[0] ?? null), self::number($spot[1] ?? null)];

        return null === $x || null === $y || abs($x) > 100.0 || abs($y) > 100.0 ? null : Spot::metres($x, $y);
    }

    private static function number(mixed $value): ?float
    {
        return (\is_int($value) || \is_float($value)) && is_finite((float) $value) ? (float) $value : null;
    }

    /** A number from 0 to 1; null if it is none. */
    private static function share(mixed $value): ?float
    {
        $number = self::number($value);

        return null === $number ? null : max(0.0, min(1.0, $number));
    }
}
