<?php

declare(strict_types=1);

namespace ZigLane\App\Words;

use League\CommonMark\CommonMarkConverter;
use League\CommonMark\Exception\CommonMarkException;
use Symfony\Component\HtmlSanitizer\HtmlSanitizer;
use Symfony\Component\HtmlSanitizer\HtmlSanitizerConfig;

/** CommonMark that a person wrote as HTML that is safe to show: no HTML of his own, no scripts, no pictures from elsewhere. */
final readonly class Markdown
{
    private CommonMarkConverter $converter;
    private HtmlSanitizer $sanitizer;

    public function __construct()
    {
        $this->converter = new CommonMarkConverter(['html_input' => 'escape', 'allow_unsafe_links' => false, 'max_nesting_level' => 20]);
        $config = (new HtmlSanitizerConfig())->allowSafeElements()->dropElement('img')->allowLinkSchemes(['https', 'http', 'mailto'])
            ->forceAttribute('a', 'rel', 'noopener noreferrer nofollow')->withMaxInputLength(200_000);
        $this->sanitizer = new HtmlSanitizer($config);
    }

    public function html(string $text): string
    {
        try {
            $html = $this->converter->convert($text)->getContent();
        } catch (CommonMarkException) {
            $html = '<p>'.htmlspecialchars($text, \ENT_QUOTES).'</p>';
        }

        // Headings stand below the page's own.
        return $this->sanitizer->sanitize(strtr($html, ['<h1>' => '<h3>', '</h1>' => '</h3>', '<h2>' => '<h4>', '</h2>' => '</h4>']));
    }
}
