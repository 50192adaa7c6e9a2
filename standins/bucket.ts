// How a site finds the stand-in bucket.
/** Its one bucket, and the key that opens it: no secret, since nobody but this machine can ask. */
export const standinBucket = { bucket: 'ianua', region: 'us-east-1', credentials: { accessKeyId: 'S3RVER', secretAccessKey: 'S3RVER' } } as const;

/** The settings of a server whose store is this bucket. */
export const bucketSettings = (port: number, prefix = 'files'): Record<string, string> => ({
	IANUA_FILES: `s3://${standinBucket.bucket}/${prefix}`,
	IANUA_S3_ENDPOINT: `http://127.0.0.1:${port}`,
	IANUA_S3_REGION: standinBucket.region,
	IANUA_S3_KEY: standinBucket.credentials.accessKeyId,
	IANUA_S3_SECRET: standinBucket.credentials.secretAccessKey
});
