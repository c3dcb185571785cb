<?php

declare(strict_types=1);

namespace ZigLane\Core\Odds;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Motion\OutOfTime;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotDemands;
use ZigLane\Core\Shot\ShotSolver;

/**
 * A run played many times with the player's errors. Each leg is aimed anew from where the balls really lie, with the ball, pocket,
 * tip and speed that were planned; the first that is not made ends a try.
 */
final readonly class Rehearsal
{
    /**
     * @param list<int>          $made  tries in which each leg and all before it were made
     * @param array<string, int> $ended how the others ended: missed, scratch, noShot, miscue
     */
    private function __construct(public int $tries, public array $made, public array $ended)
    {
    }

    /**
     * @param list<ShotChoice> $choices at least one
     * @param ShotSolver|null  $solver  one that may be stopped: what it has played by then is told
     *
     * @throws OutOfTime If it is stopped before the first try is over
     */
    public static function of(Rack $rack, array $choices, int $tries, int $seed = 1, ?ShotSolver $solver = null): self
    {
        $solver ??= new ShotSolver($rack->equipment);
        $balls = $rack->equipment->balls;
        $random = new Randomness($seed);
        $made = array_fill(0, \count($choices), 0);
        $ended = ['missed' => 0, 'scratch' => 0, 'noShot' => 0, 'miscue' => 0];
        $first = null;
        for ($try = 0; $try < $tries; ++$try) {
            $layout = $rack->layout;
            foreach ($choices as $leg => $choice) {
                try {
                    $shot = 0 === $leg && null !== $first ? $first : $solver->aimed($layout, $choice);
                    $first ??= $shot;
                    $errors = $rack->player->in($shot->strike, ShotDemands::of($solver, $layout, $shot, $rack->player->growth));
                    $strike = $errors->disturb($shot->strike, $random, $balls->radius);
                    $ending = $solver->simulator->rollouts($layout)->play($strike);
                } catch (OutOfTime $e) {
                    // The legs of the try that was cut short do not count.
                    for ($i = 0; $i < $leg; ++$i) {
                        --$made[$i];
                    }

                    return $try > 0 ? new self($try, array_values($made), $ended) : throw $e;
                } catch (IllegalStroke) {
                    ++$ended['miscue'];
                    break;
                } catch (CoreError) {
                    // No aim from here, or the ball was moved away or pocketed by an earlier leg.
                    ++$ended['noShot'];
                    break;
                }
                if ($ending->pocketOf($choice->ball) !== $choice->pocket) {
                    ++$ended['missed'];
                    break;
                }
                if ($ending->isScratch()) {
                    ++$ended['scratch'];
                    break;
                }
                ++$made[$leg];
                $layout = $ending->final;
            }
        }

        return new self($tries, array_values($made), $ended);
    }

    /** Chance that all legs are made. */
    public function chance(): float
    {
        return $this->made[\count($this->made) - 1] / $this->tries;
    }
}
