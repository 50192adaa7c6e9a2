CREATE TABLE "idempotency_key" (
	"id" text PRIMARY KEY NOT NULL,
	"request" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"answer" text
);
--> statement-breakpoint
CREATE INDEX "idempotency_key_at" ON "idempotency_key" USING btree ("at");