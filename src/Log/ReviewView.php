<?php

declare(strict_types=1);

namespace ZigLane\App\Log;

use ZigLane\App\Entity\Shot;
use ZigLane\App\Entity\ShotRack;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Outcome;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\ShotCost;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Rack;

/**
 * A shot rack for its review: one shot chosen, and what each cost as far as that is worked out.
 */
final readonly class ReviewView
{
    /** A cost below this is not worth telling, as a chance. */
    private const SMALL = 0.01;

    /** @var list<LoggedShot> */
    public array $shots;
    /** From 1; 0 where there is none. */
    public int $number;
    /** @var array<int, ShotCost|null> by number from 1 */
    public array $costs;
    /** Whether all of it is worked out; null: not begun. */
    public ?bool $isDone;

    /** @param list<Shot> $shots */
    public function __construct(public ShotRack $rack, array $shots, int $chosen)
    {
        $this->shots = array_map(static fn (Shot $shot): LoggedShot => $shot->logged(), $shots);
        $stored = $rack->getCosts();
        $this->costs = self::costs($stored['shots'] ?? null);
        $this->isDone = null === $stored ? null : \count($this->costs) >= ($stored['of'] ?? 0);
        $this->number = [] === $this->shots ? 0 : max(1, min(\count($this->shots), 0 === $chosen ? $this->turningPoint() ?? 1 : $chosen));
    }

    /** @return array<int, ShotCost|null> */
    private static function costs(mixed $stored): array
    {
        $costs = [];
        foreach (\is_array($stored) ? $stored : [] as $i => $cost) {
            $costs[1 + (int) $i] = LoggedCost::read($cost);
        }

        return $costs;
    }

    /** The shot as it was meant, played again; null where that is not known, or can no longer be played. */
    public function meant(): ?Outcome
    {
        $shot = $this->shot();
        try {
            return null === $shot || null === $shot->meant || !$this->before()->layout->has(Ball::Cue)
                ? null
                : (new EventSimulator($shot->equipment))->play($this->before()->layout, $shot->meant);
        } catch (CoreError) {
            return null;
        }
    }

    public function shot(): ?LoggedShot
    {
        return $this->shots[$this->number - 1] ?? null;
    }

    public function cost(): ?ShotCost
    {
        return $this->costs[$this->number] ?? null;
    }

    /** The shot that cost most, choice and execution together; null where none did. */
    public function turningPoint(): ?int
    {
        $most = self::SMALL;
        $turning = null;
        foreach ($this->costs as $number => $cost) {
            $lost = $cost?->lost() ?? 0.0;
            if ($lost > $most) {
                [$turning, $most] = [$number, $lost];
            }
        }

        return $turning;
    }

    /**
     * What all shots cost together.
     *
     * @return array{decision: float, execution: float}
     */
    public function sums(): array
    {
        $decision = $execution = 0.0;
        foreach ($this->costs as $cost) {
            $decision += $cost?->decision() ?? 0.0;
            $execution += $cost?->execution() ?? 0.0;
        }

        return ['decision' => $decision, 'execution' => $execution];
    }

    /** The rack as it lay before the chosen shot. */
    public function before(): Rack
    {
        $start = $this->rack->getStart();
        $layout = $this->shot()->before ?? $start->layout;

        return $start->inHand(BallInHand::None)->withLayout(self::legal($layout, $start));
    }

    /** What failed, in one word for a sentence: the pot, the position, nothing; null where it was not noted. */
    public function failed(LoggedShot $shot): ?string
    {
        return match (true) {
            $shot->result->scratch => 'scratch',
            $shot->result->miscue => 'miscue',
            $shot->result->foul => 'foul',
            false === $shot->result->isMade => 'pot',
            false === $shot->result->position => $this->direction($shot),
            true === $shot->result->isMade => 'nothing',
            default => null,
        };
    }

    /** Whether the cue ball ran too far, too short, or another way: by where it was meant to stop. */
    private function direction(LoggedShot $shot): string
    {
        $meant = $shot->landing;
        if (null === $meant || !$shot->result->after->has(Ball::Cue) || !$shot->before->has(Ball::Cue)) {
            return 'position';
        }
        $from = null !== $shot->ball && $shot->before->has($shot->ball) ? $shot->before->spot($shot->ball) : $shot->before->spot(Ball::Cue);
        $real = $shot->result->after->spot(Ball::Cue);
        $far = $from->distanceTo($real) - $from->distanceTo($meant);

        return abs($far) < 0.5 * $meant->distanceTo($real) ? 'direction' : ($far > 0 ? 'long' : 'short');
    }

    private static function legal(Layout $layout, Rack $start): Layout
    {
        return [] === Rack::faults($start->game, $layout->grained($start->equipment->table, Rack::GRAIN), $start->equipment)
            ? $layout
            : $start->layout;
    }
}
