<?php

declare(strict_types=1);

namespace ZigLane\Core\Error;

use ZigLane\Core\Position\Ball;

/** Balls that cannot lie so. */
final class IllegalLayout extends \DomainException implements LaneError
{
    private function __construct(string $message, public readonly Ball $ball)
    {
        parent::__construct($message);
    }

    /** @param float $by depth of the overlap in metres */
    public static function overlap(Ball $ball, Ball $other, float $by): self
    {
        return new self(\sprintf('%s overlaps %s by %.1f mm.', ucfirst($ball->spoken()), $other->spoken(), max(0.1, $by * 1000)), $ball);
    }

    /** @param float $by metres beyond the last spot where the ball could lie */
    public static function offTheCloth(Ball $ball, float $by): self
    {
        return new self(\sprintf('%s is off the cloth by %.1f mm.', ucfirst($ball->spoken()), max(0.1, $by * 1000)), $ball);
    }

    /** @param float $by depth in metres to which the ball stands in the facing or the nose of the cushion */
    public static function inTheJaw(Ball $ball, string $pocket, float $by): self
    {
        return new self(\sprintf('%s stands %.1f mm deep in the cushion at pocket %s.', ucfirst($ball->spoken()), max(0.1, $by * 1000), $pocket), $ball);
    }

    public static function overTheHole(Ball $ball, string $pocket): self
    {
        return new self(\sprintf('%s lies over the hole of pocket %s and would drop.', ucfirst($ball->spoken()), $pocket), $ball);
    }

    public static function notOnTheTable(Ball $ball): self
    {
        return new self(\sprintf('%s is not on the table: lay it out first.', ucfirst($ball->spoken())), $ball);
    }

    public static function notInTheGame(Ball $ball, string $game, string $allowed): self
    {
        return new self(\sprintf('%s is not used in %s, which is played with %s.', ucfirst($ball->spoken()), $game, $allowed), $ball);
    }
}
