<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Log;

use PHPUnit\Framework\TestCase;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Log\Records;
use ZigLane\Core\Log\Reliability;
use ZigLane\Core\Log\ShotFeatures;
use ZigLane\Core\Log\ShotGroup;
use ZigLane\Core\Player\Randomness;
use ZigLane\Core\Rules\Game;
use ZigLane\Tests\SimulatedPlayer;

/** Stated beside real, kinds of shots and records. */
final class ReliabilityTest extends TestCase
{
    public function testOddsThatAreTrueAreNotCalledOff(): void
    {
        $random = new Randomness(3);
        $off = 0;
        for ($player = 0; $player < 40; ++$player) {
            $shots = [];
            for ($i = 0; $i < 200; ++$i) {
                $stated = 0.2 + 0.8 * $random->share();
                $shots[] = [$stated, $random->share() < $stated];
            }
            $off += 0 !== Reliability::of($shots)->isOff() ? 1 : 0;
        }
        // At 95 percent one or two of forty may be.
        self::assertLessThanOrEqual(6, $off);
    }

    public function testOneWhoOverRatesHimselfIsToldByHowMuch(): void
    {
        $random = new Randomness(4);
        $shots = [];
        for ($i = 0; $i < 400; ++$i) {
            $shots[] = [0.8, $random->share() < 0.62];
        }
        $plot = Reliability::of($shots);
        self::assertSame(1, $plot->isOff());
        [$over, [$least, $most]] = $plot->over();
        self::assertEqualsWithDelta(0.18, $over, 0.06);
        self::assertLessThan($over, $least);
        self::assertGreaterThan($over, $most);
        self::assertCount(1, $plot->bins);
        self::assertSame(400, $plot->bins[0]['count']);
        self::assertSame(0, Reliability::of([])->isOff());
    }

    public function testAShotIsOfTheKindsThatItsNumbersSay(): void
    {
        $log = SimulatedPlayer::log(SimulatedPlayer::errors(new Randomness(5)), 40, new Randomness(6));
        foreach ($log->shots() as $shot) {
            $features = ShotFeatures::of($shot);
            self::assertNotNull($features->distance);
            self::assertNotNull($features->cut);
            $kinds = array_filter(ShotGroup::cases(), static fn (ShotGroup $group): bool => $group->has($shot, $features));
            // Just one by its cut, and one by its pocket.
            self::assertCount(1, array_filter($kinds, static fn (ShotGroup $kind): bool => \in_array($kind, [
                ShotGroup::Straight, ShotGroup::Medium, ShotGroup::Thin,
            ], true)));
            self::assertCount(1, array_filter($kinds, static fn (ShotGroup $kind): bool => \in_array($kind, [
                ShotGroup::Corner, ShotGroup::SidePocket,
            ], true)));
        }
    }

    public function testRecordsCountWhatWasNoted(): void
    {
        $shot = static fn (string $result): string => '{"kind": "pot", "called": {"ball": "3", "pocket": "FL"}, "result": '.$result.'}';
        $good = $shot('{"made": true, "position": true}');
        $json = '{"format": "zig-lane/log", "version": 1, "outings": [{"date": "2026-10-03", "racks": ['
            .'{"game": "nine-ball", "end": "out", "shots": ['."$good, $good, $good".']},'
            .'{"game": "nine-ball", "end": "out", "shots": ['.$good.']},'
            .'{"game": "nine-ball", "end": "miss", "shots": ['.$good.', '.$shot('{"made": false}').', '.$good.']},'
            .'{"game": "nine-ball", "end": "left", "shots": [{"kind": "break", "result": {"made": true, "fell": ["2", "6"], "position": true, "after": {"1": [1.2, 2]}}}]},'
            .'{"game": "straight-pool", "end": "miss", "balls": 31, "shots": []}]},'
            .'{"date": "2026-11-07", "racks": [{"game": "nine-ball", "end": "scratch", "shots": ['.$shot('{"made": true, "scratch": "SL", "foul": true}').']}]}]}';
        $log = LogFile::parse($json);
        $all = Records::of($log);
        self::assertSame([5, 2, 2, 31], [$all->racks, $all->out, $all->streak, $all->highRun]);
        self::assertSame([1, 2, 0, 1, 1], [$all->breaks, $all->fell, $all->dry, $all->shotAfter, $all->shotNoted]);
        self::assertSame([1, 1], [$all->wing, $all->wingNoted]);
        self::assertSame(1, $all->oneLay['head']);
        self::assertSame(['2026-11-07', '2026-10-03'], array_keys($all->days));
        self::assertSame(['2026-10', '2026-11'], array_keys($all->months));
        self::assertSame(6, $all->months['2026-10']['made']);
        self::assertSame(1, $all->months['2026-11']['fouls']);
        $nine = Records::of($log, Game::NineBall);
        self::assertSame(3, $nine->highRun);
    }
}
