<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\Shot;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Repository\ShotLog;
use ZigLane\Core\Log\RackResult;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\BallInHand;

/** At the table: entries count once, in their order, and nobody else's rack can be touched. */
final class ShootTest extends AppTestCase
{
    private const DIAMOND = 0.3175;

    public function testARackIsShotToItsEnd(): void
    {
        $rack = $this->begun();
        // The 4 as called, then the 9.
        $first = $this->entry(
            $rack,
            ['ball' => '4', 'pocket' => 'FL', 'made' => true, 'after' => ['cue' => [4.0, 2.0], '9' => [1.26, 3.15]]],
        );
        $this->post($rack, $first);
        self::assertResponseIsSuccessful();
        $rack = $this->reloadedRack($rack);
        self::assertFalse($rack->getNow()->layout->has(Ball::Four));
        self::assertEqualsWithDelta(4.0 * self::DIAMOND, $rack->getNow()->layout->spot(Ball::Cue)->x, 1e-6);
        self::assertNull($rack->getEnd());
        // The rest is planned again from there, without being asked for.
        $job = $this->manager()->getRepository(PlanJob::class)->findOneBy(['shotRack' => $rack, 'afterShots' => 1]);
        self::assertNotNull($job);
        self::assertEquals($rack->getNow()->layout, $job->getRack()->layout);
        $this->post(
            $rack,
            $this->entry($rack, ['ball' => '9', 'pocket' => 'HL', 'made' => true, 'after' => ['cue' => [3.0, 2.0]]], $first['id']),
        );
        self::assertResponseIsSuccessful();
        self::assertSame(RackResult::Out, $this->reloadedRack($rack)->getEnd());
        self::assertSame('over', $this->client->getCrawler()->filter('[data-shoot]')->attr('data-stage'));
    }

    public function testAnEntrySentTwiceCountsOnce(): void
    {
        $rack = $this->begun();
        $entry = $this->entry(
            $rack,
            ['ball' => '4', 'pocket' => 'FL', 'made' => true, 'after' => ['cue' => [4.0, 2.0], '9' => [1.26, 3.15]]],
        );
        foreach ([1, 2, 3] as $time) {
            $this->post($rack, $entry);
            self::assertResponseIsSuccessful("time $time");
        }
        self::assertCount(1, $this->shots($rack));
    }

    public function testTwoPhonesAtOneRackDoNotOverwriteEachOther(): void
    {
        $rack = $this->begun();
        $mine = $this->entry(
            $rack,
            ['ball' => '4', 'pocket' => 'FL', 'made' => true, 'after' => ['cue' => [4.0, 2.0], '9' => [1.26, 3.15]]],
        );
        $his = $this->entry(
            $rack,
            ['ball' => '4', 'pocket' => 'FR', 'made' => false, 'after' => ['cue' => [2.0, 2.0], '4' => [5, 1], '9' => [1.26, 3.15]]],
        );
        $this->post($rack, $mine);
        self::assertResponseIsSuccessful();
        $this->post($rack, $his);
        self::assertResponseStatusCodeSame(409);
        self::assertStringContainsString('logged on another device', $this->text());
        $shots = $this->shots($rack);
        self::assertCount(1, $shots);
        self::assertSame($mine['id'], (string) $shots[0]->getId());
    }

    /** @return iterable<string, array{array<string, mixed>, string}> */
    public static function refused(): iterable
    {
        $after = ['cue' => [4.0, 2.0], '4' => [5.0, 1.0], '9' => [1.26, 3.15]];
        yield 'overlapping balls' => [['made' => false, 'after' => ['cue' => [5.0, 1.05]] + $after], 'overlap'];
        yield 'off the cloth' => [['made' => false, 'after' => ['cue' => [9.0, 1.0]] + $after], 'off the cloth'];
        yield 'a ball that was already down' => [['made' => false, 'after' => $after + ['3' => [2.0, 1.0]]], 'already down'];
        yield 'made and still there' => [['made' => true, 'after' => $after], 'cannot still lie'];
        yield 'no cue ball' => [['made' => true, 'after' => ['9' => [1.26, 3.15]]], 'Say where the cue ball stopped'];
        yield 'a ball that is none' => [['made' => false, 'after' => $after + ['17' => [2.0, 1.0]]], 'no such ball'];
        yield 'a pocket that is none' => [['pocket' => 'XX', 'made' => false, 'after' => $after], 'not understood'];
        yield 'a spot that is none' => [['made' => false, 'after' => ['cue' => 'here'] + $after], 'Type a spot'];
        yield 'an id that is none' => [['id' => '7', 'made' => false, 'after' => $after], 'not understood'];
    }

