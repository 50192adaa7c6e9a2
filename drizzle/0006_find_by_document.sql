-- Find asks documents first and their pages after: a word on most pages of most documents costs ten times less so.
-- The stems in a document's edition in force, without their places, a row for each stretch of about 400 kB: a tsvector holds 1 MB.
CREATE TABLE "document_text" (
	"document_id" uuid NOT NULL,
	"part" integer NOT NULL,
	"config" regconfig NOT NULL,
	"words" tsvector NOT NULL,
	CONSTRAINT "document_text_document_id_part_pk" PRIMARY KEY("document_id","part")
);
--> statement-breakpoint
ALTER TABLE "document_text" ADD CONSTRAINT "document_text_document_id_document_id_fk" FOREIGN KEY ("document_id") REFERENCES "public"."document"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "document_text" SET (toast_tuple_target = 128);--> statement-breakpoint
CREATE INDEX "document_text_words" ON "document_text" USING gin ("words");--> statement-breakpoint
CREATE INDEX "document_aside" ON "document" ("id") WHERE "set_aside_at" IS NOT NULL;--> statement-breakpoint
ALTER TABLE "edition_page" ADD COLUMN "document_id" uuid;--> statement-breakpoint
UPDATE "edition_page" p SET "document_id" = e."document_id" FROM "edition" e WHERE e."id" = p."edition_id" AND p."words" IS NOT NULL;--> statement-breakpoint
-- The stretches of a document, from its pages in force.
CREATE FUNCTION find_text(document_id_ uuid) RETURNS void LANGUAGE sql AS $$
	DELETE FROM document_text WHERE document_id = document_id_;
	INSERT INTO document_text (document_id, part, config, words)
		SELECT p.document_id, p.part, p.config, array_to_tsvector(array_agg(DISTINCT w.lexeme))
			FROM (SELECT p.document_id, p.config, p.words, (sum(octet_length(p.body)) OVER (ORDER BY p.page) / 400000)::integer AS part
				FROM edition_page p JOIN document d ON d.edition_id = p.edition_id WHERE d.id = document_id_ AND p.words IS NOT NULL) p,
				unnest(p.words) w
			GROUP BY 1, 2, 3;
$$;--> statement-breakpoint
SELECT find_text("id") FROM "document";--> statement-breakpoint
-- Gives the pages of a document's edition in force their words, and takes them from its other editions.
CREATE OR REPLACE FUNCTION find_pages(document_id_ uuid) RETURNS void LANGUAGE sql AS $$
	UPDATE edition_page p SET words = NULL, config = NULL, document_id = NULL FROM edition e, document d
		WHERE d.id = document_id_ AND e.document_id = d.id AND e.id <> d.edition_id AND p.edition_id = e.id AND p.words IS NOT NULL;
	UPDATE edition_page p SET words = to_tsvector(d.config, p.body), config = d.config, document_id = d.id FROM document d
		WHERE d.id = document_id_ AND p.edition_id = d.edition_id AND (p.words IS NULL OR p.config <> d.config);
	SELECT find_text(document_id_);
$$;--> statement-breakpoint
DROP FUNCTION find_in_pages(text);--> statement-breakpoint
-- The documents whose text fits a query, read under each stemming in use, and on how many of their pages all of it stands: not counted
-- where more than 1,000 documents fit, since then the number tells nothing. A phrase is looked for page by page, and what is asked for
-- beside it has to stand on the same page. Never by reading all rows: the planner takes their words for cheap to look at, but they lie
-- apart and packed.
CREATE FUNCTION find_in_text(q text) RETURNS TABLE (document_id uuid, pages integer) LANGUAGE plpgsql STABLE SET enable_seqscan = off AS $$
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
	IF fits IS NULL THEN
		RETURN;
	END IF;
	counts := 'SELECT f.document_id, count(*)::integer AS pages FROM (' || format(fits, 'edition_page') || ') f GROUP BY f.document_id';
	IF phrase THEN
		RETURN QUERY EXECUTE counts;
		RETURN;
	END IF;
	EXECUTE 'SELECT array_agg(DISTINCT f.document_id) FROM (' || format(fits, 'document_text') || ') f' INTO found;
	IF cardinality(found) > 1000 THEN
		RETURN QUERY SELECT id, NULL::integer FROM unnest(found) id;
	ELSE
		RETURN QUERY EXECUTE 'SELECT id, coalesce(c.pages, 0) FROM unnest($1) id LEFT JOIN (' || counts || ') c ON c.document_id = id' USING found;
	END IF;
END $$;
