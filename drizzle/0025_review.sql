ALTER TABLE "document" ADD COLUMN "review_on" date;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "review_by" uuid;--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_review_by_person_id_fk" FOREIGN KEY ("review_by") REFERENCES "public"."person"("id") ON DELETE set null ON UPDATE no action;