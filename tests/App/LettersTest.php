<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\DBAL\Connection;
use Psr\Clock\ClockInterface;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\CommandTester;
use Symfony\Component\Mailer\Envelope;
use Symfony\Component\Mailer\Exception\TransportException;
use Symfony\Component\Mailer\Transport\TransportInterface;
use Symfony\Component\Messenger\Envelope as Posted;
use Symfony\Component\Messenger\Stamp\RedeliveryStamp;
use Symfony\Component\Messenger\Transport\Serialization\PhpSerializer;
use Symfony\Component\Mime\RawMessage;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Account\AccountCloser;
use ZigLane\App\Account\AccountReader;
use ZigLane\App\Account\AccountZip;
use ZigLane\App\Account\Devices;
use ZigLane\App\Camera\KeptPictures;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Entity\SignedIn;
use ZigLane\App\Log\LogEditor;
use ZigLane\App\Message\SendMail;
use ZigLane\App\Messenger\SendMailHandler;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Practice\PracticeEditor;
use ZigLane\App\Repository\AccountRepository;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Tables\TableShelf;
use ZigLane\App\Teaching\LessonDesk;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Format\LessonFile;
use ZigLane\Core\Format\LessonItem;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Table\Equipment;

/** Ways back by mail, devices, all of an account out and in, and its end. */
final class LettersTest extends AppTestCase
{
    private const PASSWORD = 'quite a long one';

    public function testAForgottenPasswordComesBackByMailOnce(): void
    {
        $account = $this->registered();
        $this->client->request('GET', '/forgot');
        $this->client->submitForm('Send me a link', ['email' => strtoupper($account->getEmail())]);
        $same = $this->text();
        $link = $this->link($account->getEmail(), 'reset');
        self::assertStringStartsWith('http://127.0.0.1', $link, 'never a host that the request names');
        // The word itself is in no table and no log.
        $word = basename($link);
        self::assertFalse(static::getContainer()->get(Connection::class)->fetchOne('SELECT 1 FROM letter WHERE hash = ?', [$word]));
        self::assertStringNotContainsString($word, self::logged());
        $this->client->request('GET', '/reset/'.$word);
        $this->client->submitForm('Change it', ['new' => 'short']);
        self::assertResponseStatusCodeSame(422);
        $this->client->submitForm('Change it', ['new' => 'a new one of mine']);
        self::assertResponseRedirects('/sign-in');
        // Once.
        $this->client->request('GET', '/reset/'.$word);
        self::assertResponseStatusCodeSame(404);
        self::assertTrue($this->signsIn($account->getEmail(), 'a new one of mine'));
        // Who has no account is told the same, and no letter is sent.
        $this->client->getCookieJar()->clear();
        $this->client->request('GET', '/forgot');
        $this->client->submitForm('Send me a link', ['email' => 'nobody@example.org']);
        self::assertSame($same, $this->text());
        self::assertNull($this->letter('nobody@example.org'));
    }

    public function testOnlyTheLatestLetterIsGoodAndForAnHour(): void
    {
        $account = $this->registered();
        $words = [];
        foreach ([1, 2] as $time) {
            $this->client->request('GET', '/forgot');
            $this->client->submitForm('Send me a link', ['email' => $account->getEmail()]);
            $words[] = basename($this->link($account->getEmail(), 'reset'));
        }
        $this->client->request('GET', '/reset/'.$words[0]);
        self::assertResponseStatusCodeSame(404);
        $this->client->request('GET', '/reset/'.$words[1]);
        self::assertResponseIsSuccessful();
        static::getContainer()->get(Connection::class)->executeStatement('UPDATE letter SET ends_at = ends_at - INTERVAL 61 MINUTE');
        $this->client->request('GET', '/reset/'.$words[1]);
        self::assertResponseStatusCodeSame(404);
        // No more than a few letters an hour to one address, and nobody learns that either.
        for ($i = 0; $i < 6; ++$i) {
            $this->client->request('GET', '/forgot');
            $this->client->submitForm('Send me a link', ['email' => $account->getEmail()]);
            self::assertResponseIsSuccessful();
        }
        $sent = static::getContainer()->get(Connection::class)->fetchOne(
            'SELECT COUNT(*) FROM letter WHERE account_id = ?',
            [$account->getId()->toBinary()],
        );
        self::assertLessThanOrEqual(4, $sent);
    }

