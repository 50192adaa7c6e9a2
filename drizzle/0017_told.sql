-- Seconds of attention told in a reading so far: no more than it lasts.
ALTER TABLE "reading" ADD COLUMN "told" numeric DEFAULT 0 NOT NULL;
