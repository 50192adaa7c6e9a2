-- More kinds of entries, the device, and whether the door was for everyone. Columns follow core/readership.
ALTER TABLE "ledger" DROP CONSTRAINT "ledger_kind_check";--> statement-breakpoint
ALTER TABLE "ledger" ADD CONSTRAINT "ledger_kind_check" CHECK ("kind" IN ('shown', 'looked', 'opened', 'read', 'saved', 'printed', 'turned-away', 'knocked', 'key-used', 'reminded'));--> statement-breakpoint
ALTER TABLE "ledger" ADD COLUMN "device" text CHECK ("device" IN ('computer', 'tablet', 'phone', 'other'));--> statement-breakpoint
ALTER TABLE "ledger" ADD COLUMN "controlled" boolean;--> statement-breakpoint
CREATE INDEX "ledger_staff" ON "ledger" ("at" DESC) INCLUDE ("document_id", "kind") WHERE "staff";--> statement-breakpoint
CREATE INDEX "ledger_reminded" ON "ledger" ("document_id", "person_id", "at" DESC) WHERE "kind" = 'reminded';--> statement-breakpoint
CREATE INDEX "ledger_refused" ON "ledger" ("at" DESC) INCLUDE ("document_id", "page_id", "staff", "robot") WHERE "kind" = 'turned-away';--> statement-breakpoint
-- Readers by number: sums and sets of readers hold numbers.
CREATE TABLE "reader" (
	"number" integer GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
	"name" text NOT NULL UNIQUE
);--> statement-breakpoint
-- Sums of the ledger by day (in the site's zone) and document. Made from the raw entries by core/readership; can be thrown away and made again.
CREATE TABLE "sum_day" (
	"day" date NOT NULL,
	"document_id" uuid NOT NULL,
	"openings" integer NOT NULL,
	"saves" integer NOT NULL,
	"printed" integer NOT NULL,
	"refusals" integer NOT NULL,
	"knocks" integer NOT NULL,
	"keys_used" integer NOT NULL,
	"shown" integer NOT NULL,
	"looks" integer NOT NULL,
	"seconds" real NOT NULL,
	"uniques" integer NOT NULL,
	"controlled" integer NOT NULL,
	"hours" integer[] NOT NULL,
	"devices" integer[] NOT NULL,
	PRIMARY KEY ("day", "document_id")
);--> statement-breakpoint
CREATE INDEX "sum_day_document" ON "sum_day" ("document_id", "day");--> statement-breakpoint
CREATE TABLE "sum_source" (
	"day" date NOT NULL,
	"document_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"page_id" uuid,
	"placement_id" text,
	"outside" text,
	"key_id" uuid,
	"shown" integer NOT NULL,
	"looks" integer NOT NULL,
	"openings" integer NOT NULL,
	"saves" integer NOT NULL
);--> statement-breakpoint
CREATE INDEX "sum_source_day" ON "sum_source" ("day", "document_id");--> statement-breakpoint
CREATE INDEX "sum_source_document" ON "sum_source" ("document_id", "day");--> statement-breakpoint
CREATE INDEX "sum_source_page" ON "sum_source" ("page_id", "day") WHERE "page_id" IS NOT NULL;--> statement-breakpoint
-- What each reader did with each edition on each day; pages[i] had page_seconds[i].
CREATE TABLE "sum_reader" (
	"day" date NOT NULL,
	"document_id" uuid NOT NULL,
	"edition_id" uuid NOT NULL,
	"reader" integer NOT NULL,
	"person_id" uuid,
	"key_id" uuid,
	"openings" integer NOT NULL,
	"saves" integer NOT NULL,
	"printed" integer NOT NULL,
	"seconds" real NOT NULL,
	"first_at" timestamptz NOT NULL,
	"last_at" timestamptz NOT NULL,
	"pages" integer[] NOT NULL,
	"page_seconds" real[] NOT NULL,
	PRIMARY KEY ("document_id", "day", "reader", "edition_id")
);--> statement-breakpoint
CREATE INDEX "sum_reader_day" ON "sum_reader" ("day", "document_id") INCLUDE ("reader") WHERE "openings" + "saves" > 0;--> statement-breakpoint
CREATE INDEX "sum_reader_count" ON "sum_reader" ("document_id", "day", "reader") WHERE "openings" + "saves" > 0;--> statement-breakpoint
CREATE INDEX "sum_reader_reader" ON "sum_reader" ("reader", "day");--> statement-breakpoint
CREATE INDEX "sum_reader_person" ON "sum_reader" ("person_id", "day") WHERE "person_id" IS NOT NULL;--> statement-breakpoint
CREATE INDEX "sum_reader_key" ON "sum_reader" ("key_id", "day") WHERE "key_id" IS NOT NULL;--> statement-breakpoint
-- Seconds and readers of each page on each day.
CREATE TABLE "sum_page" (
	"day" date NOT NULL,
	"document_id" uuid NOT NULL,
	"edition_id" uuid NOT NULL,
	"page" integer NOT NULL,
	"seconds" real NOT NULL,
	"readers" integer NOT NULL,
	"stops" integer NOT NULL,
	PRIMARY KEY ("document_id", "edition_id", "day", "page")
);--> statement-breakpoint
-- How far each reader is with each edition, ever.
CREATE TABLE "progress" (
	"document_id" uuid NOT NULL,
	"edition_id" uuid NOT NULL,
	"reader" integer NOT NULL,
	"openings" integer NOT NULL,
	"saves" integer NOT NULL,
	"printed" integer NOT NULL,
	"seconds" real NOT NULL,
	"pages_read" integer NOT NULL,
	"furthest" integer NOT NULL,
	"first_at" timestamptz NOT NULL,
	"last_at" timestamptz NOT NULL,
	PRIMARY KEY ("document_id", "edition_id", "reader")
);--> statement-breakpoint
CREATE INDEX "progress_reader" ON "progress" ("reader");--> statement-breakpoint
-- The readers who opened or saved anything on a day, a bit for each number: sets of days are put together without counting rows.
CREATE TABLE "sum_readers" (
	"day" date PRIMARY KEY,
	"readers" bit varying NOT NULL
);--> statement-breakpoint
-- Readers without a name who behaved like a robot that day (core/readership/counting: robotOpeningsAnHour).
CREATE TABLE "sum_robot" (
	"day" date NOT NULL,
	"reader" text NOT NULL,
	PRIMARY KEY ("day", "reader")
);--> statement-breakpoint
-- Up to where the sums go, and in which zone their days are.
CREATE TABLE "summed" (
	"one" boolean PRIMARY KEY DEFAULT true CHECK ("one"),
	"until" timestamptz NOT NULL,
	"zone" text NOT NULL
);--> statement-breakpoint
CREATE OR REPLACE FUNCTION ledger_forget(person uuid) RETURNS void LANGUAGE plpgsql AS $$
DECLARE
	nameless text := 'x:' || gen_random_uuid();
BEGIN
	PERFORM set_config('ianua.forgetting', 'on', true);
	UPDATE ledger SET person_id = NULL, reader = nameless WHERE person_id = person;
	UPDATE reader SET name = nameless WHERE name = 'p:' || person;
	UPDATE sum_reader SET person_id = NULL WHERE person_id = person;
	DELETE FROM reading WHERE reader = 'p:' || person;
	PERFORM set_config('ianua.forgetting', 'off', true);
END $$;--> statement-breakpoint
-- Drops the months of the ledger that were over before a day. Sums stay.
CREATE FUNCTION ledger_drop_before(day date) RETURNS integer LANGUAGE plpgsql AS $$
DECLARE
	part text;
	n integer := 0;
BEGIN
	FOR part IN SELECT c.relname FROM pg_inherits i JOIN pg_class c ON c.oid = i.inhrelid WHERE i.inhparent = 'ledger'::regclass AND c.relname ~ '^ledger_\d{4}_\d{2}$'
		AND to_date(substr(c.relname, 8), 'YYYY_MM') + interval '1 month' <= day
	LOOP
		EXECUTE format('DROP TABLE %I', part);
		n := n + 1;
	END LOOP;
	DELETE FROM ledger_rest WHERE at < day;
	RETURN n;
END $$;
