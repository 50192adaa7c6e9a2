-- The language in which readers are spoken to on a page; null goes by the site's.
ALTER TABLE "page" ADD COLUMN "language" text CHECK ("language" IN ('en', 'de', 'fr', 'es', 'pl', 'ar'));
