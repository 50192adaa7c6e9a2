CREATE TABLE "pass_grant" (
	"hash" text PRIMARY KEY NOT NULL,
	"website_person_id" uuid NOT NULL,
	"website_key_id" uuid NOT NULL,
	"document_id" uuid NOT NULL,
	"groups" uuid[] NOT NULL,
	"until" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "pass_taken" (
	"website_id" uuid NOT NULL,
	"jti" text NOT NULL,
	"until" timestamp with time zone NOT NULL,
	CONSTRAINT "pass_taken_website_id_jti_pk" PRIMARY KEY("website_id","jti")
);
--> statement-breakpoint
CREATE TABLE "website" (
	"id" uuid PRIMARY KEY NOT NULL,
	"origin" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"created_by" uuid,
	"withdrawn_at" timestamp with time zone,
	CONSTRAINT "website_origin_unique" UNIQUE("origin")
);
--> statement-breakpoint
CREATE TABLE "website_group" (
	"website_id" uuid NOT NULL,
	"group_id" uuid NOT NULL,
	CONSTRAINT "website_group_website_id_group_id_pk" PRIMARY KEY("website_id","group_id")
);
--> statement-breakpoint
CREATE TABLE "website_key" (
	"id" uuid PRIMARY KEY NOT NULL,
	"website_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"value" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"used_at" timestamp with time zone,
	"withdrawn_at" timestamp with time zone,
	CONSTRAINT "website_key_kind_check" CHECK ("website_key"."kind" in ('secret', 'public', 'jwks'))
);
--> statement-breakpoint
CREATE TABLE "website_person" (
	"id" uuid PRIMARY KEY NOT NULL,
	"website_id" uuid NOT NULL,
	"sub" text NOT NULL,
	"name" text NOT NULL,
	"seen_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "website_person_sub" UNIQUE("website_id","sub")
);
--> statement-breakpoint
ALTER TABLE "pass_grant" ADD CONSTRAINT "pass_grant_website_person_id_website_person_id_fk" FOREIGN KEY ("website_person_id") REFERENCES "public"."website_person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pass_grant" ADD CONSTRAINT "pass_grant_website_key_id_website_key_id_fk" FOREIGN KEY ("website_key_id") REFERENCES "public"."website_key"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pass_grant" ADD CONSTRAINT "pass_grant_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "pass_taken" ADD CONSTRAINT "pass_taken_website_id_website_id_fk" FOREIGN KEY ("website_id") REFERENCES "public"."website"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "website" ADD CONSTRAINT "website_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "website_group" ADD CONSTRAINT "website_group_website_id_website_id_fk" FOREIGN KEY ("website_id") REFERENCES "public"."website"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "website_group" ADD CONSTRAINT "website_group_group_id_member_group_id_fk" FOREIGN KEY ("group_id") REFERENCES "public"."member_group"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "website_key" ADD CONSTRAINT "website_key_website_id_website_id_fk" FOREIGN KEY ("website_id") REFERENCES "public"."website"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "website_person" ADD CONSTRAINT "website_person_website_id_website_id_fk" FOREIGN KEY ("website_id") REFERENCES "public"."website"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "pass_grant_until" ON "pass_grant" USING btree ("until");--> statement-breakpoint
CREATE INDEX "website_key_website" ON "website_key" USING btree ("website_id");