import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { Problem } from '../problem.js';

export interface Device {
  readonly id: string;
  readonly name: string;
  readonly letInAt: string;
  readonly seenAt: string;
}

/** Where the shop is shared, and with which certificate; null for plain HTTP. */
export interface Sharing {
  readonly address: string;
  readonly port: number;
  readonly certificate: string | null;
  readonly privateKey: string | null;
}

export interface Knock {
  readonly at: string;
  readonly from: string;
  readonly what: string;
}

interface DeviceRow {
  readonly id: string;
  readonly name: string;
  readonly token_hash: string;
  readonly let_in_at: string;
  readonly seen_at: string;
  readonly sent_away_at: string | null;
}

const TOKEN_BYTES = 32;
/** Seen again within this is not written down anew. */
const SEEN_EVERY_MS = 60_000;
const MOST_KNOCKS = 500;

/** Devices that were let in, where they are, and who knocked in vain. */
export class DeviceStore {
  constructor(private readonly db: Knex) {}

  /** A new device; gives what it is known by from now on, which is told once and not kept. */
  async letIn(name: string): Promise<{ readonly device: Device; readonly token: string }> {
    const [token, now] = [randomBytes(TOKEN_BYTES).toString('base64url'), new Date().toISOString()];
    const row = { id: randomUUID(), name, token_hash: hashOf(token), let_in_at: now, seen_at: now };
    await this.db('devices').insert(row);
    return { device: deviceOf({ ...row, sent_away_at: null }), token };
  }

  /** The device that holds a token; null for one that was sent away, or never let in. */
  async holding(token: string): Promise<Device | null> {
    const row = (await this.db('devices')
      .where({ token_hash: hashOf(token) })
      .whereNull('sent_away_at')
      .first()) as DeviceRow | undefined;
    if (!row) return null;
    if (Date.now() - Date.parse(row.seen_at) > SEEN_EVERY_MS)
      await this.db('devices').where({ id: row.id }).update({ seen_at: new Date().toISOString() });
    return deviceOf(row);
  }

  async list(): Promise<Device[]> {
    return ((await this.db('devices').whereNull('sent_away_at').orderBy('let_in_at', 'desc')) as DeviceRow[]).map(
      deviceOf,
    );
  }

  /** @throws Problem 404 */
  async sendAway(id: string): Promise<void> {
    const sent = await this.db('devices')
      .where({ id })
      .whereNull('sent_away_at')
      .update({ sent_away_at: new Date().toISOString() });
    if (sent === 0) throw new Problem(404, 'device-unknown', 'No such device is let in.');
  }

  async sharing(): Promise<Sharing | null> {
    const row = (await this.db('sharing').first()) as
      { address: string; port: number; certificate: string | null; private_key: string | null } | undefined;
    return row
      ? { address: row.address, port: row.port, certificate: row.certificate, privateKey: row.private_key }
      : null;
  }

  async setSharing(sharing: Sharing | null): Promise<void> {
    await this.db.transaction(async (tx) => {
      await tx('sharing').delete();
      if (sharing)
        await tx('sharing').insert({
          id: 1,
          address: sharing.address,
          port: sharing.port,
          certificate: sharing.certificate,
          private_key: sharing.privateKey,
        });
    });
  }

  async logKnock(from: string, what: string): Promise<void> {
    await this.db('door_log').insert({ at: new Date().toISOString(), from, what });
    await this.db('door_log')
      .where('id', '<=', this.db.raw('(select max(id) from door_log) - ?', [MOST_KNOCKS]))
      .delete();
  }

  async knocks(most: number): Promise<Knock[]> {
    const rows = (await this.db('door_log').orderBy('id', 'desc').limit(most)) as Knock[];
    return rows.map(({ at, from, what }) => ({ at, from, what }));
  }
}

function deviceOf(row: DeviceRow): Device {
  return { id: row.id, name: row.name, letInAt: row.let_in_at, seenAt: row.seen_at };
}

function hashOf(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
