CREATE TABLE "knock" (
	"id" uuid PRIMARY KEY NOT NULL,
	"document_id" uuid NOT NULL,
	"email" text NOT NULL,
	"words" text NOT NULL,
	"reason" text NOT NULL,
	"person_id" uuid,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"answer" text,
	"given" text,
	"answered_at" timestamp with time zone,
	"answered_by" uuid
);
--> statement-breakpoint
CREATE TABLE "second_factor" (
	"id" uuid PRIMARY KEY NOT NULL,
	"secret" text NOT NULL,
	"backup_codes" text NOT NULL,
	"person_id" uuid NOT NULL,
	"verified" boolean DEFAULT true,
	"failed_tries" integer DEFAULT 0,
	"locked_until" timestamp with time zone,
	CONSTRAINT "second_factor_person_id_unique" UNIQUE("person_id")
);
--> statement-breakpoint
CREATE TABLE "stamp" (
	"number" text PRIMARY KEY NOT NULL,
	"document_id" uuid NOT NULL,
	"edition_id" uuid NOT NULL,
	"name" text NOT NULL,
	"holder" text NOT NULL,
	"day" date NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "stamp_holder" UNIQUE("edition_id","holder","day")
);
--> statement-breakpoint
ALTER TABLE "door" ADD COLUMN "stamped" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "second_factor" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "knock" ADD CONSTRAINT "knock_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "knock" ADD CONSTRAINT "knock_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "knock" ADD CONSTRAINT "knock_answered_by_person_id_fk" FOREIGN KEY ("answered_by") REFERENCES "public"."person"("id") ON DELETE set null ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "second_factor" ADD CONSTRAINT "second_factor_person_id_person_id_fk" FOREIGN KEY ("person_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stamp" ADD CONSTRAINT "stamp_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "stamp" ADD CONSTRAINT "stamp_edition_id_edition_id_fk" FOREIGN KEY ("edition_id") REFERENCES "public"."edition"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "knock_document" ON "knock" USING btree ("document_id","at");--> statement-breakpoint
CREATE INDEX "knock_waiting" ON "knock" USING btree ("at") WHERE answered_at is null;--> statement-breakpoint
ALTER TABLE "ledger" ADD COLUMN "stamp" text;--> statement-breakpoint
CREATE INDEX "ledger_stamp" ON "ledger" ("stamp") WHERE "stamp" IS NOT NULL;--> statement-breakpoint
-- Nobody rewrites an entry through the application, but that a person who is erased loses the name in theirs (ledger_forget).
CREATE OR REPLACE FUNCTION ledger_append_only() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	IF current_setting('ianua.forgetting', true) = 'on' AND (to_jsonb(NEW) - 'person_id' - 'reader') = (to_jsonb(OLD) - 'person_id' - 'reader') AND NEW.person_id IS NULL THEN
		RETURN NEW;
	END IF;
	RAISE EXCEPTION 'the ledger is append-only';
END $$;--> statement-breakpoint
-- A person's entries become those of one reader without a name: figures stay, and whose they were cannot be told any more.
CREATE FUNCTION ledger_forget(person uuid) RETURNS void LANGUAGE plpgsql AS $$
DECLARE
	nameless text := 'x:' || gen_random_uuid();
BEGIN
	PERFORM set_config('ianua.forgetting', 'on', true);
	UPDATE ledger SET person_id = NULL, reader = nameless WHERE person_id = person;
	DELETE FROM reading WHERE reader = 'p:' || person;
	PERFORM set_config('ianua.forgetting', 'off', true);
END $$;--> statement-breakpoint
-- Members with a membership that ends within so many days and that no other of the same group goes on after.
CREATE FUNCTION lapsing(today date, days integer) RETURNS SETOF uuid LANGUAGE sql STABLE AS $$
	SELECT DISTINCT m.person_id FROM membership m
		WHERE m.until_day >= today AND m.until_day <= today + days AND (m.from_day IS NULL OR m.from_day <= today)
			AND NOT EXISTS (SELECT 1 FROM membership o WHERE o.person_id = m.person_id AND o.group_id = m.group_id AND (o.until_day IS NULL OR o.until_day > m.until_day))
$$;--> statement-breakpoint
-- In PL/pgSQL, which keeps the plans of a session: an SQL function that is not inlined is planned anew for every row.
CREATE OR REPLACE FUNCTION door_people(door_id_ uuid, today date) RETURNS integer LANGUAGE plpgsql STABLE AS $$
BEGIN
	RETURN (SELECT count(*)::int FROM door_admits(door_id_, today));
END $$;--> statement-breakpoint
CREATE OR REPLACE FUNCTION door_json(door_id_ uuid) RETURNS jsonb LANGUAGE plpgsql STABLE AS $$
BEGIN
	RETURN (
		SELECT jsonb_build_object(
			'position', d.position, 'allMembers', d.all_members, 'listed', d.listed,
			'from', d.from_bound, 'until', d.until_bound, 'allow', jsonb_build_object('save', d.allow_save, 'print', d.allow_print),
			'groups', coalesce((SELECT jsonb_agg(g.group_id) FROM door_group g WHERE g.door_id = d.id), '[]'),
			'people', coalesce((SELECT jsonb_agg(p.person_id) FROM door_person p WHERE p.door_id = d.id), '[]'),
			'turnedAway', d.turned_away, 'stamped', d.stamped
		) FROM door d WHERE d.id = door_id_
	);
END $$;--> statement-breakpoint
CREATE OR REPLACE FUNCTION door_view(door_id_ uuid, today date) RETURNS jsonb LANGUAGE plpgsql STABLE AS $$
BEGIN
	RETURN (
		SELECT jsonb_build_object(
			'position', d.position, 'allMembers', d.all_members, 'listed', d.listed, 'from', d.from_bound, 'until', d.until_bound,
			'allow', jsonb_build_object('save', d.allow_save, 'print', d.allow_print), 'turnedAway', d.turned_away, 'stamped', d.stamped,
			'groups', coalesce((SELECT jsonb_agg(jsonb_build_object('slug', g.slug, 'name', g.name) ORDER BY g.name)
				FROM door_group dg JOIN member_group g ON g.id = dg.group_id WHERE dg.door_id = d.id), '[]'),
			'people', coalesce((SELECT jsonb_agg(jsonb_build_object('email', p.email, 'name', p.name) ORDER BY p.name)
				FROM door_person dp JOIN person p ON p.id = dp.person_id WHERE dp.door_id = d.id), '[]'),
			'follows', CASE WHEN fp.id IS NULL THEN NULL ELSE jsonb_build_object('path', fp.path, 'title', fp.title) END,
			'count', CASE WHEN f.position = 'keyed' THEN door_people(f.id, today) ELSE 0 END,
			'changedAt', d.changed_at, 'changedBy', (SELECT name FROM person WHERE id = d.changed_by),
			'force', jsonb_build_object('position', CASE WHEN fp.set_aside_at IS NULL THEN f.position ELSE 'shut' END,
				'allMembers', f.all_members, 'listed', f.listed, 'from', f.from_bound, 'until', f.until_bound,
				'groups', coalesce((SELECT jsonb_agg(g.name ORDER BY g.name) FROM door_group dg JOIN member_group g ON g.id = dg.group_id WHERE dg.door_id = f.id), '[]'),
				'people', coalesce((SELECT jsonb_agg(p.name ORDER BY p.name) FROM door_person dp JOIN person p ON p.id = dp.person_id WHERE dp.door_id = f.id), '[]'))
		) FROM door d LEFT JOIN page fp ON fp.id = d.follows_page JOIN door f ON f.id = coalesce(fp.door_id, d.id)
		WHERE d.id = door_id_
	);
END $$;
