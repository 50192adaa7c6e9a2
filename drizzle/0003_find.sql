-- Find: words of titles and pages by the stemming of each document's language, accents or not, and titles mistyped.
CREATE EXTENSION IF NOT EXISTS unaccent;--> statement-breakpoint
CREATE EXTENSION IF NOT EXISTS pg_trgm;--> statement-breakpoint
-- unaccent() itself is not immutable, because its rules could be changed; ours are the ones it ships with.
CREATE FUNCTION plain_text(text) RETURNS text LANGUAGE sql IMMUTABLE PARALLEL SAFE STRICT AS $$ SELECT lower(public.unaccent('public.unaccent', $1)) $$;--> statement-breakpoint
DO $$
DECLARE
	stem text;
BEGIN
	CREATE TEXT SEARCH CONFIGURATION find_simple (COPY = simple);
	ALTER TEXT SEARCH CONFIGURATION find_simple ALTER MAPPING FOR hword, hword_part, word WITH unaccent, simple;
	FOREACH stem IN ARRAY ARRAY['arabic', 'danish', 'dutch', 'english', 'finnish', 'french', 'german', 'greek', 'hungarian', 'italian', 'norwegian', 'portuguese', 'romanian', 'russian', 'spanish', 'swedish', 'turkish'] LOOP
		EXECUTE format('CREATE TEXT SEARCH CONFIGURATION find_%s (COPY = %I)', stem, stem);
		-- accents go first, in what is stored and in what is asked alike
		EXECUTE format('ALTER TEXT SEARCH CONFIGURATION find_%s ALTER MAPPING FOR hword, hword_part, word WITH unaccent, %I', stem, stem || '_stem');
	END LOOP;
END $$;--> statement-breakpoint
-- The configuration for a language (BCP 47): its stemming where PostgreSQL has one, else the words as they stand.
CREATE FUNCTION find_config(language text) RETURNS regconfig LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
	SELECT (CASE lower(split_part(coalesce(language, ''), '-', 1))
		WHEN 'ar' THEN 'find_arabic' WHEN 'da' THEN 'find_danish' WHEN 'nl' THEN 'find_dutch' WHEN 'en' THEN 'find_english' WHEN 'fi' THEN 'find_finnish'
		WHEN 'fr' THEN 'find_french' WHEN 'de' THEN 'find_german' WHEN 'el' THEN 'find_greek' WHEN 'hu' THEN 'find_hungarian' WHEN 'it' THEN 'find_italian'
		WHEN 'no' THEN 'find_norwegian' WHEN 'nb' THEN 'find_norwegian' WHEN 'nn' THEN 'find_norwegian' WHEN 'pt' THEN 'find_portuguese'
		WHEN 'ro' THEN 'find_romanian' WHEN 'ru' THEN 'find_russian' WHEN 'es' THEN 'find_spanish' WHEN 'sv' THEN 'find_swedish' WHEN 'tr' THEN 'find_turkish'
		ELSE 'find_simple' END)::regconfig
$$;--> statement-breakpoint
ALTER TABLE "edition_page" ADD COLUMN "config" regconfig;--> statement-breakpoint
-- Only pages of editions in force have words, so that find need not look at the others.
ALTER TABLE "edition_page" ADD COLUMN "words" tsvector;--> statement-breakpoint
-- Rows stay narrow: text and words lie apart, so that thousands of matches are counted without reading them.
ALTER TABLE "edition_page" SET (toast_tuple_target = 128);--> statement-breakpoint
CREATE INDEX "edition_page_words" ON "edition_page" USING gin ("words");--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "config" regconfig NOT NULL DEFAULT 'find_simple';--> statement-breakpoint
ALTER TABLE "document" ADD COLUMN "words" tsvector;--> statement-breakpoint
CREATE INDEX "document_words" ON "document" USING gin ("words");--> statement-breakpoint
CREATE INDEX "document_title_like" ON "document" USING gin (plain_text("title") gin_trgm_ops);--> statement-breakpoint
CREATE INDEX "document_edition" ON "document" ("edition_id");--> statement-breakpoint
CREATE INDEX "document_config" ON "document" ("config");--> statement-breakpoint
-- The words of a document: title (A), description and topics (B), file name (C).
CREATE FUNCTION document_words() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
	e record;
BEGIN
	SELECT language, file_name INTO e FROM edition WHERE id = NEW.edition_id;
	NEW.config := find_config(coalesce(NEW.language, e.language));
	NEW.words := setweight(to_tsvector(NEW.config, NEW.title), 'A')
		|| setweight(to_tsvector(NEW.config, NEW.description || ' ' || array_to_string(NEW.topics, ' ')), 'B')
		|| setweight(to_tsvector(NEW.config, regexp_replace(coalesce(e.file_name, ''), '[._-]+', ' ', 'g')), 'C');
	RETURN NEW;
END $$;--> statement-breakpoint
CREATE TRIGGER "document_words" BEFORE INSERT OR UPDATE OF title, description, topics, language, edition_id ON "document" FOR EACH ROW EXECUTE FUNCTION document_words();--> statement-breakpoint
-- Gives the pages of a document's edition in force their words, and takes them from its other editions.
CREATE FUNCTION find_pages(document_id_ uuid) RETURNS void LANGUAGE sql AS $$
	UPDATE edition_page p SET words = NULL, config = NULL FROM edition e, document d
		WHERE d.id = document_id_ AND e.document_id = d.id AND e.id <> d.edition_id AND p.edition_id = e.id AND p.words IS NOT NULL;
	UPDATE edition_page p SET words = to_tsvector(d.config, p.body), config = d.config FROM document d
		WHERE d.id = document_id_ AND p.edition_id = d.edition_id AND (p.words IS NULL OR p.config <> d.config);
$$;--> statement-breakpoint
-- Editions from before are checked again, to learn their text, outline and the rest; until then they are shown as they were.
UPDATE "edition" SET "facts" = "facts" || jsonb_build_object('subject', null, 'outline', '[]'::jsonb, 'signed', false, 'xfa', false, 'guessed', null, 'textPages', 0,
	'text', CASE WHEN ("facts"->>'hasText')::boolean THEN 'yes' ELSE 'no' END, 'attachments', '[]'::jsonb), "condition" = 'checking';--> statement-breakpoint
UPDATE "document" SET "title" = "title";
