<?php

declare(strict_types=1);

namespace ZigLane\Core\Position;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;

/** Balls that cannot lie so. */
final class IllegalLayout extends \DomainException implements CoreError
{
    private function __construct(private readonly Fact $fact, public readonly Ball $ball)
    {
        parent::__construct((string) $fact);
    }

    public function fact(): Fact
    {
        return $this->fact;
    }

    /** @param float $by depth of the overlap in metres */
    public static function overlap(Ball $ball, Ball $other, float $by): self
    {
        return self::of('overlap', $ball, ['other' => $other, 'byMetres' => $by]);
    }

    /** @param float $by metres beyond the last spot where the ball could lie; infinite for a spot that is none */
    public static function offTheCloth(Ball $ball, float $by): self
    {
        return is_finite($by) ? self::of('offTheCloth', $ball, ['byMetres' => $by]) : self::of('nowhere', $ball);
    }

    /** @param float $by depth in metres to which the ball stands in the facing or the nose of the cushion */
    public static function inTheJaw(Ball $ball, Pocket $pocket, float $by): self
    {
        return self::of('inTheJaw', $ball, ['pocket' => $pocket, 'byMetres' => $by]);
    }

    public static function overTheHole(Ball $ball, Pocket $pocket): self
    {
        return self::of('overTheHole', $ball, ['pocket' => $pocket]);
    }

    public static function notOnTheTable(Ball $ball): self
    {
        return self::of('notOnTheTable', $ball);
    }

    /** @param int $highest number of a ball that is used in it */
    public static function notInTheGame(Ball $ball, string $game, int $highest): self
    {
        return self::of('notInTheGame', $ball, ['game' => $game, 'highest' => $highest]);
    }

    /** It, or the cue ball, lies where a ball is racked. */
    public static function inTheRack(Ball $ball): self
    {
        return self::of('inTheRack', $ball);
    }

    /** No pocket, or not the called one, takes it straight from where it lies. */
    public static function goesNowhere(Ball $ball): self
    {
        return self::of('goesNowhere', $ball);
    }

    /** @param array<string, Ball|Pocket|float|int|string> $values */
    private static function of(string $kind, Ball $ball, array $values = []): self
    {
        return new self(new Fact('layout.'.$kind, ['ball' => $ball] + $values), $ball);
    }
}
