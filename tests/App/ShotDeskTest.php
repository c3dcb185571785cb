<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Table\BallSet;
use ZigLane\Core\Table\Equipment;
use ZigLane\Tests\Table;

/** The shot desk: what it draws and says is the simulated outcome, and a saved shot comes back as it was. */
final class ShotDeskTest extends AppTestCase
{
    private const STROKE = ['ball' => '4', 'pocket' => 'FL', 'clock' => '1:30', 'tips' => '0.75', 'lengths' => '2.4', 'elevation' => '1'];

    public function testTheShotIsDrawnAndTold(): void
    {
        $this->draw($this->sheet($this->signedIn()), self::STROKE);

        self::assertResponseIsSuccessful();
        self::assertSelectorTextContains('.verdict', 'The 4 drops in FL.');
        self::assertSelectorExists('[data-route="cue"] .sliding');
        self::assertSelectorExists('[data-route="4"] .rolling');
        self::assertSelectorExists('.ghost');
        self::assertSelectorExists('.landing');
        self::assertMatchesRegularExpression('/cut \d+\.\d° to the (left|right)/', $this->text());
        self::assertMatchesRegularExpression('/ball-hit fraction 0\.\d\d/', $this->text());
        self::assertMatchesRegularExpression('/aim ?\d+\.\d mm \(\d\.\d\d°\) (fuller|thinner) than the ghost ball/', $this->text());
        self::assertMatchesRegularExpression('/cue ball stops ?\d\.\d\d, \d\.\d\d/', $this->text());
        self::assertStringNotContainsString('<html', (string) $this->client->getResponse()->getContent());
    }

    /** The cue is drawn for the player's own hand; a shot along a rail on the wrong side says that the other hand reaches it. */
    public function testTheCueIsDrawnForThePlayersOwnHand(): void
    {
        $account = $this->signedIn();
        // Along the right rail, from the head end to a corner at the foot.
        $sheet = $this->sheet($account, [0 => [1.4, 0.05], 4 => [2.2, 0.05]]);
        $stroke = ['ball' => '4', 'pocket' => 'FR', 'clock' => '12:00', 'tips' => '0.3', 'lengths' => '1.5', 'elevation' => '6'];
        $this->draw($sheet, $stroke);
        self::assertSelectorExists('[data-stance=right] .cue-stick');
        self::assertSelectorTextContains('[data-stance-told]', 'take the rest, or the left hand');
        $this->client->request('GET', '/account');
        $this->client->submitForm('Keep these', ['hand' => 'left']);
        $this->draw($sheet, $stroke);
        self::assertSelectorExists('[data-stance=left] .cue-stick');
        self::assertSelectorTextContains('[data-stance-told]', 'from the right rail');
    }

    /** The offset of the tip in tips, percent of the radius or millimetres: the same stroke, and told in all three. */
    public function testTheTipIsReadInTheUnitThatThePlayerPrefers(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $told = [];
        foreach (['0.8', '27.15 %', '7.757mm'] as $tips) {
            $this->client->request(
                'GET',
                "/sheets/{$sheet->getId()}/plan/draw",
                ['ball' => '4', 'pocket' => 'FL', 'clock' => '12:00', 'tips' => $tips, 'lengths' => '2', 'elevation' => '0'],
            );
            $told[] = $this->client->getCrawler()->filter('[data-tip]')->text('');
        }
        self::assertSame(array_fill(0, 3, '0.8 tips, 27 % R, 7.8 mm'), $told);
        $this->client->request(
            'GET',
            "/sheets/{$sheet->getId()}/plan/draw",
            ['ball' => '4', 'pocket' => 'FL', 'clock' => '12:00', 'tips' => '9 inch', 'lengths' => '2', 'elevation' => '0'],
        );
        self::assertStringContainsString('The tip offset must be a number', $this->text());
    }

    /** A tip is as wide on every ball, but a larger share of the radius of a smaller one: 0.8 tips are 29.2 % of one of 2 inches. */
    public function testTheTipIsCountedOnTheBallsOfTheSheet(): void
    {
        $account = $this->signedIn();
        $rack = new Rack(
            Game::NineBall,
            Table::layout([0 => [1.0, 0.5], 4 => [1.6, 0.7]]),
            new Equipment(balls: new BallSet(radius: 0.0254)),
        );
        $editor = self::getContainer()->get(SheetEditor::class);
        $sheet = $editor->create($account, 'Small balls', $rack, Uuid::v4());
        $this->client->request(
            'GET',
            "/sheets/{$sheet->getId()}/plan/draw",
            ['ball' => '4', 'pocket' => 'FL', 'clock' => '12:00', 'tips' => '0.8', 'lengths' => '2', 'elevation' => '0'],
        );
        // 0.8 x 12.75 mm of the cue, of which R / (R + 9 mm) at the contact: 7.53 mm, over a radius of 25.4 mm 29.65 %.
        self::assertSame('0.8 tips, 30 % R, 7.5 mm', $this->client->getCrawler()->filter('[data-tip]')->text(''));
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan");
        $units = json_decode((string) $this->client->getCrawler()->filter('[data-units]')->attr('data-units'), true);
        self::assertIsArray($units);
        self::assertEqualsWithDelta((25.4 + 9) / 12.75, $units['tips'], 1e-6);
    }

