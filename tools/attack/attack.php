<?php

declare(strict_types=1);

/**
 * Attacks an instance of its own on loopback and counts what held: php tools/attack/attack.php ADDRESS. Each attack was found once by
 * somebody with time (docs/security.md). It ends with 1 where one of them got through.
 */

require __DIR__.'/Person.php';

/** @param CurlHandle ...$handles @return list<array{int, float}> status and seconds, in their order */
function atOnce(CurlHandle ...$handles): array
{
    $multi = curl_multi_init();
    foreach ($handles as $handle) {
        curl_multi_add_handle($multi, $handle);
    }
    do {
        $state = curl_multi_exec($multi, $running);
        curl_multi_select($multi, 0.1);
    } while ($running > 0 && \CURLM_OK === $state);

    return array_map(static fn (CurlHandle $one): array => [
        (int) curl_getinfo($one, \CURLINFO_RESPONSE_CODE), (float) curl_getinfo($one, \CURLINFO_TOTAL_TIME),
    ], array_values($handles));
}

function logFile(int $shots): string
{
    $path = (string) tempnam(sys_get_temp_dir(), 'attack');
    $file = fopen($path, 'w');
    assert(false !== $file);
    fwrite($file, '{"format":"zig-lane/log","version":1,"player":{"aim":0.2,"speed":0.05,"tipSide":1.0,"tipHeight":1.0},"outings":[');
    for ($n = 0, $day = 0; $n < $shots; ++$day) {
        $date = date('Y-m-d', 1_600_000_000 + 86400 * $day);
        fwrite($file, (0 === $day ? '' : ',').'{"id":"d'.$day.'","date":"'.$date.'","place":"room","racks":[');
        for ($rack = 0; $rack < 20 && $n < $shots; ++$rack) {
            fwrite($file, (0 === $rack ? '' : ',').'{"id":"r'.$day.'-'.$rack.'","game":"nine-ball","start":{"cue":[1,1],"4":[5,1],"9":[4,2]},"shots":[');
            for ($shot = 0; $shot < 10 && $n < $shots; ++$shot, ++$n) {
                $x = round(1 + 6 * mt_rand() / mt_getrandmax(), 4);
                fwrite($file, (0 === $shot ? '' : ',').'{"id":"s'.$n.'","at":"'.$date.'T20:00:00Z","kind":"pot","before":{"cue":['.$x.',1.2345],"4":[5,1.5],"9":[4.25,2.125]},'
                    .'"called":{"ball":"4","pocket":"FL"},"meant":{"stroke":{"direction":12.345678,"speed":2.345678,"side":0.123456,"height":-0.234567,"elevation":3.456789},'
                    .'"make":0.8123,"position":0.6123,"runOut":0.4123},"result":{"made":'.(mt_rand() % 4 ? 'true' : 'false').',"scratch":false,"foul":false,"miscue":false,'
                    .'"position":true,"after":{"cue":['.$x.',2.3456],"9":[4.25,2.125]}}}');
            }
            fwrite($file, ']}');
        }
        fwrite($file, ']}');
    }
    fwrite($file, ']}');
    fclose($file);

    return $path;
}

/** @param array<string, string> $entries */
function zipOf(array $entries): string
{
    $path = tempnam(sys_get_temp_dir(), 'attack').'.zip';
    $zip = new ZipArchive();
    $zip->open($path, ZipArchive::CREATE | ZipArchive::OVERWRITE);
    foreach ($entries as $name => $content) {
        $zip->addFromString($name, $content);
    }
    $zip->close();

    return $path;
}

$url = rtrim($argv[1] ?? '', '/');
$shots = (int) ($argv[2] ?? 20_000);
if (1 !== preg_match('#^http://127\.0\.0\.1:\d+$#', $url)) {
    fwrite(\STDERR, "An instance of one's own on loopback, please: http://127.0.0.1:PORT\n");
    exit(2);
}
$failures = 0;
$tell = static function (string $what, bool $held, string $figures) use (&$failures): void {
    $failures += $held ? 0 : 1;
    printf("%-7s %-58s %s\n", $held ? 'held' : 'BROKEN', $what, $figures);
};
$until = static function (Person $person, string $not, float $seconds): float {
    $start = hrtime(true);
    do {
        usleep(300_000);
        $person->ask('/account/import');
        $took = (hrtime(true) - $start) / 1e9;
    } while (str_contains($person->page, $not) && $took < $seconds);

    return $took;
};

$attacker = Person::registered($url, 'mallory');
$other = Person::registered($url, 'bystander');

// Eight zips at once whose log is 190 MB of blanks: one is taken, and another player's page does not wait.
$bomb = zipOf(['log.json' => str_repeat(' ', 190_000_000)]);
$attacker->ask('/account');
$token = $attacker->token('/account/import');
$handles = [];
for ($i = 0; $i < 8; ++$i) {
    $handles[] = $attacker->prepared('/account/import', ['_token' => $token, 'file' => new CURLFile($bomb, 'application/zip', 'a.zip')]);
}
$begun = hrtime(true);
$came = atOnce(...$handles, ...array_map(static fn (): CurlHandle => $other->prepared('/sheets'), range(1, 4)));
$statuses = array_count_values(array_column(array_slice($came, 0, 8), 0));
$pages = array_column(array_slice($came, 8), 1);
$waited = $until($attacker, 'is being taken in', 120.0);
$tell(
    'eight zips of 190 MB of blanks at once', 1 === ($statuses[303] ?? 0) && max($pages) < 2.0 && $waited < 60.0,
    sprintf('%s; another page %.2f s at most; ended after %.1f s', json_encode($statuses), max($pages), $waited),
);

