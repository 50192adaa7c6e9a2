-- Find in little time however many pages fit, and the list's usual orders by index.
CREATE INDEX "document_brought" ON "document" ("created_at", "id");--> statement-breakpoint
CREATE INDEX "document_title" ON "document" (lower("title"), "id");--> statement-breakpoint
-- What phrases read again of each page is unpacked faster so. PostgreSQL may be built without it.
DO $$
BEGIN
	ALTER TABLE "edition_page" ALTER COLUMN "words" SET COMPRESSION lz4, ALTER COLUMN "body" SET COMPRESSION lz4;
EXCEPTION WHEN feature_not_supported THEN NULL;
END $$;--> statement-breakpoint
-- The stemmings in use, by skipping through the index.
CREATE FUNCTION find_configs() RETURNS SETOF regconfig LANGUAGE sql STABLE AS $$
	WITH RECURSIVE c AS (
		(SELECT d.config::oid AS config FROM document d ORDER BY d.config::oid LIMIT 1)
		UNION ALL SELECT (SELECT d.config::oid FROM document d WHERE d.config::oid > c.config ORDER BY d.config::oid LIMIT 1) FROM c WHERE c.config IS NOT NULL
	) SELECT config::regconfig FROM c WHERE config IS NOT NULL
$$;--> statement-breakpoint
-- How many pages of each edition in force fit a query, read under each stemming in use. Never by reading all pages: the planner takes
-- a page's words for cheap to look at, but they lie apart from it and packed.
CREATE FUNCTION find_in_pages(q text) RETURNS TABLE (edition_id uuid, pages integer) LANGUAGE plpgsql STABLE SET enable_seqscan = off AS $$
DECLARE
	fits text;
BEGIN
	-- stemmings that make the same of the query are asked for together, each group by itself: an OR between them would have the words of
	-- every page read again. Where all make the same of it, which one it is need not be looked at.
	SELECT string_agg(format('SELECT p.edition_id FROM edition_page p WHERE p.words @@ %L::tsquery', query)
			|| CASE WHEN n = every THEN '' ELSE format(' AND p.config = ANY (%L::regconfig[])', configs) END, ' UNION ALL ') INTO fits
		FROM (SELECT query, array_agg(config) AS configs, count(*) AS n, sum(count(*)) OVER () AS every
			FROM (SELECT config, websearch_to_tsquery(config, q) AS query FROM find_configs() AS config) c WHERE numnode(query) > 0 GROUP BY query) g;
	IF fits IS NULL THEN
		RETURN;
	END IF;
	RETURN QUERY EXECUTE 'SELECT f.edition_id, count(*)::integer FROM (' || fits || ') f GROUP BY f.edition_id';
END $$;
