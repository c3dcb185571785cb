<?php

declare(strict_types=1);

namespace ZigLane\Core\Format;

use ZigLane\Core\Fact\Fact;

/**
 * A log file in pieces of some racks, each a log file of its own: however long it is, only a piece is in memory as numbers. It is cut where
 * racks end; LogFile reads a piece and finds its faults.
 */
final class LogPieces
{
    /** Racks of a piece, and its bytes about. */
    private const RACKS = 50;
    private const BYTES = 400_000;
    private const MOST_OUTINGS = 20_000;
    /** Bytes of what is said of a log or an outing, and of one rack. */
    private const MOST_HEAD = 65_536;
    private const MOST_RACK = 1_000_000;
    private const DEEPEST = 32;
    /** Where an outing and a rack begin: within the document, its list, the outing and its list. */
    private const OUTING = 2;
    private const RACK = 4;

    /** @var list<string> what opens and is not closed yet, with the key before it */
    private array $open = [];
    private string $key = '';

    private string $json;
    private string $document = '{}';
    /** @var array<int, string> what is said of the outings, without their racks */
    private array $heads = [];
    /** @var list<array{from: int, length: int, outing: int, rack: int}> racks one behind the other: where, outing, first number */
    public readonly array $runs;

    /**
     * Finds the pieces; the text itself is not kept.
     *
     * @throws InvalidFile If it is cut off, nested too deep, or what it says of an outing or a rack is too long
     */
    public function __construct(string $json)
    {
        $this->json = $json;
        $runs = [];
        $isOpen = false;
        foreach ($this->scan() as [$what, $outing, $rack, $from, $to, $text]) {
            if (self::RACK === $what) {
                $last = array_key_last($runs);
                if (!$isOpen || null === $last || $to - $runs[$last]['from'] > self::BYTES || $rack - $runs[$last]['rack'] >= self::RACKS) {
                    $runs[] = ['from' => $from, 'length' => $to - $from, 'outing' => $outing, 'rack' => $rack];
                    $isOpen = true;
                } else {
                    $runs[$last]['length'] = $to - $runs[$last]['from'];
                }
            } elseif (self::OUTING === $what) {
                $this->heads[$outing] = $text;
                $isOpen = false;
            } else {
                $this->document = $text;
            }
        }
        $this->runs = $runs;
        $this->json = '';
    }

    /** @param string $text of a run, as it stands in the file */
    public function file(int $run, string $text): string
    {
        $with = static function (string $object, string $field, string $list): string {
            // Where the list stood first the object now begins with a comma.
            $rest = rtrim((string) preg_replace('/^\s*\{\s*,/', '{', substr($object, 0, -1)));

            return $rest.(str_ends_with($rest, '{') ? '' : ',').'"'.$field.'":['.$list.']}';
        };

        return $with($this->document, 'outings', $with($this->heads[$this->runs[$run]['outing']] ?? '{}', 'racks', $text));
    }

    /**
     * @return iterable<array{int, int, int, int, int, string}> what ended (0, OUTING or RACK), the numbers of its outing and rack, where it
     *                                                          begins and ends, and its text without its list
     */
    private function scan(): iterable
    {
        $json = $this->json;
        $end = \strlen($json);
        $this->open = [];
        $outing = $rack = -1;
        // Where the text of the document, of an outing and of a rack goes on, and what there is of it.
        $from = [0 => 0, self::OUTING => 0, self::RACK => 0];
        $text = [0 => '', self::OUTING => ''];
        $ofList = [];
        // Ends: each round goes on behind a bracket or a string.
        for ($at = strcspn($json, '"{}[]'); $at < $end; $at += strcspn($json, '"{}[]', $at)) {
            $char = $json[$at];
            if ('"' === $char) {
                $at = $this->string($at);
                continue;
            }
            $depth = \count($this->open);
            if ('{' === $char || '[' === $char) {
                if ($depth >= self::DEEPEST) {
                    throw self::broken('nested too deep');
                }
                $name = [1 => 'outings', 3 => 'racks'][$depth] ?? null;
                $isList = '[' === $char && $name === $this->key && (1 === $depth || [] !== $ofList);
                $this->open[] = $char;
                if ($isList) {
                    // The key and its colon go with the list.
                    $text[$depth - 1] .= self::cut($json, $from[$depth - 1], $at);
                    $ofList[] = $depth;
                } elseif ('{' === $char && self::OUTING === $depth && 1 === \count($ofList)) {
                    if (++$outing >= self::MOST_OUTINGS) {
                        throw self::broken('more than '.self::MOST_OUTINGS.' outings');
                    }
                    [$rack, $from[self::OUTING], $text[self::OUTING]] = [-1, $at, ''];
                } elseif ('{' === $char && self::RACK === $depth && 2 === \count($ofList)) {
                    ++$rack;
                    $from[self::RACK] = $at;
                }
                ++$at;
                continue;
            }
            if ((('}' === $char) ? '{' : '[') !== array_pop($this->open)) {
                throw self::broken('brackets do not match');
            }
            --$depth;
            ++$at;
            if ([] !== $ofList && $depth === end($ofList)) {
                array_pop($ofList);
                $from[$depth - 1] = $at;
            } elseif (self::RACK === $depth && 2 === \count($ofList)) {
                $this->assertShort($from[self::RACK], $at, self::MOST_RACK);
                yield [self::RACK, $outing, $rack, $from[self::RACK], $at, ''];
            } elseif (self::OUTING === $depth && 1 === \count($ofList)) {
                yield [self::OUTING, $outing, $rack, 0, $at, $text[self::OUTING].$this->bounded($from[self::OUTING], $at)];
            } elseif (0 === $depth) {
                yield [0, $outing, $rack, 0, $at, $text[0].$this->bounded($from[0], $at)];
                if ('' !== trim(substr($json, $at, 64))) {
                    throw self::broken('something follows it');
                }

                return;
            }
        }
        throw self::broken('it is cut off');
    }

    /** The text before a list, without the key of the list. */
    private static function cut(string $json, int $from, int $to): string
    {
        $before = substr($json, $from, min($to - $from, self::MOST_HEAD));

        return (string) preg_replace('/,?\s*"(?:outings|racks)"\s*:\s*$/D', '', $before);
    }

    private static function broken(string $why): InvalidFile
    {
        return InvalidFile::because('', new Fact('file.notJson', ['why' => $why, 'format' => LogFile::FORMAT]));
    }

    private function assertShort(int $from, int $to, int $most): void
    {
        if ($to - $from > $most) {
            throw InvalidFile::because('', new Fact('file.tooLong', ['bytes' => $to - $from, 'most' => $most]));
        }
    }

    private function bounded(int $from, int $to): string
    {
        $this->assertShort($from, $to, self::MOST_HEAD);

        return substr($this->json, $from, $to - $from);
    }

    /** @return int behind a string that begins here; its words are kept, they may be the key of what follows */
    private function string(int $at): int
    {
        $start = ++$at;
        $end = \strlen($this->json);
        // Ends: each round goes on behind a backslash and what it masks.
        while ($at < $end) {
            $at += strcspn($this->json, '"\\', $at);
            if ($at < $end && '"' === $this->json[$at]) {
                $this->key = $at - $start < 20 ? substr($this->json, $start, $at - $start) : '';

                return $at + 1;
            }
            $at += 2;
        }

        throw self::broken('it is cut off');
    }
}
