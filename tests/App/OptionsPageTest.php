<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use ZigLane\App\Entity\JobKind;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\PlanState;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\Core\Decide\WayKind;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;

/** Go for it or play safe: asked for, worked out, looked at, taken over. */
final class OptionsPageTest extends AppTestCase
{
    private const SPOTS = [0 => [0.7, 0.35], 3 => [1.56, 1.06], 9 => [1.37, 0.16]];

    public function testAPositionIsWeighedAndItsOptionsStandInOrder(): void
    {
        $sheet = $this->weighed();
        $crawler = $this->client->request('GET', $this->path($sheet));

        self::assertResponseIsSuccessful();
        self::assertSelectorExists('[data-break-even]');
        $wins = $crawler->filter('.option-win b')->each(static fn ($node): int => (int) $node->text());
        self::assertNotSame([], $wins);
        self::assertSelectorExists('.option.is-attack');
        self::assertSelectorExists('.option.is-safety');
        self::assertSelectorTextContains('.side', 'against the errors of an expert');
        self::assertGreaterThan(10, $crawler->filter('.try-end')->count());
        $crawler = $this->client->request('GET', $this->path($sheet, '/board').'?option='.$this->numberOf($sheet, WayKind::Attack));
        foreach (['pot', 'scratches', 'sellsOut', 'drops', 'loses', 'his'] as $figure) {
            self::assertMatchesRegularExpression('/^(\d+ %|never)$/', $crawler->filter("[data-figure=$figure]")->text(), $figure);
        }
        $crawler = $this->client->request('GET', $this->path($sheet, '/board').'?option='.$this->numberOf($sheet, WayKind::Safety));
        foreach (['legal', 'hides', 'hisPot', 'his', 'scratches', 'sellsOut', 'aBallDrops', 'loses'] as $figure) {
            self::assertSelectorExists("[data-figure=$figure]");
        }
        $crawler = $this->client->request('GET', $this->path($sheet, '/board').'?option=1');
        self::assertResponseIsSuccessful();
        self::assertSame('true', $crawler->filter('.option')->eq(1)->attr('aria-current'));
    }

    public function testAnOptionIsTakenIntoThePlanAndASafetyStaysOne(): void
    {
        $sheet = $this->weighed();
        $number = $this->numberOf($sheet, WayKind::Safety);
        $this->client->request('GET', $this->path($sheet).'?option='.$number);
        $this->client->submitForm('Take it into the plan');
        self::assertResponseRedirects("/sheets/{$sheet->getId()}/plan");
        $this->client->followRedirect();
        self::assertSelectorTextContains('#leg', 'safety off the 3');
        $shot = $this->reloaded($sheet)->getShot();
        self::assertTrue($shot?->isSafety);
        self::assertNotNull($shot->direction);
    }

    public function testAnOptionIsTriedTenTimes(): void
    {
        $sheet = $this->weighed();
        $this->client->request('GET', $this->path($sheet).'?option='.$this->numberOf($sheet, WayKind::Attack));
        $this->client->submitForm('Try it ten times');
        self::assertResponseRedirects("/sheets/{$sheet->getId()}/tries");
        $this->client->followRedirect();
        $this->client->submitForm('Try it ten times', ['guess' => '70']);
        $this->client->followRedirect();
        $this->client->submitForm('Made');
        $this->client->request('GET', $this->path($sheet).'?option='.$this->numberOf($sheet, WayKind::Attack));
        self::assertSelectorTextContains('.own-tries', '1 made of 1');
    }

