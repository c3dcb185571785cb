<?php

declare(strict_types=1);

namespace ZigLane\App\State;

use Symfony\Component\HttpFoundation\Request;
use Symfony\Component\HttpKernel\Exception\ConflictHttpException;

/** What a form would save was changed in another window since it was drawn: nothing is saved, and both states are shown. */
final class ChangedElsewhere extends ConflictHttpException
{
    /**
     * @param array<string, string> $now     what the fields of the form hold now
     * @param string                $back    address of the thing as it is now
     * @param bool                  $canKeep whether what was sent can be saved all the same: not where it may belong elsewhere now
     */
    private function __construct(
        public readonly int $version,
        public readonly array $now,
        public readonly string $back,
        public readonly bool $canKeep,
    ) {
        parent::__construct('This was changed in another window. Nothing was saved here: reload the page to see it as it is now.');
    }

    /**
     * @param array<string, string> $now
     *
     * @throws self If the form was drawn from another version
     */
    public static function unless(Request $request, int $version, array $now, string $back, bool $canKeep = true): void
    {
        if ($request->request->getInt('version') !== $version) {
            throw new self($version, $now, $back, $canKeep);
        }
    }

    /** @return list<array{string, string, string}> fields that were sent otherwise than they are now: name, what was sent, what is there */
    public function differences(Request $request): array
    {
        $found = [];
        foreach ($request->request->all() as $name => $sent) {
            $now = $this->now[$name] ?? null;
            if (\is_string($sent) && null !== $now && trim(str_replace("\r\n", "\n", $sent)) !== trim($now)) {
                $found[] = [(string) $name, $sent, $now];
            }
        }

        return $found;
    }
}
