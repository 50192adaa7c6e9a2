// A bucket on loopback that speaks S3: for trying and testing a store that is not a folder. What it keeps lies in a folder of its own.
import S3rver from 's3rver';
import { standinBucket } from './bucket';

export async function startBucket(port: number, folder: string): Promise<{ stop: () => Promise<void> }> {
	const server = new S3rver({ address: '127.0.0.1', port, directory: folder, silent: true, configureBuckets: [{ name: standinBucket.bucket, configs: [] }] });
	await server.run();
	return { stop: () => server.close() };
}
