<?php

declare(strict_types=1);

namespace ZigLane\App\Words;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Plan\PlanConstraints;

/**
 * What a person decides for the planner, between the page, which types it, and the job, which keeps it by names.
 *
 * @phpstan-type Kept array{forbidden: list<array{string, string}>, before: list<array{string, string}>}
 */
final class ConstraintText
{
    /**
     * @param Kept                                $kept   ball and pocket; ball before ball
     * @param list<\ZigLane\Core\Shot\ShotChoice> $locked
     */
    public static function of(array $kept, array $locked): PlanConstraints
    {
        return new PlanConstraints(
            $locked,
            array_map(static fn (array $pair): array => [self::ball($pair[0]), Pocket::from($pair[1])], $kept['forbidden']),
            array_map(static fn (array $pair): array => [self::ball($pair[0]), self::ball($pair[1])], $kept['before']),
        );
    }

    /** @throws \UnexpectedValueException If the job holds no ball there: it was never typed so */
    private static function ball(string $name): Ball
    {
        return Ball::named($name) ?? throw new \UnexpectedValueException(\sprintf('A plan job holds "%s" where a ball should be.', $name));
    }

    /**
     * Reads "4 FL, 7 SR": ways that are not to be planned.
     *
     * @return list<array{string, string}> ball and pocket
     *
     * @throws Refused If something is not understood
     */
    public static function forbidden(string $text): array
    {
        return array_map(static function (string $part): array {
            if (
                1 !== preg_match('/^\s*(\d{1,2})\s*(?:in\s+)?(HR|SR|FR|HL|SL|FL)\s*$/i', $part, $found)
                || null === Ball::named($found[1])
            ) {
                throw Refused::because('forbidden', ['text' => trim($part)]);
            }

            return [$found[1], strtoupper($found[2])];
        }, self::parts($text));
    }

    /**
     * Reads "7 before 4": an order of balls.
     *
     * @return list<array{string, string}>
     *
     * @throws Refused If something is not understood
     */
    public static function before(string $text): array
    {
        return array_map(static function (string $part): array {
            if (
                1 !== preg_match('/^\s*(\d{1,2})\s*before\s*(\d{1,2})\s*$/i', $part, $found)
                || null === Ball::named($found[1])
                || null === Ball::named($found[2])
            ) {
                throw Refused::because('before', ['text' => trim($part)]);
            }

            return [$found[1], $found[2]];
        }, self::parts($text));
    }

    /** @return list<string> */
    private static function parts(string $text): array
    {
        return preg_split('/[,;]+/', $text, -1, \PREG_SPLIT_NO_EMPTY) ?: [];
    }
}
