<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\TestCase;
use Symfony\Component\Yaml\Yaml;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Motion\IllegalStroke;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;
use ZigLane\Core\Plan\MissLeave;
use ZigLane\Core\Plan\Reason;
use ZigLane\Tests\Told;

/** Sentences: every fact that the code can state has one, and they read as a coach would say them. */
final class WordsTest extends TestCase
{
    private const SOURCES = ['core', 'src'];

    /** Every kind that stands in the code has its message. */
    public function testEveryFactHasItsSentence(): void
    {
        $keys = self::keys(Yaml::parseFile(self::root().'/translations/messages+intl-icu.en.yaml'), '');
        $missing = [];
        foreach (self::kinds() as $kind => $where) {
            $has = str_ends_with($kind, '.')
                ? [] !== preg_grep('/^(inFile\.)?'.preg_quote($kind, '/').'/', array_keys($keys))
                : isset($keys[$kind]) || isset($keys['inFile.'.$kind]);
            if (!$has) {
                $missing[] = "$kind ($where)";
            }
        }
        self::assertSame([], $missing);
    }

    /** Every message has its place in the code: its key, what its key begins with, or the last word of it for a refusal. */
    public function testEverySentenceIsSaidSomewhere(): void
    {
        $text = '';
        foreach (['core', 'src', 'templates'] as $folder) {
            foreach (self::files($folder) as $file) {
                $text .= file_get_contents($file);
            }
        }
        preg_match_all('/[\'"]([a-zA-Z]+(?:\.[\w-]+)*\.?)[\'"]/', $text, $found);
        $literals = array_flip($found[1]);
        $kinds = self::kinds();
        $unsaid = [];
        foreach (array_keys(self::keys(Yaml::parseFile(self::root().'/translations/messages+intl-icu.en.yaml'), '')) as $key) {
            $short = str_starts_with($key, 'inFile.') ? substr($key, 7) : $key;
            $isSaid = isset($kinds[$short]) || isset($literals[$key]);
            for ($parts = explode('.', $short); !$isSaid && \count($parts) > 1;) {
                array_pop($parts);
                $isSaid = isset($literals[implode('.', $parts).'.']);
            }
            if (!$isSaid) {
                $unsaid[] = $key;
            }
        }
        self::assertSame([], $unsaid);
    }

    /** A message that cannot be formatted would fail on the page of a user: all are tried with values of every sort. */
    public function testEverySentenceCanBeFormatted(): void
    {
        foreach (self::keys(Yaml::parseFile(self::root().'/translations/messages+intl-icu.en.yaml'), '') as $key => $message) {
            preg_match_all('/\{(\w+)(?:, (plural|select))?/', $message, $found, \PREG_SET_ORDER);
            $types = [];
            foreach ($found as $argument) {
                $types[$argument[1]][] = $argument[2] ?? '';
            }
            foreach ($types as $name => $uses) {
                self::assertFalse(
                    \in_array('plural', $uses, true) && \in_array('', $uses, true),
                    "$key uses $name as a plural and as it is: write # in the plural",
                );
            }
            $formatter = \MessageFormatter::create('en', $message);
            $values = array_map(static fn (array $uses): int|string => \in_array('plural', $uses, true) ? 2 : 'x', $types);
            self::assertIsString($formatter->format($values), $key);
        }
    }

    public function testTheyReadAsACoachWouldSayThem(): void
    {
        $told = [
            'The tip would miscue: it strikes 60 % of the radius from the centre, and at most 50 % holds. Move it towards the centre.' => IllegalStroke::miscue(0.6, 0.5)->fact(),
            'FR is the only pocket open to the 7' => Reason::onlyPocket(Ball::Seven, Pocket::FootRight),
            'frees the 3: it goes to 2 pockets after this shot, and to none now' => Reason::frees(Ball::Three, 2),
            'frees the 4: it goes to one pocket after this shot, and to none now' => Reason::frees(Ball::Four, 1),
            'right side of the 2: from the wrong side the run-out drops from 46 % to 31 %' => Reason::rightSide(Ball::Two, 0.46, 0.31),
            'the head cushion slows it: 10 % too hard runs 8 cm long instead of 20 cm' => Reason::cushionSlows(Rail::Head, 0.08, 0.2),
            'combination over the 3: nothing goes straight from here' => Reason::indirect(
                new Fact('indirect.combination', ['rails' => [], 'over' => [Ball::Three]]),
                0.3,
                null,
            ),
            'bank off the left rail: the run-out is 30 %, with the best straight shot 12 %' => Reason::indirect(
                new Fact('indirect.bank', ['rails' => [Rail::Left], 'over' => []]),
                0.3,
                0.12,
            ),
            'the cue is raised to 12°, over the right rail' => Reason::raised(12.0, Rail::Right),
            'the cue is raised to 9°, over the 5' => Reason::raised(9.0, Ball::Five),
            'next best: the 4 in SL, 10 points less' => Reason::secondBest(Ball::Four, Pocket::SideLeft, 0.1),
            'HR (not from here)' => new Fact('pot.notFromHere', ['pockets' => [Pocket::HeadRight]]),
            'FL blocked by the 3' => new Fact('pot.blockedBy', ['pocket' => Pocket::FootLeft, 'blockers' => [Ball::Three]]),
            'FL 73 % (cut 30°, cue ball clears the 5 on the left by 12.0 mm, partly open)' => new Fact(
                'pot.here',
                [
                    'pocket' => Pocket::FootLeft,
                    'oddsShare' => 0.73,
                    'cutDegrees' => 30.2,
                    'parts' => [
                        new Fact('gap.clears', ['whose' => 'cueBall', 'side' => 'left', 'gapMetres' => 0.012, 'by' => Ball::Five]),
                        new Fact('gap.partlyOpen'),
                    ],
                ],
            ),
            'miss 34 %' => new Fact('ends.missed', ['share' => 0.34]),
            'scratch under 1 %' => new Fact('risk.scratch', ['share' => 0.002]),
            'The 4 drops in FL, but the cue ball scratches in SR.' => new Fact(
                'verdict.made',
                ['ball' => Ball::Four, 'pocket' => Pocket::FootLeft, 'scratch' => Pocket::SideRight],
            ),
            'The 4 drops in FL. On the way the 5 and the 6 are moved.' => new Fact(
                'verdict.madeMoving',
                ['ball' => Ball::Four, 'pocket' => Pocket::FootLeft, 'scratch' => null, 'moved' => [Ball::Five, Ball::Six]],
            ),
            'Leg 2 cannot be played. The cue ball is not on the table: lay it out first.' => new Fact(
                'chain.cannotBePlayed',
                ['leg' => 2, 'why' => new Fact('layout.notOnTheTable', ['ball' => Ball::Cue])],
            ),
        ];
        foreach ($told as $sentence => $fact) {
            self::assertSame($sentence, Told::of($fact));
        }
        self::assertSame(
            'A miss leaves your opponent a 34 % shot; 3 of 12 misses are fouls.',
            Told::of((new MissLeave(12, 3, 0.341))->fact() ?? new Fact('misses.allFouls')),
        );
        self::assertSame(
            '"4 XX" is not a ball and a pocket: write "4 FL", and more after commas.',
            Told::of(Refused::because('forbidden', ['text' => '4 XX'])),
        );
    }

