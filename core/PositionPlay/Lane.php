<?php

declare(strict_types=1);

namespace ZigLane\Core\PositionPlay;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Position\Angle;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Position\Spot;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
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
     * @param Fact|null            $short  what ends the lane on the slow side, and on the hard side; null where nothing was found to
     * @param float|null           $angle  between the curve of stops and the line of the next shot, degrees, 0 along it to 90 square across
     */
    public function __construct(
        public float $slower,
        public float $harder,
        public array $stops,
        public ?Fact $short,
        public ?Fact $long,
        public ?float $angle,
    ) {
    }

    /**
     * @param non-empty-list<PotModel> $lines of the next ball
     * @param float                    $least odds of the next pot that count as in the zone
     *
     * @return self|Fact the lane, or why the shot as meant does not land in the zone
     */
    public static function of(SolvedShot $shot, array $lines, float $least, ShotSolver $solver): self|Fact
    {
        $rollouts = $solver->simulator->rollouts($shot->layout);
        $play = static fn (float $share): Ending => $rollouts->play($shot->strike->withSpeed($shot->strike->speed * $share));
        $fault = static fn (Ending $ending): ?Fact => self::fault($ending, $shot, $lines, $least, $solver->equipment->balls);
        $meant = $play(1.0);
        $why = $fault($meant);
        if (null !== $why) {
            return $why;
        }
        [$slower, $short, $slow] = self::edge($play, $fault, -self::STEP);
        [$harder, $long, $hard] = self::edge($play, $fault, self::STEP);
        $stops = [...array_reverse($slow), $meant->final->spot(Ball::Cue), ...$hard];

        return new self($slower, $harder, $stops, $short, $long, self::crossing($stops, \count($slow), $lines));
    }

    /**
     * Goes from the shot as meant to slower or harder ones until one does not land in the zone, and halves the last step.
     *
     * @param \Closure(float): Ending       $play  at a share of the speed
     * @param \Closure(Ending): (Fact|null) $fault
     *
     * @return array{float, Fact|null, list<Spot>} how far it goes, share of the speed; what ends it; the stops on the way
     */
    private static function edge(\Closure $play, \Closure $fault, float $step): array
    {
        $in = 1.0;
        $stops = [];
        for ($share = 1.0 + $step; $share >= self::SOFTEST && $share <= self::HARDEST; $share += $step) {
            $ending = $play($share);
            $why = $fault($ending);
            if (null === $why) {
                $in = $share;
                $stops[] = $ending->final->spot(Ball::Cue);
                continue;
            }
            $out = $share;
            for ($round = 0; $round < 7; ++$round) {
                $middle = 0.5 * ($in + $out);
                $ending = $play($middle);
                $found = $fault($ending);
                if (null === $found) {
                    $in = $middle;
                    $stops[] = $ending->final->spot(Ball::Cue);
                } else {
                    $out = $middle;
                    $why = $found;
                }
            }

            return [abs($in - 1.0), $why, $stops];
        }

        return [abs($in - 1.0), null, $stops];
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
     * What keeps an ending out of the zone; null if it is in.
     *
     * @param non-empty-list<PotModel> $lines
     */
    private static function fault(Ending $ending, SolvedShot $shot, array $lines, float $least, BallSet $balls): ?Fact
    {
        $called = $shot->choice->ball;
        if ($ending->pocketOf($called) !== $shot->choice->pocket) {
            return new Fact('lane.staysOut', ['ball' => $called]);
        }
        if ($ending->isScratch()) {
            return new Fact('lane.scratch', ['pocket' => $ending->pocketed[Ball::Cue->value]]);
        }
        $others = $ending->struckBut($called);
        if ([] !== $others) {
            return new Fact('lane.meets', ['ball' => $others[0]]);
        }
        $spot = $ending->final->spot(Ball::Cue);
        if (Zone::best($lines, $spot) >= $least) {
            return null;
        }
        $next = $lines[0]->ball;
        if ($ending->final->has($next)) {
            [$seen, $by] = (new Sight($balls))->seen($ending->final, $spot, $next);
            if (0.0 === $seen && [] !== $by) {
                return new Fact('lane.hooked', ['ball' => $by[0], 'next' => $next]);
            }
        }

        return new Fact('lane.outside', ['leastShare' => $least, 'next' => $next]);
    }

    /**
     * Where the shot as meant stops, the curve goes from the stop before it to the one after it.
     *
     * @param non-empty-list<Spot>     $stops
     * @param non-empty-list<PotModel> $lines
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
        $turn = abs(rad2deg(Angle::wrapped($way - $stops[$meant]->directionTo($best->ghost))));

        return min($turn, 180.0 - $turn);
    }
}
