<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129180000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Speeds may be told in words';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE account CHANGE speed_unit speed_unit VARCHAR(5) DEFAULT 'm/s' NOT NULL");
    }

    public function down(Schema $schema): void
    {
        $this->addSql("UPDATE account SET speed_unit = 'm/s' WHERE speed_unit = 'words'");
        $this->addSql("ALTER TABLE account CHANGE speed_unit speed_unit VARCHAR(3) DEFAULT 'm/s' NOT NULL");
    }
}
