<?php

/*
 * Measures the simulation and prints the tables of docs/performance.md. bin/bench calls it with the compiler of PHP on and
 * tells it where the C twin and the other programs are; run by itself it leaves those out.
 *
 * Everything is warmed up first, then measured several times over; least and median are given, because other work on the
 * machine only ever adds time.
 */

declare(strict_types=1);

use ZigLane\Core\Motion\CushionLaw;
use ZigLane\Core\Motion\EventSimulator;
use ZigLane\Core\Motion\Internal\Approach;
use ZigLane\Core\Motion\Internal\Body;
use ZigLane\Core\Motion\Internal\Engine;
use ZigLane\Core\Motion\Internal\InitialState;
use ZigLane\Core\Motion\Internal\Surfaces;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Motion\Tolerances;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Position\Layout;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Racking;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\Spot;
use ZigLane\Core\Table\TableProfile;

require dirname(__DIR__).'/vendor/autoload.php';

/** @return array{float, float} least and median time of one run, microseconds */
function timed(callable $work, int $repeat, int $warm): array
{
    for ($i = 0; $i < $warm; ++$i) {
        $work();
    }
    $times = [];
    for ($i = 0; $i < $repeat; ++$i) {
        $start = hrtime(true);
        $work();
        $times[] = (hrtime(true) - $start) / 1000;
    }
    sort($times);

    return [$times[0], $times[intdiv($repeat, 2)]];
}

/** @param list<float> $values */
function median(array $values): float
{
    sort($values);

    return $values[intdiv(count($values), 2)];
}

function row(string $what, string ...$cells): void
{
    echo '| ', implode(' | ', [$what, ...$cells]), " |\n";
}

/** @param array{balls: list<array{float, float}>, strike: array{float, float, float, float, float}} $shot */
function lie(Engine $engine, array $shot): InitialState
{
    $lie = $engine->layOut($shot['balls'], false);
    strike($lie->bodies[0], $shot['strike']);

    return $lie;
}

/** @param array{float, float, float, float, float} $strike */
function strike(Body $ball, array $strike): void
{
    [$ball->vx, $ball->vy, $ball->wx, $ball->wy, $ball->wz] = $strike;
}

$table = new TableProfile();
$set = new BallSet();
$tolerances = new Tolerances();
$engine = new Engine($table, $set, $tolerances);
$simulator = new EventSimulator(new Equipment($table, $set));
$law = new CushionLaw($table, $set);
/** @var list<array{balls: list<array{float, float}>, strike: array{float, float, float, float, float}, cushions: int}> $shots */
$shots = json_decode((string) file_get_contents(__DIR__.'/position-shots.json'), true);
$options = getopt('', ['twin:', 'rigid:']);

// ---- the position shots, all of them in turn, so that the compiler has seen every branch; the C twin's rounds alternate with ours

$pipes = [];
$process = null;
if (isset($options['twin'])) {
    $surfaces = new Surfaces($table, $set);
    $numbers = [
        $set->radius,
        $table->length,
        $table->width(),
        $table->slide * $table->gravity,
        $table->roll * $table->gravity,
        $table->spinDecay,
        $set->restitution,
        $set->frictionFloor,
        $set->frictionFall,
        $set->frictionRate,
        $table->noseHeight - 1,
        sqrt(1 - ($table->noseHeight - 1) ** 2),
        $table->cushionFriction,
        $table->slide,
        $table->cushionRestitution ** 2,
        $surfaces->cornerCut,
        $surfaces->sideHalf,
        ...array_merge(...$surfaces->pockets),
        count($shots),
    ];
    foreach ($shots as $shot) {
        array_push($numbers, count($shot['balls']), ...array_merge(...$shot['balls']), ...$shot['strike']);
    }
    $process = proc_open([$options['twin']], [['pipe', 'r'], ['pipe', 'w']], $pipes);
    fwrite($pipes[0], implode("\n", array_map(static fn (float|int $v): string => sprintf('%.17g', $v), $numbers))."\n");
}
$times = $twin = array_fill(0, count($shots), []);
$ratios = [];
$lying = array_map(static fn (array $shot): InitialState => lie($engine, $shot), $shots);
for ($round = 0; $round < 1520; ++$round) {
    $ours = [];
    // Twice: the first time the processor comes back from waiting for C.
    for ($pass = 0; $pass < 2; ++$pass) {
        foreach ($shots as $i => $shot) {
            $start = hrtime(true);
            // As Rollouts does: the balls that a shot moved are put back for the next.
            $lie = $lying[$i];
            $engine->run($lie, [$lie->bodies[0]]);
            $lie->putBack($engine->touched());
            strike($lie->bodies[0], $shot['strike']);
            $ours[$i] = (hrtime(true) - $start) / 1000;
        }
    }
    $theirs = [];
    if (null !== $process) {
        fwrite($pipes[0], "1\n");
        $theirs = array_map(floatval(...), explode(' ', trim((string) fgets($pipes[1]))));
    }
    if ($round >= 20) {
        foreach ($ours as $i => $time) {
            $times[$i][] = $time;
        }
        foreach ($theirs as $i => $time) {
            $twin[$i][] = $time;
        }
        if ([] !== $theirs) {
            $ratios[] = array_sum($ours) / array_sum($theirs);
        }
    }
}
$medians = array_map(median(...), $times);
$least = array_map(min(...), $times);
if (null !== $process) {
    $twin = array_map(min(...), $twin);
    fwrite($pipes[0], "0\n");
    fclose($pipes[0]);
    $lines = explode("\n", trim((string) stream_get_contents($pipes[1])));
    if (0 !== proc_close($process)) {
        fwrite(\STDERR, "The C twin failed.\n");
        exit(1);
    }
    $cushionC = (float) explode(' ', (string) array_pop($lines))[1];
    foreach ($lines as $i => $line) {
        $cells = array_map(floatval(...), explode(' ', $line));
        // The twin computes the same, or its time says nothing.
        $lie = lie($engine, $shots[$i]);
        $engine->run($lie, [$lie->bodies[0]]);
        foreach ($lie->bodies as $k => $body) {
            $off = hypot($body->x - $cells[1 + 3 * $k], $body->y - $cells[2 + 3 * $k]);
            if ($off > 1e-6) {
                fwrite(\STDERR, sprintf("Shot %d: ball %d ends %.3g m elsewhere in C.\n", $i, $k, $off));
                exit(1);
            }
        }
    }
}

