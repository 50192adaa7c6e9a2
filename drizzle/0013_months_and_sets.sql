-- Sums of whole months beside days, of the whole site (document_id of zeros) beside documents, and sets of readers of each document: a report
-- on a year adds up few rows. They are made at the next start, from what there is.
DELETE FROM "summed";--> statement-breakpoint
ALTER TABLE "sum_day" RENAME TO "sum_figures";--> statement-breakpoint
ALTER TABLE "sum_figures" ADD COLUMN "span" text NOT NULL DEFAULT 'day' CHECK ("span" IN ('day', 'month'));--> statement-breakpoint
ALTER TABLE "sum_figures" ALTER COLUMN "span" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "sum_figures" DROP CONSTRAINT "sum_day_pkey";--> statement-breakpoint
DROP INDEX "sum_day_document";--> statement-breakpoint
ALTER TABLE "sum_figures" ADD PRIMARY KEY ("span", "day", "document_id") INCLUDE ("openings", "saves", "refusals", "seconds");--> statement-breakpoint
CREATE INDEX "sum_figures_document" ON "sum_figures" ("document_id", "span", "day");--> statement-breakpoint
ALTER TABLE "sum_source" ADD COLUMN "span" text NOT NULL DEFAULT 'day' CHECK ("span" IN ('day', 'month'));--> statement-breakpoint
ALTER TABLE "sum_source" ALTER COLUMN "span" DROP DEFAULT;--> statement-breakpoint
DROP INDEX "sum_source_day";--> statement-breakpoint
DROP INDEX "sum_source_document";--> statement-breakpoint
DROP INDEX "sum_source_page";--> statement-breakpoint
CREATE INDEX "sum_source_day" ON "sum_source" ("span", "day", "document_id");--> statement-breakpoint
CREATE INDEX "sum_source_document" ON "sum_source" ("document_id", "span", "day");--> statement-breakpoint
CREATE INDEX "sum_reader_known" ON "sum_reader" ("document_id", "day") WHERE "person_id" IS NOT NULL OR "key_id" IS NOT NULL;--> statement-breakpoint
-- the report on who was turned away reads nothing but this
DROP INDEX "ledger_refused";--> statement-breakpoint
CREATE INDEX "ledger_refused" ON "ledger" ("at" DESC) INCLUDE ("id", "document_id", "page_id", "person_id", "reader", "reason", "staff", "robot", "preload") WHERE "kind" = 'turned-away';--> statement-breakpoint
CREATE INDEX "ledger_refused_person" ON "ledger" ("person_id", "at") WHERE "kind" = 'turned-away' AND "person_id" IS NOT NULL;--> statement-breakpoint
-- counted from the sets now
DROP INDEX "sum_reader_count";--> statement-breakpoint
DROP TABLE "sum_readers";--> statement-breakpoint
-- Who opened or saved a document, or anything (document_id of zeros), on a day or in a month: bit n stands for the reader of number n, and the last
-- bit is set, so that a set is the same whenever it is made.
CREATE TABLE "sum_readers" (
	"span" text NOT NULL CHECK ("span" IN ('day', 'month')),
	"day" date NOT NULL,
	"document_id" uuid NOT NULL,
	"readers" bit varying NOT NULL,
	"bits" integer NOT NULL GENERATED ALWAYS AS (length("readers")) STORED,
	PRIMARY KEY ("document_id", "span", "day")
);--> statement-breakpoint
-- sets are mostly zeros; where the server knows the quicker way to pack them, it is used
DO $$ BEGIN
	ALTER TABLE "sum_readers" ALTER COLUMN "readers" SET COMPRESSION lz4;
EXCEPTION WHEN feature_not_supported OR invalid_parameter_value THEN
	NULL;
END $$;--> statement-breakpoint
CREATE INDEX "sum_readers_day" ON "sum_readers" ("day", "span");--> statement-breakpoint
-- How many different readers each of some documents had over all of the days and months, of which spans[i] and days[i] name one each. Documents
-- without any are left out.
CREATE FUNCTION readers_counts(documents uuid[], spans text[], days date[]) RETURNS TABLE (document uuid, n integer) LANGUAGE plpgsql STABLE AS $$
DECLARE
	most integer;
BEGIN
	SELECT max(s.bits) INTO most FROM unnest(spans, days) AS w (span, day) JOIN sum_readers s ON s.document_id = ANY (documents) AND s.span = w.span AND s.day = w.day;
	IF coalesce(most, 0) = 0 THEN
		RETURN;
	END IF;
	RETURN QUERY EXECUTE format('SELECT s.document_id, bit_count(bit_or(s.readers::bit(%s)))::integer FROM unnest($2, $3) AS w (span, day)
		JOIN sum_readers s ON s.document_id = ANY ($1) AND s.span = w.span AND s.day = w.day GROUP BY 1', most) USING documents, spans, days;
END $$;--> statement-breakpoint
-- The same of one document, or of the whole site.
CREATE FUNCTION readers_count(document uuid, spans text[], days date[]) RETURNS integer LANGUAGE sql STABLE AS $$
	SELECT coalesce((SELECT n FROM readers_counts(ARRAY[document], spans, days)), 0)
$$;--> statement-breakpoint
-- The set of all readers of a day (document null), or of one document in the month that begins on a day.
CREATE FUNCTION readers_union(first date, document uuid) RETURNS bit varying LANGUAGE plpgsql STABLE AS $$
DECLARE
	whole constant uuid := '00000000-0000-0000-0000-000000000000';
	until date := CASE WHEN document IS NULL THEN first ELSE (first + interval '1 month - 1 day')::date END;
	most integer;
	readers bit varying;
BEGIN
	SELECT max(s.bits) INTO most FROM sum_readers s
		WHERE s.span = 'day' AND s.day BETWEEN first AND until AND CASE WHEN document IS NULL THEN s.document_id <> whole ELSE s.document_id = document END;
	IF coalesce(most, 0) = 0 THEN
		RETURN B'';
	END IF;
	EXECUTE format('SELECT bit_or(s.readers::bit(%s)) FROM sum_readers s WHERE s.span = ''day'' AND s.day BETWEEN $1 AND $2 AND ', most)
		|| CASE WHEN document IS NULL THEN 's.document_id <> $3' ELSE 's.document_id = $3' END INTO readers USING first, until, coalesce(document, whole);
	RETURN readers;
END $$;
