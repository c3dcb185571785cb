<?php

/*
 * How well balls are found in pictures: rendered scenes kept random by seed (heights, tilt, light, cloth colours, frozen balls), the
 * finder's spots and names against the truth. --scenes=200 --seed=1 --tap=3 (pixels by which corners are missed) --verbose
 */

declare(strict_types=1);

use ZigLane\Tests\SimulatedPictures;

require dirname(__DIR__).'/vendor/autoload.php';

$options = getopt('', ['scenes::', 'seed::', 'tap::', 'verbose']);
$scenes = (int) ($options['scenes'] ?? 200);
$pictures = new SimulatedPictures((int) ($options['seed'] ?? 1), (float) ($options['tap'] ?? 3.0));
$off = [];
$balls = $named = $missed = $made = 0;
$time = 0.0;
$confused = [];
for ($i = 0; $i < $scenes; ++$i) {
    $result = $pictures->scene($i);
    $time += $result['seconds'];
    $balls += $result['balls'];
    $named += $result['named'];
    $missed += $result['missed'];
    $made += $result['made'];
    array_push($off, ...$result['off']);
    foreach ($result['confused'] as $what) {
        $confused[$what] = ($confused[$what] ?? 0) + 1;
    }
    if (isset($options['verbose'])) {
        $row = $result;
        $row['off'] = round(1000 * max([0.0, ...$result['off']]), 1);
        echo $i, ' ', json_encode($row), "\n";
    }
}
sort($off);
$at = static fn (float $share): float => 1000 * ($off[(int) ($share * (count($off) - 1))] ?? 0.0);
$shares = array_map(static fn (int $count): float => 100 * $count / $balls, [$named, $missed, $made]);
printf("%d scenes, %d balls: named right %.1f %%, missed %.2f %%, made up %.2f %%\n", $scenes, $balls, ...$shares);
printf("spots off: median %.1f mm, 95 %% %.1f mm; %.2f s a frame\n", $at(0.5), $at(0.95), $time / $scenes);
arsort($confused);
echo json_encode(array_slice($confused, 0, 14)), "\n";