    public function testAHostThatARequestNamesStandsInNoLetter(): void
    {
        $account = $this->registered();
        $this->client->setServerParameter('HTTP_HOST', 'evil.example');
        $this->client->request('GET', '/forgot');
        $this->client->submitForm('Send me a link', ['email' => $account->getEmail()]);
        $letter = $this->letter($account->getEmail());
        self::assertStringNotContainsString('evil.example', $letter->text ?? 'none was sent');
        self::assertNotNull($letter);
    }

    /** Somebody who was shut out by a new password has no letter left that moves the account. */
    public function testANewPasswordEndsEveryLetter(): void
    {
        foreach (['password', 'everywhere', 'reset'] as $how) {
            $account = $this->registered();
            self::assertTrue($this->signsIn($account->getEmail(), self::PASSWORD));
            $new = 'thief-'.bin2hex(random_bytes(4)).'@example.org';
            $this->client->request('GET', '/account');
            $this->client->submitForm('Send the letter', ['email' => $new, 'password' => self::PASSWORD]);
            $link = (string) parse_url($this->link($new, 'address'), \PHP_URL_PATH);
            $devices = static::getContainer()->get(Devices::class);
            match ($how) {
                'password' => $this->changesPassword(),
                default => $devices->endAll($account),
            };
            $this->client->getCookieJar()->clear();
            $this->client->request('GET', $link);
            self::assertResponseStatusCodeSame(404, $how);
            self::assertNull(static::getContainer()->get(AccountRepository::class)->byEmail($new), $how);
        }
    }

    /** An account that was moved away comes back from its old address, for a week, whatever the thief has done since. */
    public function testAMovedAccountComesBackFromItsOldAddress(): void
    {
        $account = $this->registered();
        $old = $account->getEmail();
        self::assertTrue($this->signsIn($old, self::PASSWORD));
        $new = 'thief-'.bin2hex(random_bytes(4)).'@example.org';
        $this->client->request('GET', '/account');
        $this->client->submitForm('Send the letter', ['email' => $new, 'password' => self::PASSWORD]);
        $this->client->request('GET', (string) parse_url($this->link($new, 'address'), \PHP_URL_PATH));
        $this->client->submitForm('Sign in with this address from now on');
        $back = (string) parse_url($this->link($old, 'back'), \PHP_URL_PATH);
        static::getContainer()->get(Devices::class)->endAll($account);
        $this->client->getCookieJar()->clear();

        $this->client->request('GET', $back);
        $accounts = static::getContainer()->get(AccountRepository::class);
        self::assertNull($accounts->byEmail($old), 'a link that is only followed moves nothing');
        $this->client->submitForm('Back to this address, and everybody signed out');
        self::assertNotNull(static::getContainer()->get(AccountRepository::class)->byEmail($old));
        self::assertFalse($this->signsIn($old, self::PASSWORD), 'whoever moved it knew the password');
        self::assertNotSame('', $this->link($old, 'reset'));
        $this->client->request('GET', $back);
        self::assertResponseStatusCodeSame(404);
    }

    private function changesPassword(): void
    {
        $this->client->request('GET', '/password');
        $this->client->submitForm('Change it', ['current' => self::PASSWORD, 'new' => 'another long one']);
        self::assertResponseRedirects('/account');
    }

    public function testANewAddressIsUsedWhenItsLetterIsAnswered(): void
    {
        $account = $this->registered();
        self::assertTrue($this->signsIn($account->getEmail(), self::PASSWORD));
        $new = 'new-'.bin2hex(random_bytes(4)).'@example.org';
        $this->client->request('GET', '/account');
        $this->client->submitForm('Send the letter', ['email' => $new, 'password' => 'wrong one']);
        self::assertResponseStatusCodeSame(422);
        $this->client->request('GET', '/account');
        $this->client->submitForm('Send the letter', ['email' => $new, 'password' => self::PASSWORD]);
        $link = $this->link($new, 'address');
        self::assertNotNull(static::getContainer()->get(AccountRepository::class)->byEmail($account->getEmail()), 'not yet');
        $this->client->request('GET', (string) parse_url($link, \PHP_URL_PATH));
        $this->client->submitForm('Sign in with this address from now on');
        self::assertNotNull(static::getContainer()->get(AccountRepository::class)->byEmail($new));
        self::assertStringContainsString('was changed', (string) $this->letter($account->getEmail())?->subject);
    }

