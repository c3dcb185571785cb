<?php

declare(strict_types=1);

namespace ZigLane\App\Language;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Finder\Finder;
use Twig\Environment;
use Twig\Node\Node;
use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Player\ExecutionErrors;

/** All that a language file is asked for, in English: what templates and scripts hold, what the application says by itself, the drills. */
final readonly class PageTexts
{
    /** Sentences in PHP that a page prints in the reader's language. */
    private const IN_PHP = '/(?:addFlash\(\s*\'notice\',\s*|->back\(|TooManyRequestsHttpException\(\s*\d+,\s*)\'((?:[^\'\\\\]|\\\\.)+)\'/';

    /** What is put together of parts. */
    private const COMPOSED = [
        'a beginner', 'a club player', 'a strong player', 'an expert', 'mm to the left of the pocket', 'mm to the right of the pocket',
    ];

    public function __construct(
        private Environment $twig,
        #[Autowire('%kernel.project_dir%')]
        private string $root,
    ) {
    }

    /** @return array<string, list<string>> by domain */
    public function all(): array
    {
        return [
            PageWords::DOMAIN => self::sorted([...$this->ofTemplates(), ...$this->ofPhp()]),
            PageWords::SCRIPTS => self::sorted($this->ofScripts()),
            PageWords::DRILLS => self::sorted($this->ofDrills()),
        ];
    }

    /** Templates and code in one, white space as one blank: what is said by name is found by no reading of them, but stands somewhere. */
    public function sources(): string
    {
        $all = '';
        $folders = [$this->root.'/templates', $this->root.'/src', $this->root.'/core'];
        foreach ((new Finder())->files()->in($folders)->name(['*.twig', '*.php']) as $file) {
            $all .= $file->getContents();
        }

        return (string) preg_replace('/\s+/', ' ', $all);
    }

    /** @return list<string> */
    private function ofScripts(): array
    {
        $found = [];
        foreach (glob($this->root.'/assets/*.js') ?: [] as $file) {
            preg_match_all("/\\bword\\(\\s*'((?:[^'\\\\]|\\\\.)*)'/", (string) file_get_contents($file), $words);
            array_push($found, ...array_map(stripslashes(...), $words[1]));
        }

        return $found;
    }

    /** @return list<string> */
    private function ofTemplates(): array
    {
        $found = [];
        foreach ((new Finder())->files()->in($this->root.'/templates')->name('*.twig')->notName('*.txt.twig')->sortByName() as $file) {
            $source = $this->twig->getLoader()->getSourceContext($file->getRelativePathname());
            self::collect($this->twig->parse($this->twig->tokenize($source)), $found);
        }

        return $found;
    }

    /** @param list<string> $found */
    private static function collect(Node $node, array &$found): void
    {
        if ($node instanceof PhraseNode) {
            $found[] = $node->phrase;
        } elseif ($node instanceof PhraseExpression) {
            array_push($found, ...array_filter(array_column(HtmlWords::phrases($node->text), 1)));
        }
        foreach ($node as $child) {
            self::collect($child, $found);
        }
    }

    /** @return list<string> */
    private function ofPhp(): array
    {
        $found = [...SpeedWords::all(), ...array_keys(ExecutionErrors::PRESETS), ...self::COMPOSED];
        foreach ((new Finder())->files()->in([$this->root.'/src'])->name('*.php')->sortByName() as $file) {
            preg_match_all(self::IN_PHP, $file->getContents(), $sentences);
            array_push($found, ...array_map(stripslashes(...), $sentences[1]));
        }

        return $found;
    }

    /** @return list<string> */
    private function ofDrills(): array
    {
        $found = [];
        foreach (glob($this->root.'/drills/*.drill.json') ?: [] as $file) {
            $drill = DrillFile::parse((string) file_get_contents($file))->drill;
            array_push($found, $drill->name, $drill->text, ...array_column($drill->levels, 'name'));
        }

        return array_values(array_filter($found));
    }

    /**
     * @param list<string> $texts
     *
     * @return list<string>
     */
    private static function sorted(array $texts): array
    {
        $texts = array_values(array_unique($texts));
        sort($texts);

        return $texts;
    }
}
