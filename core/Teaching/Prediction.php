<?php

declare(strict_types=1);

namespace ZigLane\Core\Teaching;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\Spot;

/** What somebody says of a position before he sees the plan: the first ball and its pocket, where the cue ball is to stop, the order. */
final readonly class Prediction
{
    /** @param list<Ball> $order of the balls, the first first; empty: not asked, or left open */
    public function __construct(public Ball $ball, public Pocket $pocket, public ?Spot $spot = null, public array $order = [])
    {
    }

    /** Whether its ball and its order are of the rack, and its spot on the bed. */
    public function isOf(Rack $rack): bool
    {
        $radius = $rack->equipment->balls->radius;
        $balls = $rack->objectBalls();
        $isOnBed = null === $this->spot || $rack->equipment->table->beyond($this->spot->x, $this->spot->y, $radius) <= 0.0;

        return $isOnBed && \in_array($this->ball, $balls, true)
            && [] === array_filter($this->order, static fn (Ball $ball): bool => !\in_array($ball, $balls, true))
            && \count(array_unique(array_map(static fn (Ball $ball): int => $ball->value, $this->order))) === \count($this->order)
            && ([] === $this->order || $this->order[0] === $this->ball);
    }

    /** @return array<string, mixed> spot in metres */
    public function toArray(): array
    {
        return [
            'ball' => $this->ball->value, 'pocket' => $this->pocket->value,
            'spot' => null === $this->spot ? null : [$this->spot->x, $this->spot->y],
            'order' => array_map(static fn (Ball $ball): int => $ball->value, $this->order),
        ];
    }

    /** Metres. */
    private static function spot(mixed $spot): ?Spot
    {
        return \is_array($spot) && is_numeric($spot[0] ?? null) && is_numeric($spot[1] ?? null)
            ? Spot::metres((float) $spot[0], (float) $spot[1])
            : null;
    }

    /** @param array<string, mixed> $said as toArray gives it */
    public static function fromArray(array $said): self
    {
        $ball = Ball::from(\is_int($said['ball'] ?? null) ? $said['ball'] : 1);
        $pocket = Pocket::from(\is_string($said['pocket'] ?? null) ? $said['pocket'] : '');
        $spot = $said['spot'] ?? null;
        $order = \is_array($said['order'] ?? null) ? array_values(array_filter($said['order'], is_int(...))) : [];

        return new self(
            $ball, $pocket,
            self::spot($spot),
            array_map(Ball::from(...), $order),
        );
    }
}
