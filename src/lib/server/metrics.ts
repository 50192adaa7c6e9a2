// What this process counts for whoever watches it (OpenMetrics 1.0, by prom-client); /metrics tells it. Nothing here names a reader or a document.
import { collectDefaultMetrics, Counter, Gauge, Histogram, Registry, type OpenMetricsContentType } from 'prom-client';

export const registry = new Registry<OpenMetricsContentType>();
registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE);
collectDefaultMetrics({ register: registry });

const registers = [registry];

/** Seconds: from what is remembered to a large file on a slow line. */
const buckets = [0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10, 60];

const requests = new Histogram({
	name: 'ianua_request_seconds',
	help: 'requests by route, method and status: until the answer had left, or its reader',
	labelNames: ['route', 'method', 'status'] as const,
	buckets,
	registers
});

/** Under which route what asks and what answers is counted: told by whoever takes it. */
export const routed = new WeakMap<object, string>();

/** A request was answered, or broken off, after so many seconds. Routes are those of the application: no address stands here. */
export const countRequest = (route: string, method: string, status: number, seconds: number): void =>
	requests.observe({ route, method: /^(?:GET|HEAD|POST|PUT|PATCH|DELETE|OPTIONS)$/.test(method) ? method : 'other', status: String(status) }, seconds);

const decisions = new Counter({
	name: 'ianua_decisions',
	help: 'decisions on documents, by what was to be done and the reason',
	labelNames: ['action', 'reason', 'allowed'] as const,
	registers
});

/** It was decided whether somebody may do something with a document. */
export const countDecision = (action: string, reason: string, allowed: boolean): void => decisions.inc({ action, reason, allowed: allowed ? 'yes' : 'no' });

const ended = new Counter({
	name: 'ianua_programs_ended',
	help: 'programs that read PDFs and were ended by a limit',
	labelNames: ['program'] as const,
	registers
});

/** A program that reads PDFs was ended by one of its limits. */
export const countEnded = (program: string): void => ended.inc({ program });

const refused = new Counter({ name: 'ianua_sign_ins_refused', help: 'tries to sign in that did not', registers });

/** Somebody tried to sign in and did not. */
export const countRefusedSignIn = (): void => refused.inc();

const jobs = new Histogram({
	name: 'ianua_job_seconds',
	help: 'jobs done here, by queue and whether they succeeded',
	labelNames: ['queue', 'done'] as const,
	buckets: [0.1, 0.5, 1, 5, 15, 60, 300],
	registers
});

/** A job of a queue was done, or failed, after so many seconds. */
export const countJob = (queue: string, done: boolean, seconds: number): void => jobs.observe({ queue, done: done ? 'yes' : 'no' }, seconds);

/** A figure that is asked for when /metrics is: it is left out where that fails. */
export function measured(
	name: string,
	help: string,
	labelNames: readonly string[],
	ask: () => Promise<readonly (readonly [labels: Record<string, string>, value: number])[]>
): void {
	const gauge = new Gauge({
		name,
		help,
		labelNames,
		registers,
		collect: async () => {
			gauge.reset();
			for (const [labels, value] of await ask().catch(() => [])) gauge.set(labels, value);
		}
	});
}
