import { sql, type SQL } from 'drizzle-orm';
import { customType } from 'drizzle-orm/mysql-core';
import { char, datetime } from 'drizzle-orm/mysql-core';

/** JSON kept as text by MariaDB, whatever the driver hands back. */
export const json = <T>(name: string) =>
  customType<{ data: T; driverData: string }>({
    dataType: () => 'json',
    toDriver: value => JSON.stringify(value),
    fromDriver: value => (typeof value === 'string' ? (JSON.parse(value) as T) : (value as T)),
  })(name);

/** A list of 32-bit floats, packed little-endian. */
export const floats = (name: string) =>
  customType<{ data: Float32Array; driverData: Buffer }>({
    dataType: () => 'blob',
    toDriver: value => Buffer.from(value.buffer, value.byteOffset, value.byteLength),
    fromDriver: value => new Float32Array(new Uint8Array(value).buffer),
  })(name);

/** UUIDv7 as text. */
export const uuid = (name: string) => char(name, { length: 36 });
/** SHA-256 in hexadecimal. */
export const sha = (name: string) => char(name, { length: 64 });
/** UTC with milliseconds. */
export const moment = (name: string) => datetime(name, { fsp: 3, mode: 'date' });
/** A moment so many milliseconds from now by the clock of the database, the only one that every server shares. */
export const inMilliseconds = (ms: number): SQL => sql`timestampadd(microsecond, ${Math.round(ms * 1000)}, utc_timestamp(3))`;
/** Text in which every character counts, capitals and accents too. */
export const exact = (name: string, length: number) =>
  customType<{ data: string }>({ dataType: () => `varchar(${length}) character set utf8mb4 collate utf8mb4_bin` })(name);
