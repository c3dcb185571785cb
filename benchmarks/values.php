<?php

/*
 * Racks played out between two players who both play safe, and what they say of the values of positions: --rows FILE adds a line of JSON
 * for every shot (how the shooter came to it, whether he went on, whether he won), --fit FILE... fits the coefficients of Pace::FITTED to
 * such lines by logistic regression and prints them, --reliability FILE... holds stated values against what came of them.
 * --game, --level, --layouts, --from (first seed).
 */

declare(strict_types=1);

use ZigLane\Core\Decide\Duel;
use ZigLane\Core\Decide\Duellist;
use ZigLane\Core\Decide\Look;
use ZigLane\Core\Decide\Pace;
use ZigLane\Core\Decide\PositionValue;
use ZigLane\Core\Decide\Situation;
use ZigLane\Core\Decide\WayKind;
use ZigLane\Core\Math\Matrix;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Group;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Shot\ShotSolver;

require dirname(__DIR__).'/vendor/autoload.php';
require __DIR__.'/layouts.php';

$options = getopt('', ['rows:', 'fit:', 'reliability:', 'game:', 'level:', 'layouts:', 'from:']);

/** How the shooter came to a position. */
function context(?Situation $last, ?string $lastKind, Situation $now): string
{
    return match (true) {
        null === $last => 'first',
        $now->isInHand() => 'hand',
        $last->shooter === $now->shooter => 'later',
        WayKind::Safety->value === $lastKind => 'safe',
        default => 'fresh',
    };
}

if (isset($options['rows'])) {
    $game = Game::from((string) ($options['game'] ?? 'nine-ball'));
    $player = new ExecutionErrors(...ExecutionErrors::PRESETS[(string) ($options['level'] ?? 'club player')]);
    $solver = new ShotSolver();
    $value = null;
    $from = (int) ($options['from'] ?? 1000);
    for ($seed = $from; $seed < $from + (int) ($options['layouts'] ?? 20); ++$seed) {
        $group = Game::EightBall === $game ? (0 === $seed % 2 ? Group::Solids : Group::Open) : null;
        $rack = new Rack($game, randomLayout($game, $seed), player: $player, group: $group);
        $value ??= new PositionValue($rack, [$player, $player], $solver);
        $duel = new Duel($rack, $value, $solver, [
            new Duellist($rack, $value, $solver, 0),
            new Duellist($rack, $value, $solver, 1),
        ]);
        $rows = [];
        $last = $kind = null;
        $won = $duel->play(0, $seed, static function (Situation $now, array $chosen) use (&$rows, &$last, &$kind, $value): void {
            $look = $value->look($now);
            [$own, $other] = $now->left();
            if ([] !== $rows) {
                $rows[count($rows) - 1]['on'] = $last?->shooter === $now->shooter && WayKind::Pass->value !== $kind;
                $rows[count($rows) - 1]['foul'] = $now->isInHand();
            }
            $rows[] = [
                'game' => $now->game->value, 'shooter' => $now->shooter, 'own' => $own, 'other' => $other,
                'skill' => $value->race->skill(0),
                'open' => $value->open->shares($now), 'raced' => $value->raced($now)->win,
                'pot' => round($look->pot, 4), 'sees' => $look->sees, 'hand' => $look->isInHand, 'stated' => round($look->win, 4),
                'tried' => round($chosen[1]->mean(), 4), 'kind' => $chosen[0]->kind->value, 'context' => context($last, $kind, $now),
            ];
            [$last, $kind] = [$now, $chosen[0]->kind->value];
        });
        foreach ($rows as $i => $row) {
            $row += ['on' => $i === count($rows) - 1 && (1.0 === $won) === (0 === $row['shooter']), 'foul' => false];
            $row['won'] = 0 === $row['shooter'] ? $won : (Game::StraightPool === $game ? -$won : 1 - $won);
            file_put_contents((string) $options['rows'], json_encode($row)."\n", \FILE_APPEND);
        }
    }
}

/** @return list<array<string, mixed>> */
function rows(string|array|bool $files): array
{
    $rows = [];
    foreach ((array) $files as $pattern) {
        foreach (glob((string) $pattern) ?: [] as $file) {
            foreach (file($file, \FILE_IGNORE_NEW_LINES | \FILE_SKIP_EMPTY_LINES) ?: [] as $line) {
                $rows[] = json_decode($line, true, 8, \JSON_THROW_ON_ERROR);
            }
        }
    }

    return $rows;
}

/**
 * Logistic regression by Newton's method, with a slight pull towards nought (a prior of two deviations of 3) that keeps few rows from
 * running away.
 *
 * @param list<array{list<float>, float}> $data what is known, and 0 or 1
 *
 * @return list<float> coefficients
 */
