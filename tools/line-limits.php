<?php

declare(strict_types=1);

/*
 * Tells lines that are too long: 140 characters in PHP, 180 in Twig. A string that fills most of a line (data of a test, a message of
 * an exception) may run over: breaking it would make it harder to read and to find.
 */

const LIMITS = ['php' => 140, 'twig' => 180];
const STRING_OF_A_LINE = 100;
const FOLDERS = ['bin', 'benchmarks', 'config', 'core', 'migrations', 'public', 'src', 'templates', 'tests', 'tools'];

$long = 0;
foreach (FOLDERS as $folder) {
    $tree = new RecursiveDirectoryIterator(dirname(__DIR__).'/'.$folder, FilesystemIterator::SKIP_DOTS);
    foreach (new RecursiveIteratorIterator($tree) as $file) {
        assert($file instanceof SplFileInfo);
        $limit = LIMITS[$file->getExtension()] ?? null;
        if (null === $limit || preg_match('#/(node_modules|vendor)/|config/reference\.php$#', $file->getPathname())) {
            continue;
        }
        foreach (file($file->getPathname(), \FILE_IGNORE_NEW_LINES) ?: [] as $i => $line) {
            if (mb_strlen($line) <= $limit || preg_match('/([\'"]).{'.STRING_OF_A_LINE.',}\1/u', $line)) {
                continue;
            }
            printf("%s:%d has %d characters; at most %d\n", $file->getPathname(), $i + 1, mb_strlen($line), $limit);
            ++$long;
        }
    }
}
exit(0 === $long ? 0 : 1);
