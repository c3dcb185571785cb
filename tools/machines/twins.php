<?php

/*
 * Holds two instances on one database to what several machines have to keep (bin/twins): who signs in at one is signed in at the other,
 * limits are counted over both, both work on a plan, and when one of them (or the database's node that is written to) is killed, nobody
 * is signed out and nothing is lost. Use: twins.php URL_A URL_B FOLDER_B DSN [cluster] STATE
 */

declare(strict_types=1);

use Doctrine\DBAL\DriverManager;
use Doctrine\DBAL\Tools\DsnParser;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Uid\Uuid;

require dirname(__DIR__, 2).'/vendor/autoload.php';

[, $a, $b, $folder, $dsn, $what, $state] = $argv;
$cookies = tempnam(sys_get_temp_dir(), 'twins');
/** @return array{int, string, string} status, body, the path that it ended at */
$http = static function (string $url, array $fields = [], ?string $jar = null) use ($cookies): array {
    $curl = curl_init($url);
    curl_setopt_array($curl, [
        \CURLOPT_RETURNTRANSFER => true, \CURLOPT_FOLLOWLOCATION => true, \CURLOPT_TIMEOUT => 20, \CURLOPT_HTTPHEADER => ['Expect:'],
        \CURLOPT_COOKIEFILE => $jar ?? $cookies, \CURLOPT_COOKIEJAR => $jar ?? $cookies,
    ] + ([] === $fields ? [] : [\CURLOPT_POST => true, \CURLOPT_POSTFIELDS => $fields]));
    $body = (string) curl_exec($curl);
    $path = (string) parse_url((string) curl_getinfo($curl, \CURLINFO_EFFECTIVE_URL), \PHP_URL_PATH);
    $status = (int) curl_getinfo($curl, \CURLINFO_RESPONSE_CODE);
    curl_close($curl);

    return [$status, $body, $path];
};
$failed = 0;
$holds = static function (string $what, bool $isSo) use (&$failed): void {
    echo $isSo ? 'holds:  ' : 'FAILS:  ', $what, "\n";
    $failed += $isSo ? 0 : 1;
};
$token = static fn (string $page, string $css): string => (string) (new Crawler($page))->filter($css)->first()->attr('value');
$asked = static function (callable $ask, float $seconds): array {
    $until = microtime(true) + $seconds;
    do {
        $answer = $ask();
        if (200 === $answer[0]) {
            break;
        }
        usleep(200_000);
    } while (microtime(true) < $until);

    return $answer;
};
$open = static fn () => DriverManager::getConnection((new DsnParser(['mysql' => 'pdo_mysql']))->parse($dsn));

// An account made at the one, used at the other.
$email = bin2hex(random_bytes(6)).'@example.org';
$page = $http("$a/register")[1];
$http("$a/register", [
    'registration[name]' => 'Twin', 'registration[email]' => $email, 'registration[password]' => 'eleven chars',
    'registration[_token]' => $token($page, '[name="registration[_token]"]'),
]);
$holds('who signs in at one machine is signed in at the other', '/sheets' === $http("$b/sheets")[2]);
$import = static function (string $json) use ($http, $b, $token): string {
    $path = tempnam(sys_get_temp_dir(), 'rack').'.json';
    file_put_contents($path, $json);
    $page = $http("$b/sheets")[1];
    [, , $at] = $http("$b/sheets/import", [
        '_token' => $token($page, '.import [name="_token"]'), 'submission' => $token($page, '.import [name="submission"]'),
        'file' => new CURLFile($path, 'application/json', 'twins.rack.json'),
    ]);
    preg_match('#/sheets/([0-9a-f-]+)/#', $at, $found);

    return $found[1] ?? '';
};
$sheet = $import((string) file_get_contents(dirname(__DIR__, 2).'/demo/5-nine-to-go.rack.json'));
$two = $import('{"format": "zig-lane/rack", "version": 1, "game": "nine-ball", "layoutDiamonds": {"cue": [1, 1], "3": [5, 1], "9": [6, 3]}}');
$holds('a form of one machine is taken by the other, and its sheet is there', 200 === $http("$a/sheets/$sheet/layout")[0]);

