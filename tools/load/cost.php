<?php

/*
 * What each kind of page costs the processors: one user, one request after the other (bin/load cost). Seconds of PHP and of the database
 * are counted by the system, so they say less about how busy the machine is than latencies do.
 * Use: cost.php URL RUN [requests]
 */

declare(strict_types=1);

require __DIR__.'/client.php';

[, $url, $run] = $argv;
$requests = max(5, min(1000, (int) ($argv[3] ?? 60)));
mt_srand(7);
[[$email, $sheet, $ball, $pocket]] = players(lane(), 1);
$cookies = new Crowd($url);
$stroke = static fn (): string => http_build_query([
    'ball' => $ball, 'pocket' => $pocket, 'clock' => mt_rand(1, 12).':00', 'tips' => 0.1 * mt_rand(0, 8), 'lengths' => 1.5 + 0.1 * mt_rand(0, 20),
]);
$kinds = [
    'healthy' => static fn (): string => '/healthy',
    'list' => static fn (): string => '/sheets',
    'layout' => static fn (): string => "/sheets/$sheet/layout",
    'redraw*' => static fn (): string => "/sheets/$sheet/plan/draw?".$stroke(),
    'odds*' => static fn (): string => "/sheets/$sheet/plan/odds?".$stroke(),
    'shot desk' => static fn (): string => "/sheets/$sheet/plan?".$stroke(),
    'log' => static fn (): string => '/log',
];
foreach (['spread', 'zone', 'tips', 'speeds', 'read', 'land'] as $look) {
    $kinds["look $look*"] = static fn (): string => "/sheets/$sheet/plan/look?look=$look&".$stroke();
}
$user = (static function () use ($email, $kinds, $requests, $run): Generator {
    yield from signIn($email);
    echo "| page | PHP ms | database ms | p50 ms |\n| --- | ---: | ---: | ---: |\n";
    foreach ($kinds as $kind => $path) {
        // Each process meets each kind of page once before it counts.
        for ($i = 0; $i < 16; ++$i) {
            yield Asks::get($kind, $path());
        }
        $from = [used($run, 'php'), used($run, 'mariadb')];
        $times = [];
        for ($i = 0; $i < $requests; ++$i) {
            $start = microtime(true);
            yield Asks::get($kind, $path());
            $times[] = microtime(true) - $start;
        }
        sort($times);
        printf(
            "| %s | %.1f | %.1f | %.1f |\n",
            trim($kind, '*'),
            1000 * (used($run, 'php') - $from[0]) / $requests,
            1000 * (used($run, 'mariadb') - $from[1]) / $requests,
            1000 * Crowd::quantile($times, 0.5),
        );
    }
})();
stolen();
$cookies->run([$user], 600.0);
printf("Others took %.0f %% of the machine.\n%s", 100 * stolen(), [] === $cookies->errors ? '' : 'Errors: '.json_encode($cookies->errors)."\n");
