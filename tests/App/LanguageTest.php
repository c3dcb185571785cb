<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\DBAL\Connection;
use Symfony\Bundle\FrameworkBundle\Console\Application;
use Symfony\Component\Console\Tester\ApplicationTester;
use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\Routing\Exception\ExceptionInterface;
use Symfony\Component\Routing\RouterInterface;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\Account;
use ZigLane\App\Language\PageWords;
use ZigLane\App\Log\LogEditor;
use ZigLane\App\Mail\Post;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Practice\PracticeEditor;
use ZigLane\App\Repository\AccountRepository;
use ZigLane\App\Repository\RackSheetRepository;
use ZigLane\App\Sheet\Planner;
use ZigLane\App\Sheet\PlanRequest;
use ZigLane\Core\Log\RackKind;

/** Pages in the reader's language: whatever is read on a page of the demo stands in a language file. */
final class LanguageTest extends AppTestCase
{
    /** What is read: text and the attributes that are told, but not what people typed or what has no translation. */
    private const READ = '//body//text()[not(ancestor::script or ancestor::style or ancestor::textarea or ancestor::*[@translate="no"])]'
        .' | //body//*[not(ancestor-or-self::*[@translate="no"])]/@*[name()="aria-label" or name()="title" or name()="placeholder"]';
    /** Pages of a route that are looked at. */
    private const EACH = 2;
    /** Units, formats and the name of the application, which are no words of a language; dates, which ICU writes. */
    private const SAME = '/\b(mph|SVG|PNG|Zig Lane|UTC|(Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec) \d+|[A-Z][a-z]+day)\b/';

    /** @var list<string> names and texts that people have typed, the longest first */
    private array $typed = [];

    protected function tearDown(): void
    {
        // The demo player is everybody's.
        static::getContainer()->get(Connection::class)->executeStatement("UPDATE account SET language = '' WHERE language = 'xx'");
        parent::tearDown();
    }

    public function testWhateverIsReadOnAPageOfTheDemoIsInTheLanguageFile(): void
    {
        self::console(['lane:demo']);
        $this->typed = $this->typed();
        $left = $seen = [];
        foreach ([Account::DEMO_EMAIL => $this->more(), 'demo-mira@zig-lane.invalid' => []] as $email => $more) {
            $account = static::getContainer()->get(AccountRepository::class)->byEmail($email);
            self::assertNotNull($account);
            $account->read(BracketTranslator::LOCALE);
            $this->manager()->flush();
            $this->client->loginUser($account);
            $left += $this->walk(
                ['/sheets', '/account', '/break', '/tables', '/groups', '/lessons', '/shares', '/numbers', ...$more],
                $seen,
            );
        }

        self::assertSame([], $left);
        self::assertSame([], $this->lackedByGerman());
        self::assertGreaterThan(50, \count($seen), 'that many kinds of page were looked at');
    }

    public function testAPlayerReadsThePagesInTheLanguageThatHeChooses(): void
    {
        $account = $this->signedIn();
        $sheet = $this->sheet($account, [0 => [1.4, 0.5], 4 => [2.2, 0.4], 9 => [0.5, 1.0]]);
        $this->client->request('GET', '/account');
        self::assertSelectorExists('html[lang=en]');
        $this->client->submitForm('Keep these', ['language' => 'de']);
        $this->client->request('GET', '/account');
        self::assertSelectorExists('html[lang=de]');
        self::assertSelectorTextContains('.masthead-tools', 'Blätter');
        $words = json_decode($this->client->getCrawler()->filter('#script-words')->text(), true);
        self::assertIsArray($words);
        self::assertSame(['Gelocht', 'hin und zurück'], [$words['Made'] ?? null, $words['up and back'] ?? null], 'what scripts say');
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan?ball=4&pocket=FR&clock=12:00&tips=0.5&lengths=1.5&elevation=2");
        self::assertSelectorTextContains('.verdict', 'Die 4 ');
        self::assertSelectorTextContains('[data-stance-told]', 'Bande');
        $this->client->request('GET', "/sheets/{$sheet->getId()}/plan/draw?ball=4&pocket=FR&clock=12:00&tips=0.5&lengths=99&elevation=2");
        self::assertSelectorTextContains('[role=alert]', 'Das Tempo muss eine Zahl von 0.05 bis');
        $this->client->request('GET', '/sheets/0192f0c1-0000-7000-8000-000000000000/plan');
        self::assertSelectorTextContains('h1', 'Nicht gefunden');
        // What he typed stays as he typed it, and numbers are written with a point, as they are typed.
        $this->client->request('GET', '/sheets');
        self::assertSelectorTextContains('main', $sheet->getName());
    }

