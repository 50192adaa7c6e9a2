CREATE TABLE "account" (
	"id" uuid PRIMARY KEY NOT NULL,
	"account_id" text NOT NULL,
	"provider_id" text NOT NULL,
	"person_id" uuid NOT NULL,
	"access_token" text,
	"refresh_token" text,
	"id_token" text,
	"access_token_expires_at" timestamp with time zone,
	"refresh_token_expires_at" timestamp with time zone,
	"scope" text,
	"password" text,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "audit" (
	"id" uuid PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"actor" uuid,
	"action" text NOT NULL,
	"kind" text NOT NULL,
	"thing" uuid NOT NULL,
	"before" jsonb,
	"after" jsonb
);
--> statement-breakpoint
CREATE TABLE "document" (
	"id" uuid PRIMARY KEY NOT NULL,
	"slug" text NOT NULL,
	"title" text NOT NULL,
	"description" text DEFAULT '' NOT NULL,
	"folder" text DEFAULT '' NOT NULL,
	"door_id" uuid NOT NULL,
	"edition_id" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"created_by" uuid,
	"set_aside_at" timestamp with time zone,
	CONSTRAINT "document_slug_unique" UNIQUE("slug"),
	CONSTRAINT "document_door_id_unique" UNIQUE("door_id")
);
--> statement-breakpoint
CREATE TABLE "document_address" (
	"slug" text PRIMARY KEY NOT NULL,
	"document_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "door" (
	"id" uuid PRIMARY KEY NOT NULL,
	"position" text DEFAULT 'shut' NOT NULL,
	"all_members" boolean DEFAULT false NOT NULL,
	"listed" boolean DEFAULT true NOT NULL,
	"from_bound" text,
	"until_bound" text,
	"allow_save" boolean DEFAULT true NOT NULL,
	"allow_print" boolean DEFAULT true NOT NULL,
	"follows_page" uuid,
	"turned_away" jsonb,
	"changed_at" timestamp with time zone DEFAULT now() NOT NULL,
	"changed_by" uuid,
	CONSTRAINT "door_position" CHECK ("door"."position" in ('shut', 'keyed', 'ajar', 'open'))
);
--> statement-breakpoint
CREATE TABLE "door_group" (
	"door_id" uuid NOT NULL,
	"group_id" uuid NOT NULL,
	CONSTRAINT "door_group_door_id_group_id_pk" PRIMARY KEY("door_id","group_id")
);
--> statement-breakpoint
CREATE TABLE "door_person" (
	"door_id" uuid NOT NULL,
	"person_id" uuid NOT NULL,
	CONSTRAINT "door_person_door_id_person_id_pk" PRIMARY KEY("door_id","person_id")
);
--> statement-breakpoint
CREATE TABLE "edition" (
	"id" uuid PRIMARY KEY NOT NULL,
	"document_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"sha256" text NOT NULL,
	"bytes" bigint NOT NULL,
	"file_name" text NOT NULL,
	"pages" integer NOT NULL,
	"facts" jsonb NOT NULL,
	"condition" text NOT NULL,
	"findings" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"created_by" uuid,
	CONSTRAINT "edition_number" UNIQUE("document_id","number")
);
--> statement-breakpoint
CREATE TABLE "member_group" (
	"id" uuid PRIMARY KEY NOT NULL,
	"slug" text NOT NULL,
	"name" text NOT NULL,
	"description" text DEFAULT '' NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "member_group_slug_unique" UNIQUE("slug")
);
--> statement-breakpoint
CREATE TABLE "membership" (
	"id" uuid PRIMARY KEY NOT NULL,
	"person_id" uuid NOT NULL,
	"group_id" uuid NOT NULL,
	"from_day" date,
	"until_day" date
);
--> statement-breakpoint
CREATE TABLE "page" (
	"id" uuid PRIMARY KEY NOT NULL,
	"path" text NOT NULL,
	"title" text NOT NULL,
	"layout" text DEFAULT 'article' NOT NULL,
	"door_id" uuid NOT NULL,
	"draft" jsonb NOT NULL,
	"draft_title" text NOT NULL,
	"draft_number" integer DEFAULT 1 NOT NULL,
	"draft_at" timestamp with time zone DEFAULT now() NOT NULL,
	"published_id" uuid,
	"navigation" integer,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"created_by" uuid,
	"set_aside_at" timestamp with time zone,
	CONSTRAINT "page_path_unique" UNIQUE("path"),
	CONSTRAINT "page_door_id_unique" UNIQUE("door_id")
);
--> statement-breakpoint
CREATE TABLE "person" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"email" text NOT NULL,
	"email_verified" boolean DEFAULT false NOT NULL,
	"image" text,
	"role" text DEFAULT 'member' NOT NULL,
	"suspended" boolean DEFAULT false NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "person_email_unique" UNIQUE("email"),
	CONSTRAINT "person_role" CHECK ("person"."role" in ('owner', 'editor', 'member'))
);
--> statement-breakpoint
CREATE TABLE "placement" (
	"id" text NOT NULL,
	"page_id" uuid NOT NULL,
	"document_id" uuid NOT NULL,
	"form" text NOT NULL,
	"press" text NOT NULL,
	"published" boolean NOT NULL,
	CONSTRAINT "placement_id_page_id_published_pk" PRIMARY KEY("id","page_id","published")
);
--> statement-breakpoint
CREATE TABLE "rate_limit" (
	"id" uuid PRIMARY KEY NOT NULL,
	"key" text NOT NULL,
	"count" integer NOT NULL,
	"last_request" bigint NOT NULL,
	CONSTRAINT "rate_limit_key_unique" UNIQUE("key")
);
--> statement-breakpoint
CREATE TABLE "reading" (
	"document_id" uuid NOT NULL,
	"reader" text NOT NULL,
	"kind" text NOT NULL,
	"reading_id" uuid NOT NULL,
	"last_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "revision" (
	"id" uuid PRIMARY KEY NOT NULL,
	"page_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"title" text NOT NULL,
	"content" jsonb NOT NULL,
	"published_at" timestamp with time zone DEFAULT now() NOT NULL,
	"published_by" uuid,
	CONSTRAINT "revision_number" UNIQUE("page_id","number")
);
--> statement-breakpoint
CREATE TABLE "session" (
	"id" uuid PRIMARY KEY NOT NULL,
	"token" text NOT NULL,
	"person_id" uuid NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"ip_address" text,
	"user_agent" text,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL,
	CONSTRAINT "session_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "setting" (
	"key" text PRIMARY KEY NOT NULL,
	"value" jsonb NOT NULL
);
--> statement-breakpoint
CREATE TABLE "verification" (
	"id" uuid PRIMARY KEY NOT NULL,
	"identifier" text NOT NULL,
	"value" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone NOT NULL,
	"updated_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "account" ADD CONSTRAINT "account_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_door_id_door_id_fk" FOREIGN KEY ("door_id") REFERENCES "public"."door"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "document_address" ADD CONSTRAINT "document_address_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_group" ADD CONSTRAINT "door_group_door_id_door_id_fk" FOREIGN KEY ("door_id") REFERENCES "public"."door"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_group" ADD CONSTRAINT "door_group_group_id_member_group_id_fk" FOREIGN KEY ("group_id") REFERENCES "public"."member_group"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_person" ADD CONSTRAINT "door_person_door_id_door_id_fk" FOREIGN KEY ("door_id") REFERENCES "public"."door"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "door_person" ADD CONSTRAINT "door_person_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "membership" ADD CONSTRAINT "membership_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "membership" ADD CONSTRAINT "membership_group_id_member_group_id_fk" FOREIGN KEY ("group_id") REFERENCES "public"."member_group"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "page" ADD CONSTRAINT "page_door_id_door_id_fk" FOREIGN KEY ("door_id") REFERENCES "public"."door"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "placement" ADD CONSTRAINT "placement_page_id_page_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."page"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "placement" ADD CONSTRAINT "placement_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "revision" ADD CONSTRAINT "revision_page_id_page_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."page"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "account_person" ON "account" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "audit_thing" ON "audit" USING btree ("kind","thing","at");--> statement-breakpoint
CREATE INDEX "audit_at" ON "audit" USING btree ("at");--> statement-breakpoint
CREATE INDEX "document_created" ON "document" USING btree ("created_at");--> statement-breakpoint
CREATE INDEX "door_follows" ON "door" USING btree ("follows_page");--> statement-breakpoint
CREATE INDEX "edition_sha" ON "edition" USING btree ("sha256");--> statement-breakpoint
CREATE INDEX "membership_group" ON "membership" USING btree ("group_id","person_id");--> statement-breakpoint
CREATE INDEX "membership_person" ON "membership" USING btree ("person_id");--> statement-breakpoint
CREATE INDEX "placement_document" ON "placement" USING btree ("document_id");--> statement-breakpoint
CREATE UNIQUE INDEX "reading_key" ON "reading" USING btree ("document_id","reader","kind");--> statement-breakpoint
CREATE INDEX "session_person" ON "session" USING btree ("person_id");