CREATE TABLE "receipt" (
	"person_id" uuid NOT NULL,
	"document_id" uuid NOT NULL,
	"edition_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	CONSTRAINT "receipt_document_id_person_id_edition_id_pk" PRIMARY KEY("document_id","person_id","edition_id")
);
--> statement-breakpoint
ALTER TABLE "ledger" DROP CONSTRAINT "ledger_kind_check";--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "receipt" text;--> statement-breakpoint
ALTER TABLE "receipt" ADD CONSTRAINT "receipt_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "receipt" ADD CONSTRAINT "receipt_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "receipt" ADD CONSTRAINT "receipt_edition_id_edition_id_fk" FOREIGN KEY ("edition_id") REFERENCES "public"."edition"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "receipt_person" ON "receipt" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "receipt_edition" ON "receipt" USING btree ("edition_id");--> statement-breakpoint
CREATE INDEX "document_receipt" ON "document" USING btree ("id") WHERE receipt is not null;--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_receipt_check" CHECK ("document"."receipt" in ('once', 'each-edition'));--> statement-breakpoint
-- what stands in the ledger kept the narrower rule: nothing of it is looked through again while it is locked
ALTER TABLE "ledger" ADD CONSTRAINT "ledger_kind_check" CHECK ("kind" in ('shown', 'looked', 'opened', 'read', 'saved', 'printed', 'turned-away', 'knocked', 'key-used', 'reminded', 'news', 'receipt')) NOT VALID;