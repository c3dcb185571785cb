<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use ZigLane\App\Entity\BreakJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Message\FindBreak;
use ZigLane\App\Messenger\FindBreakHandler;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\Game;

/** The break page: two hundred of a break, two side by side, one onto a sheet, the best looked for. */
final class BreakTest extends AppTestCase
{
    public function testABreakIsLookedAtWithItsOdds(): void
    {
        $this->signedIn();
        $crawler = $this->client->request('GET', '/break');
        self::assertCount(1, $crawler->filter('.break-side'));
        $address = (string) $crawler->filter('.break-form')->attr('hx-get');
        $crawler = $this->client->request('GET', "$address&game=nine-ball&short=3.6&long=2&aim=0&speed=8.5&rack=careful&player=expert");
        self::assertResponseIsSuccessful();
        self::assertSelectorTextContains('.break-figures .is-main', '%');
        self::assertGreaterThan(120, $crawler->filter('circle.stop-cue')->count());
        self::assertSelectorTextContains('.is-caution', 'At break speed');
        self::assertSelectorTextContains('.help', '200 simulated breaks with the errors of a simulated expert');
        // A soft one has no caution; what would miscue is said.
        $this->client->request('GET', "$address&game=eight-ball&speed=3");
        self::assertSelectorNotExists('.is-caution');
        $this->client->request('GET', "$address&game=eight-ball&side=0.4&height=0.4");
        self::assertSelectorTextContains('[role=alert]', 'miscue');
    }

    public function testTwoBreaksStandSideBySide(): void
    {
        $this->signedIn();
        $this->client->request('GET', '/break?game=ten-ball&short=3.1');
        $crawler = $this->client->clickLink('Another break beside it');
        self::assertSame(['3.1', '2.5'], $crawler->filter('.break-form [name=short]')->each(static fn ($node): string => (string) $node->attr('value')));
        $this->client->request('GET', '/break?beside[speed][x]=1&beside[]=2&speed[]=4');
        self::assertContains($this->client->getResponse()->getStatusCode(), [200, 400]);
    }

    public function testOneOfTheBreaksBecomesASheet(): void
    {
        $this->signedIn();
        $look = $this->client->request('GET', '/break/look?game=nine-ball&speed=8');
        $this->client->submit($look->filter('form')->form());
        self::assertResponseStatusCodeSame(303);
        $this->manager()->clear();
        $sheet = $this->manager()->getRepository(RackSheet::class)->findBy([], ['id' => 'DESC'], 1)[0];
        self::assertSame('After a break, Nine-ball', $sheet->getName());
        self::assertSame(Game::NineBall, $sheet->getRack()->game);
        self::assertTrue($sheet->getRack()->layout->has(Ball::Nine));
    }

    /** Straight pool with fourteen racked: what opens and what sticks; what cannot lie so is said; and it becomes a sheet. */
    public function testABreakShotOfStraightPoolSaysWhatOpens(): void
    {
        $this->signedIn();
        $crawler = $this->client->request('GET', '/break/shot?lie=behind');
        self::assertResponseIsSuccessful();
        $address = (string) $crawler->filter('.break-form')->attr('hx-get');
        $look = $this->client->request('GET', "$address&lie=beside&player=expert");
        self::assertResponseIsSuccessful();
        self::assertSelectorTextContains('.break-figures .is-main', '%');
        self::assertGreaterThan(150, $look->filter('circle.stop-cue')->count());
        self::assertSelectorTextContains('.help', '200 simulated shots with the errors of a simulated expert');
        $this->client->submit($look->filter('form')->form());
        self::assertResponseStatusCodeSame(303);
        $this->manager()->clear();
        $sheet = $this->manager()->getRepository(RackSheet::class)->findBy([], ['id' => 'DESC'], 1)[0];
        self::assertSame(Game::StraightPool, $sheet->getRack()->game);
        self::assertSame(16, $sheet->getRack()->layout->count());
        $this->client->request('GET', "$address&long=6.4&short=2");
        self::assertSelectorTextContains('[role=alert]', 'where a ball is racked');
        $this->client->request('GET', "$address&long=1&short=2&cueLong=0.3&cueShort=2&pocket=HR");
        self::assertSelectorTextContains('[role=alert]', 'goes straight into no pocket');
    }

    public function testTheBestBreakIsLookedForOnce(): void
    {
        $account = $this->signedIn();
        $this->client->request('GET', '/break?game=eight-ball');
        $this->client->submitForm('Look for the best', ['fastest' => '5.5']);
        $this->client->followRedirect();
        self::assertSelectorExists('#break-found progress');
        $jobs = $this->manager()->getRepository(BreakJob::class)->findBy(['owner' => $account]);
        self::assertCount(1, $jobs);
        self::assertSame(5.5, $jobs[0]->getFastest());
        static::getContainer()->get(FindBreakHandler::class)(new FindBreak((string) $jobs[0]->getId(), (string) $account->getId()));
        $this->manager()->clear();
        $crawler = $this->client->request('GET', '/break/found?game=eight-ball');
        self::assertCount(4, $crawler->filter('tbody tr'));
        self::assertStringContainsString('/break?', (string) $crawler->filter('tbody a')->attr('href'));
        // Another player sees nothing of it.
        $this->signedIn('Ola');
        $this->client->request('GET', '/break/found?game=eight-ball');
        self::assertSelectorNotExists('tbody');
    }
}
