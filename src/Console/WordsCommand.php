<?php

declare(strict_types=1);

namespace ZigLane\App\Console;

use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Command\Command;
use Symfony\Component\Console\Input\InputArgument;
use Symfony\Component\Console\Input\InputInterface;
use Symfony\Component\Console\Output\OutputInterface;
use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Translation\TranslatorBagInterface;
use ZigLane\App\Language\PageTexts;
use ZigLane\App\Language\PageWords;

/** What the files of a language lack, and what they have that is said no more; without files, all that it takes. */
#[AsCommand('lane:words', 'What the language files of a language lack, as lines for them')]
final class WordsCommand extends Command
{
    private const SENTENCES = 'messages';
    private const PLAIN = \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES | \JSON_THROW_ON_ERROR;

    public function __construct(
        private readonly PageTexts $texts,
        #[Autowire(service: 'translator')] private readonly TranslatorBagInterface $translator,
    ) {
        parent::__construct();
    }

    protected function configure(): void
    {
        $this->addArgument('language', InputArgument::REQUIRED, 'Its code, like de');
    }

    /** @return int 0 where nothing is lacking and nothing is too much, else 1 */
    protected function execute(InputInterface $input, OutputInterface $output): int
    {
        $language = $input->getArgument('language');
        $language = \is_string($language) ? $language : PageWords::ENGLISH;
        $catalogue = $this->translator->getCatalogue($language);
        $english = $this->translator->getCatalogue(PageWords::ENGLISH);
        $sources = $this->texts->sources();
        $isWhole = true;
        foreach ([...$this->texts->all(), self::SENTENCES => array_keys($english->all(self::SENTENCES))] as $domain => $asked) {
            $has = array_filter(
                array_map(strval(...), array_keys($catalogue->all($domain))),
                static fn (string $text): bool => $catalogue->defines($text, $domain),
            );
            foreach ([
                'lacks' => array_diff($asked, $has),
                'has too much' => array_filter(
                    array_diff($has, $asked),
                    static fn (string $text): bool => !str_contains($sources, trim($text)),
                ),
            ] as $what => $texts) {
                $isWhole = $isWhole && [] === $texts;
                foreach ($texts as $text) {
                    $output->writeln(\sprintf('%s.%s %s: %s', $domain, $language, $what, json_encode($text, self::PLAIN)));
                }
            }
        }

        return $isWhole ? self::SUCCESS : self::FAILURE;
    }
}
