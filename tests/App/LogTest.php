<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\DBAL\Connection;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\DomCrawler\Field\ChoiceFormField;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\LogFitJob;
use ZigLane\App\Log\LogImport;
use ZigLane\App\Log\LogReader;
use ZigLane\App\Message\FitLog;
use ZigLane\App\Message\TakeIn;
use ZigLane\App\Messenger\FitLogHandler;
use ZigLane\App\Messenger\TakeInHandler;
use ZigLane\App\Repository\Imports;
use ZigLane\App\Repository\LogFits;
use ZigLane\Core\Format\FitFile;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Log\Log;
use ZigLane\Core\Log\LoggedRack;
use ZigLane\Core\Log\Outing;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Player\Randomness;
use ZigLane\Tests\SimulatedPlayer;

/** The log as a whole: in and out again, found by what is asked for, fitted, and quick with many shots. */
final class LogTest extends AppTestCase
{
    /** @var array<int, Log> */
    private static array $logs = [];

    public function testALogThatIsTakenInComesOutAgain(): void
    {
        $account = $this->signedIn();
        $log = self::log(25);
        $this->import($account, LogFile::write($log));
        self::assertStringContainsString('shots 25', $this->text());
        $again = $this->whole($account);
        self::assertCount(25, $again->shots());
        $plain = static fn (Log $log): array => array_map(
            static fn ($shot): array => array_diff_key(LogFile::shotArray($shot), ['id' => 1]),
            $log->shots(),
        );
        self::assertEquals(json_encode($plain($log)), json_encode($plain($again)));
        // The same file again counts nothing twice.
        $this->import($account, LogFile::write($log));
        self::assertStringContainsString('shots that were there already 25', $this->text());
        self::assertCount(25, $this->whole($account)->shots());
        // Another player's import of the same file is his own.
        $other = $this->signedIn('Jonas');
        $this->import($other, LogFile::write($log));
        self::assertCount(25, $this->whole($other)->shots());
    }

    public function testFilesCanBeExported(): void
    {
        $account = $this->signedIn();
        static::getContainer()->get(LogImport::class)->take($account, self::log(5));
        $this->client->request('GET', '/log/export.json');
        self::assertResponseIsSuccessful();
        $exported = LogFile::parse((string) $this->client->getInternalResponse()->getContent());
        self::assertCount(5, $exported->shots());
        $start = static fn (Log $log): array => array_map(
            static fn (LoggedRack $rack): array => [$rack->start, $rack->ballInHand, $rack->end, $rack->kind],
            array_merge(...array_map(static fn (Outing $one): array => $one->racks, $log->outings)),
        );
        self::assertEquals($start(self::log(5)), $start($exported));
        self::assertEquals(self::log(5)->outings[0]->equipment, $exported->outings[0]->equipment);
        $this->client->request('GET', '/log/export.csv');
        self::assertResponseIsSuccessful();
        $lines = explode("\n", trim((string) $this->client->getInternalResponse()->getContent()));
        self::assertCount(6, $lines);
        self::assertStringStartsWith('date,place,rack', $lines[0]);
    }

    public function testAFileThatIsNoLogIsRefusedByPlace(): void
    {
        $account = $this->signedIn();
        $json = str_replace('"kind":"pot"', '"kind":"jump"', LogFile::write(self::log(2)));
        $this->import($account, $json);
        self::assertStringContainsString('outings.0.racks.0.shots.0.kind', $this->text());
        self::assertCount(0, $this->whole($account)->shots());
    }

    public function testAPlaceCannotBeAFormulaInASpreadsheet(): void
    {
        $account = $this->signedIn();
        $log = self::log(1);
        $json = str_replace('"place":"back room"', '"place":"=1+1"', LogFile::write($log));
        static::getContainer()->get(LogImport::class)->take($account, LogFile::parse($json));
        $this->client->request('GET', '/log/export.csv');
        self::assertStringContainsString("'=1+1", (string) $this->client->getInternalResponse()->getContent());
        $this->client->request('GET', '/log?place='.rawurlencode('=1+1'));
        self::assertStringContainsString('3 in', $this->text());
    }

