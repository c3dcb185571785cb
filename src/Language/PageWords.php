<?php

declare(strict_types=1);

namespace ZigLane\App\Language;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\Translation\TranslatorBagInterface;
use Symfony\Contracts\Translation\TranslatorInterface;
use Twig\Environment;
use Twig\Extension\AbstractExtension;
use Twig\Extension\CoreExtension;
use Twig\TwigFilter;
use Twig\TwigFunction;

/**
 * What stands on pages in the reader's language: templates and scripts hold it in English, which is the key in translations/pages.*.yaml;
 * the drills of the library in translations/drills.*.yaml. A phrase that a language file does not have is shown in English.
 */
final class PageWords extends AbstractExtension
{
    public const DOMAIN = 'pages';
    public const DRILLS = 'drills';
    public const SCRIPTS = 'scripts';
    public const ENGLISH = 'en';
    /** Words that stand among the numbers of a stroke. */
    private const COUNTED = '/mm to the (?:left|right) of the pocket|lengths?|tips?|raised/';
    /** What is in a date or time by how it is written in English. */
    private const SKELETONS = [
        'j M Y' => 'yMMMd', 'j M' => 'MMMd', 'l, j M' => 'EEEEMMMd', 'j M Y, H:i' => 'yMMMdHHmm', 'j M, H:i' => 'MMMdHHmm', 'H:i' => 'HHmm',
    ];

    /** Said by the page at the table as it steps on by itself. */
    private const STEPPED = ['tip', 'tips'];

    public function __construct(
        #[Autowire(service: 'translator')] private readonly TranslatorInterface&TranslatorBagInterface $translator,
    ) {
    }

    public function getNodeVisitors(): array
    {
        return [new PhraseVisitor()];
    }

    public function getFilters(): array
    {
        return [
            new TwigFilter('said', $this->said(...)),
            new TwigFilter('of_drill', $this->ofDrill(...)),
            new TwigFilter('counted', $this->counted(...)),
            new TwigFilter('written', $this->written(...), ['needs_environment' => true]),
        ];
    }

    public function getFunctions(): array
    {
        return [new TwigFunction('script_words', $this->scriptWords(...))];
    }

    /** @param string|null $english as a template or the application has it */
    public function said(?string $english): string
    {
        return $this->isEnglish() ? (string) $english : $this->translator->trans((string) $english, [], self::DOMAIN);
    }

    /** A name or text of a drill: those of the library are in the language file, others as they were written. */
    public function ofDrill(?string $english): string
    {
        return $this->isEnglish() || null === $english || '' === $english
            ? (string) $english
            : $this->translator->trans($english, [], self::DRILLS);
    }

    /** A stroke as Sheet\ShotUnits tells it, with the words among its numbers in the reader's language. */
    public function counted(string $stroke): string
    {
        return $this->isEnglish() ? $stroke : (string) preg_replace_callback(
            self::COUNTED,
            fn (array $found): string => $this->said($found[0]),
            $stroke,
        );
    }

    /**
     * A date or time as it is written in the reader's language.
     *
     * @param string            $format as date() has it: one of SKELETONS
     * @param string|false|null $zone   false: as it was chosen; null: the reader's
     */
    public function written(Environment $twig, \DateTimeInterface|string|null $at, string $format, string|false|null $zone = null): string
    {
        $core = $twig->getExtension(CoreExtension::class);
        if ($this->isEnglish()) {
            return $core->formatDate($at, $format, $zone);
        }
        $language = $this->translator->getLocale();
        $pattern = (string) (new \IntlDatePatternGenerator($language))->getBestPattern(self::SKELETONS[$format]);
        $date = $core->convertDate($at, $zone);

        return (string) \IntlDateFormatter::formatObject($date, $pattern, $language);
    }

    /** @return string JSON: what scripts say (word('...') in assets/), in the reader's language; empty in English */
    public function scriptWords(): string
    {
        if ($this->isEnglish()) {
            return '';
        }
        $said = $this->translator->getCatalogue($this->translator->getLocale())->all(self::SCRIPTS);
        foreach ([...SpeedWords::all(), ...self::STEPPED] as $word) {
            $said[$word] = $this->said($word);
        }

        return json_encode($said, \JSON_THROW_ON_ERROR | \JSON_HEX_TAG | \JSON_UNESCAPED_UNICODE);
    }

    private function isEnglish(): bool
    {
        return self::ENGLISH === $this->translator->getLocale();
    }
}
