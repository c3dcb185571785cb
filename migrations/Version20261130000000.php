<?php

declare(strict_types=1);

namespace ZigLane\Migrations;

use Doctrine\DBAL\Schema\Schema;
use Doctrine\Migrations\AbstractMigration;

final class Version20261130000000 extends AbstractMigration
{
    public function getDescription(): string
    {
        return 'Coach and pupil: shares, groups, lessons, assignments, comments; letters, devices and choices of an account';
    }

    public function up(Schema $schema): void
    {
        $this->addSql(
            'CREATE TABLE membership (id BINARY(16) NOT NULL, sees JSON NOT NULL, left_at DATETIME DEFAULT NULL, joined_at DATETIME '
            .'NOT NULL, group_id BINARY(16) NOT NULL, pupil_id BINARY(16) NOT NULL, INDEX IDX_86FFD285FE54D947 (group_id), INDEX '
            .'IDX_86FFD285D2FD11 (pupil_id), UNIQUE INDEX membership_of_pupil (group_id, pupil_id), PRIMARY KEY (id)) DEFAULT '
            .'CHARACTER SET utf8mb4',
        );
        $this->addSql(
            'CREATE TABLE share (id BINARY(16) NOT NULL, token VARCHAR(32) DEFAULT NULL, withdrawn_at DATETIME DEFAULT NULL, kind '
            .'VARCHAR(10) NOT NULL, subject VARCHAR(64) NOT NULL, level VARCHAR(10) NOT NULL, created_at DATETIME NOT NULL, ends_on '
            .'DATE DEFAULT NULL, owner_id BINARY(16) NOT NULL, grantee_id BINARY(16) DEFAULT NULL, UNIQUE INDEX '
            .'UNIQ_EF069D5A5F37A13B (token), INDEX IDX_EF069D5A7E3C61F9 (owner_id), INDEX IDX_EF069D5A9DB5A748 (grantee_id), INDEX '
            .'share_of_subject (owner_id, kind, subject), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4',
        );
        $this->addSql(
            'CREATE TABLE assignment (id BINARY(16) NOT NULL, name VARCHAR(120) NOT NULL, file MEDIUMTEXT NOT NULL, done_at '
            .'DATETIME DEFAULT NULL, withdrawn_at DATETIME DEFAULT NULL, due_on DATE DEFAULT NULL, note VARCHAR(500) NOT NULL, '
            .'set_at DATETIME NOT NULL, membership_id BINARY(16) NOT NULL, INDEX IDX_30C544BA1FB354CD (membership_id), PRIMARY KEY '
            .'(id)) DEFAULT CHARACTER SET utf8mb4',
        );
        $this->addSql(
            'CREATE TABLE answer (id BINARY(16) NOT NULL, score JSON DEFAULT NULL, scored_at DATETIME DEFAULT NULL, item SMALLINT '
            .'NOT NULL, said JSON NOT NULL, given_at DATETIME NOT NULL, assignment_id BINARY(16) NOT NULL, INDEX '
            .'IDX_DADD4A25D19302F8 (assignment_id), UNIQUE INDEX answer_of_item (assignment_id, item), PRIMARY KEY (id)) DEFAULT '
            .'CHARACTER SET utf8mb4',
        );
        $this->addSql(
            'CREATE TABLE followed (leg SMALLINT NOT NULL, at DATETIME NOT NULL, sheet_id BINARY(16) NOT NULL, PRIMARY KEY '
            .'(sheet_id)) DEFAULT CHARACTER SET utf8mb4',
        );
        $this->addSql(
            'CREATE TABLE invitation (id BINARY(16) NOT NULL, token VARCHAR(32) NOT NULL, ends_at DATETIME NOT NULL, '
            .'sent_at DATETIME DEFAULT NULL, used_at '
            .'DATETIME DEFAULT NULL, email VARCHAR(180) NOT NULL, group_id BINARY(16) NOT NULL, UNIQUE INDEX UNIQ_F11D61A25F37A13B '
            .'(token), INDEX IDX_F11D61A2FE54D947 (group_id), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4',
        );
        $this->addSql(
            'CREATE TABLE signed_in (id BINARY(16) NOT NULL, device VARCHAR(60) NOT NULL, since DATETIME NOT NULL, used_at DATETIME '
            .'NOT NULL, account_id BINARY(16) NOT NULL, INDEX IDX_2F213A9B6B5FBA (account_id), INDEX signed_in_of_account '
            .'(account_id, used_at), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4',
        );
        $this->addSql(
            'CREATE TABLE comment (id BINARY(16) NOT NULL, removed_at DATETIME DEFAULT NULL, thread VARCHAR(10) NOT NULL, subject '
            .'BINARY(16) NOT NULL, place SMALLINT NOT NULL, text LONGTEXT NOT NULL, marks JSON NOT NULL, written_at DATETIME NOT '
            .'NULL, author_id BINARY(16) NOT NULL, INDEX IDX_9474526CF675F31B (author_id), INDEX comment_of_thread (subject, thread, '
            .'id), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4',
        );
        $this->addSql(
            'CREATE TABLE lesson (id BINARY(16) NOT NULL, name VARCHAR(120) NOT NULL, file MEDIUMTEXT NOT NULL, version INT DEFAULT '
            .'1 NOT NULL, updated_at DATETIME NOT NULL, deleted_at DATETIME DEFAULT NULL, owner_id BINARY(16) NOT NULL, INDEX '
            .'IDX_F87474F37E3C61F9 (owner_id), INDEX lesson_of_owner (owner_id, updated_at), PRIMARY KEY (id)) DEFAULT CHARACTER SET '
            .'utf8mb4',
        );
        $this->addSql(
            'CREATE TABLE teaching_group (id BINARY(16) NOT NULL, code VARCHAR(16) NOT NULL, closed_at DATETIME DEFAULT NULL, name '
            .'VARCHAR(80) NOT NULL, created_at DATETIME NOT NULL, coach_id BINARY(16) NOT NULL, UNIQUE INDEX UNIQ_A4DF46E977153098 '
            .'(code), INDEX IDX_A4DF46E93C105691 (coach_id), PRIMARY KEY (id)) DEFAULT CHARACTER SET utf8mb4',
        );
        $this->addSql(
            'CREATE TABLE letter (id BINARY(16) NOT NULL, used_at DATETIME DEFAULT NULL, purpose VARCHAR(10) NOT NULL, hash '
            .'VARCHAR(64) NOT NULL, value VARCHAR(180) NOT NULL, ends_at DATETIME NOT NULL, account_id BINARY(16) NOT NULL, UNIQUE '
            .'INDEX UNIQ_8E02EE0AD1B862B8 (hash), INDEX IDX_8E02EE0A9B6B5FBA (account_id), PRIMARY KEY (id)) DEFAULT CHARACTER SET '
            .'utf8mb4',
        );
        $this->addSql(
            'CREATE TABLE thread_seen (subject BINARY(16) NOT NULL, seen_at DATETIME NOT NULL, reader_id BINARY(16) NOT NULL, INDEX '
            .'IDX_20E316961717D737 (reader_id), PRIMARY KEY (reader_id, subject)) DEFAULT CHARACTER SET utf8mb4',
        );
        $this->addSql(
            'ALTER TABLE membership ADD CONSTRAINT FK_86FFD285FE54D947 FOREIGN KEY (group_id) REFERENCES teaching_group (id) ON '
            .'DELETE CASCADE',
        );
        $this->addSql(
            'ALTER TABLE membership ADD CONSTRAINT FK_86FFD285D2FD11 FOREIGN KEY (pupil_id) REFERENCES account (id) ON DELETE '
            .'CASCADE',
        );
        $this->addSql(
            'ALTER TABLE share ADD CONSTRAINT FK_EF069D5A7E3C61F9 FOREIGN KEY (owner_id) REFERENCES account (id) ON DELETE CASCADE',
        );
        $this->addSql(
            'ALTER TABLE share ADD CONSTRAINT FK_EF069D5A9DB5A748 FOREIGN KEY (grantee_id) REFERENCES account (id) ON DELETE '
            .'CASCADE',
        );
        $this->addSql(
            'ALTER TABLE assignment ADD CONSTRAINT FK_30C544BA1FB354CD FOREIGN KEY (membership_id) REFERENCES membership (id) ON '
            .'DELETE CASCADE',
        );
        $this->addSql(
            'ALTER TABLE answer ADD CONSTRAINT FK_DADD4A25D19302F8 FOREIGN KEY (assignment_id) REFERENCES assignment (id) ON DELETE '
            .'CASCADE',
        );
        $this->addSql(
            'ALTER TABLE followed ADD CONSTRAINT FK_4D02BC178B1206A5 FOREIGN KEY (sheet_id) REFERENCES rack_sheet (id) ON DELETE '
            .'CASCADE',
        );
        $this->addSql(
            'ALTER TABLE invitation ADD CONSTRAINT FK_F11D61A2FE54D947 FOREIGN KEY (group_id) REFERENCES teaching_group (id) ON '
            .'DELETE CASCADE',
        );
        $this->addSql(
            'ALTER TABLE signed_in ADD CONSTRAINT FK_2F213A9B6B5FBA FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE '
            .'CASCADE',
        );
        $this->addSql(
            'ALTER TABLE comment ADD CONSTRAINT FK_9474526CF675F31B FOREIGN KEY (author_id) REFERENCES account (id) ON DELETE '
            .'CASCADE',
        );
        $this->addSql(
            'ALTER TABLE lesson ADD CONSTRAINT FK_F87474F37E3C61F9 FOREIGN KEY (owner_id) REFERENCES account (id) ON DELETE CASCADE',
        );
        $this->addSql(
            'ALTER TABLE teaching_group ADD CONSTRAINT FK_A4DF46E93C105691 FOREIGN KEY (coach_id) REFERENCES account (id) ON DELETE '
            .'CASCADE',
        );
        $this->addSql(
            'ALTER TABLE letter ADD CONSTRAINT FK_8E02EE0A9B6B5FBA FOREIGN KEY (account_id) REFERENCES account (id) ON DELETE '
            .'CASCADE',
        );
        $this->addSql(
            'ALTER TABLE thread_seen ADD CONSTRAINT FK_20E316961717D737 FOREIGN KEY (reader_id) REFERENCES account (id) ON DELETE '
            .'CASCADE',
        );
        $this->addSql(
            'ALTER TABLE account ADD coaches TINYINT DEFAULT 0 NOT NULL, ADD is_left_handed TINYINT DEFAULT 0 NOT NULL, ADD '
            .'time_zone VARCHAR(64) DEFAULT \'UTC\' NOT NULL, ADD house_rules JSON DEFAULT NULL, ADD seen_on DATE DEFAULT NULL, ADD '
            .'deleted_at DATETIME DEFAULT NULL',
        );
    }

