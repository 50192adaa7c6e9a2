-- The ledger: append-only, one partition a month. Columns follow core/readership.
CREATE TABLE "ledger" (
	"id" uuid NOT NULL,
	"at" timestamptz(3) NOT NULL,
	"kind" text NOT NULL CHECK ("kind" IN ('opened', 'read', 'saved', 'printed', 'turned-away', 'knocked', 'key-used')),
	"document_id" uuid NOT NULL,
	"edition_id" uuid NOT NULL,
	"reading_id" uuid NOT NULL,
	"reader" text NOT NULL,
	"who" text NOT NULL CHECK ("who" IN ('visitor', 'member', 'key', 'staff')),
	"person_id" uuid,
	"reason" text,
	"source_kind" text NOT NULL CHECK ("source_kind" IN ('page', 'desk', 'outside', 'direct')),
	"page_id" uuid,
	"placement_id" text,
	"outside" text,
	"staff" boolean NOT NULL,
	"robot" boolean NOT NULL,
	"preload" boolean NOT NULL,
	PRIMARY KEY ("id", "at")
) PARTITION BY RANGE ("at");--> statement-breakpoint
CREATE TABLE "ledger_rest" PARTITION OF "ledger" DEFAULT;--> statement-breakpoint
CREATE INDEX "ledger_document" ON "ledger" ("document_id", "at" DESC, "id");--> statement-breakpoint
CREATE INDEX "ledger_at" ON "ledger" ("at" DESC, "id");--> statement-breakpoint
CREATE INDEX "ledger_person" ON "ledger" ("person_id", "at" DESC) WHERE "person_id" IS NOT NULL;--> statement-breakpoint
-- Makes the partition of the month (in UTC) in which a day lies; entries that the default partition took in meanwhile move over.
CREATE FUNCTION ledger_month(day date) RETURNS void LANGUAGE plpgsql AS $$
DECLARE
	first timestamptz := date_trunc('month', day::timestamp) AT TIME ZONE 'UTC';
	next timestamptz := (date_trunc('month', day::timestamp) + interval '1 month') AT TIME ZONE 'UTC';
	name text := 'ledger_' || to_char(day, 'YYYY_MM');
BEGIN
	PERFORM pg_advisory_xact_lock(hashtext('ledger_month'));
	IF to_regclass(name) IS NOT NULL THEN RETURN; END IF;
	EXECUTE format('CREATE TABLE %I (LIKE ledger INCLUDING DEFAULTS INCLUDING CONSTRAINTS)', name);
	EXECUTE format('WITH moved AS (DELETE FROM ledger_rest WHERE at >= %L AND at < %L RETURNING *) INSERT INTO %I SELECT * FROM moved', first, next, name);
	EXECUTE format('ALTER TABLE ledger ATTACH PARTITION %I FOR VALUES FROM (%L) TO (%L)', name, first, next);
END $$;--> statement-breakpoint
-- Nobody rewrites an entry through the application. A month's partition is moved or dropped whole.
CREATE FUNCTION ledger_append_only() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN RAISE EXCEPTION 'the ledger is append-only'; END $$;--> statement-breakpoint
CREATE TRIGGER "ledger_append_only" BEFORE UPDATE ON "ledger" FOR EACH ROW EXECUTE FUNCTION ledger_append_only();--> statement-breakpoint
ALTER TABLE "door" ADD CONSTRAINT "door_follows_page" FOREIGN KEY ("follows_page") REFERENCES "page"("id") ON DELETE SET NULL;--> statement-breakpoint
ALTER TABLE "document" ADD CONSTRAINT "document_edition" FOREIGN KEY ("edition_id") REFERENCES "edition"("id") DEFERRABLE INITIALLY DEFERRED;--> statement-breakpoint
ALTER TABLE "edition" ADD CONSTRAINT "edition_document" FOREIGN KEY ("document_id") REFERENCES "document"("id") ON DELETE CASCADE DEFERRABLE INITIALLY DEFERRED;--> statement-breakpoint
ALTER TABLE "page" ADD CONSTRAINT "page_published" FOREIGN KEY ("published_id") REFERENCES "revision"("id") ON DELETE SET NULL DEFERRABLE INITIALLY DEFERRED;--> statement-breakpoint
-- The people of today whom a door's groups, names and all members come to. `today` is the day in the site's zone.
CREATE FUNCTION door_admits(door_id_ uuid, today date) RETURNS SETOF uuid LANGUAGE sql STABLE AS $$
	SELECT p.id FROM (
		SELECT m.person_id FROM membership m
		WHERE (m.from_day IS NULL OR m.from_day <= today) AND (m.until_day IS NULL OR m.until_day >= today)
			AND ((SELECT all_members FROM door WHERE id = door_id_) OR m.group_id IN (SELECT group_id FROM door_group WHERE door_id = door_id_))
		UNION
		SELECT person_id FROM door_person WHERE door_id = door_id_
	) admitted JOIN person p ON p.id = admitted.person_id WHERE NOT p.suspended AND p.role = 'member'
$$;--> statement-breakpoint
CREATE FUNCTION door_people(door_id_ uuid, today date) RETURNS integer LANGUAGE sql STABLE AS $$
	SELECT count(*)::int FROM door_admits(door_id_, today)
$$;
--> statement-breakpoint
-- A door as the decision needs it (core/access/door.ts), bounds as they were given.
CREATE FUNCTION door_json(door_id_ uuid) RETURNS jsonb LANGUAGE sql STABLE AS $$
	SELECT jsonb_build_object(
		'position', d.position, 'allMembers', d.all_members, 'listed', d.listed,
		'from', d.from_bound, 'until', d.until_bound, 'allow', jsonb_build_object('save', d.allow_save, 'print', d.allow_print),
		'groups', coalesce((SELECT jsonb_agg(g.group_id) FROM door_group g WHERE g.door_id = d.id), '[]'),
		'people', coalesce((SELECT jsonb_agg(p.person_id) FROM door_person p WHERE p.door_id = d.id), '[]'),
		'turnedAway', d.turned_away
	) FROM door d WHERE d.id = door_id_
$$;
--> statement-breakpoint
-- A door as screens show it: names beside ids, the page it follows, the door in force, and the people of today.
CREATE FUNCTION door_view(door_id_ uuid, today date) RETURNS jsonb LANGUAGE sql STABLE AS $$
	SELECT jsonb_build_object(
		'position', d.position, 'allMembers', d.all_members, 'listed', d.listed, 'from', d.from_bound, 'until', d.until_bound,
		'allow', jsonb_build_object('save', d.allow_save, 'print', d.allow_print), 'turnedAway', d.turned_away,
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
$$;
