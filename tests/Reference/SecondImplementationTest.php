<?php

declare(strict_types=1);

namespace ZigLane\Tests\Reference;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Motion\EventKind;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Outcome;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Position\LayoutRules;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Reference\Plain\PlainTable;
use ZigLane\Tests\Table;

/**
 * The engine against a second implementation that shares nothing with it (Plain/PlainTable). A shot is chaotic, and left out,
 * when moving the cue ball by a micrometre changes what meets what or moves a ball's end by more than a third of a millimetre:
 * there the two can differ by rounding and by their steps alone.
 */
final class SecondImplementationTest extends TestCase
{
    private const WANTED = 300;

    public function testItAgreesOverRandomShots(): void
    {
        $chance = new Chance(77);
        $simulator = new EventSimulator();
        $table = new Table();
        $agreed = $chaotic = 0;
        $offs = $different = [];
        while ($agreed + \count($different) < self::WANTED) {
            $layout = $table->randomLayout($chance, $chance->int(2, 10));
            if (!self::isLoose($layout)) {
                continue;
            }
            $cue = $layout->spot(Ball::Cue);
            $direction = $cue->directionTo($layout->spot(Ball::One)) + $chance->float(-0.05, 0.05);
            $speed = $chance->float(0.6, 3.0);
            $motion = [
                $speed * cos($direction),
                $speed * sin($direction),
                $chance->float(-40, 40),
                $chance->float(-40, 40),
                $chance->float(-60, 60),
            ];
            $outcome = $simulator->release($layout, [0 => $motion]);
            foreach ([[1e-6, 0.0], [0.0, 1e-6]] as [$dx, $dy]) {
                $moved = $simulator->release($layout->with(Ball::Cue, Spot::metres($cue->x + $dx, $cue->y + $dy)), [0 => $motion]);
                if (self::met($moved) !== self::met($outcome) || self::off($outcome, $moved) > 0.0003) {
                    ++$chaotic;
                    continue 2;
                }
            }
            $plain = new PlainTable($layout->places());
            $plain->let(0, $motion);
            $plain->run();
            $pockets = array_map(static fn ($pocket): string => $pocket->value, $outcome->pocketed);
            ksort($pockets);
            ksort($plain->pocketed);
            if ($pockets !== $plain->pocketed || self::met($outcome) !== $plain->met) {
                $different[] = json_encode([$pockets, $plain->pocketed, self::met($outcome), $plain->met]);
                continue;
            }
            ++$agreed;
            $worst = 0.0;
            foreach ($plain->balls as $i => [$x, $y]) {
                $spot = $outcome->final->spot(Ball::from($i));
                $worst = max($worst, hypot($spot->x - $x, $spot->y - $y));
            }
            $offs[] = $worst;
        }
        sort($offs);
        if (getenv('SHOW_AGREEMENT')) {
            fwrite(
                \STDERR,
                implode("\n", $different).\sprintf(
                    "\n%d agree, %d differ, %d chaotic; off by %.3f mm (median), %.3f mm (95 %%), %.3f mm (most)\n",
                    $agreed,
                    \count($different),
                    $chaotic,
                    1000 * $offs[intdiv(\count($offs), 2)],
                    1000 * $offs[(int) (0.95 * \count($offs))],
                    1000 * end($offs),
                ),
            );
        }

        // Same pockets and the same contacts in order for each ball: all, but for a few in which two steps fall on one contact.
        self::assertLessThanOrEqual(0.01 * self::WANTED, \count($different), implode("\n", $different));
        self::assertLessThan(0.005, $offs[(int) (0.95 * \count($offs))]);
        self::assertLessThan(1.5 * self::WANTED, $chaotic);
    }

    /** No third ball within half a centimetre of two: groups are struck as one in the engine, which the plain table does not know. */
    private static function isLoose(Layout $layout): bool
    {
        $balls = $layout->balls();
        foreach ($balls as $i => $one) {
            foreach (\array_slice($balls, $i + 1) as $other) {
                if ($layout->spot($one)->distanceTo($layout->spot($other)) < 2 * Table::R + 0.005) {
                    return false;
                }
            }
        }

        return [] === (new LayoutRules(new Equipment()))->faults($layout);
    }

    /** @return array<int, list<string>> what each ball met, in order */
    private static function met(Outcome $outcome): array
    {
        $met = array_fill_keys(array_keys($outcome->trajectories), []);
        foreach ($outcome->events as $event) {
            switch ($event->kind) {
                case EventKind::Ball:
                    \assert(null !== $event->other);
                    $met[$event->ball->value][] = 'b'.$event->other->value;
                    $met[$event->other->value][] = 'b'.$event->ball->value;
                    break;
                case EventKind::Cushion:
                    $met[$event->ball->value][] = (string) $event->rail?->value;
                    break;
                case EventKind::Jaw:
                    $met[$event->ball->value][] = 'jaw '.$event->pocket?->value;
                    break;
                default:
            }
        }

        return $met;
    }

    /** The most that a ball's end differs, metres. */
    private static function off(Outcome $a, Outcome $b): float
    {
        $most = 0.0;
        foreach ($a->final->balls() as $ball) {
            $most = max($most, $b->final->has($ball) ? $a->final->spot($ball)->distanceTo($b->final->spot($ball)) : \INF);
        }

        return $most;
    }
}
