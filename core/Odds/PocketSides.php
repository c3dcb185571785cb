<?php

declare(strict_types=1);

namespace ZigLane\Core\Odds;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;

/**
 * Where a pocket takes the ball of a shot at the speed and with the spin that the shot gives it: how far to either side of the middle
 * it may be sent, straight or off a rail first. The ball is let go from its contact in a step of MOST_ASIDE / STEPS; edges lie within that.
 */
final readonly class PocketSides
{
    private const STEPS = 60;
    /** A piece narrower than this is chance, metres. */
    private const LEAST = 0.005;

    /**
     * @param list<array{from: float, to: float, rail: Rail|null}> $pieces metres to the left of the middle of the mouth, from right to
     *                                                                     left; the rail that it touches first, or null
     */
    private function __construct(public array $pieces)
    {
    }

    public static function of(SolvedShot $shot, ShotSolver $solver): self
    {
        $ball = $shot->choice->ball;
        $start = null;
        foreach ($shot->outcome->trajectory($ball)->segments as $segment) {
            if ($segment->duration > 0.0 && $segment->vx ** 2 + $segment->vy ** 2 > 0.0) {
                $start = $segment;
                break;
            }
        }
        if (null === $start) {
            return new self([]);
        }
        $spot = $shot->layout->spot($ball);
        $far = $spot->distanceTo($solver->equipment->geometry->at($shot->choice->pocket)->target($spot));
        $rollouts = $solver->simulator->rolloutsOf($shot->layout->without(Ball::Cue), $ball);
        $pieces = [];
        $open = null;
        $step = ShotChoice::MOST_ASIDE / self::STEPS;
        for ($i = -self::STEPS; $i <= self::STEPS; ++$i) {
            $aside = $i * $step;
            $turn = atan2($aside, $far) - atan2($shot->choice->aside, $far);
            [$cos, $sin] = [cos($turn), sin($turn)];
            $ending = $rollouts->let([
                $start->vx * $cos - $start->vy * $sin,
                $start->vx * $sin + $start->vy * $cos,
                $start->wx * $cos - $start->wy * $sin,
                $start->wx * $sin + $start->wy * $cos,
                $start->wz,
            ]);
            $drops = $ending->pocketOf($ball) === $shot->choice->pocket && [] === $ending->struckBut($ball);
            $rail = ($ending->cushions[0] ?? null) instanceof Rail ? $ending->cushions[0] : null;
            if (null !== $open && (!$drops || $rail !== $open['rail'])) {
                $pieces[] = $open;
                $open = null;
            }
            if ($drops) {
                $open = ['from' => $open['from'] ?? $aside, 'to' => $aside, 'rail' => $rail];
            }
        }
        if (null !== $open) {
            $pieces[] = $open;
        }

        return new self(array_values(array_filter(
            $pieces,
            static fn (array $piece): bool => $piece['to'] - $piece['from'] >= self::LEAST,
        )));
    }

    /** @return array{from: float, to: float, rail: Rail|null}|null the piece that goes straight, widest of all such */
    public function straight(): ?array
    {
        return $this->widest(static fn (array $piece): bool => null === $piece['rail']);
    }

    /** @return array{from: float, to: float, rail: Rail|null}|null the widest piece that goes off a rail first */
    public function railFirst(): ?array
    {
        return $this->widest(static fn (array $piece): bool => null !== $piece['rail']);
    }

    /**
     * @param \Closure(array{from: float, to: float, rail: Rail|null}): bool $isWanted
     *
     * @return array{from: float, to: float, rail: Rail|null}|null
     */
    private function widest(\Closure $isWanted): ?array
    {
        $best = null;
        foreach ($this->pieces as $piece) {
            if ($isWanted($piece) && (null === $best || $piece['to'] - $piece['from'] > $best['to'] - $best['from'])) {
                $best = $piece;
            }
        }

        return $best;
    }
}
