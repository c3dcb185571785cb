<?php

declare(strict_types=1);

namespace ZigLane\App\Language;

use Twig\Compiler;
use Twig\Node\Expression\AbstractExpression;

/** A constant of a page that is printed, with the phrases in it in the reader's language. */
final class PhraseExpression extends AbstractExpression
{
    public function __construct(public readonly string $text, int $line)
    {
        parent::__construct([], [], $line);
    }

    public function compile(Compiler $compiler): void
    {
        $compiler->raw('(');
        foreach (HtmlWords::phrases($this->text) as $i => [$lead, $phrase, $trail]) {
            $compiler->raw(0 === $i ? '' : '.')->string($lead);
            if ('' !== $phrase) {
                $compiler
                    ->raw('.$this->extensions[')->string(PageWords::class)->raw(']->said(')->string($phrase)
                    ->raw(').')->string($trail);
            }
        }
        $compiler->raw(')');
    }
}
