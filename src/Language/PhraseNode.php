<?php

declare(strict_types=1);

namespace ZigLane\App\Language;

use Twig\Attribute\YieldReady;
use Twig\Compiler;
use Twig\Node\Node;
use Twig\Node\NodeOutputInterface;

/** A phrase of a page, in the reader's language. */
#[YieldReady]
final class PhraseNode extends Node implements NodeOutputInterface
{
    public function __construct(public readonly string $phrase, int $line)
    {
        parent::__construct([], [], $line);
    }

    public function compile(Compiler $compiler): void
    {
        $compiler
            ->addDebugInfo($this)
            ->write('yield $this->extensions[')->string(PageWords::class)->raw(']->said(')
            ->string($this->phrase)
            ->raw(");\n");
    }
}
