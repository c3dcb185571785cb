<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Table\BallSet;

/**
 * The lane of a shot: how much slower and harder it may be played and still land in the zone of the next ball, everything else as
 * meant. Its stops, from the softest to the hardest, are a curve on the table; its length is the room for error in speed.
 */
final readonly class Lane
{
    /** Steps in speed in which the edges are looked for, as a share; an edge is then halved to a two-hundredth of it. */
    private const STEP = 0.02;
    private const SOFTEST = 0.4;
    private const HARDEST = 1.8;

    /**
     * @param float                $slower how much slower it may be, as a share of the speed
     * @param float                $harder how much harder
     * @param non-empty-list<Spot> $stops  from the softest to the hardest that lands; at least one
     * @param string               $short  what ends the lane on the slow side, and on the hard side
     * @param float|null           $angle  between the curve of stops and the line of the next shot, degrees, 0 along it to 90 square across
     */
    private function __construct(
        public float $slower,
        public float $harder,
        public array $stops,
        public string $short,
        public string $long,
        public ?float $angle,
    ) {
    }

    /**
     * @param non-empty-list<PotLine> $lines of the next ball
     * @param float                   $least odds of the next pot that count as in the zone
     *
     * @return self|string the lane, or why the shot as meant does not land in the zone
     */
    public static function of(SolvedShot $shot, array $lines, float $least, EventSimulator $simulator, BallSet $set): self|string
    {
        $rollouts = $simulator->rollouts($shot->layout);
        $play = static fn (float $share): Ending => $rollouts->play($shot->strike->at($shot->strike->speed * $share));
        $fault = static fn (Ending $ending): string => self::fault($ending, $shot, $lines, $least, $set);
        $meant = $play(1.0);
        $why = $fault($meant);
        if ('' !== $why) {
            return $why;
        }
        $at = $meant->final->spot(Ball::Cue);
        $stops = [$at];
        $edges = $ends = [];
        foreach ([-self::STEP, self::STEP] as $step) {
            $in = 1.0;
            $ends[] = '';
            $edges[] = 0.0;
            for ($share = 1.0 + $step; $share >= self::SOFTEST && $share <= self::HARDEST; $share += $step) {
                $ending = $play($share);
                $why = $fault($ending);
                if ('' !== $why) {
                    $out = $share;
                    for ($round = 0; $round < 7; ++$round) {
                        $middle = 0.5 * ($in + $out);
                        $try = $play($middle);
                        $found = $fault($try);
                        if ('' === $found) {
                            $in = $middle;
                            $ending = $try;
                            self::put($stops, $try, $step);
                        } else {
                            $out = $middle;
                            $why = $found;
                        }
                    }
                    $ends[\count($ends) - 1] = $why;
                    break;
                }
                $in = $share;
                self::put($stops, $ending, $step);
            }
            $edges[\count($edges) - 1] = abs($in - 1.0);
        }

        return new self($edges[0], $edges[1], $stops, $ends[0], $ends[1], self::crossing($stops, (int) array_search($at, $stops, true), $lines));
    }

    /**
     * @param non-empty-list<Spot> $stops
     *
     * @param-out non-empty-list<Spot> $stops
     */
    private static function put(array &$stops, Ending $ending, float $step): void
    {
        $spot = $ending->final->spot(Ball::Cue);
        $step < 0.0 ? array_unshift($stops, $spot) : array_push($stops, $spot);
    }

    /** Length of the curve of stops, metres. */
    public function length(): float
    {
        $sum = 0.0;
        foreach (\array_slice($this->stops, 1) as $i => $spot) {
            $sum += $spot->distanceTo($this->stops[$i]);
        }

        return $sum;
    }

    /**
     * What keeps an ending out of the zone; empty if it is in.
     *
     * @param non-empty-list<PotLine> $lines
     */
    private static function fault(Ending $ending, SolvedShot $shot, array $lines, float $least, BallSet $set): string
    {
        $called = $shot->choice->ball;
        if (($ending->pocketed[$called->value] ?? null) !== $shot->choice->pocket) {
            return \sprintf('the %s stays out', $called->label());
        }
        if ($ending->isScratch()) {
            return 'scratch in '.$ending->pocketed[Ball::Cue->value]->value;
        }
        $others = array_filter($ending->struck, static fn (Ball $ball): bool => $ball !== $called);
        if ([] !== $others) {
            return \sprintf('the cue ball meets the %s', array_values($others)[0]->label());
        }
        $spot = $ending->final->spot(Ball::Cue);
        if (Zone::best($lines, $spot, $set) >= $least) {
            return '';
        }
        $next = $lines[0]->ball;
        if ($ending->final->has($next)) {
            [$seen, $by] = (new Sight($set))->seen($ending->final, $spot, $next);
            if (0.0 === $seen && [] !== $by) {
                return \sprintf('hooked behind the %s', $by[0]->label());
            }
        }

        return \sprintf('less than %d of 100 on the %s', (int) round(100 * $least), $next->label());
    }

    /**
     * Where the shot as meant stops, the curve goes from the stop before it to the one after it.
     *
     * @param non-empty-list<Spot>    $stops
     * @param non-empty-list<PotLine> $lines
     */
    private static function crossing(array $stops, int $meant, array $lines): ?float
    {
        if (\count($stops) < 2) {
            return null;
        }
        $best = $lines[0];
        foreach ($lines as $line) {
            $best = $line->chance($stops[$meant]) > $best->chance($stops[$meant]) ? $line : $best;
        }
        $way = $stops[max(0, $meant - 1)]->directionTo($stops[min(\count($stops) - 1, $meant + 1)]);
        $turn = abs(rad2deg(Angle::wrapped($way - $stops[$meant]->directionTo($best->ghost()))));

        return min($turn, 180.0 - $turn);
    }
}
