<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Symfony\Component\HttpFoundation\File\UploadedFile;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Message\FitTable;
use ZigLane\App\Messenger\FitTableHandler;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Practice\ParDesk;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Repository\ShotLog;
use ZigLane\App\Tables\TableShelf;
use ZigLane\Core\Calibration\Parameter;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Format\TableTestsFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\TypicalTable;

/** The tables of a player: made, tested, found from the tests, and taken by a sheet. */
final class TablesTest extends AppTestCase
{
    public function testATableOfAKindIsMadeAndChanged(): void
    {
        $this->signedIn();
        $crawler = $this->client->request('GET', '/tables');
        self::assertCount(\count(TypicalTable::cases()), $crawler->filter('.kind'));
        $this->client->submit($crawler->filter('.kind[value=worn]')->form(['name' => 'Back room']));
        $this->client->followRedirect();
        self::assertSelectorTextContains('h1', 'Back room');
        self::assertSelectorTextContains('#table-fit', '0.0140');
        $this->client->submitForm('Keep it', ['name' => 'Back room', 'mouth' => '10.2', 'slope' => '0.2', 'towards' => '90', 'end' => '45']);
        $this->client->followRedirect();
        $table = $this->table();
        self::assertEqualsWithDelta(0.102, $table->getEquipment()->table->cornerMouth, 1e-9);
        self::assertSame([0.2, 90.0, 45.0], [
            $table->getEquipment()->table->slope, $table->getEquipment()->table->slopeDirection, $table->getEquipment()->cue->endMassRatio,
        ]);
        // What is not allowed is said, and nothing is changed.
        $this->client->submitForm('Keep it', ['mouth' => '3']);
        self::assertResponseStatusCodeSame(422);
        self::assertSelectorTextContains('[role=alert]', 'must be a number from 9 to 15 cm');
        self::assertEqualsWithDelta(0.102, $this->table()->getEquipment()->table->cornerMouth, 1e-9);
    }

    public function testTestsAreWrittenDownFoundFromAndTakenBySheets(): void
    {
        $account = $this->signedIn();
        $table = $this->kept($account);
        $sheet = $this->sheet($account);
        $this->client->request('GET', "/tables/{$table->getId()}/tests/roll");
        self::assertSelectorTextContains('.short-plan', 'stops before the far rail');
        // On this table balls roll far: six diamonds in seven seconds.
        foreach (['6.5,2', '6.4;2', '6,45 2,01'] as $at) {
            $this->client->submitForm('Write it down', ['end_cue' => $at, 'seconds' => '7.0']);
            $this->client->followRedirect();
        }
        $this->client->submitForm('Write it down', ['end_cue' => '', 'seconds' => '']);
        self::assertResponseStatusCodeSame(422);
        self::assertSelectorTextContains('[role=alert]', 'Nothing was typed');
        self::assertCount(3, $this->table()->getTests());
        $file = TableTestsFile::parse($this->table()->getTestsFile());
        self::assertSame([0 => []], $file->tests[0]->cushions);
        // The sheet takes the table, then the table is found anew.
        $this->take($sheet, $table);
        self::assertTrue($this->reloaded($sheet)->getTable()?->getId()->equals($table->getId()));
        self::assertFalse($this->reloaded($sheet)->isTableNew());
        $this->client->request('GET', "/tables/{$table->getId()}");
        $this->client->submitForm('Work out the table from 3 tests');
        self::assertNotNull($this->table()->getAskedAt());
        static::getContainer()->get(FitTableHandler::class)(new FitTable((string) $table->getId(), (string) $account->getId()));
        $this->manager()->clear();
        $this->client->request('GET', "/tables/{$table->getId()}");
        self::assertSelectorTextContains('#table-fit caption', '3 tests');
        self::assertSelectorTextContains('#table-fit', 'not told by these tests');
        $this->client->submitForm('Make the table so');
        $roll = $this->table()->getEquipment()->table->roll;
        // 2 d / (g t^2) with d of 1.9 metres.
        self::assertEqualsWithDelta(0.0079, $roll, 0.0006);
        self::assertSame(0.9, $this->table()->getEquipment()->table->cushionRestitution);
        // Taken, it is no news any more.
        $this->client->request('GET', "/tables/{$table->getId()}");
        self::assertSelectorNotExists('form[action$="/take"]');
        // The sheet keeps what it had, says so, and takes the new one at one press.
        self::assertSame(0.01, $this->reloaded($sheet)->getRack()->equipment->table->roll);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/layout");
        self::assertSelectorTextContains('.side', 'has changed since this sheet took it');
        $this->client->submitForm('Take it as it is now');
        self::assertSame($roll, $this->reloaded($sheet)->getRack()->equipment->table->roll);
    }

