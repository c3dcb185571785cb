<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\DBAL\Connection;
use Symfony\Component\Cache\Adapter\RedisAdapter;
use ZigLane\App\Kernel;
use ZigLane\App\State\DatabaseSessions;
use ZigLane\App\State\StateStore;
use ZigLane\App\State\Tidying;

/** Sessions and limits are the database's: the same on every machine, gone when their time has come. */
final class StateTest extends AppTestCase
{
    private Connection $connection;
    private string $id;

    protected function setUp(): void
    {
        $this->connection = static::getContainer()->get(Connection::class);
        $this->id = bin2hex(random_bytes(16));
    }

    protected function tearDown(): void
    {
        unset($_SESSION);
        $this->connection->executeStatement('DELETE FROM sessions WHERE sess_id = ?', [$this->id]);
        parent::tearDown();
    }

    public function testASessionThatOneMachineWroteAnotherReads(): void
    {
        $_SESSION = ['_sf2_attributes' => ['_security_main' => 'token']];
        $sessions = $this->sessions();
        $sessions->write($this->id, 'what is kept');
        $sessions->close();

        $kernel = new Kernel('test', false);
        $kernel->boot();
        $other = $kernel->getContainer()->get('doctrine')->getConnection();
        self::assertInstanceOf(Connection::class, $other);
        $elsewhere = DatabaseSessions::in($other);
        $elsewhere->open('', 'zig_lane');
        self::assertSame('what is kept', $elsewhere->read($this->id));
        $kernel->shutdown();
        self::assertEqualsWithDelta(time() + 14 * 86400, $this->row()[0], 5);
    }

    public function testASessionOfNobodyIsForgottenAfterAnHour(): void
    {
        $_SESSION = ['_sf2_attributes' => ['_csrf/x' => 'token']];
        $this->sessions()->write($this->id, 'x');
        self::assertEqualsWithDelta(time() + 3600, $this->row()[0], 5);
        $this->connection->executeStatement('UPDATE sessions SET sess_lifetime = ? WHERE sess_id = ?', [time() - 1, $this->id]);
        static::getContainer()->get(Tidying::class)->tidy();
        self::assertFalse($this->connection->fetchOne('SELECT 1 FROM sessions WHERE sess_id = ?', [$this->id]));
    }

    public function testASessionThatIsOnlyReadIsWrittenEveryFewMinutes(): void
    {
        $_SESSION = ['_sf2_attributes' => ['_security_main' => 'token']];
        $sessions = $this->sessions();
        $sessions->write($this->id, 'x');
        $this->connection->executeStatement('UPDATE sessions SET sess_time = sess_time - 100 WHERE sess_id = ?', [$this->id]);
        $before = $this->row();
        $sessions->updateTimestamp($this->id, 'x');
        self::assertSame($before, $this->row());
        $this->connection->executeStatement('UPDATE sessions SET sess_time = sess_time - 300 WHERE sess_id = ?', [$this->id]);
        $sessions->updateTimestamp($this->id, 'x');
        self::assertEqualsWithDelta(time(), $this->row()[1], 5);
    }

    public function testLimitsAreCountedInTheDatabase(): void
    {
        $key = 'limit-'.bin2hex(random_bytes(6));
        $limits = static::getContainer()->get(StateStore::class)->limits();
        $limits->save($limits->getItem($key)->set(3)->expiresAfter(60));

        $again = (new StateStore($this->connection, ''))->limits();
        self::assertSame(3, $again->getItem($key)->get());
        $limits->deleteItem($key);
        // By one setting they are Redis's, which is not asked before it is needed.
        if (\extension_loaded('redis') || class_exists(\Predis\Client::class)) {
            self::assertInstanceOf(RedisAdapter::class, (new StateStore($this->connection, 'redis://127.0.0.1:9'))->limits());
        }
    }

    private function sessions(): DatabaseSessions
    {
        $sessions = static::getContainer()->get(StateStore::class)->sessions();
        self::assertInstanceOf(DatabaseSessions::class, $sessions);
        $sessions->open('', 'zig_lane');

        return $sessions;
    }

    /** @return array{int, int} until when it lives, when it was written */
    private function row(): array
    {
        $row = $this->connection->fetchNumeric('SELECT sess_lifetime, sess_time FROM sessions WHERE sess_id = ?', [$this->id]);
        self::assertNotFalse($row);
        self::assertIsNumeric($row[0]);
        self::assertIsNumeric($row[1]);

        return [(int) $row[0], (int) $row[1]];
    }
}
