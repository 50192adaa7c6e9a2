ALTER TABLE "document" ADD COLUMN "reading" jsonb;--> statement-breakpoint
-- Of an entry of reading: [{"page", "seconds"}], as the reading room told it.
ALTER TABLE "ledger" ADD COLUMN "attention" jsonb;
