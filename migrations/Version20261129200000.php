<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129200000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Searches for breaks';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE break_search (id BINARY(16) NOT NULL, owner_id BINARY(16) NOT NULL, game VARCHAR(16) NOT NULL, player JSON NOT NULL,'
            .' equipment LONGTEXT NOT NULL, progress DOUBLE PRECISION NOT NULL, answer JSON DEFAULT NULL, ended_at DATETIME DEFAULT NULL,'
            .' fastest DOUBLE PRECISION NOT NULL, created_at DATETIME NOT NULL, INDEX IDX_380ADAAE7E3C61F9 (owner_id),'
            .' INDEX break_search_of_owner (owner_id, game, id), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4',
        );
        $this->addSql('ALTER TABLE break_search ADD CONSTRAINT FK_break_owner FOREIGN KEY (owner_id) REFERENCES account (id) ON DELETE CASCADE');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE break_search');
    }
}
