<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Lesson;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\ShareKind;
use ZigLane\App\Entity\ShareLevel;
use ZigLane\App\Sharing\ShareDesk;
use ZigLane\App\Sheet\SheetEditor;
use ZigLane\App\Teaching\GroupDesk;
use ZigLane\App\Teaching\LessonDesk;
use ZigLane\Core\Format\LessonFile;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Player\ExecutionErrors;
use ZigLane\Core\Rules\Game;
use ZigLane\Core\Rules\Rack;
use ZigLane\Core\Teaching\ItemKind;
use ZigLane\Core\Teaching\Question;
use ZigLane\Tests\Table;

/** What leaves an account, by every way out, and none of its owner's errors or odds within. */
final class NothingPrivateTest extends AppTestCase
{
    /** Deviations that nobody else has, in any of the forms in which they are written. */
    private const ERRORS = ['aim' => 0.2137, 'speed' => 0.0619, 'tipSide' => 1.3371, 'tipHeight' => 1.7713];
    private const WORDS = ['0.2137', '2137', '0.0619', '6.19', '1.3371', '1.34 mm', '1.7713', '1.77 mm'];

    public function testWhateverLeavesAnAccountTellsNothingOfItsOwnersHand(): void
    {
        [$coach, $pupil] = [$this->player('Coach'), $this->player('Pupil')];
        $groups = static::getContainer()->get(GroupDesk::class);
        $membership = $groups->join($groups->make($coach, 'Tuesday '.Uuid::v4()), $pupil, []);
        $sheet = $this->planned($coach);
        $job = $this->manager()->getRepository(PlanJob::class)->findOneBy(['sheet' => $sheet]);
        self::assertStringContainsString('0.2137', (string) $job?->getPlanFile());

        $lessons = static::getContainer()->get(LessonDesk::class);
        $lesson = $lessons->keep($coach, new LessonFile('Lesson'));
        $lessons->add($lesson, ItemKind::Position, 'Where?', (string) $sheet->getId(), Question::Plan);
        $lessons->add($lesson, ItemKind::Plan, 'So.', (string) $sheet->getId(), null);
        $assignment = $lessons->set($lesson, $membership, null, '');
        $desk = static::getContainer()->get(ShareDesk::class);
        $things = [[ShareKind::Sheet, $sheet->getId()], [ShareKind::Plan, $sheet->getId()], [ShareKind::Lesson, $lesson->getId()]];
        $shares = [];
        foreach ($things as [$kind, $id]) {
            $thing = $desk->thing($coach, $kind, (string) $id) ?? self::fail();
            $shares[] = [
                $desk->share($coach, $thing, null, ShareLevel::Look, null)->getToken(),
                $desk->share($coach, $thing, $pupil, ShareLevel::Copy, null)->getId(),
            ];
        }

        $pages = [];
        foreach ($shares as [$token]) {
            array_push($pages, "/look/$token", "/look/$token/board?leg=1");
        }
        $this->reads($pages);
        $this->client->loginUser($this->manager()->find(Account::class, $pupil->getId()) ?? $pupil);
        $pages = ["/set/{$assignment->getId()}", '/shares'];
        foreach ($shares as [, $id]) {
            array_push($pages, "/shared/$id", "/shared/$id/board?leg=1");
        }
        $this->reads($pages);

        // What is copied belongs to the pupil, who exports it and looks at it in every way.
        foreach ($things as [$kind, $id]) {
            $thing = $desk->thing($coach, $kind, (string) $id) ?? self::fail();
            $copy = $desk->copy($this->manager()->find(Account::class, $pupil->getId()) ?? $pupil, $thing);
            if ($copy instanceof RackSheet) {
                self::assertEquals(new ExecutionErrors(), $copy->getRack()->player);
                $this->reads(["/sheets/{$copy->getId()}/export", "/sheets/{$copy->getId()}/player", "/sheets/{$copy->getId()}/layout"]);
            } elseif ($copy instanceof Lesson) {
                $this->reads(["/lessons/{$copy->getId()}/export", "/lessons/{$copy->getId()}"]);
                $run = $copy->getFile()->items[1]->plan?->best();
                self::assertSame([null, 0, []], [$run?->legs[0]->make, $run?->replays->tries, $run?->legs[0]->reasons]);
            }
        }
        self::assertClean($assignment->getLesson()->write(), 'the lesson that is set');
    }

    /** Lessons that were written before they left errors out are read without them. */
    public function testALessonOfBeforeIsReadWithoutErrors(): void
    {
        $plan = json_decode(self::plan(), true, 64, \JSON_THROW_ON_ERROR);
        $file = json_encode(['format' => LessonFile::FORMAT, 'version' => 1, 'name' => 'Old', 'items' => [['kind' => 'plan', 'text' => '', 'plan' => $plan]]]);

        self::assertStringContainsString('0.2137', (string) $file);
        self::assertClean(LessonFile::parse((string) $file)->write(), 'an old lesson');
    }

    /** @param list<string> $paths */
    private function reads(array $paths): void
    {
        foreach ($paths as $path) {
            $this->client->request('GET', $path);
            self::assertResponseIsSuccessful($path);
            self::assertClean((string) $this->client->getInternalResponse()->getContent(), $path);
        }
    }

    private static function assertClean(string $content, string $where): void
    {
        foreach (self::WORDS as $word) {
            self::assertDoesNotMatchRegularExpression('/(?<![\d.])'.preg_quote($word, '/').'(?!\d)/', $content, $where);
        }
    }

    private function planned(Account $coach): RackSheet
    {
        $file = PlanFile::parse(self::plan());
        $layout = Table::layout([0 => [0.9, 0.5], 4 => [1.7, 0.8], 9 => [0.4, 1.0]]);
        $rack = new Rack(Game::NineBall, $layout, player: new ExecutionErrors(...self::ERRORS));
        $sheet = static::getContainer()->get(SheetEditor::class)->create($coach, 'Mine', $rack, Uuid::v4());
        $job = new PlanJob($sheet, $file->best()->rack, ['forbidden' => [], 'before' => []], [], [], 1, 1, new \DateTimeImmutable());
        $this->manager()->persist($job->settled($file, new \DateTimeImmutable()));
        $this->manager()->flush();

        return $sheet;
    }

    private static function plan(): string
    {
        $file = (string) file_get_contents(\dirname(__DIR__).'/Core/Decide/seven-behind-the-six.plan.json');
        $document = json_decode($file, true, 64, \JSON_THROW_ON_ERROR);
        \assert(\is_array($document) && \is_array($document['rack']));
        $document['rack']['player'] = (new ExecutionErrors(...self::ERRORS))->toArray();

        return PlanFile::parse(json_encode($document, \JSON_THROW_ON_ERROR | \JSON_PRESERVE_ZERO_FRACTION))->write();
    }
}