    /** With the balls elsewhere it is another shot: its tries say nothing of this one. */
    public function testTriesOfAnotherLayoutDoNotStandBesideAnOption(): void
    {
        $sheet = $this->weighed();
        $attack = $this->numberOf($sheet, WayKind::Attack);
        $this->client->request('GET', $this->path($sheet).'?option='.$attack);
        $this->client->submitForm('Try it ten times');
        $this->client->followRedirect();
        $this->client->submitForm('Try it ten times', ['guess' => '70']);
        $this->client->followRedirect();
        $this->client->submitForm('Made');
        $connection = self::getContainer()->get(Connection::class);
        // The 9 was elsewhere when they were shot.
        $connection->executeStatement("UPDATE shot_rack SET start_rack = JSON_SET(start_rack, '$.layoutDiamonds.\"9\"', JSON_ARRAY(1.5, 1.0)) WHERE kind = 'tries'");
        self::getContainer()->get(EntityManagerInterface::class)->clear();
        $this->client->request('GET', $this->path($sheet).'?option='.$attack);
        self::assertResponseIsSuccessful();
        self::assertSelectorNotExists('.own-tries');
    }

    public function testAFinishedRackIsRefusedInASentence(): void
    {
        $sheet = $this->sheet($this->signedIn(), [0 => [0.7, 0.35], 3 => [1.56, 1.06]], Game::NineBall);
        $this->ask($sheet);
        $this->work($sheet);
        $this->client->request('GET', $this->path($sheet));
        self::assertSelectorTextContains('[role=alert]', 'The 9 decides this game and is not on the table');
        self::assertSame(PlanState::Nothing, $this->job($sheet)->getState());
    }

    public function testAnOptionThatIsNotThereIsRefused(): void
    {
        $sheet = $this->weighed();
        $this->client->request('GET', $this->path($sheet));
        $token = $this->client->getCrawler()->filter('.this-option input[name=_token]')->attr('value');
        $none = ['_token' => $token, 'option' => 99, 'version' => $sheet->getVersion()];
        $this->client->request('POST', $this->path($sheet, '/take'), $none);
        self::assertResponseStatusCodeSame(422);
        $this->client->request('POST', $this->path($sheet, '/take'), ['option' => 0, 'version' => $sheet->getVersion()]);
        self::assertGreaterThanOrEqual(400, $this->client->getResponse()->getStatusCode());
    }

    /** Against the player of another sheet of the account; nobody else's. */
    public function testTheOpponentMayBeAnotherPlayerOfTheAccount(): void
    {
        $stranger = $this->sheet($this->player('Ola'), self::SPOTS, Game::NineBall);
        $owner = $this->signedIn();
        $sheet = $this->sheet($owner, self::SPOTS, Game::NineBall);
        $edda = new ExecutionErrors(0.05, 0.06, 1.3, 1.4);
        foreach ([$this->sheet($owner, self::SPOTS, Game::NineBall), $stranger] as $other) {
            $this->reloaded($other)->playedBy($edda, new \DateTimeImmutable());
            $this->manager()->flush();
            $players[] = (string) $other->getId();
        }
        $crawler = $this->client->request('GET', $this->path($sheet));
        $offered = $crawler->filter('#opponent option')->each(static fn ($option): string => (string) $option->attr('value'));
        self::assertContains($players[0], $offered);
        self::assertNotContains($players[1], $offered);
        $this->client->submitForm('Weigh this position', ['opponent' => $players[0]]);
        self::assertEquals($edda, $this->job($sheet)->getOpponent());
        $crawler = $this->client->request('GET', $this->path($sheet));
        self::assertSame($players[0], $crawler->filter('#opponent option[selected]')->attr('value'));
        $token = $crawler->filter('.ask-options input[name=_token]')->attr('value');
        $this->client->request('POST', $this->path($sheet), ['_token' => $token, 'opponent' => $players[1]]);
        self::assertNotEquals($edda, $this->job($sheet)->getOpponent(), 'a stranger stays one');
    }

    public function testAnotherPlayerSeesNothingOfIt(): void
    {
        $sheet = $this->weighed();
        $this->signedIn('Ola');
        foreach (['', '/board', '/progress'] as $part) {
            $this->client->request('GET', $this->path($sheet, $part));
            self::assertResponseStatusCodeSame(404);
        }
        $this->client->request('POST', $this->path($sheet));
        self::assertResponseStatusCodeSame(404);
    }