    public function testADeviceIsSignedOutFromAnother(): void
    {
        $account = $this->registered();
        self::assertTrue($this->signsIn($account->getEmail(), self::PASSWORD));
        $this->client->request('GET', '/sheets');
        $here = $this->client->getCookieJar()->all();
        $this->client->getCookieJar()->clear();
        self::assertTrue($this->signsIn($account->getEmail(), self::PASSWORD));
        $page = $this->client->request('GET', '/account');
        self::assertCount(2, $page->filter('form[action="/account/devices"]'), 'the other one, and all of them');
        self::assertSame(2, $this->manager()->getRepository(SignedIn::class)->count(['account' => $account]));
        $this->client->submitForm('Sign out everywhere else');
        self::assertResponseRedirects('/account');
        $this->client->request('GET', '/sheets');
        self::assertResponseIsSuccessful();
        // The other one finds himself signed out at his next step, a fragment too.
        $this->client->getCookieJar()->clear();
        foreach ($here as $cookie) {
            $this->client->getCookieJar()->set($cookie);
        }
        $this->client->request('GET', '/sheets', server: ['HTTP_HX_REQUEST' => 'true']);
        self::assertResponseStatusCodeSame(401);
        $this->client->request('GET', '/sheets');
        self::assertResponseRedirects();
    }

    public function testAnAccountIsDeletedAWeekLaterUnlessThatIsTakenBack(): void
    {
        $account = $this->registered();
        $email = $account->getEmail();
        self::assertTrue($this->signsIn($email, self::PASSWORD));
        $sheet = $this->sheet($this->manager()->find(Account::class, $account->getId()) ?? $account);
        $close = function (): void {
            $this->client->request('GET', '/account');
            $this->client->submitForm('Delete it', ['password' => self::PASSWORD]);
            self::assertResponseRedirects('/sign-in');
        };
        $close();
        self::assertFalse($this->signsIn($email, self::PASSWORD));
        self::assertStringContainsString('closed', $this->text());
        $link = $this->link($email, 'undelete');
        $this->client->request('GET', (string) parse_url($link, \PHP_URL_PATH));
        $this->client->submitForm('Open it again, with everything in it');
        self::assertTrue($this->signsIn($email, self::PASSWORD));
        $close();
        $closer = static::getContainer()->get(AccountCloser::class);
        $closer->purge();
        self::assertNotNull(static::getContainer()->get(AccountRepository::class)->byEmail($email), 'six days are left');
        static::getContainer()->get(Connection::class)->executeStatement(
            'UPDATE account SET deleted_at = deleted_at - INTERVAL 8 DAY WHERE id = ?', [$account->getId()->toBinary()],
        );
        $closer->purge();
        $this->manager()->clear();
        self::assertNull(static::getContainer()->get(AccountRepository::class)->byEmail($email));
        self::assertNull(static::getContainer()->get(RackSheetRepository::class)->find($sheet->getId()));
    }

