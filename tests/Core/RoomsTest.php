<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core;

use PHPUnit\Framework\TestCase;
use ZigLane\Tests\Architecture\Rooms;

/** Rooms know each other one way only: whoever reads one need not read those that know it. */
final class RoomsTest extends TestCase
{
    public function testNoWayLeadsBackToARoomOfTheCore(): void
    {
        $known = Rooms::known(\dirname(__DIR__, 2).'/core', 'ZigLane\Core');
        self::assertGreaterThan(20, \count($known));
        self::assertArrayHasKey('Rules', $known['Plan']);
        self::assertSame([], Rooms::circles($known));
    }

    public function testNoWayLeadsBackToARoomOfTheApplication(): void
    {
        $known = Rooms::known(\dirname(__DIR__, 2).'/src', 'ZigLane\App');
        self::assertGreaterThan(20, \count($known));
        // An entity names its repository, and a repository is one of entities.
        unset($known['Entity']['Repository']);
        self::assertArrayHasKey('Entity', $known['Repository']);
        self::assertSame([], Rooms::circles($known));
    }

    public function testACircleIsSeen(): void
    {
        $known = ['a' => ['b' => 'A'], 'b' => ['c' => 'B'], 'c' => ['b' => 'C'], 'd' => ['a' => 'D']];
        self::assertSame(['b knows c (B)', 'c knows b (C)'], Rooms::circles($known));
    }
}
