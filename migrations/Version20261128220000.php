<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** What a person decides for the planner is called constraints everywhere. */
final class Version20261128220000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Constraints of a plan';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE plan_job CHANGE wishes constraints JSON NOT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE plan_job CHANGE constraints wishes JSON NOT NULL');
    }
}
