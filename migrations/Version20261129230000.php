<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129230000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'The table of an outing';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('ALTER TABLE outing ADD table_id BINARY(16) DEFAULT NULL');
        $this->addSql('CREATE INDEX IDX_F2A10625ECFF285C ON outing (table_id)');
        $this->addSql(
            'ALTER TABLE outing ADD CONSTRAINT FK_outing_table FOREIGN KEY (table_id) REFERENCES own_table (id) ON DELETE SET NULL',
        );
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE outing DROP FOREIGN KEY FK_outing_table');
        $this->addSql('DROP INDEX IDX_F2A10625ECFF285C ON outing');
        $this->addSql('ALTER TABLE outing DROP table_id');
    }
}
