<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan\Internal;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\IndirectSearch;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;

/**
 * The chance to make a ball that no pocket is open to, by kick, bank, carom or combination, from some cue ball spots spread over the table;
 * between them that of the nearest. The widest windows of one stroke at each are tried with the player's errors.
 *
 * Cost: 360 shots and up to 30 tries at each of the spots, 0.2 s.
 *
 * @internal
 */
final class IndirectTable
{
    /** Spots that are looked from, at the most. */
    private const SPOTS = 10;
    private const TURN = 1.0;
    private const WINDOWS = 2;
    private const TRIES = 15;

    /** @var list<float>|null by spot of the grid */
    private ?array $chances = null;

    /** @param Layout $layout the ball and those that still lie there when it is shot, without the cue ball */
    public function __construct(
        private readonly Rack $rack,
        private readonly Layout $layout,
        private readonly Ball $ball,
        private readonly Grid $grid,
        private readonly ShotSolver $solver,
    ) {
    }

    /** @return list<float> for every spot of the grid, 0 to 1 */
    public function chances(): array
    {
        if (null !== $this->chances) {
            return $this->chances;
        }
        $looked = [];
        $every = max(1, intdiv(\count($this->grid->spots), self::SPOTS));
        $rules = new LayoutRules($this->rack->equipment);
        for ($i = intdiv($every, 2); $i < \count($this->grid->spots); $i += $every) {
            $layout = $this->layout->with(Ball::Cue, $this->grid->spots[$i]);
            if ([] === $rules->faults($layout)) {
                $looked[$i] = $this->from($layout);
            }
        }
        $this->chances = [];
        foreach ($this->grid->spots as $spot) {
            $near = 0.0;
            $least = \INF;
            foreach ($looked as $i => $chance) {
                $far = $spot->distanceTo($this->grid->spots[$i]);
                if ($far < $least) {
                    [$least, $near] = [$far, $chance];
                }
            }
            $this->chances[] = $near;
        }

        return $this->chances;
    }

    private function from(Layout $layout): float
    {
        $best = 0.0;
        $player = $this->rack->player;
        $rollouts = $this->solver->simulator->rollouts($layout);
        foreach ((new IndirectSearch($this->rack, self::TURN))->windows($layout, [$this->ball], [$this->ball], self::WINDOWS) as $choice) {
            try {
                $shot = $this->solver->solve($layout, $choice);
            } catch (CoreError) {
                continue;
            }
            $errors = $player->in($shot->strike, ShotDemands::ofSolved($shot, $this->rack->equipment, $player->growth));
            $random = new Randomness(1);
            $made = 0;
            for ($try = 0; $try < self::TRIES; ++$try) {
                try {
                    $ending = $rollouts->play($errors->disturb($shot->strike, $random, $this->rack->equipment->balls->radius));
                } catch (CoreError) {
                    continue;
                }
                $made += null !== $ending->pocketOf($this->ball) && !$ending->isScratch() && $ending->first === $this->ball ? 1 : 0;
            }
            $best = max($best, $made / self::TRIES);
        }

        return $best;
    }
}
