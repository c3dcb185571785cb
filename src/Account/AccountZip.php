<?php

declare(strict_types=1);

namespace ZigLane\App\Account;

use Doctrine\ORM\EntityManagerInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Camera\KeptPictures;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Entity\DrillTry;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Log\LogReader;
use ZigLane\App\Repository\Lessons;
use ZigLane\App\Repository\OwnDrills;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Format\RackFile;

/**
 * All of an account as a zip of the open files, which AccountReader takes into another account: sheets with their legs, plans and
 * pictures, drills, tables with their tests, lessons, the log with the sheets that its racks were shot from, and the sessions of drills
 * (docs/formats.md). Keys tie them: a rack of the log keeps its id, so that the same zip taken in twice is there once.
 */
final readonly class AccountZip
{
    /** Bytes that wait to be written, and sheets in memory. */
    private const WAITING = 33_554_432;
    private const SHEETS = 50;
    /** A file of practice is about so long at most, bytes. */
    private const PRACTICE_FILE = 2_097_152;
    public const PRACTICE = 'zig-lane/practice';

    public function __construct(
        private EntityManagerInterface $manager,
        private OwnDrills $drills,
        private OwnTables $tables,
        private Lessons $lessons,
        private PlanJobRepository $jobs,
        private LogReader $log,
        private RackTies $ties,
        private KeptPictures $pictures,
    ) {
    }

    /** @param string $path of a file that is written */
    public function write(Account $account, string $path): void
    {
        $zip = new \ZipArchive();
        if (true !== $zip->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE)) {
            throw new \RuntimeException('The zip cannot be written.');
        }
        $waiting = 0;
        $put = static function (string $name, mixed $content) use ($zip, $path, &$waiting): void {
            $text = \is_string($content) ? $content : json_encode(
                $content, \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE,
            );
            $zip->addFromString($name, $text);
            $waiting += \strlen($text);
            if ($waiting > self::WAITING) {
                // What was put in stays in memory until the zip is closed.
                $zip->close();
                $zip->open($path);
                $waiting = 0;
            }
        };
        $put('account.json', [
            'format' => 'zig-lane/account', 'version' => 1, 'name' => $account->getName(), 'tips' => $account->getTipUnit()->value,
            'lengths' => $account->getLengthUnit()->value, 'speeds' => $account->getSpeedUnit()->value, 'coaches' => $account->coaches(),
            'leftHanded' => $account->isLeftHanded(), 'timeZone' => $account->getTimeZone(),
            'language' => $account->getLanguage(),
            'houseRules' => $account->getHouseRules()->toArray(),
            'chalkEvery' => $account->getChalkEvery(), 'usesLog' => $account->usesLog(), 'halfLife' => $account->getHalfLife(),
            'weights' => $account->getWeights()->toArray(), 'usualTable' => $account->getUsualTable()?->getId()->toRfc4122(),
        ]);
        $owner = $account->getId();
        $sheets = $this->manager->getConnection()->fetchFirstColumn(
            'SELECT id FROM rack_sheet WHERE owner_id = ? AND deleted_at IS NULL ORDER BY id',
            [$owner->toBinary()],
        );
        foreach ($sheets as $i => $one) {
            $sheet = $this->manager->find(RackSheet::class, Uuid::fromBinary(\is_string($one) ? $one : ''));
            if (null === $sheet) {
                continue;
            }
            $id = (string) $sheet->getId();
            $put(
                "sheets/$id.rack.json",
                (new RackFile($sheet->getRack(), $sheet->getName(), $sheet->getShot(), \array_slice($sheet->getLegs(), 1)))->write(),
            );
            $plan = $this->jobs->latestOf($sheet)?->getPlanFile();
            if (null !== $plan) {
                $put("sheets/$id.plan.json", $plan);
            }
            $picture = $this->pictures->of($sheet);
            if (null !== $picture) {
                $put("sheets/$id.picture.jpg", $picture->getJpeg());
            }
            if (null !== $sheet->getTable()) {
                $put("sheets/$id.on.json", ['table' => (string) $sheet->getTable()->getId()]);
            }
            // However many there are, some are in memory.
            0 !== $i % self::SHEETS || $this->manager->clear();
        }
        $account = $this->manager->find(Account::class, $owner) ?? throw new \RuntimeException('The account is gone.');
        foreach ($this->drills->all($account) as $drill) {
            $put("drills/{$drill->getId()}.drill.json", $drill->getFile()->write());
        }
        foreach ($this->tables->all($account) as $table) {
            $put("tables/{$table->getId()}.table.json", $table->getFile()->write());
            if ([] !== $table->getTests()) {
                $put("tables/{$table->getId()}.table-tests.json", $table->getTestsFile());
            }
        }
        foreach ($this->lessons->all($account) as $lesson) {
            $put("lessons/{$lesson->getId()}.lesson.json", $lesson->getFile()->write());
        }
        foreach ($this->ties->write($account) as $name => $content) {
            $put($name, $content);
        }
        foreach ($this->practice($account) as $name => $content) {
            $put($name, $content);
        }
        // However long the log is, a day of it is in memory.
        $log = (string) tempnam(sys_get_temp_dir(), 'lane-log');
        try {
            $file = fopen($log, 'w');
            foreach (LogFile::stream($this->log->player($account), $this->log->written($account)) as $piece) {
                false === $file || fwrite($file, $piece);
            }
            false === $file || fclose($file);
            $zip->addFile($log, 'log.json');
            $isWritten = $zip->close();
        } finally {
            unlink($log);
        }
        if (!$isWritten) {
            throw new \RuntimeException('The zip cannot be written.');
        }
    }

    /** @return iterable<string, array<string, mixed>> practice.json, practice-2.json and so on, each with the drills of its sessions */
    private function practice(Account $account): iterable
    {
        $sessions = $versions = [];
        $length = $files = 0;
        foreach ($this->manager->getRepository(DrillSession::class)->findBy(['owner' => $account], ['startedAt' => 'ASC']) as $session) {
            $hash = $session->getVersion()->getHash();
            $versions[$hash] ??= $session->getVersion()->getFile()->document;
            $written = [
                'id' => (string) $session->getId(), 'version' => $hash, 'key' => $session->getKey(), 'level' => $session->getLevel(),
                'scored' => $session->isScored(), 'players' => $session->getPlayers(), 'seed' => $session->getSeed(),
                'startedAt' => $session->getStartedAt()->format('Y-m-d\TH:i:s\Z'), 'endedAt' => $session->getEndedAt()?->format('Y-m-d\TH:i:s\Z'),
                'score' => $session->getScore(), 'count' => $session->getTries(),
                'tries' => array_map(static fn (DrillTry $try): array => [
                    'id' => (string) $try->getId(), 'number' => $try->getNumber(), 'player' => $try->getPlayer(), 'done' => $try->isDone(),
                    'made' => $try->getMade(), 'opened' => $try->getOpened(), 'after' => $try->getAfter(), 'at' => $try->getAt()->format('Y-m-d\TH:i:s\Z'),
                ], $this->manager->getRepository(DrillTry::class)->findBy(['session' => $session], ['number' => 'ASC'])),
            ];
            $sessions[] = $written;
            $length += \strlen(json_encode($written, \JSON_THROW_ON_ERROR));
            if ($length > self::PRACTICE_FILE) {
                yield self::practiceFile(++$files) => self::sessions($versions, $sessions);
                [$sessions, $versions, $length] = [[], [], 0];
            }
        }
        yield self::practiceFile(++$files) => self::sessions($versions, $sessions);
    }

    private static function practiceFile(int $number): string
    {
        return 1 === $number ? 'practice.json' : "practice-$number.json";
    }

    /**
     * @param array<string, mixed> $versions
     * @param list<mixed>          $sessions
     *
     * @return array<string, mixed>
     */
    private static function sessions(array $versions, array $sessions): array
    {
        return ['format' => self::PRACTICE, 'version' => 1, 'drills' => (object) $versions, 'sessions' => $sessions];
    }
}
