<?php

declare(strict_types=1);

// The environment whose servers are starting: prod, or the one that bin/test gives its browser.
$environment = getenv('APP_ENV') ?: 'prod';
$root = dirname(__DIR__);
$list = sprintf('%s/var/cache/%s/ZigLane_App_Kernel%sContainer.preload.php', $root, $environment, ucfirst($environment));
if (file_exists($list)) {
    require $list;
    // What every page needs beside it: our own classes, and what Doctrine names as text only.
    foreach (['core', 'src', 'vendor/doctrine/dbal/src/Types', 'vendor/doctrine/dbal/src/Driver/PDO'] as $folder) {
        foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator("$root/$folder", FilesystemIterator::SKIP_DOTS)) as $file) {
            $isOther = preg_match('#/PDO/(OCI|PgSQL|SQLSrv|SQLite)/#', (string) $file);
            if (str_ends_with((string) $file, '.php') && 0 === $isOther) {
                require_once $file;
            }
        }
    }
}
