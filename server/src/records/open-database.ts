import type { DataSource } from 'typeorm';
import { In } from 'typeorm';
import { Database } from '../database/database.js';
import type { DatabasePorts, NameDirectory } from '../database/ports.js';
import { writeAudit } from './audit/write.js';
import { User } from './identity/entities.js';

const directory: NameDirectory = {
  async namesOf(manager, clinicId, userIds) {
    const users = await manager.find(User, { where: { clinicId, id: In([...userIds]) }, select: { id: true, name: true } });
    return new Map(users.map((user) => [user.id, user.name]));
  },
};

/** What units of work need of records. */
export const PORTS: DatabasePorts = { names: directory, audit: { write: writeAudit } };

/** The database with what its units of work need of records: who somebody is, and where changes are audited. */
export const openDatabase = (dataSource: DataSource, clock?: () => Date): Database => new Database(dataSource, PORTS, clock);