// A long log: in, records, out, and in again.
$path = logFile($shots);
$attacker->ask('/log');
$status = $attacker->ask('/log/import', ['_token' => $attacker->token('/log/import'), 'file' => new CURLFile($path, 'application/json', 'a.json')]);
$sent = $attacker->took;
$slowest = 0.0;
$start = hrtime(true);
do {
    usleep(500_000);
    $other->ask('/sheets');
    $slowest = max($slowest, $other->took);
    $attacker->ask('/account/import');
    $took = (hrtime(true) - $start) / 1e9;
} while (str_contains($attacker->page, 'is being taken in') && $took < 3000);
$isTaken = str_contains($attacker->page, "<b>$shots</b>");
$tell("a log of $shots shots in", 303 === $status && $isTaken && $slowest < 1.0, sprintf(
    '%.0f MB sent in %.1f s, taken in %.0f s; another page %.2f s at most', filesize($path) / 1e6, $sent, $took, $slowest,
));
foreach (['/log/records' => 'records', '/log/export.json' => 'as JSON', '/log/export.csv' => 'as CSV', '/account/export' => 'as a zip'] as $page => $what) {
    $status = $attacker->ask($page);
    $tell("of it: $what", 200 === $status, sprintf('%d, %.1f MB in %.1f s', $status, strlen($attacker->page) / 1e6, $attacker->took));
}
$back = tempnam(sys_get_temp_dir(), 'attack').'.zip';
file_put_contents($back, $attacker->page);
$other->ask('/account');
$status = $other->ask('/account/import', ['_token' => $other->token('/account/import'), 'file' => new CURLFile($back, 'application/zip', 'a.zip')]);
$took = $until($other, 'is being taken in', 3000.0);
$tell('its zip into another account', str_contains($other->page, "<b>$shots</b>"), sprintf('%d; %.0f s', $status, $took));

// Passwords from many networks of IPv6, all of one customer, and by many accounts from one network.
$accepted = 0;
for ($i = 0; $i < 40; ++$i) {
    $guest = new Person($url, 'guest');
    $guest->ask('/sign-in');
    $guest->ask('/sign-in', ['email' => 'victim@example.org', 'password' => "guess $i", '_csrf_token' => $guest->token('/sign-in'), '_token' => $guest->token('/sign-in')]);
    $guest->ask('/sign-in');
    $accepted += str_contains($guest->page, 'Too many') ? 0 : 1;
}
$tell('forty passwords for one account from one network', $accepted <= 6, "$accepted tried");

// An invitation that is good for one, pressed by six in the same moment.
$coach = Person::registered($url, 'coach');
$coach->ask('/groups');
$coach->ask('/groups', ['_token' => $coach->token('/groups'), 'name' => 'Tuesday']);
$coach->ask('/groups');
preg_match('#/groups/([0-9a-f-]{36})#', $coach->page, $group);
$coach->ask("/groups/$group[1]");
$coach->ask("/groups/$group[1]/invite", ['_token' => $coach->token("/groups/$group[1]/invite"), 'email' => 'friend@example.org']);
$coach->ask("/groups/$group[1]");
preg_match('#/join/([A-Za-z0-9_-]+)#', $coach->page, $invitation);
$link = '/join/'.($invitation[1] ?? 'none');
$handles = [];
for ($i = 1; $i <= 6; ++$i) {
    $guest = Person::registered($url, "friend$i");
    $guest->ask($link);
    $handles[] = $guest->prepared($link, ['_token' => $guest->token($link), 'sees[0]' => 'scores']);
}
$statuses = array_count_values(array_column(atOnce(...$handles), 0));
$tell('an invitation for one, pressed by six at once', 1 === ($statuses[303] ?? 0), (string) json_encode($statuses));

// Structures that are only brackets, and numbers beyond all sense.
$lists = '{"format":"zig-lane/log","version":1,"x":['.str_repeat('[],', 700_000).'[]]}';
$odd = tempnam(sys_get_temp_dir(), 'attack');
file_put_contents($odd, $lists);
$attacker->ask('/log');
$status = $attacker->ask('/log/import', ['_token' => $attacker->token('/log/import'), 'file' => new CURLFile($odd, 'application/json', 'a.json')]);
$took = $until($attacker, 'is being taken in', 60.0);
$tell('2 MB of empty lists as a log', 303 === $status && str_contains($attacker->page, 'could not be read'), sprintf('%.1f s', $took));
$attacker->ask('/lessons');
$status = $attacker->ask('/lessons/import', ['_token' => $attacker->token('/lessons/import'), 'file' => new CURLFile($odd, 'application/json', 'a.json')]);
$tell('2 MB of empty lists as a lesson', $status < 500, (string) $status);
$wild = zipOf([
    'account.json' => '{"format":"zig-lane/account","version":1,"weights":{"side":1e308,"speed":-1e308},"halfLife":1e308}',
    'sheets/'.str_repeat('-', 36).'.rack.json' => '{}', 'practice.json' => '['.str_repeat('[],', 300_000).'[]]',
]);
$attacker->ask('/account');
$status = $attacker->ask('/account/import', ['_token' => $attacker->token('/account/import'), 'file' => new CURLFile($wild, 'application/zip', 'a.zip')]);
$took = $until($attacker, 'is being taken in', 60.0);
$answer = $attacker->page;
$after = $attacker->ask('/sheets');
$isTaken = str_contains($answer, 'Taken in last');
$tell('wild numbers and hyphens in a zip', 303 === $status && 200 === $after && $isTaken, sprintf('%d, then %d; %.1f s', $status, $after, $took));

array_map(unlink(...), [$bomb, $path, $back, $odd, $wild]);
printf("%s\n", 0 === $failures ? 'Everything held.' : "$failures did not hold.");
exit(0 === $failures ? 0 : 1);