    /** What was exported and taken in by a fresh account is exported again as the same. */
    public function testAllOfAnAccountGoesIntoAnother(): void
    {
        $account = $this->player('Outgoing');
        $sheet = $this->sheet($account);
        $shelf = static::getContainer()->get(DrillShelf::class);
        $own = $shelf->keep($account, $shelf->drill($account, 'dead-stop')->file);
        $table = static::getContainer()->get(TableShelf::class)->keep($account, new TableFile('Mine', new Equipment(), 'worn'));
        static::getContainer()->get(TableShelf::class)->record($table, [
            'name' => 'roll', 'stroke' => ['tip' => [0, 0]], 'layoutDiamonds' => ['cue' => [2, 2]], 'direction' => 0,
            'seen' => ['cue' => [5.0, 2.0]], 'seconds' => 4.0,
        ]);
        static::getContainer()->get(LessonDesk::class)->keep($account, new LessonFile('Lesson', [LessonItem::words('**bold**')]));
        $editor = static::getContainer()->get(LogEditor::class);
        $editor->begin($account, Uuid::v7(), $sheet->getRack(), RackKind::Practice, $sheet);
        $tried = (string) json_encode(['guess' => 0.5, 'results' => ['made', 'safe']]);
        $editor->begin($account, Uuid::v7(), $sheet->getRack(), RackKind::Tries, $sheet, $tried);
        $image = imagecreatetruecolor(400, 300);
        self::assertNotFalse($image);
        static::getContainer()->get(KeptPictures::class)->keep($sheet, $image);
        static::getContainer()->get(PracticeEditor::class)->begin(
            $account,
            Uuid::v7(),
            $shelf->drill($account, (string) $own->getId()),
            0,
            true,
        );
        $account->live(true, true, 'Europe/Lisbon');
        $this->manager()->flush();
        $zip = static::getContainer()->get(AccountZip::class);
        [$first, $second] = [(string) tempnam(sys_get_temp_dir(), 'zip'), (string) tempnam(sys_get_temp_dir(), 'zip')];
        $zip->write($account, $first);
        $other = $this->player('Incoming');
        $reader = static::getContainer()->get(AccountReader::class);
        $read = static fn (Account $account, string $path): array => $reader->zip($account->getId(), $path, static function (): void {});
        $came = $read($other, $first);
        // A test of a table that is not understood goes alone, with its table's name.
        self::assertSame([], array_diff($came['failed'], ["tables/{$table->getId()}.table.json"]));
        self::assertSame(1, $came['taken']['sheets']);
        self::assertSame(1, $came['taken']['drills']);
        self::assertSame(1, $came['taken']['lessons']);
        self::assertSame(1, $came['taken']['sessions']);
        $this->manager()->clear();
        $other = $this->manager()->find(Account::class, $other->getId());
        self::assertNotNull($other);
        self::assertSame('Europe/Lisbon', $other->getTimeZone());
        self::assertTrue($other->isLeftHanded());
        // Racks lie on the sheet that they were shot from, tries are what they were, and the picture is there.
        $racks = $this->manager()->getRepository(ShotRack::class)->findBy(['owner' => $other]);
        self::assertCount(2, $racks);
        foreach ($racks as $rack) {
            self::assertSame($sheet->getName(), $rack->getSheet()?->getName());
            self::assertSame($other, $rack->getSheet()->getOwner());
            self::assertSame(RackKind::Tries === $rack->getKind() ? $tried : null, $rack->getPlan());
        }
        $took = $racks[0]->getSheet();
        self::assertNotNull($took);
        self::assertNotNull(static::getContainer()->get(KeptPictures::class)->of($took));
        // Twice is once.
        $again = $read($other, $first);
        self::assertSame(0, $again['taken']['sessions']);
        self::assertCount(1, static::getContainer()->get(RackSheetRepository::class)->ofOwner($other, 10));
        // A third account takes the same zip in, although the second one has its sheets, and whatever stands among them that is no sheet.
        $odd = new \ZipArchive();
        $odd->open($first);
        $odd->addFromString('sheets/'.str_repeat('-', 36).'.rack.json', '{}');
        $odd->close();
        $third = $this->player('Third');
        $came = $read($third, $first);
        self::assertSame([], array_diff($came['failed'], ["tables/{$table->getId()}.table.json"]));
        self::assertCount(1, static::getContainer()->get(RackSheetRepository::class)->ofOwner($third, 10));
        $odd->open($first);
        $odd->deleteName('sheets/'.str_repeat('-', 36).'.rack.json');
        $odd->close();
        // A file that is too long fails alone.
        copy($first, $second);
        $odd->open($second);
        $odd->addFromString('account.json', str_repeat(' ', 9_000_000));
        $odd->addFromString('practice-2.json', str_repeat(' ', 9_000_000));
        $odd->close();
        $came = $read($this->player('Fourth'), $second);
        $failed = array_values(array_diff($came['failed'], ["tables/{$table->getId()}.table.json"]));
        self::assertSame(['account.json', 'practice-2.json'], $failed);
        self::assertSame([1, 1, 1], [$came['taken']['sheets'], $came['taken']['lessons'], $came['taken']['sessions']]);
        $zip->write($other, $second);
        $sheets = static fn (string $path): array => self::files($path, 'sheets/');
        self::assertSame($sheets($first), $sheets($second));
        self::assertSame(self::files($first, 'drills/'), self::files($second, 'drills/'));
        // What is no zip is told.
        file_put_contents($second, 'no zip');
        $this->client->loginUser($other);
        $this->expectException(Refused::class);
        $read($other, $second);
    }

