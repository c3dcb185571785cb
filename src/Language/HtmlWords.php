<?php

declare(strict_types=1);

namespace ZigLane\App\Language;

/**
 * Finds the words of a page in the pieces of HTML of its template, which are fed one after the other: what stands between tags, and in the
 * attributes that are read to people.
 */
final class HtmlWords
{
    private const READ = ['aria-label', 'title', 'placeholder', 'alt', 'data-label'];
    /** Elements whose content is no prose. */
    private const VERBATIM = ['script', 'style', 'textarea', 'pre', 'code'];
    /** What is no part of a phrase at its beginning and at its end, and what parts two. */
    private const LEAD = '/^[\s,.;:)°%·\x{2026}×\x{2013}-]+/u';
    private const TRAIL = '/[\s(,;:·×\x{2013}]+$/u';
    private const PARTS = '/(\s+·\s+)/u';

    private string $state = 'text';
    private string $element = '';
    /** What of the tag has been read since the last attribute. */
    private string $tag = '';
    private string $quote = '';
    private bool $isRead = false;

    /** Whether what comes next is read by people. */
    public function isProse(): bool
    {
        return 'text' === $this->state || ('value' === $this->state && $this->isRead);
    }

    /** @return list<array{string, string}> what stands before each phrase, and the phrase; empty for none */
    public function feed(string $html): array
    {
        $found = [];
        $verbatim = '';
        $at = 0;
        while ($at < \strlen($html)) {
            $isProse = $this->isProse();
            $piece = $this->take($html, $at);
            $at += \strlen($piece);
            if (!$isProse || '' === $piece) {
                $verbatim .= $piece;
                continue;
            }
            foreach (self::phrases($piece) as [$lead, $phrase, $trail]) {
                $verbatim .= $lead;
                if ('' !== $phrase) {
                    $found[] = [$verbatim, $phrase];
                    $verbatim = $trail;
                }
            }
        }
        if ('' !== $verbatim) {
            $found[] = [$verbatim, ''];
        }

        return $found;
    }

    /** @return list<array{string, string, string}> what stands before each phrase, the phrase (empty for none), and what follows it */
    public static function phrases(string $text): array
    {
        $phrases = [];
        foreach (preg_split(self::PARTS, $text, -1, \PREG_SPLIT_DELIM_CAPTURE) ?: [] as $part) {
            $lead = 1 === preg_match(self::LEAD, $part, $match) ? $match[0] : '';
            $rest = substr($part, \strlen($lead));
            $trail = 1 === preg_match(self::TRAIL, $rest, $match) ? $match[0] : '';
            $phrase = substr($rest, 0, \strlen($rest) - \strlen($trail));
            $phrases[] = self::isWords($phrase)
                ? [self::short($lead), self::plain($phrase), self::short($trail)]
                : [$part, '', ''];
        }

        return $phrases;
    }

    /** Whether there is a word in it: two letters together that are no entity. */
    public static function isWords(string $text): bool
    {
        return 1 === preg_match('/\p{L}{2}/u', (string) preg_replace('/&#?\w+;/', '', $text)) && !\in_array($text, ['Zig Lane'], true);
    }

    public static function plain(string $text): string
    {
        return trim((string) preg_replace('/\s+/u', ' ', $text));
    }

    /** White space of a template's lines as one blank. */
    private static function short(string $text): string
    {
        return (string) preg_replace('/\s+/u', ' ', $text);
    }

    /** The next piece of one kind, whatever follows it. */
    private function take(string $html, int $at): string
    {
        return match ($this->state) {
            'text' => $this->text($html, $at),
            'tag' => $this->tag($html, $at),
            'value' => $this->until($html, $at, $this->quote, 'tag'),
            'comment' => $this->until($html, $at, '-->', 'text'),
            default => $this->until($html, $at, '</'.$this->element, 'tag'),
        };
    }

    private function text(string $html, int $at): string
    {
        $open = strpos($html, '<', $at);
        if (false === $open) {
            return substr($html, $at);
        }
        if ($open > $at) {
            return substr($html, $at, $open - $at);
        }
        if (str_starts_with(substr($html, $at, 4), '<!--')) {
            $this->state = 'comment';

            return '<!--';
        }
        $this->element = 1 === preg_match('/\G<(\w+)/', $html, $match, 0, $at) ? strtolower($match[1]) : '';
        [$this->state, $this->tag] = ['tag', ''];

        return '<';
    }

    private function tag(string $html, int $at): string
    {
        if (1 !== preg_match('/[>"\']/', $html, $match, \PREG_OFFSET_CAPTURE, $at)) {
            $this->tag .= substr($html, $at);

            return substr($html, $at);
        }
        [$mark, $end] = $match[0];
        $this->tag .= substr($html, $at, $end - $at);
        if ('>' === $mark) {
            $this->state = \in_array($this->element, self::VERBATIM, true) && !str_ends_with($this->tag, '/') ? 'verbatim' : 'text';
        } else {
            $name = 1 === preg_match('/([\w:-]+)\s*=\s*$/', $this->tag, $match) ? strtolower($match[1]) : '';
            [$this->state, $this->quote, $this->isRead] = ['value', $mark, \in_array($name, self::READ, true)];
        }
        $this->tag = '>' === $mark ? '' : $this->tag;

        return substr($html, $at, $end + 1 - $at);
    }

    private function until(string $html, int $at, string $end, string $then): string
    {
        $found = strpos($html, $end, $at);
        if (false === $found) {
            return substr($html, $at);
        }
        // The value is one piece, what ends it the next.
        if ($found > $at) {
            return substr($html, $at, $found - $at);
        }
        [$this->state, $this->tag, $this->element] = [$then, '', 'verbatim' === $this->state ? '' : $this->element];

        return $end;
    }
}
