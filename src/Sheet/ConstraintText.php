<?php

declare(strict_types=1);

namespace ZigLane\App\Sheet;

use ZigLane\App\Entity\PlanJob;
use ZigLane\Core\Plan\PlanConstraints;
use ZigLane\Core\Position\Ball;
use ZigLane\Core\Table\Pocket;

/** What a person wishes of a plan, between the page, the job and the planner. */
final class ConstraintText
{
    public static function of(PlanJob $job): PlanConstraints
    {
        $constraints = $job->getConstraints();
        $forbidden = $before = [];
        foreach ($constraints['forbidden'] as [$ball, $pocket]) {
            $forbidden[] = [Ball::named($ball) ?? Ball::One, Pocket::from($pocket)];
        }
        foreach ($constraints['before'] as [$one, $other]) {
            $before[] = [Ball::named($one) ?? Ball::One, Ball::named($other) ?? Ball::One];
        }

        return new PlanConstraints($job->getLegs(), $forbidden, $before);
    }

    /**
     * Reads "4 FL, 7 SR": ways that are not to be planned.
     *
     * @return array{list<array{string, string}>, string|null} ball and pocket, and a sentence about what was not understood
     */
    public static function forbidden(string $text): array
    {
        $pairs = [];
        foreach (preg_split('/[,;]+/', $text, -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $part) {
            if (1 !== preg_match('/^\s*(\d{1,2})\s*(?:in\s+)?(HR|SR|FR|HL|SL|FL)\s*$/i', $part, $found) || null === Ball::named($found[1])) {
                return [[], \sprintf('"%s" is not a ball and a pocket: write "4 FL", and more after commas.', trim($part))];
            }
            $pairs[] = [$found[1], strtoupper($found[2])];
        }

        return [$pairs, null];
    }

    /**
     * Reads "7 before 4": an order of balls.
     *
     * @return array{list<array{string, string}>, string|null}
     */
    public static function before(string $text): array
    {
        $pairs = [];
        foreach (preg_split('/[,;]+/', $text, -1, \PREG_SPLIT_NO_EMPTY) ?: [] as $part) {
            if (1 !== preg_match('/^\s*(\d{1,2})\s*before\s*(\d{1,2})\s*$/i', $part, $found) || null === Ball::named($found[1]) || null === Ball::named($found[2])) {
                return [[], \sprintf('"%s" is not an order of balls: write "7 before 4", and more after commas.', trim($part))];
            }
            $pairs[] = [$found[1], $found[2]];
        }

        return [$pairs, null];
    }
}
