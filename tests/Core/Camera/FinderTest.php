<?php

declare(strict_types=1);

namespace ZigLane\Tests\Core\Camera;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\Core\Camera\CornerFinder;
use ZigLane\Core\Camera\Finder;
use ZigLane\Core\Camera\PictureFile;
use ZigLane\Core\Camera\UnreadablePicture;
use ZigLane\Core\Camera\View;
use ZigLane\Core\Table\Equipment;
use ZigLane\Tests\SimulatedPictures;

/** Balls from pictures whose truth is known; the proof over two hundred scenes is benchmarks/pictures.php. */
final class FinderTest extends TestCase
{
    public function testBallsOfAFewScenesAreFoundAndNamed(): void
    {
        $pictures = new SimulatedPictures(3);
        $balls = $named = $missed = $made = 0;
        $off = [];
        for ($i = 0; $i < 5; ++$i) {
            $scene = $pictures->scene($i);
            $balls += $scene['balls'];
            $named += $scene['named'];
            $missed += $scene['missed'];
            $made += $scene['made'];
            array_push($off, ...$scene['off']);
        }
        self::assertGreaterThan(25, $balls);
        self::assertSame(0, $missed);
        self::assertLessThanOrEqual(1, $made);
        self::assertGreaterThanOrEqual(0.93 * $balls, $named);
        sort($off);
        self::assertLessThan(0.008, $off[(int) (0.9 * (\count($off) - 1))]);
    }

    /** Corners that are proposed are right, or none are: a wrong one would be believed. */
    public function testCornersAreProposedWhereTheyAre(): void
    {
        $pictures = new SimulatedPictures(11, 0.0);
        $found = 0;
        for ($i = 0; $i < 12; ++$i) {
            [, , $image, $truth] = $pictures->picture($i);
            $corners = CornerFinder::find($image);
            $found += null === $corners ? 0 : 1;
            foreach ($corners ?? [] as $n => [$x, $y]) {
                self::assertEqualsWithDelta($truth[$n][0], $x, 20.0, "scene $i, corner $n");
                self::assertEqualsWithDelta($truth[$n][1], $y, 20.0, "scene $i, corner $n");
            }
        }
        self::assertGreaterThanOrEqual(10, $found);
        $nothing = imagecreatetruecolor(640, 360);
        imagefill($nothing, 0, 0, 0x557733);
        self::assertNull(CornerFinder::find($nothing));
    }

    /** A view is what its four points say, to a hair. */
    public function testAViewIsFoundFromFourPoints(): void
    {
        $view = View::looking([1.0, -1.5, 2.2], [1.3, 0.6, 0.0], 900.0, 960, 540, 0.02);
        $points = [[0.0, 0.0], [2.54, 0.0], [2.54, 1.27], [0.0, 1.27]];
        $found = View::ofFour($points, array_map(static fn (array $p): array => $view->pixel($p[0], $p[1], 0.0), $points), 960, 540);
        self::assertNotNull($found);
        self::assertEqualsWithDelta(900.0, $found->focal, 1e-6);
        self::assertEqualsWithDelta($view->at, $found->at, 1e-9);
        self::assertEqualsWithDelta($view->pixel(1.0, 0.5, 0.028), $found->pixel(1.0, 0.5, 0.028), 1e-6);
    }

    /** @param list<array{float, float}> $taps */
    #[DataProvider('corners')]
    public function testFourPointsThatAreNoTableAreRefused(array $taps): void
    {
        $image = imagecreatetruecolor(960, 540);
        imagefill($image, 0, 0, 0x267078);
        self::assertNull(Finder::find($image, $taps, new Equipment()));
    }

    /** @return iterable<string, array{list<array{float, float}>}> */
    public static function corners(): iterable
    {
        yield 'three on a line' => [[[100.0, 400.0], [400.0, 400.0], [800.0, 400.0], [200.0, 100.0]]];
        yield 'all in one place' => [[[100.0, 400.0], [100.0, 400.0], [100.0, 400.0], [100.0, 400.0]]];
        yield 'three' => [[[100.0, 400.0], [800.0, 400.0], [700.0, 100.0]]];
    }

    #[DataProvider('files')]
    public function testWhatIsNoPictureIsRefusedBeforeItIsDecoded(string $bytes, string $why): void
    {
        try {
            PictureFile::read($bytes);
        } catch (UnreadablePicture $e) {
            self::assertSame("picture.$why", $e->fact()->kind);

            return;
        }
        self::fail('It was read.');
    }

    /** @return iterable<string, array{string, string}> */
    public static function files(): iterable
    {
        $png = static function (int $width, int $height): string {
            $image = imagecreatetruecolor(max(1, $width), max(1, $height));
            ob_start();
            imagepng($image);

            return (string) ob_get_clean();
        };
        yield 'text' => ['not a picture', 'kind'];
        yield 'HEIC' => ["\0\0\0\x18ftypheic\0\0\0\0", 'heic'];
        yield 'small' => [$png(60, 40), 'small'];
        yield 'broken' => [substr($png(400, 300), 0, 120), 'broken'];
        // The head of a picture says that it is huge: it is not decoded.
        $head = $png(400, 300);
        yield 'huge' => [substr_replace($head, pack('NN', 60000, 60000), 16, 8), 'large'];
        yield 'long' => [str_repeat('x', PictureFile::MAX_BYTES + 1), 'tooLong'];
    }

    public function testALargePictureIsMadeSmaller(): void
    {
        $image = imagecreatetruecolor(2400, 1350);
        ob_start();
        imagejpeg($image);
        $read = PictureFile::read((string) ob_get_clean());
        self::assertSame([1200, 675], [imagesx($read), imagesy($read)]);
    }
}