// Limits count over both: five wrong passwords, three here and two there, then no more.
$jar = tempnam(sys_get_temp_dir(), 'jar');
for ($i = 0; $i < 7; ++$i) {
    $at = 0 === $i % 2 ? $a : $b;
    $page = $http("$at/sign-in", jar: $jar)[1];
    $last = $http(
        "$at/sign-in",
        ['email' => $email, 'password' => 'wrong', '_csrf_token' => $token($page, '[name="_csrf_token"]')],
        $jar,
    )[1];
    $alert = (new Crawler($last))->filter('[role="alert"]');
    $answers[] = 0 === $alert->count() ? 'no word' : $alert->text();
}
$isCounted = str_contains($last, 'Too many failed');
$holds('wrong passwords are counted over both'.($isCounted ? '' : ': '.json_encode($answers)), $isCounted);

// A plan asked for at one is worked on by the workers of both; then the other machine, or the database's node, is killed.
$page = $http("$a/sheets/$sheet/run-out")[1];
$ask = ['_token' => $token($page, 'form.ask [name="_token"]'), 'seconds' => '20'];
$http("$a/sheets/$sheet/run-out", $ask);
sleep(3);
$connection = $open();
$hosts = $connection->fetchOne('SELECT COUNT(*) FROM work_queue WHERE queue = "plans" AND taken_at IS NOT NULL');
$holds('workers have the plan in hand', (int) $hosts >= 1);
[, $page] = $http("$a/sheets/$two/table");
[, $page, $shoot] = $http("$a/sheets/$two/shoot", ['_token' => $token($page, 'form[action$="/shoot"] [name="_token"]')]);
$shotToken = (string) (new Crawler($page))->filter('[data-shoot]')->attr('data-token');
$acknowledged = [];
$previous = null;
$longest = 0.0;
for ($shot = 0; $shot < 30; ++$shot) {
    if (10 === $shot) {
        if ('cluster' === $what) {
            posix_kill((int) file_get_contents("$state/node1/pid"), \SIGKILL);
            echo "        (killed the database's node that is written to)\n";
        } else {
            foreach ([...glob("$folder/var/start/run/*.group") ?: [], "$folder/var/start/run/supervisord.pid"] as $file) {
                // The guard first, or it would bring the machine back.
                posix_kill((int) file_get_contents("$folder/var/start/run/guard.group"), \SIGKILL);
                $pid = (int) file_get_contents($file);
                posix_kill(str_ends_with($file, '.group') ? -$pid : $pid, \SIGKILL);
            }
            echo "        (killed the whole second machine)\n";
        }
    }
    $entry = [
        'id' => (string) Uuid::v4(), 'previous' => $previous, 'kind' => 'safety', 'made' => null,
        'after' => ['cue' => [1 + 0.05 * ($shot % 20), 1 + 0.05 * ($shot % 7)], '3' => [5, 1], '9' => [6, 3]],
    ];
    $from = microtime(true);
    $url = 'cluster' === $what && 1 === $shot % 2 ? $b : $a;
    [$status, $body] = $asked(
        static fn (): array => $http(
            $url.str_replace('/shoot', '/shots', $shoot),
            ['_token' => $shotToken, 'entry' => json_encode($entry)],
        ),
        30.0,
    );
    if (200 !== $status) {
        $holds("entry $shot is taken (status $status: ".substr(strip_tags($body), 0, 200).')', false);
        break;
    }
    $longest = max($longest, microtime(true) - $from);
    $acknowledged[] = $previous = $entry['id'];
}
printf("        (an entry took %.1f s at the most)\n", $longest);
$holds('nobody is signed out', '/sheets' === $asked(static fn (): array => $http("$a/sheets"), 20.0)[2]);
for ($i = 0; $i < 90; ++$i) {
    try {
        $connection = $open();
        $states = $connection->fetchAllKeyValue('SELECT HEX(id), state FROM plan_job');
        if ([] === array_diff($states, ['done', 'nothing'])) {
            break;
        }
    } catch (Throwable) {
    }
    sleep(1);
}
$holds('every plan comes to its end ('.json_encode(array_count_values($states ?? [])).')', [] === array_diff($states ?? ['?'], ['done', 'nothing']));
$logged = array_map(
    static fn (string $id): string => (string) Uuid::fromBinary($id),
    $connection->fetchFirstColumn('SELECT id FROM shot ORDER BY number'),
);
$holds(
    sprintf('%d entries acknowledged, %d logged, the same in order', count($acknowledged), count($logged)),
    $acknowledged === $logged && 30 === count($logged),
);
exit(0 === $failed ? 0 : 1);
