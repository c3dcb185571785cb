<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\DBAL\Connection;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Account\DemoVisit;
use ZigLane\App\Camera\KeptPictures;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\KeptPicture;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Repository\AccountRepository;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Tests\Table;

/** Whoever looks round has a demo of his own. */
final class DemoVisitTest extends AppTestCase
{
    public function testWhatOneVisitorDoesNoOtherSees(): void
    {
        $this->client->followRedirects();
        $first = $this->visit();
        $this->client->submitForm('Set', ['tip_unit' => 'mm', 'length_unit' => 'in', 'speed_unit' => 'mph']);
        $sheets = self::getContainer()->get(RackSheetRepository::class);
        foreach ($sheets->ofOwner($first, 100) as $sheet) {
            $this->connection()->delete('rack_sheet', ['id' => $sheet->getId()->toBinary()]);
        }
        $second = $this->visit();
        self::assertNotEquals($first->getId(), $second->getId());
        self::assertSame('cm', $second->getLengthUnit()->value);
        $names = array_map(static fn ($sheet): string => $sheet->getName(), $sheets->ofOwner($second, 100));
        $master = self::getContainer()->get(AccountRepository::class)->byEmail(Account::DEMO_EMAIL);
        self::assertNotNull($master);
        self::assertSame(array_map(static fn ($sheet): string => $sheet->getName(), $sheets->ofOwner($master, 100)), $names);
        self::assertContains('Thursday rack, six left', $names);
        // His pupils, their work and what they show are there too, and are his alone.
        foreach (['/groups', '/lessons', '/log', '/log/records', '/numbers', '/drills', '/progress', '/tables', '/shares'] as $page) {
            $this->client->request('GET', $page);
            self::assertLessThan(400, $this->client->getResponse()->getStatusCode(), $page);
        }
    }

    public function testADemoGoesWithItsVisitor(): void
    {
        $this->client->followRedirects();
        $before = $this->rows();
        $this->visit();
        self::assertGreaterThan($before['shot'], $this->rows()['shot']);
        $this->client->submitForm('Sign out');
        self::assertSame($before, $this->rows());

        // One who does not sign out is forgotten after half a day.
        $email = self::getContainer()->get(DemoVisit::class)->begin();
        self::getContainer()->get(DemoVisit::class)->forgetOld();
        self::assertNotSame($before, $this->rows());
        $this->connection()->executeStatement(
            'UPDATE account SET created_at = created_at - INTERVAL 13 HOUR WHERE email LIKE ?',
            [str_replace('@', '%@', $email)],
        );
        self::getContainer()->get(DemoVisit::class)->forgetOld();
        self::assertSame($before, $this->rows());
    }

    /** The disk is everybody's: a visitor's sheets have an end, and of his pictures the latest are kept. */
    public function testAVisitorFillsNoDisk(): void
    {
        $this->client->followRedirects();
        $visitor = $this->visit();
        $editor = self::getContainer()->get(SheetEditor::class);
        $pictures = self::getContainer()->get(KeptPictures::class);
        $image = imagecreatetruecolor(40, 30);
        self::assertNotFalse($image);
        $rack = new Rack(Game::NineBall, Table::layout([0 => [0.9, 0.5], 9 => [0.4, 1.0]]));
        $kept = [];
        for ($i = 0; $i < 6; ++$i) {
            $kept[] = $sheet = $editor->create($visitor, "sheet $i", $rack, Uuid::v4());
            $pictures->keep($sheet, $image);
        }
        $this->manager()->clear();
        $left = array_map(
            fn (RackSheet $sheet): bool => null !== $this->manager()->find(KeptPicture::class, $sheet->getId()), $kept,
        );
        self::assertSame([false, false, true, true, true, true], $left);
        $visitor = $this->manager()->find(Account::class, $visitor->getId());
        self::assertNotNull($visitor);
        $this->expectExceptionMessage('refused.tooManySheets');
        for ($i = 0; $i < 200; ++$i) {
            $editor->create($visitor, "more $i", $rack, Uuid::v4());
        }
    }

    /** Ids that others have copied must not be guessed into the demo: its addresses are nobody's to register. */
    public function testNobodyTakesAnAddressOfTheDemo(): void
    {
        $this->client->request('GET', '/register');
        $this->client->submitForm('Make the account', [
            'registration[name]' => 'Eve', 'registration[email]' => 'demo-eve@zig-lane.invalid', 'registration[password]' => 'eleven chars',
        ]);
        self::assertResponseStatusCodeSame(422);
    }

    /** A hundred demos cost little: each by a few statements of the database. */
    public function testDemosCostLittle(): void
    {
        $visit = self::getContainer()->get(DemoVisit::class);
        $start = microtime(true);
        $visitors = [];
        for ($i = 0; $i < 5; ++$i) {
            $visitors[] = $visit->begin();
        }
        self::assertLessThan(10.0, microtime(true) - $start);
        foreach ($visitors as $email) {
            $account = self::getContainer()->get(AccountRepository::class)->byEmail($email);
            self::assertNotNull($account);
            $visit->end($account);
        }
    }

    private function visit(): Account
    {
        $this->client->getCookieJar()->clear();
        $this->client->request('GET', '/sign-in');
        $this->client->submitForm('Look round as the demo player');
        self::assertSelectorTextContains('.sheets', 'Thursday rack, six left');
        $account = self::getContainer()->get('security.token_storage')->getToken()?->getUser();
        self::assertInstanceOf(Account::class, $account);

        return $account;
    }

    /** @return array<string, int> rows by table */
    private function rows(): array
    {
        $rows = [];
        foreach (['account', 'rack_sheet', 'shot', 'shot_rack', 'drill_session', 'drill_try', 'comment', 'answer', 'plan_job', 'outing', 'share'] as $table) {
            $count = $this->connection()->fetchOne("SELECT COUNT(*) FROM $table");
            $rows[$table] = is_numeric($count) ? (int) $count : 0;
        }

        return $rows;
    }

    private function connection(): Connection
    {
        return self::getContainer()->get(Connection::class);
    }
}
