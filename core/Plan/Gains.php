<?php

declare(strict_types=1);

namespace ZigLane\Core\Plan;

use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Odds\Trials;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Rack;

/**
 * What is worth practising: by how much a player would run out more racks if one of his errors were a quarter less, by rehearsals with the
 * same draws (common random numbers), so that the differences are told with few of them.
 */
final class Gains
{
    private const LESS = 0.75;

    /**
     * @param list<Rack>                   $racks    that the player shot lately
     * @param ExecutionErrors              $player   as he is
     * @param int                          $blocks   of ten rehearsals, of each rack and each error
     * @param (\Closure(float): void)|null $progress is told the share that is done
     *
     * @return array<string, array{gain: float, interval: array{float, float}}> by error, chances to run out; the greatest gain first
     */
    public static function of(array $racks, ExecutionErrors $player, int $blocks = 5, ?\Closure $progress = null): array
    {
        $differences = array_fill_keys(['aim', 'speed', 'tipSide', 'tipHeight'], []);
        foreach ($racks as $number => $rack) {
            try {
                $search = new PlanSearch($rack->withPlayer($player));
                $candidate = null === PlanSearch::refusal($rack) ? $search->candidates()[0] ?? null : null;
            } catch (CoreError) {
                $candidate = null;
            }
            if (null === $candidate) {
                continue;
            }
            for ($block = 0; $block < $blocks; ++$block) {
                $now = $search->block($candidate, $block)->score();
                foreach (array_keys($differences) as $field) {
                    $differences[$field][] = $search->block($candidate, $block, null, self::better($player, $field))->score() - $now;
                    null === $progress ?: $progress(($number + $block / $blocks) / \count($racks));
                }
            }
        }
        $gains = array_map(self::gain(...), array_filter($differences, static fn (array $list): bool => [] !== $list));
        uasort($gains, static fn (array $a, array $b): int => $b['gain'] <=> $a['gain']);

        return $gains;
    }

    private static function better(ExecutionErrors $player, string $field): ExecutionErrors
    {
        $less = ['aim' => $player->aim, 'speed' => $player->speed, 'tipSide' => $player->tipSide, 'tipHeight' => $player->tipHeight];
        $less[$field] *= self::LESS;

        return new ExecutionErrors(...$less, growth: $player->growth, biases: $player->biases);
    }

    /**
     * @param non-empty-list<float> $differences of blocks
     *
     * @return array{gain: float, interval: array{float, float}}
     */
    private static function gain(array $differences): array
    {
        $count = \count($differences);
        $mean = array_sum($differences) / $count;
        $squares = array_sum(array_map(static fn (float $one): float => ($one - $mean) ** 2, $differences));
        $error = Trials::NINETY * \sqrt($squares / max(1, $count - 1) / $count);

        return ['gain' => $mean, 'interval' => [$mean - $error, $mean + $error]];
    }
}
