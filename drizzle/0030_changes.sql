CREATE INDEX "door_from" ON "door" USING btree ("from_at") WHERE "door"."from_at" is not null;--> statement-breakpoint
CREATE INDEX "door_until" ON "door" USING btree ("until_at") WHERE "door"."until_at" is not null;--> statement-breakpoint
-- Every server is told, as a transaction is committed, that something changed by which an answer may go: what it remembers is used no more.
-- Several changes of one transaction are told once.
CREATE FUNCTION "tell_of_change"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	PERFORM pg_notify('ianua_changed', '');
	RETURN NULL;
END $$;--> statement-breakpoint
-- On every table but those that readers write at each step, and by which nothing goes that is remembered (a test knows them by name).
DO $$
DECLARE
	t text;
BEGIN
	FOR t IN SELECT c.relname FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
		WHERE n.nspname = 'public' AND c.relkind IN ('r', 'p') AND NOT c.relispartition AND c.relname <> ALL (ARRAY[
			'session', 'verification', 'rate_limit', 'attempt', 'audit', 'intake', 'stamp', 'knock', 'door_key',
			'ledger', 'reading', 'day_key', 'reader', 'summed', 'sum_figures', 'sum_page', 'sum_reader', 'sum_readers', 'sum_reason', 'sum_refused', 'sum_robot',
			'sum_source', 'progress', 'report_mail', 'first_opening', 'news', 'news_wish', 'news_told', 'news_feed', 'webhook', 'webhook_delivery'])
	LOOP
		EXECUTE format('CREATE TRIGGER told AFTER INSERT OR UPDATE OR DELETE OR TRUNCATE ON %I FOR EACH STATEMENT EXECUTE FUNCTION tell_of_change()', t);
	END LOOP;
END $$;--> statement-breakpoint
-- A reading goes on without a look at its row for a minute; where somebody sets its last instant back, that is told.
CREATE TRIGGER "set_back" AFTER UPDATE ON "reading" FOR EACH ROW WHEN (NEW.last_at < OLD.last_at) EXECUTE FUNCTION "tell_of_change"();
