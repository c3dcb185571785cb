<?php

declare(strict_types=1);

namespace ZigLane\Core\Shot;

use ZigLane\Core\Motion\Event;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Motion\Outcome;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Demands;
use ZigLane\Core\Player\ErrorGrowth;
use ZigLane\Core\Position\Angle;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Stroke\Bridge;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;

/**
 * What a shot demands of a player (docs/physics.md, section 7). What he must judge of cushions and lines of centres is turned into the
 * deviation of the cue's direction that comes to the same at the contact or pocket that is meant: an angle misjudged at a cushion, over the
 * share of the way that is still to go; a line of centres, over what a turn of the striking ball's line makes of it.
 */
final class ShotDemands
{
    /** Of a shot to a pocket over nothing else. */
    public static function ofAimed(Layout $layout, AimedShot $shot, Equipment $equipment): Demands
    {
        return new Demands(
            Bridge::isAwkward($layout, $shot->strike->direction, $equipment),
            null === $shot->choice->direction ? $shot->aim->ghost->cutDegrees : 0.0,
        );
    }

    /** Of any shot; one that is aimed by hand is played for it. */
    public static function of(ShotSolver $solver, Layout $layout, AimedShot $shot, ErrorGrowth $growth): Demands
    {
        return null === $shot->choice->direction
            ? self::ofAimed($layout, $shot, $solver->equipment)
            : self::ofSolved($solver->solve($layout, $shot->choice), $solver->equipment, $growth);
    }

    /** Of a shot that was played as meant, from what comes of it. */
    public static function ofSolved(SolvedShot $shot, Equipment $equipment, ErrorGrowth $growth): Demands
    {
        $plain = self::ofAimed($shot->layout, new AimedShot($shot->choice, $shot->aim, $shot->strike), $equipment);
        $way = null === $shot->choice->direction ? null : IndirectSearch::wayOf($shot);

        return null === $way
            ? $plain
            : new Demands($plain->hasAwkwardBridge, self::cutOf($shot), rad2deg(self::judgement($way, $equipment, $growth)));
    }

    /** Of hitting a ball, whatever comes of it: what the cushions before the cue ball's first contact ask. */
    public static function ofKick(Outcome $outcome, ErrorGrowth $growth): Demands
    {
        $spots = [];
        $cue = $outcome->trajectory(Ball::Cue);
        foreach ($outcome->events as $event) {
            if (Ball::Cue !== $event->ball && Ball::Cue !== $event->other) {
                continue;
            }
            if (\in_array($event->kind, [EventKind::Strike, EventKind::Cushion, EventKind::Ball], true)) {
                $spots[] = $cue->at($event->time);
            }
            if (EventKind::Ball === $event->kind) {
                break;
            }
        }

        return new Demands(judgement: rad2deg(self::overCushions($spots, deg2rad($growth->kick))));
    }

    /** Angle between the cue ball's line and that of centres at its first contact, degrees. */
    private static function cutOf(SolvedShot $shot): float
    {
        $first = $shot->outcome->firstContact();
        $links = null === $first ? [] : self::links($shot, [Ball::Cue === $first->ball ? $first->other ?? Ball::Cue : $first->ball]);

        return [] === $links ? 0.0 : rad2deg(acos(max(-1.0, min(1.0, $links[0][2]))));
    }

    /** @return float deviation of the cue's direction, radians */
    private static function judgement(IndirectWay $way, Equipment $equipment, ErrorGrowth $growth): float
    {
        $shot = $way->shot;
        $reach = $equipment->balls->diameter();
        $kick = deg2rad($growth->kick);
        $centres = deg2rad($growth->combination);
        $chain = [...$way->over, $shot->choice->ball];
        $isCarom = IndirectKind::Carom === $way->kind;
        $links = self::links($shot, $isCarom ? [$way->over[0] ?? $shot->choice->ball] : $chain);
        $square = 0.0;
        // How far the cue's direction turns for a turn of the line of centres of each contact, the links before it counted.
        $lever = 1.0;
        foreach ($links as $i => [$path, $distance, $cosine]) {
            // What is misjudged at the cushions before the contact, as a turn of the line along which the ball sets out.
            $square += ($lever * self::overCushions($path, $kick)) ** 2;
            $lever *= $reach * max($cosine, 0.05) / max($distance, 1e-3);
            if ($isCarom || $i > 0) {
                $square += ($lever * $centres) ** 2;
            }
        }
        if (IndirectKind::Bank === $way->kind || IndirectKind::Kick === $way->kind) {
            $square += ($lever * self::overCushions(self::pathOf($shot, $shot->choice->ball, \INF), $kick)) ** 2;
        }

        return \sqrt($square);
    }

    /**
     * The contacts from the cue ball on, one for each ball of a chain.
     *
     * @param list<Ball> $chain
     *
     * @return list<array{list<Spot>, float, float}> the striking ball's way there (start, cushions, contact), its length in metres, and
     *                                               the cosine of the angle between its line and that of centres
     */
    private static function links(SolvedShot $shot, array $chain): array
    {
        $links = [];
        $striker = Ball::Cue;
        foreach ($chain as $ball) {
            $contact = self::contact($shot, $striker, $ball);
            if (null === $contact) {
                break;
            }
            $path = self::pathOf($shot, $striker, $contact->time);
            $distance = 0.0;
            for ($i = 1; $i < \count($path); ++$i) {
                $distance += $path[$i - 1]->distanceTo($path[$i]);
            }
            $at = $path[\count($path) - 1];
            $from = $path[\count($path) - 2] ?? $at;
            $line = $from->distanceTo($at) < 1e-6 ? $shot->strike->direction : $from->directionTo($at);
            $other = $shot->outcome->trajectory($ball)->at($contact->time);
            $links[] = [$path, $distance, cos(Angle::wrapped($at->directionTo($other) - $line))];
            $striker = $ball;
        }

        return $links;
    }

    private static function contact(SolvedShot $shot, Ball $one, Ball $other): ?Event
    {
        foreach ($shot->outcome->eventsOf($one, EventKind::Ball) as $event) {
            if ($event->ball === $other || $event->other === $other) {
                return $event;
            }
        }

        return null;
    }

    /** @return list<Spot> where a ball sets out, the cushions it meets before a time, and where it is then */
    private static function pathOf(SolvedShot $shot, Ball $ball, float $until): array
    {
        $trajectory = $shot->outcome->trajectory($ball);
        $spots = [$shot->layout->spot($ball)];
        foreach ($shot->outcome->eventsOf($ball, EventKind::Cushion) as $event) {
            if ($event->ball === $ball && $event->time < $until) {
                $spots[] = $event->at;
            }
        }
        $spots[] = \INF === $until ? $trajectory->last() : $trajectory->at($until);

        return $spots;
    }

    /**
     * @param list<Spot> $path start, cushions, end
     * @param float      $kick deviation of the angle at each cushion, radians
     *
     * @return float deviation of the line at its start that comes to the same at its end, radians
     */
    private static function overCushions(array $path, float $kick): float
    {
        $left = $square = 0.0;
        for ($i = \count($path) - 1; $i > 0; --$i) {
            $left += $path[$i]->distanceTo($path[$i - 1]);
            if ($i > 1) {
                $square += $left ** 2;
            }
        }

        return $left < 1e-6 ? 0.0 : $kick * \sqrt($square) / $left;
    }
}
