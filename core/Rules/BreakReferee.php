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
    public function __construct(private Game $game, private RuleOptions $options = new RuleOptions())
    {
    }

    public function judge(Ending $ending): BreakVerdict
    {
        return $this->game->rules()->judgeBreak(BrokenRack::of($ending, $this->options));
    }
}
