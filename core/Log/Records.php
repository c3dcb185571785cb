<?php

declare(strict_types=1);

namespace ZigLane\Core\Log;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\Game;

/**
 * What a player's racks come to: run-outs, balls in a row, streaks, breaks. Only what was noted counts.
 *
 * @phpstan-type Month array{racks: int, out: int, shots: int, pots: int, made: int, position: int, fouls: int}
 */
final readonly class Records
{
    private const NOTHING = ['racks' => 0, 'out' => 0, 'shots' => 0, 'pots' => 0, 'made' => 0, 'position' => 0, 'fouls' => 0];

    /**
     * @param int                  $racks     that have an end
     * @param int                  $out       of them run out
     * @param int                  $streak    racks run out one after the other, at the most
     * @param int                  $highRun   balls in a row without a miss, foul or safety, at the most; over racks where that was noted
     * @param array<string, int>   $ends      by how racks ended
     * @param array<string, Month> $months    by month, the first first
     * @param int                  $breaks    breaks noted
     * @param int                  $fell      balls that fell on them
     * @param int                  $dry       breaks on which none fell
     * @param int                  $scratched on the break
     * @param int                  $shotAfter breaks after which there was a shot, of those where that was noted
     * @param int                  $wing      breaks on which the ball on the wing dropped, of those where that was noted
     * @param int                  $wingNoted breaks where that was noted
     * @param array<string, int>   $oneLay    where the 1 stopped after the break: head, middle or foot third of the table, or down
     * @param array<string, Month> $days      by day, the last first
     * @param int                  $shotNoted breaks where that was noted
     */
    private function __construct(
        public int $racks,
        public int $out,
        public int $streak,
        public int $highRun,
        public array $ends,
        public array $months,
        public int $breaks,
        public int $fell,
        public int $dry,
        public int $scratched,
        public int $shotAfter,
        public int $shotNoted,
        public int $wing,
        public int $wingNoted,
        public array $oneLay,
        public array $days,
    ) {
    }

    /** @param Game|null $game only this one's */
    public static function of(Log $log, ?Game $game = null): self
    {
        $wing = $wingNoted = 0;
        $oneLay = ['head' => 0, 'middle' => 0, 'foot' => 0, 'down' => 0];
        $days = [];
        $racks = $out = $streak = $most = $run = $highRun = $breaks = $fell = $dry = $scratched = $after = $noted = 0;
        $ends = $months = [];
        foreach ($log->outings as $outing) {
            $day = $outing->date->format('Y-m-d');
            foreach ($outing->racks as $rack) {
                if (null !== $game && $rack->game !== $game) {
                    continue;
                }
                $month = self::NOTHING;
                $run = 0;
                foreach ($rack->shots as $shot) {
                    ++$month['shots'];
                    if (ShotKind::Break === $shot->kind) {
                        ++$breaks;
                        $fell += \count(array_filter($shot->result->fell, static fn (Ball $ball): bool => Ball::Cue !== $ball));
                        $dry += [] === $shot->result->fell ? 1 : 0;
                        $scratched += $shot->result->scratch ? 1 : 0;
                        $noted += null !== $shot->result->position ? 1 : 0;
                        $after += true === $shot->result->position ? 1 : 0;
                        $wingNoted += null !== $shot->result->isMade ? 1 : 0;
                        $wing += true === $shot->result->isMade ? 1 : 0;
                        $lay = self::lay($shot);
                        if (null !== $lay) {
                            ++$oneLay[$lay];
                        }
                        continue;
                    }
                    if (null !== $shot->result->isMade && ShotKind::Safety !== $shot->kind) {
                        ++$month['pots'];
                        $month['made'] += $shot->result->isMade ? 1 : 0;
                    }
                    $month['position'] += true === $shot->result->isMade && false === $shot->result->position ? 1 : 0;
                    $month['fouls'] += $shot->result->foul ? 1 : 0;
                    $isGood = true === $shot->result->isMade && !$shot->result->foul;
                    $run = $isGood ? $run + 1 : 0;
                    $highRun = max($highRun, $run);
                }
                $highRun = max($highRun, $rack->balls ?? 0);
                $isBreak = 1 === \count($rack->shots) && ShotKind::Break === $rack->shots[0]->kind;
                if (null !== $rack->end && RackKind::Tries !== $rack->kind && !$isBreak) {
                    ++$racks;
                    ++$month['racks'];
                    $isOut = RackResult::Out === $rack->end && [] === array_filter(
                        $rack->shots,
                        static fn (LoggedShot $shot): bool => false === $shot->result->isMade && ShotKind::Break !== $shot->kind,
                    );
                    $month['out'] += $isOut ? 1 : 0;
                    $out += $isOut ? 1 : 0;
                    $streak = $isOut ? $streak + max(1, $rack->racks ?? 1) : 0;
                    $most = max($most, $streak);
                    $ends[$rack->end->value] = ($ends[$rack->end->value] ?? 0) + 1;
                }
                $months[$outing->date->format('Y-m')] = self::sum($months[$outing->date->format('Y-m')] ?? self::NOTHING, $month);
                $days[$day] = self::sum($days[$day] ?? self::NOTHING, $month);
            }
        }
        krsort($days);
        ksort($months);
        arsort($ends);

        return new self(
            $racks, $out, $most, $highRun, $ends, $months, $breaks, $fell, $dry, $scratched, $after, $noted,
            $wing, $wingNoted, $oneLay, $days,
        );
    }

    /** Where the 1 stopped after a break; null where that was not noted. */
    private static function lay(LoggedShot $shot): ?string
    {
        if (\in_array(Ball::One, $shot->result->fell, true)) {
            return 'down';
        }
        if (!$shot->result->after->has(Ball::One)) {
            return null;
        }
        $share = $shot->result->after->spot(Ball::One)->x / $shot->equipment->table->length;

        return $share < 1 / 3 ? 'head' : ($share < 2 / 3 ? 'middle' : 'foot');
    }

    /**
     * @param Month $one
     * @param Month $other
     *
     * @return Month
     */
    private static function sum(array $one, array $other): array
    {
        foreach ($other as $field => $count) {
            $one[$field] += $count;
        }

        return $one;
    }
}
