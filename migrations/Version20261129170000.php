<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129170000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Units of a player, and the drills that follow in a session';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE account ADD length_unit VARCHAR(3) DEFAULT 'cm' NOT NULL, ADD speed_unit VARCHAR(3) DEFAULT 'm/s' NOT NULL");
        $this->addSql('ALTER TABLE drill_session ADD later JSON DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE account DROP length_unit, DROP speed_unit');
        $this->addSql('ALTER TABLE drill_session DROP later');
    }
}
