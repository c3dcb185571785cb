<?php

declare(strict_types=1);

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Dotenv\Dotenv;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Kernel;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\Core\Format\RackFile;

require dirname(__DIR__, 2).'/vendor/autoload.php';

/** One request of a user, or a pause. What it is sent for comes back from the generator's yield: status and body. */
final readonly class Asks
{
    /** @param array<string, string> $fields of a form that is posted */
    private function __construct(
        public string $kind,
        public string $path,
        public array $fields = [],
        public bool $isPost = false,
        public float $pause = 0.0,
    ) {
    }

    public static function get(string $kind, string $path): self
    {
        return new self($kind, $path);
    }

    /** @param array<string, string> $fields */
    public static function post(string $kind, string $path, array $fields): self
    {
        return new self($kind, $path, $fields, true);
    }

    public static function pause(float $seconds): self
    {
        return new self('', '', pause: $seconds);
    }
}

/** Many users at once, each a generator of requests with cookies of its own; measures how long each kind takes. */
final class Crowd
{
    /** @var array<string, list<float>> seconds by kind */
    public array $times = [];
    /** @var array<string, int> what went wrong, by kind and status */
    public array $errors = [];
    public bool $isMeasured = true;

    public function __construct(private readonly string $url)
    {
    }

    /** @param array<int, Generator<int, Asks, array{int, string}, void>> $users */
    public function run(array $users, float $seconds): void
    {
        $multi = curl_multi_init();
        curl_multi_setopt($multi, \CURLMOPT_MAX_TOTAL_CONNECTIONS, 400);
        // Counted from when it is measured: before that everybody signs in.
        $until = \INF;
        /** @var array<int, array{CurlHandle, string, float}> $open by handle */
        $open = $handles = $due = [];
        foreach ($users as $i => $user) {
            $handles[$i] = curl_init();
            curl_setopt_array($handles[$i], [
                \CURLOPT_RETURNTRANSFER => true, \CURLOPT_COOKIEFILE => '', \CURLOPT_TIMEOUT => 60, \CURLOPT_ENCODING => 'gzip',
            ]);
            $due[$i] = 0.0;
        }
        $answers = [];
        while ([] !== $open || ([] !== $due && microtime(true) < $until)) {
            $now = microtime(true);
            $until = $this->isMeasured && \INF === $until ? $now + $seconds : $until;
            foreach ($due as $i => $at) {
                if ($at > $now || $now >= $until) {
                    continue;
                }
                unset($due[$i]);
                $user = $users[$i];
                $asks = array_key_exists($i, $answers) ? $user->send($answers[$i]) : $user->current();
                $answers[$i] = null;
                if (!$user->valid()) {
                    continue;
                }
                if ($asks->pause > 0.0) {
                    $due[$i] = $now + $asks->pause;
                    continue;
                }
                curl_setopt_array($handles[$i], [
                    \CURLOPT_URL => $this->url.$asks->path,
                    \CURLOPT_HTTPHEADER => ['Expect:', ...(str_contains($asks->kind, '*') ? ['HX-Request: true'] : [])],
                ]);
                curl_setopt_array(
                    $handles[$i],
                    $asks->isPost
                        ? [\CURLOPT_POST => true, \CURLOPT_POSTFIELDS => http_build_query($asks->fields)]
                        : [\CURLOPT_HTTPGET => true],
                );
                curl_multi_add_handle($multi, $handles[$i]);
                $open[(int) spl_object_id($handles[$i])] = [$i, trim($asks->kind, '*'), microtime(true)];
            }
            curl_multi_exec($multi, $running);
            while (false !== $info = curl_multi_info_read($multi)) {
                $handle = $info['handle'];
                [$i, $kind, $from] = $open[spl_object_id($handle)];
                unset($open[spl_object_id($handle)]);
                $status = (int) curl_getinfo($handle, \CURLINFO_RESPONSE_CODE);
                $answers[$i] = [$status, (string) curl_multi_getcontent($handle)];
                curl_multi_remove_handle($multi, $handle);
                $due[$i] = 0.0;
                if ($this->isMeasured) {
                    $this->times[$kind][] = microtime(true) - $from;
                    if ($status >= 400 || 0 === $status) {
                        $this->errors["$kind $status"] = ($this->errors["$kind $status"] ?? 0) + 1;
                    }
                }
            }
            curl_multi_select($multi, 0.002);
        }
        curl_multi_close($multi);
    }

    public function table(): string
    {
        $rows = "| page | requests | p50 ms | p95 ms | p99 ms | most ms |\n| --- | ---: | ---: | ---: | ---: | ---: |\n";
        $all = array_merge(...array_values($this->times));
        ksort($this->times);
        foreach ([...$this->times, 'all' => $all] as $kind => $times) {
            sort($times);
            $rows .= sprintf(
                "| %s | %d | %.0f | %.0f | %.0f | %.0f |\n",
                $kind,
                count($times),
                ...array_map(static fn (float $part): float => 1000 * self::quantile($times, $part), [0.5, 0.95, 0.99, 1.0]),
            );
        }

        return $rows;
    }

