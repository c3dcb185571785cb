<?php

declare(strict_types=1);

namespace ZigLane\App\Language;

use Symfony\Component\DependencyInjection\Attribute\Autowire;

/** The languages there are files of: English, in which everything is written, and one for each translations/pages.*.yaml. */
final readonly class Languages
{
    /** @param string $more codes besides, parted by blanks: for tests */
    public function __construct(
        #[Autowire('%kernel.project_dir%/translations')] private string $folder,
        #[Autowire('%lane.more_languages%')] private string $more = '',
    ) {
    }

    /** @return list<string> codes like "de", English first */
    public function codes(): array
    {
        $codes = [PageWords::ENGLISH];
        foreach (glob($this->folder.'/'.PageWords::DOMAIN.'.*.yaml') ?: [] as $file) {
            $codes[] = explode('.', basename($file))[1];
        }

        return array_values(array_unique([...$codes, ...('' === $this->more ? [] : explode(' ', $this->more))]));
    }

    public function has(string $code): bool
    {
        return \in_array($code, $this->codes(), true);
    }

    /** @return array<string, string> what each calls itself, by its code */
    public function names(): array
    {
        $names = [];
        foreach ($this->codes() as $code) {
            $names[$code] = mb_convert_case(\Locale::getDisplayLanguage($code, $code) ?: $code, \MB_CASE_TITLE);
        }

        return $names;
    }
}