    /** @param array<string, mixed> $values */
    #[DataProvider('refused')]
    public function testWhatCannotBeIsRefusedInASentence(array $values, string $told): void
    {
        $rack = $this->begun();
        $this->post($rack, $values + $this->entry($rack, ['ball' => '4', 'pocket' => 'FL']));
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString($told, $this->text());
        self::assertCount(0, $this->shots($rack));
    }

    public function testAWrongClockIsNotBelieved(): void
    {
        $rack = $this->begun();
        $entry = $this->entry(
            $rack,
            ['ball' => '4', 'pocket' => 'FL', 'made' => true, 'after' => ['cue' => [4.0, 2.0], '9' => [1.26, 3.15]]],
        );
        $this->post($rack, ['at' => '1999-01-01T00:00:00Z'] + $entry);
        self::assertResponseIsSuccessful();
        self::assertEqualsWithDelta(time(), $this->shots($rack)[0]->getShotAt()->getTimestamp(), 60);
    }

    public function testUndoTakesTheLastShotBack(): void
    {
        $rack = $this->begun();
        $first = $this->entry(
            $rack,
            ['ball' => '4', 'pocket' => 'FL', 'made' => true, 'after' => ['cue' => [4.0, 2.0], '9' => [1.26, 3.15]]],
        );
        $this->post($rack, $first);
        $this->post(
            $rack,
            $this->entry(
                $rack,
                ['scratch' => 'SL', 'foul' => true, 'made' => false, 'ball' => '9', 'pocket' => 'HL', 'after' => ['9' => [1.5, 3.0]]],
                $first['id'],
            ),
        );
        self::assertSame(BallInHand::Anywhere, $this->reloadedRack($rack)->getNow()->ballInHand);
        $shots = $this->shots($rack);
        $this->client->request(
            'POST',
            "/racks/{$rack->getId()}/undo",
            ['_token' => $this->rackToken($rack), 'shot' => (string) $shots[1]->getId()],
        );
        self::assertResponseIsSuccessful();
        $now = $this->reloadedRack($rack)->getNow();
        self::assertSame(BallInHand::None, $now->ballInHand);
        self::assertEqualsWithDelta(4.0 * self::DIAMOND, $now->layout->spot(Ball::Cue)->x, 1e-6);
        // Undoing what is gone already changes nothing.
        $this->client->request(
            'POST',
            "/racks/{$rack->getId()}/undo",
            ['_token' => $this->rackToken($rack), 'shot' => (string) $shots[1]->getId()],
        );
        self::assertCount(1, $this->shots($rack));
    }

    public function testNobodyElseReachesARack(): void
    {
        $rack = $this->begun();
        $entry = $this->entry(
            $rack,
            ['ball' => '4', 'pocket' => 'FL', 'made' => true, 'after' => ['cue' => [4.0, 2.0], '9' => [1.26, 3.15]]],
        );
        $this->signedIn('Jonas');
        $own = $this->begun($this->signedIn('Piet'));
        $token = $this->rackToken($own);
        foreach ([['GET', 'shoot'], ['GET', 'board'], ['GET', 'review'], ['POST', 'shots'], ['POST', 'undo'], ['POST', 'end'], ['POST', 'delete'],
            ['POST', 'restore'], ['POST', 'costs'], ['POST', 'outing'], ['POST', 'tries'], ['POST', 'tries/undo']] as [$method, $page]) {
            $this->client->request($method, "/racks/{$rack->getId()}/$page", ['_token' => $token, 'entry' => json_encode($entry)]);
            self::assertResponseStatusCodeSame(404, "$method $page");
        }
        self::assertCount(0, $this->shots($rack));
        // An id of another player's shot is no way in either.
        $this->post(
            $own,
            $this->entry($own, ['ball' => '4', 'pocket' => 'FL', 'made' => true, 'after' => ['cue' => [4.0, 2.0], '9' => [1.26, 3.15]]]),
        );
        self::assertResponseIsSuccessful();
    }

