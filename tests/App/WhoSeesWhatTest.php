<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Routing\Route;
use Symfony\Component\Security\Csrf\CsrfToken;
use Symfony\Component\Security\Csrf\CsrfTokenManagerInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\Membership;
use ZigLane\App\Entity\ShareKind;
use ZigLane\App\Entity\ShareLevel;
use ZigLane\App\Entity\ThreadKind;
use ZigLane\App\Kernel;
use ZigLane\App\Log\LogEditor;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Practice\PracticeEditor;
use ZigLane\App\Sharing\ShareDesk;
use ZigLane\App\Sharing\ThreadDesk;
use ZigLane\App\Tables\TableShelf;
use ZigLane\App\Teaching\GroupDesk;
use ZigLane\App\Teaching\LessonDesk;
use ZigLane\Core\Format\LessonFile;
use ZigLane\Core\Format\LessonItem;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Table\Equipment;
use ZigLane\Core\Teaching\Question;

/**
 * Every route as a stranger, as a pupil who has left, as a pupil and as his coach, with tokens that are right: what is not theirs does not
 * exist for them. A route that stands in no table here fails.
 */
final class WhoSeesWhatTest extends AppTestCase
{
    /** Of everybody who is signed in: they show only what is his. */
    private const OF_EVERYBODY = [
        'preferences', 'password', 'break', 'break_look', 'break_sheet', 'break_find', 'break_found', 'break_off', 'break_off_look',
        'break_off_sheet', 'drills', 'drills_sheet', 'drill_import', 'groups', 'group_make', 'join', 'join_by_code', 'lessons',
        'lesson_make', 'lesson_import', 'log', 'log_records', 'log_result', 'log_break', 'log_export', 'log_csv', 'log_import',
        'numbers', 'numbers_fit', 'numbers_fit_ask', 'numbers_use', 'progress', 'account', 'account_name', 'account_life',
        'account_address', 'account_devices', 'account_export', 'account_import', 'account_import_progress', 'account_delete', 'shares', 'share_of', 'share_make',
        'home', 'sheets', 'sheet_new', 'sheet_import', 'tables', 'table_make', 'table_import',
    ];
    /** Of nobody: what they show or do depends on a word in their address, or on nothing. */
    private const PUBLIC = [
        'sign_in', 'sign_out', 'demo_sign_in', 'register', 'healthy', 'forgot', 'forgot_ask', 'reset', 'reset_do', 'address_confirm', 'address_do', 'address_back', 'address_back_do',
        'undelete', 'undelete_do', 'look', 'look_board', 'look_follow',
    ];
    /** Of the pupil whose sheet, rack, drill, table or practice it is, and of nobody else. */
    private const OF_OWNER = [
        'sheet_look', 'sheet_odds', 'sheet_run', 'drill', 'drill_pars', 'drill_pars_ask', 'drill_begin', 'drill_copy', 'drill_edit',
        'drill_change', 'drill_try', 'drill_delete', 'drill_export', 'drill_card', 'sheet_layout', 'sheet_change', 'sheet_options',
        'sheet_options_board', 'sheet_options_progress', 'sheet_options_ask', 'sheet_options_take', 'rack_options',
        'rack_options_board', 'rack_options_progress', 'rack_options_ask', 'rack_options_take', 'sheet_picture', 'sheet_picture_kept',
        'sheet_picture_throw', 'sheet_marks', 'sheet_picture_read', 'sheet_picture_corners', 'sheet_camera', 'sheet_runout',
        'sheet_runout_board', 'sheet_runout_progress', 'sheet_runout_ask', 'sheet_runout_stop', 'sheet_runout_take',
        'sheet_runout_here', 'sheet_runout_sheet', 'sheet_runout_export', 'sheet_player', 'sheet_player_save', 'practice',
        'practice_add', 'practice_undo', 'practice_end', 'practice_delete', 'practise_leg', 'practise_option', 'practise_shot',
        'sheet_table', 'sheet_review', 'rack_review', 'outing_note', 'rack_costs', 'sheet_follow', 'sheet_export', 'sheet_rename',
        'sheet_delete', 'sheet_restore', 'sheet_shoot', 'shoot', 'shoot_board', 'shoot_seen', 'shoot_add', 'shoot_undo', 'shoot_end',
        'rack_delete', 'rack_restore', 'sheet_plan', 'sheet_draw', 'sheet_call', 'sheet_cut', 'table', 'table_change', 'table_camera', 'table_test',
        'table_record', 'table_cards', 'table_forget', 'table_fit', 'table_fit_ask', 'table_take', 'table_usual', 'table_delete',
        'table_export', 'tries', 'tries_begin', 'tries_add', 'tries_undo',
    ];
    /** Those of the others who may: of pupil and coach. */
    private const SHARED = [
        'assignment' => ['pupil', 'coach'], 'assignment_drill' => ['pupil'], 'assignment_answer' => ['pupil'], 'assignment_done' => ['pupil'], 'assignment_sheet' => ['pupil'],
        'assignment_withdraw' => ['coach'], 'group' => ['coach'], 'group_code' => ['coach'], 'group_invite' => ['coach'],
        'group_close' => ['coach'], 'member_sees' => ['pupil'], 'member_leave' => ['pupil'], 'member_remove' => ['coach'],
        'member' => ['pupil', 'coach'], 'member_sheet' => ['pupil', 'coach'], 'member_board' => ['pupil', 'coach'],
        'member_follow' => ['pupil', 'coach'], 'member_day' => ['pupil', 'coach'], 'lesson' => ['coach'], 'lesson_cards' => ['coach'],
        'lesson_rename' => ['coach'], 'lesson_add' => ['coach'], 'lesson_edit' => ['coach'], 'lesson_copy' => ['coach'],
        'lesson_export' => ['coach'], 'lesson_delete' => ['coach'], 'lesson_restore' => ['coach'], 'lesson_set' => ['coach'],
        'shared' => ['coach'], 'shared_board' => ['coach'], 'shared_follow' => ['coach'], 'shared_copy' => ['coach'],
        'share_withdraw' => ['pupil'], 'thread' => ['pupil', 'coach'], 'thread_page' => ['pupil', 'coach'],
        'thread_write' => ['pupil', 'coach'], 'thread_remove' => ['pupil', 'coach'],
    ];
    /** An invitation is for whoever has the letter: here one that has been used. */
    private const OVER = ['join_invited', 'join_by_letter'];
    private const SECRET = 'Nobody else reads this';

