<?php

/*
 * Computes the same with and without a rain of signals and compares: signals.php [ROUNDS] [PER_SECOND] [options of steady.php] [--jit=MODE]
 * Every signal that the computing process has a handler for is sent in its turn. Prints counts; ends with 1 where a result differs.
 */

declare(strict_types=1);

$root = dirname(__DIR__, 2);
$own = array_values(array_filter($argv, static fn (string $one): bool => !str_starts_with($one, '--')));
$rounds = (int) ($own[1] ?? 1);
$perSecond = max(1, (int) ($own[2] ?? 100));
$options = array_values(array_filter($argv, static fn (string $one): bool => in_array($one, ['--shots', '--async'], true)));
$jit = require $root.'/config/jit.php';
foreach ($argv as $one) {
    $jit = str_starts_with($one, '--jit=') ? substr($one, 6) : $jit;
}

/** @return array{int, array<mixed>|null, string} signals that were sent, what was printed, errors */
$run = static function (bool $isDisturbed, float $seconds) use ($rounds, $perSecond, $options, $jit): array {
    $error = tempnam(sys_get_temp_dir(), 'steady');
    $process = proc_open([
        \PHP_BINARY, '-d', 'pcov.enabled=0', '-d', 'opcache.enable_cli=1', '-d', 'opcache.jit_buffer_size=64M', '-d', 'opcache.jit='.$jit,
        '-d', 'memory_limit=1G', '-d', 'display_errors=stderr', __DIR__.'/steady.php', (string) $rounds, ...$options,
    ], [1 => ['pipe', 'w'], 2 => ['file', $error, 'w']], $pipes);
    if (false === $process) {
        throw new RuntimeException('PHP could not be started.');
    }
    $sent = 0;
    $isReady = false;
    $printed = '';
    $pid = proc_get_status($process)['pid'];
    $signals = [\SIGALRM, \SIGTERM, \SIGINT, \SIGQUIT, \SIGUSR1, \SIGUSR2];
    stream_set_blocking($pipes[1], false);
    $end = microtime(true) + $seconds;
    while (!feof($pipes[1])) {
        $read = [$pipes[1]];
        $none = null;
        if (stream_select($read, $none, $none, 0, (int) (1e6 / $perSecond)) > 0) {
            $printed .= fread($pipes[1], 65536);
        } elseif ($isDisturbed && ($isReady = $isReady || str_contains((string) file_get_contents($error), 'ready'))) {
            posix_kill($pid, $signals[$sent % count($signals)]);
            ++$sent;
        }
        if (microtime(true) > $end) {
            posix_kill($pid, \SIGKILL);
            break;
        }
    }
    proc_close($process);
    $errors = substr_count((string) file_get_contents($error), "\n") - 1;
    unlink($error);
    $answer = json_decode($printed, true);

    return [$sent, is_array($answer) ? $answer : null, $errors > 0 ? "$errors lines of warnings" : ''];
};

$start = microtime(true);
[, $quiet] = $run(false, 600.0);
// What takes ten times as long as in quiet does not end.
[$sent, $disturbed, $errors] = $run(true, 10.0 + 10.0 * (microtime(true) - $start));
if (null === $quiet || null === $disturbed) {
    $which = null === $quiet ? 'undisturbed' : 'disturbed';
    echo "signals: the $which run did not end by itself ($sent signals, opcache.jit $jit) $errors\n";
    exit(1);
}
$differ = $failed = 0;
foreach ($quiet['units'] as $i => [$name, $hash]) {
    $other = $disturbed['units'][$i][1] ?? '';
    if ($other !== $hash) {
        64 === strlen($other) ? ++$differ : ++$failed;
    }
}
$kind = in_array('--shots', $options, true) ? 'shots' : 'plans, fits and pars';
printf(
    "signals: %d sent, %d handled, %d %s: %d differ, %d failed%s (opcache.jit %s%s)\n",
    $sent, $disturbed['handled'], count($quiet['units']), $kind, $differ, $failed, '' === $errors ? '' : ", $errors",
    $jit, in_array('--async', $options, true) ? ', asynchronous' : '',
);
exit($differ + $failed > 0 || '' !== $errors ? 1 : 0);
