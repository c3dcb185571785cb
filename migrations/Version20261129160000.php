<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261129160000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Drills: own ones, the versions that were played, sessions with their tries, and pars';
    }

    public function up(Schema $schema): void
    {
        $this->addSql('CREATE TABLE drill (id BINARY(16) NOT NULL, owner_id BINARY(16) NOT NULL, name VARCHAR(80) NOT NULL, file MEDIUMTEXT NOT NULL, version INT DEFAULT 1 NOT NULL, created_at DATETIME NOT NULL, INDEX IDX_A1ECB7F07E3C61F9 (owner_id), INDEX drill_of_owner (owner_id, name), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4');
        $this->addSql('CREATE TABLE drill_version (hash CHAR(64) NOT NULL, file MEDIUMTEXT NOT NULL, PRIMARY KEY (hash)) DEFAULT CHARACTER SET utf8mb4');
        $this->addSql('CREATE TABLE drill_session (id BINARY(16) NOT NULL, owner_id BINARY(16) NOT NULL, version CHAR(64) NOT NULL, ended_at DATETIME DEFAULT NULL, score DOUBLE PRECISION DEFAULT NULL, tries SMALLINT NOT NULL, drill_key VARCHAR(80) NOT NULL, level SMALLINT NOT NULL, is_scored TINYINT(1) NOT NULL, players JSON NOT NULL, seed INT NOT NULL, started_at DATETIME NOT NULL, INDEX IDX_92743C12BF1CD3C3 (version), INDEX drill_session_of_owner (owner_id, drill_key, started_at), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4');
        $this->addSql('CREATE TABLE drill_try (id BINARY(16) NOT NULL, session_id BINARY(16) NOT NULL, number SMALLINT NOT NULL, player SMALLINT NOT NULL, is_done TINYINT(1) NOT NULL, made SMALLINT DEFAULT NULL, opened SMALLINT DEFAULT NULL, after JSON DEFAULT NULL, at DATETIME NOT NULL, UNIQUE INDEX drill_try_number (session_id, number), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4');
        $this->addSql('CREATE TABLE drill_par (id BINARY(16) NOT NULL, version CHAR(64) NOT NULL, level SMALLINT NOT NULL, hand CHAR(64) NOT NULL, player JSON NOT NULL, scores JSON NOT NULL, why VARCHAR(10) DEFAULT NULL, stroke JSON DEFAULT NULL, created_at DATETIME NOT NULL, ended_at DATETIME DEFAULT NULL, UNIQUE INDEX drill_par_of (version, level, hand), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4');
        $this->addSql('ALTER TABLE drill ADD CONSTRAINT FK_DRILL_OWNER FOREIGN KEY (owner_id) REFERENCES account (id) ON DELETE CASCADE');
        $this->addSql('ALTER TABLE drill_session ADD CONSTRAINT FK_DRILL_SESSION_OWNER FOREIGN KEY (owner_id) REFERENCES account (id) ON DELETE CASCADE');
        $this->addSql('ALTER TABLE drill_session ADD CONSTRAINT FK_DRILL_SESSION_VERSION FOREIGN KEY (version) REFERENCES drill_version (hash)');
        $this->addSql('ALTER TABLE drill_try ADD CONSTRAINT FK_DRILL_TRY_SESSION FOREIGN KEY (session_id) REFERENCES drill_session (id) ON DELETE CASCADE');
        $this->addSql('ALTER TABLE drill_par ADD CONSTRAINT FK_DRILL_PAR_VERSION FOREIGN KEY (version) REFERENCES drill_version (hash) ON DELETE CASCADE');
    }

    public function down(Schema $schema): void
    {
        foreach (['drill_try', 'drill_session', 'drill_par', 'drill', 'drill_version'] as $table) {
            $this->addSql('DROP TABLE '.$table);
        }
    }
}