    /** @var array<string, Account> */
    private array $people = [];
    /** @var array<string, string> by placeholder */
    private array $ids = [];

    public function testEveryRouteStandsInATable(): void
    {
        $known = [...self::OF_EVERYBODY, ...self::PUBLIC, ...self::OF_OWNER, ...array_keys(self::SHARED), ...self::OVER];
        $missing = array_values(array_diff(self::names(), $known));
        self::assertSame([], $missing, 'Say who may do this.');
        self::assertSame([], array_values(array_diff($known, self::names())), 'These are gone.');
    }

    public function testWhatIsNotTheirsDoesNotExistForThem(): void
    {
        $this->build();
        foreach (['stranger', 'former', 'pupil', 'coach'] as $who) {
            $this->client->loginUser($this->person($who));
            foreach ([...self::OF_OWNER, ...array_keys(self::SHARED), ...self::OVER] as $name) {
                $may = \in_array($name, self::OF_OWNER, true) ? ['pupil'] : self::SHARED[$name] ?? [];
                if (\in_array($who, $may, true)) {
                    continue;
                }
                $this->go($name);
                $answer = $this->client->getResponse();
                // Where one may be without the other thing there is nothing but the same sentence.
                self::assertSame(404, $answer->getStatusCode(), "$name as $who");
                self::assertStringNotContainsString(self::SECRET, (string) $answer->getContent(), "$name as $who");
            }
        }
        // What was not to be changed was not.
        self::assertTrue($this->manager()->find(Membership::class, $this->ids['membership'])?->isThere());
    }

    public function testWhoMayLooksAndWhoHasLeftNoMore(): void
    {
        $this->build();
        foreach (self::SHARED as $name => $may) {
            if (!\in_array('GET', self::route($name)->getMethods(), true)) {
                continue;
            }
            foreach ($may as $who) {
                $this->client->loginUser($this->person($who));
                $this->go($name);
                self::assertLessThan(400, $this->client->getResponse()->getStatusCode(), "$name as $who");
            }
        }
        // The pupil leaves: in the same moment his coach sees nothing of his any more, nor he of his coach's.
        $membership = $this->manager()->find(Membership::class, $this->ids['membership']);
        self::assertNotNull($membership);
        static::getContainer()->get(GroupDesk::class)->leave($membership);
        $still = ['group', 'group_code', 'group_invite', 'group_close', 'share_withdraw'];
        foreach (self::SHARED as $name => $may) {
            if (str_starts_with($name, 'lesson') || \in_array($name, $still, true)) {
                continue;
            }
            foreach ($may as $who) {
                if ('pupil' === $who && str_starts_with($name, 'thread')) {
                    continue;
                }
                $this->client->loginUser($this->person($who));
                $this->go($name);
                self::assertSame(404, $this->client->getResponse()->getStatusCode(), "$name as $who, after he left");
            }
        }
    }

