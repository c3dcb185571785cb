<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use PHPUnit\Framework\Attributes\Before;
use Symfony\Bundle\FrameworkBundle\KernelBrowser;
use Symfony\Bundle\FrameworkBundle\Test\WebTestCase;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Message\WorkOnPlan;
use ZigLane\App\Messenger\WorkOnPlanHandler;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Tests\Table;

/** Pages over a real MariaDB; every test makes players of its own, so that none sees another's sheets. */
abstract class AppTestCase extends WebTestCase
{
    protected KernelBrowser $client;
    private const RESULT = ['state', 'candidates', 'due_blocks', 'done_blocks', 'drawn', 'plan', 'message', 'started_at', 'active_at', 'ended_at'];
    /** @var list<string> */
    private array $players = [];
    /** @var array<string, array<string, mixed>> what came of a job, by what it asks */
    private static array $worked = [];

    #[Before]
    protected function startClient(): void
    {
        $this->client = static::createClient();
        $this->client->disableReboot();
        // What other tests have counted against a limit is not this one's.
        static::getContainer()->get(Connection::class)->executeStatement('DELETE FROM cache_items');
    }

    /** What a test asked of the workers is not there for the next one's. */
    protected function tearDown(): void
    {
        foreach ($this->players as $id) {
            static::getContainer()->get(Connection::class)->executeStatement('DELETE FROM work_queue WHERE party = ?', [$id]);
        }
        $this->players = [];
        parent::tearDown();
    }

    /** A worker's share of a job, for a second: what comes of it is looked at, not how good it is. The same question is worked on once. */
    protected function workOn(PlanJob $job, Account $account): void
    {
        $connection = static::getContainer()->get(Connection::class);
        $id = ['id' => $job->getId()->toBinary()];
        $asked = $connection->fetchAssociative('SELECT kind, rack, constraints, weights, legs, opponent FROM plan_job WHERE id = :id', $id);
        $key = md5(serialize($asked));
        if (isset(self::$worked[$key])) {
            $connection->update('plan_job', self::$worked[$key], $id);
        } else {
            $connection->executeStatement('UPDATE plan_job SET seconds = 1 WHERE id = :id', $id);
            static::getContainer()->get(WorkOnPlanHandler::class)(new WorkOnPlan((string) $job->getId(), (string) $account->getId()));
            $done = $connection->fetchAssociative('SELECT '.implode(', ', self::RESULT).' FROM plan_job WHERE id = :id', $id);
            self::$worked[$key] = false === $done ? [] : $done;
        }
        $this->manager()->clear();
        $connection->executeStatement('DELETE FROM work_queue WHERE party = ?', [(string) $account->getId()]);
    }

    /** What stands in today's log, which is there whenever anything was logged. */
    protected static function logged(): string
    {
        $path = \dirname(__DIR__, 2).'/var/log/test-'.date('Y-m-d').'.log';

        return is_file($path) ? (string) file_get_contents($path) : '';
    }

    protected function manager(): EntityManagerInterface
    {
        return static::getContainer()->get(EntityManagerInterface::class);
    }

    protected function player(string $name = 'Ines'): Account
    {
        $account = new Account(\sprintf('%s-%s@example.org', strtolower($name), bin2hex(random_bytes(6))), $name, new \DateTimeImmutable());
        $this->manager()->persist($account);
        $this->manager()->flush();
        $this->players[] = (string) $account->getId();

        return $account;
    }

    protected function signedIn(string $name = 'Ines'): Account
    {
        $account = $this->player($name);
        $this->client->loginUser($account);

        return $account;
    }

    /** @param array<int, array{float, float}> $spots metres */
    protected function sheet(
        Account $owner,
        array $spots = [0 => [0.9, 0.5], 4 => [1.7, 0.8], 9 => [0.4, 1.0]],
        Game $game = Game::NineBall,
    ): RackSheet {
        return static::getContainer()->get(SheetEditor::class)->create(
            $owner,
            'Test rack',
            new Rack($game, Table::layout($spots)),
            Uuid::v4(),
        );
    }

    /** The sheet as the database holds it now. */
    protected function reloaded(RackSheet $sheet): RackSheet
    {
        $this->manager()->clear();
        $found = $this->manager()->find(RackSheet::class, $sheet->getId());
        self::assertNotNull($found);

        return $found;
    }

    protected function layoutPage(RackSheet $sheet): Crawler
    {
        return $this->client->request('GET', "/sheets/{$sheet->getId()}/layout");
    }

    /** The CSRF token that the sheet's pages carry. */
    protected function token(RackSheet $sheet): string
    {
        return (string) $this->layoutPage($sheet)->filter('[data-desk]')->attr('data-token');
    }

    /** @param array<string, string> $values */
    protected function change(RackSheet $sheet, array $values): Crawler
    {
        return $this->client->request(
            'POST',
            "/sheets/{$sheet->getId()}/layout",
            $values + ['_token' => $this->token($sheet), 'version' => (string) $sheet->getVersion()],
            [],
            ['HTTP_HX_REQUEST' => 'true'],
        );
    }

    protected function text(): string
    {
        $crawler = $this->client->getCrawler();

        return (string) preg_replace('/\s+/', ' ', $crawler->text(''));
    }
}
