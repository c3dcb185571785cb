<?php

declare(strict_types=1);

namespace ZigLane\App\Language;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Contracts\Translation\TranslatorInterface;
use ZigLane\App\Words\SpeedWords;

/** What scripts say by themselves: word('...') in assets/, the English being the key in translations/scripts.*.yaml. */
final readonly class ScriptWords
{
    public function __construct(#[Autowire('%kernel.project_dir%/assets')] private string $folder)
    {
    }

    /** @return list<string> in English, as the scripts have them */
    public function all(): array
    {
        $words = [];
        foreach (glob($this->folder.'/*.js') ?: [] as $file) {
            preg_match_all("/\\bword\\(\\s*'((?:[^'\\\\]|\\\\.)*)'/", (string) file_get_contents($file), $found);
            array_push($words, ...array_map(stripslashes(...), $found[1]));
        }

        return array_values(array_unique($words));
    }

    /** @return string JSON: what each is in the reader's language; empty in English */
    public function inLanguage(TranslatorInterface $translator): string
    {
        if (PageWords::ENGLISH === $translator->getLocale()) {
            return '';
        }
        $said = [];
        foreach ($this->all() as $word) {
            $said[$word] = $translator->trans($word, [], PageWords::SCRIPTS);
        }

        foreach ([...SpeedWords::all(), 'tip', 'tips'] as $word) {
            $said[$word] = $translator->trans($word, [], PageWords::DOMAIN);
        }

        return json_encode($said, \JSON_THROW_ON_ERROR | \JSON_HEX_TAG | \JSON_UNESCAPED_UNICODE);
    }
}