    public function testWithoutTokenNothingIsLogged(): void
    {
        $rack = $this->begun();
        $entry = $this->entry(
            $rack,
            ['ball' => '4', 'pocket' => 'FL', 'made' => true, 'after' => ['cue' => [4.0, 2.0], '9' => [1.26, 3.15]]],
        );
        $this->client->request('POST', "/racks/{$rack->getId()}/shots", ['entry' => json_encode($entry)]);
        self::assertResponseStatusCodeSame(403);
        self::assertCount(0, $this->shots($rack));
    }

    public function testADeletedRackComesBackWithItsShots(): void
    {
        $rack = $this->begun();
        $this->post(
            $rack,
            $this->entry($rack, ['ball' => '4', 'pocket' => 'FL', 'made' => true, 'after' => ['cue' => [4.0, 2.0], '9' => [1.26, 3.15]]]),
        );
        $token = $this->rackToken($rack);
        $this->client->request('POST', "/racks/{$rack->getId()}/delete", ['_token' => $token]);
        $this->client->followRedirect();
        self::assertStringContainsString('No shots', $this->text());
        $this->client->request('GET', "/racks/{$rack->getId()}/review");
        self::assertResponseStatusCodeSame(404);
        $this->client->request('POST', "/racks/{$rack->getId()}/restore", ['_token' => $token]);
        $this->client->followRedirect();
        self::assertStringContainsString('4 in FL', $this->text());
    }

    private function begun(?Account $player = null): ShotRack
    {
        $sheet = $this->sheet($player ?? $this->signedIn());
        $this->client->request('POST', "/sheets/{$sheet->getId()}/shoot", ['_token' => $this->token($sheet)]);
        self::assertResponseRedirects();
        $rack = static::getContainer()->get(ShotLog::class)->openRack($this->reloaded($sheet));
        self::assertNotNull($rack);

        return $rack;
    }

    /**
     * @param array<string, mixed> $values
     *
     * @return array<string, mixed>&array{id: string}
     */
    private function entry(ShotRack $rack, array $values, ?string $previous = null): array
    {
        return ['id' => (string) Uuid::v4(), 'previous' => $previous, 'at' => gmdate('Y-m-d\TH:i:s\Z'), 'kind' => 'pot'] + $values;
    }

    /** @param array<string, mixed> $entry */
    private function post(ShotRack $rack, array $entry): void
    {
        $this->client->request(
            'POST',
            "/racks/{$rack->getId()}/shots",
            ['_token' => $this->rackToken($rack), 'entry' => json_encode($entry, \JSON_THROW_ON_ERROR)],
            [],
            ['HTTP_HX_REQUEST' => 'true'],
        );
    }

    private function rackToken(ShotRack $rack): string
    {
        return (string) $this->client->request('GET', "/racks/{$rack->getId()}/shoot")->filter('[data-shoot]')->attr('data-token');
    }

    private function reloadedRack(ShotRack $rack): ShotRack
    {
        $this->manager()->clear();

        return $this->manager()->find(ShotRack::class, $rack->getId()) ?? throw new \LogicException('The rack is gone.');
    }

    /** @return list<Shot> */
    private function shots(ShotRack $rack): array
    {
        return static::getContainer()->get(ShotLog::class)->shots($this->reloadedRack($rack));
    }
}
