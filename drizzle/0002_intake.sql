CREATE TABLE "api_token" (
	"id" uuid PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"label" text NOT NULL,
	"hash" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"used_at" timestamp with time zone,
	"withdrawn_at" timestamp with time zone,
	CONSTRAINT "api_token_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "edition_page" (
	"edition_id" uuid NOT NULL,
	"page" integer NOT NULL,
	"body" text NOT NULL,
	CONSTRAINT "edition_page_edition_id_page_pk" PRIMARY KEY("edition_id","page")
);
--> statement-breakpoint
CREATE TABLE "intake" (
	"id" uuid PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"file_name" text NOT NULL,
	"bytes" bigint NOT NULL,
	"state" text NOT NULL,
	"trouble" jsonb,
	"edition_of" uuid,
	"folder" text DEFAULT '' NOT NULL,
	"document_id" uuid,
	"writer" uuid,
	"writer_until" timestamp with time zone,
	"cleared" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "invitation" (
	"id" uuid PRIMARY KEY NOT NULL,
	"email" text NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"hash" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"created_by" uuid,
	"expires_at" timestamp with time zone NOT NULL,
	"accepted_at" timestamp with time zone,
	CONSTRAINT "invitation_hash_unique" UNIQUE("hash")
);
--> statement-breakpoint
CREATE TABLE "saved_filter" (
	"id" uuid PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"name" text NOT NULL,
	"query" text NOT NULL,
	CONSTRAINT "saved_filter_name" UNIQUE("person_id","name")
);
--> statement-breakpoint
CREATE TABLE "source" (
	"document_id" uuid PRIMARY KEY NOT NULL,
	"url" text NOT NULL,
	"watch" boolean DEFAULT false NOT NULL,
	"etag" text,
	"last_modified" text,
	"sha256" text NOT NULL,
	"state" text DEFAULT 'same' NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"checked_at" timestamp with time zone DEFAULT now() NOT NULL,
	"offered" text,
	"left_alone" text
);
--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "topics" text[] DEFAULT '{}'::text[] NOT NULL;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "cover" jsonb;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "cover_alt" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "language" text;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "set_aside_by" uuid;--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "gone_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "edition" ADD COLUMN "origin" text DEFAULT 'upload' NOT NULL;--> statement-breakpoint
ALTER TABLE "edition" ADD COLUMN "packed" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "edition" ADD COLUMN "pending" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "edition" ADD COLUMN "language" text;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "closed_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "api_token" ADD CONSTRAINT "api_token_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "edition_page" ADD CONSTRAINT "edition_page_edition_id_edition_id_fk" FOREIGN KEY ("edition_id") REFERENCES "public"."edition"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "intake" ADD CONSTRAINT "intake_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "intake" ADD CONSTRAINT "intake_edition_of_document_id_fk" FOREIGN KEY ("edition_of") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "intake" ADD CONSTRAINT "intake_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "invitation" ADD CONSTRAINT "invitation_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "saved_filter" ADD CONSTRAINT "saved_filter_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "source" ADD CONSTRAINT "source_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "intake_person" ON "intake" USING btree ("person_id","created_at");--> statement-breakpoint
CREATE INDEX "intake_document" ON "intake" USING btree ("document_id");--> statement-breakpoint
CREATE INDEX "document_topics" ON "document" USING gin ("topics");--> statement-breakpoint
CREATE INDEX "edition_checking" ON "edition" USING btree ("created_at") WHERE condition = 'checking';