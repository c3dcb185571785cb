<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\DBAL\Connection;
use Symfony\Component\DomCrawler\Field\ChoiceFormField;
use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Account\AccountCloser;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Answer;
use ZigLane\App\Entity\Assignment;
use ZigLane\App\Entity\Comment;
use ZigLane\App\Entity\Lesson;
use ZigLane\App\Entity\Membership;
use ZigLane\App\Entity\OwnDrill;
use ZigLane\App\Entity\ShareKind;
use ZigLane\App\Entity\ShareLevel;
use ZigLane\App\Entity\TeachingGroup;
use ZigLane\App\Message\ScoreAnswer;
use ZigLane\App\Messenger\ScoreAnswerHandler;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Repository\Groups;
use ZigLane\App\Repository\Lessons;
use ZigLane\App\Sharing\ShareDesk;
use ZigLane\App\Teaching\GroupDesk;
use ZigLane\App\Teaching\LessonDesk;
use ZigLane\App\Words\Refused;
use ZigLane\Core\Format\LessonFile;
use ZigLane\Core\Format\LessonItem;
use ZigLane\Core\Teaching\Question;

/** A coach and his pupils: joined, taught, set to work, commented on. */
final class TeachingTest extends AppTestCase
{
    public function testAPupilJoinsByACodeAndLeavesWhenHeWants(): void
    {
        $coach = $this->signedIn('Coach');
        $this->client->request('GET', '/groups');
        $this->client->submitForm('Make it', ['name' => 'Tuesday']);
        $group = $this->manager()->getRepository(TeachingGroup::class)->findOneBy(['coach' => $coach]);
        self::assertNotNull($group);
        $code = $group->getCode();
        $pupil = $this->signedIn('Pupil');
        $this->client->request('GET', '/join');
        $this->client->submitForm('Join', ['code' => 'WRONGCODE2']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('no group with this code', $this->text());
        $form = $this->client->request('GET', '/join')->selectButton('Join')->form(['code' => strtolower($code)]);
        $this->client->submit($form);
        self::assertResponseRedirects('/groups');
        $groups = static::getContainer()->get(Groups::class);
        $pupil = $this->manager()->find(Account::class, $pupil->getId());
        self::assertNotNull($pupil);
        $membership = $groups->joined($pupil)[0];
        // He lets be seen what was ticked for him to see, and sees himself what that is.
        self::assertSame([true, false], [$membership->sees('scores'), $membership->sees('log')]);
        $this->client->request('GET', '/members/'.$membership->getId());
        self::assertResponseIsSuccessful();
        self::assertSelectorTextContains('.masthead-title', 'what Coach sees');
        $this->client->request('GET', '/groups');
        $this->client->submitForm('Leave this group');
        $this->manager()->clear();
        self::assertSame([], $groups->joined($this->manager()->find(Account::class, $pupil->getId()) ?? $pupil));
        // The coach's own code is not for himself; a new code ends the old.
        $this->client->loginUser($this->manager()->find(Account::class, $coach->getId()) ?? $coach);
        $this->client->request('GET', '/groups/'.$group->getId());
        $this->client->submitForm('A new code (the old one ends)');
        self::assertNull($groups->byCode($code));
    }

    /** Closed at once: a coach sees nothing more of a pupil who has closed his account, though he could still open it again. */
    public function testAClosedAccountIsSeenByItsCoachNoMore(): void
    {
        [$coach, $pupil, $group] = $this->class();
        $groups = static::getContainer()->get(Groups::class);
        $membership = $groups->joined($pupil)[0];
        $this->client->loginUser($coach);
        $this->client->request('GET', '/members/'.$membership->getId());
        self::assertResponseIsSuccessful();
        static::getContainer()->get(AccountCloser::class)->close($pupil);
        $this->client->request('GET', '/members/'.$membership->getId());
        self::assertResponseStatusCodeSame(404);
        $this->client->request('GET', '/groups/'.$group->getId());
        self::assertSelectorNotExists('main a[href*="/members/"]');
        self::assertFalse($groups->areConnected($coach, $pupil));
        self::assertSame([], $groups->pupilsOf($coach));
    }

    public function testAnInvitationWorksOnceAndForTwoWeeks(): void
    {
        [$coach, , $group] = $this->class();
        $this->client->loginUser($coach);
        $this->client->request('GET', '/groups/'.$group->getId());
        $this->client->submitForm('Send it', ['email' => 'not an address']);
        self::assertResponseStatusCodeSame(422);
        $this->client->request('GET', '/groups/'.$group->getId());
        $this->client->submitForm('Send it', ['email' => 'friend@example.org']);
        $page = $this->client->followRedirect();
        self::assertStringContainsString('not sent yet', $page->filter('.share-list')->last()->text());
        $link = (string) parse_url((string) $page->filter('input[data-select-all]')->attr('value'), \PHP_URL_PATH);
        $this->signedIn('Friend');
        $this->client->request('GET', $link);
        self::assertSelectorTextContains('h1', 'Coach asks you into a group');
        $this->client->submitForm('Join');
        self::assertResponseRedirects('/groups');
        $this->signedIn('Another');
        $this->client->request('GET', $link);
        self::assertResponseStatusCodeSame(404);
        self::assertSelectorTextContains('h1', 'This invitation is over');
    }

    public function testALessonIsWrittenCopiedExportedAndTakenIn(): void
    {
        $coach = $this->signedIn('Coach');
        $sheet = $this->sheet($coach);
        $this->client->request('GET', '/lessons');
        $this->client->submitForm('Write it', ['name' => 'Angles']);
        $page = $this->client->followRedirect();
        $lesson = $this->manager()->getRepository(Lesson::class)->findOneBy(['owner' => $coach]);
        self::assertNotNull($lesson);
        $edit = '/lessons/'.$lesson->getId().'?edit=1';
        $add = function (array $values) use ($edit): void {
            $form = $this->client->request('GET', $edit)->selectButton('Put it in')->form($values);
            $this->client->submit($form);
            self::assertResponseStatusCodeSame(303);
        };
        $bad = "# One\n\n<script>alert(1)</script> [x](javascript:alert(1)) ![p](https://example.org/p.png)\n\n**bold** [x](javascript:alert(1)) ![p](https://example.org/p.png) <img src=x onerror=alert(1)>";
        $add(['kind' => 'text', 'text' => $bad]);
        $add(['kind' => 'drill', 'drill' => 'dead-stop', 'text' => 'Ten of them.']);
        $add(['kind' => 'position', 'sheet' => (string) $sheet->getId(), 'question' => 'firstBall', 'text' => '']);
        // Words are CommonMark, and only that.
        $page = $this->client->request('GET', '/lessons/'.$lesson->getId());
        $html = $page->filter('.prose')->first()->html();
        self::assertStringContainsString('<strong>bold</strong>', $html);
        self::assertStringContainsString('<h3>One</h3>', $html);
        foreach (['<script', 'href="javascript:', '<img'] as $evil) {
            self::assertStringNotContainsString($evil, $html);
        }
        self::assertCount(3, $page->filter('.lesson-item'));
        self::assertSame('Which ball first?', $page->filter('.lesson-item.is-position h2')->text());
        // A run needs a plan.
        $this->client->submit(
            $this->client->request('GET', $edit)->selectButton('Put it in')->form(['kind' => 'plan', 'sheet' => (string) $sheet->getId()]),
        );
        self::assertResponseStatusCodeSame(422);
        // Up, and away.
        $forms = $this->client->request('GET', $edit)->filter('.item-tools');
        $this->client->submit($forms->eq(1)->selectButton('Up')->form(['text' => 'Ten of them.']), ['what' => 'up']);
        $this->manager()->clear();
        self::assertSame(['drill', 'text', 'position'], $this->kinds($lesson));
        $this->client->request('GET', '/lessons/'.$lesson->getId().'/cards');
        self::assertSelectorExists('.set-up-card .score-boxes');
        // Out, and in again with a fault told by its place.
        $this->client->request('GET', '/lessons/'.$lesson->getId().'/export');
        $file = (string) $this->client->getResponse()->getContent();
        self::assertSame($file, LessonFile::parse(trim($file))->write()."\n");
        foreach (
            [[$file, 303], [str_replace('"drill","text"', '"nothing","text"', $file), 422], ['{}', 422], ['x', 422]] as [$content, $status]
        ) {
            $path = (string) tempnam(sys_get_temp_dir(), 'lesson');
            file_put_contents($path, $content);
            $token = $this->client->request('GET', '/lessons')->filter('form.import [name=_token]')->attr('value');
            $this->client->request(
                'POST',
                '/lessons/import',
                ['_token' => $token],
                ['file' => new UploadedFile($path, 'a.lesson.json', null, null, true)],
            );
            self::assertResponseStatusCodeSame($status);
        }
        $this->client->request('GET', $edit);
        $this->client->submitForm('Copy it for another pupil');
        self::assertCount(
            3,
            static::getContainer()->get(Lessons::class)->all($this->manager()->find(Account::class, $coach->getId()) ?? $coach),
        );
        $this->client->request('GET', $edit);
        $this->client->submitForm('Delete it');
        $this->client->followRedirect();
        $this->client->submitForm('Bring it back');
        self::assertResponseRedirects('/lessons');
    }

    /** From the coach's lesson to the pupil's answer and its score, whatever becomes of the lesson and its drill. */
    public function testAnAssignmentIsDoneAndScored(): void
    {
        [$coach, $pupil, , $membership] = $this->class();
        $shelf = static::getContainer()->get(DrillShelf::class);
        $own = $shelf->keep($coach, $shelf->drill($coach, 'dead-stop')->file);
        $sheet = $this->sheet($coach, [0 => [0.9, 0.5], 4 => [1.7, 0.8], 9 => [0.6, 0.9]]);
        $desk = static::getContainer()->get(LessonDesk::class);
        $lesson = $desk->keep($coach, new LessonFile('Two', [
            LessonItem::drill($own->getFile()), LessonItem::position($sheet->getRack(), Question::CueBall, 'Where to?'),
        ]));
        $this->client->loginUser($coach);
        $form = $this->client->request('GET', '/lessons/'.$lesson->getId())->selectButton('Set it')->form(['due' => '2020-01-01', 'note' => 'Soon']);
        $box = $form->get('pupils[0]');
        self::assertInstanceOf(ChoiceFormField::class, $box);
        $box->tick();
        $this->client->submit($form);
        self::assertResponseStatusCodeSame(303);
        $assignment = $this->manager()->getRepository(Assignment::class)->findOneBy(['membership' => $membership]);
        self::assertNotNull($assignment);
        // The drill and the lesson are gone; what was set stays.
        $shelf->delete($this->manager()->find(OwnDrill::class, $own->getId()) ?? $own);
        $desk->delete($this->manager()->find(Lesson::class, $lesson->getId()) ?? $lesson, true);
        $this->client->loginUser($pupil);
        $home = $this->client->request('GET', '/sheets');
        self::assertSelectorTextContains('.due-panel', 'late');
        $page = $this->client->click($home->filter('.due-panel a')->link());
        self::assertSelectorTextContains('.run-odds', '0 of 2 done');
        $this->client->submit($page->selectButton('Practise it')->form());
        self::assertResponseStatusCodeSame(303);
        self::assertStringContainsString('/practice/', (string) $this->client->getResponse()->headers->get('Location'));
        $answer = fn (array $values) => $this->client->submit(
            $this->client->request('GET', '/set/'.$assignment->getId())->selectButton('That is my answer')->form($values),
        );
        foreach ([['spot' => 'there'], ['spot' => '9, 9'], ['spot' => '', 'pocket' => 'FL']] as $wrong) {
            $answer($wrong + ['ball' => '4', 'pocket' => 'FL']);
            self::assertResponseStatusCodeSame(422);
        }
        $answer(['ball' => '4', 'pocket' => 'FL', 'spot' => '3, 2.4']);
        self::assertResponseStatusCodeSame(303);
        $kept = $this->manager()->getRepository(Answer::class)->findOneBy(['assignment' => $assignment]);
        self::assertNotNull($kept);
        $handler = static::getContainer()->get(ScoreAnswerHandler::class);
        $handler(new ScoreAnswer((string) $kept->getId(), (string) $pupil->getId()));
        $score = $kept->getScore();
        self::assertIsArray($score);
        self::assertIsFloat($score['best']);
        self::assertGreaterThan(0.2, $score['best']);
        self::assertIsFloat($score['chance']);
        self::assertEqualsWithDelta($score['best'] - $score['chance'], $score['lost'], 1e-9);
        $page = $this->client->request('GET', '/set/'.$assignment->getId());
        self::assertSelectorTextContains('#item-work-1', 'points lost');
        self::assertSelectorExists('.plan-route');
        self::assertCount(0, $page->selectButton('That is my answer'));
        $this->client->submit($page->selectButton('Lay it out as a sheet of my own')->form());
        self::assertStringContainsString('/layout', (string) $this->client->getResponse()->headers->get('Location'));
        $this->client->request('GET', '/set/'.$assignment->getId());
        $this->client->submitForm('I have done it');
        // The coach sees it; the scores only if he is let.
        $this->client->loginUser($coach);
        $this->client->request('GET', '/set/'.$assignment->getId());
        self::assertSelectorTextContains('.run-odds', 'Done');
        self::assertSelectorTextContains('#item-work-1', 'Pupil said');
        $this->client->submitForm('Take this back');
        $this->client->loginUser($pupil);
        $this->client->request('GET', '/set/'.$assignment->getId());
        self::assertResponseStatusCodeSame(404);
    }

    public function testCommentsAreTextAndMarksAndKnowWhoHasReadThem(): void
    {
        [$coach, $pupil] = $this->class();
        $sheet = $this->sheet($pupil);
        $desk = static::getContainer()->get(ShareDesk::class);
        $thing = $desk->thing($pupil, ShareKind::Plan, (string) $sheet->getId());
        self::assertNotNull($thing);
        $desk->share($pupil, $thing, $coach, ShareLevel::Look, null);
        $url = '/threads/sheet/'.$sheet->getId();
        // Who may only look reads, and writes nothing.
        $this->client->loginUser($coach);
        $this->client->request('GET', $url.'?place=2');
        self::assertResponseIsSuccessful();
        self::assertSelectorNotExists('.comment-form');
        $desk->share($pupil, $thing, $coach, ShareLevel::Comment, null);
        $token = $this->client->request('GET', $url.'?place=2')->filter('.comment-form [name=_token]')->attr('value');
        $marks = [['kind' => 'spot', 'points' => [[4, 2]]], ['kind' => 'arrow', 'points' => [[1, 1]]], ['kind' => 'x', 'points' => [[1, 1]]], 'y',
            ['kind' => 'zone', 'points' => [[1, 1], [2, 1], [1e9, 2]]]];
        $this->client->request('POST', $url, [
            '_token' => $token, 'place' => '2', 'text' => '<script>alert(1)</script> "quoted"', 'marks' => json_encode($marks),
        ]);
        self::assertResponseIsSuccessful();
        $comment = $this->manager()->getRepository(Comment::class)->findOneBy(['subject' => $sheet->getId()]);
        self::assertNotNull($comment);
        self::assertSame(['spot', 'zone'], array_column($comment->getMarks(), 'kind'));
        self::assertSame(8.5, $comment->getMarks()[1]['points'][2][0]);
        self::assertStringNotContainsString('<script>alert', (string) $this->client->getResponse()->getContent());
        $this->client->request('POST', $url, ['_token' => $token, 'text' => '   ', 'marks' => '[']);
        self::assertResponseStatusCodeSame(422);
        // The pupil is told at home, reads it, and is told no more.
        $this->client->loginUser($pupil);
        $this->client->request('GET', '/sheets');
        self::assertSelectorTextContains('.due-panel', '1 comment that you have not read');
        static::getContainer()->get(Connection::class)->executeStatement('UPDATE comment SET written_at = written_at - INTERVAL 5 SECOND');
        $this->client->request('GET', $url.'?place=2');
        self::assertSelectorTextContains('.comments', '<script>alert(1)</script>');
        self::assertSelectorExists('.comments .is-new');
        $this->client->request('GET', '/sheets');
        self::assertSelectorNotExists('.due-panel');
        // His sheet: he may take any away.
        $this->client->request('GET', $url.'?place=2');
        $form = $this->client->getCrawler()->filter('.comments form')->attr('hx-post');
        $this->client->request('POST', (string) $form, ['_token' => $token, 'place' => '2']);
        self::assertResponseIsSuccessful();
        self::assertSelectorNotExists('.comments li');
    }

    /** Ten thousand comments: the page shows the latest and stays quick, and one more is refused in a sentence. */
    public function testTenThousandCommentsAreEnough(): void
    {
        $pupil = $this->signedIn('Pupil');
        $sheet = $this->sheet($pupil);
        $connection = static::getContainer()->get(Connection::class);
        $connection->executeStatement(
            'INSERT INTO comment (id, thread, subject, author_id, place, text, marks, written_at)'
            ." SELECT UNHEX(REPLACE(UUID(), '-', '')), 'sheet', :subject, :author, seq MOD 5, CONCAT('number ', seq), '[]', NOW() FROM seq_1_to_10000",
            ['subject' => $sheet->getId()->toBinary(), 'author' => $pupil->getId()->toBinary()],
        );
        $start = microtime(true);
        $page = $this->client->request('GET', '/threads/sheet/'.$sheet->getId().'?place=2');
        self::assertResponseIsSuccessful();
        self::assertLessThan(1.0, microtime(true) - $start);
        self::assertCount(100, $page->filter('.comments li'));
        $this->client->request('POST', '/threads/sheet/'.$sheet->getId(), ['_token' => $page->filter('.comment-form [name=_token]')->attr('value'), 'text' => 'x']);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('10000 comments', $this->text());
        $connection->executeStatement('DELETE FROM comment WHERE subject = ?', [$sheet->getId()->toBinary()]);
    }

    public function testASharedThingEndsOnItsDayAndCanBeCopiedWhereThatIsAllowed(): void
    {
        [$coach, $pupil] = $this->class();
        $desk = static::getContainer()->get(ShareDesk::class);
        $sheet = $this->sheet($coach);
        $thing = $desk->thing($coach, ShareKind::Plan, (string) $sheet->getId());
        self::assertNotNull($thing);
        $share = $desk->share($coach, $thing, $pupil, ShareLevel::Copy, new \DateTimeImmutable('+1 day'));
        $this->client->loginUser($pupil);
        $this->client->request('GET', '/shared/'.$share->getId());
        $this->client->submitForm('Make a copy of your own');
        self::assertResponseRedirects();
        static::getContainer()->get(Connection::class)->executeStatement(
            'UPDATE share SET ends_on = ? WHERE id = ?', [(new \DateTimeImmutable('-1 day'))->format('Y-m-d'), $share->getId()->toBinary()],
        );
        $this->manager()->clear();
        $this->client->request('GET', '/shared/'.$share->getId());
        self::assertResponseStatusCodeSame(404);
        // A day of the log goes by no link; and nothing to whom one does not know.
        $this->manager()->clear();
        $coach = $this->manager()->find(Account::class, $coach->getId()) ?? $coach;
        foreach ([[ShareKind::Sheet, $this->player('Unknown')]] as [$kind, $to]) {
            $thing = $desk->thing($coach, $kind, (string) $sheet->getId());
            self::assertNotNull($thing);
            $this->expectException(Refused::class);
            $desk->share($coach, $thing, $to, ShareLevel::Look, null);
        }
    }

    /** @return list<string> */
    private function kinds(Lesson $lesson): array
    {
        $kept = $this->manager()->find(Lesson::class, $lesson->getId());
        self::assertNotNull($kept);

        return array_map(static fn (LessonItem $item): string => $item->kind->value, $kept->getFile()->items);
    }

    /** @return array{Account, Account, TeachingGroup, Membership} a coach, his pupil */
    private function class(): array
    {
        [$coach, $pupil] = [$this->player('Coach'), $this->player('Pupil')];
        $desk = static::getContainer()->get(GroupDesk::class);
        $group = $desk->make($coach, 'Tuesday '.Uuid::v4());

        return [$coach, $pupil, $group, $desk->join($group, $pupil, ['scores' => true])];
    }
}
