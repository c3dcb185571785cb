<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\Attributes\DataProvider;
use Random\Engine\Xoshiro256StarStar;
use Random\Randomizer;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\Routing\RouterInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Log\LogEditor;
use ZigLane\App\Log\LogImport;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Player\Randomness;
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
        $until = microtime(true) + (float) (getenv('FUZZ_SECONDS') ?: 20) / 2;
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
            $start = microtime(true);
            $this->client->request($method, $path, $values, $files, 1 === $random->getInt(0, 1) ? ['HTTP_HX_REQUEST' => 'true'] : []);
            $status = $this->client->getResponse()->getStatusCode();
            if ($status >= 500) {
                $failed[] = $method.' '.$path.' '.json_encode($values, \JSON_INVALID_UTF8_SUBSTITUTE).' '.$status;
            }
            if (microtime(true) - $start > 5.0) {
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
        self::assertGreaterThan(10, $i);
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
