<?php

declare(strict_types=1);

namespace ZigLane\App\Account;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShotRack;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Log\RackKind;

/**
 * What ties the racks of a log to the rest of an account, for its zip (racks.json, docs/formats.md): the sheet that one was shot
 * from; and as racks/ID.plan.json the plan that was followed, or of ten tries what was tried and what came of it.
 */
final readonly class RackTies
{
    private const FORMAT = 'zig-lane/racks';

    public function __construct(private EntityManagerInterface $manager)
    {
    }

    /** @return iterable<string, string> files by their names, one at a time */
    public function write(Account $account): iterable
    {
        $sheets = [];
        /** @var iterable<array{string, string|null, string|null}> $racks */
        $racks = $this->manager->getConnection()->iterateNumeric(
            'SELECT id, sheet_id, plan FROM shot_rack WHERE owner_id = ? AND deleted_at IS NULL ORDER BY id',
            [$account->getId()->toBinary()],
        );
        foreach ($racks as [$rack, $sheet, $plan]) {
            $id = (string) Uuid::fromBinary($rack);
            if (null !== $sheet) {
                $sheets[$id] = (string) Uuid::fromBinary($sheet);
            }
            if (null !== $plan) {
                yield "racks/$id.plan.json" => $plan;
            }
        }
        yield 'racks.json' => json_encode(['format' => self::FORMAT, 'version' => 1, 'sheets' => (object) $sheets], \JSON_THROW_ON_ERROR);
    }

    /** @return array<mixed> the sheets of racks, by the racks' ids in the log file */
    public static function parse(string $json): array
    {
        $document = json_decode($json, true, 8, \JSON_THROW_ON_ERROR);

        return \is_array($document) && \is_array($document['sheets'] ?? null) ? $document['sheets'] : [];
    }

    /**
     * @param array<mixed>              $of     of racks.json
     * @param \Closure(string): ?string $file   a file by its name
     * @param array<string, Uuid>       $racks  the racks that were taken in, by their ids in the log file
     * @param array<string, Uuid>       $sheets the sheets, by their old ids
     */
    public function read(array $of, \Closure $file, array $racks, array $sheets): void
    {
        foreach ($racks as $old => $id) {
            $rack = $this->manager->find(ShotRack::class, $id);
            $sheet = \is_string($of[$old] ?? null) ? $sheets[$of[$old]] ?? null : null;
            if (null === $rack) {
                continue;
            }
            if (null !== $sheet) {
                $rack->tie($this->manager->find(RackSheet::class, $sheet));
            }
            $plan = $file("racks/$old.plan.json");
            if (null === $rack->getPlan() && null !== $plan && self::isPlan($rack->getKind(), $plan)) {
                $rack->follow($plan);
            }
        }
        $this->manager->flush();
    }

    /** Whether it can be read again where it is asked for. */
    private static function isPlan(RackKind $kind, string $plan): bool
    {
        if (RackKind::Tries === $kind) {
            return \is_array(json_decode($plan, true, 16));
        }
        try {
            PlanFile::parse($plan);
        } catch (CoreError) {
            return false;
        }

        return true;
    }
}
