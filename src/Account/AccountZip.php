<?php

declare(strict_types=1);

namespace ZigLane\App\Account;

use Doctrine\ORM\EntityManagerInterface;
use Psr\Clock\ClockInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Camera\KeptPictures;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Entity\DrillTry;
use ZigLane\App\Entity\Lesson;
use ZigLane\App\Entity\OwnDrill;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Log\LogImport;
use ZigLane\App\Log\LogReader;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Repository\Lessons;
use ZigLane\App\Repository\OwnDrills;
use ZigLane\App\Repository\OwnTables;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\App\Sheet\TipUnit;
use ZigLane\App\Words\LengthUnit;
use ZigLane\App\Words\Refused;
use ZigLane\App\Words\SpeedUnit;
use ZigLane\Core\Camera\PictureFile;
use ZigLane\Core\Error\CoreError;
use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Format\LessonFile;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Format\RackFile;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Format\TableTestsFile;
use ZigLane\Core\Plan\Weights;
use ZigLane\Core\Rules\HouseRules;

/**
 * All of an account as a zip of the open files, and back into another account: sheets with their legs, plans and pictures, drills, tables
 * with their tests, lessons, the log with the sheets that its racks were shot from, and the sessions of drills (docs/formats.md). Keys tie
 * them: a rack of the log keeps its id, so that the same zip taken in twice is there once.
 */
