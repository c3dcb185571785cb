<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Bundle\FrameworkBundle\Test\KernelTestCase;
use Symfony\Component\HttpFoundation\Request;

/** Habits of the code that keep a page safe where no single test would see that one of them was left. */
final class SmellsTest extends KernelTestCase
{
    /** What stands raw in a script comes from json_encode with JSON_HEX_TAG: a name cannot end the script. */
    public function testJsonInAScriptCannotEndIt(): void
    {
        $root = \dirname(__DIR__, 2);
        $made = [];
        foreach (self::files($root.'/src', 'php') as $code) {
            preg_match_all('/function (\w+)\([^{]*\{(?:(?!\n    \}\n).)*?json_encode\((.*?)\n    \}\n/s', $code, $found, \PREG_SET_ORDER);
            foreach ($found as [, $name, $body]) {
                $made[$name][] = str_contains($body, '\JSON_HEX_TAG');
            }
        }
        $used = [];
        foreach (self::files($root.'/templates', 'twig') as $template) {
            preg_match_all('/<script[^>]*>\{\{ (?:\w+\.)?(\w+)(?:\(\))?\|raw \}\}/', $template, $found);
            $used = [...$used, ...$found[1]];
            self::assertDoesNotMatchRegularExpression('/json_encode(?!\([^)]*HEX)[^}]*\|raw/', $template);
        }
        self::assertGreaterThanOrEqual(5, \count($used));
        foreach (array_diff(array_unique($used), ['words']) as $name) {
            self::assertNotContains(false, $made[$name] ?? [false], $name);
        }
        self::assertNotContains(false, $made['scriptWords'] ?? [false], 'words of the scripts');
    }

    #[DataProvider('paths')]
    public function testPathsOfNobodyEndWhereTheyEnd(string $path, bool $isPublic): void
    {
        $map = self::getContainer()->get('security.access_map');

        self::assertSame($isPublic ? ['PUBLIC_ACCESS'] : ['ROLE_USER'], $map->getPatterns(Request::create($path))[0]);
    }

    /** @return iterable<string, array{string, bool}> */
    public static function paths(): iterable
    {
        foreach (['/sign-in', '/register', '/look/abc', '/look/abc/board', '/reset/abc', '/healthy'] as $path) {
            yield $path => [$path, true];
        }
        foreach (['/sign-in/x', '/sign-ins', '/registered', '/look/abc/sheets', '/look', '/reset/abc/x', '/healthy/x', '/demo-rack', '/'] as $path) {
            yield $path => [$path, false];
        }
    }

    /** What the browser is given of others carries their licence. */
    public function testScriptsOfOthersCarryTheirLicence(): void
    {
        foreach (['bulma.css' => 'MIT', 'htmx.js' => '0BSD', 'qr.js' => 'Kazuhiko Arase'] as $file => $word) {
            $begins = (string) file_get_contents(\dirname(__DIR__, 2).'/assets/vendor/'.$file, length: 400);
            self::assertStringStartsWith('/*!', $begins, $file);
            self::assertStringContainsString($word, $begins, $file);
        }
    }

    /** A double-quoted string is a column's name where the database reads SQL as the standard has it. */
    public function testStringsOfSqlStandInSingleQuotes(): void
    {
        foreach (self::files(\dirname(__DIR__, 2).'/src', 'php') as $path => $code) {
            self::assertDoesNotMatchRegularExpression('/\'(?:SELECT|UPDATE|INSERT|DELETE) [^\']*"/', $code, $path);
        }
    }

    /** @return iterable<string, string> */
    private static function files(string $folder, string $kind): iterable
    {
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator($folder, \FilesystemIterator::SKIP_DOTS)) as $file) {
            \assert($file instanceof \SplFileInfo);
            if (str_ends_with($file->getFilename(), '.'.$kind)) {
                yield $file->getPathname() => (string) file_get_contents($file->getPathname());
            }
        }
    }
}
