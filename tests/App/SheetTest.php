<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Message\EraseSheet;
use ZigLane\App\Messenger\EraseSheetHandler;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Shot\ShotChoice;
use ZigLane\Core\Stroke\Stroke;
use ZigLane\Core\Stroke\Tip;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Table\TableSize;

/** Rack sheets as a whole: whose they are, how they are made, taken away and carried elsewhere. */
final class SheetTest extends AppTestCase
{
    public function testASheetIsMadeFromTheForm(): void
    {
        $this->signedIn();
        $this->client->request('GET', '/sheets/new');
        $this->client->submitForm(
            'Lay out the balls',
            ['new_sheet[name]' => 'Monday <b>rack</b>', 'new_sheet[game]' => 'ten-ball', 'new_sheet[size]' => '7'],
        );
        $this->client->followRedirect();

        self::assertSelectorTextContains('h1', 'Monday <b>rack</b>');
        self::assertSelectorTextContains('.masthead-title p', 'Ten-ball, table 198 × 99 cm');
        self::assertSelectorCount(11, '[data-tray-ball]');
    }

    public function testAFormPostedTwiceMakesOneSheet(): void
    {
        $account = $this->signedIn();
        $form = $this->client->request('GET', '/sheets/new')->selectButton('Lay out the balls')->form(['new_sheet[name]' => 'Once']);
        $this->client->submit($form);
        $first = $this->client->getResponse()->headers->get('Location');
        $this->client->submit($form);

        self::assertSame($first, $this->client->getResponse()->headers->get('Location'));
        self::assertCount(1, $this->manager()->getRepository(RackSheet::class)->findBy(['owner' => $account->getId()]));
    }

    public function testASheetNeedsAName(): void
    {
        $this->signedIn();
        $this->client->request('GET', '/sheets/new');
        $this->client->submitForm('Lay out the balls', ['new_sheet[name]' => ' ']);

        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('Give the sheet a name', $this->text());
    }

    /** @param array<string, string> $values */
    #[DataProvider('addresses')]
    public function testAnotherPlayersSheetIsNotFound(string $method, string $path, array $values = []): void
    {
        $theirs = $this->sheet($this->player('Bruno'));
        $mine = $this->sheet($this->signedIn());
        $token = $this->token($mine);
        $this->client->request(
            $method,
            str_replace('ID', (string) $theirs->getId(), $path),
            $values + ['_token' => $token, 'version' => '1'],
        );

        self::assertResponseStatusCodeSame(404);
        self::assertStringContainsString('There is nothing at this address, or it is not yours to see.', $this->text());
        $after = $this->reloaded($theirs);
        self::assertSame(1, $after->getVersion());
        self::assertFalse($after->isDeleted());
    }

    /** @return iterable<string, array{0: string, 1: string, 2?: array<string, string>}> */
    public static function addresses(): iterable
    {
        yield 'layout' => ['GET', '/sheets/ID/layout'];
        yield 'change' => ['POST', '/sheets/ID/layout', ['change' => 'off', 'ball' => '4']];
        yield 'plan' => ['GET', '/sheets/ID/plan'];
        yield 'draw' => ['GET', '/sheets/ID/plan/draw?ball=4&pocket=FL'];
        yield 'call' => ['POST', '/sheets/ID/plan', ['ball' => '4', 'pocket' => 'FL']];
        yield 'export' => ['GET', '/sheets/ID/export'];
        yield 'rename' => ['POST', '/sheets/ID/name', ['name' => 'Mine now']];
        yield 'delete' => ['POST', '/sheets/ID/delete'];
        yield 'restore' => ['POST', '/sheets/ID/restore'];
    }

    public function testTheListShowsOnlyOnesOwnSheets(): void
    {
        $this->sheet($this->player('Bruno'));
        $this->signedIn();
        $this->client->request('GET', '/sheets');

        self::assertSelectorCount(0, '.sheet');
        self::assertStringContainsString('No rack sheets yet.', $this->text());
    }

    public function testAnAddressThatIsNoSheetIsNotFound(): void
    {
        $this->signedIn();
        foreach (['/sheets/none/layout', '/sheets/'.Uuid::v4().'/layout', '/nowhere'] as $path) {
            $this->client->request('GET', $path);
            self::assertResponseStatusCodeSame(404);
        }
    }

