<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use PHPUnit\Framework\Attributes\DataProvider;
use Symfony\Component\Routing\Route;
use Symfony\Component\Uid\Uuid;
use ZigLane\App\Entity\DrillSession;
use ZigLane\App\Entity\OwnDrill;
use ZigLane\App\Entity\OwnTable;
use ZigLane\App\Entity\ShotRack;
use ZigLane\App\Kernel;
use ZigLane\App\Log\LogEditor;
use ZigLane\App\Practice\DrillShelf;
use ZigLane\App\Practice\PracticeEditor;
use ZigLane\App\Tables\TableShelf;
use ZigLane\Core\Format\TableFile;
use ZigLane\Core\Log\RackKind;
use ZigLane\Core\Table\Equipment;

/** Every route as a stranger, as another player, signed out, by the wrong method and with a wrong token: a new route is in it by itself. */
final class RouteTest extends AppTestCase
{
    /** Who is not signed in may come here. */
    private const OPEN = [
        'sign_in', 'register', 'demo_sign_in', 'healthy', 'forgot', 'forgot_ask', 'reset', 'reset_do', 'address_confirm', 'address_do', 'address_back', 'address_back_do', 'undelete',
        'undelete_do', 'look', 'look_board', 'look_follow',
    ];
    /** Forms that answer to a token of their own page, or make one. */
    private const OWN_TOKEN = ['sign_in', 'register', 'sheet_new'];

    /** Pages whose forms have a token that another page does not give. */
    private const TOKENS = '/^(rack|outing|drill|practice|practise|table|break|group|member|lesson|assignment|shared?|thread)_/';

    /** @return iterable<string, array{string}> */
    public static function routes(): iterable
    {
        $kernel = new Kernel('test', false);
        $kernel->boot();
        foreach (array_keys($kernel->getContainer()->get('router')->getRouteCollection()->all()) as $name) {
            yield $name => [$name];
        }
        $kernel->shutdown();
    }

    #[DataProvider('routes')]
    public function testARouteIsOpenToThoseOnlyWhomItIsFor(string $name): void
    {
        $route = $this->route($name);
        $owner = $this->signedIn('Owner');
        $sheet = $this->sheet($owner);
        $rack = static::getContainer()->get(LogEditor::class)->begin($owner, Uuid::v7(), $sheet->getRack(), RackKind::Practice, $sheet);
        $shelf = static::getContainer()->get(DrillShelf::class);
        $drill = $shelf->keep($owner, $shelf->drill($owner, 'dead-stop')->file);
        $session = static::getContainer()->get(PracticeEditor::class)->begin(
            $owner, Uuid::v7(), $shelf->drill($owner, (string) $drill->getId()), 0, true,
        );
        $table = static::getContainer()->get(TableShelf::class)->keep($owner, new TableFile('Mine', new Equipment()));
        $own = match (true) {
            str_starts_with($route->getPath(), '/racks') => $rack,
            str_starts_with($route->getPath(), '/practice') => $session,
            str_starts_with($route->getPath(), '/tables') => $table,
            default => $sheet,
        };
        $path = str_replace(['{id}', '{key}', '{test}'], [(string) $own->getId(), (string) $drill->getId(), 'roll'], $route->getPath());
        foreach ($route->getMethods() ?: ['GET'] as $method) {
            // With a token that is none.
            if ('POST' === $method && !\in_array($name, self::OWN_TOKEN, true)) {
                $values = ['_token' => 'wrong', '_csrf_token' => 'wrong', 'version' => (string) $sheet->getVersion()];
                $this->client->request($method, $path, $values);
                self::assertResponseStatusCodeSame(403, "$name with a wrong token");
            }
            // Another player's.
            if (str_contains($route->getPath(), '{id}') || str_contains($route->getPath(), '{key}')) {
                $other = $this->signedIn('Other');
                $this->client->request($method, $path, ['_token' => $this->token($this->sheet($other))]);
                // A form of a rack at the table or of a drill has a token of its own, which is asked for first.
                self::assertContains(
                    $this->client->getResponse()->getStatusCode(),
                    'POST' === $method && 1 === preg_match(self::TOKENS, $name) ? [403, 404] : [404],
                    "$name of another player",
                );
            }
            // Nobody.
            $this->client->getCookieJar()->clear();
            foreach ([[], ['HTTP_HX_REQUEST' => 'true']] as $headers) {
                $this->client->request($method, $path, server: $headers);
                $status = $this->client->getResponse()->getStatusCode();
                if (\in_array($name, self::OPEN, true)) {
                    self::assertLessThan(500, $status, "$name, signed out");
                } elseif ('sign_out' === $name) {
                    self::assertContains($status, [302, 401, 403], "$name, signed out");
                } else {
                    self::assertContains($status, [] === $headers ? [302] : [401], "$name, signed out");
                }
            }
            $owner = $this->manager()->find($owner::class, $owner->getId());
            self::assertNotNull($owner);
            $this->client->loginUser($owner);
        }
        // A method that it does not have.
        $this->client->request('DELETE', $path);
        self::assertResponseStatusCodeSame(405, "$name by another method");
        // Nothing was changed by any of it.
        $this->manager()->clear();
        self::assertFalse($this->reloaded($sheet)->isDeleted());
        self::assertSame($sheet->getVersion(), $this->reloaded($sheet)->getVersion());
        self::assertFalse($this->manager()->find(ShotRack::class, $rack->getId())?->isDeleted());
        self::assertNotNull($this->manager()->find(OwnDrill::class, $drill->getId()));
        self::assertSame($table->getVersion(), $this->manager()->find(OwnTable::class, $table->getId())?->getVersion());
        self::assertNull($this->manager()->find(DrillSession::class, $session->getId())?->getEndedAt());
    }

    private function route(string $name): Route
    {
        $route = static::getContainer()->get('router')->getRouteCollection()->get($name);
        self::assertNotNull($route);

        return $route;
    }
}
