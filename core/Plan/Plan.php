<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;

/** A run-out as planned: its legs, how often it is finished when it is replayed with errors, and where it ends when it is not. */
final readonly class Plan
{
    /** Odds below which a plan says that running out is not likely. */
    public const POOR = 0.15;

    /**
     * @param Rack        $rack    the rack that it answers, without a cue ball when that is in hand
     * @param Spot|null   $place   where the cue ball is placed, with ball in hand
     * @param Group|null  $group   that is played on an open table
     * @param list<Leg>   $legs
     * @param string|null $end     why the legs stop before the rack is run, a sentence; null if they do not
     * @param Replays     $replays from the first leg on, planned again after every shot
     * @param string      $differs what this plan does otherwise than the best one; empty for the best
     */
    public function __construct(
        public Rack $rack,
        public ?Spot $place,
        public ?Group $group,
        public array $legs,
        public ?string $end,
        public Replays $replays,
        public string $differs = '',
    ) {
    }

    public function isPoor(): bool
    {
        return $this->replays->tries > 0 && $this->replays->chance() < self::POOR;
    }

    /**
     * On which balls most of the replays end that are not finished.
     *
     * @return list<array{Ball, float}> with their share of all replays, the greatest first
     */
    public function ends(): array
    {
        $ends = $this->replays->endedOn;
        arsort($ends);
        $list = [];
        foreach ($ends as $number => $count) {
            $ball = Ball::tryFrom($number);
            if (null !== $ball && Ball::Cue !== $ball) {
                $list[] = [$ball, $count / max(1, $this->replays->tries)];
            }
        }

        return $list;
    }
}
