<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\BallInHand;
use ZigLane\Core\Rules\Referee;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Shot\ShotChoice;

/** What the misses of one shot leave the other player. */
final readonly class MissLeave
{
    /** Misses whose leave is looked at; they come in no order. */
    private const LOOKED = 20;

    /**
     * @param int        $count  misses
     * @param int        $fouls  of them that are fouls too: the other player has the ball in hand
     * @param float|null $chance mean chance of the other player's easiest pot after those that are not, of the first twenty; null if there
     *                           are none
     */
    public function __construct(public int $count, public int $fouls, public ?float $chance)
    {
    }

    /**
     * @param list<Ending> $misses tries in which the called ball did not drop in the called pocket
     * @param Turn         $turn   by which the shot is judged
     */
    public static function of(array $misses, Layout $before, Turn $turn, ShotChoice $choice, Referee $referee, Leave $leave): self
    {
        $count = $fouls = $looked = 0;
        $sum = 0.0;
        foreach ($misses as $ending) {
            $verdict = $referee->judge($before, $turn, $ending, $choice->ball, $choice->pocket);
            if ($verdict->goesOn) {
                // Another ball went in, and that counts.
                continue;
            }
            ++$count;
            if ($verdict->givesAll() || BallInHand::None !== $verdict->inHand) {
                ++$fouls;
            } elseif ($looked < self::LOOKED) {
                ++$looked;
                $sum += $leave->toOther($ending->final, $verdict->group);
            }
        }

        return new self($count, $fouls, 0 === $looked ? null : $sum / $looked);
    }

    /** In a sentence's numbers; null where nothing was missed. */
    public function fact(): ?Fact
    {
        return match (true) {
            0 === $this->count => null,
            null === $this->chance => new Fact('misses.allFouls', ['count' => $this->count]),
            0 === $this->fouls => new Fact('misses.leave', ['chanceShare' => $this->chance]),
            default => new Fact('misses.leaveOrFoul', ['chanceShare' => $this->chance, 'fouls' => $this->fouls, 'count' => $this->count]),
        };
    }
}
