-- When a secret was kept in place of another; not noted for those that were kept before.
ALTER TABLE secret ADD COLUMN kept_at TIMESTAMP(9) WITH TIME ZONE;
