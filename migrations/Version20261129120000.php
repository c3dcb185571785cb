<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129120000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'The options of a position are worked on as plans are';
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE plan_job ADD kind VARCHAR(7) DEFAULT 'plan' NOT NULL, ADD opponent JSON DEFAULT NULL");
    }

    public function down(Schema $schema): void
    {
        $this->addSql("DELETE FROM plan_job WHERE kind <> 'plan'");
        $this->addSql('ALTER TABLE plan_job DROP kind, DROP opponent');
    }
}
