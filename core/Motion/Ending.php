<?php

declare(strict_types=1);

namespace ZigLane\Core\Motion;

use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Table\Pocket;
use ZigLane\Core\Table\Rail;

/** What a shot comes to, without its paths: for trying many. */
final readonly class Ending
{
    /**
     * @param Layout             $final        the balls left on the table
     * @param array<int, Pocket> $pocketed     keyed by the ball's number
     * @param Ball|null          $first        the first ball that the cue ball meets
     * @param list<Ball>         $struck       every ball that moved or was met, but the cue ball
     * @param list<Rail|Pocket>  $cushions     what the cue ball touched, in order: a rail, or the jaw of a pocket
     * @param bool               $meetsCushion whether any ball met a rail after the cue ball's first contact
     */
    public function __construct(
        public Layout $final,
        public array $pocketed,
        public ?Ball $first,
        public array $struck,
        public array $cushions,
        public bool $meetsCushion = false,
    ) {
    }

    public function pocketOf(Ball $ball): ?Pocket
    {
        return $this->pocketed[$ball->value] ?? null;
    }

    /** @return list<Ball> the balls that were struck, but one */
    public function struckBut(Ball $called): array
    {
        return array_values(array_filter($this->struck, static fn (Ball $ball): bool => $ball !== $called));
    }

    public function isScratch(): bool
    {
        return isset($this->pocketed[Ball::Cue->value]);
    }
}