    public function testASheetOnAnotherTableKeepsItsDiamonds(): void
    {
        $account = $this->signedIn();
        $sheet = $this->sheet($account, [0 => [1.27, 0.635], 9 => [2.2225, 0.3175]]);
        $small = static::getContainer()->get(TableShelf::class)->keep($account, new TableFile('Small', TypicalTable::Small->equipment()));
        $this->take($sheet, $small);
        $rack = $this->reloaded($sheet)->getRack();
        self::assertSame([7.0, 1.0], array_map(
            static fn (float $at): float => round($at, 9),
            $rack->layout->spot(Ball::Nine)->inDiamonds($rack->equipment->table),
        ));
        self::assertEqualsWithDelta(1.9812, $rack->equipment->table->length, 1e-9);
        // And back by undo.
        $this->client->request('GET', "/sheets/{$sheet->getId()}/layout");
        $this->client->submitForm('Undo');
        self::assertEqualsWithDelta(2.54, $this->reloaded($sheet)->getRack()->equipment->table->length, 1e-9);
    }

    public function testATableGoesOutAsAFileAndComesInAgain(): void
    {
        $account = $this->signedIn();
        $table = $this->kept($account);
        $this->client->request('GET', "/tables/{$table->getId()}/export");
        $path = (string) tempnam(sys_get_temp_dir(), 'table');
        file_put_contents($path, (string) $this->client->getResponse()->getContent());
        $page = $this->client->request('GET', '/tables');
        $token = (string) $page->filter('form[enctype] [name="_token"]')->attr('value');
        $file = static fn (): UploadedFile => new UploadedFile($path, 'x.table.json', 'application/json', null, true);
        $this->client->request('POST', '/tables/import', ['_token' => $token], ['file' => $file()]);
        self::assertResponseStatusCodeSame(303);
        [$one, $two] = static::getContainer()->get(OwnTables::class)->all($account);
        self::assertEquals($one->getEquipment(), $two->getEquipment());
        file_put_contents($path, '{"format": "zig-lane/table", "version": 1, "name": "", "table": {"roll": 9}}');
        $this->client->request('POST', '/tables/import', ['_token' => $token], ['file' => $file()]);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('table.roll', (string) $this->client->getResponse()->getContent());
    }

    /** Drills played on a table of one's own are set up there, and their par is that table's. */
    public function testDrillsArePlayedOnTheTableThatIsChosen(): void
    {
        $account = $this->signedIn();
        $table = static::getContainer()->get(TableShelf::class)->keep($account, new TableFile('Small', TypicalTable::Small->equipment()));
        $this->client->request('GET', '/drills/dead-stop');
        self::assertSelectorTextContains('.spots', '127.0 cm');
        $this->client->request('GET', "/tables/{$table->getId()}");
        $this->client->submitForm('Play my drills here');
        $this->client->followRedirect();
        self::assertSelectorTextContains('.side', 'those of this table');
        $this->client->request('GET', '/drills/dead-stop');
        self::assertSelectorTextNotContains('.spots', '127.0 cm');
        $this->manager()->clear();
        $account = $this->manager()->find(Account::class, $account->getId());
        self::assertNotNull($account);
        $file = static::getContainer()->get(DrillShelf::class)->drill($account, 'dead-stop')->file;
        $desk = static::getContainer()->get(ParDesk::class);
        $desk->ask($account, $file, 0);
        self::assertEquals(TypicalTable::Small->equipment(), $desk->of($account, $file, 0)?->getEquipment());
        // A deleted table leaves the drills on the usual one.
        static::getContainer()->get(TableShelf::class)->delete($account->getUsualTable() ?? self::fail('It has none.'));
        $this->client->request('GET', '/drills/dead-stop');
        self::assertSelectorTextContains('.spots', '127.0 cm');
    }

    public function testANewSheetBeginsOnATableOfOnesOwn(): void
    {
        $account = $this->signedIn();
        $table = static::getContainer()->get(TableShelf::class)->keep($account, new TableFile('Quick', TypicalTable::Quick->equipment()));
        $this->client->request('GET', '/sheets/new');
        $this->client->submitForm('Lay out the balls', ['new_sheet[name]' => 'There', 'new_sheet[table]' => (string) $table->getId()]);
        self::assertResponseStatusCodeSame(303);
        $sheet = $this->manager()->getRepository(RackSheet::class)->findBy(['owner' => $account], ['id' => 'DESC'], 1)[0];
        self::assertSame(0.008, $sheet->getRack()->equipment->table->roll);
        self::assertFalse($sheet->isTableNew());
        // Another player's cannot be chosen.
        $this->signedIn('Ola');
        $crawler = $this->client->request('GET', '/sheets/new');
        self::assertCount(0, $crawler->filter('[name="new_sheet[table]"]'));
    }