final readonly class AccountZip
{
    public const MAX_BYTES = 67_108_864;
    /** Of all that is in it, unpacked. */
    private const MAX_UNPACKED = 268_435_456;
    private const MAX_FILES = 20_000;
    private const PRACTICE = 'zig-lane/practice';

    public function __construct(
        private EntityManagerInterface $manager,
        private OwnDrills $drills,
        private OwnTables $tables,
        private Lessons $lessons,
        private PlanJobRepository $jobs,
        private LogReader $log,
        private LogImport $import,
        private DrillShelf $shelf,
        private SheetEditor $editor,
        private RackTies $ties,
        private KeptPictures $pictures,
        private ClockInterface $clock,
    ) {
    }

    /** @param string $path of a file that is written */
    public function write(Account $account, string $path): void
    {
        $zip = new \ZipArchive();
        if (true !== $zip->open($path, \ZipArchive::CREATE | \ZipArchive::OVERWRITE)) {
            throw new \RuntimeException('The zip cannot be written.');
        }
        $put = static function (string $name, mixed $content) use ($zip): void {
            $zip->addFromString($name, \is_string($content) ? $content : json_encode(
                $content, \JSON_THROW_ON_ERROR | \JSON_PRETTY_PRINT | \JSON_PRESERVE_ZERO_FRACTION | \JSON_UNESCAPED_UNICODE,
            ));
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
        foreach (
            $this->manager->getRepository(RackSheet::class)->findBy(['owner' => $account, 'deletedAt' => null], ['id' => 'ASC']) as $sheet
        ) {
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
        }
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
        $put('log.json', LogFile::write($this->log->whole($account)));
        foreach ($this->ties->write($account) as $name => $content) {
            $put($name, $content);
        }
        $put('practice.json', $this->practice($account));
        if (!$zip->close()) {
            throw new \RuntimeException('The zip cannot be written.');
        }
    }

    /**
     * Everything that can be read is taken; what cannot is told by name.
     *
     * @return array{taken: array<string, int>, failed: list<string>}
     */
    public function read(Account $account, string $path): array
    {
        $zip = new \ZipArchive();
        if (true !== $zip->open($path, \ZipArchive::RDONLY)) {
            throw Refused::because('noZip');
        }
        $size = 0;
        for ($i = 0; $i < $zip->numFiles && $i <= self::MAX_FILES; ++$i) {
            $size += $zip->statIndex($i)['size'] ?? 0;
        }
        if ($zip->numFiles > self::MAX_FILES || $size > self::MAX_UNPACKED) {
            throw Refused::because('zipTooLarge', ['mib' => intdiv(self::MAX_UNPACKED, 1_048_576)]);
        }
        $files = [];
        for ($i = 0; $i < $zip->numFiles; ++$i) {
            $name = (string) $zip->getNameIndex($i);
            $form = '#^((account|log|racks|practice)\.json|(sheets|drills|tables|lessons|racks)/([0-9a-f-]{36})\.([a-z-]+)\.(json|jpg))$#D';
            if (1 === preg_match($form, $name, $of) && (!isset($of[4]) || Uuid::isValid($of[4]))) {
                $files[$name] = $i;
            }
        }
        $get = static fn (string $name): ?string => isset($files[$name]) ? (string) $zip->getFromIndex($files[$name]) : null;
        $taken = ['tables' => 0, 'drills' => 0, 'sheets' => 0, 'plans' => 0, 'lessons' => 0, 'shots' => 0, 'sessions' => 0];
        $failed = [];
        $try = static function (string $name, \Closure $take) use (&$failed): void {
            try {
                $take();
            } catch (CoreError|Refused|\JsonException) {
                $failed[] = $name;
            }
        };
        $keys = $tables = $sheets = $racks = [];
        foreach (array_keys($files) as $name) {
            if (1 !== preg_match('#^(tables|drills|lessons)/([0-9a-f-]{36})\.(table|drill|lesson)\.json$#D', $name, $of)) {
                continue;
            }
            $try($name, function () use ($account, $name, $of, $get, &$taken, &$keys, &$tables): void {
                $json = (string) $get($name);
                switch ($of[3]) {
                    case 'table':
                        $tables[$of[2]] = $this->table($account, $json, $get("tables/{$of[2]}.table-tests.json"));
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
                        $this->manager->persist(new Lesson($account, LessonFile::parse($json), $this->clock->now()));
                        $this->manager->flush();
                        ++$taken['lessons'];
                }
            });
        }
        if (null !== ($choices = $get('account.json'))) {
            $try('account.json', fn () => $this->choices($account, $choices, $tables));
        }
        foreach (array_keys($files) as $name) {
            if (1 === preg_match('#^sheets/([0-9a-f-]{36})\.rack\.json$#D', $name, $of)) {
                $try($name, function () use ($account, $of, $name, $get, $tables, &$taken, &$sheets): void {
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
            }
        }
        if (null !== ($log = $get('log.json'))) {
            $try('log.json', function () use ($account, $log, &$taken, &$racks): void {
                [$taken['shots'], , $racks] = $this->import->take($account, LogFile::parse($log, self::MAX_UNPACKED));
            });
        }
        $try('racks.json', fn () => $this->ties->read($get('racks.json'), $get, $racks, $sheets));
        $accountId = $account->getId();
        if (null !== ($practice = $get('practice.json'))) {
            $try('practice.json', function () use ($accountId, $practice, $keys, &$taken): void {
                $taken['sessions'] = $this->sessions($this->manager->find(Account::class, $accountId) ?? throw Refused::because('noZip'), $practice, $keys);
            });
        }
        $zip->close();

        return ['taken' => $taken, 'failed' => $failed];
    }

    /**
     * What he had chosen; not his name and address, which are those of the account that takes it in.
     *
     * @param array<string, OwnTable> $tables by their old ids
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
        $known = array_intersect_key($weights, Weights::LIMITS);
        if ([] !== $known) {
            $account->planWith(new Weights(...array_map(floatval(...), $known)));
        }
        if (isset($tables[$text('usualTable')])) {
            $account->playOn($tables[$text('usualTable')]);
        }
        $this->manager->flush();
    }

    private function table(Account $account, string $json, ?string $tests): OwnTable
    {
        $table = new OwnTable($account, TableFile::parse($json), $this->clock->now());
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
     * @param array<string, OwnTable> $tables by their old ids
     * @param array<string, int>      $taken
     */
    private function sheet(Account $account, string $id, string $json, ?string $plan, ?string $on, array $tables, array &$taken): RackSheet
    {
        $file = RackFile::parse($json);
        $document = null === $on ? null : json_decode($on, true, 4);
        $table = \is_array($document) && \is_string($document['table'] ?? null) ? $tables[$document['table']] ?? null : null;
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

    /** @return array<string, mixed> */
    private function practice(Account $account): array
    {
        $sessions = $versions = [];
        foreach ($this->manager->getRepository(DrillSession::class)->findBy(['owner' => $account], ['startedAt' => 'ASC']) as $session) {
            $hash = $session->getVersion()->getHash();
            $versions[$hash] ??= $session->getVersion()->getFile()->document;
            $sessions[] = [
                'id' => (string) $session->getId(), 'version' => $hash, 'key' => $session->getKey(), 'level' => $session->getLevel(),
                'scored' => $session->isScored(), 'players' => $session->getPlayers(), 'seed' => $session->getSeed(),
                'startedAt' => $session->getStartedAt()->format('Y-m-d\TH:i:s\Z'), 'endedAt' => $session->getEndedAt()?->format('Y-m-d\TH:i:s\Z'),
                'score' => $session->getScore(), 'count' => $session->getTries(),
                'tries' => array_map(static fn (DrillTry $try): array => [
                    'id' => (string) $try->getId(), 'number' => $try->getNumber(), 'player' => $try->getPlayer(), 'done' => $try->isDone(),
                    'made' => $try->getMade(), 'opened' => $try->getOpened(), 'after' => $try->getAfter(), 'at' => $try->getAt()->format('Y-m-d\TH:i:s\Z'),
                ], $this->manager->getRepository(DrillTry::class)->findBy(['session' => $session], ['number' => 'ASC'])),
            ];
        }

        return ['format' => self::PRACTICE, 'version' => 1, 'drills' => (object) $versions, 'sessions' => $sessions];
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
