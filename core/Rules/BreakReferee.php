<?php

declare(strict_types=1);

namespace ZigLane\Core\Rules;

use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;

/**
 * Judges the opening break (WPA, from memory). A break that is not legal, a soft one, pockets nothing and drives too few balls to a
 * cushion: fewer than four object balls, in straight pool fewer than two or not the cue ball. In nine- and ten-ball that is a foul; in
 * eight-ball the other player takes the table, or has it racked and broken again by either; in straight pool it costs two and may be
 * asked for again. The 9 wins on a legal break and is spotted else; the 10 is spotted; the 8 is spotted, racked again or wins, by
 * RuleOptions. After a legal break of nine- and ten-ball the next shot may be a push-out.
 */
final readonly class BreakReferee
{
    private const DRIVEN = 4;
    private const DRIVEN_STRAIGHT = 2;
    private const BREAKING_FOUL = 2;

    public function __construct(private Game $game, private RuleOptions $options = new RuleOptions())
    {
    }

    public function judge(Ending $ending): BreakVerdict
    {
        $made = Referee::made($ending);
        $driven = [];
        $cueIsDriven = false;
        foreach ($ending->driven as [$ball]) {
            $cueIsDriven = $cueIsDriven || Ball::Cue === $ball;
            if (Ball::Cue !== $ball) {
                $driven[$ball->value] = true;
            }
        }
        $driven = \count($driven);

        return match ($this->game) {
            Game::NineBall, Game::TenBall => $this->rotation($ending, $made, $driven),
            Game::EightBall => $this->eightBall($ending, $made, $driven),
            Game::StraightPool => $this->straightPool($ending, $driven, $cueIsDriven),
        };
    }

    /** @param list<Ball> $made */
    private function rotation(Ending $ending, array $made, int $driven): BreakVerdict
    {
        $isLegal = [] !== $made || $driven >= self::DRIVEN;
        $fouls = self::scratch($ending);
        if (!$isLegal) {
            $fouls[] = Foul::NoCushion;
        }
        $money = Game::NineBall === $this->game ? Ball::Nine : Ball::Ten;
        $dropped = \in_array($money, $made, true);
        $wins = $dropped && Ball::Nine === $money && [] === $fouls;

        return new BreakVerdict(
            $fouls, $isLegal, $driven, [] === $fouls && [] !== $made, $wins, $dropped && !$wins ? [$money] : [],
            [] === $fouls ? BallInHand::None : BallInHand::Anywhere, 0, [], [] === $fouls && !$wins,
        );
    }

    /** @param list<Ball> $made */
    private function eightBall(Ending $ending, array $made, int $driven): BreakVerdict
    {
        $isLegal = [] !== $made || $driven >= self::DRIVEN;
        $fouls = self::scratch($ending);
        $dropped = \in_array(Ball::Eight, $made, true);
        $wins = $dropped && [] === $fouls && $this->options->eightOnBreak;
        $again = [] === $fouls ? BreakChoice::BreakAgain : BreakChoice::BreakSelf;
        $choices = match (true) {
            !$isLegal => [BreakChoice::Accept, BreakChoice::BreakSelf, BreakChoice::BreakAgain],
            $dropped && !$wins => $this->options->eightReracks ? [$again] : [BreakChoice::SpotEight, $again],
            default => [],
        };

        return new BreakVerdict(
            $fouls, $isLegal, $driven, [] === $fouls && [] !== $made, $wins, $dropped && !$wins ? [Ball::Eight] : [],
            [] === $fouls ? BallInHand::None : BallInHand::Kitchen, 0, $choices, false,
        );
    }

    private function straightPool(Ending $ending, int $driven, bool $cueIsDriven): BreakVerdict
    {
        // Nothing is called here: a ball that drops comes back.
        $isLegal = $cueIsDriven && $driven >= self::DRIVEN_STRAIGHT;
        $fouls = self::scratch($ending);
        if (!$isLegal) {
            $fouls[] = Foul::NoCushion;
        }

        return new BreakVerdict(
            $fouls, $isLegal, $driven, false, false, Referee::made($ending),
            $ending->isScratch() ? BallInHand::Kitchen : BallInHand::None,
            $isLegal ? -\count($fouls) : -self::BREAKING_FOUL,
            $isLegal ? [] : [BreakChoice::Accept, BreakChoice::BreakAgain],
            false,
        );
    }

    /** @return list<Foul> */
    private static function scratch(Ending $ending): array
    {
        return $ending->isScratch() ? [Foul::Scratch] : [];
    }
}
