<?php

/*
 * Two hundred shots from fixed seeds (188 strokes among 2 to 12 balls, twelve breaks), each with a hash of every bit of its events, by the
 * kind of processor: the C library computes sines and roots a bit differently with and without some of its instructions.
 * Prints them as JSON; `write` puts them into tests/Reference/golden/shots.json, beside those of other kinds.
 */

declare(strict_types=1);

use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Outcome;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\BreakShot;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Table\Equipment;
use ZigLane\Tests\Chance;
use ZigLane\Tests\Table;

require dirname(__DIR__).'/vendor/autoload.php';

/** What the C library makes of some numbers: the same where shots come out the same. */
$bits = '';
for ($i = 1; $i <= 2000; ++$i) {
    $x = 0.0137 * $i;
    $bits .= pack('E*', sin($x), cos($x), exp(-$x), log($x), atan2($x, 1.3), hypot($x, 0.7), tan($x), $x ** 0.37);
}
$kind = substr(hash('sha256', $bits), 0, 12);

$shots = [];
$shot = static function (Outcome $outcome) use (&$shots): void {
    $bits = '';
    foreach ($outcome->events as $event) {
        $bits .= pack('EEE', $event->time, $event->at->x, $event->at->y);
    }
    $ends = [];
    foreach ($outcome->final->balls() as $ball) {
        $spot = $outcome->final->spot($ball);
        $ends[$ball->value] = [round($spot->x, 7), round($spot->y, 7)];
    }
    $shots[] = ['hash' => substr(hash('sha256', $bits), 0, 12), 'events' => count($outcome->events), 'ends' => $ends];
};
$simulator = new EventSimulator();
$table = new Table();
$chance = new Chance(200);
for ($i = 0; $i < 188; ++$i) {
    $layout = $table->randomLayout($chance, $chance->int(2, 12), 0.2);
    $shot($simulator->play(
        $layout,
        Strike::degrees(
            $chance->float(0, 360),
            $chance->float(0.5, 6.0),
            $chance->float(-0.3, 0.3),
            $chance->float(-0.3, 0.3),
            $chance->float(0, 12),
        ),
    ));
}
foreach (Game::cases() as $game) {
    for ($seed = 1; $seed <= 3; ++$seed) {
        $shot(BreakShot::play($game, new Equipment(), new ExecutionErrors(), new Randomness($seed))->outcome);
    }
}
if ('write' !== ($argv[1] ?? '')) {
    echo json_encode(['kind' => $kind, 'shots' => $shots], \JSON_PRESERVE_ZERO_FRACTION), "\n";
    exit;
}
$file = dirname(__DIR__).'/tests/Reference/golden/shots.json';
$golden = is_file($file) ? json_decode((string) file_get_contents($file), true) : [];
$golden['kinds'][$kind] = implode(' ', array_column($shots, 'hash'));
$golden['shots'] = array_map(static fn (array $one): array => ['events' => $one['events'], 'ends' => (object) $one['ends']], $shots);
$lines = array_map(static fn (array $one): string => '  '.json_encode($one, \JSON_PRESERVE_ZERO_FRACTION), $golden['shots']);
file_put_contents($file, '{"kinds": '.json_encode($golden['kinds'], \JSON_PRETTY_PRINT).",\n\"shots\": [\n".implode(",\n", $lines)."\n]}\n");
echo "wrote $kind\n";
