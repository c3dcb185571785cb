<?php

declare(strict_types=1);

namespace ZigLane\Tests\App;

use Doctrine\ORM\EntityManagerInterface;
use Doctrine\ORM\Tools\SchemaValidator;

/** The migrations make just the tables that the entities are mapped to. */
final class SchemaTest extends AppTestCase
{
    public function testTheMigratedDatabaseIsThatOfTheMapping(): void
    {
        $manager = self::getContainer()->get(EntityManagerInterface::class);
        $validator = new SchemaValidator($manager);

        self::assertSame([], $validator->validateMapping());
        // The migrations' own list is no entity's.
        self::assertSame(['DROP TABLE doctrine_migration_versions'], $validator->getUpdateSchemaList());
    }
}
