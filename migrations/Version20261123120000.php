<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261123120000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Accounts, rack sheets with the history of their layouts, and the queue of long work.';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(<<<'SQL'
            CREATE TABLE account (
                id BINARY(16) NOT NULL,
                email VARCHAR(180) NOT NULL,
                name VARCHAR(80) NOT NULL,
                password VARCHAR(255) NOT NULL,
                created_at DATETIME NOT NULL,
                UNIQUE INDEX UNIQ_7D3656A4E7927C74 (email),
                PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE rack_sheet (
                id BINARY(16) NOT NULL,
                owner_id BINARY(16) NOT NULL,
                name VARCHAR(80) NOT NULL,
                rack LONGTEXT NOT NULL,
                shot LONGTEXT DEFAULT NULL,
                step INT NOT NULL,
                version INT DEFAULT 1 NOT NULL,
                submission BINARY(16) NOT NULL,
                created_at DATETIME NOT NULL,
                updated_at DATETIME NOT NULL,
                deleted_at DATETIME DEFAULT NULL,
                UNIQUE INDEX rack_sheet_submission (submission),
                INDEX rack_sheet_of_owner (owner_id, deleted_at, updated_at),
                PRIMARY KEY (id),
                CONSTRAINT rack_sheet_owner FOREIGN KEY (owner_id) REFERENCES account (id) ON DELETE CASCADE
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE layout_step (
                id BIGINT AUTO_INCREMENT NOT NULL,
                sheet_id BINARY(16) NOT NULL,
                number INT NOT NULL,
                rack LONGTEXT NOT NULL,
                UNIQUE INDEX layout_step_of_sheet (sheet_id, number),
                PRIMARY KEY (id),
                CONSTRAINT layout_step_sheet FOREIGN KEY (sheet_id) REFERENCES rack_sheet (id) ON DELETE CASCADE
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
        $this->addSql(<<<'SQL'
            CREATE TABLE work_queue (
                id BIGINT AUTO_INCREMENT NOT NULL,
                queue VARCHAR(60) NOT NULL,
                body LONGTEXT NOT NULL,
                headers LONGTEXT NOT NULL,
                due_at DATETIME(6) NOT NULL,
                taken_at DATETIME(6) DEFAULT NULL,
                INDEX work_queue_due (queue, due_at),
                PRIMARY KEY (id)
            ) DEFAULT CHARACTER SET utf8mb4 ENGINE = InnoDB
            SQL);
    }

    public function down(Schema $schema): void
    {
        $this->addSql('DROP TABLE work_queue');
        $this->addSql('DROP TABLE layout_step');
        $this->addSql('DROP TABLE rack_sheet');
        $this->addSql('DROP TABLE account');
    }

    public function isTransactional(): bool
    {
        return false;
    }
}
