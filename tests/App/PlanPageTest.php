<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\DBAL\Connection;
use Symfony\Component\DomCrawler\Form;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\PlanJob;
use ZigLane\App\Entity\PlanState;
use ZigLane\App\Entity\RackSheet;
use ZigLane\App\Message\WorkOnPlan;
use ZigLane\App\Messenger\WorkOnPlanHandler;
use ZigLane\App\Repository\PlanJobRepository;
use ZigLane\Core\Format\PlanFile;
use ZigLane\Core\Name\Ball;
use ZigLane\Core\Plan\Tally;
use ZigLane\Core\Shot\ShotChoice;

/** Planning a run on the page and in workers: nobody else's, never lost, never twice. */
final class PlanPageTest extends AppTestCase
{
    private const SPOTS = [0 => [0.9, 0.5], 4 => [1.7, 0.8], 9 => [0.4, 1.0]];

    public function testAPlanIsAskedForWorkedOnAndShown(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS);
        $this->client->request('GET', $this->path($sheet));
        self::assertSelectorExists('.ask');
        $this->ask($sheet);
        self::assertResponseRedirects($this->path($sheet));
        $job = $this->job($sheet);
        self::assertSame(PlanState::Waiting, $job->getState());
        self::assertSame(2, $this->queued($job));

        $this->work($job, 2);
        $job = $this->job($sheet);
        self::assertSame(PlanState::Done, $job->getState());
        $this->client->request('GET', $this->path($sheet));
        self::assertMatchesRegularExpression('/\d+ % run out .*by \d+ replays with the errors of a casual player/', $this->text());
        self::assertCount(2, $this->client->getCrawler()->filter('.strip .card'));
        self::assertSelectorTextContains('.this-leg h2', 'Leg 1: 4 in');
        self::assertMatchesRegularExpression('/A miss leaves your opponent a \d+ % shot|Every miss is a foul/', $this->text());

