<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\OwnDrill;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\Shot;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Log\LoggedShot;
use ZigLane\Core\Motion\Ending;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Plan\Plan;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Practice\LegDrill;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/** Makes drills of what a player planned, weighed or shot: "practise this". */
final readonly class DrillMaker
{
    /** A safety that hides the cue ball so often is practised for that; else for where the cue ball stops. */
    private const HIDES = 0.3;

    public function __construct(private DrillShelf $shelf)
    {
    }

    /**
     * A leg of a plan: its target is the zone of the next leg's ball.
     *
     * @param int $number from 1
     */
    public function ofLeg(Account $account, string $of, ?Plan $plan, int $number): OwnDrill
    {
        $leg = $plan?->legs[$number - 1] ?? throw Refused::because('noLeg');
        $next = ($plan->legs[$number] ?? null)?->choice->ball;

        return $this->made(
            $account,
            self::named($leg->choice, $of),
            \sprintf('Leg %d of %s as it was planned.', $number, $of),
            $leg->before,
            $leg->choice,
            $plan->rack->equipment,
            $leg->landing,
            null !== $next && $next !== $leg->choice->ball ? $next : null,
            $this->before($leg->before, $leg->choice, $plan->rack->equipment),
        );
    }

    /** @param int $number of the option, from 0 */
    public function ofOption(Account $account, string $of, ?PlanJob $job, int $number): OwnDrill
    {
        $options = $job?->getOptions()?->options;
        $judged = $options->list[$number] ?? throw Refused::because('noOption');
        $choice = $judged->way->choice ?? throw Refused::because('noOption');
        $place = $judged->way->place;
        $layout = null === $place ? $options->rack->layout : $options->rack->layout->with(Ball::Cue, $place);
        $shot = (new ShotSolver($options->rack->equipment))->solve($layout, $choice);

        return $this->made(
            $account,
            self::named($choice, $of),
            \sprintf('%s of %s.', $choice->isSafety ? 'A safety' : 'An attack', $of),
            $layout,
            $choice,
            $options->rack->equipment,
            null === $shot->scratch() ? $shot->outcome->trajectory(Ball::Cue)->last() : null,
            null,
            $this->before($layout, $choice, $options->rack->equipment),
            $choice->isSafety && ($judged->hook() ?? 0.0) >= self::HIDES,
        );
    }

    /** A shot that was shot, with the stroke that was meant. */
    public function ofShot(Account $account, string $of, Shot $shot, Equipment $equipment, Game $game): OwnDrill
    {
        $logged = $shot->logged();
        $choice = self::choice($logged);
        $left = null === $choice ? [] : array_values(array_filter(
            $logged->before->balls(),
            static fn (Ball $ball): bool => Ball::Cue !== $ball && $ball !== $choice->ball,
        ));

        return $this->made(
            $account,
            self::named($choice ?? throw Refused::because('noStrokeKept'), $of),
            \sprintf('A shot of %s.', $of),
            $logged->before,
            $choice,
            $equipment,
            $logged->landing,
            // In rotation the next ball is known.
            $game->rules()->isRotation ? $left[0] ?? null : null,
        );
    }

    private function made(
        Account $account,
        string $name,
        string $text,
        Layout $layout,
        ShotChoice $choice,
        Equipment $equipment,
        ?Spot $landing,
        ?Ball $next,
        int $before = 0,
        bool $hides = false,
    ): OwnDrill {
        $document = LegDrill::document($name, $text, $layout, $choice, $equipment->table, $landing, $next, $before, $hides);

        return $this->shelf->keep($account, DrillFile::parse(json_encode($document, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION)));
    }

    /** Cushions that the cue ball meets before the ball: a kick is practised as one. */
    private function before(Layout $layout, ShotChoice $choice, Equipment $equipment): int
    {
        try {
            $ending = Ending::of((new ShotSolver($equipment))->solve($layout, $choice)->outcome);
        } catch (CoreError) {
            return 0;
        }

        return min(5, \count(array_filter($ending->before, static fn (mixed $one): bool => $one instanceof Rail)));
    }

    private static function named(ShotChoice $choice, string $of): string
    {
        return \sprintf('%s %s: %s', $choice->ball->label(), $choice->isSafety ? 'safe' : $choice->pocket->value, $of);
    }

    private static function choice(LoggedShot $logged): ?ShotChoice
    {
        $strike = $logged->meant;
        if (null === $strike || null === $logged->ball || null === $logged->pocket) {
            return null;
        }
        try {
            return new ShotChoice(
                $logged->ball,
                $logged->pocket,
                new Stroke(Tip::fractions($strike->side, $strike->height), $strike->speed, rad2deg($strike->elevation)),
            );
        } catch (CoreError) {
            return null;
        }
    }
}
