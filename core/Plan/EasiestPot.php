<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Odds\PotModel;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Rules\BallsOn;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Rules\Turn;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Spot;

/**
 * A sensible beginner's way, to hold the planner against: the easiest pot now, at natural roll and medium speed, whatever comes after
 * it. He knows the odds of every pot as well as the planner does; he only does not think of the cue ball.
 */
final readonly class EasiestPot implements Chooser
{
    private const ROLLING = 0.4;
    /** The cut at which he likes to place the cue ball, degrees. */
    private const CUT = 20.0;
    /** Odds below which he plays nothing. */
    private const LEAST = 0.01;

    private ShotSolver $solver;

    public function __construct(private Rack $rack, private ?Group $group = null)
    {
        $this->solver = new ShotSolver($rack->equipment);
    }

    /**
     * Where he puts the cue ball in hand: a forearm behind the ball that is nearest to its pocket, at a small cut, since from straight
     * behind a rolling cue ball follows it in.
     *
     * @return Spot|null null where no ball goes anywhere
     */
    public function place(): ?Spot
    {
        $layout = $this->rack->layout;
        $best = null;
        $least = \INF;
        foreach (BallsOn::of($this->rack->game, $layout, $this->group) as $ball) {
            foreach (Pocket::cases() as $pocket) {
                $line = PotModel::find($layout, $ball, $pocket, $this->solver, $this->rack->player);
                if (null === $line) {
                    continue;
                }
                foreach ([[0.4, 1], [0.4, -1], [0.25, 1], [0.25, -1], [0.1, 1], [0.1, -1]] as [$behind, $sign]) {
                    $spot = $line->ghost->towards($line->aimedLine() + \M_PI + $sign * deg2rad(self::CUT), $behind);
                    $far = $layout->spot($ball)->distanceTo($this->rack->equipment->geometry->at($pocket)->mouth());
                    if (
                        $far < $least
                        && $line->chance($spot) > 0.5
                        && [] === (new LayoutRules($this->rack->equipment))->faults($layout->with(Ball::Cue, $spot))
                    ) {
                        [$least, $best] = [$far, $spot];
                    }
                }
            }
        }

        return $best;
    }

    public function next(Layout $layout, int $seed, ?Turn $turn = null): ?Option
    {
        $cue = $layout->spot(Ball::Cue);
        $best = null;
        foreach (BallsOn::of($this->rack->game, $layout, $this->group) as $ball) {
            foreach (Pocket::cases() as $pocket) {
                $line = PotModel::find($layout, $ball, $pocket, $this->solver, $this->rack->player);
                $chance = $line?->chance($cue) ?? 0.0;
                if (null === $line || $chance < max(self::LEAST, $best->value ?? 0.0)) {
                    continue;
                }
                $choice = new ShotChoice(
                    $ball,
                    $pocket,
                    new Stroke(Tip::fractions(0.0, self::ROLLING), $line->stroke($cue)->speed, $line->stroke($cue)->elevation),
                    $line->asideMetres(),
                );
                try {
                    $best = Option::of($this->solver->aimed($layout, $choice), $chance);
                } catch (CoreError) {
                    continue;
                }
            }
        }

        return $best;
    }
}
