-- The item report has a line for what was open and one for what was kept. Made at the next start, from what there is of the ledger; of days whose entries
-- have gone, as far as the sums of those days tell.
DELETE FROM "summed";--> statement-breakpoint
ALTER TABLE "sum_figures" ADD COLUMN "controlled_looks" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "sum_figures" ADD COLUMN "controlled_unique_requests" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
ALTER TABLE "sum_figures" ADD COLUMN "controlled_unique_investigations" integer DEFAULT 0 NOT NULL;--> statement-breakpoint
UPDATE "sum_figures" SET "controlled_looks" = CASE WHEN "controlled" >= "openings" + "saves" THEN "looks" ELSE 0 END,
	"controlled_unique_requests" = LEAST("controlled", "unique_requests"),
	"controlled_unique_investigations" = CASE WHEN "controlled" >= "openings" + "saves" THEN "unique_investigations" ELSE LEAST("controlled", "unique_requests") END
	WHERE "controlled" > 0 AND "span" = 'day' AND "day" < (SELECT coalesce(min("at"), 'infinity') FROM "ledger");
