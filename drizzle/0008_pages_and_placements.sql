CREATE TABLE "picture" (
	"sha256" text PRIMARY KEY NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"created_by" uuid
);
--> statement-breakpoint
CREATE TABLE "side_door" (
	"page_id" uuid NOT NULL,
	"document_id" uuid NOT NULL,
	"why" text NOT NULL,
	"marked_at" timestamp with time zone DEFAULT now() NOT NULL,
	"marked_by" uuid,
	CONSTRAINT "side_door_page_id_document_id_pk" PRIMARY KEY("page_id","document_id")
);
--> statement-breakpoint
ALTER TABLE "page" ADD COLUMN "publish_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "page" ADD COLUMN "publish_by" uuid;--> statement-breakpoint
ALTER TABLE "placement" ADD COLUMN "locked" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "placement" ADD COLUMN "cover_page" integer;--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_created_by_person_id_fk" FOREIGN KEY ("created_by") REFERENCES "public"."person"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "side_door" ADD CONSTRAINT "side_door_page_id_page_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."page"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "side_door" ADD CONSTRAINT "side_door_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "side_door" ADD CONSTRAINT "side_door_marked_by_person_id_fk" FOREIGN KEY ("marked_by") REFERENCES "public"."person"("id") ON DELETE set null ON UPDATE no action;