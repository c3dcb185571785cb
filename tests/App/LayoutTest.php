<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\Attributes\DataProvider;
use ZigLane\App\Entity\LayoutStep;
use ZigLane\App\Sheet\LayoutText;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\Core\Name\Ball;
use ZigLane\Tests\Table;

/** Laying out: what is typed or dragged is saved, and what cannot lie is told and saved nowhere. */
final class LayoutTest extends AppTestCase
{
    public function testATypedSpotIsSaved(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->change($sheet, ['change' => 'place', 'ball' => '7', 'at' => ' 4.5, 1.25 ']);

        self::assertResponseIsSuccessful();
        $spot = $this->reloaded($sheet)->getRack()->layout->spot(Ball::Seven);
        self::assertEqualsWithDelta(4.5 * 0.3175, $spot->x, 1e-12);
        self::assertEqualsWithDelta(1.25 * 0.3175, $spot->y, 1e-12);
        self::assertSelectorExists('[data-ball="7"][data-long="4.5"][data-short="1.25"].is-selected');
        self::assertStringNotContainsString('<html', (string) $this->client->getResponse()->getContent());
    }

    /** @param array<string, string> $values */
    #[DataProvider('refused')]
    public function testWhatCannotLieIsToldAndNotSaved(array $values, string $message): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->change($sheet, $values);

        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($message, $this->text());
        $after = $this->reloaded($sheet);
        self::assertEquals($sheet->getRack(), $after->getRack());
        self::assertSame([1, 0], [$after->getVersion(), $after->getStep()]);
    }

    /** @return iterable<string, array{array<string, string>, string}> */
    public static function refused(): iterable
    {
        yield 'overlap' => [['change' => 'place', 'ball' => '7', 'at' => '5.36,2.52'], 'The 7 overlaps the 4 by'];
        yield 'off the cloth' => [['change' => 'place', 'ball' => '7', 'at' => '9,2'], 'The 7 is off the cloth by'];
        yield 'over a hole' => [['change' => 'place', 'ball' => '7', 'at' => '4,-0.2'], 'lies over the hole of pocket SR'];
        yield 'not a spot' => [['change' => 'place', 'ball' => '7', 'at' => 'there'], 'Type a spot as two numbers in diamonds'];
        yield 'not a ball' => [['change' => 'place', 'ball' => '17', 'at' => '4,2'], 'There is no such ball.'];
        yield 'not in the game' => [['change' => 'place', 'ball' => '12', 'at' => '4,2'], 'The 12 is not used in nine-ball'];
        yield 'rail without a ball' => [['change' => 'rail', 'ball' => '7'], 'The 7 is not on the table'];
        yield 'unknown change' => [['change' => 'explode', 'ball' => '4'], 'a change that does not exist'];
    }

    public function testSnapToRailFreezes(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->change($sheet, ['change' => 'rail', 'ball' => '9']);

        self::assertEqualsWithDelta(1.27 - Table::R, $this->reloaded($sheet)->getRack()->layout->spot(Ball::Nine)->y, 1e-6);
    }

    public function testABallIsTakenOff(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->change($sheet, ['change' => 'off', 'ball' => '4']);

        self::assertFalse($this->reloaded($sheet)->getRack()->layout->has(Ball::Four));
        self::assertSelectorExists('[data-tray-ball="4"]');
    }

    public function testUndoAndRedoWalkThroughTheHistory(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $start = $sheet->getRack();
        foreach (['6,1', '6,1.5', '6,2'] as $at) {
            $this->change($sheet, ['change' => 'place', 'ball' => '7', 'at' => $at]);
            $sheet = $this->reloaded($sheet);
        }
        $end = $sheet->getRack();
        foreach (['undo', 'undo', 'undo', 'undo'] as $change) {
            $this->change($sheet, ['change' => $change]);
            $sheet = $this->reloaded($sheet);
        }
        self::assertEquals($start, $sheet->getRack());
        self::assertSelectorExists('[value="undo"][disabled]');
        for ($i = 0; $i < 4; ++$i) {
            $this->change($sheet, ['change' => 'redo']);
            $sheet = $this->reloaded($sheet);
        }
        self::assertEquals($end, $sheet->getRack());

        // A new change after an undo cuts the way back to what was undone.
        $this->change($sheet, ['change' => 'undo']);
        $this->change($this->reloaded($sheet), ['change' => 'off', 'ball' => '4']);
        self::assertSelectorExists('[value="redo"][disabled]');
    }

    public function testTheHistoryIsBounded(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $editor = static::getContainer()->get(SheetEditor::class);
        for ($i = 0; $i < SheetEditor::HISTORY + 20; ++$i) {
            $editor->layOut(
                $sheet,
                $sheet->getRack()->layout->with(Ball::Seven, \ZigLane\Core\Table\Spot::metres(1.0 + 0.001 * $i, 0.3)),
                $sheet->getVersion(),
            );
        }

        self::assertSame(SheetEditor::HISTORY + 1, $this->manager()->getRepository(LayoutStep::class)->count(['sheet' => $sheet]));
    }

    public function testASecondWindowDoesNotOverwriteTheFirst(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->change($sheet, ['change' => 'place', 'ball' => '7', 'at' => '6,1']);
        $this->change($sheet, ['change' => 'off', 'ball' => '4', 'version' => '1']);

        self::assertResponseStatusCodeSame(409);
        self::assertStringContainsString('changed in another window', $this->text());
        self::assertSame('#notice', $this->client->getResponse()->headers->get('HX-Retarget'));
        self::assertTrue($this->reloaded($sheet)->getRack()->layout->has(Ball::Four));
    }

    public function testWithoutItsTokenAFormChangesNothing(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->client->request('POST', "/sheets/{$sheet->getId()}/layout", ['change' => 'off', 'ball' => '4', 'version' => '1']);

        self::assertResponseStatusCodeSame(403);
        self::assertStringContainsString('This form is too old or did not come from Zig Lane.', $this->text());
        self::assertTrue($this->reloaded($sheet)->getRack()->layout->has(Ball::Four));
    }

    public function testAnEndedSessionIsToldInPlace(): void
    {
        $sheet = $this->sheet($this->player());
        $this->client->request(
            'POST',
            "/sheets/{$sheet->getId()}/layout",
            ['change' => 'off', 'ball' => '4'],
            [],
            ['HTTP_HX_REQUEST' => 'true'],
        );

        self::assertResponseStatusCodeSame(401);
        self::assertStringContainsString('Your session has ended.', $this->text());
        self::assertTrue($this->reloaded($sheet)->getRack()->layout->has(Ball::Four));
    }

    public function testThePageWorksWithoutScripts(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->layoutPage($sheet);
        $this->client->submitForm('Place', ['ball' => '7', 'at' => '2,2']);
        $this->client->followRedirect();

        self::assertSelectorExists('[data-ball="7"][data-long="2"]');
        self::assertTrue($this->reloaded($sheet)->getRack()->layout->has(Ball::Seven));
    }

    public function testALayoutIsTypedMirroredTurnedAndBroken(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $change = function (string $change, array $more = []) use ($sheet): void {
            $version = (string) $this->reloaded($sheet)->getVersion();
            $this->client->request('POST', "/sheets/{$sheet->getId()}/layout", $more + [
                '_token' => $this->token($sheet), 'version' => $version, 'change' => $change,
            ]);
        };
        $at = fn (Ball $ball): array => array_map(
            static fn (float $one): float => round($one, 6),
            $this->reloaded($sheet)->getRack()->layout->spot($ball)->inDiamonds($sheet->getRack()->equipment->table),
        );
        $change('typed', ['lines' => "cue 2,1.5; 3 5.1,0.9\n9: 6 3"]);
        self::assertSame([[2.0, 1.5], [5.1, 0.9], [6.0, 3.0]], [$at(Ball::Cue), $at(Ball::Three), $at(Ball::Nine)]);
        $rack = $this->reloaded($sheet)->getRack();
        self::assertSame("cue 2,1.5\n3 5.1,0.9\n9 6,3", LayoutText::write($rack->layout, $rack->equipment->table));
        $change('mirror');
        self::assertSame([2.0, 2.5], $at(Ball::Cue));
        $change('turn');
        self::assertSame([6.0, 1.5], $at(Ball::Cue));
        $wrong = [
            'cue 2,1.5; cue 3,3' => 'stands twice', 'cue 2' => 'two numbers', 'blue 3,3' => 'blue 3,3', '' => 'ball and its spot',
            '3 5,1; 4 5.01,1' => 'overlaps',
        ];
        foreach ($wrong as $lines => $why) {
            $change('typed', ['lines' => $lines]);
            self::assertResponseStatusCodeSame(422);
            self::assertStringContainsStringIgnoringCase($why, (string) $this->client->getResponse()->getContent());
        }
        self::assertSame([6.0, 1.5], $at(Ball::Cue));
        $change('random', ['count' => '4']);
        self::assertSame(5, $this->reloaded($sheet)->getRack()->layout->count());
        self::assertTrue($this->reloaded($sheet)->getRack()->layout->has(Ball::Nine));
        $change('broken');
        self::assertGreaterThan(3, $this->reloaded($sheet)->getRack()->layout->count());
        $change('undo');
        self::assertSame(5, $this->reloaded($sheet)->getRack()->layout->count());
    }

    public function testALayoutIsCopiedFromAnotherSheetAndItsRingMarksAreTold(): void
    {
        $account = $this->signedIn();
        $from = $this->sheet($account, [0 => [0.635, 0.635], 9 => [1.905, 0.3175]]);
        $sheet = $this->sheet($account);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/layout");
        $this->client->submitForm('Copy its layout', ['of' => (string) $from->getId()]);
        self::assertEquals($from->getRack()->layout, $this->reloaded($sheet)->getRack()->layout);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/marks");
        self::assertSelectorTextContains('.marks-card', '63.5 cm (head)');
        self::assertSelectorTextContains('.marks-card', '31.8 cm (right)');
        // Another player's sheet is not there to copy.
        $stranger = $this->sheet($this->player('Olga'), [0 => [1.0, 1.0]]);
        $this->client->request('POST', "/sheets/{$sheet->getId()}/layout", [
            '_token' => $this->token($sheet), 'version' => (string) $this->reloaded($sheet)->getVersion(), 'change' => 'copied',
            'of' => (string) $stranger->getId(),
        ]);
        self::assertResponseStatusCodeSame(422);
    }
}
