<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\DBAL\Connection;
use Doctrine\DBAL\Driver\PDO\Exception as DriverException;
use Doctrine\DBAL\DriverManager;
use Doctrine\DBAL\Exception\ConnectionException;
use Doctrine\DBAL\Exception\DeadlockException;
use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Clock\MockClock;
use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpFoundation\Session\Session;
use Symfony\Component\HttpFoundation\Session\Storage\MetadataBag;
use Symfony\Component\HttpFoundation\Session\Storage\MockArraySessionStorage;
use Symfony\Component\HttpKernel\Event\ExceptionEvent;
use Symfony\Component\HttpKernel\Event\RequestEvent;
use Symfony\Component\HttpKernel\Exception\TooManyRequestsHttpException;
use Symfony\Component\HttpKernel\HttpKernelInterface;
use Symfony\Component\HttpKernel\KernelEvents;
use Symfony\Component\Process\Process;
use ZigLane\App\Entity\PlanState;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\EventListener\PlainErrors;
use ZigLane\App\Sheet\OneLook;
use ZigLane\App\State\OldSessions;
use ZigLane\App\Work\FairShare;
use ZigLane\Core\Motion\OutOfTime;
use ZigLane\Core\Motion\Strike;
use ZigLane\Core\Shot\ShotSolver;
use ZigLane\Tests\Table;

/** Nobody keeps the site from others, and what is asked badly or goes wrong is told plainly. */
final class HoldsTest extends AppTestCase
{
    public function testHoweverOftenAPlanIsAskedForASheetHasOneUnderWay(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $token = $this->token($sheet);
        for ($i = 0; $i < 12; ++$i) {
            $this->client->request('POST', "/sheets/{$sheet->getId()}/run-out", ['_token' => $token]);
            self::assertResponseRedirects();
        }
        $states = static::getContainer()->get(Connection::class)->fetchAllKeyValue(
            'SELECT state, COUNT(*) FROM plan_job WHERE sheet_id = ? GROUP BY state',
            [$sheet->getId()->toBinary()],
        );
        self::assertEquals(1, $states[PlanState::Waiting->value] ?? 0);
        // Of those that are over only the newest few are kept.
        self::assertLessThanOrEqual(4, array_sum($states));
    }

    public function testAnAccountHasAFewPlansUnderWayAtTheMost(): void
    {
        $account = $this->signedIn();
        $sheets = array_map(fn (): RackSheet => $this->sheet($account), range(1, 5));
        $token = $this->token($sheets[0]);
        foreach ($sheets as $i => $sheet) {
            $this->client->request('POST', "/sheets/{$sheet->getId()}/run-out", ['_token' => $token]);
            self::assertResponseStatusCodeSame($i < 4 ? 303 : 429);
        }
        self::assertSame('10', $this->client->getResponse()->headers->get('Retry-After'));
        self::assertStringContainsString('plans of yours', $this->text());
        // Another account is not kept waiting.
        static::getContainer()->get('doctrine')->resetManager();
        $other = $this->sheet($this->signedIn('Jonas'));
        $this->client->request('POST', "/sheets/{$other->getId()}/run-out", ['_token' => $this->token($other)]);
        self::assertResponseRedirects();
    }

    /** A rack taken to the table anew, thirty times: the racks are there, and no more plans are under way than of anything else. */
    public function testHoweverOftenARackIsTakenToTheTableAFewPlansAreUnderWay(): void
    {
        $account = $this->signedIn();
        $sheet = $this->sheet($account);
        $token = $this->token($sheet);
        for ($i = 0; $i < 30; ++$i) {
            $this->client->request('POST', "/sheets/{$sheet->getId()}/shoot", ['_token' => $token, 'anew' => 1]);
            self::assertResponseRedirects();
        }
        $this->client->followRedirect();
        self::assertResponseIsSuccessful();
        $waiting = static::getContainer()->get(Connection::class)->fetchOne(
            'SELECT COUNT(*) FROM work_queue WHERE party = ?',
            [(string) $account->getId()],
        );
        self::assertEquals(8, $waiting, 'two messages for each of four plans');
    }

    public function testAnAccountHasItsShareOfTheWorkersInAnHour(): void
    {
        $account = $this->signedIn();
        $sheet = $this->sheet($account);
        $token = $this->token($sheet);
        $share = static::getContainer()->get(FairShare::class);
        $share->add((string) $account->getId(), 2399.0);
        $this->client->request('POST', "/sheets/{$sheet->getId()}/run-out", ['_token' => $token]);
        self::assertResponseRedirects();
        $share->add((string) $account->getId(), 2.0);
        $this->client->request('POST', "/sheets/{$sheet->getId()}/run-out", ['_token' => $token]);
        self::assertResponseStatusCodeSame(429);
        self::assertSame('600', $this->client->getResponse()->headers->get('Retry-After'));
        self::assertStringContainsString('share of the workers', $this->text());
    }

