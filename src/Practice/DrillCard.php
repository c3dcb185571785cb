<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Practice\Drill;
use ZigLane\Core\Practice\Target;
use ZigLane\Core\Practice\TargetKind;
use ZigLane\Core\Practice\Task;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\TableProfile;

/** What a drill says in words and numbers: what is to be done, what counts, and where each ball lies. */
final readonly class DrillCard
{
    public function __construct(public Drill $drill, private Equipment $equipment)
    {
    }

    /** What is to be done, in one line. */
    public function task(): Fact
    {
        $ball = $this->drill->ball;
        $what = match ($this->drill->task) {
            Task::Pot => new Fact('card.pot', ['ball' => $ball, 'pocket' => $this->drill->pocket]),
            Task::Hit => new Fact('card.hit', ['ball' => $ball]),
            Task::Lag => new Fact('card.lag'),
            Task::Run => new Fact(false === $this->drill->game?->rules()->countsBalls ? 'card.lowestFirst' : 'card.anyOrder'),
            Task::Break => new Fact('card.break'),
        };

        return new Fact('card.task', ['what' => $what, 'before' => $this->drill->before, 'after' => $this->drill->cushions]);
    }

    /** @return list<Fact> what counts */
    public function counts(): array
    {
        $lines = [];
        if ($this->drill->task->isCounted()) {
            $lines[] = new Fact('card.aBall');
        } elseif (null !== $this->drill->moves) {
            $lines[] = new Fact('card.steps');
        } elseif ($this->drill->done > 0.0) {
            $lines[] = new Fact('card.done', ['points' => self::points($this->drill->done)]);
        }
        foreach ($this->drill->targets as $target) {
            $lines[] = $this->target($target);
        }
        if ($this->drill->goesOn) {
            $lines[] = new Fact('card.playOn');
        } elseif ($this->drill->untilMiss) {
            $lines[] = new Fact('card.untilMiss');
        }

        return $lines;
    }

    /**
     * @return list<array{ball: Ball, long: float, short: float, fromLong: float, fromShort: float}> spots in diamonds, and metres of the
     *                                                                                               ball's middle from the nearest end
     *                                                                                               and side rail
     */
    public function spots(Layout $layout): array
    {
        return self::spotsOf($layout, $this->equipment->table);
    }

    /** @return list<array{ball: Ball, long: float, short: float, fromLong: float, fromShort: float}> as `spots` gives them */
    public static function spotsOf(Layout $layout, TableProfile $table): array
    {
        $spots = [];
        foreach ($layout->balls() as $ball) {
            $spot = $layout->spot($ball);
            [$long, $short] = $spot->inDiamonds($table);
            $spots[] = [
                'ball' => $ball,
                'long' => round($long, 2),
                'short' => round($short, 2),
                'fromLong' => min($spot->x, $table->length - $spot->x),
                'fromShort' => min($spot->y, $table->width() - $spot->y),
            ];
        }

        return $spots;
    }

    public static function points(float $points): Fact
    {
        $number = rtrim(rtrim(number_format($points, 1, '.', ''), '0'), '.');

        return new Fact(1.0 === $points ? 'card.point' : 'card.points', ['points' => $number]);
    }

    private function target(Target $target): Fact
    {
        $rings = $target->area->rings ?? [];
        $ball = $target->ball ?? Ball::Cue;
        $values = ['ball' => $ball, 'isWorth' => 0.0 !== $target->points, 'points' => self::points($target->points)];

        return match ($target->kind) {
            TargetKind::Area => [] === $rings
                ? new Fact('card.area', $values)
                : new Fact('card.rings', ['ball' => $ball, 'rings' => implode(', ', array_map(
                    static fn (array $ring): string => rtrim(rtrim(number_format($ring[1] * $target->points, 1), '0'), '.'),
                    $rings,
                ))]),
            TargetKind::Past => new Fact('card.past', $values),
            TargetKind::Hidden => new Fact(null === $target->ball ? 'card.hidesAll' : 'card.hides', $values),
            TargetKind::Zone => new Fact('card.zone', [...$values, 'odds' => (int) round(100 * $target->odds)]),
            TargetKind::Opened => new Fact('card.opened', [...$values, 'count' => $target->least]),
        };
    }
}
