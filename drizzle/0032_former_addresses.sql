CREATE TABLE "former_address" (
	"id" uuid PRIMARY KEY NOT NULL,
	"path" text NOT NULL,
	"document_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"created_by" uuid,
	"asked" integer DEFAULT 0 NOT NULL,
	"last_at" timestamp with time zone,
	"last_from" text,
	CONSTRAINT "former_address_path_unique" UNIQUE("path")
);
--> statement-breakpoint
CREATE TABLE "missed_address" (
	"path" text PRIMARY KEY NOT NULL,
	"asked" integer DEFAULT 1 NOT NULL,
	"last_at" timestamp with time zone DEFAULT now() NOT NULL,
	"last_from" text
);
--> statement-breakpoint
ALTER TABLE "former_address" ADD CONSTRAINT "former_address_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "former_address" ADD CONSTRAINT "former_address_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "former_address_document" ON "former_address" USING btree ("document_id");