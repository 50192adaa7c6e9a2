// Connections that stand still: a body that hardly comes, an answer that nobody takes. Each would hold memory and a place for ever.
import type { Server } from 'node:http';
import type { Socket } from 'node:net';
import { log } from '../log';

/** Ms between two looks, and how many of them in a row a connection may stand still. */
const lookMs = 15_000;
const mostStill = 4;
/** Bytes of a body that count as coming on between two looks: a telephone on a poor line sends a hundred times that. */
const leastBytes = 1024;

interface Seen {
	read: number;
	written: number;
	/** Bytes handed to the system that it has not sent yet: less of them is progress too. */
	queued: number;
	still: number;
	/** A body is on its way in. */
	taking: boolean;
}

/** What of a connection lies with the system, as Node's own time-outs look at it. */
const queuedOn = (socket: Socket): number => (socket as { _handle?: { writeQueueSize?: number } | null })._handle?.writeQueueSize ?? 0;

/** Ends connections on which nothing moves though it should: a body of less than 1 KiB in 15 s, or an answer of which nothing is taken, for a minute. */
export function watchConnections(server: Server, every = lookMs): void {
	const sockets = new Map<Socket, Seen>();
	server.on('connection', (socket) => {
		sockets.set(socket, { read: 0, written: 0, queued: 0, still: 0, taking: false });
		socket.once('close', () => sockets.delete(socket));
	});
	server.on('request', (request) => {
		const seen = sockets.get(request.socket);
		if (!seen) return;
		seen.taking = true;
		const over = () => (seen.taking = false);
		request.once('end', over).once('close', over);
	});
	setInterval(() => {
		for (const [socket, seen] of sockets) {
			const stuckIn = seen.taking && socket.bytesRead - seen.read < leastBytes;
			const queued = queuedOn(socket);
			const stuckOut = socket.writableLength > 0 && socket.bytesWritten === seen.written && queued === seen.queued;
			seen.still = stuckIn || stuckOut ? seen.still + 1 : 0;
			[seen.read, seen.written, seen.queued] = [socket.bytesRead, socket.bytesWritten, queued];
			if (seen.still < mostStill) continue;
			log().info({ stuck: stuckIn ? 'body' : 'answer' }, 'a connection stood still and was ended');
			socket.destroy();
		}
	}, every).unref();
}
