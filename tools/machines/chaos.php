<?php

/*
 * Logs shots of one rack over HTTP and has plans worked out while processes are killed (bin/chaos): each entry is sent until it is
 * acknowledged, under the same id. Then every acknowledged entry must be in the log, once, in its order; every plan must be there, and none
 * may have been worked out again once it was. What dies has to come back by itself. Use: chaos.php URL RUN DSN KILLS SEED
 */

declare(strict_types=1);

use Doctrine\DBAL\DriverManager;
use Doctrine\DBAL\Tools\DsnParser;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Uid\Uuid;

require dirname(__DIR__, 2).'/vendor/autoload.php';

[, $url, $run, $dsn, $kills, $seed] = $argv;
mt_srand((int) $seed);
/** Shots between two kills. */
const BETWEEN = 6;
$cookies = tempnam(sys_get_temp_dir(), 'chaos');
/** @return array{int, string, string} status, body, the address that it ended at */
$http = static function (string $method, string $address, array $fields = []) use ($cookies): array {
    $curl = curl_init($address);
    curl_setopt_array($curl, [
        \CURLOPT_RETURNTRANSFER => true, \CURLOPT_FOLLOWLOCATION => true, \CURLOPT_COOKIEFILE => $cookies, \CURLOPT_COOKIEJAR => $cookies,
        \CURLOPT_TIMEOUT => 15, \CURLOPT_HTTPHEADER => ['Expect:'],
    ] + ('POST' === $method ? [\CURLOPT_POST => true, \CURLOPT_POSTFIELDS => $fields] : []));
    $body = (string) curl_exec($curl);
    $answer = [(int) curl_getinfo($curl, \CURLINFO_RESPONSE_CODE), $body, (string) curl_getinfo($curl, \CURLINFO_EFFECTIVE_URL)];
    curl_close($curl);

    return $answer;
};
/** The hidden fields of the form that a page sends to an address that ends so, with others. */
$form = static function (string $page, string $action, array $fields) use ($url): array {
    $found = (new Crawler($page, $url.'/'))->filter('form[action$="'.$action.'"], form:not([action])')->first();
    foreach ($found->filter('input[type="hidden"]') as $input) {
        $fields[$input->getAttribute('name')] = $input->getAttribute('value');
    }

    return $fields;
};
$page = $http('GET', $url.'/register')[1];
$http('POST', $url.'/register', [
    'registration[name]' => 'Chaos',
    'registration[email]' => bin2hex(random_bytes(6)).'@example.org',
    'registration[password]' => 'eleven chars',
    'registration[_token]' => (new Crawler($page))->filter('[name="registration[_token]"]')->attr('value'),
]);
$rack = [
    'format' => 'zig-lane/rack',
    'version' => 1,
    'game' => 'nine-ball',
    'layoutDiamonds' => ['cue' => [1, 1], '3' => [5, 1], '9' => [6, 3]],
    'ballInHand' => 'none',
];
$path = tempnam(sys_get_temp_dir(), 'rack').'.json';
file_put_contents($path, json_encode($rack));
$page = $http('GET', $url.'/sheets')[1];
[, , $at] = $http(
    'POST',
    $url.'/sheets/import',
    $form($page, '/sheets/import', ['file' => new CURLFile($path, 'application/json', 'chaos.rack.json')]),
);
preg_match('#/sheets/([0-9a-f-]+)/#', $at, $found) || exit("There is no sheet: $at.\n");
$page = $http('GET', "$url/sheets/$found[1]/table")[1];
[, $page, $shoot] = $http('POST', "$url/sheets/$found[1]/shoot", $form($page, '/shoot', []));
$token = (new Crawler($page))->filter('[data-shoot]')->attr('data-token');
$post = str_replace('/shoot', '/shots', $shoot);

