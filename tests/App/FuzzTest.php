<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\Attributes\DataProvider;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\Routing\RouterInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Account\AccountReader;
use ZigLane\App\Account\AccountZip;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Log\LogEditor;
use ZigLane\App\Log\LogImport;
use ZigLane\App\Teaching\LessonDesk;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\LessonFile;
use ZigLane\Core\Format\LessonItem;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Format\LogPieces;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Format\ShotFile;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Teaching\Question;
use ZigLane\Tests\SimulatedPlayer;

/**
 * Every address of the application with every kind of nonsense, seeded: never a failure, never long. `FUZZ_SECONDS=600 bin/test app
 * --filter FuzzTest` goes on for longer; `FUZZ_SEED` begins elsewhere.
 */
final class FuzzTest extends AppTestCase
{
    private const FIELDS = [
        'id',
        'ball',
        'pocket',
        'clock',
        'tips',
        'lengths',
        'elevation',
        'aside',
        'direction',
        'unit',
        'look',
        'target',
        'odds',
        'next_pocket',
        'leg',
        'plan',
        'version',
        'at',
        'change',
        'name',
        'forbidden',
        'before',
        'locked',
        'in_hand',
        'group',
        'seconds',
        'seed',
        'rules',
        'own',
        'take',
        'weight_draw',
        'made',
        'lag',
        'drift',
        'by',
        'preset',
        'aim',
        'speed',
        'tipSide',
        'tipHeight',
        'entry',
        'shot',
        'end',
        'result',
        'guess',
        'submission',
        'of',
        'from',
        'to',
        'game',
        'kind',
        'place',
        'after',
        'balls',
        'racks',
        'fell',
        'cue',
        'one',
        'scratch',
        'use',
        'half_life',
        'number',
        'drawn',
        'tip_unit',
        'chalk',
        'back',
        'deleted',
        'anew',
        'working',
        'email',
        'password',
    ];
    private const VALUES = [
        '',
        '0',
        '1',
        '-1',
        '4',
        '9',
        '15',
        '16',
        '99',
        '3000000000',
        '-2147483649',
        '1e999',
        'NaN',
        'INF',
        '0x1F',
        '1,5',
        '4.5,1.25',
        '4.5;1.25',
        '1,2,3',
        ',',
        "\0",
        "\xFF\xFE",
        "\xC3\x28",
        '<script>alert(1)</script>',
        "' OR 1=1 --",
        '{{7*7}}',
        '%00',
        '../../etc/passwd',
        'FL',
        'HR',
        'XX',
        'cue',
        '4 FL',
        '7 before 4',
        '12:30',
        '25:99',
        'nine-ball',
        'eight-ball',
        'spread',
        'zone',
        'indirect',
        'land',
        'read',
        'tips',
        'place',
        'off',
        'rail',
        'undo',
        'redo',
        'true',
        'null',
        '[]',
        '{}',
        '{"id":1}',
        '1500,800',
        '2026-13-45',
        '2026-11-20', 'ten', 'position', 'out', 'miss', 'pot', '70', '💥', 'é',
    ];