    public function testAPlanAndOptionsOfASheetDoNotEndEachOther(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS, Game::NineBall);
        $this->ask($sheet);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/run-out");
        self::assertSelectorNotExists('progress');
        self::assertNull($this->jobs()->latestOf($this->reloaded($sheet)));
        self::assertSame(PlanState::Waiting, $this->job($sheet)->getState());
    }

    public function testARackAtTheTableIsWeighedFromWhereTheBallsLie(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS, Game::NineBall);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/table");
        $this->client->submitForm('Shoot this rack');
        $this->client->followRedirect();
        $path = str_replace('/shoot', '/options', $this->client->getRequest()->getPathInfo());
        $this->client->request('GET', $path);
        self::assertResponseIsSuccessful();
        $this->client->submitForm('Weigh this position');
        self::assertResponseRedirects($path);
        $this->client->followRedirect();
        self::assertSelectorExists('#weighing progress');
    }

    public function testAnOptionAtTheTableIsShotNext(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS, Game::NineBall);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/table");
        $this->client->submitForm('Shoot this rack');
        $this->client->followRedirect();
        $shoot = $this->client->getRequest()->getPathInfo();
        $path = str_replace('/shoot', '/options', $shoot);
        $this->client->request('GET', $path);
        $this->client->submitForm('Weigh this position');
        $job = $this->jobs()->findOneBy(['kind' => JobKind::Options], ['id' => 'DESC']) ?? throw new \LogicException();
        $this->workOn($job, $sheet->getOwner());
        $options = $this->jobs()->find($job->getId())?->getOptions()?->options;
        self::assertNotNull($options);
        $safety = array_search($options->best(false), $options->list, true);
        $this->client->request('GET', $path.'?option='.$safety);
        $this->client->submitForm('Shoot this next');
        self::assertResponseRedirects($shoot);
        $this->client->followRedirect();
        self::assertSelectorTextContains('[data-call]', 'safe');
        self::assertSelectorExists('[data-call-ball]');
        $this->signedIn('Ola');
        $this->client->request('POST', $path.'/take', ['option' => 0]);
        self::assertGreaterThanOrEqual(400, $this->client->getResponse()->getStatusCode());
    }

    private function weighed(): RackSheet
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS, Game::NineBall);
        $this->ask($sheet);
        $this->work($sheet);
        self::assertSame(PlanState::Done, $this->job($sheet)->getState());
        self::assertEquals(new ExecutionErrors(...ExecutionErrors::PRESETS['expert']), $this->job($sheet)->getOpponent());

        return $sheet;
    }

    private function ask(RackSheet $sheet): void
    {
        $this->client->request('GET', $this->path($sheet));
        $this->client->submitForm('Weigh this position', ['opponent' => 'expert']);
        self::assertResponseRedirects($this->path($sheet));
    }

    /** A short time: the list is what counts here, not how good it is. */
    private function work(RackSheet $sheet): void
    {
        $this->workOn($this->job($sheet), $sheet->getOwner());
    }

    private function numberOf(RackSheet $sheet, WayKind $kind): int
    {
        foreach ($this->job($sheet)->getOptions()->options->list ?? [] as $i => $judged) {
            if ($kind === $judged->way->kind) {
                return $i;
            }
        }
        self::fail('There is no such option.');
    }

    private function job(RackSheet $sheet): PlanJob
    {
        $job = $this->jobs()->latestOf($this->reloaded($sheet), JobKind::Options);
        self::assertNotNull($job);

        return $job;
    }

    private function jobs(): PlanJobRepository
    {
        return static::getContainer()->get(PlanJobRepository::class);
    }

    private function path(RackSheet $sheet, string $part = ''): string
    {
        return "/sheets/{$sheet->getId()}/options$part";
    }
}
