// Uploads that can be broken off and gone on with: the tus protocol 1.0, by @tus/server. What has arrived whole is taken in by a job.
import { Server, type Lock, type Locker } from '@tus/server';
import { sizeWords } from '#core/documents/size';
import { IanuaError } from '#core/errors';
import { uploads } from '../store/uploads';
import { newId } from '../id';
import { queueJob } from '../jobs/boss';
import { log } from '../log';
import type { Person } from '../people/who';
import { problemDetails } from '../http/problem';
import { settings } from '../settings';
import { noRoom } from './bring-in';
import { arrived, beginIntake, holdIntake, holdOn, intakeOf, releaseIntake } from './tray';

export const tusPath = '/api/v1/intake';

/** Ms for which a request holds an upload without saying that it goes on. */
const heldFor = 15_000;
/** Ms between two times of saying so, and of asking whether another wants it. */
const saysSo = 1_000;

/**
 * One request at a time writes to an upload, whichever server takes it: its row names the writer. No connection of the database is held
 * meanwhile, however slowly the bytes come. The later request is the one that counts: the earlier may be all that is left of a
 * connection that broke unnoticed, and steps down with what it has (tus 1.0, "Core protocol": a client goes on from what HEAD tells).
 * A writer whose server is gone is forgotten after 15 s.
 */
class RowLocker implements Locker {
	newLock(id: string): Lock {
		const writer = newId();
		let clock: ReturnType<typeof setInterval> | undefined;
		return {
			lock: async (signal: AbortSignal, stepDown: () => void | Promise<void>) => {
				const until = Date.now() + heldFor + 5_000;
				while (!(await holdIntake(id, writer, heldFor))) {
					if (signal.aborted || Date.now() > until)
						// eslint-disable-next-line @typescript-eslint/only-throw-error -- what the library takes for an answer
						throw { status_code: 423, body: 'This upload is being written to by another request. Try again in a moment.' };
					await new Promise((go) => setTimeout(go, 250));
				}
				clock = setInterval(() => {
					holdOn(id, writer, heldFor).then(
						(leads) => (leads ? undefined : stepDown()),
						() => {}
					);
				}, saysSo);
			},
			unlock: async () => {
				clearInterval(clock);
				await releaseIntake(id, writer);
			}
		};
	}
}

/** Who is behind each request in hand: @tus/server hands on the request alone. */
const people = new WeakMap<Request, Person>();

/** What @tus/server answers with for an error of the catalogue. */
const refusal = (error: IanuaError) => ({ status_code: error.status, body: JSON.stringify(problemDetails(error)) });

let server: Server | undefined;

function make(): Server {
	const limit = settings().IANUA_MAX_UPLOAD;
	const isOwn = async (request: Request, id: string) => {
		const person = people.get(request);
		const known = await intakeOf(id);
		// eslint-disable-next-line @typescript-eslint/only-throw-error -- what the library takes for an answer
		if (!person || !known || known.personId !== person.id) throw refusal(new IanuaError('not-found'));
		return known;
	};
	return new Server({
		path: tusPath,
		relativeLocation: true,
		datastore: uploads().datastore(),
		locker: new RowLocker(),
		maxSize: limit,
		allowedOrigins: [],
		// the browser gives the id, so that it finds its upload again when the answer to its first request is lost
		namingFunction: (_request, metadata) => (metadata?.id && /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(metadata.id) ? metadata.id : newId()),
		disableTerminationForFinishedUploads: true,
		onIncomingRequest: async (request, id) => {
			// the request that creates an upload names one that is not there yet
			if (request.method !== 'POST') await isOwn(request, id);
		},
		onUploadCreate: async (request, upload) => {
			// the guard before has put the person there
			const person = people.get(request)!;
			const { filename = '', folder, edition } = upload.metadata ?? {};
			try {
				if (upload.size === undefined) throw new IanuaError('not-valid', { detail: 'an upload says how long it is' });
				await beginIntake({
					id: upload.id,
					personId: person.id,
					fileName: filename ?? '',
					bytes: upload.size,
					folder: folder ?? undefined,
					editionOf: edition ?? undefined
				});
			} catch (error) {
				throw error instanceof IanuaError ? refusal(error) : error;
			}
			return {};
		},
		onUploadFinish: async (_request, upload) => {
			await uploads().sync(upload.id);
			await arrived(upload.id);
			await queueJob('take-in', { intake: upload.id }, upload.id);
			return {};
		},
		onResponseError: (_request, error) => {
			if ('status_code' in error && error.status_code === 413) return refusal(new IanuaError('file-too-large', { name: 'The file', limit: sizeWords(limit) }));
			const known = noRoom(error);
			if (known instanceof IanuaError) return refusal(known);
			if (!('status_code' in error) || error.status_code >= 500) log().warn({ err: error }, 'upload');
			return undefined;
		}
	});
}

/** Answers a request of the tus protocol for a member of staff. */
export async function answerTus(request: Request, person: Person): Promise<Response> {
	server ??= make();
	people.set(request, person);
	return server.handleWeb(request);
}
