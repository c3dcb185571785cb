<?php

declare(strict_types=1);

namespace ZigLane\App\Account;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Camera\KeptPictures;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Entity\Lesson;
use ZigLane\App\Entity\OwnDrill;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Log\LogImport;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Repository\Lessons;
use ZigLane\App\Repository\OwnDrills;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\App\Words\LengthUnit;
use ZigLane\App\Words\Refused;
use ZigLane\App\Words\SpeedUnit;
use ZigLane\App\Words\TipUnit;
use ZigLane\App\Words\Words;
use ZigLane\Core\Camera\PictureFile;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Fact\Fact;
use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Format\InvalidFile;
use ZigLane\Core\Format\LessonFile;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Format\LogPieces;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Format\TableTestsFile;
use ZigLane\Core\Plan\Weights;
use ZigLane\Core\Rules\HouseRules;

/**
 * Takes the zip of an account, or a log file, into an account, piece by piece. Every piece can be taken again: what is there already is
 * found by what it is (a table, a drill, a lesson) or by the id that it had (a sheet, a rack, a shot, a session), so that the same file
 * twice, or the second half after a fault, is there once. Between pieces a worker makes way for others.
 */
final readonly class AccountReader
{
    /** Bytes that a zip may unpack to: of one file in it, of its log, and of all. */
    private const MOST_EACH = 8_388_608;
    private const MOST_LOG = 230_686_720;
    private const MOST_UNPACKED = 1_073_741_824;
    private const MOST_FILES = 60_000;
    private const MOST_FAILED = 200;
    /** Racks that are tied to their sheets at a time. */
    private const TIED = 200;
    private const PRACTICE = AccountZip::PRACTICE;

    public function __construct(
        private EntityManagerInterface $manager,
        private OwnDrills $drills,
        private OwnTables $tables,
        private Lessons $lessons,
        private PlanJobRepository $jobs,
        private LogImport $import,
        private DrillShelf $shelf,
        private SheetEditor $editor,
        private RackTies $ties,
        private KeptPictures $pictures,
        private Words $words,
        private ClockInterface $clock,
    ) {
    }

    /**
     * A log file.
     *
     * @param \Closure(float): void $progress is told the share that is done
     *
     * @return array{taken: array<string, int>, failed: list<string>}
     */
    public function log(Uuid $owner, string $path, \Closure $progress): array
    {
        $failed = [];
        $taken = [];
        try {
            if (filesize($path) > self::MOST_LOG) {
                throw InvalidFile::because('', new Fact('file.tooLong', ['bytes' => (int) filesize($path), 'most' => self::MOST_LOG]));
            }
            [$taken] = $this->shots($owner, $path, $progress, $failed);
        } catch (InvalidFile $e) {
            $failed[] = $this->words->error($e);
        }

        return ['taken' => $taken, 'failed' => $failed];
    }

    /**
     * The zip of an account. Everything that can be read is taken; what cannot is told by name.
     *
     * @param \Closure(float): void $progress is told the share that is done
     *
     * @return array{taken: array<string, int>, failed: list<string>}
     *
     * @throws Refused If it is no such zip, or too much is in it
     */
    public function zip(Uuid $owner, string $path, \Closure $progress): array
    {
        $zip = new \ZipArchive();
        if (true !== $zip->open($path, \ZipArchive::RDONLY)) {
            throw Refused::because('noZip');
        }
        try {
            return $this->files($owner, $zip, self::names($zip), $progress);
        } finally {
            $zip->close();
        }
    }

    /** @return array<string, int> what in a zip is a file of an account, with its place */
    private static function names(\ZipArchive $zip): array
    {
        $form = '#^((account|log|racks|practice(?:-\d{1,4})?)\.json|(sheets|drills|tables|lessons|racks)/([0-9a-f-]{36})\.([a-z-]+)\.(json|jpg))$#D';
        $files = [];
        $size = 0;
        for ($i = 0; $i < $zip->numFiles && $i <= self::MOST_FILES; ++$i) {
            $name = (string) $zip->getNameIndex($i);
            $size += $zip->statIndex($i)['size'] ?? 0;
            if (1 === preg_match($form, $name, $of) && (!isset($of[4]) || Uuid::isValid($of[4]))) {
                $files[$name] = $i;
            }
        }
        if ($zip->numFiles > self::MOST_FILES || $size > self::MOST_UNPACKED) {
            throw Refused::because('zipTooLarge', ['mib' => intdiv(self::MOST_UNPACKED, 1_048_576)]);
        }

        return $files;
    }

    /**
     * @param array<string, int>    $files
     * @param \Closure(float): void $progress
     *
     * @return array{taken: array<string, int>, failed: list<string>}
     */
    private function files(Uuid $owner, \ZipArchive $zip, array $files, \Closure $progress): array
    {
        $get = static fn (string $name): ?string => isset($files[$name]) ? self::content($zip, $files[$name], self::MOST_EACH) : null;
        $taken = ['tables' => 0, 'drills' => 0, 'sheets' => 0, 'plans' => 0, 'lessons' => 0, 'shots' => 0, 'sessions' => 0];
        $failed = [];
        $done = 0;
        // A piece begins at a safe point, with the account as the database has it then, and is all there or not at all.
        $try = function (string $name, \Closure $take) use ($owner, $files, $progress, &$failed, &$done): void {
            $progress(0.5 * ++$done / (\count($files) + 1));
            $account = $this->manager->find(Account::class, $owner) ?? throw Refused::because('noZip');
            try {
                $this->manager->getConnection()->transactional(static fn () => $take($account));
            } catch (CoreError|Refused|\JsonException|\InvalidArgumentException) {
                $failed[] = $name;
                // What was half read is not written with the next piece.
                $this->manager->clear();
            }
        };
        $keys = $tables = $sheets = $racks = [];
        foreach (array_keys($files) as $name) {
            if (1 !== preg_match('#^(tables|drills|lessons)/([0-9a-f-]{36})\.(table|drill|lesson)\.json$#D', $name, $of)) {
                continue;
            }
            $try($name, function (Account $account) use ($name, $of, $get, &$taken, &$keys, &$tables): void {
                $json = (string) $get($name);
                switch ($of[3]) {
                    case 'table':
                        $tables[$of[2]] = $this->table($account, $json, $get("tables/{$of[2]}.table-tests.json"))->getId();
                        ++$taken['tables'];
                        break;
                    case 'drill':
                        $file = DrillFile::parse($json);
                        $known = array_values(array_filter(
                            $this->drills->all($account), static fn (OwnDrill $one): bool => $one->getFile()->hash() === $file->hash(),
                        ));
                        $keys[$of[2]] = (string) ($known[0] ?? $this->shelf->keep($account, $file))->getId();
                        ++$taken['drills'];
                        break;
                    default:
                        $this->lesson($account, LessonFile::parse($json));
                        ++$taken['lessons'];
                }
            });
        }
        if (isset($files['account.json'])) {
            $try('account.json', fn (Account $account) => $this->choices($account, (string) $get('account.json'), $tables));
        }
        foreach (array_keys($files) as $name) {
            if (1 === preg_match('#^sheets/([0-9a-f-]{36})\.rack\.json$#D', $name, $of)) {
                $try($name, function (Account $account) use ($of, $name, $get, $tables, &$taken, &$sheets): void {
                    $sheet = $this->sheet(
                        $account,
                        $of[1],
                        (string) $get($name),
                        $get("sheets/{$of[1]}.plan.json"),
                        $get("sheets/{$of[1]}.on.json"),
                        $tables,
                        $taken,
                    );
                    $sheets[$of[1]] = $sheet->getId();
                    $picture = $get("sheets/{$of[1]}.picture.jpg");
                    if (null !== $picture) {
                        $this->pictures->keep($sheet, PictureFile::read($picture));
                    }
                });
                $this->manager->clear();
            }
        }
        if (isset($files['log.json'])) {
            $log = (string) tempnam(sys_get_temp_dir(), 'lane-log');
            try {
                file_put_contents($log, self::content($zip, $files['log.json'], self::MOST_LOG));
                [$counted, $racks] = $this->shots($owner, $log, static fn (float $share) => $progress(0.5 + 0.45 * $share), $failed);
                $taken['shots'] = $counted['shots'];
            } catch (CoreError|Refused) {
                $failed[] = 'log.json';
            } finally {
                unlink($log);
            }
        }
        $of = [];
        if (isset($files['racks.json'])) {
            $try('racks.json', static function () use ($get, &$of): void { $of = RackTies::parse((string) $get('racks.json')); });
        }
        foreach (array_chunk($racks, self::TIED, true) as $some) {
            $try('racks.json', fn () => $this->ties->read($of, $get, $some, $sheets));
            $this->manager->clear();
        }
        foreach (array_keys($files) as $name) {
            if (str_starts_with($name, 'practice')) {
                $try($name, function (Account $account) use ($get, $name, $keys, &$taken): void {
                    $taken['sessions'] += $this->sessions($account, (string) $get($name), $keys);
                });
                $this->manager->clear();
            }
        }

        return ['taken' => $taken, 'failed' => \array_slice($failed, 0, self::MOST_FAILED)];
    }

    /** Unpacks a file of the zip, up to a number of bytes: the size that the zip states is not trusted. */
    private static function content(\ZipArchive $zip, int $at, int $most): string
    {
        $content = (string) $zip->getFromIndex($at, $most + 1);

        return \strlen($content) <= $most ? $content : throw Refused::because('zipTooLarge', ['mib' => intdiv($most, 1_048_576)]);
    }

    /**
     * The shots of a log file, some racks at a time.
     *
     * @param \Closure(float): void $progress
     * @param list<string>          $failed   grows by the pieces that cannot be read
     *
     * @return array{array{shots: int, known: int}, array<string, Uuid>} with the racks by their ids in the file
     */
    private function shots(Uuid $owner, string $path, \Closure $progress, array &$failed): array
    {
        $pieces = new LogPieces((string) file_get_contents($path));
        $file = fopen($path, 'r');
        if (false === $file) {
            throw Refused::because('noFile', ['mib' => ImportDesk::MIB]);
        }
        $taken = ['shots' => 0, 'known' => 0];
        $racks = [];
        foreach ($pieces->runs as $i => $run) {
            $progress($i / \count($pieces->runs));
            fseek($file, $run['from']);
            try {
                $log = LogFile::parse($pieces->file($i, (string) fread($file, max(1, $run['length']))));
                $account = $this->manager->find(Account::class, $owner) ?? throw Refused::because('noFile', ['mib' => ImportDesk::MIB]);
                [$new, $known, $of] = $this->import->take($account, $log, $run['outing'], $run['rack']);
                $taken = ['shots' => $taken['shots'] + $new, 'known' => $taken['known'] + $known];
                $racks += $of;
            } catch (InvalidFile $e) {
                if (\count($failed) < self::MOST_FAILED) {
                    $failed[] = \sprintf('outings.%d.racks.%d: %s', $run['outing'], $run['rack'], $this->words->fault($e->faults[0]));
                }
            }
            $this->manager->clear();
        }
        fclose($file);

        return [$taken, $racks];
    }

    /** One that is there already is found by its words. */
    private function lesson(Account $account, LessonFile $file): void
    {
        $text = $file->write();
        foreach ($this->lessons->all($account) as $known) {
            if ($known->getFile()->write() === $text) {
                return;
            }
        }
        $this->manager->persist(new Lesson($account, $file, $this->clock->now()));
        $this->manager->flush();
    }

    /**
     * What he had chosen; not his name and address, which are those of the account that takes it in.
     *
     * @param array<string, Uuid> $tables by their old ids
     */
    private function choices(Account $account, string $json, array $tables): void
    {
        $told = json_decode($json, true, 8, \JSON_THROW_ON_ERROR);
        $told = \is_array($told) ? $told : [];
        $text = static fn (string $field): string => \is_string($told[$field] ?? null) ? $told[$field] : '';
        $whole = static fn (string $field, int $else): int => \is_int($told[$field] ?? null) ? max(0, min(3650, $told[$field])) : $else;
        $account->countTipsIn(TipUnit::tryFrom($text('tips')) ?? $account->getTipUnit());
        $account->measureIn(
            LengthUnit::tryFrom($text('lengths')) ?? $account->getLengthUnit(),
            SpeedUnit::tryFrom($text('speeds')) ?? $account->getSpeedUnit(),
        );
        $zone = \in_array($text('timeZone'), \DateTimeZone::listIdentifiers(), true) ? $text('timeZone') : $account->getTimeZone();
        $account->live(true === ($told['coaches'] ?? null), true === ($told['leftHanded'] ?? null), $zone);
        $account->read(1 === preg_match('/^[a-z]{2,3}$/', $text('language')) ? $text('language') : '');
        $account->playBy(HouseRules::fromArray(\is_array($told['houseRules'] ?? null) ? $told['houseRules'] : []));
        $account->remindToChalk(min(20, $whole('chalkEvery', $account->getChalkEvery())));
        $account->learnFromLog(false !== ($told['usesLog'] ?? true), $whole('halfLife', $account->getHalfLife()));
        $weights = array_filter(\is_array($told['weights'] ?? null) ? $told['weights'] : [], is_numeric(...));
        $known = array_filter(
            array_intersect_key($weights, Weights::LIMITS),
            static fn (mixed $value, string $field): bool => $value >= Weights::LIMITS[$field][1] && $value <= Weights::LIMITS[$field][2],
            \ARRAY_FILTER_USE_BOTH,
        );
        if ([] !== $known) {
            $account->planWith(new Weights(...array_map(floatval(...), $known)));
        }
        if (isset($tables[$text('usualTable')])) {
            $account->playOn($this->manager->find(OwnTable::class, $tables[$text('usualTable')]));
        }
        $this->manager->flush();
    }

    private function table(Account $account, string $json, ?string $tests): OwnTable
    {
        $file = TableFile::parse($json);
        $text = $file->write();
        foreach ($this->tables->all($account) as $known) {
            if ($known->getFile()->write() === $text) {
                return $known;
            }
        }
        $table = new OwnTable($account, $file, $this->clock->now());
        if (null !== $tests) {
            TableTestsFile::parse($tests);
            $document = json_decode($tests, true, 32, \JSON_THROW_ON_ERROR);
            $list = \is_array($document) && \is_array($document['tests'] ?? null) ? array_values(
                array_filter($document['tests'], is_array(...)),
            ) : [];
            $table->keepTests($list, $this->clock->now());
        }
        $this->manager->persist($table);
        $this->manager->flush();

        return $table;
    }

    /**
     * @param array<string, Uuid> $tables by their old ids
     * @param array<string, int>  $taken
     */
    private function sheet(Account $account, string $id, string $json, ?string $plan, ?string $on, array $tables, array &$taken): RackSheet
    {
        $file = RackFile::parse($json);
        $document = null === $on ? null : json_decode($on, true, 4);
        $known = \is_array($document) && \is_string($document['table'] ?? null) ? $tables[$document['table']] ?? null : null;
        $table = null === $known ? null : $this->manager->find(OwnTable::class, $known);
        // The old id as the submission: the same zip again finds the sheet that it made.
        $sheet = $this->editor->create(
            $account, $file->name ?? 'Rack', $file->rack, Uuid::fromString($id), $file->shot, $file->later, $table,
        );
        ++$taken['sheets'];
        if (null !== $plan && null === $this->jobs->latestOf($sheet)) {
            $parsed = PlanFile::parse($plan);
            $job = new PlanJob($sheet, $parsed->best()->rack, ['forbidden' => [], 'before' => []], [], [], 1, 1, $this->clock->now());
            $this->manager->persist($job->settled($parsed, $this->clock->now()));
            $this->manager->flush();
            ++$taken['plans'];
        }

        return $sheet;
    }

    /** @param array<string, string> $keys of drills, old and new */
    private function sessions(Account $account, string $json, array $keys): int
    {
        $document = json_decode($json, true, 32, \JSON_THROW_ON_ERROR);
        if (!\is_array($document) || self::PRACTICE !== ($document['format'] ?? null) || !\is_array($document['drills'] ?? null)) {
            throw Refused::because('noZip');
        }
        $versions = [];
        foreach ($document['drills'] as $hash => $drill) {
            $versions[$hash] = $this->shelf->version(
                DrillFile::parse(json_encode($drill, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION)),
            );
        }
        $count = 0;
        foreach (\is_array($document['sessions'] ?? null) ? $document['sessions'] : [] as $one) {
            $read = PracticeRecord::read($one);
            if (null === $read || !isset($versions[$read->version])) {
                continue;
            }
            // Of another account's file the ids are taken from both: nobody's own are met.
            $id = Uuid::v5($account->getId(), $read->id);
            if (null !== $this->manager->find(DrillSession::class, $id)) {
                continue;
            }
            $session = $read->session($id, $account, $versions[$read->version], $keys[$read->key] ?? $read->key);
            $this->manager->persist($session);
            foreach ($read->tries($session) as $try) {
                $this->manager->persist($try);
            }
            $this->manager->flush();
            ++$count;
        }

        return $count;
    }
}