    public function testAnothersTableCannotBeTaken(): void
    {
        $table = $this->kept($this->player('Olga'));
        $sheet = $this->sheet($this->signedIn());
        $this->client->request('POST', "/sheets/{$sheet->getId()}/layout", [
            '_token' => $this->token($sheet), 'version' => (string) $sheet->getVersion(), 'change' => 'table', 'table' => (string) $table->getId(),
        ]);
        self::assertResponseStatusCodeSame(422);
        self::assertNull($this->reloaded($sheet)->getTable());
    }

    /** A straight shot with side tells the cue's own end. */
    public function testTheSquirtTestAsksForTheEndOfTheCue(): void
    {
        $account = $this->signedIn();
        $table = $this->kept($account);
        self::assertCount(12, $this->client->request('GET', "/tables/{$table->getId()}/cards")->filter('.set-up-card'));
        $this->client->request('GET', "/tables/{$table->getId()}/tests/squirt");
        $this->client->submitForm('Write it down', ['rail_0' => '2.2', 'end_cue' => '1.5,1.7']);
        $unknown = TableTestsFile::parse($this->table()->getTestsFile())->base->unknown;
        self::assertContains(Parameter::EndMassRatio, $unknown);
    }

    public function testATestThatWasMisreadIsTakenOff(): void
    {
        $account = $this->signedIn();
        $table = $this->kept($account);
        $this->client->request('GET', "/tables/{$table->getId()}/tests/two-rails");
        $this->client->submitForm('Write it down', ['rail_0' => '2.8', 'rail_1' => '?', 'end_cue' => '3,2']);
        $file = TableTestsFile::parse($this->table()->getTestsFile());
        self::assertCount(2, $file->tests[0]->cushions[0]);
        self::assertNull($file->tests[0]->cushions[0][1][1]);
        $this->client->request('GET', "/tables/{$table->getId()}");
        $this->client->submitForm('Take it off');
        self::assertSame([], $this->table()->getTests());
    }

    private function take(RackSheet $sheet, OwnTable $table): void
    {
        $this->client->request('GET', "/sheets/{$sheet->getId()}/layout");
        $this->client->submitForm('Play it there', ['table' => (string) $table->getId()]);
        self::assertResponseRedirects();
        $this->manager()->clear();
    }

    private function kept(Account $account): OwnTable
    {
        return static::getContainer()->get(TableShelf::class)->keep($account, new TableFile('Mine', new Equipment()));
    }

    /** The one table that there is. */
    public function testTheMouthIsMeasuredByBallsWhereThereIsNoTape(): void
    {
        $account = $this->signedIn();
        $table = static::getContainer()->get(TableShelf::class)->keep($account, new TableFile('Mine', new Equipment()));
        $this->client->request('GET', '/tables/'.$table->getId());
        $this->client->submitForm('Keep it', ['fits' => '2.1', 'weight' => '1.05']);
        $this->manager()->clear();
        $equipment = $this->manager()->find(OwnTable::class, $table->getId())?->getEquipment();
        self::assertNotNull($equipment);
        self::assertEqualsWithDelta(2.1 * 0.05715, $equipment->table->cornerMouth, 1e-6);
        self::assertSame(1.05, $equipment->balls->cueBallWeight);
    }

    /** An outing has its table: the rack is shot on it, wherever it was planned, and the next sheet of the day offers it. */
    public function testARackIsShotOnTheTableOfTheOuting(): void
    {
        $account = $this->signedIn();
        $small = static::getContainer()->get(TableShelf::class)->keep($account, new TableFile('Small', TypicalTable::Small->equipment()));
        $sheet = $this->sheet($account);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/table");
        $this->client->submitForm('Shoot this rack', ['table' => (string) $small->getId()]);
        $rack = static::getContainer()->get(ShotLog::class)->openRack($this->reloaded($sheet));
        self::assertNotNull($rack);
        self::assertSame('Small', $rack->getOuting()->getTable()?->getName());
        $length = TypicalTable::Small->equipment()->table->length;
        self::assertSame($length, $rack->getNow()->equipment->table->length);
        [$long] = $rack->getNow()->layout->spot(Ball::Nine)->inDiamonds($rack->getNow()->equipment->table);
        self::assertEqualsWithDelta(0.4 / 0.3175, $long, 1e-5);
        // The sheet itself stays as it was.
        self::assertNotSame($length, $this->reloaded($sheet)->getRack()->equipment->table->length);
        $other = $this->sheet($this->reloaded($sheet)->getOwner());
        $page = $this->client->request('GET', "/sheets/{$other->getId()}/table");
        self::assertSame('Small', $page->filter('[name=table] option[selected]')->text());
    }

    private function table(): OwnTable
    {
        $this->manager()->clear();
        $tables = $this->manager()->getRepository(OwnTable::class)->findBy([], ['id' => 'DESC'], 1);
        self::assertCount(1, $tables);

        return $tables[0];
    }
}
