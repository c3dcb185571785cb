<?php

declare(strict_types=1);

namespace ZigLane\Tests;

use PHPUnit\Framework\Assert;
use Symfony\Component\Translation\Loader\YamlFileLoader;
use Symfony\Component\Translation\Translator;
use ZigLane\App\Words\Words;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;

/** What a person is told of a fact or a refusal of the core: the sentences of the application. */
final class Told
{
    private static ?Words $words = null;

    public static function words(): Words
    {
        if (null === self::$words) {
            $translator = new Translator('en');
            $translator->addLoader('yaml', new YamlFileLoader());
            $translator->addResource('yaml', \dirname(__DIR__).'/translations/messages+intl-icu.en.yaml', 'en', 'messages+intl-icu');
            self::$words = new Words($translator);
        }

        return self::$words;
    }

    public static function of(Fact|\Throwable $what): string
    {
        return $what instanceof Fact ? self::words()->of($what) : self::words()->error($what);
    }

    /**
     * What is told of the refusal that something must come to.
     *
     * @param \Closure(): mixed            $do
     * @param class-string<CoreError>|null $class
     */
    public static function refusal(\Closure $do, ?string $class = null): string
    {
        try {
            $do();
        } catch (CoreError $e) {
            if (null !== $class) {
                Assert::assertInstanceOf($class, $e);
            }

            return self::of($e);
        }
        Assert::fail('Nothing was refused.');
    }
}
