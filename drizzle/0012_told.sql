-- Reports that somebody on the staff gets by mail, and documents of whose first opening they want to be told.
CREATE TABLE "report_mail" (
	"id" uuid PRIMARY KEY,
	"person_id" uuid NOT NULL REFERENCES "person"("id") ON DELETE CASCADE,
	"document_id" uuid REFERENCES "document"("id") ON DELETE CASCADE,
	"every" text NOT NULL CHECK ("every" IN ('week', 'month')),
	"next_at" timestamptz NOT NULL
);--> statement-breakpoint
CREATE UNIQUE INDEX "report_mail_of" ON "report_mail" ("person_id", coalesce("document_id", '00000000-0000-0000-0000-000000000000'));--> statement-breakpoint
CREATE TABLE "first_opening" (
	"id" uuid PRIMARY KEY,
	"person_id" uuid NOT NULL REFERENCES "person"("id") ON DELETE CASCADE,
	"document_id" uuid NOT NULL REFERENCES "document"("id") ON DELETE CASCADE,
	-- whose opening is waited for; anybody's where null
	"by_person" uuid REFERENCES "person"("id") ON DELETE CASCADE,
	"asked_at" timestamptz NOT NULL DEFAULT now(),
	"told_at" timestamptz
);--> statement-breakpoint
CREATE UNIQUE INDEX "first_opening_of" ON "first_opening" ("person_id", "document_id", coalesce("by_person", '00000000-0000-0000-0000-000000000000')) WHERE "told_at" IS NULL;--> statement-breakpoint
-- Programs elsewhere that are told what happens (Standard Webhooks), and what is on its way to them.
CREATE TABLE "webhook" (
	"id" uuid PRIMARY KEY,
	"url" text NOT NULL,
	"secret" text NOT NULL,
	"events" text[] NOT NULL,
	"created_at" timestamptz NOT NULL DEFAULT now(),
	"created_by" uuid REFERENCES "person"("id") ON DELETE SET NULL,
	"gathered_until" timestamptz NOT NULL DEFAULT now(),
	"withdrawn_at" timestamptz,
	-- why it is sent nothing any more, where its program said so
	"ended" text
);--> statement-breakpoint
CREATE TABLE "webhook_delivery" (
	"id" uuid PRIMARY KEY,
	"webhook_id" uuid NOT NULL REFERENCES "webhook"("id") ON DELETE CASCADE,
	"event_id" text NOT NULL,
	"body" jsonb NOT NULL,
	"at" timestamptz NOT NULL DEFAULT now(),
	"tries" integer NOT NULL DEFAULT 0,
	"next_at" timestamptz DEFAULT now(),
	"delivered_at" timestamptz,
	"answer" text,
	UNIQUE ("webhook_id", "event_id")
);--> statement-breakpoint
CREATE INDEX "webhook_delivery_due" ON "webhook_delivery" ("next_at") WHERE "delivered_at" IS NULL AND "next_at" IS NOT NULL;
