<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use ZigLane\App\Entity\RackSheet;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Name\Ball;

/** A run built leg by leg: each from where the one before leaves the balls, changed and cut back without losing the others. */
final class LegsTest extends AppTestCase
{
    private const FIRST = ['ball' => '4', 'pocket' => 'FL', 'clock' => '12:00', 'tips' => '0', 'lengths' => '1.5', 'elevation' => '0'];

    public function testTheNextLegStartsWhereThisOneEnds(): void
    {
        $sheet = $this->twoLegs();
        $legs = $this->reloaded($sheet)->getLegs();
        self::assertSame([Ball::Four, Ball::Nine], array_map(static fn ($leg): Ball => $leg->ball, $legs));

        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan");
        $landing = $this->client->getCrawler()->filter('.landing')->attr('transform');
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan?leg=2");
        self::assertSelectorTextContains('.leg', 'Leg 2: 9 in');
        self::assertSelectorNotExists('[data-call="4"]');
        $cue = $this->client->getCrawler()->filter('.ball:not(.can-call)')->attr('transform');
        self::assertSame(self::rounded($landing), self::rounded($cue));
    }

    public function testALegIsChangedWithoutLosingTheOthersAndCutBackWithThoseAfterIt(): void
    {
        $sheet = $this->twoLegs();
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan");
        $this->client->submitForm('Save the shot', ['lengths' => '1.6'] + self::FIRST);
        self::assertCount(2, $this->reloaded($sheet)->getLegs());
        self::assertSame(Ball::Nine, $this->reloaded($sheet)->getLegs()[1]->ball);

        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan?leg=2");
        $form = $this->client->getCrawler()->selectButton('Take leg 2 off the run')->form();
        $this->client->submit($form);
        self::assertResponseRedirects();
        self::assertCount(1, $this->reloaded($sheet)->getLegs());
    }

    public function testALegBeyondTheRunOrAfterAMissIsNotOpened(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan?leg=7");
        self::assertSelectorTextContains('.leg', 'Leg 1');

        // Too soft to drop: nothing can follow it.
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan");
        $this->client->submitForm('Save the shot', ['lengths' => '0.75'] + self::FIRST);
        $this->client->followRedirect();
        self::assertSelectorNotExists('[data-next-leg]');
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan?leg=2");
        self::assertSelectorTextContains('.leg', 'Leg 1');
    }

    public function testTheChanceOfTheRunIsRehearsed(): void
    {
        $sheet = $this->twoLegs();
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan/run");

        self::assertResponseIsSuccessful();
        self::assertMatchesRegularExpression(
            '/All 2 legs: \d+ % \(\d+ to \d+ %; 200 runs simulated, each leg aimed anew\)\. Leg by leg: \d+ %, \d+ %\./',
            $this->text(),
        );
    }

    public function testTheRunIsExportedAndImported(): void
    {
        $sheet = $this->twoLegs();
        $this->client->request('GET', "/sheets/{$sheet->getId()}/export");
        $file = RackFile::parse((string) $this->client->getResponse()->getContent());

        self::assertEquals($this->reloaded($sheet)->getLegs(), null === $file->shot ? [] : [$file->shot, ...$file->later]);
        self::assertEquals($file, RackFile::parse($file->write()));
    }

    public function testLegsOfAnotherPlayerAreNotCutBack(): void
    {
        $sheet = $this->twoLegs();
        $own = $this->sheet($this->signedIn('Olga'));
        $this->client->request(
            'POST',
            "/sheets/{$sheet->getId()}/plan/cut",
            ['_token' => $this->token($own), 'version' => '1', 'leg' => '1'],
        );

        self::assertResponseStatusCodeSame(404);
        self::assertCount(2, $this->reloaded($sheet)->getLegs());
    }

    private function twoLegs(): RackSheet
    {
        $sheet = $this->sheet($this->signedIn());
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan");
        $this->client->submitForm('Save the shot', self::FIRST);
        $this->client->followRedirect();
        $this->client->click($this->client->getCrawler()->filter('[data-next-leg]')->link());
        self::assertSelectorTextContains('.leg', 'Leg 2: 9 in');
        $this->client->submitForm('Save the shot', ['ball' => '9', 'lengths' => '2.5', 'clock' => '12:00', 'tips' => '0.3']);
        self::assertResponseRedirects();

        return $sheet;
    }

    private static function rounded(?string $transform): string
    {
        return (string) preg_replace_callback(
            '/-?\d+(\.\d+)?/',
            static fn (array $number): string => (string) round((float) $number[0]),
            $transform ?? 'none',
        );
    }
}
