<?php

declare(strict_types=1);

namespace ZigLane\Core\Odds;

use ZigLane\Core\Math\Normal;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\Rollouts;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Player\Deviations;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Table\BallSet;

/**
 * The chance of a pot from the edges of its window instead of from tries, through the full simulation. The directions of the cue
 * that pot are found by a scan and by halving; how their edges move with the tip (sideways, up) is found from the edges with the tip
 * off by one standard deviation. All errors being normal and independent, and edges moving nearly in line with them, an edge at e
 * that moves by a and b is passed with the chance of a normal number with variance 1 + a^2 + b^2. Speed, which may change more than an
 * edge's place (a slow ball that does not arrive, a fast one that rattles), is averaged over three points (Gauss and Hermite).
 *
 * Cost: some hundred simulated shots; the same precision takes some 2,000 tries.
 */
final readonly class QuickChance
{
    /** Standard deviations of direction to either side that are scanned for the window, and in what steps. */
    private const SPAN = 5.0;
    private const STEP = 0.5;
    /** Halvings of a step in which the ball goes from made to missed. */
    private const HALVINGS = 5;
    /** An edge is followed no farther than this, standard deviations of direction. */
    private const FARTHEST = 8.0;

    private float $deviation;

    private function __construct(private ShotChoice $choice, private Strike $strike, private Rollouts $rollouts, float $aim)
    {
        // Without an error of aim the edges are measured in a unit that is small against any window.
        $this->deviation = deg2rad(max($aim, 0.002));
    }

    /** Chance that a shot that is aimed pots its ball, whatever the cue ball does, 0 to 1. */
    public static function of(ShotChoice $choice, Strike $strike, Rollouts $rollouts, BallSet $balls, Deviations $errors): float
    {
        $quick = new self($choice, $strike, $rollouts, $errors->aim);
        $millimetre = 0.001 / $balls->radius;
        $window = $quick->scanned($strike);
        if (null === $window) {
            return 0.0;
        }
        $variances = [$errors->aim > 0.0 ? 1.0 : 0.0, $errors->aim > 0.0 ? 1.0 : 0.0];
        foreach ([[$errors->tipSide * $millimetre, 0.0], [0.0, $errors->tipHeight * $millimetre]] as [$side, $height]) {
            $edges = [];
            foreach ([1, -1] as $sign) {
                $off = $quick->off(1.0, $sign * $side, $sign * $height);
                if (null !== $off && 0.0 !== $side + $height) {
                    $edges[$sign] = $quick->followed($off, $window);
                }
            }
            foreach ([0, 1] as $edge) {
                $slopes = array_map(
                    static fn (int $sign): float => isset($edges[$sign]) ? abs($edges[$sign][$edge] - $window[$edge]) : 0.0,
                    array_keys($edges),
                );
                $variances[$edge] += [] === $slopes ? 0.0 : (array_sum($slopes) / \count($slopes)) ** 2;
            }
        }
        $chance = 0.0;
        foreach ([[0.0, 2 / 3], [\sqrt(3.0), 1 / 6], [-\sqrt(3.0), 1 / 6]] as [$out, $weight]) {
            $off = $quick->off(1 + $out * $errors->speed, 0.0, 0.0);
            $edges = 0.0 === $out || 0.0 === $errors->speed || null === $off ? $window : $quick->followed($off, $window);
            if (null !== $edges) {
                $chance += $weight * (Normal::upTo(
                    $edges[1] / max(1e-9, \sqrt($variances[1])),
                ) - Normal::upTo($edges[0] / max(1e-9, \sqrt($variances[0]))));
            }
        }

        return max(0.0, min(1.0, $chance));
    }

    private function off(float $speed, float $side, float $height): ?Strike
    {
        $s = $this->strike;
        try {
            return Strike::degrees(
                rad2deg($s->direction),
                min(Strike::MAX_SPEED, max(0.01, $s->speed * $speed)),
                $s->side + $side,
                $s->height + $height,
                rad2deg($s->elevation),
                $s->endMassRatio,
            );
        } catch (IllegalStroke) {
            return null;
        }
    }

    private function pots(Strike $strike, float $turn): bool
    {
        return $this->rollouts->play($strike->withDirection(
            $strike->direction + $turn * $this->deviation,
        ))->pocketOf($this->choice->ball) === $this->choice->pocket;
    }

    /**
     * The window that holds the aim, or the one nearest to it.
     *
     * @return array{float, float}|null its edges in standard deviations of direction; null if there is none
     */
    private function scanned(Strike $strike): ?array
    {
        $start = null;
        for ($out = 0.0; $out <= self::SPAN && null === $start; $out += self::STEP) {
            $start = $this->pots($strike, $out) ? $out : ($this->pots($strike, -$out) ? -$out : null);
        }

        return null === $start ? null : [$this->edge($strike, $start, -1), $this->edge($strike, $start, 1)];
    }

    /**
     * The same window for another strike.
     *
     * @param array{float, float} $window
     *
     * @return array{float, float}|null null where it is gone
     */
    private function followed(Strike $strike, array $window): ?array
    {
        $middle = 0.5 * ($window[0] + $window[1]);
        $step = max(0.25, 0.7 * ($window[1] - $window[0]));
        for ($out = 0.0; $out <= self::SPAN; $out += $step) {
            foreach (0.0 === $out ? [0.0] : [$out, -$out] as $aside) {
                if ($this->pots($strike, $middle + $aside)) {
                    return [$this->edge($strike, $middle + $aside, -1), $this->edge($strike, $middle + $aside, 1)];
                }
            }
        }

        return null;
    }

    /** Where it ends on one side of a direction that pots. */
    private function edge(Strike $strike, float $in, int $sign): float
    {
        $step = 0.5 * self::STEP;
        $out = $in + $sign * $step;
        // Ends: the step grows.
        while (abs($out) < self::FARTHEST && $this->pots($strike, $out)) {
            $in = $out;
            $step *= 1.5;
            $out = $in + $sign * $step;
        }
        for ($round = 0; $round < self::HALVINGS; ++$round) {
            $middle = 0.5 * ($in + $out);
            $this->pots($strike, $middle) ? $in = $middle : $out = $middle;
        }

        return 0.5 * ($in + $out);
    }
}
