// What a site keeps about itself beside its settings: one value of JSON by its name. Only this folder writes to the table `setting`.
import { sql } from '../db/client';

type Kept = 'backed-up' | 'begin' | 'mail-trouble' | 'site-id' | 'sweep-stopped';
type Value = Record<string, string | number>;

/** Keeps a value, whatever was kept before. */
export async function keep(key: Kept, value: Value): Promise<void> {
	await sql()`insert into setting (key, value) values (${key}, ${sql().json(value)}) on conflict (key) do update set value = excluded.value`;
}

/** Keeps a value where none is kept: of several servers that start at once, the first says what it is. */
export async function keepOnce(key: Kept, value: Value): Promise<void> {
	await sql()`insert into setting (key, value) values (${key}, ${sql().json(value)}) on conflict (key) do nothing`;
}

/** Forgets a kept value. */
export async function drop(key: Kept): Promise<void> {
	await sql()`delete from setting where key = ${key}`;
}
