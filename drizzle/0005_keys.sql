CREATE TABLE "attempt" (
	"name" text PRIMARY KEY NOT NULL,
	"tries" integer NOT NULL,
	"since" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "door_key" (
	"id" uuid PRIMARY KEY NOT NULL,
	"document_id" uuid NOT NULL,
	"hash" text NOT NULL,
	"label" text NOT NULL,
	"allow_save" boolean NOT NULL,
	"allow_print" boolean NOT NULL,
	"until_bound" text,
	"openings" integer,
	"used" integer DEFAULT 0 NOT NULL,
	"password_hash" text,
	"mailed_to" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"created_by" uuid,
	"withdrawn_at" timestamp with time zone,
	"withdrawn_by" uuid,
	CONSTRAINT "door_key_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
ALTER TABLE "door_key" ADD CONSTRAINT "door_key_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_key" ADD CONSTRAINT "door_key_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_key" ADD CONSTRAINT "door_key_withdrawn_by_person_id_fk" FOREIGN KEY ("withdrawn_by") REFERENCES "public"."person"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "door_key_document" ON "door_key" USING btree ("document_id","created_at");--> statement-breakpoint
ALTER TABLE "ledger" ADD COLUMN "key_id" uuid;--> statement-breakpoint
CREATE INDEX "ledger_key" ON "ledger" ("key_id", "at" DESC) WHERE "key_id" IS NOT NULL;
