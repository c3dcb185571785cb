<?php

declare(strict_types=1);

namespace ZigLane\Core\Error;

use ZigLane\Core\Position\Ball;

/** Balls that cannot lie so. */
final class IllegalLayout extends \DomainException implements CoreError
{
    /** @param string $found the fault without its subject, with the labels of a file: "overlaps cue by 4.1 mm" */
    private function __construct(string $message, public readonly Ball $ball, public readonly string $found)
    {
        parent::__construct($message);
    }

    /** @param float $by depth of the overlap in metres */
    public static function overlap(Ball $ball, Ball $other, float $by): self
    {
        $millimetres = self::millimetres($by);

        return new self(\sprintf('%s overlaps %s by %s. Balls can touch but not overlap.', self::subject($ball), $other->spoken(), $millimetres), $ball, \sprintf('overlaps %s by %s', $other->label(), $millimetres));
    }

    /** @param float $by metres beyond the last spot where the ball could lie */
    public static function offTheCloth(Ball $ball, float $by): self
    {
        return self::at($ball, \sprintf('is off the cloth by %s', self::millimetres($by)));
    }

    /** @param float $by depth in metres to which the ball stands in the facing or the nose of the cushion */
    public static function inTheJaw(Ball $ball, string $pocket, float $by): self
    {
        return self::at($ball, \sprintf('stands %s deep in the cushion at pocket %s', self::millimetres($by), $pocket));
    }

    public static function overTheHole(Ball $ball, string $pocket): self
    {
        return self::at($ball, \sprintf('lies over the hole of pocket %s and would drop', $pocket));
    }

    public static function notOnTheTable(Ball $ball): self
    {
        return new self(self::subject($ball).' is not on the table: lay it out first.', $ball, 'is missing');
    }

    public static function notInTheGame(Ball $ball, string $game, string $allowed): self
    {
        return self::at($ball, \sprintf('is not used in %s, which is played with %s', $game, $allowed));
    }

    private static function at(Ball $ball, string $found): self
    {
        return new self(\sprintf('%s %s.', self::subject($ball), $found), $ball, $found);
    }

    private static function subject(Ball $ball): string
    {
        return ucfirst($ball->spoken());
    }

    private static function millimetres(float $metres): string
    {
        return is_finite($metres) ? \sprintf('%.1f mm', max(0.1, $metres * 1000)) : 'an endless distance';
    }
}
