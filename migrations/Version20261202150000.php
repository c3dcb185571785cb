<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261202150000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Files are taken in by a worker: the imports, and their bytes until they have ended.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE import_job (id BINARY(16) NOT NULL, under_way BINARY(16) DEFAULT NULL, answer JSON DEFAULT NULL,'
            .' is_log TINYINT(1) NOT NULL, progress DOUBLE PRECISION NOT NULL, ended_at DATETIME DEFAULT NULL, created_at DATETIME NOT NULL,'
            .' owner_id BINARY(16) NOT NULL, UNIQUE INDEX import_job_under_way (under_way), INDEX import_job_of_owner (owner_id, id),'
            .' PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4');
        $this->addSql('ALTER TABLE import_job ADD CONSTRAINT FK_IMPORT_OWNER FOREIGN KEY (owner_id) REFERENCES account (id) ON DELETE CASCADE');
        $this->addSql('CREATE TABLE import_part (import_id BINARY(16) NOT NULL, number INT NOT NULL, bytes MEDIUMBLOB NOT NULL,'
            .' PRIMARY KEY (import_id, number), CONSTRAINT import_part_of FOREIGN KEY (import_id) REFERENCES import_job (id) ON DELETE CASCADE)');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE import_part');
        $this->addSql('DROP TABLE import_job');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