    public function testALanguageWithoutAFileIsRefused(): void
    {
        $this->signedIn();
        $token = $this->client->request('GET', '/account')->filter('form[action="/account/life"] [name=_token]')->attr('value');
        $this->client->request('POST', '/account/life', ['_token' => $token, 'zone' => 'UTC', 'language' => '../../etc']);
        self::assertResponseStatusCodeSame(422);
        $this->client->request('GET', '/account');
        self::assertSelectorExists('html[lang=en]');
    }

    public function testWhoIsNotSignedInReadsWhatHisBrowserAsksFor(): void
    {
        $this->client->request('GET', '/sign-in', server: ['HTTP_ACCEPT_LANGUAGE' => 'fr, de;q=0.8, en;q=0.5']);
        self::assertSelectorExists('html[lang=de]');
        self::assertSelectorTextContains('body', 'Anmelden');
        $this->client->request('GET', '/sign-in', server: ['HTTP_ACCEPT_LANGUAGE' => 'fr']);
        self::assertSelectorExists('html[lang=en]');
    }

    public function testALetterIsInTheLanguageOfItsReader(): void
    {
        $account = $this->player();
        $account->read('de');
        static::getContainer()->get(Post::class)->tell($account, $account->getEmail(), 'password');
        $queued = static::getContainer()->get(Connection::class)->fetchOne(
            'SELECT body FROM work_queue WHERE party = ? ORDER BY id DESC LIMIT 1', [(string) $account->getId()],
        );
        self::assertIsString($queued);
        self::assertStringContainsString('Dein Passwort bei Zig Lane wurde', $queued);
    }

    /** Every sentence of a language is one that ICU reads, and asks for no value that the English one does not have. */
    public function testTheGermanFilesAreWhole(): void
    {
        self::console(['lane:words', 'language' => 'de']);
        $translator = static::getContainer()->get('translator');
        $english = $translator->getCatalogue('en')->all('messages');
        foreach ($translator->getCatalogue('de')->all('messages') as $key => $sentence) {
            self::assertIsString($sentence);
            self::assertIsString($english[$key]);
            // It throws where ICU cannot read it.
            $formatter = new \MessageFormatter('de', $sentence);
            preg_match_all('/\{(\w+)/', $english[$key], $found);
            foreach ([0, 1, 3, 'none', 'yes'] as $value) {
                // A value that is not known stands as {name} in what comes out.
                $said = $formatter->format([...array_fill_keys($found[1], $value), 'name_said' => $value]);
                self::assertDoesNotMatchRegularExpression('/[{}]/', (string) $said, "$key: $sentence");
            }
        }
    }

    /**
     * Plans, options, a rack at the table and a drill that is played, so that their pages have something on them.
     *
     * @return list<string>
     */
    private function more(): array
    {
        $services = static::getContainer();
        $account = $services->get(AccountRepository::class)->byEmail(Account::DEMO_EMAIL);
        self::assertNotNull($account);
        $drill = $services->get(DrillShelf::class)->drill($account, 'two-homes');
        $paths = ['/practice/'.$services->get(PracticeEditor::class)->begin($account, Uuid::v7(), $drill, 0, true)->getId()];
        $jobs = [];
        foreach ($services->get(RackSheetRepository::class)->ofOwner($account, 20) as $sheet) {
            $path = '/sheets/'.$sheet->getId();
            // Of every game.
            array_push($paths, "$path/layout", "$path/run-out");
            if (str_contains($sheet->getName(), 'Back room')) {
                $jobs[] = $services->get(Planner::class)->ask($sheet, new PlanRequest(), false);
                $rack = $services->get(LogEditor::class)->begin($account, Uuid::v7(), $sheet->getRack(), RackKind::Practice, $sheet);
                array_push($paths, "$path/run-out", "$path/plan", "/racks/{$rack->getId()}/shoot");
                foreach (['spread', 'tips', 'speeds', 'zone', 'read', 'indirect', 'land'] as $look) {
                    $paths[] = "$path/plan/look?look=$look&ball=8&pocket=FL&clock=12:00&tips=0.5&lengths=2&elevation=1";
                }
            }
            if (str_contains($sheet->getName(), 'Go for it')) {
                $jobs[] = $services->get(Planner::class)->weigh($sheet, null, false);
                array_push($paths, "$path/options", "$path/options?option=1", "$path/tries");
            }
        }
        foreach ($jobs as $job) {
            $this->workOn($job, $account);
        }

        return $paths;
    }