    /** @param list<float> $sorted */
    public static function quantile(array $sorted, float $part): float
    {
        return [] === $sorted ? 0.0 : $sorted[min(count($sorted) - 1, (int) floor($part * count($sorted)))];
    }
}

/** The application itself, to put accounts and sheets into the instance that is loaded. */
function lane(): Kernel
{
    (new Dotenv())->bootEnv(dirname(__DIR__, 2).'/.env');
    $kernel = new Kernel('check', false);
    $kernel->boot();

    return $kernel;
}

/** @return list<array{string, string, string, string}> e-mail, sheet, its first ball and pocket; every password is "eleven chars" */
function players(Kernel $kernel, int $count): array
{
    $manager = $kernel->getContainer()->get('doctrine')->getManager();
    assert($manager instanceof EntityManagerInterface);
    $editor = $kernel->getContainer()->get('lane.load.editor');
    assert($editor instanceof SheetEditor);
    $hash = password_hash('eleven chars', \PASSWORD_BCRYPT, ['cost' => 13]);
    $files = array_map(
        static fn (string $path): RackFile => RackFile::parse((string) file_get_contents($path)),
        glob(dirname(__DIR__, 2).'/demo/[1356]-*.rack.json') ?: [],
    );
    $players = [];
    for ($i = 0; $i < $count; ++$i) {
        $account = new Account('load-'.bin2hex(random_bytes(8)).'@example.org', "Player $i", new DateTimeImmutable());
        $account->setPassword($hash);
        $manager->persist($account);
        $manager->flush();
        foreach ($files as $n => $file) {
            $sheet = $editor->create($account, $file->name ?? 'Rack', $file->rack, Uuid::v4(), $file->shot, $file->later);
            if (0 === ($n + $i) % count($files)) {
                $shot = $file->shot;
                $players[$i] = [
                    $account->getEmail(),
                    (string) $sheet->getId(),
                    null === $shot ? $file->rack->objectBalls()[0]->label() : $shot->ball->label(),
                    null === $shot ? 'FL' : $shot->pocket->value,
                ];
            }
        }
        $manager->clear();
    }

    return array_values($players);
}

/** @return Generator<int, Asks, array{int, string}, void> */
function signIn(string $email): Generator
{
    [, $page] = yield Asks::get('sign-in page', '/sign-in');
    preg_match('/name="_csrf_token" value="([^"]+)"/', $page, $token) || exit("No token on the sign-in page.\n");
    [$status] = yield Asks::post('sign in', '/sign-in', ['email' => $email, 'password' => 'eleven chars', '_csrf_token' => $token[1]]);
    302 === $status || exit("Signing in was answered with $status.\n");
}

/** Memory of an instance's processes: what belongs to them alone and their part of what is shared, MB by kind. */
function memory(string $run): array
{
    $groups = array_map('file_get_contents', glob("$run/*.group") ?: []);
    $sum = [];
    foreach (glob('/proc/[0-9]*/stat') ?: [] as $stat) {
        $fields = explode(' ', substr((string) strrchr((string) @file_get_contents($stat), ')'), 2));
        $at = array_search($fields[2] ?? '', $groups, true);
        if (false === $at) {
            continue;
        }
        preg_match('/^Pss:\s+(\d+)/m', (string) @file_get_contents(dirname($stat).'/smaps_rollup'), $pss);
        $kind = preg_replace('/\d+$/', '', basename((glob("$run/*.group") ?: [])[$at], '.group'));
        $sum[$kind] = ($sum[$kind] ?? 0) + (int) ($pss[1] ?? 0) / 1024;
    }
    ksort($sum);

    return $sum;
}

/** How much of the processors others took while they were wanted here, since the first call: figures of a busy host say little. */
function stolen(): float
{
    static $first = null;
    $line = (string) strtok((string) file_get_contents('/proc/stat'), "\n");
    $now = array_map(intval(...), explode(' ', (string) preg_replace('/^cpu +/', '', $line)));
    $first ??= $now;
    $spent = array_sum($now) - array_sum($first);

    return 0 === $spent ? 0.0 : ($now[7] - $first[7]) / $spent;
}

/** Seconds of the processors that an instance's processes of a kind have used. */
function used(string $run, string $kind): float
{
    $ticks = 0;
    foreach (glob("$run/$kind*.group") ?: [] as $group) {
        foreach (glob('/proc/[0-9]*/stat') ?: [] as $stat) {
            $fields = explode(' ', substr((string) strrchr((string) @file_get_contents($stat), ')'), 2));
            if (($fields[2] ?? '') === file_get_contents($group)) {
                $ticks += (int) $fields[11] + (int) $fields[12];
            }
        }
    }

    return $ticks / 100;
}

function told(string $run): string
{
    return implode(', ', array_map(
        static fn (string $kind, float $mb): string => sprintf('%s %.0f MB', $kind, $mb),
        array_keys(memory($run)),
        memory($run),
    ));
}
