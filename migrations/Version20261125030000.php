<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** What a player prefers: the unit of the tip's offset, and the weights of the last plan. */
final class Version20261125030000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return "A player's preferences";
    }

    public function up(Schema $schema): void
    {
        $this->addSql("ALTER TABLE account ADD tip_unit VARCHAR(10) NOT NULL DEFAULT 'tips', ADD weights JSON NOT NULL DEFAULT '[]'");
        $this->addSql('ALTER TABLE account ALTER tip_unit DROP DEFAULT, ALTER weights DROP DEFAULT');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE account DROP tip_unit, DROP weights');
    }
}