    /** A mail server that is away: the letter waits, is tried again, and the coach is told that it has not gone. */
    public function testALetterWaitsForAMailServerThatIsAway(): void
    {
        $transport = new class implements TransportInterface {
            public function send(RawMessage $message, ?Envelope $envelope = null): never
            {
                throw new TransportException('away');
            }

            public function __toString(): string
            {
                return 'away://';
            }
        };
        $handler = new SendMailHandler(
            $transport,
            static::getContainer()->get(Connection::class),
            static::getContainer()->get(ClockInterface::class),
        );
        $retry = static::getContainer()->get('messenger.retry.multiplier_retry_strategy.mail');
        $letter = new Posted(new SendMail('a@example.org', 'b@example.org', 'x', 'y', 'z'));
        for ($tries = $waits = 0; $retry->isRetryable($letter); ++$tries) {
            $waits += $retry->getWaitingTime($letter) / 1000;
            $letter = $letter->withoutAll(RedeliveryStamp::class)->with(new RedeliveryStamp($tries + 1));
        }
        self::assertGreaterThan(86_400, $waits, 'a mail server may be away for a day');
        $this->expectException(TransportException::class);
        $handler(new SendMail('a@example.org', 'b@example.org', 'x', 'y', 'z'));
    }

    /** Whoever runs the site helps by the console, and sees no more than he needs. */
    public function testTheConsoleGivesAWayBack(): void
    {
        $account = $this->registered();
        $kernel = self::$kernel;
        self::assertNotNull($kernel);
        $command = new CommandTester((new Application($kernel))->find('lane:account'));
        self::assertSame(0, $command->execute(['email' => strtoupper($account->getEmail()), 'what' => 'reset']));
        self::assertNotNull($this->letter($account->getEmail()));
        self::assertStringNotContainsString('/reset/', $command->getDisplay());
        self::assertSame(0, $command->execute(['email' => $account->getEmail()]));
        self::assertStringContainsString('here last never', $command->getDisplay());
        self::assertSame(0, $command->execute(['email' => $account->getEmail(), 'what' => 'close']));
        self::assertFalse($this->signsIn($account->getEmail(), self::PASSWORD));
        self::assertSame(0, $command->execute(['email' => $account->getEmail(), 'what' => 'open']));
        self::assertTrue($this->signsIn($account->getEmail(), self::PASSWORD));
        self::assertSame(1, $command->execute(['email' => 'nobody@example.org', 'what' => 'close']));
        self::assertSame(2, $command->execute(['email' => $account->getEmail(), 'what' => 'anything']));
    }

    /** The demo player is everybody: nobody signs the others out, renames him, or writes letters in his name. */
    public function testTheDemoPlayerIsNobodysOwn(): void
    {
        $demo = static::getContainer()->get(AccountRepository::class)->byEmail(Account::DEMO_EMAIL);
        self::assertNotNull($demo);
        $this->client->loginUser($demo);
        $page = $this->client->request('GET', '/account');
        self::assertSelectorNotExists('form[action="/account/devices"]');
        $token = $page->filter('form[action="/account/name"] [name=_token]')->attr('value');
        foreach (['name' => ['name' => 'Mine'], 'devices' => [], 'delete' => ['password' => 'x'], 'address' => ['email' => 'a@example.org', 'password' => 'x']] as $what => $values) {
            $this->client->request('POST', "/account/$what", ['_token' => $token, ...$values]);
            self::assertResponseStatusCodeSame(422, $what);
        }
        $this->client->request('GET', '/groups');
        $this->client->click($this->client->getCrawler()->filter('.groups-page a[href^="/groups/"]')->link());
        $this->client->submitForm('Send it', ['email' => 'stranger@example.org']);
        self::assertResponseStatusCodeSame(422);
        self::assertNull($this->letter('stranger@example.org'));
    }