    #[DataProvider('sights')]
    public function testACoachSeesNoMoreThanHeIsLet(string $what, string $route): void
    {
        $this->build();
        $membership = $this->manager()->find(Membership::class, $this->ids['membership']);
        self::assertNotNull($membership);
        $all = array_map(static fn (): bool => true, Membership::SIGHTS);
        static::getContainer()->get(GroupDesk::class)->letSee($membership, [$what => false] + $all);
        $this->client->loginUser($this->person('coach'));
        $this->go($route);
        self::assertSame(404, $this->client->getResponse()->getStatusCode());
        $membership = $this->manager()->find(Membership::class, $this->ids['membership']);
        self::assertNotNull($membership);
        static::getContainer()->get(GroupDesk::class)->letSee($membership, $all);
        $this->go($route);
        self::assertSame(200, $this->client->getResponse()->getStatusCode());
    }

    /** @return iterable<string, array{string, string}> */
    public static function sights(): iterable
    {
        yield 'sheets' => ['sheets', 'member_sheet'];
        yield 'log' => ['log', 'member_day'];
    }

    /** A link shows one thing to everybody and nothing else, and nothing private of it. */
    public function testALinkShowsOneThingAndNothingPrivate(): void
    {
        $this->build();
        $pupil = $this->person('pupil');
        $desk = static::getContainer()->get(ShareDesk::class);
        $thing = $desk->thing($pupil, ShareKind::Plan, $this->ids['sheet']);
        self::assertNotNull($thing);
        $share = $desk->share($pupil, $thing, null, ShareLevel::Copy, null);
        self::assertSame(ShareLevel::Look, $share->getLevel(), 'a link is for looking');
        $this->client->getCookieJar()->clear();
        foreach (['', '/board'] as $page) {
            $this->client->request('GET', '/look/'.$share->getToken().$page);
            self::assertResponseIsSuccessful();
            $html = (string) $this->client->getResponse()->getContent();
            self::assertStringContainsString('Pool', $html.'Pool');
            self::assertStringNotContainsString($pupil->getEmail(), $html);
            foreach (['sheet_player', 'of your log', 'tipSide', '0.047', (string) $pupil->getId()] as $private) {
                self::assertStringNotContainsString($private, $html);
            }
            self::assertResponseHeaderSame('Referrer-Policy', 'no-referrer');
        }
        $this->client->request('GET', '/look/'.strrev((string) $share->getToken()));
        self::assertResponseStatusCodeSame(404);
        static::getContainer()->get(ShareDesk::class)->withdraw($this->manager()->find($share::class, $share->getId()) ?? $share);
        $this->client->request('GET', '/look/'.$share->getToken());
        self::assertResponseStatusCodeSame(404);
        self::assertSelectorTextContains('h1', 'Not shown any more');
    }

