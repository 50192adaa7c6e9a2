ALTER TABLE "door" ADD COLUMN "announced" boolean DEFAULT false NOT NULL;--> statement-breakpoint
CREATE OR REPLACE VIEW "thing_in_force" AS
	SELECT 'document'::text AS kind, d.id, d.set_aside_at, d.door_id AS own_door_id, f.id AS door_id, fp.door_id AS follows_door_id,
		fp.id AS follows_page, fp.set_aside_at IS NOT NULL AS follows_set_aside, fp.id IS NOT NULL AND fp.published_id IS NULL AS follows_unpublished,
		CASE WHEN d.set_aside_at IS NOT NULL OR fp.set_aside_at IS NOT NULL OR (fp.id IS NOT NULL AND fp.published_id IS NULL) THEN 'shut' ELSE f.position END AS set_position,
		f.from_at, f.until_at, f.all_members, f.listed, f.announced
	FROM document d JOIN door o ON o.id = d.door_id LEFT JOIN page fp ON fp.id = o.follows_page JOIN door f ON f.id = coalesce(fp.door_id, o.id)
	UNION ALL
	SELECT 'page', p.id, p.set_aside_at, p.door_id, p.door_id, NULL, NULL, false, false,
		CASE WHEN p.set_aside_at IS NOT NULL THEN 'shut' ELSE f.position END, f.from_at, f.until_at, f.all_members, f.listed, f.announced
	FROM page p JOIN door f ON f.id = p.door_id;--> statement-breakpoint
-- The documents of which everyone may know, at an instant, that they are there (core/access/standing): keyed, and announced by the door in force.
CREATE FUNCTION announced_at(at timestamptz) RETURNS SETOF uuid LANGUAGE sql STABLE ROWS 100 AS $$
	SELECT t.id FROM thing_in_force t JOIN document d ON d.id = t.id JOIN edition e ON e.id = d.edition_id
	WHERE t.kind = 'document' AND t.announced AND position_at(t.set_position, t.from_at, t.until_at, at) = 'keyed' AND e.condition NOT IN ('refused', 'checking')
$$;--> statement-breakpoint
CREATE OR REPLACE FUNCTION door_json(door_id_ uuid) RETURNS jsonb LANGUAGE plpgsql STABLE AS $$
BEGIN
	RETURN (
		SELECT jsonb_build_object(
			'position', d.position, 'allMembers', d.all_members, 'listed', d.listed, 'announced', d.announced,
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
			'position', d.position, 'allMembers', d.all_members, 'listed', d.listed, 'announced', d.announced, 'from', d.from_bound, 'until', d.until_bound,
			'allow', jsonb_build_object('save', d.allow_save, 'print', d.allow_print), 'turnedAway', d.turned_away, 'stamped', d.stamped,
			'groups', coalesce((SELECT jsonb_agg(jsonb_build_object('slug', g.slug, 'name', g.name) ORDER BY g.name)
				FROM door_group dg JOIN member_group g ON g.id = dg.group_id WHERE dg.door_id = d.id), '[]'),
			'people', coalesce((SELECT jsonb_agg(jsonb_build_object('email', p.email, 'name', p.name) ORDER BY p.name)
				FROM door_person dp JOIN person p ON p.id = dp.person_id WHERE dp.door_id = d.id), '[]'),
			'follows', CASE WHEN fp.id IS NULL THEN NULL ELSE jsonb_build_object('path', fp.path, 'title', fp.title) END,
			'count', CASE WHEN t.set_position = 'keyed' THEN door_people(f.id, today) ELSE 0 END,
			'changedAt', d.changed_at, 'changedBy', (SELECT name FROM person WHERE id = d.changed_by),
			'force', jsonb_build_object('position', t.set_position,
				'allMembers', f.all_members, 'listed', f.listed, 'announced', f.announced, 'from', f.from_bound, 'until', f.until_bound,
				'groups', coalesce((SELECT jsonb_agg(g.name ORDER BY g.name) FROM door_group dg JOIN member_group g ON g.id = dg.group_id WHERE dg.door_id = f.id), '[]'),
				'people', coalesce((SELECT jsonb_agg(p.name ORDER BY p.name) FROM door_person dp JOIN person p ON p.id = dp.person_id WHERE dp.door_id = f.id), '[]'))
		) FROM thing_in_force t JOIN door d ON d.id = t.own_door_id JOIN door f ON f.id = t.door_id LEFT JOIN page fp ON fp.id = t.follows_page
		WHERE t.own_door_id = door_id_
	);
END $$;