    private const TOKENS = ['[],', '{},', '0,', '[', '"a",'];
    private const PIECES = ['1e999', '1e308', '-1e308', '-1', '0', '99999999999999999999', '"x"', 'null', '[]'];

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        $from = (int) (getenv('FUZZ_SEED') ?: 1);
        yield "seed $from" => [$from];
        yield 'seed '.($from + 1) => [$from + 1];
    }

    #[DataProvider('seeds')]
    public function testNonsenseIsNeverAFailure(int $seed): void
    {
        $before = \strlen(self::logged());
        $random = new Randomizer(new Xoshiro256StarStar($seed));
        $account = $this->signedIn();
        $sheet = $this->sheet($account, [0 => [0.9, 0.5], 4 => [1.7, 0.8], 5 => [1.75715, 0.8], 9 => [0.4, 1.0]]);
        static::getContainer()->get(LogImport::class)->take(
            $account,
            SimulatedPlayer::log(SimulatedPlayer::errors(new Randomness(5)), 3, new Randomness(6)),
        );
        $rack = static::getContainer()->get(LogEditor::class)->begin($account, Uuid::v7(), $sheet->getRack(), RackKind::Practice, $sheet);
        $token = $this->token($sheet);
        $rackToken = (string) $this->client->request('GET', "/racks/{$rack->getId()}/shoot")->filter('[data-shoot]')->attr('data-token');
        $logToken = (string) $this->client->request('GET', '/log')->filter('.log-result [name="_token"]')->attr('value');
        $routes = array_values(array_filter(
            static::getContainer()->get(RouterInterface::class)->getRouteCollection()->all(),
            static fn ($route): bool => !str_starts_with($route->getPath(), '/sign-') && !str_starts_with($route->getPath(), '/_'),
        ));
        $until = microtime(true) + (float) (getenv('FUZZ_SECONDS') ?: 12) / 2;
        $slow = $failed = [];
        for ($i = 0; microtime(true) < $until; ++$i) {
            $route = $routes[$random->getInt(0, \count($routes) - 1)];
            $methods = $route->getMethods() ?: ['GET'];
            $method = $methods[$random->getInt(0, \count($methods) - 1)];
            $values = $this->values($random);
            if (0 < $random->getInt(0, 9)) {
                $values['_token'] = match (true) {
                    str_starts_with($route->getPath(), '/racks') => $rackToken,
                    str_starts_with($route->getPath(), '/log') => $logToken,
                    default => $token,
                };
            }
            $own = str_starts_with($route->getPath(), '/racks') ? (string) $rack->getId() : (string) $sheet->getId();
            $path = str_replace('{id}', 0 < $random->getInt(0, 9) ? $own : rawurlencode($this->value($random)), $route->getPath());
            $files = str_ends_with($path, 'import') ? ['file' => $this->file($random)] : [];
            $start = self::worked();
            $this->client->request($method, $path, $values, $files, 1 === $random->getInt(0, 1) ? ['HTTP_HX_REQUEST' => 'true'] : []);
            $status = $this->client->getResponse()->getStatusCode();
            if ($status >= 500) {
                $failed[] = $method.' '.$path.' '.json_encode($values, \JSON_INVALID_UTF8_SUBSTITUTE).' '.$status;
            }
            // Worked, not waited: how busy the machine is says nothing of the page.
            if (self::worked() - $start > 2.0) {
                $slow[] = $method.' '.$path.' '.json_encode($values, \JSON_INVALID_UTF8_SUBSTITUTE);
            }
            $manager = static::getContainer()->get('doctrine')->resetManager();
            // What nonsense deleted or signed out comes back.
            $account = $manager->find(Account::class, $account->getId());
            self::assertNotNull($account);
            $this->client->loginUser($account);
            $manager->find(RackSheet::class, $sheet->getId())?->restore();
            $manager->flush();
        }
        self::assertSame([], $failed);
        self::assertSame([], $slow);
        // Nor a word of PHP's own in the log.
        self::assertDoesNotMatchRegularExpression('/php\.(WARNING|ERROR|CRITICAL)/', substr(self::logged(), $before));
        self::assertGreaterThan(10, $i);
    }

    private static function worked(): float
    {
        /** @var array<string, int>|false $usage */
        $usage = getrusage();
        \assert(false !== $usage);

        return $usage['ru_utime.tv_sec'] + $usage['ru_stime.tv_sec'] + 1e-6 * ($usage['ru_utime.tv_usec'] + $usage['ru_stime.tv_usec']);
    }

    private static function lesson(string $root): string
    {
        $rack = RackFile::parse((string) file_get_contents("$root/demo/5-nine-to-go.rack.json"))->rack;

        return (new LessonFile('A lesson', [
            LessonItem::words('# Words'),
            LessonItem::drill(DrillFile::parse((string) file_get_contents("$root/drills/dead-stop.drill.json"))),
            LessonItem::position($rack, Question::CueBall, 'Where to?'),
            LessonItem::run(PlanFile::parse((string) file_get_contents("$root/tests/Core/Format/two-legs.v1.plan.json"))),
        ]))->write();
    }

    /** Files of every format with pieces that are damaged, replaced or doubled: read, or refused with the faults; nothing else. */
    #[DataProvider('seeds')]
    public function testDamagedFilesAreReadOrRefused(int $seed): void
    {
        $root = \dirname(__DIR__, 2);
        $random = new Randomizer(new Xoshiro256StarStar($seed + 1000));
        $readers = [
            RackFile::parse(...), PlanFile::parse(...), LogFile::parse(...),
            static fn (string $json): ShotFile => ShotFile::parse($json),
            static fn (string $json): LessonFile => LessonFile::parse($json),
            static fn (string $json): LogPieces => new LogPieces($json),
        ];
        $whole = [
            (string) file_get_contents("$root/demo/5-nine-to-go.rack.json"),
            (string) file_get_contents("$root/tests/Core/Format/two-legs.v1.plan.json"),
            LogFile::write(SimulatedPlayer::log(SimulatedPlayer::errors(new Randomness(5)), 2, new Randomness(6))),
            '{"format":"zig-lane/shot","version":1,"layout":{"cue":[0.9,0.5],"1":[1.9,0.6]},"shot":{"direction":5.2,"speed":2.6,"side":0.1,"height":0.2,'
                .'"elevation":2}}',
            self::lesson($root),
        ];
        $whole[] = $whole[2];
        $kinds = \count($readers);
        $until = microtime(true) + (float) (getenv('FUZZ_SECONDS') ?: 12) / 4;
        $refused = 0;
        for ($i = 0; microtime(true) < $until; ++$i) {
            $json = $this->damaged($whole[$i % $kinds], $random);
            try {
                $readers[$random->getInt(0, 9) < 8 ? $i % $kinds : $random->getInt(0, $kinds - 1)]($json);
            } catch (InvalidFile) {
                ++$refused;
            }
        }
        self::assertGreaterThan(20, $refused);
    }

    /** Zips of an account whose files are damaged, named wrongly or full of one token: taken so far as they can be, and told. */
    #[DataProvider('seeds')]
    public function testDamagedZipsAreTakenOrTold(int $seed): void
    {
        $random = new Randomizer(new Xoshiro256StarStar($seed + 2000));
        $owner = $this->player();
        $this->sheet($owner);
        $desk = static::getContainer()->get(LessonDesk::class);
        $desk->keep($owner, LessonFile::parse(self::lesson(\dirname(__DIR__, 2))));
        static::getContainer()->get(LogImport::class)->take(
            $this->manager()->find(Account::class, $owner->getId()) ?? $owner,
            SimulatedPlayer::log(SimulatedPlayer::errors(new Randomness(5)), 3, new Randomness(6)),
        );
        $path = (string) tempnam(sys_get_temp_dir(), 'zip');
        static::getContainer()->get(AccountZip::class)->write($this->manager()->find(Account::class, $owner->getId()) ?? $owner, $path);
        $entries = [];
        $zip = new \ZipArchive();
        $zip->open($path);
        for ($i = 0; $i < $zip->numFiles; ++$i) {
            $entries[(string) $zip->getNameIndex($i)] = (string) $zip->getFromIndex($i);
        }
        $zip->close();
        self::assertArrayHasKey('log.json', $entries);
        $entries['account.json'] = str_replace('"side": 0.0', '"side": 1e308', $entries['account.json']);
        self::assertStringContainsString('1e308', $entries['account.json']);
        $until = microtime(true) + (float) (getenv('FUZZ_SECONDS') ?: 12) / 4;
        $told = 0;
        for ($i = 0; $i < 3 || microtime(true) < $until; ++$i) {
            $zip->open($path, \ZipArchive::OVERWRITE);
            foreach ($entries as $name => $content) {
                $name = 0 === $random->getInt(0, 9) ? (string) preg_replace('/[0-9a-f]/', '-', $name) : $name;
                $zip->addFromString($name, 0 === $random->getInt(0, 1) ? $this->damaged($content, $random) : $content);
            }
            $zip->close();
            $reader = static::getContainer()->get(AccountReader::class);
            try {
                $told += \count($reader->zip($owner->getId(), $path, static function (): void {})['failed']);
            } catch (Refused) {
                ++$told;
            }
            self::assertNotNull($this->manager()->find(Account::class, $owner->getId()), 'the database can be asked');
        }
        unlink($path);
        self::assertGreaterThan(0, $told);
    }

    private function damaged(string $json, Randomizer $random): string
    {
        for ($n = $random->getInt(1, 4); $n > 0; --$n) {
            $at = $random->getInt(0, \strlen($json) - 1);
            $length = $random->getInt(0, 12);
            $json = match ($random->getInt(0, 5)) {
                // One token over and over.
                5 => substr_replace($json, str_repeat(self::TOKENS[$random->getInt(0, 4)], $random->getInt(1, 30_000)), $at, 0),
                0 => substr_replace($json, $random->getBytes(1), $at, 1),
                1 => substr_replace($json, '', $at, $length),
                2 => substr_replace($json, substr($json, $at, $length), $at, 0),
                3 => (string) preg_replace('/-?\d+(\.\d+)?/', self::PIECES[$random->getInt(0, 8)], $json, $random->getInt(1, 3)),
                default => substr_replace($json, ['{', '}', '[', ']', ',', ':', '"', 'null', '\u0000'][$random->getInt(0, 8)], $at, 1),
            };
            $json = '' === $json ? '{' : $json;
        }

        return $json;
    }

    /** @return array<string, mixed> */
    private function values(Randomizer $random): array
    {
        $values = [];
        for ($n = $random->getInt(0, 8); $n > 0; --$n) {
            $value = $this->value($random);
            $values[self::FIELDS[$random->getInt(0, \count(self::FIELDS) - 1)]] = match ($random->getInt(0, 14)) {
                0 => [$value],
                1 => ['a' => [$value]],
                default => $value,
            };
        }

        return $values;
    }

    private function value(Randomizer $random): string
    {
        return match ($random->getInt(0, 12)) {
            0 => $random->getBytes($random->getInt(1, 30)),
            1 => str_repeat('9', $random->getInt(1, 300)),
            2 => (string) ($random->getInt(-10_000, 10_000) / 100),
            default => self::VALUES[$random->getInt(0, \count(self::VALUES) - 1)],
        };
    }

    private function file(Randomizer $random): UploadedFile
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'fuzz');
        $valid = ['{"format":"zig-lane/log","version":1,"outings":[{"racks":[{"game":"nine-ball","shots":[{"result":{"made":true}}]}]}]}',
            '{"format":"zig-lane/rack","version":1,"game":"nine-ball","layoutDiamonds":{"cue":[1,1],"9":[4,2]}}'][$random->getInt(0, 1)];
        for ($n = $random->getInt(0, 6); $n > 0; --$n) {
            $at = $random->getInt(0, \strlen($valid) - 1);
            $valid = substr_replace($valid, $random->getBytes(1), $at, 1);
        }
        file_put_contents($path, $valid);

        return new UploadedFile($path, $this->value($random).'.json', 'application/json', null, true);
    }
}
