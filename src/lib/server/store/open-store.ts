// Opens the object store that settings name.
import { diskStore } from './disk';
import type { ObjectStore } from './object-store';
import { s3Store, type Bucket } from './s3';

/** Where a store is: a bucket, or else a folder; `shared`: what comes into the folder may be read by our group. */
export interface StorePlace {
	readonly files: string;
	readonly bucket: Bucket | null;
	readonly shared?: boolean;
}

export const openStore = ({ files, bucket, shared }: StorePlace): ObjectStore => (bucket ? s3Store(bucket) : diskStore(files, { shared }));
