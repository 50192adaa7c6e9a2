-- Editions that cannot be shown: few, and asked about in every list.
CREATE INDEX "edition_not_shown" ON "edition" USING btree ("id") WHERE condition in ('refused', 'checking');--> statement-breakpoint
-- How every document and page stands, as before, with the edition of a document: the door is joined once, and a second only for the few
-- pages that are followed.
CREATE OR REPLACE VIEW "thing_in_force" AS
	SELECT 'document'::text AS kind, d.id, d.set_aside_at, d.door_id AS own_door_id, CASE WHEN f.id IS NULL THEN o.id ELSE f.id END AS door_id,
		fp.door_id AS follows_door_id, fp.id AS follows_page, fp.set_aside_at IS NOT NULL AS follows_set_aside,
		fp.id IS NOT NULL AND fp.published_id IS NULL AS follows_unpublished,
		CASE WHEN d.set_aside_at IS NOT NULL OR fp.set_aside_at IS NOT NULL OR (fp.id IS NOT NULL AND fp.published_id IS NULL) THEN 'shut'
			WHEN f.id IS NULL THEN o.position ELSE f.position END AS set_position,
		CASE WHEN f.id IS NULL THEN o.from_at ELSE f.from_at END AS from_at, CASE WHEN f.id IS NULL THEN o.until_at ELSE f.until_at END AS until_at,
		CASE WHEN f.id IS NULL THEN o.all_members ELSE f.all_members END AS all_members, CASE WHEN f.id IS NULL THEN o.listed ELSE f.listed END AS listed,
		CASE WHEN f.id IS NULL THEN o.announced ELSE f.announced END AS announced, d.edition_id
	FROM document d JOIN door o ON o.id = d.door_id LEFT JOIN page fp ON fp.id = o.follows_page LEFT JOIN door f ON f.id = fp.door_id
	UNION ALL
	SELECT 'page', p.id, p.set_aside_at, p.door_id, p.door_id, NULL, NULL, false, false,
		CASE WHEN p.set_aside_at IS NOT NULL THEN 'shut' ELSE f.position END, f.from_at, f.until_at, f.all_members, f.listed, f.announced, NULL
	FROM page p JOIN door f ON f.id = p.door_id;--> statement-breakpoint
-- The documents that lists may name to somebody at an instant, as before.
CREATE OR REPLACE FUNCTION readable_by(staff boolean, person uuid, groups uuid[], at timestamptz) RETURNS SETOF uuid LANGUAGE sql STABLE ROWS 1000 AS $$
	SELECT t.id FROM thing_in_force t
	WHERE t.kind = 'document' AND position_at(t.set_position, t.from_at, t.until_at, at) <> 'shut'
		AND NOT EXISTS (SELECT FROM edition e WHERE e.id = t.edition_id AND e.condition IN ('refused', 'checking'))
		AND (staff OR (t.set_position = 'open' AND t.listed)
			OR (t.all_members AND cardinality(groups) > 0)
			OR (cardinality(groups) > 0 AND EXISTS (SELECT 1 FROM door_group g WHERE g.door_id = t.door_id AND g.group_id = ANY (groups)))
			OR (person IS NOT NULL AND EXISTS (SELECT 1 FROM door_person p WHERE p.door_id = t.door_id AND p.person_id = person)))
$$;--> statement-breakpoint
-- The documents of which everyone may know that they are there, as before; where nothing is announced, no door is looked at.
CREATE OR REPLACE FUNCTION announced_at(at timestamptz) RETURNS SETOF uuid LANGUAGE sql STABLE ROWS 100 AS $$
	SELECT t.id FROM thing_in_force t
	WHERE EXISTS (SELECT FROM door WHERE door.announced) AND t.kind = 'document' AND t.announced
		AND position_at(t.set_position, t.from_at, t.until_at, at) = 'keyed'
		AND NOT EXISTS (SELECT FROM edition e WHERE e.id = t.edition_id AND e.condition IN ('refused', 'checking'))
$$;
