<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\Ending;

/** One option of a position: a way with what its tries came to, and why it is good or bad. */
final readonly class Judged
{
    /** Misses below this mean pot leave the opponent nothing. */
    public const NOTHING = 0.35;
    private const FEW = 5;

    /**
     * @param Ending|null $meant   what comes of it when nothing goes wrong; null where no shot is played
     * @param list<Fact>  $reasons
     */
    public function __construct(public Way $way, public WayTally $tally, public ?Ending $meant = null, public array $reasons = [])
    {
    }

    /** Chance of the opponent's easiest pot where the turn passes and the cue ball is not in hand; null where it never does. */
    public function opponentPot(): ?float
    {
        return 0 === $this->tally->passes ? null : $this->tally->pot / $this->tally->passes;
    }

    /** Share of those tries after which he sees no ball on; null likewise. */
    public function hook(): ?float
    {
        return 0 === $this->tally->passes ? null : $this->tally->hooks / $this->tally->passes;
    }

    /** His value where he comes to the table: chance to win, or balls; null where he never does. */
    public function opponentWin(): ?float
    {
        return 0 === $this->tally->turns ? null : $this->tally->faced / $this->tally->turns;
    }

    /** What a miss leaves: the mean chance of the opponent's easiest pot; null where too few missed to say. */
    public function missLeaves(): ?float
    {
        return WayKind::Attack !== $this->way->kind || $this->tally->misses < self::FEW
            ? null
            : $this->tally->left / $this->tally->misses;
    }

    /** Whether the attack is safe where it misses. */
    public function isTwoWay(): bool
    {
        $leaves = $this->missLeaves();

        return null !== $leaves && $leaves <= self::NOTHING;
    }
}
