-- Whether another request waits to write to an upload: the one that does steps down.
ALTER TABLE "intake" ADD COLUMN "writer_asked" boolean DEFAULT false NOT NULL;
