<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129210000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'The table on which a player plays his drills, and pars of it';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE account ADD usual_table_id BINARY(16) DEFAULT NULL');
        $this->addSql('CREATE INDEX IDX_7D3656A47A1796D5 ON account (usual_table_id)');
        $this->addSql(
            'ALTER TABLE account ADD CONSTRAINT FK_account_usual_table FOREIGN KEY (usual_table_id) REFERENCES own_table (id) ON DELETE SET NULL',
        );
        $this->addSql('ALTER TABLE drill_par ADD equipment LONGTEXT DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE drill_par DROP equipment');
        $this->addSql('ALTER TABLE account DROP FOREIGN KEY FK_account_usual_table');
        $this->addSql('DROP INDEX IDX_7D3656A47A1796D5 ON account');
        $this->addSql('ALTER TABLE account DROP usual_table_id');
    }
}
