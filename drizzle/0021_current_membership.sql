-- Whether a membership is current on a day in the site's zone: the one place that says so. Inlined by the planner.
CREATE FUNCTION is_current(m membership, on_day date) RETURNS boolean LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
	SELECT (m.from_day IS NULL OR m.from_day <= on_day) AND (m.until_day IS NULL OR m.until_day >= on_day)
$$;--> statement-breakpoint
CREATE OR REPLACE FUNCTION door_admits(door_id_ uuid, today date) RETURNS SETOF uuid LANGUAGE sql STABLE AS $$
	SELECT p.id FROM (
		SELECT m.person_id FROM membership m
		WHERE is_current(m, today)
			AND ((SELECT all_members FROM door WHERE id = door_id_) OR m.group_id IN (SELECT group_id FROM door_group WHERE door_id = door_id_))
		UNION
		SELECT person_id FROM door_person WHERE door_id = door_id_
	) admitted JOIN person p ON p.id = admitted.person_id WHERE NOT p.suspended AND p.role = 'member'
$$;--> statement-breakpoint
CREATE OR REPLACE FUNCTION lapsing(today date, days integer) RETURNS SETOF uuid LANGUAGE sql STABLE AS $$
	SELECT DISTINCT m.person_id FROM membership m
		WHERE is_current(m, today) AND m.until_day <= today + days
			AND NOT EXISTS (SELECT 1 FROM membership o WHERE o.person_id = m.person_id AND o.group_id = m.group_id AND (o.until_day IS NULL OR o.until_day > m.until_day))
$$;
