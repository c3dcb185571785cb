<?php

/*
 * How well tables are found from their tests: simulated tables with known constants, tests with errors (2 cm, 0.1 s), their fit.
 * Prints how often the 90 percent intervals hold the truth, and how far predicted ends of fresh shots lie off with the fitted table and
 * with the usual one. --tables=60 --kind=usual|random --tests=20 --seed=1 --slope=0.0
 */

declare(strict_types=1);

use ZigLane\Tests\Chance;
use ZigLane\Tests\SimulatedTable;

require dirname(__DIR__).'/vendor/autoload.php';

$options = getopt('', ['tables::', 'kind::', 'tests::', 'seed::', 'slope::', 'verbose']);
$tables = (int) ($options['tables'] ?? 60);
$held = $known = $shares = $count = $unidentified = [];
$fitted = $usual = [];
$time = 0.0;
for ($i = 0; $i < $tables; ++$i) {
    $table = new SimulatedTable(new Chance(1000 * (int) ($options['seed'] ?? 1) + $i), (float) ($options['slope'] ?? 0.0));
    $tests = 'random' === ($options['kind'] ?? 'usual') ? $table->randomTests((int) ($options['tests'] ?? 20)) : $table->usualTests();
    $start = hrtime(true);
    $fit = $table->fit($tests);
    $time += (hrtime(true) - $start) / 1e9;
    foreach ($table->truth as $name => $true) {
        $number = $fit->numbers[$name] ?? null;
        if (null === $number) {
            $unidentified[$name] = ($unidentified[$name] ?? 0) + 1;
            continue;
        }
        $known[$name] = ($known[$name] ?? 0) + 1;
        $in = $true >= $number->interval[0] && $true <= $number->interval[1];
        $held[$name] = ($held[$name] ?? 0) + ($in ? 1 : 0);
        if (isset($options['verbose'])) {
            [$from, $to] = $number->interval;
            printf("%d %-18s true %.4f fit %.4f [%.4f %.4f] %s\n", $i, $name, $true, $number->value, $from, $to, $in ? '' : 'OUT');
        }
    }
    [$a, $b] = $table->freshShots($fit->equipment, 20);
    $fitted[] = $a;
    $usual[] = $b;
    if (isset($options['verbose'])) {
        $odd = json_encode($fit->contradicts);
        printf("%d off %.3f m fitted, %.3f m usual; %d shots; contradicts %s\n", $i, $a, $b, $fit->shots, $odd);
    }
}
foreach ($known as $name => $of) {
    $share = 100 * $held[$name] / $of;
    printf("%-18s held %3d of %3d (%.0f %%), not identified %d\n", $name, $held[$name], $of, $share, $unidentified[$name] ?? 0);
}
printf("together held %d of %d (%.1f %%)\n", array_sum($held), array_sum($known), 100 * array_sum($held) / max(1, array_sum($known)));
$nearer = count(array_filter(array_map(static fn (float $a, float $b): bool => $a <= 0.5 * $b, $fitted, $usual)));
$means = [array_sum($fitted) / $tables, array_sum($usual) / $tables];
printf('ends of fresh shots (median of each table): %.3f m fitted, %.3f m usual', ...$means);
printf("; nearer by half on %d of %d tables\n", $nearer, $tables);
printf("%.1f s a fit\n", $time / $tables);
