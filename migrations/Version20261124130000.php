<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

/** Plans that are worked on, their blocks of replays, and whose work a message is. */
final class Version20261124130000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Plan jobs and their blocks; the party of a queued message';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE plan_job (
                id BINARY(16) NOT NULL,
                sheet_id BINARY(16) NOT NULL,
                rack JSON NOT NULL,
                wishes JSON NOT NULL,
                weights JSON NOT NULL,
                legs JSON NOT NULL,
                seed INT NOT NULL,
                seconds INT NOT NULL,
                state VARCHAR(10) NOT NULL,
                candidates SMALLINT DEFAULT NULL,
                due_blocks SMALLINT NOT NULL,
                done_blocks SMALLINT NOT NULL,
                drawn INT NOT NULL,
                plan LONGTEXT DEFAULT NULL,
                message VARCHAR(255) DEFAULT NULL,
                created_at DATETIME NOT NULL,
                started_at DATETIME(6) DEFAULT NULL,
                ended_at DATETIME(6) DEFAULT NULL,
                INDEX IDX_9B4DDE8B8B1206A5 (sheet_id),
                PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
        $this->addSql(
            'ALTER TABLE plan_job ADD CONSTRAINT FK_9B4DDE8B8B1206A5 FOREIGN KEY (sheet_id) REFERENCES rack_sheet (id) ON DELETE CASCADE',
        );
        $this->addSql(<<<'SQL'
            CREATE TABLE plan_block (
                job_id BINARY(16) NOT NULL,
                candidate SMALLINT NOT NULL,
                block SMALLINT NOT NULL,
                taken_until DATETIME(6) NOT NULL,
                replays JSON DEFAULT NULL,
                INDEX IDX_3E1D6F1BBE04EA9 (job_id),
                PRIMARY KEY (job_id, candidate, block)
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
        $this->addSql(
            'ALTER TABLE plan_block ADD CONSTRAINT FK_3E1D6F1BBE04EA9 FOREIGN KEY (job_id) REFERENCES plan_job (id) ON DELETE CASCADE',
        );
        $this->addSql('ALTER TABLE work_queue ADD party VARCHAR(60) DEFAULT NULL');
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE work_queue DROP party');
        $this->addSql('DROP TABLE plan_block');
        $this->addSql('DROP TABLE plan_job');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