    /** A hundred looks at once hold three pages at the most: one is worked out, two wait, the others are told so at once. */
    public function testLooksThatWaitAreFew(): void
    {
        $account = $this->player();
        $one = static::getContainer()->get(OneLook::class);
        $other = DriverManager::getConnection(static::getContainer()->get(Connection::class)->getParams());
        foreach (['', '-waits-0', '-waits-1'] as $end) {
            self::assertEquals(1, $other->fetchOne('SELECT GET_LOCK(?, 0)', ['lane-look-'.$account->getId().$end]));
        }
        $start = microtime(true);
        try {
            $one->of(new Request(), $account, new ShotSolver(), static fn (): int => 1);
            self::fail('It was let through.');
        } catch (TooManyRequestsHttpException) {
            self::assertLessThan(0.5, microtime(true) - $start);
        }
        $other->close();
    }

    public function testAnAccountHasOneLookAtATime(): void
    {
        $account = $this->player();
        $one = static::getContainer()->get(OneLook::class);
        // Another connection holds the account's lock, as another process would.
        $other = DriverManager::getConnection(static::getContainer()->get(Connection::class)->getParams());
        self::assertEquals(1, $other->fetchOne('SELECT GET_LOCK(?, 0)', ['lane-look-'.$account->getId()]));
        try {
            $one->of(new Request(), $account, new ShotSolver(), static fn (): int => 1);
            self::fail('It was let through.');
        } catch (TooManyRequestsHttpException $e) {
            self::assertEquals('1', $e->getHeaders()['Retry-After'] ?? null);
        }
        $other->fetchOne('SELECT RELEASE_LOCK(?)', ['lane-look-'.$account->getId()]);
        self::assertSame(
            0,
            $one->of(new Request(), $account, new ShotSolver(), static fn (ShotSolver $solver): int => $solver->simulator->shots()),
        );
    }

    public function testALookEndsAfterASecondOfComputing(): void
    {
        $layout = Table::layout([0 => [0.9, 0.5], 4 => [1.7, 0.8], 9 => [0.4, 1.0]]);
        $start = microtime(true);
        try {
            static::getContainer()->get(OneLook::class)->of(
                new Request(),
                $this->player(),
                new ShotSolver(),
                static function (ShotSolver $solver) use ($layout): void {
                    $rollouts = $solver->simulator->rollouts($layout);
                    // Half a minute of it.
                    for ($i = 0; $i < 600_000; ++$i) {
                        $rollouts->play(Strike::degrees(10.0, 3.0));
                    }
                },
            );
            self::fail('It went on to its end.');
        } catch (OutOfTime) {
            self::assertLessThan(8.0, microtime(true) - $start);
        }
    }

    /** A newer look of the same page ends the older one, whichever process it comes to: they share the database and nothing else. */
    public function testANewerLookEndsTheOlderOne(): void
    {
        $layout = Table::layout([0 => [0.9, 0.5], 4 => [1.7, 0.8], 9 => [0.4, 1.0]]);
        $newer = new OneLook(DriverManager::getConnection(static::getContainer()->get(Connection::class)->getParams()));
        $start = microtime(true);
        try {
            static::getContainer()->get(OneLook::class)->of(
                new Request(['look' => 'zone']),
                $this->player(),
                new ShotSolver(),
                function (ShotSolver $solver) use ($layout, $newer): void {
                    $newer->of(new Request(['look' => 'zone']), $this->player('Jonas'), new ShotSolver(), static fn (): int => 1);
                    $rollouts = $solver->simulator->rollouts($layout);
                    for ($i = 0; $i < 600_000; ++$i) {
                        $rollouts->play(Strike::degrees(10.0, 3.0));
                    }
                },
                60.0,
            );
            self::fail('It went on to its end.');
        } catch (OutOfTime) {
            self::assertLessThan(5.0, microtime(true) - $start);
        }
    }

    /** A warning of our own code ends that piece of work; nothing is computed on with a value that is not there. */
    public function testAWarningIsAFailure(): void
    {
        $root = \dirname(__DIR__, 2);
        $code = <<<'PHP'
            require $argv[1].'/vendor/autoload.php';
            (new ZigLane\App\Kernel('test', false))->boot();
            try {
                ZigLane\Core\Plan\Tally::fromArray([]);
                echo 'went on';
            } catch (ErrorException $e) {
                echo $e->getMessage();
            }
            PHP;
        $process = new Process([\PHP_BINARY, '-r', $code, $root], $root, ['APP_ENV' => 'test']);
        self::assertSame(0, $process->run(), $process->getErrorOutput());
        self::assertStringStartsWith('Undefined array key', $process->getOutput());
    }

