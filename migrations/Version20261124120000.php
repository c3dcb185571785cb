<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** A sheet keeps the legs after the first. */
final class Version20261124120000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Legs after the first on a rack sheet';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE rack_sheet ADD later JSON NOT NULL DEFAULT '[]'");
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE rack_sheet DROP later');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
