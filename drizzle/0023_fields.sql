ALTER TABLE "document" ADD COLUMN "fields" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
-- What a document says in its fields is found as its description is (B).
CREATE OR REPLACE FUNCTION document_words() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
	e record;
BEGIN
	SELECT language, file_name INTO e FROM edition WHERE id = NEW.edition_id;
	NEW.config := find_config(coalesce(NEW.language, e.language));
	NEW.words := setweight(to_tsvector(NEW.config, NEW.title), 'A')
		|| setweight(to_tsvector(NEW.config, NEW.description || ' ' || array_to_string(NEW.topics, ' ')
			|| ' ' || coalesce((SELECT string_agg(value, ' ') FROM jsonb_each_text(NEW.fields)), '')), 'B')
		|| setweight(to_tsvector(NEW.config, regexp_replace(coalesce(e.file_name, ''), '[._-]+', ' ', 'g')), 'C');
	RETURN NEW;
END $$;--> statement-breakpoint
DROP TRIGGER "document_words" ON "document";--> statement-breakpoint
CREATE TRIGGER "document_words" BEFORE INSERT OR UPDATE OF title, description, topics, fields, language, edition_id ON "document" FOR EACH ROW EXECUTE FUNCTION document_words();