    /** Times are those of where the reader is, and his evening is logged on his day; days that were chosen stay. */
    public function testTimesAreThoseOfWhereOneIs(): void
    {
        $account = $this->signedIn('Far');
        $account = $this->manager()->find(Account::class, $account->getId()) ?? $account;
        self::assertSame('2026-11-28', $account->today(new \DateTimeImmutable('2026-11-28 23:30 UTC'))->format('Y-m-d'));
        $account->live(false, false, 'Pacific/Auckland');
        $this->manager()->flush();
        self::assertSame('2026-11-29', $account->today(new \DateTimeImmutable('2026-11-28 23:30 UTC'))->format('Y-m-d'));
        $sheet = $this->sheet($account);
        $there = $sheet->getUpdatedAt()->setTimezone(new \DateTimeZone('Pacific/Auckland'))->format('j M, H:i');
        $this->client->request('GET', '/sheets');
        self::assertStringContainsString($there, $this->text());
        $this->client->request('GET', '/account');
        $this->client->submitForm('Keep these', ['zone' => 'Pacific/Auckland', 'rules' => ['jump', false, 'hardBreak']]);
        self::assertResponseRedirects('/account');
        $this->manager()->clear();
        $account = $this->manager()->find(Account::class, $account->getId());
        self::assertTrue($account?->getHouseRules()->hardBreak);
        self::assertFalse($account->getHouseRules()->masse);
    }

    private function registered(): Account
    {
        $account = $this->player('Reset');
        $account->setPassword(password_hash(self::PASSWORD, \PASSWORD_BCRYPT, ['cost' => 4]));
        $this->manager()->flush();

        return $account;
    }

    private function signsIn(string $email, string $password): bool
    {
        $this->client->request('GET', '/sign-in');
        if ($this->client->getResponse()->isRedirect()) {
            return true;
        }
        $this->client->submitForm('Sign in', ['email' => $email, 'password' => $password]);
        $to = $this->client->getResponse()->headers->get('Location') ?? 'sign-in';
        if (str_contains($to, 'sign-in')) {
            $this->client->request('GET', '/sign-in');
        }

        return !str_contains($to, 'sign-in');
    }

    /** The latest letter to an address that waits in the queue. */
    private function letter(string $to): ?SendMail
    {
        $rows = static::getContainer()->get(Connection::class)->fetchFirstColumn(
            'SELECT body FROM work_queue WHERE queue = ? ORDER BY id DESC',
            ['mail'],
        );
        foreach ($rows as $body) {
            $message = \is_string($body) ? self::decoded($body) : null;
            if (null !== $message && $message->to === $to) {
                return $message;
            }
        }

        return null;
    }

    private static function decoded(string $body): ?SendMail
    {
        $message = (new PhpSerializer())->decode(['body' => $body])->getMessage();

        return $message instanceof SendMail ? $message : null;
    }

    private function link(string $to, string $kind): string
    {
        $letter = $this->letter($to);
        self::assertNotNull($letter, "no letter to $to");
        self::assertSame(1, preg_match("#http\\S+/$kind/[A-Za-z0-9_-]{43}#", $letter->text, $found));

        return $found[0];
    }

    /** @return list<string> contents, in an order of their own */
    private static function files(string $path, string $folder): array
    {
        $zip = new \ZipArchive();
        $zip->open($path);
        $files = [];
        for ($i = 0; $i < $zip->numFiles; ++$i) {
            $name = (string) $zip->getNameIndex($i);
            if (str_starts_with($name, $folder) && !str_ends_with($name, '.on.json')) {
                $files[$name] = (string) $zip->getFromIndex($i);
            }
        }
        $contents = array_values($files);
        sort($contents);

        return $contents;
    }
}