        // One leg more, as a fragment.
        $this->client->request('GET', $this->path($sheet, '/board').'?leg=2');
        self::assertStringNotContainsString('<html', (string) $this->client->getResponse()->getContent());
        self::assertSelectorTextContains('.this-leg h2', 'Leg 2: 9 in');
        self::assertSelectorExists('[data-frames]');
    }

    public function testProgressTellsWhenThereIsABetterPlanAndAReloadKeepsIt(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS);
        $this->ask($sheet);
        $this->client->request('GET', $this->path($sheet, '/progress').'?drawn=0');
        $job = $this->job($sheet);
        $this->jobs()->start($job);
        $this->jobs()->draw($job, $this->planOf($sheet));
        $this->client->request('GET', $this->path($sheet, '/progress').'?drawn=0');
        self::assertSame('plan-drawn', $this->client->getResponse()->headers->get('HX-Trigger-After-Swap'));
        self::assertSelectorExists('#progress progress');
        $this->client->request('GET', $this->path($sheet, '/progress').'?drawn=1');
        self::assertNull($this->client->getResponse()->headers->get('HX-Trigger-After-Swap'));
        $this->client->request('GET', $this->path($sheet));
        self::assertSelectorExists('.strip .card');
    }

    /** What a player planned with is what his next sheet begins with; the rules of a plan stay with its own sheet. */
    public function testWeightsAreKeptForThePlayerAndRulesForTheSheet(): void
    {
        $player = $this->signedIn();
        $sheet = $this->sheet($player, self::SPOTS);
        $this->ask($sheet, ['weight_draw' => '3', 'weight_spot' => '40', 'rules' => ['callsNine', 'nonsense']]);
        $job = $this->job($sheet);
        self::assertSame(40.0, $job->getWeights()->spot);
        self::assertTrue($job->getRack()->rules->callsNine);

        $next = $this->sheet($this->manager()->find($player::class, $player->getId()) ?? $player, self::SPOTS);
        $this->client->request('GET', $this->path($next));
        self::assertSame('40', $this->client->getCrawler()->filter('[name="weight_spot"]')->attr('value'));
        self::assertSame('3', $this->client->getCrawler()->filter('[name="weight_draw"]')->attr('value'));
        self::assertNull($this->client->getCrawler()->filter('[name="rules[]"]')->attr('checked'));
        $this->client->request('GET', $this->path($sheet));
        self::assertNotNull($this->client->getCrawler()->filter('[name="rules[]"]')->attr('checked'));
    }

    public function testStoppingKeepsTheBestSoFar(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS);
        $this->ask($sheet);
        $this->client->request('POST', $this->path($sheet, '/stop'), ['_token' => $this->token($sheet)]);
        $job = $this->job($sheet);
        self::assertSame(PlanState::Stopping, $job->getState());
        $this->work($job, 1);
        $job = $this->job($sheet);
        self::assertSame(PlanState::Done, $job->getState());
        self::assertNotNull($job->getPlan());
        // The second message finds nothing to do and changes nothing.
        $drawn = $job->getDrawn();
        $this->work($job, 1);
        self::assertSame($drawn, $this->job($sheet)->getDrawn());
    }

    /** A block counts once: a worker that was thought dead cannot add its replays to those of the one that took over. */
    public function testABlockCountsOnceWhoeverDoesIt(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS);
        $this->ask($sheet);
        $job = $this->job($sheet);
        $jobs = $this->jobs();
        self::assertTrue($jobs->start($job));
        self::assertFalse($jobs->start($job));
        self::assertTrue($jobs->take($job, 0, 0));
        self::assertFalse($jobs->take($job, 0, 0));
        static::getContainer()->get(Connection::class)->executeStatement(
            'UPDATE plan_block SET taken_until = ? WHERE job_id = ?',
            ['2020-01-01 00:00:00', $job->getId()->toBinary()],
        );
        self::assertTrue($jobs->take($job, 0, 0));
        $replays = new Tally();
        $replays->tries = 20;
        $replays->finished = 3;
        $jobs->finish($job, 0, 0, $replays->toArray());
        $other = new Tally();
        $other->tries = 20;
        $jobs->finish($job, 0, 0, $other->toArray());
        self::assertEquals([[0 => $replays->toArray()]], $jobs->done($job, 1));
        self::assertSame(1, $this->job($sheet)->getDoneBlocks());
        self::assertFalse($jobs->take($job, 0, 0));
        self::assertTrue($jobs->mayWrite($job));
        self::assertFalse($jobs->mayWrite($job));
    }

    public function testAPlanIsTakenToTheShotDeskAndGoneOnWithFromWhereTheCueBallLies(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS);
        $this->ask($sheet);
        $this->work($this->job($sheet), 1);
        $token = $this->token($sheet);
        $this->client->request(
            'POST',
            $this->path($sheet, '/take'),
            ['_token' => $token, 'version' => $this->reloaded($sheet)->getVersion(), 'plan' => 0, 'leg' => 1],
        );
        self::assertResponseStatusCodeSame(303);
        $legs = $this->reloaded($sheet)->getLegs();
        self::assertSame([Ball::Four, Ball::Nine], array_map(static fn ($leg): Ball => $leg->ball, $legs));

        $this->client->request(
            'POST',
            $this->path($sheet, '/here'),
            ['_token' => $token, 'version' => $this->reloaded($sheet)->getVersion(), 'plan' => 0, 'leg' => 1, 'at' => '3.5, 2'],
        );
        self::assertResponseRedirects($this->path($sheet));
        $layout = $this->reloaded($sheet)->getRack()->layout;
        self::assertFalse($layout->has(Ball::Four));
        self::assertEqualsWithDelta(3.5 * 0.3175, $layout->spot(Ball::Cue)->x, 1e-5);
        self::assertSame(PlanState::Waiting, $this->job($sheet)->getState());

        $this->client->request(
            'POST',
            $this->path($sheet, '/here'),
            ['_token' => $token, 'version' => $this->reloaded($sheet)->getVersion(), 'at' => 'there'],
        );
        self::assertResponseStatusCodeSame(422);
    }

    public function testOnesOwnLegsAreScoredTheSameWay(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS);
        $mine = \ZigLane\Core\Format\RackFile::shotFromArray([
            'ball' => '4',
            'pocket' => 'FL',
            'speed' => 1.9,
            'side' => 0.0,
            'height' => 0.1,
            'elevation' => 1.0,
        ]);
        static::getContainer()->get(\ZigLane\App\Sheet\SheetEditor::class)->keepLegs($sheet, [$mine], $sheet->getVersion());
        $this->ask($sheet, ['own' => '1']);
        $this->work($this->job($sheet), 1);
        self::assertEquals($mine, $this->job($sheet)->getPlan()?->best()->choices()[0]);
    }

    /** From the page: the leg that stands there is locked, another pocket is ruled out, and both are kept when one asks again. */
    public function testALegIsLockedAndAPocketRuledOutFromThePage(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS);
        $this->ask($sheet);
        $this->work($this->job($sheet), 1);
        $page = $this->client->request('GET', $this->path($sheet));
        $first = $this->choices($sheet)[0];
        $this->press($page->selectButton('Lock this leg')->form());
        self::assertResponseRedirects($this->path($sheet));
        self::assertEquals([$first], $this->job($sheet)->getLegs());

        $this->work($this->job($sheet), 1);
        $page = $this->client->request('GET', $this->path($sheet).'?leg=2');
        $second = $this->choices($sheet)[1];
        $this->press($page->selectButton('Not in '.$second->pocket->value)->form());
        $job = $this->job($sheet);
        self::assertSame([['9', $second->pocket->value]], $job->getConstraintNames()['forbidden']);
        self::assertEquals([$first], $job->getLegs());
        $this->work($job, 1);
        $choices = $this->choices($sheet);
        self::assertEquals($first, $choices[0]);
        // Another pocket, or no second leg where the 9 goes nowhere else, or a safety.
        $other = $choices[1] ?? null;
        self::assertTrue(null === $other || $other->isSafety || $second->pocket !== $other->pocket);
    }

    public function testWishesThatAreNotUnderstoodAreTold(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS);
        foreach ([
            'forbidden' => ['4 XX', 'is not a ball and a pocket'],
            'before' => ['4 after 9', 'is not an order of balls'],
            'weight_draw' => ['99', 'The weight'],
        ] as $field => [$value, $sentence]) {
            $this->ask($sheet, [$field => $value]);
            self::assertResponseStatusCodeSame(422);
            self::assertStringContainsString($sentence, $this->text());
        }
        self::assertNull($this->jobs()->latestOf($this->reloaded($sheet)));
    }

    public function testAnEmptyTableIsTold(): void
    {
        $empty = $this->sheet($this->signedIn(), []);
        $this->ask($empty);
        self::assertResponseStatusCodeSame(422);
        self::assertStringContainsString('no object ball on the table', $this->text());
    }

    /** Without a cue ball that is on the table or in hand nothing can be shot: the page says so and keeps asking open. */
    public function testAHopelessTableIsTold(): void
    {
        // The 1 is walled in the middle of a rack of balls that must not be met, and so is the cue ball.
        $sheet = $this->sheet($this->signedIn(), self::walledIn());
        $this->ask($sheet);
        $this->work($this->job($sheet), 1);
        self::assertSame(PlanState::Nothing, $this->job($sheet)->getState());
        $this->client->request('GET', $this->path($sheet));
        self::assertStringContainsString('There is nothing to plan: no ball on the table can be shot from here', $this->text());
        self::assertSelectorExists('.ask button');
    }

    /** A plan that was made for another layout says that it is stale, and can no longer be taken. */
    public function testAPlanOfAnotherLayoutIsStale(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS);
        $this->ask($sheet);
        $this->work($this->job($sheet), 1);
        $this->client->request('GET', $this->path($sheet));
        self::assertSelectorNotExists('[data-stale]');
        $this->client->request(
            'POST',
            "/sheets/{$sheet->getId()}/layout",
            [
                '_token' => $this->token($sheet),
                'version' => $this->reloaded($sheet)->getVersion(),
                'change' => 'place',
                'ball' => '9',
                'at' => '3,3',
            ],
        );
        $page = $this->client->request('GET', $this->path($sheet));
        self::assertSelectorTextContains('[data-stale]', 'The sheet has changed since this plan was made');
        self::assertNotNull($page->selectButton('Lock this leg')->attr('disabled'));
        self::assertNotNull($page->selectButton('Open leg 1 on the shot desk')->attr('disabled'));
    }

    /** A stored plan that can no longer be read is told, and not taken for none. */
    public function testAnUnreadablePlanIsTold(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS);
        $this->ask($sheet);
        $this->work($this->job($sheet), 1);
        static::getContainer()->get(Connection::class)->executeStatement(
            'UPDATE plan_job SET plan = ? WHERE id = ?',
            ['{"format":"zig-lane/plan","version":99}', $this->job($sheet)->getId()->toBinary()],
        );
        $this->manager()->clear();
        $this->client->request('GET', $this->path($sheet));
        self::assertResponseIsSuccessful();
        self::assertStringContainsString('The plan of this sheet can no longer be read', $this->text());
    }

    public function testExportAndImportOfAPlan(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS);
        $this->client->request('GET', $this->path($sheet, '/export'));
        self::assertResponseStatusCodeSame(404);
        $this->ask($sheet);
        $this->work($this->job($sheet), 1);
        $this->client->request('GET', $this->path($sheet, '/export'));
        self::assertResponseHeaderSame('Content-Disposition', 'attachment; filename=test-rack.plan.json');
        $exported = (string) $this->client->getResponse()->getContent();
        // And on paper, a drawing for each leg.
        $crawler = $this->client->request('GET', $this->path($sheet, '/sheet'));
        self::assertCount(\count($this->job($sheet)->getPlan()->plans[0]->legs ?? []), $crawler->filter('.set-up-card'));
        self::assertSelectorExists('.set-up-card .route');
        $path = (string) tempnam(sys_get_temp_dir(), 'plan');
        file_put_contents($path, $exported);
        $page = $this->client->request('GET', '/sheets');
        $this->client->request(
            'POST',
            '/sheets/import',
            ['_token' => (string) $page->filter('form.import [name="_token"]')->attr('value'), 'submission' => (string) Uuid::v4()],
            ['file' => new \Symfony\Component\HttpFoundation\File\UploadedFile($path, 'x.plan.json', 'application/json', null, true)],
        );
        self::assertResponseStatusCodeSame(303);
        self::assertStringContainsString('/layout', (string) $this->client->getResponse()->headers->get('Location'));
        $crawler = $this->client->followRedirect();
        self::assertSame('x', trim($crawler->filter('h1')->text()));
        self::assertCount(3, $crawler->filter('[data-ball]'));
    }

    public function testAnotherPlayersRunIsNotThere(): void
    {
        $sheet = $this->sheet($this->player('Olga'), self::SPOTS);
        $token = $this->token($this->sheet($this->signedIn(), self::SPOTS));
        foreach (['', '/board', '/progress', '/export', '/sheet'] as $part) {
            $this->client->request('GET', $this->path($sheet, $part));
            self::assertResponseStatusCodeSame(404);
        }
        foreach (['', '/stop', '/take', '/here'] as $part) {
            $this->client->request('POST', $this->path($sheet, $part), ['_token' => $token, 'at' => '3,3']);
            self::assertResponseStatusCodeSame(404);
        }
        self::assertNull($this->jobs()->latestOf($this->reloaded($sheet)));
    }

    public function testWithoutATokenNothingIsAskedFor(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS);
        foreach (['', '/stop', '/take', '/here'] as $part) {
            $this->client->request('POST', $this->path($sheet, $part), ['_token' => 'wrong']);
            self::assertResponseStatusCodeSame(403);
        }
        self::assertNull($this->jobs()->latestOf($this->reloaded($sheet)));
    }

    /** Two worker processes with settings of their own against one database: both work on the plan, and it is written once. */
    public function testTwoWorkerProcessesShareAPlan(): void
    {
        // So many balls that the plan takes all of its time, and neither comes when it is over.
        $sheet = $this->sheet($this->signedIn(), self::SPOTS + [5 => [2.0, 0.3], 7 => [0.6, 1.1], 8 => [1.3, 0.4]]);
        $this->ask($sheet, ['seconds' => '15']);
        $job = $this->job($sheet);
        $workers = [$this->worker('one'), $this->worker('two')];
        try {
            $this->await($sheet, fn (PlanJob $job): bool => $job->getDoneBlocks() > 0 && $this->worked($job) >= 2);
            $this->stop($sheet);
            $this->await($sheet, static fn (PlanJob $job): bool => $job->getState()->isOver());
        } finally {
            array_map(self::end(...), $workers);
        }
        $job = $this->job($sheet);
        self::assertSame(PlanState::Done, $job->getState());
        self::assertGreaterThan(0, $job->getDoneBlocks());
        self::assertGreaterThan(0, $job->getPlan()?->best()->replays->tries);
        // Both took part: each wrote down that it worked on the plan.
        self::assertSame(2, $this->worked($job));
    }

    /** The only worker is killed in mid-plan; another that is started then finishes it. */
    public function testAWorkerKilledInMidPlanIsReplaced(): void
    {
        $sheet = $this->sheet($this->signedIn(), self::SPOTS + [5 => [2.1, 0.3], 7 => [1.2, 1.0]]);
        $this->ask($sheet, ['seconds' => '20']);
        $first = $this->worker('one');
        $this->await($sheet, static fn (PlanJob $job): bool => $job->getDoneBlocks() > 0);
        self::end($first, 9);
        $before = $this->job($sheet);
        self::assertFalse($before->getState()->isOver());
        $second = $this->worker('two');
        try {
            $done = $before->getDoneBlocks();
            $this->await($sheet, static fn (PlanJob $job): bool => $job->getState()->isOver() || $job->getDoneBlocks() > $done);
            $this->stop($sheet);
            $this->await($sheet, static fn (PlanJob $job): bool => $job->getState()->isOver());
        } finally {
            self::end($second);
        }
        $after = $this->job($sheet);
        self::assertSame(PlanState::Done, $after->getState());
        self::assertGreaterThanOrEqual($before->getDoneBlocks(), $after->getDoneBlocks());
    }

    /** @return array<int, array{float, float}> the cue ball frozen in the middle of a ring of the balls that are not on */
    private static function walledIn(): array
    {
        $spots = [0 => [1.27, 0.635], 1 => [2.2, 0.3], 9 => [0.3, 0.9]];
        foreach ([2, 3, 4, 5, 6, 7] as $i => $number) {
            $spots[$number] = [1.27 + 0.0572 * cos($i * \M_PI / 3), 0.635 + 0.0572 * sin($i * \M_PI / 3)];
        }

        return $spots;
    }

    /** How many workers have said that they worked on a plan. */
    private function worked(PlanJob $job): int
    {
        return preg_match_all('/Worked on a plan\..*'.preg_quote((string) $job->getId(), '/').'/', self::logged()) ?: 0;
    }

    /** @param array<string, string|list<string>> $constraints */
    private function ask(RackSheet $sheet, array $constraints = []): void
    {
        $this->client->request('POST', $this->path($sheet), $constraints + ['_token' => $this->token($sheet), 'seconds' => '2']);
    }

    /** The form as a browser would send it, but with less time for the plan. */
    private function press(Form $form): void
    {
        $this->client->request($form->getMethod(), $form->getUri(), $form->getPhpValues() + ['seconds' => '2']);
    }

    private function path(RackSheet $sheet, string $part = ''): string
    {
        return "/sheets/{$sheet->getId()}/run-out$part";
    }

    private function jobs(): PlanJobRepository
    {
        return static::getContainer()->get(PlanJobRepository::class);
    }

    private function job(RackSheet $sheet): PlanJob
    {
        $job = $this->jobs()->latestOf($this->reloaded($sheet));
        self::assertNotNull($job);

        return $job;
    }

    /** @return list<ShotChoice> of the best plan */
    private function choices(RackSheet $sheet): array
    {
        $plan = $this->job($sheet)->getPlan();
        self::assertNotNull($plan);

        return $plan->best()->choices();
    }

    /** Does what so many workers would, one after the other, and takes the messages from the queue. */
    private function work(PlanJob $job, int $messages): void
    {
        for ($i = 0; $i < $messages; ++$i) {
            static::getContainer()->get(WorkOnPlanHandler::class)(new WorkOnPlan(
                (string) $job->getId(),
                (string) $job->getSheet()?->getOwner()->getId(),
            ));
        }
        static::getContainer()->get(Connection::class)->executeStatement(
            'DELETE FROM work_queue WHERE party = ?',
            [(string) $job->getSheet()?->getOwner()->getId()],
        );
    }

    private function queued(PlanJob $job): int
    {
        $count = static::getContainer()->get(Connection::class)->fetchOne(
            'SELECT COUNT(*) FROM work_queue WHERE party = ?',
            [(string) $job->getSheet()?->getOwner()->getId()],
        );

        return is_numeric($count) ? (int) $count : -1;
    }

    private function planOf(RackSheet $sheet): string
    {
        $plan = (new \ZigLane\Core\Plan\PlanSearch($sheet->getRack()))->first();
        self::assertNotNull($plan);

        return (new PlanFile([$plan], 0.1, 1))->write();
    }

    private function stop(RackSheet $sheet): void
    {
        $this->client->request('POST', $this->path($sheet, '/stop'), ['_token' => $this->token($sheet)]);
    }

    /** @return resource a worker in a process of its own, with an environment as of a machine of its own */
    private function worker(string $name)
    {
        $command = [
            \PHP_BINARY,
            '-d',
            'pcov.enabled=0',
            '-d',
            'opcache.enable_cli=1',
            '-d',
            'opcache.jit='.\ini_get('opcache.jit'),
            '-d',
            'opcache.jit_buffer_size=64M',
            'bin/console',
            'messenger:consume',
            'plans',
            'work',
            '--sleep=0.1',
            '--time-limit=90',
            '--no-interaction',
            '-q',
        ];
        $environment = ['HOSTNAME' => $name] + array_filter(getenv(), is_string(...));
        $pipes = [];
        $process = proc_open(
            $command,
            [['file', '/dev/null', 'r'], ['file', '/dev/null', 'w'], ['file', '/dev/null', 'w']],
            $pipes,
            \dirname(__DIR__, 2),
            $environment,
        );
        self::assertIsResource($process);

        return $process;
    }

    /** @param resource $process */
    private static function end($process, int $signal = 15): void
    {
        proc_terminate($process, $signal);
        while (proc_get_status($process)['running']) {
            usleep(20_000);
        }
        proc_close($process);
    }

    /** @param \Closure(PlanJob): bool $condition */
    private function await(RackSheet $sheet, \Closure $condition): void
    {
        for ($i = 0; $i < 1800; ++$i) {
            if ($condition($this->job($sheet))) {
                return;
            }
            usleep(100_000);
        }
        self::fail('the plan did not come that far in three minutes');
    }
}
