-- Who was turned away from a document on a day, why, and from which page they came; unique investigations beside unique requests. Made at the next start, from what there is.
DELETE FROM "summed";--> statement-breakpoint
ALTER TABLE "sum_figures" RENAME COLUMN "uniques" TO "unique_requests";--> statement-breakpoint
ALTER TABLE "sum_figures" ADD COLUMN "unique_investigations" integer NOT NULL DEFAULT 0;--> statement-breakpoint
CREATE TABLE "sum_refused" (
	"day" date NOT NULL,
	"document_id" uuid NOT NULL,
	"reason" text NOT NULL,
	-- zeros where they came from no page of ours
	"page_id" uuid NOT NULL,
	"reader" integer NOT NULL,
	"person_id" uuid,
	"key_id" uuid,
	"times" integer NOT NULL,
	"last_at" timestamp with time zone NOT NULL
);--> statement-breakpoint
CREATE INDEX "sum_refused_day" ON "sum_refused" ("day", "document_id");--> statement-breakpoint
CREATE INDEX "sum_refused_document" ON "sum_refused" ("document_id", "reason", "page_id", "day") INCLUDE ("reader", "person_id");--> statement-breakpoint
CREATE INDEX "sum_refused_person" ON "sum_refused" ("person_id", "day") WHERE "person_id" IS NOT NULL;--> statement-breakpoint
CREATE INDEX "sum_refused_key" ON "sum_refused" ("key_id", "day") WHERE "key_id" IS NOT NULL;--> statement-breakpoint
-- Until which entries the sums go: what a snapshot of the database saw. The version changes with every change of what the sums are made
-- from or hold, so that a server knows whether what it remembers of them still holds.
ALTER TABLE "summed" ADD COLUMN "seen" pg_snapshot;--> statement-breakpoint
ALTER TABLE "summed" ADD COLUMN "version" uuid NOT NULL DEFAULT gen_random_uuid();--> statement-breakpoint
-- Entries after an instant that count and that a snapshot did not see (null: all of them): what was committed since, whenever it was begun.
-- A row's xmin is the lower half of its transaction's number; the age leaves out at little cost what is older than the snapshot.
-- Planned once, for few rows after a late instant.
CREATE FUNCTION ledger_fresh(since timestamptz, seen_ pg_snapshot) RETURNS SETOF ledger LANGUAGE plpgsql STABLE ROWS 100
	SET enable_seqscan = off SET plan_cache_mode = force_generic_plan AS $$
DECLARE
	latest constant bigint := pg_snapshot_xmax(pg_current_snapshot())::text::bigint;
	oldest constant bigint := pg_snapshot_xmin(seen_)::text::bigint;
BEGIN
	RETURN QUERY SELECT l.* FROM ledger l WHERE l.at > since AND NOT l.staff AND NOT l.robot AND NOT l.preload AND (
		seen_ IS NULL
		OR age(l.xmin) <= latest - oldest
		AND NOT pg_visible_in_snapshot((
			CASE WHEN l.xmin::text::bigint > latest & 4294967295 THEN latest - 4294967296 ELSE latest END & ~4294967295 | l.xmin::text::bigint
		)::text::xid8, seen_));
END $$;--> statement-breakpoint
-- no report reads these entries one by one any more
DROP INDEX "ledger_refused";--> statement-breakpoint
DROP INDEX "ledger_refused_person";--> statement-breakpoint
-- Lets go of a person: their entries stay, under a name that says nothing.
CREATE OR REPLACE FUNCTION ledger_forget(person uuid) RETURNS void LANGUAGE plpgsql AS $$
DECLARE
	nameless text := 'x:' || gen_random_uuid();
BEGIN
	-- first, so that sums which are being made are waited for
	UPDATE summed SET version = gen_random_uuid();
	PERFORM set_config('ianua.forgetting', 'on', true);
	UPDATE ledger SET person_id = NULL, reader = nameless WHERE person_id = person;
	UPDATE reader SET name = nameless WHERE name = 'p:' || person;
	DELETE FROM progress p USING reader r WHERE r.name = nameless AND p.reader = r.number;
	UPDATE sum_reader SET person_id = NULL WHERE person_id = person;
	UPDATE sum_refused SET person_id = NULL WHERE person_id = person;
	DELETE FROM reading WHERE reader = 'p:' || person;
	PERFORM set_config('ianua.forgetting', 'off', true);
END $$;--> statement-breakpoint
-- Drops the months of the ledger that were over before a day, and names in sums of that time. Gives the days whose sets of readers change.
CREATE OR REPLACE FUNCTION ledger_drop_before(before date) RETURNS SETOF date LANGUAGE plpgsql AS $$
DECLARE
	part text;
	old integer;
	fresh integer;
BEGIN
	-- first, as ledger_forget does, so that neither waits for the other
	UPDATE summed SET version = gen_random_uuid();
	FOR part IN SELECT c.relname FROM pg_inherits i JOIN pg_class c ON c.oid = i.inhrelid WHERE i.inhparent = 'ledger'::regclass AND c.relname ~ '^ledger_\d{4}_\d{2}$'
		AND to_date(substr(c.relname, 8), 'YYYY_MM') + interval '1 month' <= before
	LOOP
		EXECUTE format('DROP TABLE %I', part);
	END LOOP;
	DELETE FROM ledger_rest WHERE at < before;
	RETURN QUERY SELECT DISTINCT s.day FROM sum_reader s JOIN reader r ON r.number = s.reader WHERE s.day < before AND r.name NOT LIKE 'x:%';
	FOR old IN SELECT s.reader FROM (SELECT reader FROM sum_reader WHERE day < before UNION SELECT reader FROM sum_refused WHERE day < before) s
		JOIN reader r ON r.number = s.reader WHERE r.name NOT LIKE 'x:%'
	LOOP
		INSERT INTO reader (name) VALUES ('x:' || gen_random_uuid()) RETURNING number INTO fresh;
		UPDATE sum_reader SET reader = fresh, person_id = NULL, key_id = NULL, pages = '{}', page_seconds = '{}' WHERE reader = old AND day < before;
		UPDATE sum_refused SET reader = fresh, person_id = NULL, key_id = NULL WHERE reader = old AND day < before;
	END LOOP;
	UPDATE sum_source SET key_id = NULL WHERE day < before AND key_id IS NOT NULL;
END $$;
