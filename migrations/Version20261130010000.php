<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261130010000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'The language that a player reads.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE account ADD language VARCHAR(8) DEFAULT '' NOT NULL");
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE account DROP language');
    }
}
