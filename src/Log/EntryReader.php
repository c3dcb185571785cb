<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Log\ShotKind;
use ZigLane\Core\Log\ShotResult;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\LengthScale;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;

/** Makes a logged shot of an entry: what was meant is that of the plan's leg, or what the player says that he shot instead. */
final readonly class EntryReader
{
    /** Elevation of a level cue, degrees. */
    private const LEVEL = 2.0;

    public function __construct(private Rack $before, private ?Leg $leg)
    {
    }

    /** @throws CoreError If what was called cannot be */
    public function logged(ShotEntry $entry): LoggedShot
    {
        $result = new ShotResult(
            null === $entry->ball ? null : $entry->isMade,
            $entry->missed,
            $entry->scratch,
            $entry->in,
            $entry->foul || $entry->scratch,
            $entry->miscue,
            $this->position($entry),
            $entry->after,
            fell: $this->fell($entry),
        );
        $leg = $this->leg;

        return new LoggedShot(
            (string) $entry->id,
            $entry->at,
            $this->kind($entry),
            $this->before->equipment,
            $this->before->layout,
            $entry->ball,
            $entry->pocket,
            $this->meant($entry),
            $leg?->landing,
            $leg?->make,
            $leg?->position,
            $leg?->runOut,
            $entry->guess,
            $result,
        );
    }

    /** The stroke of the leg from where the balls lay; of a shot that was not planned what is known of it, aimed at the pocket. */
    private function meant(ShotEntry $entry): ?Strike
    {
        $layout = $this->before->layout;
        if (!$layout->has(Ball::Cue) || null === $entry->ball || null === $entry->pocket) {
            return null;
        }
        $solver = new ShotSolver($this->before->equipment);
        try {
            if (null !== $this->leg) {
                return $solver->aimed($layout, $this->leg->choice)->strike;
            }
            if (null === $entry->lengths) {
                return null;
            }
            $stroke = new Stroke(
                Tip::fractions(...($entry->tip ?? [0.0, 0.2])),
                (new LengthScale($this->before->equipment))->speed($entry->lengths),
                self::LEVEL,
            );

            return $solver->aimed($layout, new ShotChoice($entry->ball, $entry->pocket, $stroke))->strike;
        } catch (CoreError) {
            // Not a straight shot: nothing is known of its aim.
            return null;
        }
    }

    private function kind(ShotEntry $entry): ShotKind
    {
        if (ShotKind::Pot === $entry->kind && true === $this->leg?->choice->isSafety) {
            return ShotKind::Safety;
        }
        if (ShotKind::Pot !== $entry->kind || null === $this->leg?->choice->direction) {
            return $entry->kind;
        }
        foreach ($this->leg->reasons as $reason) {
            $way = $reason->values['way'] ?? null;
            if ($way instanceof Fact) {
                return ShotKind::tryFrom(substr($way->kind, \strlen('indirect.'))) ?? ShotKind::Bank;
            }
        }

        return ShotKind::Bank;
    }

    /** Whether the cue ball reached the zone of the next ball, as the plan has it; as the player says where there is no plan. */
    private function position(ShotEntry $entry): ?bool
    {
        $zone = $this->leg->zone ?? [];
        if (null !== $entry->position || true !== $entry->isMade || [] === $zone || !$entry->after->has(Ball::Cue)) {
            return true === $entry->isMade && [] !== $zone && $entry->scratch ? false : $entry->position;
        }

        return $zone[0]->contains($entry->after->spot(Ball::Cue));
    }

    /** @return list<Ball> what dropped beside the called ball */
    private function fell(ShotEntry $entry): array
    {
        return array_values(array_filter(
            $this->before->objectBalls(),
            static fn (Ball $ball): bool => !$entry->after->has($ball) && $ball !== $entry->ball,
        ));
    }
}
