ALTER TABLE "placement" ADD COLUMN "leads_to" uuid;--> statement-breakpoint
ALTER TABLE "placement" ADD CONSTRAINT "placement_leads_to_page_id_fk" FOREIGN KEY ("leads_to") REFERENCES "public"."page"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "placement_leads_to" ON "placement" USING btree ("leads_to") WHERE leads_to is not null;