// What the stand-in bucket uses of s3rver, which comes without types.
declare module 's3rver' {
	export default class S3rver {
		constructor(options: { address: string; port: number; directory: string; silent: boolean; configureBuckets: { name: string; configs: string[] }[] });
		run(): Promise<unknown>;
		close(): Promise<void>;
	}
}
