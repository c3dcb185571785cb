<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Shot\RaisedCue;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;

/**
 * Where nothing can be made: how a ball on can be hit legally, straight or over cushions. The cue is turned once round in half degrees with
 * a soft, a medium and a firm stroke at natural roll, each judged by the rules; neighbouring directions that come to the same ball over the
 * same cushions are one window, and the middles of the widest are played with the player's errors.
 *
 * Cost: 2,160 shots, and 1,600 tries.
 */
final class LegalHits
{
    private const STEP = 0.5;
    /** Meant speeds just after the hit, m/s, and height of the tip. */
    private const SPEEDS = [1.4, 2.2, 3.2];
    private const HEIGHT = 0.2;
    private const TRIED = 16;
    private const TRIES = 100;
    /** A ball that none of the tries would hit is no hit. */
    private const LEAST = 0.02;

    /** @return list<LegalHit> the best of each ball and way, the best first */
    public static function of(Rack $rack, int $most = 3, int $seed = 1): array
    {
        if (!$rack->layout->has(Ball::Cue)) {
            return [];
        }
        $windows = self::windows($rack, new ShotSolver($rack->equipment));
        usort($windows, static fn (array $a, array $b): int => $b[1] <=> $a[1]);
        $best = [];
        foreach (\array_slice($windows, 0, self::TRIED) as [$strike]) {
            $hit = self::tried($rack, $strike, $seed);
            $key = null === $hit ? '' : self::key($hit->ball, $hit->cushions);
            if (null !== $hit && $hit->chance >= self::LEAST && $hit->chance > ($best[$key]->chance ?? 0.0)) {
                $best[$key] = $hit;
            }
        }
        usort($best, static fn (LegalHit $a, LegalHit $b): int => $b->chance <=> $a->chance);

        return \array_slice($best, 0, $most);
    }

    /** @return list<array{Strike, int}> the middle of each window, and how many directions it holds */
    private static function windows(Rack $rack, ShotSolver $solver): array
    {
        $rollouts = $solver->simulator->rollouts($rack->layout);
        $referee = Referee::of($rack);
        $turn = Turn::first($rack);
        $steps = (int) round(360 / self::STEP);
        $windows = [];
        foreach (self::SPEEDS as $speed) {
            $since = 0;
            $open = null;
            for ($i = 0; $i <= $steps; ++$i) {
                $strike = self::strike($rack, deg2rad($i * self::STEP), $speed);
                $ending = null === $strike ? null : $rollouts->play($strike);
                $key = null !== $ending && self::isLegal($ending, $rack, $referee, $turn, $strike)
                    ? self::key($ending->first ?? Ball::Cue, $ending->before)
                    : null;
                if ($key !== $open || $i === $steps) {
                    $middle = self::strike($rack, deg2rad(0.5 * ($since + $i - 1) * self::STEP), $speed);
                    if (null !== $middle && null !== $open) {
                        $windows[] = [$middle, $i - $since];
                    }
                    [$open, $since] = [$key, $i];
                }
            }
        }

        return $windows;
    }

    private static function strike(Rack $rack, float $direction, float $speed): ?Strike
    {
        $strike = RaisedCue::strike($rack->layout, $rack->equipment, $direction, $speed, 0.0, self::HEIGHT);

        return null !== $strike && $rack->rules->forbidsStroke($strike->elevation, $strike->speed) ? null : $strike;
    }

    private static function isLegal(Ending $ending, Rack $rack, Referee $referee, Turn $turn, Strike $strike): bool
    {
        if (null === $ending->first || $ending->isScratch()) {
            return false;
        }
        $verdict = $referee->judge($rack->layout, $turn, $ending, $ending->first, Pocket::HeadLeft, $strike);

        return !$verdict->isFoul() && false !== $verdict->isWon;
    }

    private static function tried(Rack $rack, Strike $meant, int $seed): ?LegalHit
    {
        $solver = new ShotSolver($rack->equipment);
        $outcome = $solver->simulator->play($rack->layout, $meant);
        $ending = Ending::of($outcome);
        if (null === $ending->first) {
            return null;
        }
        $rollouts = $solver->simulator->rollouts($rack->layout);
        $errors = $rack->player->in($meant, ShotDemands::ofKick($outcome, $rack->player->growth));
        $random = new Randomness($seed);
        $referee = Referee::of($rack);
        $turn = Turn::first($rack);
        $legal = 0;
        for ($try = 0; $try < self::TRIES; ++$try) {
            try {
                $played = $rollouts->play($errors->disturb($meant, $random, $rack->equipment->balls->radius));
            } catch (CoreError) {
                continue;
            }
            $legal += self::isLegal($played, $rack, $referee, $turn, $meant) ? 1 : 0;
        }
        $rails = array_values(array_filter($ending->before, static fn (Rail|Pocket $met): bool => $met instanceof Rail));

        return new LegalHit($ending->first, $rails, $meant, $legal / self::TRIES, self::TRIES);
    }

    /** @param list<Rail|Pocket> $before */
    private static function key(Ball $ball, array $before): string
    {
        return $ball->value.' '.implode(' ', array_map(static fn (Rail|Pocket $met): string => $met->value, $before));
    }
}
