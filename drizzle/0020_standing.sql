-- The hours of a door as instants, reckoned by core/access/hours when a bound or the site's zone changes; filled in at the next start.
ALTER TABLE "door" ADD COLUMN "from_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "door" ADD COLUMN "until_at" timestamp with time zone;--> statement-breakpoint
-- How every document and page stands (core/access/standing): the door in force, and its position but for the hours.
CREATE VIEW "thing_in_force" AS
	SELECT 'document'::text AS kind, d.id, d.set_aside_at, d.door_id AS own_door_id, f.id AS door_id, fp.door_id AS follows_door_id,
		fp.id AS follows_page, fp.set_aside_at IS NOT NULL AS follows_set_aside, fp.id IS NOT NULL AND fp.published_id IS NULL AS follows_unpublished,
		CASE WHEN d.set_aside_at IS NOT NULL OR fp.set_aside_at IS NOT NULL OR (fp.id IS NOT NULL AND fp.published_id IS NULL) THEN 'shut' ELSE f.position END AS set_position,
		f.from_at, f.until_at, f.all_members, f.listed
	FROM document d JOIN door o ON o.id = d.door_id LEFT JOIN page fp ON fp.id = o.follows_page JOIN door f ON f.id = coalesce(fp.door_id, o.id)
	UNION ALL
	SELECT 'page', p.id, p.set_aside_at, p.door_id, p.door_id, NULL, NULL, false, false,
		CASE WHEN p.set_aside_at IS NOT NULL THEN 'shut' ELSE f.position END, f.from_at, f.until_at, f.all_members, f.listed
	FROM page p JOIN door f ON f.id = p.door_id;--> statement-breakpoint
-- The position at an instant: outside its hours a door is shut.
CREATE FUNCTION position_at(set_position text, from_at timestamptz, until_at timestamptz, at timestamptz) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
	SELECT CASE WHEN from_at > at OR until_at <= at THEN 'shut' ELSE set_position END
$$;--> statement-breakpoint
-- The documents that lists may name to somebody at an instant, who then may read them too (core/access/decide: isListed): staff, or a person with
-- the groups of their current memberships, or a visitor (no person, no groups). Those that cannot be shown stand in no list.
CREATE FUNCTION readable_by(staff boolean, person uuid, groups uuid[], at timestamptz) RETURNS SETOF uuid LANGUAGE sql STABLE ROWS 1000 AS $$
	SELECT t.id FROM thing_in_force t JOIN document d ON d.id = t.id JOIN edition e ON e.id = d.edition_id
	WHERE t.kind = 'document' AND position_at(t.set_position, t.from_at, t.until_at, at) <> 'shut' AND e.condition NOT IN ('refused', 'checking')
		AND (staff OR (t.set_position = 'open' AND t.listed)
			OR (t.all_members AND cardinality(groups) > 0)
			OR (cardinality(groups) > 0 AND EXISTS (SELECT 1 FROM door_group g WHERE g.door_id = t.door_id AND g.group_id = ANY (groups)))
			OR (person IS NOT NULL AND EXISTS (SELECT 1 FROM door_person p WHERE p.door_id = t.door_id AND p.person_id = person)))
$$;--> statement-breakpoint
-- A door as screens show it; the position in force is that of thing_in_force.
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
			'count', CASE WHEN t.set_position = 'keyed' THEN door_people(f.id, today) ELSE 0 END,
			'changedAt', d.changed_at, 'changedBy', (SELECT name FROM person WHERE id = d.changed_by),
			'force', jsonb_build_object('position', t.set_position,
				'allMembers', f.all_members, 'listed', f.listed, 'from', f.from_bound, 'until', f.until_bound,
				'groups', coalesce((SELECT jsonb_agg(g.name ORDER BY g.name) FROM door_group dg JOIN member_group g ON g.id = dg.group_id WHERE dg.door_id = f.id), '[]'),
				'people', coalesce((SELECT jsonb_agg(p.name ORDER BY p.name) FROM door_person dp JOIN person p ON p.id = dp.person_id WHERE dp.door_id = f.id), '[]'))
		) FROM thing_in_force t JOIN door d ON d.id = t.own_door_id JOIN door f ON f.id = t.door_id LEFT JOIN page fp ON fp.id = t.follows_page
		WHERE t.own_door_id = door_id_
	);
END $$;--> statement-breakpoint
-- Words on pages, looked for among some documents alone (null: among all): how many others have them changes nothing.
DROP FUNCTION find_in_text(text);--> statement-breakpoint
CREATE FUNCTION find_in_text(q text, among uuid[]) RETURNS TABLE (document_id uuid, pages integer) LANGUAGE plpgsql STABLE SET enable_seqscan = off AS $$
DECLARE
	fits text;
	counts text;
	phrase boolean;
	found uuid[];
BEGIN
	-- stemmings that make the same of the query are asked for together, each group by itself: an OR between them would have the words of
	-- every row read again. Where all make the same of it, which one it is need not be looked at.
	SELECT string_agg(format('SELECT t.document_id FROM %%1$I t WHERE t.words @@ %L::tsquery', replace(query::text, '%', '%%'))
			|| CASE WHEN n = every THEN '' ELSE format(' AND t.config = ANY (%L::regconfig[])', configs) END, ' UNION ALL '), bool_or(query::text ~ '<[-0-9]+>')
		INTO fits, phrase
		FROM (SELECT query, array_agg(config) AS configs, count(*) AS n, sum(count(*)) OVER () AS every
			FROM (SELECT config, websearch_to_tsquery(config, q) AS query FROM find_configs() AS config) c WHERE numnode(query) > 0 GROUP BY query) g;
	IF fits IS NULL OR among = '{}' THEN
		RETURN;
	END IF;
	counts := 'SELECT f.document_id, count(*)::integer AS pages FROM (' || format(fits, 'edition_page') || ') f WHERE $1 IS NULL OR f.document_id = ANY ($1) GROUP BY f.document_id';
	IF phrase THEN
		RETURN QUERY EXECUTE counts USING among;
		RETURN;
	END IF;
	EXECUTE 'SELECT array_agg(DISTINCT f.document_id) FROM (' || format(fits, 'document_text') || ') f WHERE $1 IS NULL OR f.document_id = ANY ($1)' INTO found USING among;
	IF cardinality(found) > 1000 THEN
		RETURN QUERY SELECT id, NULL::integer FROM unnest(found) id;
	ELSE
		RETURN QUERY EXECUTE 'SELECT id, coalesce(c.pages, 0) FROM unnest($1) id LEFT JOIN (' || counts || ') c ON c.document_id = id' USING found;
	END IF;
END $$;
