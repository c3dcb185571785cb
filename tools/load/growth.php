<?php

/*
 * How pages grow with what is stored (bin/load growth): a player with ever more sheets, while another has as many. Rows are written
 * straight into the database. How the log grows is held by LogTest. Use: growth.php URL RUN [most sheets]
 */

declare(strict_types=1);

require __DIR__.'/client.php';

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;

[, $url, $run] = $argv;
$most = max(100, min(100_000, (int) ($argv[3] ?? 10_000)));
$kernel = lane();
[[$email, $sheet]] = players($kernel, 1);
$db = $kernel->getContainer()->get('doctrine')->getConnection();
assert($db instanceof Connection);
$owner = $db->fetchOne('SELECT id FROM account WHERE email = ?', [$email]);
$columns = static fn (string $table): string => implode(', ', array_diff(
    $db->fetchFirstColumn('SELECT column_name FROM information_schema.columns WHERE table_schema = DATABASE() AND table_name = ?', [$table]),
    ['id', 'submission'],
));
$others = players($kernel, 1);
$fill = static function (string $owner, int $count) use ($db, $columns): void {
    $names = $columns('rack_sheet');
    $from = $db->fetchOne('SELECT id FROM rack_sheet WHERE owner_id = ? LIMIT 1', [$owner]);
    $have = (int) $db->fetchOne('SELECT COUNT(*) FROM rack_sheet WHERE owner_id = ?', [$owner]);
    $db->beginTransaction();
    for ($i = $have; $i < $count; ++$i) {
        $db->executeStatement(
            "INSERT INTO rack_sheet (id, submission, $names) SELECT ?, ?, $names FROM rack_sheet WHERE id = ?",
            [Uuid::v7()->toBinary(), Uuid::v4()->toBinary(), $from],
        );
    }
    $db->commit();
};
$user = (static function () use ($email, $sheet, $most, $owner, $others, $fill, $db): Generator {
    yield from signIn($email);
    $other = $db->fetchOne('SELECT id FROM account WHERE email = ?', [$others[0][0]]);
    echo "| sheets of the player (and of another) | list p50 ms | list p95 ms | layout p50 ms | layout p95 ms |\n| ---: | ---: | ---: | ---: | ---: |\n";
    for ($count = 10; $count <= $most; $count *= 10) {
        $fill($owner, $count);
        $fill($other, $count);
        $row = [];
        foreach (['/sheets', "/sheets/$sheet/layout"] as $path) {
            $times = [];
            for ($i = 0; $i < 50; ++$i) {
                $start = microtime(true);
                yield Asks::get('page', $path);
                $times[] = 1000 * (microtime(true) - $start);
            }
            sort($times);
            array_push($row, Crowd::quantile($times, 0.5), Crowd::quantile($times, 0.95));
        }
        vprintf("| %d | %.0f | %.0f | %.0f | %.0f |\n", [$count, ...$row]);
    }
})();
stolen();
$crowd = new Crowd($url);
$crowd->run([$user], 600.0);
printf("Others took %.0f %% of the machine.\n%s", 100 * stolen(), [] === $crowd->errors ? '' : 'Errors: '.json_encode($crowd->errors)."\n");
