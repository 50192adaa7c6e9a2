ALTER TABLE "webhook" ADD COLUMN "earlier_secret" text;--> statement-breakpoint
ALTER TABLE "webhook" ADD COLUMN "earlier_until" timestamp with time zone;