echo "### The simulation beside the same loop in C\n\n";
row('what', 'PHP, least', 'PHP, median', 'C, least', 'ratio');
row('---', '---:', '---:', '---:', '---:');
$ratio = static fn (float $php, ?float $c): array => null === $c ? ['', ''] : [sprintf('%.2f µs', $c), sprintf('%.2f', $php / $c)];
foreach ([1, 2, 3] as $cushions) {
    $which = array_keys(array_filter($shots, static fn (array $shot): bool => $shot['cushions'] === $cushions));
    $php = median(array_values(array_intersect_key($least, array_flip($which))));
    row(
        sprintf('position shot, ten balls, %d cushion%s (median of %d)', $cushions, 1 === $cushions ? '' : 's', count($which)),
        sprintf('%.0f µs', $php),
        sprintf('%.0f µs', median(array_values(array_intersect_key($medians, array_flip($which))))),
        ...$ratio($php, isset($cushionC) ? median(array_values(array_intersect_key($twin, array_flip($which)))) : null),
    );
}
row(
    'all twenty position shots (median)',
    sprintf('%.1f µs', median($least)),
    sprintf('%.1f µs', median($medians)),
    ...$ratio(median($least), isset($cushionC) ? median($twin) : null),
);
if ([] !== $ratios) {
    row('the same, a round of ours beside the next of C (median of '.count($ratios).')', '', '', '', sprintf('%.2f', median($ratios)));
}
[$a, $b] = timed(static function () use ($law): void {
    // The range that the C twin goes through, in every run alike: some contacts take twice as many steps as others.
    for ($k = 0; $k < 100; ++$k) {
        $law->rebound(0.5 + 0.01 * $k, 1.0, -30.0, 10.0, 5.0);
    }
}, 200, 50);
row('cushion law, one contact', sprintf('%.1f µs', $a / 100), sprintf('%.1f µs', $b / 100), ...$ratio($a / 100, $cushionC ?? null));
[$a, $b] = timed(static function () use ($set): void {
    for ($k = 0; $k < 100; ++$k) {
        Approach::within(0.4, 0.05 + 0.00001 * $k, -1.5, 0.02, 0.6, 0.3, $set->diameter(), 1e-11, 2.0);
    }
}, 200, 50);
row('time of a contact (quartic)', sprintf('%.2f µs', $a / 100), sprintf('%.2f µs', $b / 100), '', '');

// ---- what the rest of the product calls

