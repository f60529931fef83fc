import { migrate } from '../data';
import { app } from './app';

/** Brings the application's database to the newest schema. */
export const migrateDatabase = async (): Promise<void> => {
  await migrate(app().db.sequelize);
};
