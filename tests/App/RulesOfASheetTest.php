<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use ZigLane\Core\Name\Ball;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Racking;

final class RulesOfASheetTest extends AppTestCase
{
    public function testAChoiceOfTheRulesIsKeptAndTold(): void
    {
        $sheet = $this->sheet($this->signedIn(), [0 => [0.6, 0.6], 3 => [1.5, 0.5], 10 => [2.0, 0.9]], Game::TenBall);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/layout");
        self::assertSelectorTextContains('.sheet-rules', 'Ball and pocket are called');
        $this->client->submitForm('Keep these rules', ['rules' => ['tenLast'], 'pushOut' => '1']);
        $rack = $this->reloaded($sheet)->getRack();
        self::assertTrue($rack->rules->tenLast);
        self::assertTrue($rack->standing->mayPush);
        // It is a step like any other: undo takes it back.
        $this->client->request('GET', "/sheets/{$sheet->getId()}/layout");
        self::assertSelectorTextContains('.sheet-rules', 'a push-out may be declared');
        $this->client->submitForm('Undo');
        self::assertFalse($this->reloaded($sheet)->getRack()->rules->tenLast);
    }

    public function testFourteenAreRackedBesideOneBall(): void
    {
        $sheet = $this->sheet($this->signedIn(), [0 => [1.5, 0.9], 4 => [1.86, 0.98]], Game::StraightPool);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/layout");
        $this->client->submitForm('Rack fourteen', ['foulsInARow' => '1', 'otherFouls' => '2']);
        $rack = $this->reloaded($sheet)->getRack();
        self::assertSame(16, $rack->layout->count());
        self::assertNotNull(Racking::racked($rack->layout, $rack->equipment));
        self::assertSame([1.86, 0.98], [round($rack->layout->spot(Ball::Four)->x, 3), round($rack->layout->spot(Ball::Four)->y, 3)]);
    }

    public function testFourteenWithABallInTheRackAreRefusedInASentence(): void
    {
        $sheet = $this->sheet($this->signedIn(), [0 => [1.5, 0.9], 4 => [2.0, 0.635]], Game::StraightPool);
        $this->client->request('GET', "/sheets/{$sheet->getId()}/layout");
        $this->client->submitForm('Rack fourteen');
        self::assertResponseStatusCodeSame(422);
        self::assertSelectorTextContains('[data-error]', 'both clear of the rack');
        self::assertSame(2, $this->reloaded($sheet)->getRack()->layout->count());
    }
}
