<?php

/*
 * Signed-in users with two seconds of thought (bin/load): lists, layouts, saves, redraws, odds and looks, with five plans under way.
 * Use: mix.php URL RUN [users] [seconds]
 */

declare(strict_types=1);

require __DIR__.'/client.php';

const PLANNING = 5;

[, $url, $run] = $argv;
$count = max(PLANNING + 1, min(1000, (int) ($argv[3] ?? 200)));
$seconds = max(5, min(600, (int) ($argv[4] ?? 60)));
mt_srand(7);
$players = players(lane(), $count);

/** @return Generator<int, Asks, array{int, string}, void> */
$thinks = static function (array $player): Generator {
    [, $sheet, $ball, $pocket] = $player;
    $version = null;
    $token = '';
    while (true) {
        yield Asks::pause(1.0 + 2.0 * mt_rand() / mt_getrandmax());
        $stroke = http_build_query([
            'ball' => $ball, 'pocket' => $pocket, 'clock' => mt_rand(1, 12).':00', 'tips' => 0.1 * mt_rand(0, 8), 'lengths' => 1.5 + 0.1 * mt_rand(0, 20),
        ]);
        $part = mt_rand(1, 100);
        if ($part <= 15) {
            yield Asks::get('list', '/sheets');
        } elseif ($part <= 25 || null === $version) {
            [, $page] = yield Asks::get('layout', "/sheets/$sheet/layout");
        } elseif ($part <= 40) {
            [, $page] = yield Asks::post('save*', "/sheets/$sheet/layout", [
                '_token' => $token, 'version' => $version, 'change' => 'place', 'ball' => 'cue',
                'at' => sprintf('%.3f,%.3f', 0.3 + 0.01 * mt_rand(0, 40), 0.3 + 0.01 * mt_rand(0, 20)),
            ]);
        } elseif ($part <= 70) {
            yield Asks::get('redraw*', "/sheets/$sheet/plan/draw?$stroke");
        } elseif ($part <= 80) {
            yield Asks::get('odds*', "/sheets/$sheet/plan/odds?$stroke");
        } elseif ($part <= 90) {
            $look = ['spread', 'zone', 'tips', 'speeds', 'read', 'land'][mt_rand(0, 5)];
            yield Asks::get('look '.$look.'*', "/sheets/$sheet/plan/look?$stroke&look=$look");
        } elseif ($part <= 95) {
            yield Asks::get('shot desk', "/sheets/$sheet/plan?$stroke");
        } else {
            yield Asks::get('log', '/log');
        }
        if (isset($page)) {
            preg_match('/data-version="(\d+)"/', $page, $found) && $version = $found[1];
            preg_match('/data-token="([^"]+)"/', $page, $found) && $token = $found[1];
            unset($page);
        }
    }
};
/** @return Generator<int, Asks, array{int, string}, void> */
$plans = static function (array $player): Generator {
    [, $sheet] = $player;
    while (true) {
        [, $page] = yield Asks::get('run-out', "/sheets/$sheet/run-out");
        preg_match('#/run-out"[^>]*>\s*<input type="hidden" name="_token" value="([^"]+)"#', $page, $token);
        yield Asks::post('ask for a plan', "/sheets/$sheet/run-out", ['_token' => $token[1] ?? '']);
        for ($i = 0; $i < 100; ++$i) {
            yield Asks::pause(0.6);
            [, $page] = yield Asks::get('progress*', "/sheets/$sheet/run-out/progress");
            if (!str_contains($page, '<progress')) {
                break;
            }
        }
    }
};
$crowd = new Crowd($url);
// First everybody signs in, four at a time: passwords take time on purpose, and that is not what is measured.
$crowd->isMeasured = false;
$users = [];
$gate = $done = 0;
$before = [0.0, 0.0, 0.0];
foreach ($players as $i => $player) {
    $users[] = (static function () use (&$gate, &$done, $player, $i, $thinks, $plans, $crowd): Generator {
        while ($gate >= 4) {
            yield Asks::pause(0.05);
        }
        ++$gate;
        yield from signIn($player[0]);
        --$gate;
        ++$done;
        while (!$crowd->isMeasured) {
            yield Asks::pause(0.1);
        }
        yield from $i < PLANNING ? $plans($player) : $thinks($player);
    })();
}
$started = microtime(true);
$users[] = (static function () use (&$done, &$before, $players, $crowd, $run, $started): Generator {
    do {
        yield Asks::pause(0.5);
    } while ($done < count($players) && microtime(true) - $started < 300);
    printf("%d players signed in after %.0f s.\n", $done, microtime(true) - $started);
    stolen();
    $before = [used($run, 'php'), used($run, 'mariadb'), used($run, 'worker')];
    $crowd->isMeasured = true;
})();
$crowd->run($users, $seconds);
echo "\n", $crowd->table(), "\n", 'Memory: ', told($run), "\n";
$all = array_merge(...array_values($crowd->times));
sort($all);
printf(
    "Processors: PHP %.0f ms a request, database %.0f, workers %.0f %% of one; others took %.0f %% of the machine.\n",
    1000 * (used($run, 'php') - $before[0]) / count($all),
    1000 * (used($run, 'mariadb') - $before[1]) / count($all),
    100 * (used($run, 'worker') - $before[2]) / $seconds,
    100 * stolen(),
);
echo [] === $crowd->errors ? "No error.\n" : 'Errors: '.json_encode($crowd->errors)."\n";
exit([] === $crowd->errors && Crowd::quantile($all, 0.95) < 0.3 ? 0 : 1);
