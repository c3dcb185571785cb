<?php

/*
 * Logs shots of one rack over HTTP while processes are killed (bin/chaos): each entry is sent until it is acknowledged, under the same id.
 * Then every acknowledged entry must be in the log, once, in its order.
 */

declare(strict_types=1);

use Doctrine\DBAL\DriverManager;
use Doctrine\DBAL\Tools\DsnParser;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Uid\Uuid;

require dirname(__DIR__).'/vendor/autoload.php';

[, $url, $run, $dsn, $kills] = $argv;
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

$victims = ['mariadb', 'php-fpm', 'worker1', 'worker2', 'nginx'];
$acknowledged = [];
$previous = null;
for ($shot = 1; $shot <= 8 * (int) $kills; ++$shot) {
    $entry = [
        'id' => (string) Uuid::v4(), 'previous' => $previous, 'kind' => 'safety', 'made' => null,
        'after' => ['cue' => [1 + 0.05 * ($shot % 20), 1 + 0.05 * ($shot % 7)], '3' => [5, 1], '9' => [6, 3]],
    ];
    if (0 === $shot % 8) {
        $victim = $victims[intdiv($shot, 8) % count($victims)];
        $pid = (int) @file_get_contents("$run/$victim.pid");
        if ($pid > 0) {
            exec('kill -9 '.$pid);
        }
        printf("shot %d: killed %s (%d)\n", $shot, $victim, $pid);
    }
    for ($try = 1;; ++$try) {
        [$status] = $http('POST', $post, ['_token' => $token, 'entry' => json_encode($entry)]);
        if (200 === $status) {
            break;
        }
        if ($try > 40) {
            fwrite(\STDERR, "Shot $shot is not taken: status $status.\n");
            exit(1);
        }
        if (3 === $try) {
            exec(escapeshellarg(dirname(__DIR__).'/bin/chaos').' revive >/dev/null 2>&1');
        }
        usleep(300_000);
    }
    $acknowledged[] = $previous = $entry['id'];
}
$connection = DriverManager::getConnection((new DsnParser(['mysql' => 'pdo_mysql']))->parse($dsn));
$logged = array_map(
    static fn (string $id): string => (string) Uuid::fromBinary($id),
    $connection->fetchFirstColumn('SELECT id FROM shot ORDER BY number'),
);
printf(
    "%d acknowledged, %d logged: %s\n",
    count($acknowledged),
    count($logged),
    $acknowledged === $logged ? 'the same, in order' : 'NOT the same',
);
exit($acknowledged === $logged ? 0 : 1);
