<?php

/*
 * Whether the fit of a log finds what is true: simulated players with known errors and biases log shots, and the fit is held against the
 * truth. For each number: how many of the 90 percent intervals hold it, the mean error beside the mean width. Prints the tables of
 * docs/log.md. --players, --shots (a list), --seed.
 */

declare(strict_types=1);

use ZigLane\Core\Fit\LogFit;
use ZigLane\Core\Fit\LogFitter;
use ZigLane\Core\Player\Randomness;
use ZigLane\Tests\SimulatedPlayer;

require dirname(__DIR__).'/vendor/autoload.php';

$options = getopt('', ['players:', 'shots:', 'seed:']);
$players = (int) ($options['players'] ?? 60);
$counts = array_map(intval(...), explode(',', $options['shots'] ?? '60,200,600'));
$from = (int) ($options['seed'] ?? 1);

foreach ($counts as $count) {
    $held = $off = $wide = [];
    $start = hrtime(true);
    for ($seed = $from; $seed < $from + $players; ++$seed) {
        $true = SimulatedPlayer::errors(new Randomness($seed));
        $fit = LogFitter::of(SimulatedPlayer::log($true, $count, new Randomness(100_000 + $seed)), $seed);
        $biases = $true->biases->toArray();
        foreach (LogFit::FIELDS as $field) {
            foreach ([
                'deviation' => [$fit->deviations[$field], $true->{$field}],
                'bias' => [$fit->biases[$field], $biases[$field]],
            ] as $kind => [$number, $is]) {
                [$low, $high] = $number->interval;
                $held["$kind $field"][] = $low <= $is && $is <= $high ? 1 : 0;
                $off["$kind $field"][] = 'bias' === $kind ? $number->value - $is : log($number->value / $is);
                $wide["$kind $field"][] = 'bias' === $kind ? ($high - $low) / 3.29 : log($high / $low) / 3.29;
            }
        }
    }
    printf(
        "\n%d shots, %d players, %.1f s a fit\n\n| number | intervals that hold the truth | mean error | root mean square | stated |\n| --- | ---: | ---: | ---: | ---: |\n",
        $count,
        $players,
        (hrtime(true) - $start) / 1e9 / $players,
    );
    $mean = static fn (array $list): float => array_sum($list) / count($list);
    foreach ($held as $name => $list) {
        printf(
            "| %s | %.0f %% | %+.3f | %.3f | %.3f |\n",
            $name,
            100 * $mean($list),
            $mean($off[$name]),
            sqrt($mean(array_map(static fn (float $x): float => $x * $x, $off[$name]))),
            $mean($wide[$name]),
        );
    }
}
