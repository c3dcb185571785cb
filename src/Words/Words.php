<?php

declare(strict_types=1);

namespace ZigLane\App\Words;

use Symfony\Contracts\Translation\TranslatorInterface;
use ZigLane\App\Language\PageWords;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\Fault;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Name\Pocket;
use ZigLane\Core\Name\Rail;

/**
 * Puts into words what the core says as data: the kind of a fact is the key of its sentence in translations/, its values are what the
 * sentence may use. A value `byMetres` is there as `byMetres_long`, in the reader's unit and with it, and as `byMetres_mm`; a speed with
 * its unit, a share as a percentage, a ball as its number and with a the before it (`the_ball`, `The_ball`).
 *
 * @phpstan-import-type Value from Fact
 */
final readonly class Words
{
    public function __construct(private TranslatorInterface $translator, private Units $units = new UsualUnits())
    {
    }

    public function of(Fact $fact): string
    {
        return $this->said($fact->kind, $this->shown($fact->values));
    }

    /** @param array<string, string|int|float> $values */
    public function said(string $key, array $values = []): string
    {
        return $this->translator->trans($key, $values);
    }

    /** Why something was refused, as a sentence. */
    public function error(\Throwable $error): string
    {
        return match (true) {
            $error instanceof InvalidFile => implode("\n", $this->faults($error)),
            $error instanceof CoreError => $this->of($error->fact()),
            $error instanceof Refused => $this->said($error->key, array_map(
                fn (string|int|float $value): string|int|float => \is_string($value) ? $this->phrase($value) : $value,
                $error->values,
            )),
            default => $error->getMessage(),
        };
    }

    /** What is known by its English name ("The speed", " lengths", "up and back"), in the reader's language; what is not, as it is. */
    public function phrase(string $english): string
    {
        $phrase = trim($english);

        return '' === $phrase ? $english : str_replace($phrase, $this->translator->trans($phrase, [], PageWords::DOMAIN), $english);
    }

    /** @return list<string> the faults of a file, each a line that begins with its place */
    public function faults(InvalidFile $file): array
    {
        return array_map($this->fault(...), $file->faults);
    }

    public function fault(Fault $fault): string
    {
        return ('' === $fault->path ? '' : $fault->path.': ').$this->found($fault);
    }

    /** What is wrong at a place of a file. */
    public function found(Fault $fault): string
    {
        return $this->said('inFile.'.$fault->fact->kind, $this->shown($fault->fact->values));
    }

    /**
     * @param array<string, Value> $values
     *
     * @return array<string, string|int|float>
     */
    private function shown(array $values): array
    {
        $shown = [];
        foreach ($values as $name => $value) {
            $shown += match (true) {
                $value instanceof Ball,
                $value instanceof Rail => [
                    $name => $this->name($value),
                    'the_'.$name => $this->spoken($value),
                    'The_'.$name => ucfirst($this->spoken($value)),
                ],
                $value instanceof Pocket => [$name => $value->value, 'the_'.$name => $value->value],
                $value instanceof Fact => [$name => $this->of($value)],
                \is_array($value) => $this->list($name, $value),
                \is_float($value) => $this->measured($name, $value),
                \is_bool($value) => [$name => $value ? 'yes' : 'no'],
                null === $value => [$name => 'none', 'the_'.$name => 'none'],
                // That of a player, which is told as it is.
                \is_string($value) && 'name' === $name => [$name => $value, $name.'_said' => $this->phrase($value)],
                default => [$name => $value],
            };
        }

        return $shown;
    }

    /**
     * @param list<Ball|Rail|Pocket|Fact> $things
     *
     * @return array<string, string|int>
     */
    private function list(string $name, array $things): array
    {
        $facts = array_filter($things, static fn (mixed $thing): bool => $thing instanceof Fact);
        if ([] !== $facts) {
            return [$name => implode(', ', array_map($this->of(...), $facts)), $name.'_count' => \count($facts)];
        }
        $things = array_values(array_filter($things, static fn (mixed $thing): bool => !$thing instanceof Fact));

        return [
            $name => $this->listed(array_map($this->name(...), $things)),
            'the_'.$name => $this->listed(array_map($this->spoken(...), $things)),
            // The same, one after another.
            $name.'_in_turn' => implode(', ', array_map($this->name(...), $things)),
            $name.'_count' => \count($things),
        ];
    }

    /** @return array<string, string> a number in the units that its sentence may want */
    private function measured(string $name, float $value): array
    {
        $plain = static fn (float $number, int $decimals): string => number_format($number, $decimals, '.', '');

        return match (true) {
            str_ends_with($name, 'Share')
                || 'share' === $name => [$name => $value > 0.0 && $value < 0.005 ? 'under 1' : $plain(100 * $value, 0)],
            str_ends_with($name, 'Metres') => [
                $name.'_long' => $this->units->length(max($value > 0.0 ? 0.01 : 0.0, $value)),
                $name.'_mm' => $plain(max($value > 0.0 ? 0.1 : 0.0, 1000 * $value), 1),
            ],
            str_ends_with($name, 'Degrees') => [$name => $plain($value, 0)],
            str_ends_with($name, 'Seconds') => [$name => $plain($value, 3)],
            str_ends_with($name, 'Mps') => [$name => $this->phrase($this->units->speed($value))],
            default => [$name => rtrim(rtrim($plain($value, 6), '0'), '.')],
        };
    }

    private function name(Ball|Rail|Pocket $thing): string
    {
        return match (true) {
            $thing instanceof Ball => $thing->label(),
            $thing instanceof Rail => $this->said('name.end.'.$thing->value),
            default => $thing->value,
        };
    }

    /** "the cue ball", "the 7", "the foot rail", "FR". */
    public function spoken(Ball|Rail|Pocket $thing): string
    {
        return match (true) {
            $thing instanceof Ball => Ball::Cue === $thing
                ? $this->said('name.cueBall')
                : $this->said('name.ball', ['number' => $thing->value]),
            $thing instanceof Rail => $this->said('name.rail', ['rail' => $this->name($thing)]),
            default => $thing->value,
        };
    }

    /** @param list<string> $names */
    public function listed(array $names): string
    {
        $last = array_pop($names);

        return match (true) {
            null === $last => '',
            [] === $names => $last,
            default => $this->said('name.list', ['first' => implode(', ', $names), 'last' => $last]),
        };
    }
}
