<?php

declare(strict_types=1);

namespace ZigLane\Core\Teaching;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Plan\Chooser;
use ZigLane\Core\Plan\Option;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Plan\PlanConstraints;
use ZigLane\Core\Plan\Planning;
use ZigLane\Core\Plan\PlanSearch;
use ZigLane\Core\Plan\RackPlayer;
use ZigLane\Core\Plan\Tally;
use ZigLane\Core\PositionPlay\LandingSearch;
use ZigLane\Core\PositionPlay\SpotTarget;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;

/**
 * A prediction against the best plan: both are played out with the same simulated errors, planned again after every shot (in the order that
 * was said, where one was), and what is lost is the difference of their chances. The stroke is the one that brings the cue ball nearest to
 * the spot that was said, or the planner's own for that ball and pocket.
 *
 * Cost: the seconds of the plan and a twentieth of a second a replay.
 */
final readonly class PredictionScore
{
    private const SECONDS = 3.0;

    /**
     * @param float|null      $chance of running out as predicted, 0 to 1 (straight pool: balls); null where it cannot be played
     * @param float           $best   of the plan
     * @param float|null      $lost   the second less the first; more than the noise only beyond twice its error
     * @param float|null      $error  standard error of what is lost
     * @param ShotChoice|null $stroke that was played for the prediction
     */
    public function __construct(
        public ?float $chance,
        public float $best,
        public ?float $lost,
        public ?float $error,
        public ?ShotChoice $stroke,
        public Plan $plan,
        public int $tries,
        public bool $isInBalls,
    ) {
    }

    /**
     * @param (\Closure(): void)|null $beat called between tries
     *
     * @throws CoreError If there is no plan of the rack
     */
    public static function of(Rack $rack, Prediction $said, int $tries = 80, int $seed = 1, ?\Closure $beat = null): self
    {
        $refusal = PlanSearch::refusal($rack);
        if (null !== $refusal) {
            throw $refusal;
        }
        [$plans, $search] = Planning::within($rack, self::SECONDS, $seed);
        $plan = $plans[0] ?? throw $search->nothing();
        $placed = $plan->placed();
        $solver = new ShotSolver($rack->equipment);
        $group = $plan->group ?? $rack->group;
        $best = Option::of($solver->aimed($placed->layout, $plan->choices()[0]), 1.0);
        $free = new PlanSearch($placed, seed: $seed);
        $own = [] === $said->order ? $free : new PlanSearch($placed, new PlanConstraints(before: self::pairs($said->order)), seed: $seed);
        $option = self::played($placed, $said, $solver, $seed);
        $player = new RackPlayer($solver, $placed, $free->order($group));
        $tallies = [new Tally(), new Tally()];
        $gaps = [];
        for ($i = 0; $i < $tries; ++$i) {
            $bestGain = self::gain($player, $tallies[0], $free->chooser($group), $placed, $seed + 7919 * $i, $best);
            $ownGain = null === $option ? null : self::gain(
                $player,
                $tallies[1],
                $own->chooser($group),
                $placed,
                $seed + 7919 * $i,
                $option,
            );
            $gaps[] = $bestGain - ($ownGain ?? 0.0);
            null === $beat ?: $beat();
        }
        $isInBalls = $tallies[0]->isOverRacks;
        $worth = static fn (Tally $tally): float => $isInBalls ? $tally->balls() : $tally->chance();
        $mean = array_sum($gaps) / max(1, $tries);
        $square = array_sum(array_map(static fn (float $gap): float => ($gap - $mean) ** 2, $gaps));

        return new self(
            null === $option ? null : $worth($tallies[1]),
            $worth($tallies[0]),
            null === $option ? null : $mean,
            null === $option ? null : \sqrt($square / max(1, $tries - 1) / max(1, $tries)),
            $option?->choice,
            $plan,
            $tries,
            $isInBalls,
        );
    }

    /** What one replay adds: 1 for a rack run out, or balls. */
    private static function gain(RackPlayer $player, Tally $tally, Chooser $chooser, Rack $rack, int $seed, Option $first): float
    {
        [$finished, $made] = [$tally->finished, $tally->made];
        $player->play($tally, $chooser, $rack->layout, $seed & 0x7FFFFFFF, $first);

        return $tally->isOverRacks ? (float) ($tally->made - $made) : (float) ($tally->finished - $finished);
    }

    /** The stroke for what was said; null where the ball cannot be played there. */
    private static function played(Rack $rack, Prediction $said, ShotSolver $solver, int $seed): ?Option
    {
        try {
            if (null !== $said->spot) {
                $search = new LandingSearch($solver, $rack->player);
                $landings = $search->find($rack->layout, $said->ball, $said->pocket, new SpotTarget($said->spot));
                if ([] !== $landings) {
                    return Option::of($solver->aimed($rack->layout, $landings[0]->shot->choice), 1.0);
                }
            }
            $others = array_values(array_filter(Pocket::cases(), static fn (Pocket $pocket): bool => $pocket !== $said->pocket));
            $constraints = new PlanConstraints(
                forbidden: array_map(static fn (Pocket $pocket): array => [$said->ball, $pocket], $others),
                before: array_values(array_map(
                    static fn (Ball $ball): array => [$said->ball, $ball],
                    array_filter($rack->objectBalls(), static fn (Ball $ball): bool => $ball !== $said->ball),
                )),
            );
            $choice = (new PlanSearch($rack, $constraints, seed: $seed))->first()?->choices()[0] ?? null;

            return null === $choice || $choice->ball !== $said->ball || $choice->pocket !== $said->pocket
                ? null
                : Option::of($solver->aimed($rack->layout, $choice), 1.0);
        } catch (CoreError) {
            return null;
        }
    }

    /**
     * @param list<Ball> $order
     *
     * @return list<array{Ball, Ball}>
     */
    private static function pairs(array $order): array
    {
        $pairs = [];
        for ($i = 1; $i < \count($order); ++$i) {
            $pairs[] = [$order[$i - 1], $order[$i]];
        }

        return $pairs;
    }
}
