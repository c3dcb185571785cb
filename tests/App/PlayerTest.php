<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\Attributes\DataProvider;
use ZigLane\Core\Player\ExecutionErrors;

/** Whose errors the odds come from: estimates, tests and deviations are kept with the sheet, and only with one's own. */
final class PlayerTest extends AppTestCase
{
    public function testAnEstimateIsKeptAndTheOddsFollow(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $stroke = ['ball' => '4', 'pocket' => 'FL', 'clock' => '12:00', 'tips' => '0.3', 'lengths' => '2.4', 'elevation' => '1'];
        $odds = function () use ($sheet, $stroke): int {
            $this->client->request('GET', "/sheets/{$sheet->getId()}/plan/odds", $stroke);

            return (int) $this->client->getCrawler()->filter('[data-chance]')->text();
        };
        $this->client->request('GET', "/sheets/{$sheet->getId()}/player");
        $this->client->submitForm('Beginner');
        self::assertResponseRedirects();
        $low = $odds();
        $this->client->request('GET', "/sheets/{$sheet->getId()}/player");
        $this->client->submitForm('Expert');
        $high = $odds();

        self::assertSame(ExecutionErrors::PRESETS['expert'][0], $this->reloaded($sheet)->getRack()->player->aim);
        self::assertGreaterThan($low + 20, $high);
    }

    public function testTheResultsOfTheTestsGiveTheErrors(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->client->request('GET', "/sheets/{$sheet->getId()}/player");
        $this->client->submitForm('Work out my errors', ['made' => '4.6', 'lag' => '12', 'drift' => '2.8']);
        self::assertResponseRedirects();
        $player = $this->reloaded($sheet)->getRack()->player;

        self::assertGreaterThan(0.005, $player->aim);
        self::assertEqualsWithDelta(0.045, $player->speed, 0.02);
        self::assertEqualsWithDelta(1.0, $player->tipSide, 0.5);
        // The page shows in simulation what was typed.
        $this->client->followRedirect();
        self::assertEqualsWithDelta(12.0, (float) $this->client->getCrawler()->filter('#lag')->attr('value'), 1.5);
    }

    /** @param array<string, string> $fields */
    #[DataProvider('faults')]
    public function testWhatCannotBeIsRefusedInASentence(string $button, array $fields, string $sentence): void
    {
        $sheet = $this->sheet($this->signedIn());
        $before = $sheet->getRack()->player;
        $this->client->request('GET', "/sheets/{$sheet->getId()}/player");
        $this->client->submitForm($button, $fields);

        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($sentence, $this->text());
        self::assertEquals($before, $this->reloaded($sheet)->getRack()->player);
    }

    /** @return iterable<array{string, array<string, string>, string}> */
    public static function faults(): iterable
    {
        yield ['Work out my errors', ['made' => '11'], 'The pots made of ten must be a number from 0 to 10.'];
        yield ['Work out my errors', ['lag' => 'near'], 'The distance of the lags must be a number from 0.5 to 120 cm.'];
        yield ['Set these', ['aim' => '-1'], 'The aim must be a number from 0 to 3 degrees.'];
        yield ['Set these', ['speed' => '90'], 'The speed must be a number from 0 to 50 %.'];
    }

    public function testAnotherPlayersErrorsAreNotShownNorChanged(): void
    {
        $sheet = $this->sheet($this->player('Olga'));
        $own = $this->sheet($this->signedIn());
        $this->client->request('GET', "/sheets/{$sheet->getId()}/player");
        self::assertResponseStatusCodeSame(404);
        $this->client->request(
            'POST',
            "/sheets/{$sheet->getId()}/player",
            ['_token' => $this->token($own), 'version' => '1', 'preset' => 'expert'],
        );
        self::assertResponseStatusCodeSame(404);
        $this->client->request('POST', "/sheets/{$own->getId()}/player", ['version' => '1', 'preset' => 'expert']);
        self::assertResponseStatusCodeSame(403);
    }
}