    public function down(Schema $schema): void
    {
        $this->addSql('ALTER TABLE membership DROP FOREIGN KEY FK_86FFD285FE54D947');
        $this->addSql('ALTER TABLE membership DROP FOREIGN KEY FK_86FFD285D2FD11');
        $this->addSql('ALTER TABLE share DROP FOREIGN KEY FK_EF069D5A7E3C61F9');
        $this->addSql('ALTER TABLE share DROP FOREIGN KEY FK_EF069D5A9DB5A748');
        $this->addSql('ALTER TABLE assignment DROP FOREIGN KEY FK_30C544BA1FB354CD');
        $this->addSql('ALTER TABLE answer DROP FOREIGN KEY FK_DADD4A25D19302F8');
        $this->addSql('ALTER TABLE followed DROP FOREIGN KEY FK_4D02BC178B1206A5');
        $this->addSql('ALTER TABLE invitation DROP FOREIGN KEY FK_F11D61A2FE54D947');
        $this->addSql('ALTER TABLE signed_in DROP FOREIGN KEY FK_2F213A9B6B5FBA');
        $this->addSql('ALTER TABLE comment DROP FOREIGN KEY FK_9474526CF675F31B');
        $this->addSql('ALTER TABLE lesson DROP FOREIGN KEY FK_F87474F37E3C61F9');
        $this->addSql('ALTER TABLE teaching_group DROP FOREIGN KEY FK_A4DF46E93C105691');
        $this->addSql('ALTER TABLE letter DROP FOREIGN KEY FK_8E02EE0A9B6B5FBA');
        $this->addSql('ALTER TABLE thread_seen DROP FOREIGN KEY FK_20E316961717D737');
        $this->addSql('DROP TABLE membership');
        $this->addSql('DROP TABLE share');
        $this->addSql('DROP TABLE assignment');
        $this->addSql('DROP TABLE answer');
        $this->addSql('DROP TABLE followed');
        $this->addSql('DROP TABLE invitation');
        $this->addSql('DROP TABLE signed_in');
        $this->addSql('DROP TABLE comment');
        $this->addSql('DROP TABLE lesson');
        $this->addSql('DROP TABLE teaching_group');
        $this->addSql('DROP TABLE letter');
        $this->addSql('DROP TABLE thread_seen');
        $this->addSql('ALTER TABLE account DROP coaches');
        $this->addSql('ALTER TABLE account DROP is_left_handed');
        $this->addSql('ALTER TABLE account DROP time_zone');
        $this->addSql('ALTER TABLE account DROP house_rules');
        $this->addSql('ALTER TABLE account DROP seen_on');
        $this->addSql('ALTER TABLE account DROP deleted_at');
    }
}
