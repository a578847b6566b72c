import type { MigrationInterface, QueryRunner } from 'typeorm';

const kitTable = (name: string) => `CREATE TABLE \`${name}\` (
  \`id\` uuid NOT NULL, \`shop_id\` uuid NOT NULL, \`code\` varchar(80) NOT NULL, \`position\` int NOT NULL, \`details\` longtext NOT NULL,
  UNIQUE INDEX \`uq_${name}_code\` (\`shop_id\`, \`code\`), PRIMARY KEY (\`id\`),
  CONSTRAINT \`fk_${name}_shop\` FOREIGN KEY (\`shop_id\`) REFERENCES \`shop\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION) ENGINE=InnoDB`;

/** The first tables. Migrations only go forward: a mistake is mended by the next one. */
export class FirstTables1790000000000 implements MigrationInterface {
  name = 'FirstTables1790000000000';

  async up(runner: QueryRunner): Promise<void> {
    const time = 'datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)';
    await runner.query(`CREATE TABLE \`shop\` (\`id\` uuid NOT NULL, \`name\` varchar(80) NOT NULL, \`version\` int NOT NULL,
      \`settings\` longtext NOT NULL, \`created_at\` ${time}, PRIMARY KEY (\`id\`)) ENGINE=InnoDB`);
    for (const name of ['saw', 'machine', 'allowance']) await runner.query(kitTable(name));
    await runner.query(`CREATE TABLE \`job\` (\`id\` uuid NOT NULL, \`shop_id\` uuid NOT NULL, \`name\` varchar(120) NOT NULL,
      \`purpose\` varchar(400) NOT NULL, \`version\` int NOT NULL, \`created_at\` ${time}, \`changed_at\` ${time},
      INDEX \`ix_job_shop_changed\` (\`shop_id\`, \`changed_at\`), PRIMARY KEY (\`id\`),
      CONSTRAINT \`fk_job_shop\` FOREIGN KEY (\`shop_id\`) REFERENCES \`shop\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE \`job_revision\` (\`id\` uuid NOT NULL, \`shop_id\` uuid NOT NULL, \`job_id\` uuid NOT NULL,
      \`version\` int NOT NULL, \`aside\` tinyint NOT NULL DEFAULT 0, \`build\` longtext NOT NULL, \`created_at\` ${time},
      INDEX \`ix_revision_job_version\` (\`job_id\`, \`version\`), PRIMARY KEY (\`id\`),
      CONSTRAINT \`fk_job_revision_shop\` FOREIGN KEY (\`shop_id\`) REFERENCES \`shop\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION,
      CONSTRAINT \`fk_job_revision_job\` FOREIGN KEY (\`job_id\`) REFERENCES \`job\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION) ENGINE=InnoDB`);
  }

  async down(): Promise<void> {
    throw new Error('Migrations only go forward.');
  }
}

/** The rack. */
export class Rack1790100000000 implements MigrationInterface {
  name = 'Rack1790100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE \`board\` (\`id\` uuid NOT NULL, \`shop_id\` uuid NOT NULL,
      \`number\` varchar(40) COLLATE "utf8mb4_bin" NOT NULL, \`live\` tinyint NULL, \`species\` varchar(80) NOT NULL,
      \`length_mm\` double NOT NULL, \`width_mm\` double NOT NULL, \`thickness_mm\` double NOT NULL, \`version\` int NOT NULL,
      \`job_id\` uuid NULL, \`details\` longtext NOT NULL, \`history\` longtext NOT NULL,
      \`created_at\` datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      INDEX \`ix_board_job\` (\`job_id\`), UNIQUE INDEX \`uq_board_number\` (\`shop_id\`, \`live\`, \`number\`), PRIMARY KEY (\`id\`),
      CONSTRAINT \`fk_board_shop\` FOREIGN KEY (\`shop_id\`) REFERENCES \`shop\`(\`id\`) ON DELETE CASCADE ON UPDATE NO ACTION,
      CONSTRAINT \`fk_board_job\` FOREIGN KEY (\`job_id\`) REFERENCES \`job\`(\`id\`) ON DELETE SET NULL ON UPDATE NO ACTION) ENGINE=InnoDB`);
  }

  async down(): Promise<void> {
    throw new Error('Migrations only go forward.');
  }
}

/** Clamps and bottles of glue. */
export class Gluing1790200000000 implements MigrationInterface {
  name = 'Gluing1790200000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const name of ['clamp_set', 'adhesive']) await runner.query(kitTable(name));
  }

  async down(): Promise<void> {
    throw new Error('Migrations only go forward.');
  }
}

export const MIGRATIONS = [FirstTables1790000000000, Rack1790100000000, Gluing1790200000000];
