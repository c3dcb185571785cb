<?php

declare(strict_types=1);

namespace ZigLane\Core\Decide;

use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Plan\Leave;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Position\Sight;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Verdict;
use ZigLane\Core\Shot\ShotSolver;

/**
 * What a position is worth to the one who comes to it: by his easiest pot, whether he sees a ball on, and the balls that are left (Race).
 * No ply is played here: tries play the one before it, and the search for options the one after some of them.
 *
 * Cost: a tenth of a millisecond to one, and a few milliseconds for each new place of a ball.
 */
final class PositionValue
{
    /** Width of the grid on which balls are taken to lie for the chances of pots, metres; pots of which the chance is taken. */
    public const GRID = 0.06;
    private const ROUGH = 0.127;
    private const LOOKED = 3;

    public readonly Race $race;
    public readonly OpenBalls $open;
    private readonly Sight $sight;

    /** @var array{Leave, Leave} */
    private readonly array $leaves;

    private ?self $rough = null;

    /**
     * @param array{ExecutionErrors, ExecutionErrors} $players
     * @param Race|null                               $race    of them, where it is known
     */
    public function __construct(
        private readonly Rack $rack,
        public readonly array $players,
        private readonly ShotSolver $solver,
        float $grid = self::GRID,
        ?Race $race = null,
    ) {
        $this->sight = new Sight($rack->equipment->balls);
        $this->open = new OpenBalls($rack->equipment);
        $first = new Leave($rack->withPlayer($players[0]), $solver, self::LOOKED, $grid, true);
        $this->leaves = [
            $first,
            $players[0] == $players[1] ? $first : new Leave($rack->withPlayer($players[1]), $solver, self::LOOKED, $grid, true),
        ];
        $this->race = $race ?? new Race($rack->game, [
            Pace::of($players[0], $rack->game, $solver),
            Pace::of($players[1], $rack->game, $solver),
        ]);
    }

    /** The same with balls on a wider grid: where thousands of strokes are looked over as they are meant. */
    public function roughly(): self
    {
        return $this->rough ??= new self($this->rack, $this->players, $this->solver, self::ROUGH, $this->race);
    }

    /** @return float to the one who made the shot: what it comes to by the rules, and what it leaves */
    public function of(Situation $before, Ending $ending, Verdict $verdict): float
    {
        return $this->worth(
            $verdict,
            null !== $verdict->isWon ? null : $this->look($before->after($ending, $verdict, $this->rack->equipment)),
        );
    }

    /** @param Look|null $next at what the shot leaves; null where the rack is decided */
    public function worth(Verdict $verdict, ?Look $next): float
    {
        return match (true) {
            null === $next => $verdict->isWon ? 1.0 : 0.0,
            $verdict->goesOn => $verdict->points + $next->win,
            default => $verdict->points + $this->race->turned($next->win),
        };
    }

    public function look(Situation $situation): Look
    {
        $look = $this->corrected($situation, $this->raced($situation));
        if ($look->isInHand || !$situation->standing->mayPass) {
            return $look;
        }
        $given = $this->race->turned($this->look($situation->passed())->win);

        return $given > $look->win ? new Look($given, $look->pot, $look->sees, false) : $look;
    }

    /** As the race alone has it, before what it does not know is counted in. */
    public function raced(Situation $situation): Look
    {
        [$own, $other] = $situation->left();
        $shooter = $situation->shooter;
        if ($own < 1 || $situation->isInHand()) {
            return new Look($this->race->hand($shooter, $own, $other), 1.0, true, true);
        }
        $pot = $this->leaves[$shooter]->easiest($situation->layout, $situation->shootable());
        $sees = $pot > 0.0 || $this->sees($situation);

        return new Look($this->race->from($shooter, $own, $other, $pot, $sees, $this->isThird($situation)), $pot, $sees, false);
    }

    /**
     * The easiest pot of the one who comes to a position.
     *
     * @return array{Ball, Pocket, float}|null with its chance; null with the ball in hand, or if nothing goes straight
     */
    public function surest(Situation $situation): ?array
    {
        return $situation->isInHand()
            ? null
            : $this->leaves[$situation->shooter]->surest($situation->layout, $situation->shootable());
    }

    /** The chance to win with what the race does not know; balls of straight pool stay as they are. */
    private function corrected(Situation $situation, Look $look): Look
    {
        if ($situation->game->rules()->countsBalls) {
            return $look;
        }
        $sum = 0.0;
        foreach (Pace::corrections($look, $situation->left()[0], ...$this->open->shares($situation)) as $i => $feature) {
            $sum += Pace::corrected($situation->game)[$i] * $feature;
        }

        return new Look(1 / (1 + exp(-$sum)), $look->pot, $look->sees, $look->isInHand);
    }

    /** Whether a foul of the shooter would be his third in a row, and counts as one. */
    private function isThird(Situation $situation): bool
    {
        return $situation->turn()->isThird()
            && ($situation->game->rules()->countsBalls || $situation->game->rules()->losesByThirdFoul($this->rack->rules));
    }

    private function sees(Situation $situation): bool
    {
        $cue = $situation->layout->spot(Ball::Cue);
        foreach ($situation->on() as $ball) {
            if ($this->sight->seen($situation->layout, $cue, $ball)[0] > 0.0) {
                return true;
            }
        }

        return false;
    }
}