    public function testExportAndImportAreLossless(): void
    {
        $account = $this->signedIn();
        foreach (TableSize::cases() as $size) {
            $rack = new \ZigLane\Core\Rules\Rack(
                Game::EightBall,
                (new \ZigLane\Tests\Table(\ZigLane\Core\Table\TableProfile::ofSize($size)))->randomLayout(
                    new \ZigLane\Tests\Chance(8),
                    12,
                    0.2,
                ),
                new Equipment(\ZigLane\Core\Table\TableProfile::ofSize($size)),
            );
            $editor = static::getContainer()->get(SheetEditor::class);
            $account = $this->manager()->find(Account::class, $account->getId());
            self::assertNotNull($account);
            $sheet = $editor->create(
                $account,
                'Über „Rack“ / '.$size->value,
                $rack,
                Uuid::v4(),
                new ShotChoice(Ball::Three, Pocket::SideLeft, new Stroke(Tip::atClock(1.25, 0.21), 1.87654321, 2.5)),
            );
            $this->client->request('GET', "/sheets/{$sheet->getId()}/export");
            self::assertResponseIsSuccessful();
            self::assertStringContainsString('.rack.json', (string) $this->client->getResponse()->headers->get('Content-Disposition'));
            $json = (string) $this->client->getResponse()->getContent();

            $this->import($json);
            $location = (string) $this->client->getResponse()->headers->get('Location');
            $this->client->request('GET', str_replace('/layout', '/export', $location));

            self::assertSame($json, $this->client->getResponse()->getContent());
            self::assertEquals($rack, RackFile::parse($json)->rack);
        }
    }

    public function testAFileThatIsNotValidIsToldLineByLineAndNothingIsKept(): void
    {
        $account = $this->signedIn();
        $this->import(
            '{"format": "zig-lane/rack", "version": 1, "game": "nine-ball", "layout": {"cue": [0.5, 0.5], "1": [0.53, 0.5], "12": [1, 1]}}',
        );

        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('layout.1: overlaps cue by 27.2 mm', $this->text());
        self::assertStringContainsString('layout.12: is not used in nine-ball', $this->text());
        self::assertCount(0, $this->manager()->getRepository(RackSheet::class)->findBy(['owner' => $account->getId()]));
    }

    public function testNoFileAndATooLargeFileAreTold(): void
    {
        $this->signedIn();
        $this->import(str_repeat('x', 70000));
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('at most 65536 are read', $this->text());

        $this->import(null);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('no file arrived; choose a rack file', $this->text());
    }

    public function testADeletedSheetIsGoneComesBackAndIsErasedLater(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->layoutPage($sheet);
        $this->client->followRedirects();
        $this->client->submitForm('Delete');
        self::assertSelectorCount(0, '.sheet');
        $this->client->submitForm('Bring it back');
        self::assertSelectorCount(1, '.sheet');

        // Deleted again: the worker's message finds it due only when its time has come.
        $this->layoutPage($sheet);
        $this->client->submitForm('Delete');
        $handler = static::getContainer()->get(EraseSheetHandler::class);
        $handler(new EraseSheet((string) $sheet->getId()));
        self::assertTrue($this->reloaded($sheet)->isDeleted());

        $this->manager()->getConnection()->executeStatement(
            'UPDATE rack_sheet SET deleted_at = ? WHERE id = ?',
            [(new \DateTimeImmutable('-601 seconds'))->format('Y-m-d H:i:s'), $sheet->getId()->toBinary()],
        );
        $this->manager()->clear();
        $handler(new EraseSheet((string) $sheet->getId()));
        self::assertNull($this->manager()->find(RackSheet::class, $sheet->getId()));
    }

    public function testRenaming(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->layoutPage($sheet);
        $this->client->submitForm('Rename', ['name' => 'Another name']);

        self::assertSame('Another name', $this->reloaded($sheet)->getName());
    }

    public function testAnAccountTakesItsSheetsWithIt(): void
    {
        $account = $this->player();
        $sheet = $this->sheet($account);
        $this->manager()->getConnection()->executeStatement('DELETE FROM account WHERE id = ?', [$account->getId()->toBinary()]);
        $this->manager()->clear();

        self::assertNull($this->manager()->find(RackSheet::class, $sheet->getId()));
        self::assertNull($this->manager()->find(Account::class, $account->getId()));
    }

    private function import(?string $json): void
    {
        $form = $this->client->request('GET', '/sheets')->selectButton('Import')->form();
        $files = [];
        if (null !== $json) {
            $path = (string) tempnam(sys_get_temp_dir(), 'rack');
            file_put_contents($path, $json);
            $files['file'] = new UploadedFile($path, 'a.rack.json', 'application/json', null, true);
        }
        $this->client->request('POST', '/sheets/import', $form->getPhpValues(), $files);
    }
}
