<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Plan\Leg;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;

/**
 * Then play safe: a plan ends with a safety where the pot that it would go on with is worth less, told from it by tries. What the plan says
 * of the chance to finish stays that of replays that attack to the end.
 *
 * Cost: of each leg that is looked at a search for safeties, some 2,000 shots, and the tries.
 */
final class SafeEnd
{
    /** A later leg is looked at whose pot goes no more often than this; at the most so many of a plan. */
    private const HARD = 0.6;
    private const LOOKED = 2;
    /** Safeties that are tried, and tries of each, and of the pot. */
    private const SAFETIES = 3;
    private const TRIES = 120;
    /** What a safety must be worth more: as a chance to win, or in balls; and standard errors of the difference. */
    private const MORE = 0.02;
    private const TOLD = 1.645;

    public static function of(Plan $plan, ExecutionErrors $opponent, int $seed = 1): Plan
    {
        $looked = 0;
        foreach ($plan->legs as $i => $leg) {
            // Whether to begin with a safety is what the options of the position are for.
            if (0 === $i || $leg->choice->isSafety || null === $leg->make || $leg->make > self::HARD) {
                continue;
            }
            $end = self::instead($plan, $leg, $opponent, $seed);
            if (null !== $end) {
                return new Plan(
                    $plan->rack,
                    $plan->place,
                    $plan->group,
                    [...\array_slice($plan->legs, 0, $i), $end[0]],
                    $end[1],
                    $plan->replays,
                    $plan->differs,
                );
            }
            if (++$looked >= self::LOOKED) {
                break;
            }
        }

        return $plan;
    }

    /** @return array{Leg, Fact}|null the safety, and what is expected to come back; null where the pot is worth as much */
    private static function instead(Plan $plan, Leg $leg, ExecutionErrors $opponent, int $seed): ?array
    {
        $group = $plan->group ?? $plan->rack->group ?? Group::Open;
        $rack = new Rack(
            $plan->rack->game, $leg->before, $plan->rack->equipment, $plan->rack->player, BallInHand::None, $group, $plan->rack->rules,
        );
        $solver = new ShotSolver($rack->equipment);
        $value = new PositionValue($rack, [$rack->player, $opponent], $solver);
        $situation = Situation::of($rack);
        $trials = new WayTrials($situation, $rack, $value, $solver);
        try {
            $shot = $solver->aimed($leg->before, $leg->choice);
        } catch (CoreError) {
            return null;
        }
        $attack = (new AttackSearch($rack, $situation, $trials, $solver, $rack->player))->way($leg->before, $shot);
        $pot = $trials->tally($attack, self::TRIES, $seed + 1);
        $best = null;
        $safeties = new SafetySearch($rack, $situation, $trials, $solver, $rack->player);
        foreach ($safeties->find(Effort::Full, $seed, self::SAFETIES) as [$way]) {
            $tally = $trials->tally($way, self::TRIES, $seed + 1);
            $best = null === $best || $tally->mean() > $best[1]->mean() ? [$way, $tally] : $best;
        }
        if (null === $best) {
            return null;
        }
        $more = $best[1]->mean() - $pot->mean();

        return $more > max(self::MORE, self::TOLD * hypot($best[1]->error(), $pot->error()))
            ? self::leg($rack, $value, $leg, new Judged($best[0], $best[1], $trials->meant($best[0])[0] ?? null), $more)
            : null;
    }

    /** @return array{Leg, Fact}|null */
    private static function leg(Rack $rack, PositionValue $value, Leg $leg, Judged $safety, float $more): ?array
    {
        $told = new Judged($safety->way, $safety->tally, $safety->meant, (new Why($rack, Situation::of($rack), $value))->of($safety));
        $last = OptionLeg::of($rack, $told, $leg->before, $leg->number);

        return null === $last ? null : [
            $last,
            new Fact('decide.thenSafe', [
                'chanceShare' => $safety->opponentPot() ?? 0.0,
                'hideShare' => $safety->hook() ?? 0.0,
                'moreShare' => $more,
                'isBalls' => $rack->game->rules()->countsBalls,
            ]),
        ];
    }
}
