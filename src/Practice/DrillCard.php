<?php

declare(strict_types=1);

namespace ZigLane\App\Practice;

use ZigLane\Core\Position\Ball;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Practice\Drill;
use ZigLane\Core\Practice\Target;
use ZigLane\Core\Practice\TargetKind;
use ZigLane\Core\Practice\Task;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\TableProfile;

/** What a drill says in words and numbers: what is to be done, what counts, and where each ball lies. */
final readonly class DrillCard
{
    public function __construct(public Drill $drill, private Equipment $equipment)
    {
    }

    /** What is to be done, in one line. */
    public function task(): string
    {
        $ball = $this->drill->ball;
        $what = match ($this->drill->task) {
            Task::Pot => 'Pot the '.($ball?->label() ?? 'ball').(null === $this->drill->pocket ? '' : ' in '.$this->drill->pocket->value),
            Task::Hit => 'Hit the '.(null === $ball ? 'ball' : $ball->label()).', no pot',
            Task::Lag => 'Roll the cue ball alone',
            Task::Run => \in_array($this->drill->game, [null, Game::StraightPool], true)
                ? 'Make all balls, in any order'
                : 'Make all balls, the lowest first',
            Task::Break => 'Break',
        };
        $cushions = static fn (int $count): string => \sprintf('%d cushion%s', $count, 1 === $count ? '' : 's');
        $over = $this->drill->before > 0 ? ', over '.$cushions($this->drill->before).' first' : '';
        $in = $this->drill->cushions > 0 ? ', the cue ball over '.$cushions($this->drill->cushions) : '';

        return $what.$over.$in.'.';
    }

    /** @return list<string> what counts */
    public function counts(): array
    {
        $lines = [];
        if ($this->drill->task->isCounted()) {
            $lines[] = 'A point for each ball.';
        } elseif (null !== $this->drill->moves) {
            $lines[] = 'Made: one step farther. Missed: one step nearer. Your score is the step where you stand at the end.';
        } elseif ($this->drill->done > 0.0) {
            $lines[] = self::points($this->drill->done).' when it is done.';
        }
        foreach ($this->drill->targets as $target) {
            $lines[] = $this->target($target);
        }
        if ($this->drill->goesOn) {
            $lines[] = 'Play on from where the balls stop; the first that fails ends it.';
        } elseif ($this->drill->untilMiss) {
            $lines[] = 'The first that fails ends it.';
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

    public static function points(float $points): string
    {
        return rtrim(rtrim(number_format($points, 1, '.', ''), '0'), '.').(1.0 === $points ? ' point' : ' points');
    }

    private function target(Target $target): string
    {
        $rings = $target->area->rings ?? [];
        $ball = null === $target->ball || Ball::Cue === $target->ball ? 'the cue ball' : 'the '.$target->ball->label();
        $worth = 0.0 === $target->points ? '' : self::points($target->points).': ';

        return match ($target->kind) {
            TargetKind::Area => [] === $rings
                ? $worth.$ball.' stops in the marked area.'
                : \sprintf('%s stops in the rings: %s, from the middle.', ucfirst($ball), implode(', ', array_map(
                    static fn (array $ring): string => rtrim(rtrim(number_format($ring[1] * $target->points, 1), '0'), '.'),
                    $rings,
                ))),
            TargetKind::Past => $worth.'the cue ball stops past where it stopped before.',
            TargetKind::Hidden => $worth.(null === $target->ball ? 'no ball' : 'the '.$target->ball->label()).(null === $target->ball
                ? ' can be met straight from there.'
                : ' cannot be met straight from there.'),
            TargetKind::Zone => \sprintf(
                '%sthe %s then goes with %d %% or more.',
                $worth,
                $target->ball?->label() ?? '',
                (int) round(100 * $target->odds),
            ),
            TargetKind::Opened => \sprintf('%sat least %d balls are moved.', $worth, $target->least),
        };
    }
}