    public function testADatabaseThatIsAwayForSecondsSignsNobodyOut(): void
    {
        $request = new Request();
        $request->attributes->set('_security_firewall_run', '_security_main');
        $gone = new ConnectionException(DriverException::new(new \PDOException('gone')), null);
        $event = new ExceptionEvent(self::createStub(HttpKernelInterface::class), $request, HttpKernelInterface::MAIN_REQUEST, $gone);
        static::getContainer()->get(PlainErrors::class)($event);
        self::assertSame(503, $event->getResponse()?->getStatusCode());
        self::assertSame('10', $event->getResponse()->headers->get('Retry-After'));
        // By this attribute the firewall knows whose token it has to write back: without it the session stays as it is.
        self::assertFalse($request->attributes->has('_security_firewall_run'));
    }

    /** Two changes that meet in the database: the one that was taken back is made again, and nobody is told. */
    public function testARequestThatTheDatabaseTookBackIsHandledAgain(): void
    {
        // How often it was begun, and how often it is to fail.
        $state = new \ArrayObject([0, 2]);
        $deadlock = new DeadlockException(DriverException::new(new \PDOException('Deadlock found')), null);
        static::getContainer()->get('event_dispatcher')->addListener(
            KernelEvents::REQUEST,
            static function () use ($state, $deadlock): void {
                ++$state[0];
                if ($state[0] <= $state[1]) {
                    throw $deadlock;
                }
            },
            4000,
        );
        $this->client->request('GET', '/sign-in');
        self::assertResponseIsSuccessful();
        self::assertSame(3, $state[0]);
        // Not for ever: then it is told.
        $state->exchangeArray([0, 99]);
        $this->client->request('GET', '/sign-in');
        self::assertResponseStatusCodeSame(409);
        self::assertSame(4, $state[0]);
    }

    public function testASessionThatWasNotUsedForWeeksIsOver(): void
    {
        foreach ([[10, true], [60, false]] as [$days, $isKept]) {
            $storage = new MockArraySessionStorage('zig_lane', new MetadataBag('_sf2_meta', 3600));
            $used = time() - 86400 * $days;
            $storage->setSessionData([
                '_sf2_meta' => ['c' => $used, 'u' => $used, 'l' => 0],
                '_sf2_attributes' => ['_security_main' => 'token'],
            ]);
            $session = new Session($storage);
            $request = new Request(cookies: ['zig_lane' => 'x']);
            $request->setSession($session);
            (new OldSessions(new MockClock()))(new RequestEvent(
                self::createStub(HttpKernelInterface::class),
                $request,
                HttpKernelInterface::MAIN_REQUEST,
            ));
            self::assertSame($isKept, $session->has('_security_main'), "$days days");
        }
    }

    /** @return iterable<string, array{string, string, array<string, mixed>}> */
    public static function asked(): iterable
    {
        yield 'a list for a word' => ['GET', '/sheets?deleted[]=1', []];
        yield 'a list in the log' => ['GET', '/log?deleted[]=1', []];
        yield 'letters that are none' => ['POST', '/sheets/{id}/name', ['name' => "\xC3\x28"]];
        yield 'a seed beyond a number' => ['POST', '/sheets/{id}/run-out', ['seed' => '3000000000']];
        yield 'wishes that are no text' => ['POST', '/sheets/{id}/run-out', ['forbidden' => "\xFF 4 FL"]];
        yield 'a list of legs' => ['GET', '/sheets/{id}/plan?leg[]=1', []];
        yield 'a spot that is none' => ['POST', '/sheets/{id}/layout', ['change' => 'place', 'ball' => "\xFF", 'at' => '1e999,2']];
        yield 'no submission' => ['POST', '/sheets/import', []];
        yield 'a guess that is none' => ['POST', '/sheets/{id}/tries', ['guess' => 'many']];
        yield 'a result without a game' => ['POST', '/log/result', ['id' => 'x']];
        yield 'a break of no ball' => [
            'POST',
            '/log/break',
            ['game' => 'nine-ball', 'id' => '01a225c6-28dc-7849-acb6-1926540503bb', 'fell' => '17'],
        ];
    }

    /** @param array<string, mixed> $values */
    #[DataProvider('asked')]
    public function testWhatIsAskedBadlyIsNeverAFailure(string $method, string $path, array $values): void
    {
        $sheet = $this->sheet($this->signedIn());
        $values += ['_token' => $this->token($sheet), 'version' => (string) $sheet->getVersion()];
        if (str_starts_with($path, '/log/')) {
            $values['_token'] = $this->client->request('GET', '/log')->filter('.log-result [name="_token"]')->attr('value');
        }
        $this->client->request($method, str_replace('{id}', (string) $sheet->getId(), $path), $values);
        self::assertLessThan(500, $this->client->getResponse()->getStatusCode());
    }
}
