-- Keys by which readers without a name are told apart for one day. They are thrown away, so that a mark leads back to nobody.
CREATE TABLE "day_key" (
	"day" date PRIMARY KEY,
	"key" text NOT NULL
);--> statement-breakpoint
-- Drops the months of the ledger that were over before a day, and takes names, keys and pages out of older sums: what one reader did stays
-- together under a number that leads to nobody. Gives the days whose sets of readers have to be made anew.
DROP FUNCTION ledger_drop_before(date);--> statement-breakpoint
CREATE FUNCTION ledger_drop_before(before date) RETURNS SETOF date LANGUAGE plpgsql AS $$
DECLARE
	part text;
	old integer;
	fresh integer;
BEGIN
	FOR part IN SELECT c.relname FROM pg_inherits i JOIN pg_class c ON c.oid = i.inhrelid WHERE i.inhparent = 'ledger'::regclass AND c.relname ~ '^ledger_\d{4}_\d{2}$'
		AND to_date(substr(c.relname, 8), 'YYYY_MM') + interval '1 month' <= before
	LOOP
		EXECUTE format('DROP TABLE %I', part);
	END LOOP;
	DELETE FROM ledger_rest WHERE at < before;
	RETURN QUERY SELECT DISTINCT s.day FROM sum_reader s JOIN reader r ON r.number = s.reader WHERE s.day < before AND r.name NOT LIKE 'x:%';
	FOR old IN SELECT DISTINCT s.reader FROM sum_reader s JOIN reader r ON r.number = s.reader WHERE s.day < before AND r.name NOT LIKE 'x:%'
	LOOP
		INSERT INTO reader (name) VALUES ('x:' || gen_random_uuid()) RETURNING number INTO fresh;
		UPDATE sum_reader SET reader = fresh, person_id = NULL, key_id = NULL, pages = '{}', page_seconds = '{}' WHERE reader = old AND day < before;
	END LOOP;
	UPDATE sum_source SET key_id = NULL WHERE day < before AND key_id IS NOT NULL;
END $$;
