<?php

declare(strict_types=1);

namespace ZigLane\App\Language;

use Twig\Environment;
use Twig\Node\BlockNode;
use Twig\Node\Expression\AbstractExpression;
use Twig\Node\Expression\Binary\ConcatBinary;
use Twig\Node\Expression\Binary\ElvisBinary;
use Twig\Node\Expression\Binary\NullCoalesceBinary;
use Twig\Node\Expression\ConstantExpression;
use Twig\Node\Expression\FilterExpression;
use Twig\Node\Expression\Ternary\ConditionalTernary;
use Twig\Node\ModuleNode;
use Twig\Node\Node;
use Twig\Node\Nodes;
use Twig\Node\PrintNode;
use Twig\Node\TextNode;
use Twig\NodeVisitor\NodeVisitorInterface;

/**
 * Puts the reader's language into templates that are written in English: as they are compiled, every phrase between tags and in what is
 * read of attributes, and every constant that is printed there, becomes a look into the language file. What is no phrase stays to the byte.
 */
final class PhraseVisitor implements NodeVisitorInterface
{
    /** Filters through which a printed constant is followed. */
    private const THROUGH = ['capitalize', 'upper', 'lower'];
    /** The block that holds classes of the page. */
    private const CLASSES = 'body_class';
    /** Operands that are printed, by the kind of expression. */
    private const PRINTED = [
        ConditionalTernary::class => ['left', 'right'],
        ConcatBinary::class => ['left', 'right'],
        NullCoalesceBinary::class => ['left', 'right'],
        ElvisBinary::class => ['left', 'right'],
    ];

    private HtmlWords $words;
    private bool $isPage = false;
    private bool $isClass = false;

    public function __construct()
    {
        $this->words = new HtmlWords();
    }

    public function enterNode(Node $node, Environment $env): Node
    {
        if ($node instanceof ModuleNode) {
            // Templates of packages speak for themselves, and letters are whole in each language.
            $path = $node->getSourceContext()?->getPath() ?? '';
            $this->isPage = 1 === preg_match('/\.(html|svg)\.twig$/', $path) && !str_contains($path, '/vendor/');
            $this->words = new HtmlWords();
        }
        if ($node instanceof BlockNode) {
            $this->words = new HtmlWords();
            $this->isClass = self::CLASSES === $node->getAttribute('name');
        }
        if ($this->isPage && !$this->isClass && $node instanceof PrintNode && $this->words->isProse()) {
            $expression = $node->getNode('expr');
            if ($expression instanceof AbstractExpression) {
                $node->setNode('expr', self::worded($expression));
            }
        }

        return $node;
    }

    public function leaveNode(Node $node, Environment $env): Node
    {
        if ($node instanceof BlockNode) {
            $this->isClass = false;
        }
        if (!$this->isPage || $this->isClass || !$node instanceof TextNode) {
            return $node;
        }
        $nodes = [];
        $html = $node->getAttribute('data');
        foreach ($this->words->feed(\is_string($html) ? $html : '') as [$before, $phrase]) {
            if ('' !== $before) {
                $nodes[] = new TextNode($before, $node->getTemplateLine());
            }
            if ('' !== $phrase) {
                $nodes[] = new PhraseNode($phrase, $node->getTemplateLine());
            }
        }

        return 1 === \count($nodes) ? $nodes[0] : new Nodes($nodes, $node->getTemplateLine());
    }

    /** Before the escaper, which then escapes what the language file has. */
    public function getPriority(): int
    {
        return -10;
    }

    private static function worded(AbstractExpression $expression): AbstractExpression
    {
        if ($expression instanceof ConstantExpression) {
            $text = $expression->getAttribute('value');

            return \is_string($text) && HtmlWords::isWords($text)
                ? new PhraseExpression($text, $expression->getTemplateLine())
                : $expression;
        }
        $isThrough = $expression instanceof FilterExpression && \in_array($expression->getAttribute('name'), self::THROUGH, true);
        foreach ($isThrough ? ['node'] : self::PRINTED[$expression::class] ?? [] as $name) {
            $operand = $expression->getNode($name);
            if ($operand instanceof AbstractExpression) {
                $expression->setNode($name, self::worded($operand));
            }
        }

        return $expression;
    }
}
