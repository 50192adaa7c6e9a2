CREATE TABLE "news" (
	"edition_id" uuid PRIMARY KEY NOT NULL,
	"document_id" uuid NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"wider_at" timestamp with time zone NOT NULL,
	"everyone" boolean NOT NULL,
	"all_members" boolean NOT NULL,
	"groups" uuid[] NOT NULL,
	"people" uuid[] NOT NULL
);
--> statement-breakpoint
CREATE TABLE "news_feed" (
	"person_id" uuid PRIMARY KEY NOT NULL,
	"nonce" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "news_told" (
	"person_id" uuid NOT NULL,
	"edition_id" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "news_told_person_id_edition_id_pk" PRIMARY KEY("person_id","edition_id")
);
--> statement-breakpoint
CREATE TABLE "news_wish" (
	"id" uuid PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"document_id" uuid,
	"folder" text,
	"every" text NOT NULL,
	"language" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"looked_at" timestamp with time zone DEFAULT now() NOT NULL,
	"next_at" timestamp with time zone NOT NULL,
	CONSTRAINT "news_wish_of" UNIQUE NULLS NOT DISTINCT("person_id","document_id","folder"),
	CONSTRAINT "news_wish_one" CHECK (document_id is null or folder is null),
	CONSTRAINT "news_wish_every" CHECK ("news_wish"."every" in ('at-once', 'week'))
);
--> statement-breakpoint
ALTER TABLE "ledger" DROP CONSTRAINT "ledger_kind_check";--> statement-breakpoint
ALTER TABLE "ledger" DROP CONSTRAINT "ledger_source_kind_check";--> statement-breakpoint
ALTER TABLE "news" ADD CONSTRAINT "news_edition_id_edition_id_fk" FOREIGN KEY ("edition_id") REFERENCES "public"."edition"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "news" ADD CONSTRAINT "news_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "news_feed" ADD CONSTRAINT "news_feed_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "news_told" ADD CONSTRAINT "news_told_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "news_told" ADD CONSTRAINT "news_told_edition_id_edition_id_fk" FOREIGN KEY ("edition_id") REFERENCES "public"."edition"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "news_wish" ADD CONSTRAINT "news_wish_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "news_wish" ADD CONSTRAINT "news_wish_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "news_at" ON "news" USING btree ("at" DESC NULLS LAST);--> statement-breakpoint
CREATE INDEX "news_document" ON "news" USING btree ("document_id","at");--> statement-breakpoint
CREATE INDEX "news_wish_next" ON "news_wish" USING btree ("next_at");--> statement-breakpoint
-- what stands in the ledger kept narrower rules: nothing of it is looked through again while it is locked
ALTER TABLE "ledger" ADD CONSTRAINT "ledger_kind_check" CHECK ("kind" in ('shown', 'looked', 'opened', 'read', 'saved', 'printed', 'turned-away', 'knocked', 'key-used', 'reminded', 'news')) NOT VALID;--> statement-breakpoint
ALTER TABLE "ledger" ADD CONSTRAINT "ledger_source_kind_check" CHECK ("source_kind" in ('page', 'desk', 'outside', 'direct', 'news')) NOT VALID;