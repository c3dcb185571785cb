<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Symfony\Component\HttpFoundation\File\UploadedFile;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Entity\DrillPar;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Entity\DrillTry;
use ZigLane\App\Entity\LogFitJob;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Entity\Shot;
use ZigLane\App\Log\LogImport;
use ZigLane\App\Message\FitLog;
use ZigLane\App\Message\PlayPar;
use ZigLane\App\Messenger\FitLogHandler;
use ZigLane\App\Messenger\PlayParHandler;
use ZigLane\App\Practice\DrillMaker;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Repository\DrillSessions;
use ZigLane\App\Repository\LogFits;
use ZigLane\App\Repository\ShotLog;
use ZigLane\App\Words\LengthUnit;
use ZigLane\App\Words\SpeedUnit;
use ZigLane\Core\Format\DrillFile;
use ZigLane\Core\Format\LogFile;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Practice\Skill;
use ZigLane\Core\Practice\TargetKind;
use ZigLane\Core\Rules\HouseRules;

/** Drills: chosen, played, scored, copied and changed. */
final class DrillsTest extends AppTestCase
{
    private const QUICK = '{"format": "zig-lane/drill", "version": 1, "name": "Two straight", "skill": "pot", "task": "pot", "ball": "1",
        "pocket": "FL", "places": {"cue": [4, 2], "1": [6, 3]}, "tries": 2, "pass": 2}';

    public function testTheLibraryIsListedBySkillAndADrillIsDrawn(): void
    {
        $this->signedIn();
        $crawler = $this->client->request('GET', '/drills');
        self::assertResponseIsSuccessful();
        self::assertGreaterThanOrEqual(24, $crawler->filter('.drill-list li')->count());
        self::assertSelectorExists('.due li');
        $crawler = $this->client->request('GET', '/drills/rings-in-the-middle?level=1');
        self::assertResponseIsSuccessful();
        self::assertCount(3, $crawler->filter('circle.drill-target'));
        self::assertSame('rings at the head spot', $crawler->filter('.levels [aria-current]')->text());
        self::assertSelectorTextContains('.spots', '4.5, 1.6');
        foreach (['/drills/no-such-drill', '/drills/..%2Fcomposer', '/drills/'.Uuid::v4()] as $path) {
            $this->client->request('GET', $path);
            self::assertResponseStatusCodeSame(404);
        }
    }

    /** What a drill's stroke can hurt stands on its page and its card, and whether the reader's room forbids it. */
    public function testADrillCarriesItsCautionAndTheRulesOfTheRoom(): void
    {
        $account = $this->signedIn();
        foreach (['/drills/break-and-count', '/drills/break-and-count/card'] as $page) {
            $this->client->request('GET', $page);
            self::assertSelectorTextContains('.is-caution', 'At break speed');
            self::assertSelectorTextNotContains('.is-caution', 'forbid it');
        }
        $this->client->request('GET', '/drills/dead-stop');
        self::assertSelectorNotExists('.is-caution');
        $account = $this->manager()->find(Account::class, $account->getId()) ?? $account;
        $account->playBy(HouseRules::fromArray(['hardBreak' => true]));
        $this->manager()->flush();
        $this->client->request('GET', '/drills/break-and-count');
        self::assertSelectorTextContains('.is-caution', 'The rules of this room forbid it');
        // A new sheet begins with what the room forbids.
        $this->client->request('GET', '/sheets/new');
        $this->client->submitForm('Lay out the balls', ['new_sheet[name]' => 'In the room', 'new_sheet[game]' => 'nine-ball']);
        $this->manager()->clear();
        $sheet = $this->manager()->getRepository(RackSheet::class)->findOneBy(['name' => 'In the room', 'owner' => $account]);
        self::assertTrue($sheet?->getRack()->rules->noHardStroke);
    }

    public function testAScoredDrillIsPlayedToItsEndAndEntriesCountOnce(): void
    {
        $account = $this->signedIn();
        $session = $this->begun('dead-stop', 'scored');
        $first = (string) Uuid::v4();
        $try = ['id' => $first, 'previous' => null, 'done' => true, 'after' => ['cue' => [5.95, 2.95]]];
        $this->enter($session, $try);
        self::assertSelectorTextContains('.big-score', '2');
        $this->enter($session, $try);
        self::assertSelectorTextContains('[data-score]', 'try 2 of 10');
        // It does not follow from what was entered.
        $this->enter($session, ['id' => (string) Uuid::v4(), 'previous' => null, 'done' => true]);
        self::assertResponseStatusCodeSame(409);
        $this->enter($session, ['id' => 'no uuid']);
        self::assertResponseStatusCodeSame(422);
        $previous = $first;
        for ($number = 2; $number <= 10; ++$number) {
            $id = (string) Uuid::v4();
            $this->enter($session, ['id' => $id, 'previous' => $previous, 'done' => 0 === $number % 2, 'after' => ['cue' => [5.5, 2.95]]]);
            self::assertResponseIsSuccessful();
            $previous = $id;
        }
        self::assertSelectorTextContains('[data-on="over"]', 'Not passed');
        $found = $this->session($session);
        self::assertNotNull($found->getEndedAt());
        self::assertSame([7.0, 10], [$found->getScore(), $found->getTries()]);
        $this->enter($session, ['id' => (string) Uuid::v4(), 'previous' => $previous, 'done' => true]);
        self::assertResponseStatusCodeSame(409);
        // Taken back, it goes on.
        $this->post("/practice/$session/undo", ['try' => $previous]);
        self::assertResponseIsSuccessful();
        self::assertNull($this->session($session)->getEndedAt());
        self::assertSame(6.0, $this->session($session)->getScore());
    }

    /** Played on from where both balls stopped, until one is away from home. */
    public function testACountInARowGoesOnFromWhereTheBallsLie(): void
    {
        $this->signedIn();
        $session = $this->begun('two-homes', 'scored');
        $previous = null;
        foreach ([[[1.5, 2.0], [7.0, 1.0]], [[3.0, 1.0], [5.0, 3.0]]] as [$cue, $one]) {
            $id = (string) Uuid::v4();
            $this->enter($session, ['id' => $id, 'previous' => $previous, 'done' => true, 'after' => ['cue' => $cue, '1' => $one]]);
            $previous = $id;
        }
        self::assertSelectorTextContains('.big-score', '2');
        self::assertSelectorTextContains('.practice .spots', '3, 1');
        self::assertSelectorTextContains('.practice .spots', '5, 3');
        $away = ['cue' => [4.5, 1.0], '1' => [5.0, 3.0]];
        $this->enter($session, ['id' => (string) Uuid::v4(), 'previous' => $previous, 'done' => true, 'after' => $away]);
        self::assertSelectorExists('[data-on="over"]');
        self::assertSame(2.0, $this->session($session)->getScore());
    }

    public function testByTurnsEachHasHisOwnScore(): void
    {
        $account = $this->signedIn();
        $session = $this->begun($this->kept($account), 'scored', 'Ola');
        $previous = null;
        foreach ([[true, 'Ola'], [false, 'Ines'], [true, 'Ola'], [true, null]] as [$isDone, $next]) {
            $id = (string) Uuid::v4();
            $this->enter($session, ['id' => $id, 'previous' => $previous, 'done' => $isDone]);
            $previous = $id;
            if (null !== $next) {
                self::assertSelectorTextContains('[data-score]', $next);
            }
        }
        self::assertSelectorTextContains('.turns li:first-child', 'Ines 2');
        self::assertSelectorTextContains('.turns li:last-child', 'Ola 1');
    }

    public function testATrainingGoesOnUntilItIsEnded(): void
    {
        $account = $this->signedIn();
        $session = $this->begun($this->kept($account), 'training');
        $previous = null;
        for ($i = 0; $i < 4; ++$i) {
            $id = (string) Uuid::v4();
            $this->enter($session, ['id' => $id, 'previous' => $previous, 'done' => 3 === $i]);
            $previous = $id;
        }
        self::assertSelectorTextContains('[data-score]', 'try 5');
        $this->post("/practice/$session/end");
        self::assertSelectorTextContains('[data-on="over"]', '1 of 4 worked');
    }

    public function testWhatIsScoredStaysWithTheVersionThatItWasScoredOn(): void
    {
        $account = $this->signedIn();
        $key = $this->kept($account);
        $session = $this->begun($key, 'scored');
        $this->client->request('GET', "/drills/$key/edit");
        $this->client->submitForm('Keep it', ['file' => str_replace('"tries": 2', '"tries": 5', self::QUICK)]);
        self::assertResponseRedirects("/drills/$key");
        // The half-played session goes on as it began.
        $previous = (string) Uuid::v4();
        $this->enter($session, ['id' => $previous, 'previous' => null, 'done' => true]);
        $this->enter($session, ['id' => (string) Uuid::v4(), 'previous' => $previous, 'done' => true]);
        self::assertSelectorTextContains('[data-on="over"]', 'Passed');
        $this->client->request('GET', "/drills/$key");
        self::assertSelectorTextContains('.rack-list', 'an earlier version');
        self::assertSelectorNotExists('.own-tries');
    }

    public function testADrillIsCopiedChangedAndAFaultIsToldAtItsPlace(): void
    {
        $this->signedIn();
        $this->client->request('GET', '/drills/dead-stop');
        $this->client->submitForm('Copy and change');
        $this->client->followRedirect();
        $path = $this->client->getRequest()->getPathInfo();
        self::assertMatchesRegularExpression('#^/drills/[0-9a-f-]{36}/edit$#', $path);
        $this->client->submitForm('Keep it', ['file' => str_replace('[6, 3]', '[4.05, 2]', self::QUICK)]);
        self::assertResponseStatusCodeSame(422);
        self::assertSelectorTextContains('[role=alert]', 'places.1');
        self::assertStringContainsString('4.05', (string) $this->client->getCrawler()->filter('textarea')->text());
        $this->client->request('GET', '/drills/dead-stop/edit');
        self::assertResponseStatusCodeSame(404);
    }

    public function testADrillIsTriedBeforeItIsKept(): void
    {
        $account = $this->signedIn();
        $key = $this->kept($account);
        $this->post("/drills/$key/try", ['file' => self::QUICK]);
        self::assertSelectorTextContains('#tried', '20 runs of a simulated club player');
        self::assertSelectorTextContains('#tried', 'His stroke');
        $this->post("/drills/$key/try", ['file' => str_replace('"FL"', '"HR"', self::QUICK)]);
        self::assertSelectorTextContains('#tried', 'Par is 0');
        $this->post("/drills/$key/try", ['file' => '{"format": "zig-lane/drill", "version": 1, "name": "?"}']);
        self::assertSelectorTextContains('#tried [role=alert]', 'skill');
        $this->post('/drills/dead-stop/try', ['file' => self::QUICK]);
        self::assertResponseStatusCodeSame(404);
    }

    /** What the log says is worth most is what is suggested, with why. */
    public function testWhatIsSuggestedFollowsTheLog(): void
    {
        $account = $this->signedIn();
        $fit = new LogFitJob($account, 90, new \DateTimeImmutable());
        $this->manager()->persist($fit);
        $this->manager()->flush();
        $gain = static fn (float $least): array => ['gain' => $least + 0.05, 'interval' => [$least, $least + 0.1]];
        $fits = static::getContainer()->get(LogFits::class);
        $fits->finish($fit->getId(), ['used' => 0, 'gains' => ['speed' => $gain(0.02), 'aim' => $gain(-0.02)]]);
        $fits->reload($fit);
        $crawler = $this->client->request('GET', '/progress');
        self::assertStringContainsString('by your log a surer speed would gain you most', $crawler->filter('.due')->text());
        $first = (string) $crawler->filter('.due a')->first()->attr('href');
        $drill = static::getContainer()->get(DrillShelf::class)->drill($account, basename($first))->file->drill;
        self::assertSame(Skill::Speed, $drill->skill);
    }

    public function testADrillIsTakenInFromAFileAndOneThatIsNoneIsRefused(): void
    {
        $this->signedIn();
        $this->client->request('GET', '/drills');
        $token = (string) $this->client->getCrawler()->filter('main input[name=_token]')->attr('value');
        foreach ([[self::QUICK, 303], ['{"format": "zig-lane/rack"}', 422], [str_repeat('x', 1 << 20), 422]] as [$content, $status]) {
            $path = (string) tempnam(sys_get_temp_dir(), 'drill');
            file_put_contents($path, $content);
            $file = new UploadedFile($path, 'a.json', test: true);
            $this->client->request('POST', '/drills/import', ['_token' => $token], ['file' => $file]);
            self::assertResponseStatusCodeSame($status);
        }
    }

    public function testAParIsWorkedOutForEveryLevelAndFallsWithWorseErrors(): void
    {
        $account = $this->signedIn();
        // A par is kept for everybody: this one is of a drill that nobody has.
        $key = $this->kept($account, str_replace('Two straight', 'Two straight '.bin2hex(random_bytes(6)), self::QUICK));
        $this->client->request('GET', "/drills/$key");
        $this->client->submitForm('Work out the par');
        $hash = static::getContainer()->get(DrillShelf::class)->drill($account, $key)->file->hash();
        $pars = $this->manager()->getRepository(DrillPar::class)->findBy(['version' => $hash]);
        self::assertCount(4, $pars);
        foreach ($pars as $par) {
            static::getContainer()->get(PlayParHandler::class)(new PlayPar((string) $par->getId(), (string) $account->getId()));
        }
        $this->manager()->clear();
        $crawler = $this->client->request('GET', "/drills/$key");
        $means = $crawler->filter('.par-table td b')->each(static fn ($node): float => (float) $node->text());
        self::assertCount(4, $means);
        self::assertTrue($means[0] < $means[1] && $means[1] <= $means[2] && $means[2] <= $means[3], implode(' ', $means));
        self::assertSelectorTextContains('.pars .legend', '1000 simulated runs');
        self::assertSelectorNotExists('.pars form');
    }

    public function testSetUpCardsHaveTheSpotsAndACode(): void
    {
        $this->signedIn();
        $crawler = $this->client->request('GET', '/drills/side-door/card');
        self::assertCount(4, $crawler->filter('.set-up-card'));
        self::assertSelectorTextContains('.set-up-card', '2.8, 1.6');
        self::assertStringStartsWith('/drills/side-door', (string) $crawler->filter('[data-qr]')->attr('data-qr'));
    }

    /** What was changed in the editor becomes a level; the drill stays as it was. */
    public function testAChangeIsKeptAsALevel(): void
    {
        $account = $this->signedIn();
        $key = $this->kept($account);
        $this->client->request('GET', "/drills/$key/edit");
        $wider = str_replace('"tries": 2', '"tries": 5', (string) $this->client->getCrawler()->filter('textarea')->text(null, false));
        self::assertStringContainsString('"tries": 5', $wider);
        $this->client->submitForm('Keep it', ['file' => $wider, 'level' => 'One more']);
        self::assertResponseRedirects("/drills/$key?level=1");
        $file = static::getContainer()->get(DrillShelf::class)->drill($account, $key)->file;
        self::assertSame(2, $file->drill->tries);
        self::assertSame(5, $file->at(1)->tries);
        self::assertSame(['tries' => 5], $file->drill->levels[0]->edits);
        // The same name again changes that level.
        $this->client->request('GET', "/drills/$key/edit");
        $this->client->submitForm('Keep it', ['file' => str_replace('"tries": 5', '"tries": 6', $wider), 'level' => 'One more']);
        $file = static::getContainer()->get(DrillShelf::class)->drill($account, $key)->file;
        self::assertCount(1, $file->drill->levels);
        self::assertSame(6, $file->at(1)->tries);
    }

    public function testLengthsAreToldInThePlayersUnit(): void
    {
        $this->signedIn();
        $this->client->request('GET', '/drills/dead-stop');
        self::assertSelectorTextContains('.spots', '127.0 cm');
        $this->client->submitForm('Set', ['length_unit' => 'in', 'speed_unit' => 'mph']);
        $this->client->followRedirect();
        self::assertSelectorTextContains('.spots', '50.0 in');
        self::assertSelectorTextNotContains('.spots', 'cm');
        self::assertSame(['39.4 in', '12.0 in', '4.5 mph'], [
            LengthUnit::Inches->text(1.0, 1), LengthUnit::Inches->text(0.3048), SpeedUnit::MilesPerHour->text(2.0),
        ]);
        // Or by how far the cue ball would run.
        self::assertSame(['one length', 'up and back'], [SpeedUnit::InWords->text(0.75), SpeedUnit::InWords->text(2.0)]);
        $this->client->submitForm('Set', ['speed_unit' => 'words']);
        $this->client->request('GET', '/drills/dead-stop');
        self::assertSelectorExists('select[name="speed_unit"] option:contains("words")[selected]');
    }

    /** Drills that are due are run through one after the other. */
    public function testASessionRunsThroughItsDrills(): void
    {
        $account = $this->signedIn();
        [$one, $two] = [$this->kept($account), $this->kept($account)];
        $this->post("/drills/$one/begin", ['submission' => (string) Uuid::v4(), 'mode' => 'scored', 'then' => "$two,../../etc"]);
        $session = basename((string) $this->client->getResponse()->headers->get('Location'));
        $this->post("/practice/$session/end");
        self::assertSame([$two], $this->session($session)->getLater());
        $this->client->request('GET', "/practice/$session");
        $this->client->submitForm('Next drill');
        $this->client->followRedirect();
        self::assertMatchesRegularExpression('#^/practice/[0-9a-f-]{36}$#', $this->client->getRequest()->getPathInfo());
        self::assertSame([], $this->session(basename($this->client->getRequest()->getPathInfo()))->getLater());
    }

    public function testSeveralDrillsArePrintedWithWhatTheCoachSays(): void
    {
        $account = $this->signedIn();
        $key = $this->kept($account);
        $crawler = $this->client->request('GET', "/drills/sheet?of=side-door,dead-stop,$key");
        self::assertCount(3, $crawler->filter('.set-up-card'));
        self::assertSelectorTextContains('.set-up-card', 'one after the other down the table');
        $this->client->request('GET', '/drills/sheet?of=');
        self::assertResponseStatusCodeSame(404);
        $this->signedIn('Ola');
        $this->client->request('GET', "/drills/sheet?of=side-door,$key");
        self::assertResponseStatusCodeSame(404);
    }

    public function testProgressSaysHowScoresStandAndWhatIsDue(): void
    {
        $account = $this->signedIn();
        $session = $this->begun($this->kept($account), 'scored');
        $previous = (string) Uuid::v4();
        $this->enter($session, ['id' => $previous, 'previous' => null, 'done' => true]);
        $this->enter($session, ['id' => (string) Uuid::v4(), 'previous' => $previous, 'done' => false]);
        $crawler = $this->client->request('GET', '/progress?minutes=60');
        self::assertResponseIsSuccessful();
        self::assertStringContainsString('Two straight', $crawler->filter('.log-table')->last()->text());
        self::assertSame(84, $crawler->filter('.calendar i')->count());
        self::assertSame(1, $crawler->filter('.calendar i[data-count="1"]')->count());
    }

    /** A try whose stroke is known is a shot of the log, and so of the fit; taken back, it is gone. */
    public function testTriesWithAKnownStrokeGoIntoTheLog(): void
    {
        $account = $this->signedIn();
        $stroke = '"stroke": {"side": 0, "height": 0.2, "speed": 2.0}, "tries": 2';
        $key = $this->kept($account, str_replace('"tries": 2', $stroke, self::QUICK));
        $session = $this->begun($key, 'scored');
        $first = (string) Uuid::v4();
        $this->enter($session, ['id' => $first, 'previous' => null, 'done' => true, 'after' => ['cue' => [6.4, 3.2]]]);
        $shot = static fn (string $id): ?Shot => static::getContainer()->get(ShotLog::class)->shot(Uuid::fromString($id));
        $logged = $shot($first)?->logged();
        self::assertNotNull($logged?->meant);
        self::assertSame([2.0, true], [$logged->meant->speed, $logged->result->isMade]);
        self::assertEqualsWithDelta(6.4 * 0.3175, $logged->result->after->spot(Ball::Cue)->x, 1e-6);
        $this->client->request('GET', '/log');
        self::assertResponseIsSuccessful();
        $this->post("/practice/$session/undo", ['try' => $first]);
        $this->manager()->clear();
        self::assertNull($shot($first));
        // Of a drill that tells no stroke nothing is known.
        $other = $this->begun('dead-stop', 'scored');
        $this->enter($other, ['id' => $id = (string) Uuid::v4(), 'previous' => null, 'done' => true, 'after' => ['cue' => [5.9, 2.9]]]);
        self::assertNull($shot($id));
    }

    public function testALegOfAPlanIsPractised(): void
    {
        $account = $this->signedIn();
        $sheet = $this->sheet($account);
        $this->client->request('GET', '/drills');
        $this->post("/sheets/{$sheet->getId()}/practise/leg", ['plan' => '0', 'leg' => '1']);
        self::assertResponseStatusCodeSame(422, 'there is no plan');
        $plan = PlanFile::parse((string) file_get_contents(\dirname(__DIR__).'/Core/Decide/seven-behind-the-six.plan.json'))->plans[0];
        $account = $this->manager()->find(Account::class, $account->getId());
        self::assertNotNull($account);
        $drill = static::getContainer()->get(DrillMaker::class)->ofLeg($account, 'Test rack', $plan, 1)->getFile()->drill;
        self::assertSame('3 FR: Test rack', $drill->name);
        self::assertSame([TargetKind::Zone, Ball::Five], [$drill->targets[0]->kind, $drill->targets[0]->ball]);
        self::assertEqualsWithDelta(2.4879, $drill->speed, 1e-3);
        self::assertCount(6, $drill->places);
    }

    public function testAShotThatWasShotIsPractised(): void
    {
        $account = $this->signedIn();
        $log = (string) file_get_contents(\dirname(__DIR__, 2).'/demo/player.log.json');
        static::getContainer()->get(LogImport::class)->take($account, LogFile::parse($log));
        $crawler = $this->client->request('GET', '/log?kind=pot');
        $this->client->request('GET', (string) $crawler->filter('.log-table tbody a')->first()->attr('href'));
        self::assertResponseIsSuccessful();
        $this->client->submitForm('Practise this leg');
        self::assertResponseStatusCodeSame(303);
        $this->client->followRedirect();
        self::assertSelectorTextContains('.short-plan', 'Pot the');
        self::assertSelectorExists('.drill-stroke');
    }

    /** Once the log says whose errors they are, what was scored is held against them. */
    public function testAFitAsksForTheParOfWhatWasScored(): void
    {
        $account = $this->signedIn();
        $key = $this->kept($account, str_replace('Two straight', 'Two straight '.bin2hex(random_bytes(6)), self::QUICK));
        $session = $this->begun($key, 'scored');
        $this->post("/practice/$session/end");
        $account = $this->session($session)->getOwner();
        // As tries: what is worth practising is then not looked for, which takes long.
        $log = json_decode((string) file_get_contents(\dirname(__DIR__, 2).'/demo/player.log.json'), true, 32, \JSON_THROW_ON_ERROR);
        self::assertIsArray($log);
        $log['outings'] = \array_slice((array) $log['outings'], 0, 7);
        $log = str_replace('"kind":"practice"', '"kind":"tries"', json_encode($log, \JSON_THROW_ON_ERROR));
        static::getContainer()->get(LogImport::class)->take($account, LogFile::parse($log));
        $fit = new LogFitJob($account, 90, new \DateTimeImmutable());
        $this->manager()->persist($fit);
        $this->manager()->flush();
        static::getContainer()->get(FitLogHandler::class)(new FitLog((string) $fit->getId(), (string) $account->getId()));
        $hash = static::getContainer()->get(DrillShelf::class)->drill($account, $key)->file->hash();
        self::assertCount(5, $this->manager()->getRepository(DrillPar::class)->findBy(['version' => $hash]));
    }

    public function testAnothersDrillsAndScoresAreNotThere(): void
    {
        $account = $this->signedIn();
        $key = $this->kept($account);
        $session = $this->begun($key, 'scored');
        $this->signedIn('Ola');
        foreach (["/drills/$key", "/drills/$key/edit", "/drills/$key/card", "/drills/$key/export", "/practice/$session"] as $path) {
            $this->client->request('GET', $path);
            self::assertResponseStatusCodeSame(404, $path);
        }
        $posts = ["/drills/$key/delete", "/drills/$key/begin", "/drills/$key/copy", "/practice/$session/end", "/practice/$session/delete"];
        foreach ($posts as $path) {
            $this->post($path, ['submission' => (string) Uuid::v4()]);
            self::assertResponseStatusCodeSame(404, $path);
        }
        $this->enter($session, ['id' => (string) Uuid::v4(), 'previous' => null, 'done' => true]);
        self::assertResponseStatusCodeSame(404);
        self::assertSame([], $this->manager()->getRepository(DrillTry::class)->findBy(['session' => $this->session($session)]));
    }

    private function kept(Account $account, string $json = self::QUICK): string
    {
        return (string) static::getContainer()->get(DrillShelf::class)->keep($account, DrillFile::parse($json))->getId();
    }

    /** A session of a drill, begun by its page. */
    private function begun(string $key, string $mode, string $others = ''): string
    {
        $this->post("/drills/$key/begin", ['submission' => (string) Uuid::v4(), 'mode' => $mode, 'others' => $others]);
        self::assertResponseStatusCodeSame(303);

        return basename((string) $this->client->getResponse()->headers->get('Location'));
    }

    /** @param array<string, mixed> $entry */
    private function enter(string $session, array $entry): void
    {
        $this->post("/practice/$session/tries", ['entry' => json_encode($entry, \JSON_THROW_ON_ERROR)]);
    }

    /** @param array<string, string> $values */
    private function post(string $path, array $values = []): void
    {
        $crawler = $this->client->request('GET', '/drills');
        $this->client->request('POST', $path, $values + ['_token' => (string) $crawler->filter('main input[name=_token]')->attr('value')]);
    }

    private function session(string $id): DrillSession
    {
        $this->manager()->clear();
        $session = static::getContainer()->get(DrillSessions::class)->find(Uuid::fromString($id));
        self::assertNotNull($session);

        return $session;
    }
}
