CREATE TABLE "listing" (
	"page_id" uuid NOT NULL,
	"published" boolean NOT NULL,
	"list" text NOT NULL,
	"everything" boolean NOT NULL,
	"folders" text[] NOT NULL,
	"topics" text[] NOT NULL,
	"fields" jsonb NOT NULL,
	CONSTRAINT "listing_page_id_published_list_pk" PRIMARY KEY("page_id","published","list")
);
--> statement-breakpoint
ALTER TABLE "listing" ADD CONSTRAINT "listing_page_id_page_id_fk" FOREIGN KEY ("page_id") REFERENCES "public"."page"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
-- What the pages of before list: catalogues, and the lists among the words of articles.
WITH written AS (
	SELECT p.id, p.layout, false AS published, p.draft AS content FROM page p WHERE p.set_aside_at IS NULL
	UNION ALL SELECT p.id, p.layout, true, r.content FROM page p JOIN revision r ON r.id = p.published_id WHERE p.set_aside_at IS NULL
), lists AS (
	SELECT id, published, '' AS list, content AS listing FROM written WHERE layout = 'catalogue'
	UNION ALL SELECT id, published, coalesce(n ->> 'id', ''), n FROM written, jsonb_path_query(content, 'strict $.**.attrs ? (exists (@.show) && exists (@.beside))') n WHERE layout = 'article'
), told AS (
	SELECT id, published, list,
		coalesce((SELECT array_agg(v) FROM jsonb_array_elements_text(listing -> 'folders') v), '{}'::text[]) AS folders,
		coalesce((SELECT array_agg(v) FROM jsonb_array_elements_text(listing -> 'topics') v), '{}'::text[]) AS topics,
		coalesce(jsonb_array_length(listing -> 'documents'), 0) AS picked
	FROM lists
)
INSERT INTO listing (page_id, published, list, everything, folders, topics, fields)
	SELECT id, published, list, cardinality(folders) + cardinality(topics) + picked = 0, folders, topics, '{}'::jsonb FROM told
	WHERE cardinality(folders) + cardinality(topics) > 0 OR picked = 0 ON CONFLICT DO NOTHING;
