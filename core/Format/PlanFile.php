<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Error\IllegalStroke;
use ZigLane\Core\Format\Internal\Reader;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Stroke\LengthScale;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Pocket;

/**
 * A plan as a file. Format "zig-lane/plan", version 1: the rack that it answers, its legs, and other plans. Of a read plan only what is
 * needed to play it counts: the rack, the place of the cue ball, the group, and each leg's ball, pocket and stroke.
 */
final readonly class PlanFile
{
    public const FORMAT = 'zig-lane/plan';
    private const MOST_LEGS = 20;
    /** Balls that are named as those that most replays end on. */
    private const ENDS = 3;

    /** @param list<ShotChoice> $legs at least one */
    private function __construct(public Rack $rack, public ?Spot $place, public ?Group $group, public array $legs)
    {
    }

    /**
     * @param non-empty-list<Plan> $plans the best first
     *
     * @return array<string, mixed>
     */
    public static function document(array $plans, float $seconds, int $simulated): array
    {
        $best = $plans[0];
        $scale = new LengthScale($best->rack->equipment);

        return [
            'format' => self::FORMAT,
            'version' => 1,
            'rack' => json_decode((new RackFile($best->rack))->write(), true, 32, \JSON_THROW_ON_ERROR),
            ...self::planToArray($best, $scale),
            'seconds' => round($seconds, 1),
            'simulated' => $simulated,
            'alternatives' => array_map(static fn (Plan $plan): array => [...self::planToArray($plan, $scale), 'differs' => $plan->differs], \array_slice($plans, 1)),
        ];
    }

    /** @param non-empty-list<Plan> $plans the best first */
    public static function write(array $plans, float $seconds, int $simulated): string
    {
        return json_encode(self::document($plans, $seconds, $simulated), \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_SLASHES | \JSON_UNESCAPED_UNICODE);
    }

    /** @return array<string, mixed> */
    private static function planToArray(Plan $plan, LengthScale $scale): array
    {
        return array_filter([
            'runOut' => $plan->replays->tries > 0 ? round($plan->replays->chance(), 4) : null,
            'interval' => $plan->replays->tries > 0 ? array_map(static fn (float $edge): float => round($edge, 4), $plan->replays->interval()) : null,
            'replays' => $plan->replays->tries,
            'place' => null === $plan->place ? null : self::spot($plan->place),
            'group' => $plan->group?->value,
            'end' => $plan->end,
            'ended' => $plan->replays->ended,
            'endsOn' => [] === $plan->ends() ? null : array_map(static fn (array $end): array => ['ball' => $end[0]->label(), 'share' => round($end[1], 3)], \array_slice($plan->ends(), 0, self::ENDS)),
            'thenOn' => null === $plan->replays->meanThenOn() ? null : ['racks' => $plan->replays->opened, 'easiestPot' => round($plan->replays->meanThenOn(), 3)],
            'legs' => array_map(static fn (Leg $leg): array => self::leg($leg, $plan->rack, $scale), $plan->legs),
        ], static fn (mixed $value): bool => null !== $value);
    }

    /** @return array<string, mixed> */
    private static function leg(Leg $leg, Rack $rack, LengthScale $scale): array
    {
        $shot = $leg->shot;
        $choice = $shot->choice;
        $stroke = $choice->stroke;
        $cushions = [];
        foreach ($shot->cushions() as $event) {
            if (EventKind::Cushion === $event->kind && null !== $event->rail) {
                $along = $event->rail->isShort() ? $event->at->y : $event->at->x;
                $cushions[] = ['rail' => $event->rail->value, 'diamond' => round($along / $rack->equipment->table->diamond(), 2), 'at' => self::spot($event->at)];
            }
        }

        return array_filter([
            'ball' => $choice->ball->label(),
            'pocket' => $choice->pocket->value,
            'from' => self::spot($shot->layout->spot(Ball::Cue)),
            'cut' => round($shot->aim->ghost->cutDegrees, 2),
            'ghost' => self::spot($shot->aim->ghost->at),
            'stroke' => ['direction' => rad2deg($shot->strike->direction), 'speed' => $stroke->speed, 'side' => $stroke->tip->side, 'height' => $stroke->tip->height, 'elevation' => $stroke->elevation],
            'aside' => 0.0 === $choice->aside ? null : $choice->aside,
            'byHand' => null === $choice->direction ? null : true,
            'lengths' => round($scale->lengths($stroke->speed), 2),
            'tip' => ['clock' => $stroke->tip->clock(), 'tips' => round($stroke->tip->offset() / $rack->equipment->offsetPerTip(), 2)],
            'cushions' => $cushions,
            'landing' => null === $shot->scratch() ? self::spot($shot->outcome->final->spot(Ball::Cue)) : null,
            'zone' => array_map(static fn (array $polygon): array => array_map(self::spot(...), $polygon), $leg->zone),
            'lane' => null === $leg->lane ? null : ['metres' => round($leg->lane->length(), 3), 'slower' => round($leg->lane->slower, 3), 'harder' => round($leg->lane->harder, 3)],
            'make' => round($leg->make, 3),
            'position' => round($leg->position, 3),
            'runOut' => null === $leg->runOut ? null : round($leg->runOut, 4),
            'risks' => array_map(static fn (float $share): float => round($share, 3), $leg->risks),
            'misses' => null === $leg->misses ? null : ['count' => $leg->misses->count, 'fouls' => $leg->misses->fouls, 'leave' => null === $leg->misses->chance ? null : round($leg->misses->chance, 3)],
            'reasons' => $leg->reasons,
        ], static fn (mixed $value): bool => null !== $value);
    }

    /** @return array{float, float} */
    private static function spot(Spot $spot): array
    {
        return [round($spot->x, 6), round($spot->y, 6)];
    }

    /** @throws InvalidFile With every fault that was found */
    public static function parse(string $json, int $maxBytes = 4194304): self
    {
        $document = Reader::document($json, $maxBytes, self::FORMAT);
        $reader = new Reader();
        $rack = null;
        try {
            $rack = RackFile::parse(json_encode($reader->object($document, '', 'rack', true), \JSON_THROW_ON_ERROR))->rack;
        } catch (InvalidFile $e) {
            foreach ($e->faults as $fault) {
                $reader->fault('rack.'.$fault->path, $fault->message);
            }
        }
        $group = $reader->choice($document, '', 'group', Group::class, false);
        $list = $document['legs'] ?? null;
        if (!\is_array($list) || !array_is_list($list) || [] === $list || \count($list) > self::MOST_LEGS) {
            $reader->fault('legs', \sprintf('found %s; a list of 1 to %d legs is allowed', Reader::show($list), self::MOST_LEGS));
            $list = [];
        }
        $legs = [];
        foreach ($list as $i => $leg) {
            if (!\is_array($leg)) {
                $reader->fault("legs.$i", \sprintf('found %s; a leg is allowed', Reader::show($leg)));
                continue;
            }
            $choice = self::choice($reader, $leg, "legs.$i");
            if (null !== $choice) {
                $legs[] = $choice;
            }
        }
        $place = self::place($document['place'] ?? null);
        if (null !== $rack && !$rack->layout->has(Ball::Cue)) {
            try {
                null === $place ? $reader->fault('place', 'is missing; with ball in hand two numbers, metres along and across, are needed') : $rack->withBall(Ball::Cue, $place);
            } catch (CoreError $e) {
                $reader->fault('place', lcfirst($e->getMessage()));
            }
        }
        $reader->finish();
        \assert(null !== $rack);

        return new self($rack, $place, $group, $legs);
    }

    /**
     * One of the plans of a document that was read before: 0 the best, then its alternatives; the best where there is none of that number.
     *
     * @param array<mixed> $document
     *
     * @throws InvalidFile With every fault that was found
     */
    public static function plan(array $document, int $number): self
    {
        $plan = \is_array($document['alternatives'] ?? null) && $number > 0 ? $document['alternatives'][$number - 1] ?? $document : $document;
        $plan = \is_array($plan) ? $plan : $document;

        return self::parse(json_encode(['format' => self::FORMAT, 'version' => 1, 'rack' => $document['rack'] ?? null, 'legs' => $plan['legs'] ?? []] + array_filter(['place' => $plan['place'] ?? null, 'group' => $plan['group'] ?? null]), \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION));
    }

    /** The rack as it is played: with the cue ball placed where that was in hand. */
    public function placed(): Rack
    {
        return null === $this->place || $this->rack->layout->has(Ball::Cue) ? $this->rack : $this->rack->inHand(BallInHand::None)->withBall(Ball::Cue, $this->place);
    }

    private static function place(mixed $place): ?Spot
    {
        return \is_array($place) && 2 === \count($place) && is_numeric($place[0] ?? null) && is_numeric($place[1] ?? null) ? Spot::metres((float) $place[0], (float) $place[1]) : null;
    }

    /** @param array<mixed> $leg */
    private static function choice(Reader $reader, array $leg, string $path): ?ShotChoice
    {
        $name = $leg['ball'] ?? null;
        $ball = \is_string($name) ? Ball::named($name) : null;
        if (null === $ball || Ball::Cue === $ball) {
            $reader->fault("$path.ball", \sprintf('found %s; allowed: "1" to "15"', Reader::show($name)));
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
            return new ShotChoice($ball, $pocket, new Stroke(Tip::fractions($side, $height), $speed, $elevation), $aside, true === ($leg['byHand'] ?? false) ? deg2rad($direction) : null);
        } catch (IllegalStroke $e) {
            $reader->fault("$path.stroke", lcfirst($e->getMessage()));

            return null;
        }
    }
}
