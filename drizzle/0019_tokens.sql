-- Tokens have scopes, perhaps folders, and a last day. Those from before could do everything for ever: they keep what the API has, and end in 30 days.
ALTER TABLE "api_token" ADD COLUMN "scopes" text[] NOT NULL
	DEFAULT '{documents:read,documents:write,pages:read,pages:write,people:read,people:write,readership:read,site:write}';--> statement-breakpoint
ALTER TABLE "api_token" ALTER COLUMN "scopes" DROP DEFAULT;--> statement-breakpoint
ALTER TABLE "api_token" ADD COLUMN "folders" text[];--> statement-breakpoint
ALTER TABLE "api_token" ADD COLUMN "until_day" date NOT NULL DEFAULT current_date + 30;--> statement-breakpoint
ALTER TABLE "api_token" ALTER COLUMN "until_day" DROP DEFAULT;--> statement-breakpoint
-- What a token issued goes with it: withdrawing the token withdraws these.
ALTER TABLE "door_key" ADD COLUMN "token_id" uuid;--> statement-breakpoint
ALTER TABLE "webhook" ADD COLUMN "token_id" uuid;
--> statement-breakpoint
-- An invitation whose address was shown, for want of mail, is no proof of a mailbox.
ALTER TABLE "invitation" ADD COLUMN "shown" boolean NOT NULL DEFAULT false;
--> statement-breakpoint
-- The sign-in library names what it reserves by ids of its own making.
ALTER TABLE "verification" ALTER COLUMN "id" TYPE text USING "id"::text;
