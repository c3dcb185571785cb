<?php

declare(strict_types=1);

namespace ZigLane\Core\PositionPlay;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Position\Angle;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Shot\SolvedShot;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Spot;

/**
 * The lane of a shot: how much slower and harder it may be played and still land in the zone of the next ball, everything else as
 * meant. Its stops, from the softest to the hardest, are a curve on the table; its length is the room for error in speed.
 */
final readonly class Lane
{
    /** Steps in speed in which the edges are looked for, as a share; an edge is then halved to a two-hundredth of it. */
    private const STEP = 0.02;
    /** How often a step is halved between two strokes that meet different things: to a thirtieth of a percent. */
    private const HALVED = 6;
    private const SOFTEST = 0.4;
    private const HARDEST = 1.8;

    /**
     * @param float                $slower how much slower it may be, as a share of the speed
     * @param float                $harder how much harder
     * @param non-empty-list<Spot> $stops  from the softest to the hardest that lands; at least one
     * @param Fact|null            $short  what ends the lane on the slow side, and on the hard side; null where nothing was found to end it
     *                                     as far as it was looked: then it is at least so long
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
        [$slower, $short, $slow] = self::edge($play, $fault, $meant, -self::STEP);
        [$harder, $long, $hard] = self::edge($play, $fault, $meant, self::STEP);
        $stops = [...array_reverse($slow), $meant->final->spot(Ball::Cue), ...$hard];

        return new self($slower, $harder, $stops, $short, $long, self::crossing($stops, \count($slow), $lines));
    }

    /**
     * Goes from the shot as meant to slower or harder ones until one does not land in the zone, and halves the last step. Between two that
     * land but met other things on their way, others may not: there the step is halved too, until they meet the same.
     *
     * @param \Closure(float): Ending       $play  at a share of the speed
     * @param \Closure(Ending): (Fact|null) $fault
     *
     * @return array{float, Fact|null, list<Spot>} how far it goes, share of the speed; what ends it; the stops on the way
     */
    private static function edge(\Closure $play, \Closure $fault, Ending $meant, float $step): array
    {
        $in = 1.0;
        $last = $meant;
        $stops = [];
        for ($share = 1.0 + $step; $share >= self::SOFTEST && $share <= self::HARDEST; $share += $step) {
            $ending = $play($share);
            $between = [];
            $out = self::firstOut($play, $fault, [$in, $last], [$share, $ending], self::HALVED, $between);
            foreach ($between as [$at, $landed]) {
                $in = $at;
                $stops[] = $landed->final->spot(Ball::Cue);
            }
            if (null !== $out) {
                [$in, $why, $more] = self::halved($play, $fault, $in, $out);

                return [abs($in - 1.0), $why, [...$stops, ...$more]];
            }
            [$in, $last] = [$share, $ending];
        }

        return [abs($in - 1.0), null, $stops];
    }

    /**
     * The first stroke that is tried between two and does not land, the first of which does; null where all do.
     *
     * @param \Closure(float): Ending       $play
     * @param \Closure(Ending): (Fact|null) $fault
     * @param array{float, Ending}          $from
     * @param array{float, Ending}          $to
     * @param list<array{float, Ending}>    $landed those that do, in order, are added
     *
     * @return array{float, Fact}|null its share of the speed, and why
     */
    private static function firstOut(\Closure $play, \Closure $fault, array $from, array $to, int $depth, array &$landed): ?array
    {
        if ($depth > 0 && self::met($from[1]) !== self::met($to[1])) {
            $middle = 0.5 * ($from[0] + $to[0]);
            $at = [$middle, $play($middle)];

            return self::firstOut($play, $fault, $from, $at, $depth - 1, $landed)
                ?? self::firstOut($play, $fault, $at, $to, $depth - 1, $landed);
        }
        $why = $fault($to[1]);
        if (null !== $why) {
            return [$to[0], $why];
        }
        $landed[] = $to;

        return null;
    }

    /**
     * @param \Closure(float): Ending       $play
     * @param \Closure(Ending): (Fact|null) $fault
     * @param array{float, Fact}            $out
     *
     * @return array{float, Fact, list<Spot>} the last share of the speed that lands; what keeps those beyond out; the stops on the way
     */
    private static function halved(\Closure $play, \Closure $fault, float $in, array $out): array
    {
        [$beyond, $why] = $out;
        $stops = [];
        for ($round = 0; $round < 7; ++$round) {
            $middle = 0.5 * ($in + $beyond);
            $ending = $play($middle);
            $found = $fault($ending);
            if (null === $found) {
                $in = $middle;
                $stops[] = $ending->final->spot(Ball::Cue);
            } else {
                [$beyond, $why] = [$middle, $found];
            }
        }

        return [$in, $why, $stops];
    }

    /** What a shot met on its way, in order, and what dropped. */
    private static function met(Ending $ending): string
    {
        $driven = array_map(static fn (array $met): string => $met[0]->value.$met[1]->value, $ending->driven);
        $cushions = array_map(static fn (Rail|Pocket $met): string => $met->value, $ending->cushions);
        $pocketed = array_map(static fn (Pocket $pocket): string => $pocket->value, $ending->pocketed);

        return implode(' ', [...$cushions, '', ...$driven, '', \count($ending->struck), ...$pocketed]);
    }

    /**
     * How much room there is, for a sentence: where nothing was found to end it, it is at least so much.
     *
     * @return array{slowerShare: float, harderShare: float, slowerIs: string, harderIs: string} shares of the speed; "edge" or "least"
     */
    public function room(): array
    {
        return [
            'slowerShare' => $this->slower,
            'harderShare' => $this->harder,
            'slowerIs' => null === $this->short ? 'least' : 'edge',
            'harderIs' => null === $this->long ? 'least' : 'edge',
        ];
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