    /** No riddles of earlier days are left anywhere that a person reads. */
    public function testOldWordsAreGone(): void
    {
        $text = '';
        foreach ([...(glob(self::root().'/templates/*/*.twig') ?: []), self::root().'/translations/messages+intl-icu.en.yaml'] as $file) {
            $text .= file_get_contents($file);
        }
        foreach ([
            'of 100', 'Mend these', 'Whose odds', 'Schools', 'Wishes', 'Ask again', 'They end otherwise',
            'from elsewhere', ' 1 points', 'softer\'',
        ] as $old) {
            self::assertStringNotContainsString($old, $text);
        }
    }

    /**
     * @return array<string, string> kinds of facts and keys of refusals that stand in the code, with their files; one that is put together
     *                               ends with a point
     */
    private static function kinds(): array
    {
        $kinds = [];
        foreach (self::SOURCES as $folder) {
            foreach (self::files($folder) as $file) {
                $code = (string) file_get_contents($file);
                preg_match_all("/self::of\\('([a-zA-Z]+)', \\\$ball/", $code, $layouts);
                preg_match_all("/Refused::because\\('([a-zA-Z]+)'/", $code, $refused);
                preg_match_all("/->fault\\([^,]+, '([a-zA-Z]+)'/", $code, $faults);
                foreach ([
                    ...self::facts($code, $file),
                    ...array_map(static fn (string $kind): string => 'layout.'.$kind, $layouts[1]),
                    ...array_map(static fn (string $kind): string => 'refused.'.$kind, $refused[1]),
                    ...array_map(static fn (string $kind): string => 'file.'.$kind, $faults[1]),
                ] as $kind) {
                    $kinds[$kind] = basename($file);
                }
            }
        }
        self::assertGreaterThan(200, \count($kinds));

        return $kinds;
    }

    /**
     * The kinds that facts are made with: whatever stands as text in the first argument of each `new Fact(...)`. None is passed over.
     *
     * @return list<string>
     */
    private static function facts(string $code, string $file): array
    {
        $kinds = [];
        $tokens = array_values(array_filter(
            \PhpToken::tokenize($code),
            static fn (\PhpToken $token): bool => !$token->is([\T_WHITESPACE, \T_COMMENT, \T_DOC_COMMENT]),
        ));
        foreach ($tokens as $i => $token) {
            if (!$token->is(\T_NEW) || 'Fact' !== ($tokens[$i + 1]->text ?? '') || '(' !== ($tokens[$i + 2]->text ?? '')) {
                continue;
            }
            $found = [];
            for ($depth = 0, $k = $i + 3; $depth > 0 || !\in_array($tokens[$k]->text, [',', ')'], true); ++$k) {
                $depth += match ($tokens[$k]->text) {
                    '(', '[', '{' => 1,
                    ')', ']', '}' => -1,
                    default => 0,
                };
                $text = trim($tokens[$k]->text, '\'"');
                if ($tokens[$k]->is(\T_CONSTANT_ENCAPSED_STRING) && 1 === preg_match('/^[a-zA-Z]+\.([a-zA-Z-]+\.?)*$/', $text)) {
                    $found[] = $text;
                }
            }
            if ([] === $found) {
                self::fail(basename($file).', line '.$token->line.': a fact whose kind is no text where it is made');
            }
            $kinds = [...$kinds, ...$found];
        }

        return $kinds;
    }

    /** @return list<string> */
    private static function files(string $folder): array
    {
        $files = [];
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator(
            self::root().'/'.$folder,
            \FilesystemIterator::SKIP_DOTS,
        )) as $file) {
            self::assertInstanceOf(\SplFileInfo::class, $file);
            $files[] = $file->getPathname();
        }
        sort($files);

        return $files;
    }

    /** @return array<string, string> */
    private static function keys(mixed $tree, string $path): array
    {
        $keys = [];
        foreach ((array) $tree as $key => $value) {
            $keys += \is_array($value) ? self::keys($value, $path.$key.'.') : [$path.$key => \is_scalar($value) ? (string) $value : ''];
        }

        return $keys;
    }

    private static function root(): string
    {
        return \dirname(__DIR__, 2);
    }
}
