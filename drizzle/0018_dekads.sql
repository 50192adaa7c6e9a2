-- Sums of dekads (ten days, the rest of the month) between days and months: a report adds up a third of the rows. What staff opened and saved is
-- summed too, apart from all else. Made at the next start, from what there is.
DELETE FROM "summed";--> statement-breakpoint
ALTER TABLE "sum_figures" DROP CONSTRAINT "sum_figures_span_check", ADD CONSTRAINT "sum_figures_span_check" CHECK ("span" IN ('day', 'dekad', 'month'));--> statement-breakpoint
ALTER TABLE "sum_source" DROP CONSTRAINT "sum_source_span_check", ADD CONSTRAINT "sum_source_span_check" CHECK ("span" IN ('day', 'dekad', 'month'));--> statement-breakpoint
ALTER TABLE "sum_readers" DROP CONSTRAINT "sum_readers_span_check", ADD CONSTRAINT "sum_readers_span_check" CHECK ("span" IN ('day', 'dekad', 'month'));--> statement-breakpoint
ALTER TABLE "sum_page" ADD COLUMN "span" text NOT NULL DEFAULT 'day' CHECK ("span" IN ('day', 'dekad', 'month'));--> statement-breakpoint
ALTER TABLE "sum_page" ALTER COLUMN "span" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "sum_page" DROP CONSTRAINT "sum_page_pkey", ADD PRIMARY KEY ("document_id", "edition_id", "span", "day", "page");--> statement-breakpoint
ALTER TABLE "sum_figures" ADD COLUMN "staff_openings" integer NOT NULL DEFAULT 0;--> statement-breakpoint
ALTER TABLE "sum_figures" ADD COLUMN "staff_saves" integer NOT NULL DEFAULT 0;--> statement-breakpoint
-- How often somebody was turned away from a document, by reason and by the page from which they came (zeros where it was none of ours).
CREATE TABLE "sum_reason" (
	"span" text NOT NULL CHECK ("span" IN ('day', 'dekad', 'month')),
	"day" date NOT NULL,
	"document_id" uuid NOT NULL,
	"reason" text NOT NULL,
	"page_id" uuid NOT NULL,
	"times" integer NOT NULL,
	"last_at" timestamp with time zone NOT NULL,
	PRIMARY KEY ("document_id", "span", "day", "reason", "page_id")
);--> statement-breakpoint
CREATE INDEX "sum_reason_day" ON "sum_reason" ("span", "day");--> statement-breakpoint
INSERT INTO "sum_reason" SELECT 'day', "day", "document_id", "reason", "page_id", sum("times"), max("last_at") FROM "sum_refused" GROUP BY 2, 3, 4, 5;--> statement-breakpoint
-- The set of all readers of a day (document null), or of one document in the spans that begin on some days.
DROP FUNCTION readers_union(date, uuid);--> statement-breakpoint
CREATE FUNCTION readers_union(of_span text, first date, until date, document uuid) RETURNS bit varying LANGUAGE plpgsql STABLE AS $$
DECLARE
	whole constant uuid := '00000000-0000-0000-0000-000000000000';
	most integer;
	readers bit varying;
BEGIN
	SELECT max(s.bits) INTO most FROM sum_readers s
		WHERE s.span = of_span AND s.day BETWEEN first AND until AND CASE WHEN document IS NULL THEN s.document_id <> whole ELSE s.document_id = document END;
	IF coalesce(most, 0) = 0 THEN
		RETURN B'';
	END IF;
	EXECUTE format('SELECT bit_or(s.readers::bit(%s)) FROM sum_readers s WHERE s.span = $4 AND s.day BETWEEN $1 AND $2 AND ', most)
		|| CASE WHEN document IS NULL THEN 's.document_id <> $3' ELSE 's.document_id = $3' END INTO readers USING first, until, coalesce(document, whole), of_span;
	RETURN readers;
END $$;--> statement-breakpoint
-- As before, with entries by staff.
CREATE OR REPLACE FUNCTION ledger_fresh(since timestamptz, seen_ pg_snapshot) RETURNS SETOF ledger LANGUAGE plpgsql STABLE ROWS 100
	SET enable_seqscan = off SET plan_cache_mode = force_generic_plan AS $$
DECLARE
	latest constant bigint := pg_snapshot_xmax(pg_current_snapshot())::text::bigint;
	oldest constant bigint := pg_snapshot_xmin(seen_)::text::bigint;
BEGIN
	RETURN QUERY SELECT l.* FROM ledger l WHERE l.at > since AND NOT l.robot AND NOT l.preload AND (
		seen_ IS NULL
		OR age(l.xmin) <= latest - oldest
		AND NOT pg_visible_in_snapshot((
			CASE WHEN l.xmin::text::bigint > latest & 4294967295 THEN latest - 4294967296 ELSE latest END & ~4294967295 | l.xmin::text::bigint
		)::text::xid8, seen_));
END $$;--> statement-breakpoint
-- Documents are never deleted, and readings are let go of when they are over: asking at every entry whether its document is there cost a tenth of it.
ALTER TABLE "reading" DROP CONSTRAINT "reading_document_id_document_id_fk";
