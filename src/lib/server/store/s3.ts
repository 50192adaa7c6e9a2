// The store in a bucket that speaks S3 (Amazon Simple Storage Service API, version 2006-03-01), by its own client.
import type { S3Client } from '@aws-sdk/client-s3';
import { createReadStream } from 'node:fs';
import type { Readable } from 'node:stream';
import { checkedName, type ObjectStore } from './object-store';

export interface Bucket {
	readonly bucket: string;
	/** Before every name; empty, or ending with a slash. */
	readonly prefix: string;
	/** The server's address; Amazon's own where none is given. */
	readonly endpoint?: string;
	readonly region: string;
	/** Where none is given, the client looks for one as it does on such machines (environment, role of the machine). */
	readonly credentials?: { readonly accessKeyId: string; readonly secretAccessKey: string };
}

/** From how many bytes a file goes up in parts, and how large they are: S3 takes 10,000 parts, 80 GB of such. */
const partBytes = 8 * 1024 * 1024;

const isMissing = (error: unknown) => {
	const { name, $metadata } = error as { name?: string; $metadata?: { httpStatusCode?: number } };
	return name === 'NoSuchKey' || name === 'NotFound' || $metadata?.httpStatusCode === 404;
};

/** The name of what is in the place of a name already, as S3 says so (`If-None-Match: *`, RFC 9110 section 13.1.2). */
const isTaken = (error: unknown) => (error as { $metadata?: { httpStatusCode?: number } }).$metadata?.httpStatusCode === 412;

export function s3Store({ bucket: Bucket, prefix, endpoint, region, credentials }: Bucket): ObjectStore {
	let kit: Promise<{ sdk: typeof import('@aws-sdk/client-s3'); client: S3Client }> | undefined;
	// only a server that has a bucket pays for its client
	const s3 = () => {
		// the version is pinned, and tried on the Nodes that we run on
		process.env.AWS_SDK_JS_NODE_VERSION_SUPPORT_WARNING_DISABLED = 'true';
		return (kit ??= import('@aws-sdk/client-s3').then((sdk) => ({
			sdk,
			client: new sdk.S3Client({
				region,
				// a bucket in the path, not in the name of the host: what most servers but Amazon's take
				...(endpoint ? { endpoint, forcePathStyle: true } : {}),
				...(credentials ? { credentials } : {}),
				// checksums of the newest kind only where the server asks for them: many do not know them and spoil what is put
				requestChecksumCalculation: 'WHEN_REQUIRED',
				responseChecksumValidation: 'WHEN_REQUIRED'
			})
		})));
	};
	const keyOf = (name: string) => prefix + checkedName(name);

	const store: ObjectStore = {
		place: `s3://${Bucket}/${prefix}`,
		put: async (name, path) => {
			const [{ client }, { Upload }] = await Promise.all([s3(), import('@aws-sdk/lib-storage')]);
			const body = createReadStream(path, { highWaterMark: 1024 * 1024 });
			try {
				await new Upload({ client, params: { Bucket, Key: keyOf(name), Body: body }, partSize: partBytes, queueSize: 2 }).done();
			} finally {
				body.destroy();
			}
		},
		putNew: async (name, words) => {
			const { sdk, client } = await s3();
			// asked first as well: there are servers that do not know the condition
			if (await store.look(name)) return false;
			try {
				await client.send(new sdk.PutObjectCommand({ Bucket, Key: keyOf(name), Body: words, IfNoneMatch: '*' }));
				return true;
			} catch (error) {
				if (isTaken(error)) return false;
				throw error;
			}
		},
		read: async (name, part) => {
			const { sdk, client } = await s3();
			try {
				const Range = part ? `bytes=${part.first}-${part.first + part.length - 1}` : undefined;
				const { Body } = await client.send(new sdk.GetObjectCommand({ Bucket, Key: keyOf(name), Range }));
				// in Node the client gives Node's streams
				return Body as Readable;
			} catch (error) {
				if (isMissing(error)) return null;
				throw error;
			}
		},
		look: async (name) => {
			const { sdk, client } = await s3();
			try {
				const { ContentLength, LastModified } = await client.send(new sdk.HeadObjectCommand({ Bucket, Key: keyOf(name) }));
				return { name, bytes: ContentLength ?? 0, at: LastModified?.getTime() ?? 0 };
			} catch (error) {
				if (isMissing(error)) return null;
				throw error;
			}
		},
		list: async function* (start, wanted = () => true) {
			const { sdk, client } = await s3();
			for await (const page of sdk.paginateListObjectsV2({ client }, { Bucket, Prefix: prefix + start }))
				for (const { Key = '', Size = 0, LastModified } of page.Contents ?? []) {
					const name = Key.slice(prefix.length);
					if (wanted(name)) yield { name, bytes: Size, at: LastModified?.getTime() ?? 0 };
				}
		},
		move: async (from, to) => {
			const { sdk, client } = await s3();
			try {
				await client.send(new sdk.CopyObjectCommand({ Bucket, CopySource: encodeURI(`${Bucket}/${keyOf(from)}`), Key: keyOf(to) }));
			} catch (error) {
				if (isMissing(error)) return false;
				throw error;
			}
			await store.remove(from);
			return true;
		},
		remove: async (name) => {
			const { sdk, client } = await s3();
			await client.send(new sdk.DeleteObjectCommand({ Bucket, Key: keyOf(name) }));
		},
		signed: async (name, seconds, { type, disposition }) => {
			const [{ sdk, client }, { getSignedUrl }] = await Promise.all([s3(), import('@aws-sdk/s3-request-presigner')]);
			const command = new sdk.GetObjectCommand({ Bucket, Key: keyOf(name), ResponseContentType: type, ResponseContentDisposition: disposition });
			return getSignedUrl(client, command, { expiresIn: seconds });
		}
	};
	return store;
}
