<?php

/*
 * What a plan under way does to the pages of somebody else (bin/load plan): one user looks at pages one after the other, first in quiet,
 * then while two accounts have plans worked on all the time. Use: plan.php URL RUN [seconds of each]
 */

declare(strict_types=1);

require __DIR__.'/client.php';

[, $url, $run] = $argv;
$seconds = max(5.0, min(300.0, (float) ($argv[3] ?? 20)));
[$reader, $first, $second] = players(lane(), 3);
$looks = static function (array $player, Crowd $crowd) use ($seconds): Generator {
    [$email, $sheet, $ball, $pocket] = $player;
    yield from signIn($email);
    $kinds = ['list' => '/sheets', 'layout' => "/sheets/$sheet/layout", 'redraw*' => "/sheets/$sheet/plan/draw?ball=$ball&pocket=$pocket&lengths=2.5"];
    foreach (['quiet', 'with plans'] as $state) {
        if ('with plans' === $state) {
            $crowd->isMeasured = false;
            yield Asks::pause(4.0);
        }
        $crowd->isMeasured = true;
        stolen();
        for ($until = microtime(true) + $seconds; microtime(true) < $until;) {
            foreach ($kinds as $kind => $path) {
                $htmx = str_ends_with($kind, '*') ? '*' : '';
                yield Asks::get(trim($kind, '*')." $state$htmx", $path);
                yield Asks::pause(0.03);
            }
        }
    }
};
$plans = static function (array $player, Crowd $crowd) use ($seconds): Generator {
    [$email, $sheet] = $player;
    yield from signIn($email);
    yield Asks::pause($seconds + 2.0);
    for ($until = microtime(true) + $seconds + 6.0; microtime(true) < $until;) {
        [, $page] = yield Asks::get('planner', "/sheets/$sheet/run-out");
        preg_match('#/run-out"[^>]*>\s*<input type="hidden" name="_token" value="([^"]+)"#', $page, $token);
        yield Asks::post('planner', "/sheets/$sheet/run-out", ['_token' => $token[1] ?? '']);
        do {
            yield Asks::pause(1.0);
            [, $page] = yield Asks::get('planner*', "/sheets/$sheet/run-out/progress");
        } while (str_contains($page, '<progress') && microtime(true) < $until);
    }
};
$crowd = new Crowd($url);
$crowd->run([$looks($reader, $crowd), $plans($first, $crowd), $plans($second, $crowd)], 2 * $seconds + 30.0);
unset($crowd->times['planner'], $crowd->times['sign in'], $crowd->times['sign-in page']);
echo $crowd->table();
$all = static function (string $state) use ($crowd): float {
    $times = array_merge(...array_values(array_filter(
        $crowd->times,
        static fn (string $kind): bool => str_ends_with($kind, $state),
        \ARRAY_FILTER_USE_KEY,
    )));
    sort($times);

    return 1000 * Crowd::quantile($times, 0.95);
};
printf(
    "95th percentile: %.0f ms in quiet, %.0f ms with plans under way: %.1f times. Others took %.0f %% of the machine.\n",
    $all('quiet'),
    $all('with plans'),
    $all('with plans') / $all('quiet'),
    100 * stolen(),
);
exit($all('with plans') <= 2 * $all('quiet') ? 0 : 1);