function logistic(array $data, int $count): array
{
    $c = array_fill(0, $count, 0.0);
    for ($round = 0; $round < 30; ++$round) {
        $gradient = array_map(static fn (float $at): float => -$at / 9, $c);
        $hessian = array_map(
            static fn (int $i): array => array_map(static fn (int $j): float => $i === $j ? 1 / 9 : 0.0, range(0, $count - 1)),
            range(0, $count - 1),
        );
        foreach ($data as [$x, $y]) {
            $p = 1 / (1 + exp(-array_sum(array_map(static fn (float $a, float $b): float => $a * $b, $c, $x))));
            foreach ($x as $i => $xi) {
                $gradient[$i] += ($y - $p) * $xi;
                foreach ($x as $j => $xj) {
                    $hessian[$i][$j] += $p * (1 - $p) * $xi * $xj;
                }
            }
        }
        $step = Matrix::solved($hessian, $gradient);
        $c = array_map(static fn (float $a, float $b): float => $a + $b, $c, $step);
    }

    return $c;
}

if (isset($options['fit'])) {
    $rows = rows($options['fit']);
    foreach (Game::cases() as $game) {
        $data = [];
        foreach ($rows as $row) {
            if ($row['game'] !== $game->value) {
                continue;
            }
            $skill = (float) $row['skill'];
            $x = [1.0, Pace::logit($skill), $row['own'] / 15];
            $at = Pace::features($skill, $row['own'], (float) $row['pot'], $row['sees']);
            $on = $row['on'] ? 1.0 : 0.0;
            $data['first' === $row['context'] ? 'fresh' : $row['context']][] = [$x, $on];
            if (!$row['hand']) {
                $data['on'][] = [$at, $on];
            }
            if ($row['on']) {
                continue;
            }
            $data['foul'][] = [$x, $row['foul'] ? 1.0 : 0.0];
            if (!$row['hand']) {
                $data['foulFrom'][] = [$at, $row['foul'] ? 1.0 : 0.0];
            }
            if (!$row['foul']) {
                $isTight = WayKind::Safety->value === $row['kind'] ? 1.0 : 0.0;
                $data['tight'][] = [$x, $isTight];
                if (!$row['hand']) {
                    $data['tightFrom'][] = [$at, $isTight];
                }
            }
        }
        echo "        '", $game->value, "' => [\n";
        foreach (['fresh', 'safe', 'hand', 'later', 'foul', 'tight', 'on', 'foulFrom', 'tightFrom'] as $what) {
            $count = str_ends_with($what, 'From') || 'on' === $what ? 6 : 3;
            $c = isset($data[$what]) ? logistic($data[$what], $count) : array_fill(0, $count, 0.0);
            echo "            '$what' => [", implode(', ', array_map(static fn (float $at): string => sprintf('%.3f', $at), $c)), '],';
            echo ' // ', count($data[$what] ?? []), " shots\n";
        }
        echo "        ],\n";
    }
    echo "CORRECTED\n";
    foreach (Game::cases() as $game) {
        $data = [];
        foreach ($rows as $row) {
            // Nine- and ten-ball, which are alike, together.
            $isLike = (Game::EightBall->value === $row['game']) === (Game::EightBall === $game);
            if ($isLike && 'straight-pool' !== $row['game'] && Game::StraightPool !== $game && isset($row['open'])) {
                $look = new Look((float) $row['raced'], (float) $row['pot'], $row['sees'], $row['hand']);
                $data[] = [Pace::corrections($look, $row['own'], ...$row['open']), (float) $row['won']];
            }
        }
        if ([] !== $data) {
            $c = logistic($data, 11);
            echo "        '", $game->value, "' => [", implode(', ', array_map(static fn (float $at): string => sprintf('%.3f', $at), $c)), "],\n";
        }
    }
}

if (isset($options['reliability'])) {
    $rows = rows($options['reliability']);
    foreach (['stated', 'tried'] as $which) {
        $cells = [];
        $squares = 0.0;
        foreach ($rows as $row) {
            if ('straight-pool' === $row['game']) {
                continue;
            }
            $bin = (int) min(9, floor(10 * $row[$which]));
            foreach ([$row['game'], 'all'] as $game) {
                $cells[$game][$bin][] = [$row[$which], $row['won']];
            }
            $squares += ($row[$which] - $row['won']) ** 2;
        }
        printf("%s: Brier %.4f of %d shots\n", $which, $squares / max(1, count($rows)), count($rows));
        foreach ($cells as $game => $bins) {
            ksort($bins);
            $apart = 0.0;
            $count = 0;
            foreach ($bins as $bin => $list) {
                $stated = array_sum(array_column($list, 0)) / count($list);
                $won = array_sum(array_column($list, 1)) / count($list);
                $apart += count($list) * abs($stated - $won);
                $count += count($list);
                $cells = [$game, 10 * $bin, 10 * $bin + 10, count($list), 100 * $stated, 100 * $won];
                printf("| %s | %d to %d %% | %d | %.1f %% | %.1f %% |\n", ...$cells);
            }
            printf("%s: %.1f points apart on average\n", $game, 100 * $apart / $count);
        }
    }
}