    /** @return list<string> */
    private function typed(): array
    {
        $connection = static::getContainer()->get(Connection::class);
        $typed = ['/join'];
        foreach ([
            'account' => ['name', 'email'], 'rack_sheet' => ['name'], 'teaching_group' => ['name', 'code'], 'lesson' => ['name'], 'own_table' => ['name'],
            'outing' => ['place'], 'comment' => ['text'], 'assignment' => ['name', 'note'],
        ] as $table => $columns) {
            foreach ($columns as $column) {
                $texts = $connection->fetchFirstColumn("SELECT DISTINCT $column FROM $table WHERE CHAR_LENGTH($column) > 2");
                array_push($typed, ...array_filter($texts, is_string(...)));
            }
        }
        usort($typed, static fn (string $a, string $b): int => \strlen($b) <=> \strlen($a));

        return $typed;
    }

    /** @return list<string> phrases that pages asked for by name, of which the German file has none */
    private function lackedByGerman(): array
    {
        $german = static::getContainer()->get('translator')->getCatalogue('de');

        return array_values(array_filter(
            array_map(strval(...), array_keys(BracketTranslator::$asked[PageWords::DOMAIN] ?? [])),
            static fn (string $phrase): bool => 1 === preg_match('/\p{L}{3}/u', $phrase) && !$german->defines($phrase, PageWords::DOMAIN),
        ));
    }

    /** @param array<int|string, string> $words of a command that must succeed */
    private static function console(array $words): void
    {
        self::assertNotNull(self::$kernel);
        $application = new Application(self::$kernel);
        $application->setAutoExit(false);
        $tester = new ApplicationTester($application);
        self::assertSame(0, $tester->run($words), $tester->getDisplay());
    }

    /**
     * @param list<string>       $queue pages to begin with; those they lead to follow
     * @param array<string, int> $seen  how many of a route were looked at
     *
     * @return array<string, string> what is in no language file, with the page where it stands
     */
    private function walk(array $queue, array &$seen): array
    {
        $left = [];
        $known = array_fill_keys($queue, true);
        while ([] !== $queue) {
            $path = array_shift($queue);
            $page = $this->client->request('GET', $path);
            $status = $this->client->getResponse()->getStatusCode();
            self::assertLessThan(400, $status, $path);
            if (!str_contains((string) $this->client->getResponse()->headers->get('content-type'), 'html') || $status >= 300) {
                continue;
            }
            foreach ($this->leftOn($page) as $text) {
                $left[$text] ??= $path;
            }
            foreach ($page->filterXPath('//*/@href | //*/@hx-get') as $at) {
                $link = explode('#', $at->nodeValue ?? '')[0];
                $route = $this->route($link);
                if (null !== $route && !isset($known[$link]) && ($seen[$route] ?? 0) < self::EACH) {
                    $known[$link] = true;
                    $seen[$route] = ($seen[$route] ?? 0) + 1;
                    $queue[] = $link;
                }
            }
        }

        return $left;
    }

    private function route(string $link): ?string
    {
        if (!str_starts_with($link, '/') || str_starts_with($link, '/assets')) {
            return null;
        }
        try {
            $route = static::getContainer()->get(RouterInterface::class)->match(explode('?', $link)[0])['_route'];
        } catch (ExceptionInterface) {
            return null;
        }

        return \is_string($route) ? $route.(str_contains($link, '?') ? '?' : '') : null;
    }

    /** @return list<string> */
    private function leftOn(Crawler $page): array
    {
        $left = [];
        foreach ($page->filterXPath(self::READ) as $node) {
            $text = $node->nodeValue ?? '';
            do {
                $text = (string) preg_replace('/⟦[^⟦⟧]*⟧/u', '', $text, -1, $count);
            } while ($count > 0);
            $text = (string) preg_replace(self::SAME, '', str_replace($this->typed, '', $text));
            if (1 === preg_match('/\p{L}{3}/u', $text)) {
                $left[] = trim((string) preg_replace('/\s+/', ' ', $text));
            }
        }

        return $left;
    }
}
