<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Symfony\Component\Translation\MessageCatalogueInterface;
use Symfony\Component\Translation\TranslatorBagInterface;
use Symfony\Contracts\Translation\LocaleAwareInterface;
use Symfony\Contracts\Translation\TranslatorInterface;

/** In the language "xx" all that can be translated stands in brackets: what stands outside them is in no language file. */
final class BracketTranslator implements TranslatorInterface, TranslatorBagInterface, LocaleAwareInterface
{
    public const LOCALE = 'xx';

    /** @var array<string, array<string, true>> what was asked for in it, by domain */
    public static array $asked = [];

    private string $locale = 'en';

    public function __construct(private readonly TranslatorInterface&TranslatorBagInterface&LocaleAwareInterface $inner)
    {
    }

    /** @param array<mixed> $parameters */
    public function trans(?string $id, array $parameters = [], ?string $domain = null, ?string $locale = null): string
    {
        if (self::LOCALE !== ($locale ?? $this->locale)) {
            return $this->inner->trans((string) $id, $parameters, $domain, $locale);
        }
        self::$asked[$domain ?? 'messages'][(string) $id] = true;

        return '⟦'.$this->inner->trans((string) $id, $parameters, $domain, 'en').'⟧';
    }

    public function getCatalogue(?string $locale = null): MessageCatalogueInterface
    {
        return $this->inner->getCatalogue($locale);
    }

    /** @return array<MessageCatalogueInterface> */
    public function getCatalogues(): array
    {
        return $this->inner->getCatalogues();
    }

    public function setLocale(string $locale): void
    {
        $this->locale = $locale;
        $this->inner->setLocale($locale);
    }

    public function getLocale(): string
    {
        return $this->locale;
    }
}
