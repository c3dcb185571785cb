<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129190000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Tables of players, their tests, and the table that a sheet was planned on';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE own_table (id BINARY(16) NOT NULL, owner_id BINARY(16) NOT NULL, name VARCHAR(80) NOT NULL, file LONGTEXT NOT NULL,'
            .' base LONGTEXT NOT NULL, tests JSON NOT NULL, tested_at DATETIME DEFAULT NULL, fit JSON DEFAULT NULL, asked_at DATETIME DEFAULT NULL,'
            .' progress DOUBLE PRECISION NOT NULL, version INT DEFAULT 1 NOT NULL, created_at DATETIME NOT NULL,'
            .' INDEX own_table_of_owner (owner_id, name), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4',
        );
        $this->addSql('ALTER TABLE own_table ADD CONSTRAINT FK_own_table_owner FOREIGN KEY (owner_id) REFERENCES account (id) ON DELETE CASCADE');
        $this->addSql('ALTER TABLE rack_sheet ADD own_table_id BINARY(16) DEFAULT NULL');
        $this->addSql(
            'ALTER TABLE rack_sheet ADD CONSTRAINT FK_sheet_own_table FOREIGN KEY (own_table_id) REFERENCES own_table (id) ON DELETE SET NULL',
        );
        $this->addSql('CREATE INDEX IDX_313DCBAE1D123F37 ON rack_sheet (own_table_id)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE rack_sheet DROP FOREIGN KEY FK_sheet_own_table');
        $this->addSql('DROP INDEX IDX_313DCBAE1D123F37 ON rack_sheet');
        $this->addSql('ALTER TABLE rack_sheet DROP own_table_id');
        $this->addSql('DROP TABLE own_table');
    }
}
