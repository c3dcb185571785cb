<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Symfony\Component\DomCrawler\Crawler;
use Symfony\Component\DomCrawler\Form;
use ZigLane\App\Entity\Lesson;
use ZigLane\App\Entity\OwnDrill;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Tables\TableShelf;
use ZigLane\App\Teaching\LessonDesk;
use ZigLane\Core\Format\LessonFile;
use ZigLane\Core\Format\LessonItem;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Table\Equipment;

/** One thing open in two windows: the older one overwrites nothing unasked, and nothing that was typed is lost. */
final class TwoWindowsTest extends AppTestCase
{
    public function testALessonIsNotChangedAtAPlaceThatHasMoved(): void
    {
        $lesson = static::getContainer()->get(LessonDesk::class)->keep($this->signedIn(), new LessonFile('Lesson', [
            LessonItem::words('one'), LessonItem::words('two'), LessonItem::words('three'),
        ]));
        $page = $this->client->request('GET', "/lessons/{$lesson->getId()}?edit=1");
        $forms = $page->filter('form.item-tools');
        $take = $forms->eq(0)->selectButton('Take it out')->form();
        $words = $forms->eq(1)->selectButton('Keep the words')->form(['text' => 'two, written long']);
        $this->client->submit($take);
        self::assertResponseRedirects();
        // The other window still has the parts as they were.
        $this->client->submit($take);
        self::assertResponseStatusCodeSame(409);
        $this->client->submit($words);
        self::assertResponseStatusCodeSame(409);
        self::assertStringContainsString('two, written long', $this->text());
        self::assertSelectorExists('button:contains("Save mine over it")');
        $this->client->submit($this->client->getCrawler()->selectButton('Save mine over it')->form());
        self::assertResponseRedirects();
        $this->manager()->clear();
        $kept = $this->manager()->find(Lesson::class, $lesson->getId())?->getFile()->items ?? [];
        self::assertSame(['two, written long', 'three'], array_map(static fn (LessonItem $item): string => $item->text, $kept));
    }

    public function testATableIsSavedOverOnlyByWhoSaysSo(): void
    {
        $table = static::getContainer()->get(TableShelf::class)->keep($this->signedIn(), new TableFile('Mine', new Equipment()));
        $form = fn (): Form => $this->client->request('GET', "/tables/{$table->getId()}")->filter('form.table-form')->form();
        [$first, $second] = [$form(), $form()];
        $first['notes'] = 'new cloth';
        $this->client->submit($first);
        self::assertResponseRedirects();
        $second['notes'] = 'old cloth';
        $page = $this->client->submit($second);
        self::assertResponseStatusCodeSame(409);
        $states = $page->filter('.both-states textarea')->each(static fn (Crawler $one): string => $one->text());
        self::assertSame(['old cloth', 'new cloth'], $states);
        $this->manager()->clear();
        self::assertSame('new cloth', $this->manager()->find(OwnTable::class, $table->getId())?->getFile()->notes);
        $this->client->submit($page->selectButton('Save mine over it')->form());
        self::assertResponseRedirects();
        $this->manager()->clear();
        self::assertSame('old cloth', $this->manager()->find(OwnTable::class, $table->getId())?->getFile()->notes);
    }

    public function testADrillIsSavedOverOnlyByWhoSaysSo(): void
    {
        $account = $this->signedIn();
        $shelf = static::getContainer()->get(DrillShelf::class);
        $drill = $shelf->keep($account, $shelf->drill($account, 'dead-stop')->file);
        $form = fn (): Form => $this->client->request('GET', "/drills/{$drill->getId()}/edit")->filter('form.drill-form')->form();
        [$first, $second] = [$form(), $form()];
        $text = $drill->getFile()->write();
        self::assertStringContainsString('"tries": 10', $text);
        $first['file'] = str_replace('"tries": 10', '"tries": 12', $text);
        $this->client->submit($first);
        self::assertResponseRedirects();
        $second['file'] = str_replace('"tries": 10', '"tries": 15', $text);
        $page = $this->client->submit($second);
        self::assertResponseStatusCodeSame(409);
        $tries = fn (): ?int => $this->manager()->find(OwnDrill::class, $drill->getId())?->getFile()->drill->tries;
        $this->manager()->clear();
        self::assertSame(12, $tries());
        $this->client->submit($page->selectButton('Save mine over it')->form());
        $this->manager()->clear();
        self::assertSame(15, $tries());
    }
}
