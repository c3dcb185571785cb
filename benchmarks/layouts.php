<?php

declare(strict_types=1);

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Table\Spot;

/**
 * Balls of a game anywhere on the table, a ball's width apart, with the cue ball; from a third of them to all, the money ball always, and
 * of eight-ball some of either group.
 */
function randomLayout(Game $game, int $seed, bool $isWhole = false): Layout
{
    $random = new Randomness($seed);
    $balls = $random->shuffled(array_values(array_filter($game->balls(), static fn (Ball $ball): bool => $ball !== $game->moneyBall())));
    $count = $isWhole ? count($balls) : (int) floor((0.3 + 0.7 * $random->share()) * count($balls));
    $kept = array_slice($balls, 0, $count);
    if (Game::EightBall === $game) {
        array_push($kept, Ball::from(1 + $seed % 7), Ball::from(9 + $seed % 7));
    }
    $kept = array_filter($game->balls(), static fn (Ball $ball): bool => $ball === $game->moneyBall() || in_array($ball, $kept, true));

    return scattered([...$kept, Ball::Cue], $random);
}

/**
 * Balls anywhere on the table, a ball's width apart.
 *
 * @param list<Ball> $balls
 */
function scattered(array $balls, Randomness $random): Layout
{
    $layout = Layout::empty();
    foreach ($balls as $ball) {
        do {
            $spot = Spot::metres(0.04 + 2.46 * $random->share(), 0.04 + 1.19 * $random->share());
            $near = array_filter($layout->balls(), static fn (Ball $other): bool => $layout->spot($other)->distanceTo($spot) < 0.0572);
        } while ([] !== $near);
        $layout = $layout->with($ball, $spot);
    }

    return $layout;
}
