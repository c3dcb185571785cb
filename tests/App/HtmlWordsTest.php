<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use ZigLane\App\Language\HtmlWords;

/** What of a template is words, and what is left to the byte. */
final class HtmlWordsTest extends TestCase
{
    /** @param list<string> $phrases */
    #[DataProvider('pieces')]
    public function testPhrasesAreFoundBetweenTagsAndInWhatIsRead(string $html, array $phrases): void
    {
        self::assertSame($phrases, self::phrases((new HtmlWords())->feed($html)));
    }

    /** @return iterable<string, array{string, list<string>}> */
    public static function pieces(): iterable
    {
        yield 'between tags' => ['<p>Lay out <b>the balls</b>, then plan.</p>', ['Lay out', 'the balls', 'then plan.']];
        yield 'attributes that are read' => ['<a class="button big" title="Left arrow" href="/sheets/new">Back</a>', ['Left arrow', 'Back']];
        yield 'a bracket in an attribute' => ['<a data-x="a > b">Go on</a>', ['Go on']];
        yield 'scripts and styles' => ['<script>const words = "no words";</script><style>p { color: red }</style>Yes', ['Yes']];
        yield 'comments' => ['<!-- not <b>this</b> -->but this', ['but this']];
        yield 'what is no word' => ['<p>&nbsp; 12 % &middot; 3 °</p>', []];
        yield 'lines of a template' => ["<p>one\n        sentence</p>", ['one sentence']];
        yield 'titles of a page' => ['Account · Zig Lane', ['Account']];
    }

    /** A template comes in pieces: where one ends within a tag or a value, the next goes on there. */
    public function testWhatIsReadGoesOnOverThePieces(): void
    {
        $words = new HtmlWords();
        self::assertSame([], self::phrases($words->feed('<a class="button')));
        self::assertFalse($words->isProse());
        self::assertSame([], self::phrases($words->feed(' is-primary" aria-label="')));
        self::assertTrue($words->isProse());
        self::assertSame(['in the pocket', 'Go'], self::phrases($words->feed(' in the pocket">Go')));
        self::assertTrue($words->isProse());
    }

    /** Nothing but the phrases is changed: put together again it is the same, but for white space in a line of words. */
    public function testWhatIsNoPhraseStaysToTheByte(): void
    {
        $html = '<svg viewBox="0 0 10 10" aria-label="A zone"><path d="M0 0L1 1"/></svg> (drawn) <input name=x placeholder="4.5, 1.25">, 12&nbsp;%';
        $again = '';
        foreach ((new HtmlWords())->feed($html) as [$before, $phrase]) {
            $again .= $before.$phrase;
        }

        self::assertSame($html, $again);
    }

    /**
     * @param list<array{string, string}> $found
     *
     * @return list<string>
     */
    private static function phrases(array $found): array
    {
        return array_values(array_filter(array_column($found, 1)));
    }
}
