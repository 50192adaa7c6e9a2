// Jobs in PostgreSQL by pg-boss: each is done once, by whichever server takes it, and again where that one was stopped.
import PgBoss from 'pg-boss';
import { availableParallelism } from 'node:os';
import { tellOfWork, whenTold } from '../db/changes';
import { sql } from '../db/client';
import { log } from '../log';
import { countJob } from '../metrics';
import { settings } from '../settings';

/** Every queue with the shape of its jobs. */
export interface Jobs {
	/** A file that has arrived whole: look at it and make a document or edition of it. */
	'take-in': { intake: string };
	/** An edition to be checked. */
	check: { edition: string };
	/** Compare watched web sources with what was fetched. */
	watch: Record<string, never>;
	/** Mail reports and first openings that are due. */
	tell: Record<string, never>;
	/** Publish drafts whose time has come. */
	publish: Record<string, never>;
	/** Clear what stopped servers left, begin again what they had begun. */
	sweep: Record<string, never>;
}
export type Queue = keyof Jobs;

let boss: PgBoss | undefined;
let ready = false;
const workers = new Map<Queue, string[]>();

/** The queue; asking it before startJobs is a fault of ours. */
function started(): PgBoss {
	if (!boss) throw new Error('jobs are not started');
	return boss;
}

/** Seconds after which a job counts as lost: well over what its bounded child processes can take together. */
const lostAfter = 600;

/** Opens the queue with connections of its own. Throws where the database cannot be reached. */
export async function startJobs(): Promise<void> {
	boss = new PgBoss({
		connectionString: settings().IANUA_DATABASE_URL,
		application_name: 'ianua jobs',
		max: 4,
		archiveFailedAfterSeconds: 7 * 24 * 3600,
		deleteAfterDays: 7,
		cronMonitorIntervalSeconds: 20,
		cronWorkerIntervalSeconds: 15
	});
	boss.on('error', (err) => log().warn({ err }, 'jobs'));
	await boss.start();
	for (const queue of ['take-in', 'check', 'watch', 'publish', 'tell', 'sweep'] satisfies Queue[]) {
		// short: for one key at most one job waits; who does it holds a lock on what it works at
		await boss.createQueue(queue, { name: queue, policy: 'short', retryLimit: 3, retryDelay: 5, retryBackoff: true, expireInSeconds: lostAfter });
	}
	ready = true;
}

/** S between two looks into a queue: of what is queued by us servers are told, what the clock queues waits for the look. */
const [lookIfTold, lookByClock] = [30, 20];
const byClock: ReadonlySet<Queue> = new Set(['watch', 'publish', 'tell', 'sweep']);

/** Has `many` workers take jobs of a queue, as many as there are cores unless said otherwise. */
export async function workOn<Q extends Queue>(queue: Q, handle: (data: Jobs[Q]) => Promise<unknown>, many = availableParallelism()): Promise<void> {
	const ids: string[] = [];
	workers.set(queue, ids);
	whenTold(queue, () => ids.forEach((id) => boss?.notifyWorker(id)));
	for (let i = 0; i < many; i++) {
		const id: string = await started().work<Jobs[Q]>(
			queue,
			{ pollingIntervalSeconds: byClock.has(queue) ? lookByClock : lookIfTold, batchSize: 1 },
			async (jobs) => {
				const began = performance.now();
				const seconds = () => (performance.now() - began) / 1000;
				try {
					for (const job of jobs) await handle(job.data);
					countJob(queue, true, seconds());
					// the clock's come every minute
					log()[byClock.has(queue) ? 'debug' : 'info']({ queue, job: jobs[0]?.id, data: jobs[0]?.data, ms: Math.round(seconds() * 1000) }, 'job');
				} catch (err) {
					countJob(queue, false, seconds());
					log().error({ err, queue, job: jobs[0]?.id, data: jobs[0]?.data }, 'job failed; it is tried again');
					throw err;
				} finally {
					// the next one at once, without waiting for the clock
					boss?.notifyWorker(id);
				}
			}
		);
		ids.push(id);
	}
}

/** Queues a job; with a key, at most one such waits. Whoever takes such jobs hears of it at once. */
export async function queueJob<Q extends Queue>(queue: Q, data: Jobs[Q], key?: string): Promise<void> {
	await started().send(queue, data, key ? { singletonKey: key } : {});
	await tellOfWork(sql(), queue);
}

/** Runs a queue's job by the clock (cron, UTC), once however many servers there are. */
export async function everySo(queue: Queue, cron: string): Promise<void> {
	await started().schedule(queue, cron, {}, { tz: 'UTC' });
}

/** For /readyz: whether jobs can be queued. */
export async function jobsAnswer(): Promise<boolean> {
	if (!boss || !ready) return false;
	return boss.getQueueSize('check').then(
		() => true,
		() => false
	);
}

/** Lets running jobs end, for at most `ms`. */
export async function stopJobs(ms = 4000): Promise<void> {
	ready = false;
	await boss?.stop({ graceful: true, timeout: ms, wait: true, close: true }).catch(() => {});
	boss = undefined;
}