$connection = DriverManager::getConnection((new DsnParser(['mysql' => 'pdo_mysql']))->parse($dsn));
/** @return array<string, array{string, int, string|null}> state, drawings and end of each plan; null while the database is away */
$plans = static function () use (&$connection, $dsn): ?array {
    try {
        return $connection->fetchAllAssociativeIndexed('SELECT HEX(id), state, drawn, ended_at FROM plan_job');
    } catch (Throwable) {
        $connection = DriverManager::getConnection((new DsnParser(['mysql' => 'pdo_mysql']))->parse($dsn));

        return null;
    }
};
$sheetToken = $form($http('GET', "$url/sheets/$found[1]/run-out")[1], '/run-out', [])['_token'];
$victims = ['mariadb', 'php1', 'php2', 'php3', 'worker1', 'worker2', 'nginx', 'guard', 'supervisord'];
$acknowledged = $ended = $killed = [];
$asked = $twice = 0;
$longest = ['' => 0.0];
$previous = null;
for ($shot = 1; $shot <= BETWEEN * (int) $kills; ++$shot) {
    $entry = [
        'id' => (string) Uuid::v4(), 'previous' => $previous, 'kind' => 'safety', 'made' => null,
        'after' => ['cue' => [1 + 0.05 * ($shot % 20), 1 + 0.05 * ($shot % 7)], '3' => [5, 1], '9' => [6, 3]],
    ];
    $victim = '';
    if (0 === $shot % BETWEEN) {
        $victim = $victims[mt_rand(0, count($victims) - 1)];
        $file = 'supervisord' === $victim ? "$run/supervisord.pid" : "$run/$victim.group";
        $pid = (int) @file_get_contents($file);
        $pid > 0 && posix_kill($pid, \SIGKILL);
        $killed[$victim] = ($killed[$victim] ?? 0) + 1;
    }
    if (3 === $shot % BETWEEN) {
        [$status] = $http('POST', "$url/sheets/$found[1]/run-out", ['_token' => $sheetToken, 'seconds' => 5]);
        $asked += 200 === $status ? 1 : 0;
    }
    $from = microtime(true);
    for ($try = 1;; ++$try) {
        [$status] = $http('POST', $post, ['_token' => $token, 'entry' => json_encode($entry)]);
        if (200 === $status) {
            break;
        }
        if (microtime(true) - $from > 60) {
            fwrite(\STDERR, "Shot $shot is not taken: status $status.\n");
            exit(1);
        }
        usleep(100_000);
    }
    $longest[$victim] = max($longest[$victim] ?? 0.0, microtime(true) - $from);
    $acknowledged[] = $previous = $entry['id'];
    foreach ($plans() ?? [] as $id => $plan) {
        if (in_array($plan['state'], ['done', 'nothing'], true)) {
            $ended[$id] ??= $plan;
            $twice += $ended[$id] != $plan ? 1 : 0;
        }
    }
    usleep(mt_rand(0, 400_000));
}
// What is under way comes to its end.
for ($i = 0; $i < 90; ++$i) {
    $left = array_filter($plans() ?? [], static fn (array $plan): bool => !in_array($plan['state'], ['done', 'nothing'], true));
    if ([] === $left) {
        break;
    }
    sleep(1);
}
$logged = array_map(
    static fn (string $id): string => (string) Uuid::fromBinary($id),
    $connection->fetchFirstColumn('SELECT id FROM shot ORDER BY number'),
);
$queued = (int) $connection->fetchOne('SELECT COUNT(*) FROM work_queue WHERE queue <> "failed"');
ksort($killed);
echo 'Killed: ', json_encode($killed), "\n";
foreach ($longest as $victim => $seconds) {
    printf("Longest until the next entry was taken%s: %.1f s\n", '' === $victim ? ', nothing killed just before' : " after $victim was killed", $seconds);
}
printf(
    "%d entries acknowledged, %d logged: %s. %d plans asked for, %d left undone, %d worked out again, %d messages left.\n",
    count($acknowledged),
    count($logged),
    $acknowledged === $logged ? 'the same, in order' : 'NOT the same',
    $asked,
    count($left),
    $twice,
    $queued,
);
exit($acknowledged === $logged && 0 === count($left) && 0 === $twice ? 0 : 1);
