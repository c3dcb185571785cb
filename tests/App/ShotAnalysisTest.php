<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\DBAL\Connection;
use PHPUnit\Framework\Attributes\DataProvider;
use ZigLane\App\Entity\RackSheet;

/** What is laid over the table: every look answers with its own fragment, computed, in plain words when it cannot. */
final class ShotAnalysisTest extends AppTestCase
{
    private const STROKE = ['ball' => '4', 'pocket' => 'FL', 'clock' => '1:30', 'tips' => '0.75', 'lengths' => '2.4', 'elevation' => '1'];

    #[DataProvider('looks')]
    public function testAnAnalysisIsDrawnAndTold(string $look, string $drawn, string $told): void
    {
        $this->look($this->sheet($this->signedIn()), ['look' => $look, 'odds' => '50'] + self::STROKE);

        self::assertResponseIsSuccessful();
        self::assertSelectorExists('#overlay svg '.$drawn);
        self::assertMatchesRegularExpression($told, $this->text());
        self::assertStringNotContainsString('<html', (string) $this->client->getResponse()->getContent());
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function looks(): iterable
    {
        yield 'spread' => ['spread', '.area.is-95', '/\d+ % of 300 simulated tries pot the 4\..*A miss leaves your opponent a \d+ % shot/'];
        yield 'tips' => ['tips', '.over-line.of-fan', '/centre .*12:00 0 tips, 2.4 lengths/'];
        yield 'speeds' => ['speeds', '.over-line.of-fan', '/1.2 lengths/'];
        yield 'zone' => [
            'zone',
            '.area',
            '/Shaded: the 9 goes in .* at least 50 % of the time.*(Lane: \d+ cm long, from \d+ % softer|No lane: )/',
        ];
        yield 'read' => ['read', '.over-line', '/FL \d+ % \(cut \d+°/'];
    }

    public function testAStrokeThatLandsOnASpotIsOffered(): void
    {
        $sheet = $this->sheet($this->signedIn());
        // Where a known stroke stops, in the units of the drawing.
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan/draw", self::STROKE);
        $landing = $this->client->getCrawler()->filter('.landing')->attr('transform') ?? '';
        self::assertSame(1, preg_match('/translate\((\S+) (\S+)\)/', $landing, $found));
        // A look ends after a second of computing: on a machine that is slow just then it may have found nothing yet.
        for ($try = 0; $try < 4; ++$try) {
            $this->look($sheet, ['look' => 'land', 'target' => $found[1].','.$found[2]] + self::STROKE);
            if ($this->client->getCrawler()->filter('.choices [data-take]')->count() > 0) {
                break;
            }
        }

        self::assertResponseIsSuccessful();
        self::assertSelectorExists('.choices [data-take]');
        self::assertMatchesRegularExpression('/pot \d+ %, there \d+ %, clear \d+ %/', $this->text());
        $take = json_decode($this->client->getCrawler()->filter('[data-take]')->attr('data-take') ?? '', true);
        self::assertIsArray($take);
        self::assertSame(
            ['ball', 'pocket', 'direction', 'elevation', 'clock', 'tips', 'unit', 'lengths', 'aside', 'safety'],
            array_keys($take),
        );
    }

    /** The zone of the next ball can be landed in as well as a spot. */
    public function testAZoneCanBeLandedIn(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->look($sheet, ['look' => 'land', 'next' => '9', 'odds' => '40'] + self::STROKE);
        self::assertSame('{"target":"zone"}', $this->client->getCrawler()->filter('.choices [data-take]')->attr('data-take'));
        self::assertStringContainsString('Anywhere in the zone of the 9', $this->text());

        $this->look($sheet, ['look' => 'land', 'next' => '9', 'odds' => '40', 'target' => 'zone'] + self::STROKE);
        self::assertSelectorExists('#overlay .area.of-zone-0');
        self::assertMatchesRegularExpression(
            '/pot \d+ %, in the zone \d+ %, clear \d+ %|No stroke was found that stops in the zone/',
            $this->text(),
        );
    }

    /** Along a rail the pocket takes the ball off the rail first, and that can be played. */
    public function testRailFirstIsOfferedWhereItIsToBeHad(): void
    {
        $player = $this->signedIn();
        $open = $this->sheet($player);
        $sheet = $this->sheet($player, [0 => [1.0, 0.31], 4 => [1.6, 0.06], 9 => [0.4, 1.0]]);
        $stroke = ['pocket' => 'FR', 'clock' => '12:00', 'tips' => '0.5', 'lengths' => '1.6'] + self::STROKE;
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan/odds", $stroke);
        self::assertMatchesRegularExpression(
            '/it goes straight from \d+ mm right to \d+ mm left; off the right rail first from \d+ mm right to \d+ mm right/',
            $this->text(),
        );
        $take = json_decode($this->client->getCrawler()->filter('[data-sides] [data-take]')->attr('data-take') ?? '', true);
        self::assertIsArray($take);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan/draw", $take + $stroke);
        self::assertStringContainsString('The 4 drops in FR', $this->text());

        $this->client->request('GET', "/sheets/{$open->getId()}/plan/odds", self::STROKE);
        self::assertSelectorNotExists('[data-sides] [data-take]');
    }

    /** The slower part of a look is asked for by the first answer and comes on its own. */
    public function testTheRightSideOfTheLineAndTheSidesOfThePocketComeAfterTheFirstAnswer(): void
    {
        $sheet = $this->sheet($this->signedIn(), [0 => [0.92, 0.29], 4 => [1.4, 0.76], 5 => [2.03, 0.92], 6 => [2.19, 0.54]]);
        $zone = ['look' => 'zone', 'next' => '5', 'next_pocket' => 'FL'] + self::STROKE;
        $this->look($sheet, $zone);
        self::assertStringContainsString('more=1', (string) $this->client->getCrawler()->filter('#overlay [hx-get]')->attr('hx-get'));
        self::assertSelectorNotExists('.of-ahead');

        $this->look($sheet, $zone + ['more' => '1']);
        self::assertSelectorExists('#overlay .of-ahead');
        self::assertSelectorNotExists('#overlay [hx-get]');
        self::assertMatchesRegularExpression('/the right side: the 5 and then the 6 at least \d+ % of the time/', $this->text());

        $this->look($sheet, ['look' => 'land', 'target' => '1800,900', 'more' => '1'] + self::STROKE);
        self::assertResponseIsSuccessful();
        self::assertSelectorNotExists('#overlay [hx-get]');
    }

    /** Only the lowest ball may be met first in nine-ball: the 9 is made over it. */
    public function testACombinationIsFoundToldAndTaken(): void
    {
        $sheet = $this->sheet($this->signedIn(), [0 => [1.6, 0.65], 4 => [2.2225, 0.9525], 9 => [2.302, 1.032]]);
        $this->look($sheet, ['look' => 'indirect'] + self::STROKE);

        self::assertMatchesRegularExpression('/9 in FL combination over the 4, \d+ %/', $this->text());
        $take = json_decode($this->client->getCrawler()->filter('[data-take]')->first()->attr('data-take') ?? '', true);
        self::assertIsArray($take);
        self::assertSame(['9', 'FL'], [$take['ball'], $take['pocket']]);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan/draw", $take);
        self::assertStringContainsString('The 9 drops in FL', $this->text());
    }

    /** @param array<string, string> $query */
    #[DataProvider('refusals')]
    public function testWhatCannotBeShownIsAPlainSentence(array $query, string $sentence): void
    {
        $this->look($this->sheet($this->signedIn()), $query + self::STROKE);

        self::assertResponseIsSuccessful();
        self::assertStringContainsString($sentence, $this->text());
    }

    /** @return iterable<string, array{array<string, string>, string}> */
    public static function refusals(): iterable
    {
        yield 'no spot yet' => [['look' => 'land'], 'Click the cloth where the cue ball should stop'];
        yield 'a landing on a ball' => [['look' => 'land', 'target' => '400,270'], 'overlaps'];
        yield 'a landing off the cloth' => [['look' => 'land', 'target' => '-300,270'], 'off the cloth'];
        yield 'a spot that is none' => [['look' => 'land', 'target' => '1e9,x'], 'Click the cloth'];
        yield 'a ball that is not there' => [['look' => 'spread', 'ball' => '7'], 'not on the table'];
        yield 'a speed that is none' => [['look' => 'tips', 'lengths' => 'fast'], 'The speed must be a number'];
        yield 'a pocket that is shut' => [['look' => 'zone', 'next' => '9', 'next_pocket' => 'XX'], 'Shaded: the 9'];
    }

    public function testTheOddsAreTriedAndToldWithTheirInterval(): void
    {
        $sheet = $this->sheet($this->signedIn());
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan/odds", self::STROKE);

        self::assertResponseIsSuccessful();
        self::assertMatchesRegularExpression('/\d+ % \(\d+ to \d+ %; 300 simulated tries\)/', $this->text());
        self::assertMatchesRegularExpression('/Aiming margin \d\.\d\d° left, \d\.\d\d° right: \d+ or \d+ mm at the pocket/', $this->text());
    }

    public function testAnotherPlayersSheetIsNotLookedAt(): void
    {
        $sheet = $this->sheet($this->player('Olga'));
        $this->signedIn();
        foreach (['look', 'odds'] as $part) {
            $this->client->request('GET', "/sheets/{$sheet->getId()}/plan/$part", ['look' => 'read'] + self::STROKE);
            self::assertResponseStatusCodeSame(404);
        }
    }

    /** @param array<string, string> $query */
    private function look(RackSheet $sheet, array $query): void
    {
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan/look", $query);
    }

    /** Figures that are kept are said in the words and units of whoever reads them, whoever asked first. */
    public function testKeptFiguresAreSaidInTheReadersWordsAndUnits(): void
    {
        $account = $this->signedIn();
        $sheet = $this->sheet($account);
        $shown = function (string $language, string $unit, string $speed, string $what) use ($account, $sheet): string {
            $connection = static::getContainer()->get(Connection::class);
            $connection->update(
                'account',
                ['language' => $language, 'length_unit' => $unit, 'speed_unit' => $speed],
                ['id' => $account->getId()->toBinary()],
            );
            static::getContainer()->get('doctrine')->getManager()->clear();
            $this->look($sheet, ['look' => $what, 'odds' => '50'] + self::STROKE);

            return $this->text();
        };
        $entries = static fn (): mixed => static::getContainer()->get(Connection::class)
            ->fetchOne("SELECT COUNT(*) FROM cache_items WHERE item_id LIKE '%looks%'");
        foreach (['spread', 'zone', 'read', 'tips', 'speeds', 'indirect'] as $what) {
            $english = $shown('en', 'cm', 'm/s', $what);
            $kept = $entries();
            $german = $shown('de', 'cm', 'm/s', $what);
            self::assertNotSame($english, $german, $what);
            self::assertSame($english, $shown('en', 'cm', 'm/s', $what), $what);
            self::assertSame($kept, $entries(), "$what: figures are kept once, whatever the language");
        }
        self::assertStringContainsString(' cm', $shown('en', 'cm', 'm/s', 'zone'));
        self::assertStringNotContainsString(' cm', $shown('en', 'in', 'm/s', 'zone'));
    }
}
