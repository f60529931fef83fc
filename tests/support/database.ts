import { randomUUID } from 'node:crypto';
import { migrate, openDatabase, type Database } from '../../src/data';

/** The address of the test cluster's server, without a database. */
function clusterUrl(): URL {
  const url = process.env.TEST_DATABASE_URL;
  if (!url) throw new Error('TEST_DATABASE_URL must name the test cluster: run npm test');
  return new URL(url);
}

/** A database of its own, migrated; dropped by `drop`. */
export async function freshDatabase(): Promise<{
  url: string;
  db: Database;
  drop: () => Promise<void>;
}> {
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const admin = openDatabase(clusterUrl().href);
  await admin.sequelize.query(`create database ${name}`);
  const url = clusterUrl();
  url.pathname = `/${name}`;
  const db = openDatabase(url.href);
  await migrate(db.sequelize);
  return {
    url: url.href,
    db,
    drop: async () => {
      await db.sequelize.close();
      await admin.sequelize.query(`drop database ${name} with (force)`);
      await admin.sequelize.close();
    },
  };
}