echo "\n### What the product calls\n\n";
row('what', 'least', 'median');
row('---', '---:', '---:');
$layouts = [];
foreach ($shots as $shot) {
    $layout = Layout::empty();
    foreach ($shot['balls'] as $k => [$x, $y]) {
        $layout = $layout->with(Ball::from($k), Spot::metres($x, $y));
    }
    [$vx, $vy] = $shot['strike'];
    $layouts[] = [$layout, Strike::degrees(rad2deg(atan2($vy, $vx)), hypot($vx, $vy), 0.1, 0.1, 2.0)];
}
[$a, $b] = timed(static function () use ($simulator, $layouts): void {
    foreach ($layouts as [$layout, $strike]) {
        $simulator->play($layout, $strike);
    }
}, 40, 10);
row('a position shot with events, paths and checks', sprintf('%.0f µs', $a / count($layouts)), sprintf('%.0f µs', $b / count($layouts)));
$errors = new ExecutionErrors();
[$a, $b] = timed(static function () use ($simulator, $layouts, $errors): void {
    [$layout, $strike] = $layouts[1];
    $random = new Randomness(1);
    $rollouts = $simulator->rollouts($layout);
    for ($k = 0; $k < 1000; ++$k) {
        $rollouts->play($errors->ordinary()->disturb($strike, $random, 0.028575));
    }
}, 15, 3);
row('1,000 perturbed copies of one shot', sprintf('%.0f ms', $a / 1000), sprintf('%.0f ms', $b / 1000));
$break = static function (EventSimulator $simulator, int $seed) use ($table, $set): void {
    $rack = Racking::of(Game::EightBall, new Equipment($table, $set), new Randomness($seed));
    $simulator->play($rack->with(Ball::Cue, Spot::diamonds(2.0, 2.0, $table)), Strike::degrees(0.3, 9.0));
};
foreach ([
    'contacts pair by pair' => new EventSimulator(new Equipment($table, $set), new Tolerances(clusterApproach: 1e9)),
    'with the compliant stage' => $simulator,
] as $name => $with) {
    $times = [];
    for ($round = 0; $round < 4; ++$round) {
        for ($seed = 1; $seed <= 20; ++$seed) {
            $start = hrtime(true);
            $break($with, $seed);
            $times[$seed] = min($times[$seed] ?? \INF, (hrtime(true) - $start) / 1000);
        }
    }
    row("a break of fifteen, $name", sprintf('%.1f ms', min($times) / 1000), sprintf('%.1f ms', median(array_values($times)) / 1000));
}

// ---- cold: a process that plays one shot

$cold = [];
for ($k = 0; $k < 7; ++$k) {
    $start = hrtime(true);
    exec(
        sprintf(
            '%s -d pcov.enabled=0 -d opcache.enable_cli=1 -d opcache.jit=%s -d opcache.jit_buffer_size=64M %s',
            escapeshellarg(\PHP_BINARY),
            escapeshellarg((string) ini_get('opcache.jit')),
            escapeshellarg(__DIR__.'/first-shot.php'),
        ),
        $lines,
    );
    $cold[] = [(hrtime(true) - $start) / 1e6, ...array_map(floatval(...), explode(' ', (string) end($lines)))];
}
row(
    'cold: a process of its own for one shot, from start to end',
    sprintf('%.0f ms', min(array_column($cold, 0))),
    sprintf('%.0f ms', median(array_column($cold, 0))),
);
row(
    'cold: the first shot in it, classes loaded on the way',
    sprintf('%.1f ms', min(array_column($cold, 1))),
    sprintf('%.1f ms', median(array_column($cold, 1))),
);
row(
    'cold: the slowest of its shots 2 to 200, while the compiler works',
    sprintf('%.1f ms', min(array_column($cold, 2))),
    sprintf('%.1f ms', median(array_column($cold, 2))),
);

if (isset($options['rigid'])) {
    echo "\n### A general rigid-body library on the same straight shot\n\n";
    // The library knows no friction that acts upwards between two balls: without it here too.
    $smooth = new BallSet(frictionFloor: 0.0, frictionFall: 0.0);
    $engine = new Engine($table, $smooth, $tolerances);
    $straight = (new EventSimulator(new Equipment($table, $smooth)))->release(
        Layout::empty()->with(Ball::Cue, Spot::metres(0.6, 0.6))->with(Ball::One, Spot::metres(1.2, 0.6)),
        [0 => [0.6, 0.0, 0.0, 0.6 / $set->radius, 0.0]],
    );
    $cue = $straight->final->spot(Ball::Cue);
    $one = $straight->final->spot(Ball::One);
    [$a] = timed(static function () use ($engine): void {
        $lie = lie($engine, ['balls' => [[0.6, 0.6], [1.2, 0.6]], 'strike' => [0.6, 0.0, 0.0, 0.6 / 0.028575, 0.0]]);
        $engine->run($lie, [$lie->bodies[0]]);
    }, 200, 100);
    $pipes = [];
    $process = proc_open(['node', $options['rigid'], (string) $cue->x, (string) $one->x], [['pipe', 'r'], ['pipe', 'w']], $pipes);
    echo stream_get_contents($pipes[1]);
    printf("\nOurs, the same shot: %.0f µs (cue ball %.3f m, object ball %.3f m).\n", $a, $cue->x, $one->x);
    if (0 !== proc_close($process)) {
        exit(1);
    }
}