    /** A pupil in a group of a coach, who lets everything be seen; a stranger; one who has left. */
    private function build(): void
    {
        static::getContainer()->set('security.csrf.token_manager', new class implements CsrfTokenManagerInterface {
            public function getToken(string $tokenId): CsrfToken
            {
                return new CsrfToken($tokenId, 'right');
            }

            public function refreshToken(string $tokenId): CsrfToken
            {
                return $this->getToken($tokenId);
            }

            public function removeToken(string $tokenId): ?string
            {
                return null;
            }

            public function isTokenValid(CsrfToken $token): bool
            {
                return true;
            }
        });
        foreach (['coach', 'pupil', 'former', 'stranger'] as $who) {
            $this->people[$who] = $this->player(ucfirst($who));
        }
        [$coach, $pupil, $former] = [$this->people['coach'], $this->people['pupil'], $this->people['former']];
        $groups = static::getContainer()->get(GroupDesk::class);
        $group = $groups->make($coach, 'Tuesday');
        $all = array_map(static fn (): bool => true, Membership::SIGHTS);
        $left = $groups->join($group, $former, $all);
        $invitation = $groups->invite($group, 'pupil@example.org');
        $membership = $groups->join($group, $pupil, $all, $invitation);
        $sheet = $this->sheet($pupil);
        $sheet->rename(self::SECRET, new \DateTimeImmutable());
        $rack = static::getContainer()->get(LogEditor::class)->begin($pupil, Uuid::v7(), $sheet->getRack(), RackKind::Practice, $sheet);
        $shelf = static::getContainer()->get(DrillShelf::class);
        $drill = $shelf->keep($pupil, $shelf->drill($pupil, 'dead-stop')->file);
        $session = static::getContainer()->get(PracticeEditor::class)->begin(
            $pupil,
            Uuid::v7(),
            $shelf->drill($pupil, (string) $drill->getId()),
            0,
            true,
        );
        $table = static::getContainer()->get(TableShelf::class)->keep($pupil, new TableFile(self::SECRET, new Equipment()));
        $lesson = static::getContainer()->get(LessonDesk::class)->keep($coach, new LessonFile(self::SECRET, [
            LessonItem::words('**One**'), LessonItem::drill(
                $shelf->drill($coach, 'dead-stop')->file,
            ), LessonItem::position($sheet->getRack(), Question::CueBall),
        ]));
        $assignment = static::getContainer()->get(LessonDesk::class)->set($lesson, $membership, null, self::SECRET);
        static::getContainer()->get(LessonDesk::class)->set($lesson, $left, null, self::SECRET);
        $groups->leave($left);
        $thing = static::getContainer()->get(ShareDesk::class)->thing($pupil, ShareKind::Plan, (string) $sheet->getId());
        self::assertNotNull($thing);
        $share = static::getContainer()->get(ShareDesk::class)->share($pupil, $thing, $coach, ShareLevel::Copy, null);
        $comment = static::getContainer()->get(ThreadDesk::class)->write($coach, ThreadKind::Sheet, $sheet->getId(), 1, self::SECRET, []);
        $day = $rack->getOuting();
        $this->ids = array_map(strval(...), [
            'sheet' => $sheet->getId(), 'rack' => $rack->getId(), 'drill' => $drill->getId(), 'session' => $session->getId(), 'table' => $table->getId(),
            'lesson' => $lesson->getId(), 'assignment' => $assignment->getId(), 'group' => $group->getId(), 'membership' => $membership->getId(),
            'share' => $share->getId(), 'comment' => $comment->getId(), 'day' => $day->getId(), 'token' => $invitation->getToken(),
        ]);
    }

    private function go(string $name): void
    {
        $route = self::route($name);
        $path = $route->getPath();
        $id = match (true) {
            str_starts_with($path, '/racks') => 'rack', str_starts_with($path, '/practice') => 'session', str_starts_with($path, '/tables') => 'table',
            str_starts_with($path, '/lessons') => 'lesson', str_starts_with($path, '/set') => 'assignment', str_starts_with($path, '/groups') => 'group',
            str_starts_with($path, '/members') => 'membership', str_starts_with($path, '/share') => 'share', str_starts_with($path, '/threads') => 'comment',
            default => 'sheet',
        };
        $url = strtr($path, [
            '{id}' => $this->ids[$id], '{key}' => $this->ids['drill'], '{test}' => 'roll', '{sheet}' => $this->ids['sheet'], '{day}' => $this->ids['day'],
            '{kind}' => 'sheet', '{subject}' => $this->ids['sheet'], '{token}' => $this->ids['token'],
        ]);
        $this->client->request(
            $route->getMethods()[0] ?? 'GET',
            $url,
            ['_token' => 'right', 'text' => 'x', 'name' => 'x', 'version' => '1', 'submission' => '01a22920-6f11-72f9-8fd0-e011f3ce37bb'],
        );
    }

    private function person(string $who): Account
    {
        $this->manager()->clear();

        return $this->manager()->find(Account::class, $this->people[$who]->getId()) ?? throw new \LogicException("$who is gone");
    }

    private static function route(string $name): Route
    {
        $route = static::getContainer()->get('router')->getRouteCollection()->get($name);
        self::assertNotNull($route);

        return $route;
    }

    /** @return list<string> */
    private static function names(): array
    {
        $kernel = new Kernel('test', false);
        $kernel->boot();
        $names = array_keys($kernel->getContainer()->get('router')->getRouteCollection()->all());
        $kernel->shutdown();

        return $names;
    }
}
