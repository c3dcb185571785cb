<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Bundle\FrameworkBundle\Test\KernelTestCase;
use Symfony\Contracts\Translation\TranslatorInterface;
use ZigLane\App\Twig\RangeFunction;

final class RangeTest extends KernelTestCase
{
    /** @param array{float, float} $interval */
    #[DataProvider('shares')]
    public function testAnIntervalHoldsItsShareAndItsEndsDiffer(array $interval, ?float $share, string $told): void
    {
        self::assertSame($told, self::ranges()->percent($interval, $share));
    }

    /** @return iterable<string, array{array{float, float}, float|null, string}> */
    public static function shares(): iterable
    {
        yield 'as it is' => [[0.604, 0.756], 0.68, '60 to 76'];
        yield 'narrower than a point' => [[0.5552, 0.5649], 0.56, '55.5 to 56.5'];
        yield 'narrower than a tenth' => [[0.5244, 0.5247], 0.524, '52 to 52.5'];
        yield 'no width at all' => [[1.0, 1.0], null, '100'];
        yield 'beyond what a share can be' => [[-0.2, 1.3], 0.5, '0 to 100'];
        yield 'rounded apart' => [[0.6651, 0.76], 0.6649, '66 to 76'];
    }

    public function testItIsToldInTheReadersLanguage(): void
    {
        $translator = self::getContainer()->get(TranslatorInterface::class);
        $translator->setLocale('de');

        self::assertSame('4.1 bis 5.3', self::ranges()->number([4.07, 5.31]));
        self::assertSame('0.41 bis 0.44', self::ranges()->number([4.07, 4.41], 1, 0.1));
    }

    private static function ranges(): RangeFunction
    {
        return self::getContainer()->get(RangeFunction::class);
    }
}
