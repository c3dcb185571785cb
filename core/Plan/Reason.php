<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\PositionPlay\Lane;

/** The reasons for a leg, each with its numbers. They are told only where those bear them out. */
final class Reason
{
    /** It is the only pocket to which the ball goes as the others lie. */
    public static function onlyPocket(Ball $ball, Pocket $pocket): Fact
    {
        return new Fact('reason.onlyPocket', ['ball' => $ball, 'pocket' => $pocket]);
    }

    /**
     * The shot as meant moves a ball that had no pocket, and gives it some.
     *
     * @param int $pockets to which it goes afterwards
     */
    public static function frees(Ball $other, int $pockets): Fact
    {
        return new Fact('reason.frees', ['other' => $other, 'pockets' => $pockets]);
    }

    /** The shot as meant moves a ball that had no pocket, and it still has none. */
    public static function moves(Ball $other): Fact
    {
        return new Fact('reason.moves', ['other' => $other]);
    }

    /** @param float|null $straight what the best straight shot would be worth, chance to finish; null where nothing goes straight */
    public static function indirect(Fact $way, float $value, ?float $straight): Fact
    {
        return null === $straight
            ? new Fact('reason.nothingStraight', ['way' => $way])
            : new Fact('reason.straightIsWorse', ['way' => $way, 'valueShare' => $value, 'straightShare' => $straight]);
    }

    /**
     * @param float $here  chance to finish from where the shot lands
     * @param float $there and from the other side of the next ball's line
     */
    public static function rightSide(Ball $next, float $here, float $there): Fact
    {
        return new Fact('reason.rightSide', ['next' => $next, 'hereShare' => $here, 'thereShare' => $there]);
    }

    /** @param Ball|null $other that could break the next rack in its place */
    public static function breakBall(Ball $ball, ?Ball $other): Fact
    {
        return new Fact('reason.breakBall', ['ball' => $ball, 'other' => $other]);
    }

    /** @param Ball|null $usual the ball that lies better for it, where it had to go earlier */
    public static function keyBall(Ball $key, Ball $break, ?Ball $usual): Fact
    {
        return new Fact('reason.keyBall', ['ball' => $key, 'next' => $break, 'other' => $usual]);
    }

    /** @param float $share mean chance of its pot over the whole table, 0 to 1 */
    public static function insurance(Ball $ball, float $share): Fact
    {
        return new Fact('reason.insurance', ['ball' => $ball, 'share' => $share]);
    }

    /** How the route meets the line of the next shot, and the room for speed. */
    public static function way(Ball $next, float $angle, Lane $lane): Fact
    {
        $kind = $angle < 35.0 ? 'intoLine' : ($angle > 55.0 ? 'crossesLine' : 'room');

        return new Fact('reason.'.$kind, ['next' => $next, ...$lane->room()]);
    }

    /**
     * @param float $runs how much farther a stroke a tenth too hard runs, metres
     * @param float $open and how much it would on the open cloth
     */
    public static function cushionSlows(Rail $rail, float $runs, float $open): Fact
    {
        return new Fact('reason.cushionSlows', ['rail' => $rail, 'runsMetres' => $runs, 'openMetres' => $open]);
    }

    public static function raised(float $degrees, Rail|Ball $over): Fact
    {
        return new Fact('reason.raised', ['elevationDegrees' => $degrees, 'over' => $over]);
    }

    /** @param float $share of the tries with natural roll and medium speed in which the cue ball drops in the pocket */
    public static function naturalScratches(Pocket $pocket, float $share): Fact
    {
        return new Fact('reason.naturalScratches', ['pocket' => $pocket, 'share' => $share]);
    }

    /** @param float $share of the tries with natural roll and medium speed in which the ball is struck */
    public static function naturalRunsInto(Ball $other, float $share): Fact
    {
        return new Fact('reason.naturalRunsInto', ['other' => $other, 'share' => $share]);
    }

    public static function locked(): Fact
    {
        return new Fact('reason.locked');
    }

    /** @param float $less how much less the next best pot is worth, as a share of one */
    public static function secondBest(Ball $ball, Pocket $pocket, float $less): Fact
    {
        return new Fact('reason.secondBest', ['ball' => $ball, 'pocket' => $pocket, 'lessShare' => $less]);
    }

    /** @param int $moved racked balls that the break shot as meant moves by more than `farMetres` */
    public static function breakShot(int $moved, float $far): Fact
    {
        return new Fact('reason.breakShot', ['moved' => $moved, 'farMetres' => $far]);
    }

    /** What goes easiest after the break shot as meant; null if nothing goes straight. */
    public static function thenOn(?Ball $ball, ?Pocket $pocket, ?float $chance): Fact
    {
        return null === $ball || null === $pocket || null === $chance
            ? new Fact('reason.thenNothing')
            : new Fact('reason.thenOn', ['ball' => $ball, 'pocket' => $pocket, 'chanceShare' => $chance]);
    }
}