    public function testShotsAreFoundByWhatIsAskedFor(): void
    {
        $account = $this->signedIn();
        static::getContainer()->get(LogImport::class)->take($account, self::log(60));
        $log = $this->whole($account);
        $made = \count(array_filter($log->shots(), static fn ($shot): bool => true === $shot->result->isMade));
        $rows = fn (string $query): int => $this->client->request('GET', '/log'.$query)->filter('.log-table tbody tr')->count();
        self::assertSame(50, $rows(''));
        $next = (string) $this->client->getCrawler()->selectLink('Earlier shots')->attr('href');
        self::assertSame(10, $this->client->request('GET', $next)->filter('.log-table tbody tr')->count());
        self::assertSame(min(50, $made), $rows('?made=1'));
        self::assertSame(0, $rows('?game=eight-ball'));
        self::assertSame(0, $rows('?from=2030-01-01'));
        self::assertSame(0, $rows('?kind=bank'));
        self::assertSame(50, $rows('?table=9'));
        self::assertSame(0, $rows('?table=7'));
        // What is not understood is left out, not a failure.
        foreach (['?from=never', '?kind=%00', '?after=1~2', '?made=7', '?game[]=1'] as $query) {
            $this->client->request('GET', '/log'.$query);
            self::assertLessThan(500, $this->client->getResponse()->getStatusCode(), $query);
        }
    }

    public function testErrorsAreFoundByAWorkerAndUsedUnlessRefused(): void
    {
        $account = $this->signedIn();
        static::getContainer()->get(LogImport::class)->take($account, self::log(110));
        $page = $this->client->request('GET', '/numbers');
        self::assertStringContainsString('Nothing is fitted yet', $this->text());
        $this->client->submit($page->selectButton('Work out my errors')->form());
        $job = static::getContainer()->get(LogFits::class)->latest($account);
        self::assertNotNull($job);
        $this->manager()->clear();
        static::getContainer()->get(FitLogHandler::class)(new FitLog((string) $job->getId(), (string) $account->getId()));
        $this->manager()->clear();
        $this->client->request('GET', '/numbers');
        self::assertStringContainsString('110 of 110 shots', $this->text());
        self::assertStringContainsString('Plans use your log now.', $this->text());
        // Asked for a plan, a sheet takes the errors over.
        $account = $this->manager()->find(Account::class, $account->getId());
        self::assertNotNull($account);
        $sheet = $this->sheet($account);
        $this->client->request('POST', "/sheets/{$sheet->getId()}/run-out", ['_token' => $this->token($sheet)]);
        $answer = $this->manager()->find(LogFitJob::class, $job->getId())?->getAnswer() ?? [];
        self::assertEquals(FitFile::player($answer), $this->reloaded($sheet)->getRack()->player);
        self::assertNotEquals(new ExecutionErrors(), FitFile::player($answer));
        // And not when he refuses.
        $page = $this->client->request('GET', '/numbers');
        $form = $page->selectButton('Set')->last()->form();
        $use = $form['use'];
        self::assertInstanceOf(ChoiceFormField::class, $use);
        $use->untick();
        $this->client->submit($form);
        self::assertStringContainsString('errors of each sheet', $this->client->followRedirect()->text());
    }

    public function testAResultAloneIsLogged(): void
    {
        $this->signedIn();
        $page = $this->client->request('GET', '/log');
        $form = $page->selectButton('Log it')->form(['game' => 'straight-pool', 'end' => 'miss', 'balls' => '37', 'racks' => '2']);
        $this->client->submit($form);
        // Sent twice, it counts once.
        $this->client->submit($form);
        $row = $this->client->request('GET', '/log/records')->filter('tbody tr')->first()->children();
        self::assertSame(
            ['Straight pool', '1', '0 (0 %)', '0', '37', 'missed 1'],
            $row->each(static fn (Crawler $cell): string => trim($cell->text())),
        );
    }

    public function testABreakAloneIsLoggedAndCounted(): void
    {
        $this->signedIn();
        $page = $this->client->request('GET', '/log');
        $form = $page->selectButton('Log it')->last()->form([
            'game' => 'nine-ball', 'fell' => '2, 6', 'cue' => '4,2', 'one' => '1.2, 3', 'shot' => 'yes', 'wing' => 'yes',
        ]);
        $this->client->submit($form);
        $this->client->submit($form);
        $cells = $this->client->request('GET', '/log/records')->filter('table')->eq(1)->filter('tbody td')
            ->each(static fn (Crawler $cell): string => trim($cell->text()));
        self::assertSame(['1', '2', '0 %', '0', '1 of 1', '1 of 1', 'head third 1'], $cells);
    }