    public function testASavedShotComesBackAsItWas(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan");
        $this->client->submitForm('Save the shot', self::STROKE);
        self::assertResponseRedirects();
        $this->client->followRedirect();

        $shot = $this->reloaded($sheet)->getShot();
        self::assertNotNull($shot);
        self::assertSame([Ball::Four, Pocket::FootLeft, 1.0], [$shot->ball, $shot->pocket, $shot->stroke->elevation]);
        $form = $this->client->getCrawler()->filter('[data-shot]')->form();
        foreach (self::STROKE as $field => $value) {
            self::assertSame($value, $form->getValues()[$field] ?? null, $field);
        }
        self::assertStringContainsString('Saved with the sheet.', $this->text());
        // Saved once more it is still the same shot to the last bit.
        $this->client->submitForm('Save the shot');
        self::assertEquals($shot, $this->reloaded($sheet)->getShot());
    }

    /** @param array<string, string> $values */
    #[DataProvider('refused')]
    public function testAStrokeThatCannotBeMadeIsToldAndNotSaved(array $values, string $message): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->draw($sheet, $values + self::STROKE);
        self::assertResponseIsSuccessful();
        self::assertStringContainsString($message, $this->text());
        self::assertSelectorNotExists('[data-route]');

        $this->client->request(
            'POST',
            "/sheets/{$sheet->getId()}/plan",
            $values + self::STROKE + ['_token' => $this->token($sheet), 'version' => '1'],
        );
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($message, $this->text());
        self::assertStringContainsString('Nothing was saved.', $this->text());
        self::assertNull($this->reloaded($sheet)->getShot());
    }

    /** @return iterable<string, array{array<string, string>, string}> */
    public static function refused(): iterable
    {
        yield 'unknown pocket' => [['pocket' => 'XX'], 'There is no such pocket.'];
        yield 'the cue ball' => [['ball' => 'cue'], 'Choose an object ball'];
        yield 'a ball that is off' => [['ball' => '3'], 'The 3 is not on the table'];
        yield 'miscue' => [['tips' => '1.6'], 'The tip would miscue'];
        yield 'no clock' => [['clock' => 'noon'], 'Type the tip position as a clock time'];
        yield 'thirteen' => [['clock' => '13:00'], 'Type the tip position as a clock time'];
        yield 'too hard' => [['lengths' => '40'], 'The speed must be a number from 0.05 to'];
        yield 'not a number' => [['lengths' => '1e3'], 'The speed must be a number'];
        yield 'steep' => [['elevation' => '90'], 'The elevation must be a number from 0 to 80 degrees.'];
        yield 'too thin' => [['pocket' => 'HR'], 'cannot be cut to HR from here'];
    }

    public function testARaisedCueBringsTheCautionOfTheHouse(): void
    {
        $this->draw($this->sheet($this->signedIn()), ['elevation' => '45', 'tips' => '0.3'] + self::STROKE);

        self::assertStringContainsString('Many rooms forbid it', $this->text());
        self::assertStringContainsString('house rules', $this->text());
    }

    public function testAScratchIsTold(): void
    {
        $sheet = $this->sheet($this->signedIn(), [0 => [2.0, 0.73], 4 => [2.2, 0.93]]);
        $this->draw($sheet, ['clock' => '12:00', 'tips' => '1.3', 'lengths' => '3'] + self::STROKE);

        self::assertSelectorTextContains('.verdict', 'The 4 drops in FL, but the cue ball scratches in FL.');
        self::assertSelectorNotExists('.landing');
        self::assertSelectorNotExists('.verdict.is-good');
    }

    public function testABlockerIsTold(): void
    {
        $this->draw($this->sheet($this->signedIn(), [0 => [0.9, 0.5], 4 => [1.7, 0.8], 9 => [1.3, 0.66]]), self::STROKE);

        self::assertSelectorTextContains('.verdict', 'The 9 is in the way: the cue ball meets it first');
    }

    public function testWithoutACueBallThePageLeadsBack(): void
    {
        $sheet = $this->sheet($this->signedIn(), [4 => [1.7, 0.8]]);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan");

        self::assertResponseIsSuccessful();
        self::assertStringContainsString('The cue ball is not on the table.', $this->text());
        self::assertSelectorExists('a[href$="/layout"]');
    }

    public function testAShotWhoseBallIsTakenOffDoesNotBreakThePage(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan");
        $this->client->submitForm('Save the shot', self::STROKE);
        $sheet = $this->reloaded($sheet);
        $this->change($sheet, ['change' => 'off', 'ball' => '4']);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan");

        self::assertResponseIsSuccessful();
        self::assertSelectorTextContains('.leg', 'Leg 1: 9 in');
    }

    /** @param array<string, string> $values */
    private function draw(RackSheet $sheet, array $values): void
    {
        $this->client->request(
            'GET',
            "/sheets/{$sheet->getId()}/plan/draw?".http_build_query($values),
            [],
            [],
            ['HTTP_HX_REQUEST' => 'true'],
        );
    }

    /** The desk opens with a ball that may be shot at: with a striped ball left not with the 8. */
    public function testTheDeskOpensWithABallThatIsOn(): void
    {
        $sheet = $this->sheet($this->signedIn(), [0 => [0.9, 0.5], 8 => [1.7, 0.8], 14 => [0.4, 1.0]], Game::EightBall);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan");
        self::assertSame('14', $this->client->getCrawler()->filter('[name="ball"] [selected]')->text());
    }
}
