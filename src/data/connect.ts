import { steadyDriver } from './steady-client';
import { Sequelize } from 'sequelize';

export interface ConnectOptions {
  /** Most connections at a time. */
  connections?: number;
}

/** Opens a pool of connections to the PostgreSQL database at an address. */
export function connect(databaseUrl: string, { connections = 8 }: ConnectOptions = {}): Sequelize {
  return new Sequelize(databaseUrl, {
    dialect: 'postgres',
    dialectModule: steadyDriver,
    logging: false,
    pool: { max: connections, min: 0, idle: 10_000, acquire: 15_000 },
    retry: { max: 0 },
  });
}