    /** The list of a log of many shots comes quickly, whatever is asked for, and so does its last page. */
    public function testFiftyThousandShotsAreListedQuickly(): void
    {
        $account = $this->signedIn();
        static::getContainer()->get(LogImport::class)->take($account, self::log(50));
        $connection = static::getContainer()->get(Connection::class);
        $rack = $connection->fetchOne('SELECT id FROM shot_rack WHERE owner_id = ?', [$account->getId()->toBinary()]);
        // Copies of the shots, a minute apart, a thousand times.
        $connection->executeStatement('SET SESSION max_recursive_iterations = 2000');
        $connection->executeStatement(
            'INSERT INTO shot (id, owner_id, rack_id, number, game, kind, shot_at, ball, pocket, is_made, has_position, is_foul, make, guess, distance, cut, speed, group_bits, entry)'
            .' WITH RECURSIVE n (i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < 1000)'
            .' SELECT UNHEX(REPLACE(UUID(), "-", "")), owner_id, rack_id, number + 50 * n.i, game, kind, shot_at - INTERVAL n.i HOUR, ball, pocket, is_made, has_position, is_foul, make, guess,'
            .' distance, cut, speed, group_bits, entry FROM shot JOIN n WHERE rack_id = ?',
            [$rack],
        );
        $connection->fetchAllAssociative('ANALYZE TABLE shot');
        foreach (['', '?made=0', '?kind=pot', '?game=nine-ball', '?kind=thin', '?to=2026-10-25'] as $query) {
            $this->client->request('GET', '/log'.$query);
            $start = hrtime(true);
            $this->client->request('GET', '/log'.$query);
            self::assertResponseIsSuccessful();
            self::assertLessThan(0.2, (hrtime(true) - $start) / 1e9, 'list '.$query);
        }
        $start = hrtime(true);
        self::assertCount(2000, static::getContainer()->get(LogReader::class)->latest($account, 2000)->shots());
        self::assertLessThan(10.0, (hrtime(true) - $start) / 1e9);
        $connection->executeStatement('DELETE FROM shot WHERE rack_id = ?', [$rack]);
    }

    public function testNobodySeesAnothersLog(): void
    {
        $account = $this->player();
        static::getContainer()->get(LogImport::class)->take($account, self::log(3));
        $this->signedIn('Jonas');
        foreach (['/log', '/log/records', '/numbers', '/log/export.json', '/log/export.csv'] as $page) {
            $this->client->request('GET', $page);
            self::assertResponseIsSuccessful();
            self::assertStringNotContainsString('back room', (string) $this->client->getInternalResponse()->getContent());
        }
        $this->client->request('POST', '/log/import', ['_token' => 'wrong']);
        self::assertResponseStatusCodeSame(403);
    }

    private static function log(int $shots): Log
    {
        return self::$logs[$shots] ??= SimulatedPlayer::log(SimulatedPlayer::errors(new Randomness(5)), $shots, new Randomness(6));
    }

    /** All of it, as it is exported. */
    private function whole(Account $account): Log
    {
        $reader = static::getContainer()->get(LogReader::class);
        $account = $this->manager()->find(Account::class, $account->getId()) ?? self::fail();

        return new Log($reader->player($account), iterator_to_array($reader->outings($account), false));
    }

    /** Sends a file and lets a worker take it in; then the page says what came of it. */
    private function import(Account $account, string $json): void
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'log');
        file_put_contents($path, $json);
        $token = $this->client->request('GET', '/log')->filter('.log-result [name="_token"]')->attr('value');
        $this->client->request(
            'POST',
            '/log/import',
            ['_token' => $token],
            ['file' => new UploadedFile($path, 'mine.log.json', 'application/json', null, true)],
        );
        self::assertResponseStatusCodeSame(303);
        $this->client->followRedirect();
        self::assertStringContainsString('is being taken in', $this->text());
        $imports = static::getContainer()->get(Imports::class);
        $job = $imports->latest($this->manager()->find(Account::class, $account->getId()) ?? $account);
        self::assertNotNull($job);
        static::getContainer()->get(TakeInHandler::class)(new TakeIn((string) $job->getId(), (string) $account->getId()));
        $this->manager()->clear();
        $this->client->request('GET', '/log');
    }
}
